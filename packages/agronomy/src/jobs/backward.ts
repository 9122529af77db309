import { type DateKind, type DatedGround, readyBefore } from './fixedDates.ts';
import { type JobDose, inOrder, rulesBetween } from './jobs.ts';
import { dayOn, daysBetween } from '../season/normalDays.ts';

/** A job as it stands before a fixed date. */
export interface BackwardJob {
  readonly id: string;
  /** Last day on which it may be done and still be ready. */
  readonly latestStart: string;
  /** Days between its own day and that; below zero it comes too late. Nothing while it has no day. */
  readonly slack: number | null;
  /** Whether the date decides it, or what comes before the date; else its own window closes sooner. */
  readonly bound: boolean;
  /** What decides it, and what a shortcut risks. */
  readonly words: string;
  readonly risk: string;
}

type Dated = JobDose & DatedGround & { readonly day: string | null; readonly latest?: string | null };

const SOWN: ReadonlySet<JobDose['remedy']> = new Set(['seed', 'sod', 'mulch'] as const);

/**
 * From a fixed date backward: the latest start of each job that is to be ready by it.
 *
 * @param date `2027-09-12`; kind of what happens then; jobs of a site that are still to be done
 * @returns those of which some slack can be told, in the order of their latest start; jobs whose window lies after the date
 *   belong to the time behind it and are left out, and so are those that a date of this kind does not touch.
 */
export function backwardFrom(date: string, kind: DateKind, jobs: readonly Dated[]): BackwardJob[] {
  // Bare ground that would be sown after the rains have begun lies open in them.
  const open = ({ bare, remedy }: Dated): boolean => kind === 'rains begin' && bare && SOWN.has(remedy);
  const before = jobs.filter(
    (job) => ((job.day ?? job.from ?? date) <= date || open(job)) && readyBefore(kind, job.remedy, job) !== undefined,
  );
  const found = new Map<string, BackwardJob>();
  // Jobs bind others of their zone only.
  const byZone = new Map<string, Dated[]>();
  for (const job of before) byZone.set(job.zoneId, [...(byZone.get(job.zoneId) ?? []), job]);
  // The last in the order of work first: what follows binds what comes before.
  for (const job of [...before].sort((one, other) => inOrder(other, one))) {
    const { days, why, risk } = readyBefore(kind, job.remedy, job)!;
    let latestStart = dayOn(date, -days);
    let words = `${days} days before ${date}: ${why}.`;
    let bound = true;
    for (const next of byZone.get(job.zoneId)!) {
      const known = found.get(next.id);
      if (!known) continue;
      for (const rule of rulesBetween(job, next)) {
        const by = dayOn(known.latestStart, -rule.days);
        if (rule.ordered && by < latestStart) {
          latestStart = by;
          bound = known.bound;
          words = `Before ${next.name.toLowerCase()}${rule.days > 0 ? ` by ${rule.days} days` : ''}, which has to be done by ${known.latestStart}.`;
        }
      }
    }
    if (job.latest && job.latest < latestStart) {
      latestStart = job.latest;
      bound = false;
      words = `Its window closes on ${job.latest}.`;
    }
    found.set(job.id, {
      ...{ id: job.id, latestStart, bound, words, risk },
      slack: job.day === null ? null : daysBetween(job.day, latestStart),
    });
  }
  return [...found.values()].sort((one, other) => one.latestStart.localeCompare(other.latestStart));
}
