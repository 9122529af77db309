import { sulfurTable } from '../acidify/tables.ts';
import type { Applied } from '../ground/applied.ts';
import {
  type EntryBrought,
  type LedgerKey,
  NO_SUMS,
  type Sums,
  added,
  broughtBy,
  limeLeft,
  limeOf,
} from './brought.ts';
import { type Entry, lastDayOf, wentDown } from './entries.ts';

const MONTH = 30.44 * 86_400_000;

/** What one entry, or one job to come, brings. */
export interface LedgerPart {
  readonly words: string;
  readonly on: string;
  readonly sums: Sums;
  /** g/m² of liming product. */
  readonly limeProduct: number;
}

/** Some entries with what each of them brings to its zone. */
export function partsOf(entries: readonly Entry[], zoneArea: number): LedgerPart[] {
  return entries.map((entry) => {
    const { words, on, kind, unit, rate, area } = entry;
    const share = area === null ? 1 : Math.min(1, area / zoneArea);
    return {
      ...{ words, on, sums: broughtBy(entry, zoneArea).sums },
      limeProduct: kind === 'lime' && unit === 'g/m2' && rate !== null ? rate * share : 0,
    };
  });
}

/** What stands in the book of one zone for some days. */
export interface Ledger {
  readonly done: Sums;
  /** What each entry brought. */
  readonly parts: readonly LedgerPart[];
  /** g/m² of pure lime that is still to react on the last of the days, of all that ever went down. */
  readonly limeOpen: number;
  /** What could not be counted, one sentence each. */
  readonly unknown: readonly string[];
  readonly entries: number;
}

/** Days of a book: both ends belong to them. */
export interface Period {
  readonly from: string;
  readonly to: string;
}

export const yearOf = (year: number): Period => ({ from: `${year}-01-01`, to: `${year}-12-31` });

/** Entries of a zone that stand and were carried out, within some days; what is remembered roughly counts on its last. */
export function within(entries: readonly Entry[], { from, to }: Period): Entry[] {
  return wentDown(entries).filter(({ on }) => lastDayOf(on) >= from && lastDayOf(on) <= to);
}

/**
 * The book of one zone.
 *
 * @param entries of the zone, all that were ever written; `zoneArea` m²
 */
export function ledgerOf(entries: readonly Entry[], zoneArea: number, period: Period): Ledger {
  const inside = within(entries, period);
  const brought = inside.map((entry): EntryBrought => broughtBy(entry, zoneArea));
  const limed = wentDown(entries).filter(
    ({ kind, rate, unit, on }) => kind === 'lime' && rate !== null && unit === 'g/m2' && lastDayOf(on) <= period.to,
  );
  return {
    done: brought.reduce((sums, one) => added(sums, one.sums), NO_SUMS),
    limeOpen: limed.reduce((sum, { rate, area, material, cce, on }) => {
      const { strength, mesh } = limeOf(material, cce);
      const months = (Date.parse(period.to) - Date.parse(lastDayOf(on))) / MONTH;
      const share = area === null ? 1 : Math.min(1, area / zoneArea);
      return sum + ((rate! * strength) / 100) * limeLeft(mesh, months) * share;
    }, 0),
    unknown: brought.flatMap(({ unknown }) => unknown ?? []),
    parts: partsOf(inside, zoneArea),
    entries: inside.length,
  };
}

/** The book as the rates, the waiting times and the causes read it: what was put down, kind by kind. */
export function appliedOf(entries: readonly Entry[], zoneArea: number): Applied[] {
  return wentDown(entries).map(({ kind, on, rate, unit, area, material, cce, words }) => {
    const share = area === null ? 1 : Math.min(1, area / zoneArea);
    const { strength, mesh } = limeOf(material, cce);
    const known = rate === null ? undefined : unit === 'g/m2' ? rate * share : undefined;
    return {
      kind,
      on,
      words,
      ...(known === undefined ? {} : { rate: known }),
      ...(kind === 'lime' ? { cce: strength, mesh } : {}),
      ...(kind === 'sand' && unit === 'cm' && rate !== null ? { layer: rate * share } : {}),
    };
  });
}

/** What went down since the year began, and since the test that the rates rest on. */
export interface Down {
  /** First day of the year that is worked on. */
  readonly since: string;
  readonly year: Sums;
  /** g/m² of liming product, and how often. */
  readonly limeProduct: number;
  readonly unknown: readonly string[];
}

/**
 * What of a year is down already.
 *
 * @param since first day of the year that is worked on; `today` last day.
 */
export function downOf(
  entries: readonly Entry[],
  zoneArea: number,
  { since, today }: { readonly since: string; readonly today: string },
): Down {
  const year = ledgerOf(entries, zoneArea, { from: since, to: today });
  const limed = within(entries, { from: since, to: today }).filter(
    ({ kind, unit, rate }) => kind === 'lime' && unit === 'g/m2' && rate !== null,
  );
  return {
    since,
    year: year.done,
    limeProduct: limed.reduce(
      (sum, { rate, area }) => sum + rate! * (area === null ? 1 : Math.min(1, area / zoneArea)),
      0,
    ),
    unknown: year.unknown,
  };
}

/** What the logbook says was put down after the day of the sample, g/m²; nothing where that day is not known. */
export function sinceSample(
  entries: readonly Entry[],
  zoneArea: number,
  sampledOn: string | undefined,
  today: string,
): Sums {
  const after = sampledOn === undefined ? undefined : nextDay(sampledOn);
  return after === undefined || after > today ? NO_SUMS : ledgerOf(entries, zoneArea, { from: after, to: today }).done;
}

/** The same of what is remembered without a book: sulfur and gypsum, each as if it were pure. */
export function sinceSampleOf(applied: readonly Applied[], sampledOn: string | undefined): Sums {
  const after = applied.filter(({ on }) => sampledOn !== undefined && lastDayOf(on) > sampledOn);
  const sum = (wanted: string): number =>
    after.reduce((total, { kind, rate = 0 }) => (kind === wanted ? total + rate : total), 0);
  const [sulfur, gypsum] = [sum('sulfur'), sum('gypsum')];
  return { ...NO_SUMS, sulfur, s: sulfur, gypsum, acidity: sulfur * sulfurTable.carbonatePerSulfur };
}

const nextDay = (day: string): string => new Date(Date.parse(day) + 86_400_000).toISOString().slice(0, 10);

export type { LedgerKey, Sums };
