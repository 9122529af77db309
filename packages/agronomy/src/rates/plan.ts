import { type Reading, type SoilTest, type ZoneFacts, readZone } from '../reading/reading.ts';
import type { UnitSystem } from '../units/present.ts';
import { type Figure, WorkingBook } from '../working/working.ts';
import { type LimeAdvice, type LimeComparison, adviseLime, compareLime } from './lime.ts';
import { type NutrientAdvice, adviseNutrients } from './nutrients.ts';
import { type Product, type Purpose, purposes, suggestProduct } from './product.ts';

/** A product chosen by the advisor for a purpose, by id; nothing means the suggestion. */
export type ProductChoices = Readonly<Partial<Record<Purpose, string>>>;

/** All that a zone should be given, and why. */
export interface ZonePlan {
  readonly lime: LimeAdvice;
  readonly nutrients: readonly NutrientAdvice[];
  readonly comparisons: readonly LimeComparison[];
  /** Which product stands in for each purpose. */
  readonly products: Readonly<Partial<Record<Purpose, string>>>;
  /** Nothing while a product that is due has no price. */
  readonly cost: Figure | null;
  readonly unpriced: readonly string[];
  /** What need not be bought. */
  readonly leftOut: readonly string[];
}

export interface TestedZone {
  readonly zone: ZoneFacts;
  readonly test: SoilTest;
}

function totalCost(lime: LimeAdvice, nutrients: readonly NutrientAdvice[]): Pick<ZonePlan, 'cost' | 'unpriced'> {
  const amounts = [lime.amount, ...nutrients.map(({ amount }) => amount)].filter((amount) => amount !== null);
  const unpriced = amounts.filter(({ cost }) => cost === null).map(({ productName }) => productName);
  if (unpriced.length > 0) return { cost: null, unpriced };
  const book = new WorkingBook();
  const value = amounts.reduce((sum, { cost }) => sum + (cost?.value ?? 0), 0);
  const lines = amounts.map(({ productName, cost }) => `${productName} $${(cost?.value ?? 0).toFixed(2)}`);
  book.step({
    label: 'Products for the zone',
    formula: 'sum of whole bags at their price',
    numbers: lines.join(' + ') || 'nothing to buy',
    result: value,
    unit: '$',
  });
  book.warn('Each zone buys its own whole bags here; bags shared between zones cost less.');
  return { cost: { value, working: book.entries }, unpriced };
}

/**
 * The plan of one zone from its newest test.
 *
 * @param others tested zones of the site, to explain lime that differs at the same pH.
 * @param system sets the increments that rates are rounded to, and the units inside sentences.
 */
export function planZone(
  { zone, test }: TestedZone,
  products: readonly Product[],
  choices: ProductChoices,
  others: readonly TestedZone[],
  system: UnitSystem,
): { readonly reading: Reading; readonly plan: ZonePlan } {
  const reading = readZone(zone, test);
  const chosen = Object.fromEntries(
    purposes.map((purpose) => [
      purpose,
      products.find(({ id, purpose: own }) => own === purpose && id === choices[purpose]) ??
        suggestProduct(purpose, products, reading),
    ]),
  ) as Record<Purpose, Product | undefined>;

  const lime = adviseLime(zone, test, chosen.lime, system);
  const nutrients = adviseNutrients(zone, test, reading, chosen, system);
  const comparisons = others.flatMap((other) => {
    const advice = adviseLime(other.zone, other.test, undefined, system);
    return compareLime({ zone, test, advice: lime }, { ...other, advice }, chosen.lime, system) ?? [];
  });
  const leftOut = [
    ...(lime.status === 'none' || lime.status === 'too high' ? ['Lime'] : []),
    ...nutrients.filter(({ status }) => status === 'none').map(({ name }) => name),
  ];
  return {
    reading,
    plan: {
      lime,
      nutrients,
      comparisons,
      products: Object.fromEntries(
        purposes.flatMap((purpose) => (chosen[purpose] ? [[purpose, chosen[purpose].id]] : [])),
      ),
      ...totalCost(lime, nutrients),
      leftOut,
    },
  };
}
