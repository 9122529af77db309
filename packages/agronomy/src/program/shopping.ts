import { type UnitSystem, money } from '../units/present.ts';
import { type Figure, WorkingBook, figure } from '../working/working.ts';
import { deliveriesOf, isLoose, tellSupply, wholePacks } from '../remedies/supply.ts';
import { planned } from './balance.ts';
import { type VisitLine, type WorkSum, lacksPrice, visitLines, workSums } from './work.ts';
import type { WorkPrice } from '../settings/settings.ts';
import type { Supply, Treatment } from '../remedies/treatment.ts';

/** A zone with its treatments. */
export interface ZoneToSupply {
  readonly zoneId: string;
  readonly zone: string;
  readonly treatments: readonly Treatment[];
}

/** What of a material a zone takes, and its share of what is paid. */
export interface ZoneShare {
  readonly zoneId: string;
  readonly zone: string;
  /** kg, L or m³. */
  readonly quantity: number;
  /** By quantity; nothing while the material has no price. */
  readonly cost: number | null;
}

/** One material for the whole property. */
export interface Purchase {
  readonly materialId: string;
  readonly name: string;
  readonly unit: Supply['unit'];
  /** Over all zones. */
  readonly quantity: Figure;
  /** Packs that are there already. */
  readonly stock: number;
  readonly packSize: number;
  /** To buy; of what comes loose, m³. */
  readonly packs: Figure;
  readonly cost: Figure | null;
  /** What stays when all is spread. */
  readonly leftover: Figure;
  /** Packs that would be bought more if each zone opened packs of its own. */
  readonly fewer: number;
  readonly zones: readonly ZoneShare[];
}

/** What is wanted and stands in no list: no product of it is chosen. */
export interface Unlisted {
  readonly zone: string;
  readonly name: string;
  readonly told: string;
}

/** Work of others, or a machine, at the price that was told. */
export interface PricedWork {
  readonly zone: string;
  readonly name: string;
  readonly words: string;
  readonly price: number;
}

export interface ShoppingList {
  readonly purchases: readonly Purchase[];
  readonly work: readonly PricedWork[];
  /** Labour, hire and haulage over all zones. */
  readonly labour: readonly WorkSum[];
  readonly visits: readonly VisitLine[];
  /** Nothing while something that is bought has no price. */
  readonly cost: Figure | null;
  readonly unpriced: readonly string[];
  /** Work of which nobody has said what it costs: not in the sum. */
  readonly unpricedWork: ReadonlyArray<{ readonly zone: string; readonly name: string }>;
  /** What packs shared over the zones save against packs for each zone; nothing while a price is missing. */
  readonly saved: number | null;
  readonly unlisted: readonly Unlisted[];
}

interface Taken extends Omit<ZoneShare, 'cost'> {
  readonly packs: number;
}

function purchaseOf(
  first: Supply,
  taken: readonly Taken[],
  stock: number,
  price: number | null,
  system: UnitSystem,
  currency: string,
): Purchase {
  const { materialId, name, unit, packSize, byLoad, delivery } = first;
  const say = (value: number): string => tellSupply(value, unit, system);
  const book = new WorkingBook();
  const snapshot = (value: number): Figure => ({ value, working: book.entries });
  const all = taken.reduce((sum, { quantity }) => sum + quantity, 0);
  book.step({
    label: `${name} for all zones`,
    formula: 'sum of what each takes',
    numbers: taken.map(({ zone, quantity }) => `${zone} ${say(quantity)}`).join(' + '),
    result: all,
    unit,
  });
  const quantity = snapshot(all);
  const loose = isLoose(first);
  const count = wholePacks(all / packSize - stock, first, all / packSize);
  book.step({
    label: loose ? 'To order, loose' : byLoad === undefined ? 'Whole packs to buy' : 'Loads',
    formula: loose
      ? 'volume − what is there, rounded up to a tenth'
      : 'amount / pack − packs that are there, rounded up',
    numbers: `${say(all)} / ${say(packSize)} − ${figure(stock)} = ${figure(all / packSize - stock)}`,
    result: count,
    unit: loose ? 'm³' : `${byLoad === undefined ? 'pack' : 'load'}${count === 1 ? '' : 's'}`,
  });
  const packs = snapshot(count);
  const left = Math.max(0, (stock + count) * packSize - all);
  book.step({
    label: 'Left when all is spread',
    formula: '(packs that are there + packs bought) × pack − amount',
    numbers: `(${figure(stock)} + ${figure(count)}) × ${say(packSize)} − ${say(all)}`,
    result: left,
    unit,
  });
  const leftover = snapshot(left);
  // Last, so that no other number’s working tells a price.
  let cost: Figure | null = null;
  if (byLoad) {
    const paid = all * byLoad.perUnit + count * byLoad.perLoad;
    book.step({
      label: 'Cost, delivered',
      formula: 'volume × price + loads × haul',
      numbers: `${say(all)} × ${money(byLoad.perUnit, currency)} + ${figure(count)} × ${money(byLoad.perLoad, currency)}`,
      result: paid,
      unit: '$',
    });
    cost = snapshot(paid);
  } else if (price !== null || count === 0) {
    const paid = count * (price ?? 0);
    book.step({
      label: 'Cost',
      formula: 'packs × price of a pack',
      numbers: `${figure(count)} × ${price === null ? 'no price' : money(price, currency)}`,
      result: paid,
      unit: '$',
      source: 'The practice’s own price list',
    });
    const loads = delivery ? deliveriesOf(count * packSize, delivery) : 0;
    const whole = paid + loads * (delivery?.price ?? 0);
    if (delivery)
      book.step({
        label: 'With delivery',
        formula: 'packs + deliveries × price of one',
        numbers: `${money(paid, currency)} + ${loads} × ${money(delivery.price, currency)}`,
        result: whole,
        unit: '$',
        source: 'The practice’s own price list',
      });
    cost = snapshot(whole);
  }
  const apart = taken.reduce((sum, { packs: own }) => sum + own, 0);
  return {
    ...{ materialId, name, unit, quantity, stock, packSize, packs, cost, leftover },
    fewer: loose ? 0 : Math.max(0, wholePacks(apart - stock, first, apart) - count),
    zones: taken.map(({ packs: _own, ...zone }) => ({
      ...zone,
      cost: cost && (all > 0 ? (cost.value * zone.quantity) / all : 0),
    })),
  };
}

const suppliesOf = ({ supply, others }: Treatment): Supply[] => [...(supply ? [supply] : []), ...others];

/**
 * One list to buy for a property: every material once, in packs that its zones share.
 *
 * @param stockOf packs of a material that are there already; `priceOf` a pack, nothing where no price is set
 */
export function shoppingList(
  zones: readonly ZoneToSupply[],
  stockOf: (materialId: string) => number,
  priceOf: (materialId: string) => number | null,
  system: UnitSystem,
  currency: string,
  workPrices: readonly WorkPrice[] = [],
): ShoppingList {
  const takers = new Map<string, { readonly first: Supply; readonly taken: Taken[] }>();
  for (const { zoneId, zone, treatments } of zones)
    for (const supply of planned(treatments).flatMap(suppliesOf)) {
      const entry = takers.get(supply.materialId) ?? { first: supply, taken: [] };
      entry.taken.push({ zoneId, zone, quantity: supply.quantity.value, packs: supply.packs.value });
      takers.set(supply.materialId, entry);
    }
  const purchases = [...takers.values()].map(({ first, taken }) =>
    purchaseOf(first, taken, stockOf(first.materialId), priceOf(first.materialId), system, currency),
  );
  // What has to be bought comes first.
  purchases.sort((one, other) => Number(other.packs.value > 0) - Number(one.packs.value > 0));
  const work = zones.flatMap(({ zone, treatments }) =>
    planned(treatments).flatMap(({ name, words, price }): PricedWork[] =>
      price ? [{ zone, name, words, price: price.value }] : [],
    ),
  );
  const labour = workSums(zones, currency);
  const visits = visitLines(
    zones.flatMap(({ treatments }) => treatments),
    workPrices,
    currency,
  );
  const unpriced = [
    ...purchases.filter(({ cost }) => cost === null).map(({ name }) => name),
    ...new Set(zones.flatMap(({ treatments }) => planned(treatments).flatMap(({ workUnpriced = [] }) => workUnpriced))),
  ];
  const unpricedWork = zones.flatMap(({ zone, treatments }) =>
    treatments.filter(lacksPrice).map(({ name }) => ({ zone, name })),
  );
  const book = new WorkingBook();
  const lines = [
    ...purchases.map(({ name, cost }) => ({ name, price: cost?.value ?? 0 })),
    ...work.map(({ name, zone, price }) => ({ name: `${name}, ${zone}`, price })),
    ...[...labour, ...visits].map(({ name, cost }) => ({ name, price: cost?.value ?? 0 })),
  ];
  const total = lines.reduce((sum, { price }) => sum + price, 0);
  book.step({
    label: 'All of the property',
    formula: 'sum of whole packs and of work at their price',
    numbers: lines.map(({ name, price }) => `${name} ${money(price, currency)}`).join(' + ') || 'nothing to buy',
    result: total,
    unit: '$',
  });
  if (unpricedWork.length > 0)
    book.warn(
      `${unpricedWork.map(({ zone, name }) => `${name}, ${zone}`).join('; ')}: no price yet, and not in the sum.`,
    );
  const saved = purchases.reduce((sum, { fewer, materialId }) => sum + fewer * (priceOf(materialId) ?? 0), 0);
  return {
    purchases,
    work,
    labour,
    visits,
    cost: unpriced.length > 0 ? null : { value: total, working: book.entries },
    unpriced,
    unpricedWork,
    saved: unpriced.length > 0 ? null : saved,
    unlisted: zones.flatMap(({ zone, treatments }) =>
      treatments.flatMap(({ name, status, words }) => (status === 'open' ? [{ zone, name, told: words }] : [])),
    ),
  };
}
