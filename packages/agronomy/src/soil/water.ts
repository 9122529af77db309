import { defineCalculator } from '../calculators/calculator.ts';
import { InputError, quantity } from '../calculators/fields.ts';
import { figure } from '../working/working.ts';

const SOURCE = 'Saxton & Rawls (2006), Soil Sci. Soc. Am. J. 70:1569–1578, equations 1–6, 15 and 16';

/**
 * Water held and passed by a soil, from texture and organic matter.
 *
 * @param sand, clay, organicMatter %.
 * @returns water contents m³/m³, `conductivity` mm/h when saturated, `bulkDensity` g/cm³.
 * @throws {InputError} when sand and clay pass 100 %.
 * @see Saxton & Rawls (2006)
 */
export const soilWater = defineCalculator({
  name: 'soil.water',
  title: 'Soil water from texture',
  source: SOURCE,
  inputs: {
    sand: quantity('%', { min: 0, max: 100 }),
    clay: quantity('%', { min: 0, max: 100 }),
    organicMatter: quantity('%', { min: 0, max: 30 }),
  },
  outputs: {
    wiltingPoint: 'm3/m3',
    fieldCapacity: 'm3/m3',
    saturation: 'm3/m3',
    availableWater: 'm3/m3',
    conductivity: 'mm/h',
    bulkDensity: 'g/cm3',
  },
  compute({ sand, clay, organicMatter: om }, book) {
    if (sand + clay > 100)
      throw new InputError(
        'clay',
        `was given ${figure(clay)}; with ${figure(sand)} % sand, wanted 0 to ${figure(100 - sand)} %`,
      );
    const s = sand / 100;
    const c = clay / 100;
    const step = (label: string, formula: string, result: number, unit = 'm3/m3'): number => {
      book.step({
        label,
        formula,
        numbers: `S ${figure(s)}, C ${figure(c)}, OM ${figure(om)} %`,
        result,
        unit,
        source: SOURCE,
      });
      return result;
    };
    const t1500 = -0.024 * s + 0.487 * c + 0.006 * om + 0.005 * s * om - 0.013 * c * om + 0.068 * s * c + 0.031;
    const wiltingPoint = step('Wilting point, 1500 kPa', 'θ1500 = t + (0.14 t − 0.02)', t1500 + (0.14 * t1500 - 0.02));
    const t33 = -0.251 * s + 0.195 * c + 0.011 * om + 0.006 * s * om - 0.027 * c * om + 0.452 * s * c + 0.299;
    const fieldCapacity = step(
      'Field capacity, 33 kPa',
      'θ33 = t + (1.283 t² − 0.374 t − 0.015)',
      t33 + (1.283 * t33 ** 2 - 0.374 * t33 - 0.015),
    );
    const tS = 0.278 * s + 0.034 * c + 0.022 * om - 0.018 * s * om - 0.027 * c * om - 0.584 * s * c + 0.078;
    const thetaS33 = tS + (0.636 * tS - 0.107);
    const saturation = step(
      'Saturation',
      'θs = θ33 + θs−33 − 0.097 S + 0.043',
      fieldCapacity + thetaS33 - 0.097 * s + 0.043,
    );
    if (!(wiltingPoint > 0 && fieldCapacity > wiltingPoint && saturation > fieldCapacity)) {
      throw new InputError(
        'clay',
        `was given ${figure(clay)} with ${figure(sand)} % sand and ${figure(om)} % organic matter, where the equations give no physical soil; wanted a mix within their range (clay to 60 %, organic matter to 8 %)`,
      );
    }
    const b = (Math.log(1500) - Math.log(33)) / (Math.log(fieldCapacity) - Math.log(wiltingPoint));
    const conductivity = step(
      'Saturated conductivity',
      'Ks = 1930 (θs − θ33)^(3 − 1/B)',
      1930 * (saturation - fieldCapacity) ** (3 - 1 / b),
      'mm/h',
    );
    const bulkDensity = step('Bulk density', '2.65 (1 − θs)', 2.65 * (1 - saturation), 'g/cm3');
    if (clay > 60 || om > 8)
      book.warn('Outside the data the equations were made from (clay to 60 %, organic matter to 8 %).', SOURCE);
    return {
      wiltingPoint,
      fieldCapacity,
      saturation,
      availableWater: fieldCapacity - wiltingPoint,
      conductivity,
      bulkDensity,
    };
  },
});
