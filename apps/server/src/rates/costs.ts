import type { ShoppingList, Supply, Treatment, ZoneProgram } from '@glenfold/agronomy';

const uncosted = ({ byLoad: _byLoad, delivery: _delivery, ...supply }: Supply): Supply => ({ ...supply, cost: null });

/**
 * Words for somebody who sees no prices: what stands in brackets with an amount of money goes, and so does every
 * sentence that tells one.
 *
 * @param currency sign of the practice’s money
 */
export function wordsWithoutMoney(text: string, currency: string): string {
  const sign = currency.replaceAll(/[.*+?^${}()|[\]\\]/g, (letter) => `\\${letter}`);
  const amount = new RegExp(`(?:${sign}|[$€£]) ?\\d|\\d ?(?:${sign}|[€£])`);
  const bare = text.replaceAll(/ ?\([^()]*\)/g, (inner) => (amount.test(inner) ? '' : inner));
  return bare
    .split('\n')
    .map((line) =>
      line
        .split(/(?<=[.!?]) +/)
        .filter((sentence) => !amount.test(sentence))
        .join(' '),
    )
    .join('\n');
}

/** What was set by hand, without what a firm asks. */
export const withoutPrice = ({
  price: _price,
  pricePerVolume: _perVolume,
  haul: _haul,
  ...values
}: Readonly<Record<string, unknown>>): Readonly<Record<string, unknown>> => values;

/** A treatment for somebody who sees no prices. */
const plain = (treatment: Treatment): Treatment => ({
  ...treatment,
  supply: treatment.supply && uncosted(treatment.supply),
  others: treatment.others.map(uncosted),
  price: null,
  ...(treatment.work
    ? { work: treatment.work.map((line) => ({ ...line, price: null, cost: null })), workUnpriced: [] }
    : {}),
  values: withoutPrice(treatment.values),
});

/** What may be told of costs in a program. */
type Costed = Pick<ZoneProgram, 'treatments' | 'cost'> &
  Partial<Pick<ZoneProgram, 'unpriced' | 'unpricedWork' | 'visits' | 'usual' | 'besideLab'>>;

/** A program for somebody who sees no prices: what to spread, and not what it costs. */
export function programWithoutCosts<P extends Costed>(program: P): P {
  return {
    ...program,
    treatments: program.treatments.map(plain),
    cost: null,
    ...(program.unpriced ? { unpriced: [] } : {}),
    ...(program.besideLab ? { besideLab: program.besideLab.map((line) => ({ ...line, saved: null })) } : {}),
    ...(program.usual ? { usual: { ...program.usual, saved: null } } : {}),
    ...(program.unpricedWork ? { unpricedWork: [] } : {}),
    ...(program.visits ? { visits: program.visits.map((line) => ({ ...line, cost: null })) } : {}),
  };
}

/** A list to buy without what it costs. */
export function listWithoutCosts(list: ShoppingList): ShoppingList {
  return {
    ...list,
    cost: null,
    unpriced: [],
    unpricedWork: [],
    saved: null,
    work: [],
    labour: list.labour.map((line) => ({ ...line, cost: null })),
    visits: list.visits.map((line) => ({ ...line, cost: null })),
    purchases: list.purchases.map((purchase) => ({
      ...purchase,
      cost: null,
      zones: purchase.zones.map((zone) => ({ ...zone, cost: null })),
    })),
  };
}
