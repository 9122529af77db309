import { wholes } from '../units/wholes.ts';
import { optional, quantity } from '../calculators/fields.ts';
import { listOf, text } from '../calculators/structures.ts';
import { type RemedyName, remedyEntry, remedyNames } from '../remedies/remedyTable.ts';
import type { Treatment, WorkLine } from '../remedies/treatment.ts';
import type { WorkPrice } from '../settings/settings.ts';
import { money } from '../units/present.ts';
import { convert } from '../units/unit.ts';
import { type Figure, WorkingBook, figure } from '../working/working.ts';
import { planned } from './balance.ts';

/** What a price of work may count with by itself: a remedy, or whatever is done. */
export const worksFor = ['all', ...remedyNames] as const;
export type WorkFor = (typeof worksFor)[number];

/** Hours, days and the like that an advisor has set beside a treatment, by the name of their price. */
export interface OwnWork {
  readonly name: string;
  readonly amount: number;
}

export const ownWorkField = () =>
  optional(
    listOf({ name: text(80), amount: quantity('', { above: 0, max: 1_000_000 }) }, 'lines of work', {
      min: 1,
      max: 20,
    }),
  );

/** A drive to the property: everything of one month goes with one. */
export interface VisitLine {
  readonly name: string;
  /** Months in which somebody drives there, `2027-03`; numbered where no months are known. */
  readonly visits: readonly string[];
  /** Nothing for those who see no prices. */
  readonly cost: Figure | null;
}

/** Prices by area, with what one of them is in m². */
const areas: Readonly<Record<string, number>> = { '100 m²': 100, '1000 ft²': convert(1000, 'ft2', 'm2') };
/** "6 hours", "2.4 × 100 m²". */
export function tellWork(amount: number, per: string): string {
  const told = Number(amount.toPrecision(3));
  return per in areas ? `${told} × ${per}` : `${told} ${told === 1 || per === 'km' ? per : `${per}s`}`;
}

const countsWith = ({ for: of }: WorkPrice, remedy: RemedyName): boolean =>
  of?.some((one) => one === 'all' || one === remedy) ?? false;

/** How much of a price a treatment takes by itself; nothing where only a person knows. */
function byItself({ per }: WorkPrice, { doses, supply, loads, values }: Treatment, area: number): number | undefined {
  const times = Math.max(1, doses.length);
  const unit = areas[per];
  if (unit !== undefined) return (area / unit) * times;
  if (per === 'bag') return supply && supply.unit !== 'm3' ? supply.packs.value : undefined;
  // Loads whose haul was agreed on are not hauled a second time.
  return per === 'load' && typeof values.haul !== 'number' ? loads : undefined;
}

function line({ name, per, price, whole }: WorkPrice, amount: number, own: boolean, currency: string): WorkLine {
  const book = new WorkingBook();
  book.step({
    label: name,
    formula: `${per in areas ? 'area × times' : own ? 'as set by hand' : `${per}s`} × price`,
    numbers: `${figure(amount)} × ${money(price, currency)} per ${per}`,
    result: amount * price,
    unit: '$',
    source: 'The practice’s own prices of work',
  });
  return { name, per, amount, price, whole: whole ?? false, cost: { value: amount * price, working: book.entries } };
}

/**
 * A treatment with the work that it costs: what counts by itself, and what was set by hand.
 *
 * @param area m² of the zone; `own` hours and days set by hand, in place of what would count by itself.
 */
export function withWork(
  treatment: Treatment,
  prices: readonly WorkPrice[],
  area: number,
  own: readonly OwnWork[],
  currency: string,
): Treatment {
  const known = new Map(prices.map((price) => [price.name, price]));
  const missing = own.filter(({ name }) => !known.has(name)).map(({ name }) => name);
  const work = [
    ...own.flatMap(({ name, amount }) => {
      const price = known.get(name);
      return price ? [line(price, amount, true, currency)] : [];
    }),
    ...prices.flatMap((price) => {
      if (own.some(({ name }) => name === price.name) || !countsWith(price, treatment.remedy)) return [];
      const amount = byItself(price, treatment, area);
      return amount === undefined || amount <= 0 ? [] : [line(price, amount, false, currency)];
    }),
  ];
  return work.length === 0 && missing.length === 0 ? treatment : { ...treatment, work, workUnpriced: missing };
}

/** Work of which nobody has said what it costs: without a price of its own and without hours or hire. */
export const lacksPrice = ({ remedy, status, price, work = [] }: Treatment): boolean =>
  status === 'planned' && remedyEntry(remedy).work === true && price === null && work.length === 0;

/** Months in which something is done for which a price of visits counts. */
function monthsOf(treatments: readonly Treatment[], price: WorkPrice): string[] {
  return planned(treatments)
    .filter(({ remedy }) => countsWith(price, remedy))
    .flatMap(({ doses }) => doses.map(({ from }, index) => from?.slice(0, 7) ?? `visit ${index + 1}`));
}

/** Drives to a property for all that is done there; what falls into one month goes with one. */
export function visitLines(
  treatments: readonly Treatment[],
  prices: readonly WorkPrice[],
  currency: string,
): readonly VisitLine[] {
  return prices
    .filter(({ per }) => per === 'visit')
    .flatMap((price): VisitLine[] => {
      const visits = [...new Set(monthsOf(treatments, price))].sort();
      if (visits.length === 0) return [];
      const book = new WorkingBook();
      const cost = visits.length * price.price;
      book.step({
        label: price.name,
        formula: 'months in which something is done × price of a visit',
        numbers: `${visits.length} × ${money(price.price, currency)}`,
        result: cost,
        unit: '$',
        source: 'The practice’s own prices of work',
      });
      return [{ name: price.name, visits, cost: { value: cost, working: book.entries } }];
    });
}

/** Work of one price over a property. */
export interface WorkSum {
  readonly name: string;
  readonly per: string;
  /** To pay for; whole days of what is hired by the day. */
  readonly amount: number;
  /** As the zones use it. */
  readonly used: number;
  readonly zones: readonly string[];
  readonly cost: Figure | null;
}

/** Work over all zones; a machine that is hired by the day is hired for whole days. */
export function workSums(
  zones: ReadonlyArray<{ readonly zone: string; readonly treatments: readonly Treatment[] }>,
  currency: string,
): readonly WorkSum[] {
  const found = new Map<string, Array<{ readonly zone: string; readonly of: WorkLine }>>();
  for (const { zone, treatments } of zones)
    for (const of of planned(treatments).flatMap(({ work = [] }) => work))
      found.set(of.name, [...(found.get(of.name) ?? []), { zone, of }]);
  return [...found].map(([name, lines]) => {
    const { per, price, whole } = lines[0]!.of;
    const sum = lines.reduce((all, { of }) => all + of.amount, 0);
    const amount = whole ? wholes(sum) : sum;
    const book = new WorkingBook();
    book.step({
      label: `${name} for all zones`,
      formula: whole ? 'sum, in whole days × hire of a day' : 'sum × price',
      numbers: `${lines.map(({ zone, of }) => `${zone} ${figure(of.amount)}`).join(' + ')}${whole && amount !== sum ? ` → ${figure(amount)}` : ''}; × ${money(price ?? 0, currency)}`,
      result: amount * (price ?? 0),
      unit: '$',
    });
    return {
      ...{ name, per, amount, used: sum, zones: [...new Set(lines.map(({ zone }) => zone))] },
      cost: { value: amount * (price ?? 0), working: book.entries },
    };
  });
}
