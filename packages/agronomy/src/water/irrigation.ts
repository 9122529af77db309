import { defineCalculator } from '../calculators/calculator.ts';
import { type Field, InputError, choice, defaulted, quantity } from '../calculators/fields.ts';
import { readTable } from '../calculators/table.ts';
import cropData from '../data/crop-factors.json' with { type: 'json' };
import { figure } from '../working/working.ts';

const factor = () => quantity('', { min: 0.01, max: 1.5 });
/** Share of reference evapotranspiration that a grass uses. */
export const cropFactors = {
  california: readTable('crop-factors.california', { cool: factor(), warm: factor() }, cropData.california),
  'fao-56': readTable('crop-factors.fao-56', { cool: factor(), warm: factor() }, cropData['fao-56']),
} as const;
/** The factors by name; the California trials' are meant when no source is named. */
const namedFactors: Readonly<Record<string, number>> = {
  'cool season': cropFactors.california.cool,
  'warm season': cropFactors.california.warm,
  'cool season fao-56': cropFactors['fao-56'].cool,
  'warm season fao-56': cropFactors['fao-56'].warm,
};
const names = choice(Object.keys(namedFactors));

/** A crop factor as a number, or by season. */
export const cropFactorField: Field<number, false> = {
  description: `${factor().description}; or ${names.description}`,
  optional: false,
  shape: { kind: 'text' },
  read: (raw, path) =>
    typeof raw === 'string' && /[a-z]/i.test(raw) ? namedFactors[names.read(raw, path)]! : factor().read(raw, path),
};

/**
 * Watering in cycles that soak in before water runs off.
 *
 * @param precipitationRate of the sprinklers and `infiltration` of the soil, mm/h; `depth` to apply, mm;
 *   `storage` that the surface holds, mm.
 * @returns `cycles` with minutes to `run` and to `soak` before the next (full cycles first, the rest last, no soak
 *   after it); `total` mm.
 * @throws {InputError} when nothing soaks in and the surface cannot hold the depth.
 */
export const waterCycleSoak = defineCalculator({
  name: 'water.cycleSoak',
  title: 'Cycle and soak',
  source: 'Water balance of the surface: what falls beyond infiltration is stored until the storage is full',
  inputs: {
    precipitationRate: quantity('mm/h', { above: 0, max: 500 }),
    infiltration: quantity('mm/h', { min: 0, max: 1000 }),
    depth: quantity('mm', { above: 0, max: 200 }),
    storage: defaulted(quantity('mm', { min: 0, max: 50 }), 5),
  },
  outputs: { cycles: '[{run min, soak min}]', total: 'mm' },
  compute({ precipitationRate, infiltration, depth, storage }, book) {
    const whole = (60 * depth) / precipitationRate;
    const surplus = precipitationRate - infiltration;
    const longest = surplus <= 0 ? whole : Math.min(whole, (60 * storage) / surplus);
    book.step({
      label: 'Longest run before water runs off',
      formula:
        surplus <= 0
          ? 'all of it: the soil takes in as fast as it rains'
          : 'storage / (precipitation rate − infiltration)',
      numbers:
        surplus <= 0
          ? `${figure(precipitationRate)} ≤ ${figure(infiltration)} mm/h`
          : `${figure(storage)} mm / (${figure(precipitationRate)} − ${figure(infiltration)}) mm/h`,
      result: longest,
      unit: 'min',
    });
    if (longest < 0.5 || (infiltration === 0 && longest < whole - 1e-9))
      throw new InputError(
        infiltration === 0 ? 'infiltration' : 'storage',
        `was given ${figure(infiltration === 0 ? infiltration : storage)}; water runs off before half a minute of a cycle has soaked in: core the surface, or use sprinklers of a lower rate`,
      );
    const count = Math.ceil(whole / longest - 1e-9);
    const soakAfter = (run: number): number => (surplus <= 0 ? 0 : (surplus * run) / infiltration);
    const cycles = Array.from({ length: count }, (_, index) => {
      const last = index === count - 1;
      const run = last ? whole - longest * (count - 1) : longest;
      return { run, soak: last ? 0 : soakAfter(run) };
    });
    book.step({
      label: 'Cycles',
      formula: 'time for the whole depth / longest run, rounded up',
      numbers: `${figure(whole)} min / ${figure(longest)} min`,
      result: count,
      unit: 'cycles',
    });
    return { cycles, total: depth };
  },
});

/**
 * Water that the roots can use, and how long it lasts.
 *
 * @param availableWater m³/m³; `rootDepth` cm; `depletion` % that may be used before watering; `et0` mm/day;
 *   `cropFactor` of the grass, a number or `cool season` (0.8) or `warm season` (0.6; FAO-56 has 0.95 and 0.85 by name).
 * @returns `water` mm; `days` to the next watering.
 */
export const waterReserve = defineCalculator({
  name: 'water.reserve',
  title: 'Water in the root zone',
  source: 'Allen et al. (1998), FAO Irrigation and Drainage Paper 56, equations 82 and 83',
  inputs: {
    availableWater: quantity('', { min: 0, max: 0.6 }),
    rootDepth: quantity('cm', { above: 0, max: 300 }),
    depletion: defaulted(quantity('%', { above: 0, max: 100 }), 50),
    et0: quantity('mm/d', { min: 0.01, max: 20 }),
    cropFactor: cropFactorField,
  },
  outputs: { water: 'mm', days: 'days' },
  compute({ availableWater, rootDepth, depletion, et0, cropFactor }, book) {
    const water = (availableWater * rootDepth * 10 * depletion) / 100;
    book.step({
      label: 'Water that may be used',
      formula: 'available water × root depth × depletion',
      numbers: `${figure(availableWater)} × ${figure(rootDepth * 10)} mm × ${figure(depletion)} %`,
      result: water,
      unit: 'mm',
    });
    const days = water / (et0 * cropFactor);
    book.step({
      label: 'Days to the next watering',
      formula: 'water / (ET₀ × crop factor)',
      numbers: `${figure(water)} mm / (${figure(et0)} × ${figure(cropFactor)} mm/day)`,
      result: days,
      unit: 'days',
    });
    return { water, days };
  },
});
