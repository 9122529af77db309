import type { ShoppingList, Supply, Treatment, ZoneProgram } from '@glenfold/agronomy';

const uncosted = (supply: Supply): Supply => ({ ...supply, cost: null });

/** What was set by hand, without what a firm asks. */
export const withoutPrice = ({
  price: _price,
  ...values
}: Readonly<Record<string, unknown>>): Readonly<Record<string, unknown>> => values;

/** A treatment for somebody who sees no prices. */
const plain = (treatment: Treatment): Treatment => ({
  ...treatment,
  supply: treatment.supply && uncosted(treatment.supply),
  others: treatment.others.map(uncosted),
  price: null,
  values: withoutPrice(treatment.values),
});

/** What may be told of costs in a program. */
type Costed = Pick<ZoneProgram, 'treatments' | 'cost'> & Partial<Pick<ZoneProgram, 'unpriced'>>;

/** A program for somebody who sees no prices: what to spread, and not what it costs. */
export function programWithoutCosts<P extends Costed>(program: P): P {
  return {
    ...program,
    treatments: program.treatments.map(plain),
    cost: null,
    ...(program.unpriced ? { unpriced: [] } : {}),
  };
}

/** A list to buy without what it costs. */
export function listWithoutCosts(list: ShoppingList): ShoppingList {
  return {
    ...list,
    cost: null,
    unpriced: [],
    saved: null,
    work: [],
    purchases: list.purchases.map((purchase) => ({
      ...purchase,
      cost: null,
      zones: purchase.zones.map((zone) => ({ ...zone, cost: null })),
    })),
  };
}
