import { type Entry, lastDayOf, wentDown } from '../ledger/entries.ts';
import { daysBetween } from '../season/normalDays.ts';
import type { Since } from './window.ts';
import type { WindowJob } from './windowRules.ts';

const jobOf: Readonly<Partial<Record<Entry['kind'], WindowJob>>> = {
  ...{ lime: 'lime', sulfur: 'sulfur', gypsum: 'gypsum', compost: 'compost', sand: 'sand', coring: 'core' },
  ...{ dethatching: 'dethatch', 'wetting agent': 'wetting agent', 'sprayed mulch': 'sprayed mulch', mowing: 'mow' },
};

/** The job that an entry was, as the rules of the day know it. */
function windowJobOfEntry({ kind, material }: Entry, season: 'cool' | 'warm'): WindowJob | undefined {
  if (kind === 'fertilizer')
    return (material?.analysis.slowRelease ?? 0) >= 50 || material?.natural ? 'slow fertilizer' : 'soluble fertilizer';
  if (kind === 'seed') return season === 'warm' ? 'seed warm-season' : 'seed cool-season';
  return jobOf[kind];
}

/** What was done in a zone before a day, and how many days ago: the last of each kind. @param entries of the zone */
export function sinceOf(entries: readonly Entry[], day: string, season: 'cool' | 'warm'): Since[] {
  const last = new Map<WindowJob, number>();
  for (const entry of wentDown(entries)) {
    const job = windowJobOfEntry(entry, season);
    const days = daysBetween(lastDayOf(entry.on), day);
    if (job !== undefined && days >= 0) last.set(job, Math.min(days, last.get(job) ?? Infinity));
  }
  return [...last].map(([job, days]) => ({ job, days }));
}
