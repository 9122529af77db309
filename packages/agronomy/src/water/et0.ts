import { defineCalculator } from '../calculators/calculator.ts';
import { InputError, quantity } from '../calculators/fields.ts';
import { figure } from '../working/working.ts';

const RADIATION = 'Allen et al. (1998), FAO Irrigation and Drainage Paper 56, equations 21 to 25';
const HARGREAVES = 'Hargreaves & Samani (1985), Applied Engineering in Agriculture 1:96–99; FAO-56 equation 52';
/** MJ/m²/min */
const SOLAR_CONSTANT = 0.082;
/** MJ that evaporate 1 mm over 1 m². */
const LATENT_HEAT = 2.45;

/**
 * Reference evapotranspiration of a day from its extremes of temperature.
 *
 * @param latitude °, south negative; `dayOfYear` 1 to 366; `tMin`, `tMax` °C.
 * @returns `et0` mm/day, never negative; `radiation` outside the atmosphere, MJ/m²/day.
 * @throws {InputError} when the day's maximum is below its minimum.
 */
export const waterEt0 = defineCalculator({
  name: 'water.et0',
  title: 'Reference evapotranspiration',
  source: `${HARGREAVES}; ${RADIATION}`,
  inputs: {
    latitude: quantity('', { min: -90, max: 90 }),
    dayOfYear: quantity('', { min: 1, max: 366, whole: true }),
    tMin: quantity('C', { min: -60, max: 60 }),
    tMax: quantity('C', { min: -60, max: 60 }),
  },
  outputs: { et0: 'mm/d', radiation: 'MJ/m²/day' },
  compute({ latitude, dayOfYear, tMin, tMax }, book) {
    if (tMax < tMin)
      throw new InputError(
        'tMax',
        `was given ${figure(tMax)} °C; wanted at least the minimum of the day, ${figure(tMin)} °C`,
      );
    const phi = (latitude * Math.PI) / 180;
    const turn = (2 * Math.PI * dayOfYear) / 365;
    const distance = 1 + 0.033 * Math.cos(turn);
    const declination = 0.409 * Math.sin(turn - 1.39);
    // Beyond the polar circles the sun does not set, or does not rise.
    const sunset = Math.acos(Math.min(1, Math.max(-1, -Math.tan(phi) * Math.tan(declination))));
    const radiation =
      ((24 * 60) / Math.PI) *
      SOLAR_CONSTANT *
      distance *
      (sunset * Math.sin(phi) * Math.sin(declination) + Math.cos(phi) * Math.cos(declination) * Math.sin(sunset));
    book.step({
      label: 'Radiation outside the atmosphere',
      formula: 'Ra = 24·60/π × 0.082 × dr × (ωs sin φ sin δ + cos φ cos δ sin ωs)',
      numbers: `dr ${figure(distance)}, δ ${figure(declination)}, ωs ${figure(sunset)}, φ ${figure(phi)}`,
      result: radiation,
      unit: 'MJ/m²/day',
      source: RADIATION,
    });
    const mean = (tMin + tMax) / 2;
    const et0 = Math.max(0, (0.0023 * (mean + 17.8) * Math.sqrt(tMax - tMin) * Math.max(0, radiation)) / LATENT_HEAT);
    book.step({
      label: 'Reference evapotranspiration',
      formula: 'ET₀ = 0.0023 (Tmean + 17.8) √(Tmax − Tmin) Ra / 2.45',
      numbers: `0.0023 × (${figure(mean)} + 17.8) × √${figure(tMax - tMin)} × ${figure(radiation)} / 2.45`,
      result: et0,
      unit: 'mm/d',
      source: HARGREAVES,
    });
    return { et0, radiation };
  },
});
