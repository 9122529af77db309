import { defineCalculator } from '../calculators/calculator.ts';
import { InputError, choice, optional, quantity } from '../calculators/fields.ts';
import { series } from '../calculators/structures.ts';
import { growthPotentials } from '../nutrients/nitrogenTables.ts';
import { type WorkingBook, figure } from '../working/working.ts';

const SOURCE = growthPotentials.source;

/**
 * The year's nitrogen by month, as the grass can grow.
 *
 * @param annual g/m²; `season` of the grass; `monthlyTemperature` mean air temperature of the 12 months, °C;
 *   `cap` g/m² for one month, none unless given: what a capped month cannot take goes to the others.
 * @returns `months` g/m², adding up to `annual`; `growthPotential` of each, 0 to 1.
 * @throws {InputError} when no month is warm enough to grow, or the cap is too small for the year.
 */
export const nitrogenSchedule = defineCalculator({
  name: 'nitrogen.schedule',
  title: 'Nitrogen by month',
  source: SOURCE,
  inputs: {
    annual: quantity('g/m2', { min: 0, max: 100 }),
    season: choice(['cool', 'warm'], { 'cool season': 'cool', 'warm season': 'warm' }),
    monthlyTemperature: series(quantity('C', { min: -50, max: 50 }), 'temperatures', { min: 12, max: 12 }),
    cap: optional(quantity('g/m2', { above: 0, max: 100 })),
  },
  outputs: { months: '[12] g/m2', growthPotential: '[12] number' },
  compute({ annual, season, monthlyTemperature, cap }, book) {
    const { best, spread } = growthPotentials[season];
    const growthPotential = monthlyTemperature.map((temperature) =>
      Math.exp(-0.5 * ((temperature - best) / spread) ** 2),
    );
    growthPotential.forEach((potential, index) =>
      book.step({
        label: `Growth potential of month ${index + 1}`,
        formula: 'exp(−½((T − To)/s)²)',
        numbers: `exp(−½((${figure(monthlyTemperature[index]!)} − ${best})/${spread})²)`,
        result: potential,
        unit: '',
        source: SOURCE,
      }),
    );
    if (growthPotential.reduce((sum, potential) => sum + potential, 0) < 1e-3)
      throw new InputError(
        'monthlyTemperature',
        `has no month in which a ${season}-season grass grows; check the unit: wanted °C`,
      );
    return { months: share(annual, growthPotential, cap, book), growthPotential };
  },
});

/** Shares by weight; what a full month cannot take goes to the others. */
function share(annual: number, weights: readonly number[], cap: number | undefined, book: WorkingBook): number[] {
  if (cap !== undefined && cap * weights.length < annual * (1 - 1e-9))
    throw new InputError(
      'cap',
      `was given ${figure(cap)} g/m²; twelve months of it hold less than the year’s ${figure(annual)} g/m²`,
    );
  const full = new Set<number>();
  for (;;) {
    const open = weights.reduce((sum, weight, index) => sum + (full.has(index) ? 0 : weight), 0);
    const left = annual - full.size * (cap ?? 0);
    // When only months without growth are left open, they share the rest evenly.
    const months = weights.map((weight, index) =>
      full.has(index) ? (cap ?? 0) : open > 0 ? (left * weight) / open : left / (weights.length - full.size),
    );
    const over =
      cap === undefined
        ? []
        : months.flatMap((month, index) => (month > cap * (1 + 1e-9) && !full.has(index) ? [index] : []));
    if (over.length === 0) {
      if (full.size > 0)
        book.cap(
          `At most ${figure(cap ?? 0)} g/m² in one month: what ${full.size} ${full.size === 1 ? 'month' : 'months'} could not take goes to the others.`,
        );
      return months;
    }
    over.forEach((index) => full.add(index));
  }
}
