import type { ShoppingList } from './shopping.ts';
import { lacksPrice } from './work.ts';
import { money } from '../units/present.ts';
import { type Figure, WorkingBook } from '../working/working.ts';
import { planned } from './balance.ts';
import type { Treatment } from '../remedies/treatment.ts';

/** A large ground is improved in sections, one after the other. */
export const sectionNames = ['now', 'next', 'later'] as const;
export type SectionName = (typeof sectionNames)[number];

/** The year of a section, and what it may cost. */
export interface SectionBudget {
  readonly year?: number | null | undefined;
  readonly budget?: number | null | undefined;
}

export interface SectionZone {
  readonly zoneId: string;
  readonly zone: string;
  /** m² */
  readonly area: number;
  readonly section: SectionName | null;
  readonly treatments: readonly Treatment[];
}

/** What a section comes to, against its budget. */
export interface SectionSum {
  readonly section: SectionName;
  readonly year: number | null;
  readonly budget: number | null;
  readonly zones: readonly string[];
  /** m² */
  readonly area: number;
  /** Nothing while something has no price, or for those who see none. */
  readonly cost: Figure | null;
  /** Work of its zones that has no price yet, and is not in the cost. */
  readonly unpricedWork: readonly string[];
  /** In a sentence, where the budget does not reach. */
  readonly over: string | null;
}

type ZoneOfList = Omit<SectionZone, 'area' | 'section'>;

/** What a zone comes to, line by line: its share of what is bought for all, its work, and its share of what is hired. */
function shareLines({ zoneId, zone, treatments }: ZoneOfList, list: ShoppingList) {
  const here = planned(treatments);
  return [
    ...list.purchases.flatMap(({ name, zones }) =>
      zones.filter((share) => share.zoneId === zoneId).map(({ cost }) => ({ name, price: cost ?? 0 })),
    ),
    ...here.flatMap(({ name, price }) => (price ? [{ name, price: price.value }] : [])),
    ...here
      .flatMap(({ work = [] }) => work)
      .map(({ name, amount, price }) => {
        const shared = list.labour.find((one) => one.name === name && one.zones.includes(zone));
        // Whole days of a hired machine are shared by the zones that use it.
        const each = shared?.cost && shared.used > 0 ? shared.cost.value / shared.used : (price ?? 0);
        return { name, price: amount * each };
      }),
  ];
}

const sumOf = (lines: ReadonlyArray<{ readonly price: number }>): number =>
  lines.reduce((sum, { price }) => sum + price, 0);

/** What a zone comes to by itself, of what is bought and hired for all. */
export const zoneShare = (zone: ZoneOfList, list: ShoppingList): number => sumOf(shareLines(zone, list));

/** Something that the zone takes has no price, so that its sum would be too small. */
export const isOpenPrice = ({ zoneId, treatments }: ZoneOfList, list: ShoppingList): boolean =>
  list.purchases.some(({ cost, zones }) => cost === null && zones.some((share) => share.zoneId === zoneId)) ||
  planned(treatments).some(({ workUnpriced = [] }) => workUnpriced.length > 0);

/** The same with its working; nothing while something that the zone takes has no price. Visits serve all zones. */
export function zoneCost(zone: ZoneOfList, list: ShoppingList, currency: string): Figure | null {
  if (isOpenPrice(zone, list)) return null;
  const lines = shareLines(zone, list).filter(({ price }) => price > 0);
  const book = new WorkingBook();
  book.step({
    label: zone.zone,
    formula: 'shares of what is bought and hired for all, and its own work',
    numbers: lines.map(({ name, price }) => `${name} ${money(price, currency)}`).join(' + ') || 'nothing to pay',
    result: sumOf(lines),
    unit: '$',
  });
  book.warn('What is in stock costs nothing here; visits serve all zones and stand in the list.');
  return { value: sumOf(lines), working: book.entries };
}

/** What each section comes to, against its budget; visits, which serve all sections, are left out. */
export function sectionSums(
  zones: readonly SectionZone[],
  list: ShoppingList,
  budgets: Readonly<Partial<Record<SectionName, SectionBudget>>>,
  currency: string,
): readonly SectionSum[] {
  return sectionNames.flatMap((section): SectionSum[] => {
    const of = zones.filter((zone) => zone.section === section);
    const { year = null, budget = null } = budgets[section] ?? {};
    if (of.length === 0) return [];
    const priced = list.cost !== null;
    const book = new WorkingBook();
    const shares = of.map((zone) => ({ name: zone.zone, share: zoneShare(zone, list) }));
    const cost = shares.reduce((sum, { share }) => sum + share, 0);
    book.step({
      label: `Section ${section}`,
      formula: 'sum of what its zones come to',
      numbers: shares.map(({ name, share }) => `${name} ${money(share, currency)}`).join(' + '),
      result: cost,
      unit: '$',
    });
    const unpricedWork = of.flatMap(({ zone, treatments }) =>
      treatments.filter(lacksPrice).map(({ name }) => `${name}, ${zone}`),
    );
    if (unpricedWork.length > 0) book.warn(`${unpricedWork.join('; ')}: no price yet, and not in the sum.`);
    book.warn('Visits serve all sections and stand in the list of the whole property.');
    return [
      {
        ...{ section, year, budget, zones: of.map(({ zone }) => zone) },
        area: of.reduce((sum, { area }) => sum + area, 0),
        cost: priced ? { value: cost, working: book.entries } : null,
        unpricedWork,
        over:
          priced && budget !== null && cost > budget + 0.005
            ? `${money(cost - budget, currency)} more than the ${money(budget, currency)} there is: put a treatment off, or move a zone to a later section.`
            : null,
      },
    ];
  });
}
