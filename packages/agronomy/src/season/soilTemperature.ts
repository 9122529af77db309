import { defineCalculator } from '../calculators/calculator.ts';
import { InputError, quantity } from '../calculators/fields.ts';
import { listOf, series } from '../calculators/structures.ts';
import { readTable } from '../calculators/table.ts';
import data from '../data/soil-temperature.json' with { type: 'json' };
import { figure } from '../working/working.ts';

/** Days by which the soil follows the air, by depth in cm, and the days whose mean it starts from. */
export const soilTemperatureTable = readTable(
  'soil-temperature',
  {
    startDays: quantity('', { min: 1, max: 60, whole: true }),
    depths: listOf(
      { depth: quantity('cm', { above: 0, max: 100 }), days: quantity('', { above: 0, max: 60 }) },
      'depths',
      { min: 1, max: 10 },
    ),
  },
  data,
);
const depthsTold = soilTemperatureTable.depths.map(({ depth }) => depth).join(', ');

/**
 * Soil temperature from the means of the air, day by day.
 *
 * @param air daily means, °C, one after another; @param depth cm, one of the table
 * @throws {InputError} for another depth
 */
export function soilFromAir(air: readonly number[], depth: number): number[] {
  const { startDays, depths } = soilTemperatureTable;
  const lag = depths.find((entry) => Math.abs(entry.depth - depth) < 1e-6);
  if (!lag) throw new InputError('depth', `was given ${figure(depth)} cm; wanted one of ${depthsTold} cm`);
  const first = air.slice(0, startDays);
  const step = 1 - Math.exp(-1 / lag.days);
  let soil = first.reduce((sum, one) => sum + one, 0) / Math.max(1, first.length);
  return air.map((one) => (soil += step * (one - soil)));
}

/**
 * Soil temperature from daily means of the air: the soil follows, the later the deeper.
 *
 * @param air °C, the mean of each day in turn; `depth` 5, 10 or 20 cm.
 * @returns `soil` °C of each day. It starts from the mean of the first seven days, and the first day is a step already.
 * @throws {InputError} for another depth.
 */
export const soilTemperature = defineCalculator({
  name: 'soil.temperature',
  title: 'Soil temperature from the air',
  source: soilTemperatureTable.source,
  inputs: {
    air: series(quantity('C', { min: -60, max: 60 }), 'days', { min: 1, max: 4000 }),
    depth: quantity('cm', { above: 0, max: 100 }),
  },
  outputs: { soil: '[C]' },
  compute({ air, depth }, book) {
    const soil = soilFromAir(air, depth);
    const { days } = soilTemperatureTable.depths.find((entry) => Math.abs(entry.depth - depth) < 1e-6)!;
    book.step({
      label: `The last day, at ${figure(depth)} cm`,
      formula: 'yesterday + (1 − exp(−1/τ)) × (air − yesterday)',
      numbers: `τ ${figure(days)} days; air ${figure(air.at(-1)!)} °C`,
      result: soil.at(-1)!,
      unit: 'C',
      source: soilTemperatureTable.source,
    });
    return { soil };
  },
});
