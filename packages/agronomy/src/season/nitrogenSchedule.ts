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
 *   `cap` g/m² for one month, none unless given: what a capped month cannot take goes to months in which the grass
 *   grows (potential 0.2 or more), and what finds no room is told.
 * @returns `months` g/m²; `growthPotential` of each, 0 to 1; `unplaced` g/m², what no growing month had room for.
 * @throws {InputError} when no month is warm enough to grow.
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
  outputs: { months: '[12] g/m2', growthPotential: '[12] number', unplaced: 'g/m2' },
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
    const months = share(annual, growthPotential, cap, book);
    const unplaced = Math.max(0, annual - months.reduce((sum, month) => sum + month, 0));
    return { months, growthPotential, unplaced: unplaced < annual * 1e-9 ? 0 : unplaced };
  },
});

/** Growth potential from which a month may take what another could not. */
const GROWS = 0.2;

/** Shares by weight; what a full month cannot take goes to the others that grow, and the rest to none. */
function share(annual: number, weights: readonly number[], cap: number | undefined, book: WorkingBook): number[] {
  const sum = weights.reduce((all, weight) => all + weight, 0);
  const months = weights.map((weight) => (annual * weight) / sum);
  if (cap === undefined || months.every((month) => month <= cap * (1 + 1e-9))) return months;
  const capped = months.map((month) => Math.min(month, cap));
  let open = annual - capped.reduce((all, month) => all + month, 0);
  while (open > annual * 1e-12) {
    const room = capped.flatMap((month, index) => (month < cap && weights[index]! >= GROWS ? [index] : []));
    if (room.length === 0) break;
    const weight = room.reduce((all, index) => all + weights[index]!, 0);
    const before = open;
    for (const index of room) {
      const more = Math.min((before * weights[index]!) / weight, cap - capped[index]!);
      capped[index]! += more;
      open -= more;
    }
  }
  const full = capped.filter((month) => month >= cap * (1 - 1e-9)).length;
  book.cap(
    `At most ${figure(cap)} g/m² in one month: what ${full} ${full === 1 ? 'month' : 'months'} could not take goes to other months with a growth potential of ${GROWS} or more.`,
  );
  if (open > annual * 1e-9)
    book.warn(
      `${figure(open)} g/m² finds no room in months that grow: give less this year, or more slow nitrogen in a pass.`,
    );
  return capped;
}
