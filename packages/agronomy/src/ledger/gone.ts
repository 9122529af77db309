import type { Sums } from './brought.ts';
import { type Entry, type EntryKind, lastDayOf, wentDown } from './entries.ts';
import { ledgerOf } from './ledger.ts';

/** What went down in a zone after something was set by hand of it. */
export interface Gone {
  /** Day of the last, `2026-04-20`. */
  readonly last: string;
  /** What it brought, over the whole zone. */
  readonly sums: Sums;
  /** Rate of each kind, in the unit that the kind is kept in, and how often. */
  readonly ofKind: Readonly<Partial<Record<EntryKind, { readonly rate: number; readonly times: number }>>>;
}

const EVER = { from: '', to: '9999-12-31' };

/**
 * What was written down as done since a moment.
 *
 * @param entries of the zone; `zoneArea` m²; `since` ISO 8601, when it was set by hand
 */
export function goneOf(entries: readonly Entry[], zoneArea: number, since: string): Gone | undefined {
  // A correction is written later, and changes nothing of when it went down: the first that was written tells.
  const first = new Map<string, string>();
  const byId = new Map(entries.map((entry) => [entry.id, entry]));
  const writtenAt = (entry: Entry): string => {
    const known = first.get(entry.id);
    if (known !== undefined) return known;
    first.set(entry.id, entry.recordedAt);
    const before = entry.correctsId === null ? undefined : byId.get(entry.correctsId);
    const at = before ? writtenAt(before) : entry.recordedAt;
    first.set(entry.id, at);
    return at;
  };
  const later = entries.filter((entry) => writtenAt(entry) > since);
  const parts = wentDown(later);
  if (parts.length === 0) return undefined;
  const ofKind: Partial<Record<EntryKind, { rate: number; times: number }>> = {};
  for (const { kind, rate, area } of parts) {
    const of = (ofKind[kind] ??= { rate: 0, times: 0 });
    of.rate += (rate ?? 0) * (area === null ? 1 : Math.min(1, area / zoneArea));
    of.times += 1;
  }
  const last = parts.reduce((day, { on }) => (lastDayOf(on) > day ? lastDayOf(on) : day), '');
  return { last, sums: ledgerOf(later, zoneArea, EVER).done, ofKind };
}
