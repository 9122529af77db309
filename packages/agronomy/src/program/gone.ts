import { entryKindOf } from '../jobs/entryKindOf.ts';
import { type LedgerKey, type Sums, ofMaterial } from '../ledger/brought.ts';
import { type Entry, type EntryKind, lastDayOf, wentDown } from '../ledger/entries.ts';
import { ledgerOf } from '../ledger/ledger.ts';
import type { Stocked } from '../remedies/remedy.ts';
import type { RemedyName } from '../remedies/remedyTable.ts';
import type { Treatment } from '../remedies/treatment.ts';
import { type UnitSystem, present } from '../units/present.ts';
import type { Change } from './changes.ts';

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

/** What a remedy is given for: by it another product of the same use counts. */
const activeOf: Readonly<Partial<Record<RemedyName, LedgerKey>>> = {
  ...{ lime: 'lime', nitrogen: 'n', phosphorus: 'p2o5', potassium: 'k2o', magnesium: 'mg', sulfate: 's' },
  ...{ sulfur: 'sulfur', gypsum: 'gypsum', iron: 'fe', compost: 'compost', sand: 'sand' },
};

/** What of a kind went down, as so much of the product that the rate is of. */
function asProduct({ remedy }: Change, gone: Gone, product: Stocked | undefined): number {
  const key = activeOf[remedy];
  const ofKind = gone.ofKind[entryKindOf(remedy)]?.rate ?? 0;
  if (key === undefined) return ofKind;
  if (key === 'compost' || key === 'sand') return gone.sums[key];
  const held = product ? ofMaterial(product.material, 1, 'g/m2')[key] : 0;
  return held > 0 ? gone.sums[key] / held : ofKind;
}

/** Nobody goes over a lawn again for less than this share of a rate. */
const NOT_WORTH = 0.02;

/** What of a rate set by hand is still to go down. @param treatment as the whole rate would have it */
export function lessGone(
  change: Change,
  treatment: Treatment | undefined,
  materials: readonly Stocked[],
  system: UnitSystem,
): Change {
  const { gone, values, out } = change;
  const field = typeof values.rate === 'number' ? 'rate' : typeof values.layer === 'number' ? 'layer' : undefined;
  if (!gone || !treatment || field === undefined || out !== undefined) return change;
  const each = values[field] as number;
  // Sand and wetting agent are set for one going-over, all others for the year.
  const perTime = treatment.doses.length > 1 && (treatment.rate?.value ?? 0) > each * 1.01;
  const set = perTime ? each * treatment.doses.length : each;
  const product = materials.find(({ id }) => id === treatment.values.material);
  const down = asProduct(change, gone, product);
  if (down <= set * NOT_WORTH) return change;
  const say = (of: number): string => present(treatment.sense, of, system).text;
  const left = set - down;
  if (left <= set * NOT_WORTH)
    return {
      ...change,
      out: 'down',
      told: `The ${say(set)} set by hand is down, ${say(down)} by ${gone.last}: nothing more goes down until another rate is set.`,
    };
  const times = gone.ofKind[entryKindOf(change.remedy)]?.times ?? 0;
  const fewer = typeof values.times === 'number' ? { times: Math.max(1, values.times - times) } : {};
  return {
    ...change,
    values: { ...values, ...(perTime ? { times: Math.ceil(left / each - NOT_WORTH) } : { [field]: left, ...fewer }) },
    told: `Of the ${say(set)} set by hand ${say(down)} is down by ${gone.last}: ${say(left)} is left.`,
  };
}
