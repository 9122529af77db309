import type { Treatment } from '../remedies/treatment.ts';
import { tellSupply } from '../remedies/supply.ts';
import { type UnitSystem, present } from '../units/present.ts';
import { planned } from './balance.ts';
import { monthName } from '../units/monthOf.ts';
import { zoneShare } from './sections.ts';
import type { ShoppingList, ZoneToSupply } from './shopping.ts';
import { lacksPrice } from './work.ts';

/** One treatment of one zone as it is offered to an owner. */
export interface OfferedLine {
  readonly zoneId: string;
  readonly zone: string;
  readonly key: string;
  readonly name: string;
  readonly words: string;
  readonly amount: string;
  readonly when: string;
  readonly caution: string | null;
  /** Its share of what is bought and hired for all, with its own work; nothing while a price is missing. */
  readonly price: number | null;
}

/** "April and September 2027". */
function whenOf({ doses }: Treatment): string {
  const months = [...new Set(doses.flatMap(({ from }) => from?.slice(0, 7) ?? []))];
  const byYear = new Map<string, string[]>();
  for (const month of months) {
    const [year = '', number] = month.split('-');
    byYear.set(year, [...(byYear.get(year) ?? []), monthName(Number(number))]);
  }
  const list = (names: readonly string[]): string =>
    names.length < 2 ? names.join('') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`;
  return [...byYear].map(([year, names]) => `${list(names)} ${year}`).join(', ');
}

const isPriced = (treatment: Treatment, list: ShoppingList): boolean =>
  !lacksPrice(treatment) &&
  (treatment.workUnpriced ?? []).length === 0 &&
  [...(treatment.supply ? [treatment.supply] : []), ...treatment.others].every(
    ({ materialId }) => list.purchases.find((purchase) => purchase.materialId === materialId)?.cost !== null,
  );

/** A zone that takes one treatment only, of the things that are bought for all. */
function shareOf(zone: ZoneToSupply, treatment: Treatment, list: ShoppingList): number {
  const own = [...(treatment.supply ? [treatment.supply] : []), ...treatment.others];
  const of = (materialId: string): number =>
    planned(zone.treatments)
      .flatMap(({ supply, others }) => [...(supply ? [supply] : []), ...others])
      .filter((supply) => supply.materialId === materialId)
      .reduce((sum, { quantity }) => sum + quantity.value, 0);
  const bought = own.reduce((sum, { materialId, quantity }) => {
    const share = list.purchases
      .find((purchase) => purchase.materialId === materialId)
      ?.zones.filter(({ zoneId }) => zoneId === zone.zoneId)
      .reduce((all, { cost }) => all + (cost ?? 0), 0);
    const all = of(materialId);
    return sum + (all > 0 ? ((share ?? 0) * quantity.value) / all : 0);
  }, 0);
  const none = { ...list, purchases: [] };
  return bought + zoneShare({ ...zone, treatments: [treatment] }, none);
}

/** A site’s program as lines that can be accepted or declined one by one; visits stand beside them. */
export interface OfferedYear {
  readonly lines: readonly OfferedLine[];
  readonly visits: number;
}

/**
 * What is offered of a site’s program, as everybody who is told a price is told it. Cents are carried from line to
 * line, so that all lines that have a price and the visits add up to the list’s own sum.
 */
export function offeredYear(zones: readonly ZoneToSupply[], list: ShoppingList, system: UnitSystem): OfferedYear {
  let exact = 0;
  let told = 0;
  const inCents = (value: number): number => {
    exact += value * 100;
    const own = Math.round(exact) - told;
    told += own;
    return own / 100;
  };
  const lines = zones.flatMap((zone) =>
    planned(zone.treatments).map((treatment): OfferedLine => {
      const { key, name, words, supply, rate, sense, cautions } = treatment;
      const amount = [
        ...(rate ? [present(sense, rate.value, system).text] : []),
        ...(supply ? [`${tellSupply(supply.quantity.value, supply.unit, system)} of ${supply.name}`] : []),
      ].join(', ');
      return {
        ...{ zoneId: zone.zoneId, zone: zone.zone, key, name, words, amount, when: whenOf(treatment) },
        caution: cautions[0] ?? null,
        price: isPriced(treatment, list) ? inCents(shareOf(zone, treatment, list)) : null,
      };
    }),
  );
  return { lines, visits: inCents(list.visits.reduce((sum, { cost }) => sum + (cost?.value ?? 0), 0)) };
}
