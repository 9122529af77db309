import { cardOf } from './cardTable.ts';
import { type JobDose, inOrder, rulesBetween } from './jobs.ts';
import { dayOn, daysBetween } from '../season/normalDays.ts';

/** A job as it stands before a fixed date. */
export interface BackwardJob {
  readonly id: string;
  /** Last day on which it may be done and still be ready. */
  readonly latestStart: string;
  /** Days between its own day and that; below zero it comes too late. Nothing while it has no day. */
  readonly slack: number | null;
  /** What decides it, and what a shortcut risks. */
  readonly words: string;
  readonly risk: string;
}

type Dated = JobDose & { readonly day: string | null; readonly latest?: string | null };

/**
 * From a fixed date backward: the latest start of each job that is to be ready by it.
 *
 * @param date `2027-09-12`; jobs of a site that are still to be done
 * @returns those of which some slack can be told, in the order of their latest start; jobs whose window lies after the date
 *   belong to the time behind it and are left out.
 */
export function backwardFrom(date: string, jobs: readonly Dated[]): BackwardJob[] {
  const before = jobs.filter(({ day, from }) => (day ?? from ?? date) <= date);
  const found = new Map<string, BackwardJob>();
  // Jobs bind others of their zone only.
  const byZone = new Map<string, Dated[]>();
  for (const job of before) byZone.set(job.zoneId, [...(byZone.get(job.zoneId) ?? []), job]);
  // The last in the order of work first: what follows binds what comes before.
  for (const job of [...before].sort((one, other) => inOrder(other, one))) {
    const { settle, risk } = cardOf(job.remedy);
    let latestStart = dayOn(date, -settle);
    let words = `${settle} days before ${date}.`;
    for (const next of byZone.get(job.zoneId)!) {
      const known = found.get(next.id);
      if (!known) continue;
      for (const rule of rulesBetween(job, next)) {
        const by = dayOn(known.latestStart, -rule.days);
        if (rule.ordered && by < latestStart) {
          latestStart = by;
          words = `Before ${next.name.toLowerCase()}${rule.days > 0 ? ` by ${rule.days} days` : ''}, which has to be done by ${known.latestStart}.`;
        }
      }
    }
    if (job.latest && job.latest < latestStart) {
      latestStart = job.latest;
      words = `Its window closes on ${job.latest}.`;
    }
    found.set(job.id, {
      ...{ id: job.id, latestStart, words, risk },
      slack: job.day === null ? null : daysBetween(job.day, latestStart),
    });
  }
  return [...found.values()].sort((one, other) => one.latestStart.localeCompare(other.latestStart));
}
