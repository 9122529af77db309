import { type UnitSystem, money, present } from '../units/present.ts';
import { type Figure, WorkingBook, figure } from '../working/working.ts';
import type { ProductAmount } from './amount.ts';
import type { ZonePlan } from './plan.ts';

/** A zone with its plan. */
export interface PlannedZone {
  readonly zoneId: string;
  readonly zone: string;
  readonly plan: Pick<ZonePlan, 'lime' | 'nutrients' | 'verdicts'>;
}

/** What of a product a zone takes, and its share of what is paid. */
export interface ZoneShare {
  readonly zoneId: string;
  readonly zone: string;
  /** kg */
  readonly mass: number;
  /** By mass; nothing while the product has no price. */
  readonly cost: number | null;
}

/** One product for the whole property. */
export interface Purchase {
  readonly productId: string;
  readonly productName: string;
  /** kg over all zones. */
  readonly mass: Figure;
  /** Bags that are there already. */
  readonly stock: number;
  /** kg */
  readonly bagMass: number;
  /** To buy. */
  readonly bags: Figure;
  readonly cost: Figure | null;
  /** kg that stay when all is spread. */
  readonly leftover: Figure;
  /** Bags that would be bought more if each zone opened bags of its own. */
  readonly fewer: number;
  readonly zones: readonly ZoneShare[];
}

/** What is wanted and stands in no list: no product of it is chosen here. */
export interface Unlisted {
  readonly zone: string;
  readonly name: string;
  readonly told: string;
}

export interface ShoppingList {
  readonly purchases: readonly Purchase[];
  /** Nothing while a product that is bought has no price. */
  readonly cost: Figure | null;
  readonly unpriced: readonly string[];
  /** What bags shared over the zones save against bags for each zone; nothing while a price is missing. */
  readonly saved: number | null;
  readonly unlisted: readonly Unlisted[];
}

/** A zone's amounts of the first year. */
const amountsOf = ({ plan }: PlannedZone): ProductAmount[] =>
  [plan.lime.amount, ...plan.nutrients.map(({ amount }) => amount)].filter((amount) => amount !== null);

interface Taken extends Omit<ZoneShare, 'cost'> {
  readonly bags: number;
}

function purchaseOf(
  first: ProductAmount,
  taken: readonly Taken[],
  stock: number,
  bagPrice: number | null,
  system: UnitSystem,
  currency: string,
): Purchase {
  const { productId, productName, bagMass } = first;
  const say = (kilograms: number): string => present('mass', kilograms, system).text;
  const book = new WorkingBook();
  const snapshot = (value: number): Figure => ({ value, working: book.entries });
  const kilograms = taken.reduce((sum, { mass }) => sum + mass, 0);
  book.step({
    label: `${productName} for all zones`,
    formula: 'sum of what each takes',
    numbers: taken.map(({ zone, mass }) => `${zone} ${say(mass)}`).join(' + '),
    result: kilograms,
    unit: 'kg',
  });
  const mass = snapshot(kilograms);
  const count = Math.max(0, Math.ceil(kilograms / bagMass - stock - 1e-9));
  book.step({
    label: 'Whole bags to buy',
    formula: 'mass / bag − bags that are there, rounded up',
    numbers: `${say(kilograms)} / ${say(bagMass)} − ${figure(stock)} = ${figure(kilograms / bagMass - stock)}`,
    result: count,
    unit: 'bags',
  });
  const bags = snapshot(count);
  const left = (stock + count) * bagMass - kilograms;
  book.step({
    label: 'Left when all is spread',
    formula: '(bags that are there + bags bought) × bag − mass',
    numbers: `(${figure(stock)} + ${count}) × ${say(bagMass)} − ${say(kilograms)}`,
    result: left,
    unit: 'kg',
  });
  const leftover = snapshot(left);
  // Last, so that no other number’s working tells a price.
  let cost: Figure | null = null;
  if (bagPrice !== null || count === 0) {
    const price = count * (bagPrice ?? 0);
    book.step({
      label: 'Cost',
      formula: 'bags × price of a bag',
      numbers: `${count} × ${bagPrice === null ? 'no price' : money(bagPrice, currency)}`,
      result: price,
      unit: '$',
      source: 'The practice’s own price list',
    });
    cost = snapshot(price);
  }
  return {
    productId,
    productName,
    mass,
    stock,
    bagMass,
    bags,
    cost,
    leftover,
    fewer: Math.max(0, Math.ceil(taken.reduce((sum, { bags: own }) => sum + own, 0) - stock - 1e-9)) - count,
    zones: taken.map(({ bags: _own, ...zone }) => ({
      ...zone,
      cost: cost && (kilograms > 0 ? (cost.value * zone.mass) / kilograms : 0),
    })),
  };
}

/**
 * One list to buy for a property: every product once, in bags that its zones share.
 *
 * @param stockOf bags of a product that are there already; `priceOf` a bag, nothing where no price is set
 */
export function shoppingList(
  zones: readonly PlannedZone[],
  stockOf: (productId: string) => number,
  priceOf: (productId: string) => number | null,
  system: UnitSystem,
  currency: string,
): ShoppingList {
  const takers = new Map<string, { readonly first: ProductAmount; readonly taken: Taken[] }>();
  for (const planned of zones)
    for (const amount of amountsOf(planned)) {
      const entry = takers.get(amount.productId) ?? { first: amount, taken: [] };
      const { zoneId, zone } = planned;
      entry.taken.push({ zoneId, zone, mass: amount.mass.value, bags: amount.bags.value });
      takers.set(amount.productId, entry);
    }
  const purchases = [...takers.values()].map(({ first, taken }) =>
    purchaseOf(first, taken, stockOf(first.productId), priceOf(first.productId), system, currency),
  );
  // What has to be bought comes first.
  purchases.sort((one, other) => Number(other.bags.value > 0) - Number(one.bags.value > 0));
  const unpriced = purchases.filter(({ cost }) => cost === null).map(({ productName }) => productName);
  const book = new WorkingBook();
  const total = purchases.reduce((sum, { cost }) => sum + (cost?.value ?? 0), 0);
  book.step({
    label: 'All products of the property',
    formula: 'sum of whole bags at their price',
    numbers:
      purchases.map(({ productName, cost }) => `${productName} ${money(cost?.value ?? 0, currency)}`).join(' + ') ||
      'nothing to buy',
    result: total,
    unit: '$',
  });
  const saved = purchases.reduce((sum, { fewer, productId }) => sum + fewer * (priceOf(productId) ?? 0), 0);
  return {
    purchases,
    cost: unpriced.length > 0 ? null : { value: total, working: book.entries },
    unpriced,
    saved: unpriced.length > 0 ? null : saved,
    unlisted: zones.flatMap(({ zone, plan }) =>
      plan.verdicts.flatMap(({ name, status, told }) => (status === 'due' && told ? [{ zone, name, told }] : [])),
    ),
  };
}
