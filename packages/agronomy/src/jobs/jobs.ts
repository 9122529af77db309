import { nitrogenSourceOf, productOf } from '../materials/product.ts';
import type { Material } from '../materials/material.ts';
import { gasesFrom } from '../nutrients/ammonium.ts';
import { interactionTable } from '../program/interactions.ts';
import { type RemedyName, remedyEntry } from '../remedies/remedyTable.ts';
import type { Blackout } from '../settings/settings.ts';
import {
  isInSowingWindow,
  shortWindowWords,
  sowingTable,
  sowingWindow,
  warmSoilWords,
} from '../season/sowingWindow.ts';
import type { UnitSystem } from '../units/present.ts';
import { cardOf } from './cardTable.ts';
import { type NormalYear, dayOn, daysBetween, normalDay } from '../season/normalDays.ts';
import { normalFacts } from './normalFacts.ts';
import { judgeDay } from './window.ts';
import type { Day, WindowJob } from './windowRules.ts';

/** What of a product matters to when it may be put down. */
export interface JobProduct {
  readonly name: string;
  /** Half of its nitrogen and more comes slowly. */
  readonly slow: boolean;
  /** Loses nitrogen as gas beside lime. */
  readonly gases: boolean;
  /** A fertilizer, by whatever job it comes. */
  readonly feeds: boolean;
  readonly bringsNitrogen: boolean;
  readonly bringsPhosphorus: boolean;
  /** Weeks in which nothing may be sown after it. */
  readonly noSeedingWeeks: number;
}

/** A dose of a program, to be worked on a day. */
export interface JobDose {
  readonly id: string;
  readonly zoneId: string;
  /** Of its treatment. */
  readonly key: string;
  readonly remedy: RemedyName;
  readonly name: string;
  /** Which of the doses of its treatment it is. */
  readonly position: number;
  /** Days that the program gives it; nothing where it knows none. */
  readonly from: string | null;
  readonly to: string | null;
  /** Set by hand to months that need not suit. */
  readonly own: boolean;
  readonly product: JobProduct | null;
  /** Sown or worked on bare, tilled ground. */
  readonly bare: boolean;
  /** Done already, in whatever program: it keeps its distance, and has no say in the order of what comes. */
  readonly done?: boolean;
}

/** Where and when a zone is worked. */
export interface JobGround {
  readonly today: string;
  /** Nothing where the place has no climate. */
  readonly year: NormalYear | undefined;
  readonly blackouts: readonly Blackout[];
  readonly system: UnitSystem;
}

/** A job with its days. */
export interface PlacedJob extends JobDose {
  /** First and last day of its window; nothing where none is known. */
  readonly earliest: string | null;
  readonly latest: string | null;
  /** The day that is proposed; nothing where none keeps to order, gaps and window. */
  readonly day: string | null;
  /** What is to be said of its days. */
  readonly words: readonly string[];
}

/** What of a material matters to when it may be put down. */
function jobProductOf(material: Material): JobProduct {
  const product = productOf('', material, null);
  const { n = 0, p2o5 = 0, noSeedingWeeks = 0 } = material.analysis;
  return {
    name: material.name,
    slow: (material.analysis.slowRelease ?? 0) >= 50 || material.natural === true,
    gases: product !== undefined && n > 0 && gasesFrom(nitrogenSourceOf(product)),
    feeds: material.kind === 'fertilizer',
    bringsNitrogen: n > 0,
    bringsPhosphorus: p2o5 > 0,
    noSeedingWeeks,
  };
}

/** What matters of a mix: what any thing of it does. */
export function jobProductOfMix(materials: readonly Material[]): JobProduct | null {
  const [first, ...others] = materials.map(jobProductOf);
  if (!first) return null;
  return others.reduce(
    (all, one) => ({
      ...{ name: all.name, slow: all.slow, gases: all.gases || one.gases, feeds: all.feeds || one.feeds },
      bringsNitrogen: all.bringsNitrogen || one.bringsNitrogen,
      bringsPhosphorus: all.bringsPhosphorus || one.bringsPhosphorus,
      noSeedingWeeks: Math.max(all.noSeedingWeeks, one.noSeedingWeeks),
    }),
    first,
  );
}

/** Whose rule of the day a job keeps; nothing where only the label or a firm decides. */
export function windowJobOf(
  { remedy, product }: Pick<JobDose, 'remedy' | 'product'>,
  season: 'cool' | 'warm',
): WindowJob | undefined {
  const { window } = cardOf(remedy);
  if (window === 'fertilizer') return product?.slow ? 'slow fertilizer' : 'soluble fertilizer';
  if (window === 'seed') return season === 'warm' ? 'seed warm-season' : 'seed cool-season';
  return window;
}

/** Whether the local rules keep a day free of it. */
export function blackedOut(
  { remedy, product }: Pick<JobDose, 'remedy' | 'product'>,
  day: string,
  blackouts: readonly Blackout[],
): boolean {
  const feeds = (remedyEntry(remedy).job === 'feed' && remedy !== 'weeds') || product?.feeds === true;
  const inside = ({ from, to }: Blackout): boolean => {
    const at = day.slice(5);
    return from <= to ? at >= from && at <= to : at >= from || at <= to;
  };
  return blackouts.some(
    (out) =>
      inside(out) &&
      ((out.what === 'all fertilizer' && feeds) ||
        (out.what === 'nitrogen' && (product?.bringsNitrogen ?? remedy === 'nitrogen')) ||
        (out.what === 'phosphorus' && (product?.bringsPhosphorus ?? remedy === 'phosphorus'))),
  );
}

/** What the normals say of a job on a day. */
export function normalVerdict(job: JobDose, day: string, { year, blackouts, system }: JobGround) {
  const windowJob = year && windowJobOf(job, year.season);
  const facts: Day = {
    ...(year ? normalFacts(normalDay(year, day)) : {}),
    ...(job.bare ? { bare: true } : {}),
    ...(blackedOut(job, day, blackouts) ? { blackout: true } : {}),
  };
  if (windowJob === undefined)
    return facts.blackout
      ? { verdict: 'never' as const, reasons: ['The local rules keep these days free of it.'] }
      : { verdict: 'go' as const, reasons: [] };
  const sowing = windowJob === 'seed cool-season' && year ? sowingWindow(year) : undefined;
  // In its window it is sown, whatever the soil of that very day says beside.
  if (year && sowing && !facts.blackout && isInSowingWindow(sowing, day))
    return {
      verdict: 'go' as const,
      reasons: [
        ...(sowing.short ? [shortWindowWords] : []),
        ...(normalDay(year, day).soil > sowingTable.warmSoil ? [warmSoilWords(system)] : []),
      ],
    };
  const { verdict, reasons } = judgeDay(windowJob, facts, [], { system });
  // On a tilled bed nothing has to grow before it is fed or covered.
  return { verdict, reasons: reasons.filter((reason) => !reason.startsWith('Not known')) };
}

type Pair = (typeof interactionTable.pairs)[number];

/** Whether a pair of the table speaks of these two. */
function isAbout({ one, other, carries }: Pair, first: JobDose, second: JobDose): boolean {
  if (!one.includes(first.remedy) || !other.includes(second.remedy)) return false;
  if (carries === 'ammonium') return second.product?.gases ?? true;
  if (carries === 'keeps seed from rooting') return (first.product?.noSeedingWeeks ?? 0) > 0;
  // What a program rules out altogether is not a matter of days.
  return carries !== 'peat';
}

/** Days that two jobs of a zone keep: `from` one to the other in that order, or apart whichever comes first. */
interface Rule {
  readonly words: string;
  readonly ordered: boolean;
  readonly days: number;
}

/** Passes closer than this count as one, days. */
const ONE_PASS = 14;

/** All that two jobs have to keep between them. @param first comes first in the order of work, and among equals by its place */
export function rulesBetween(first: JobDose, second: JobDose): Rule[] {
  if (first.zoneId !== second.zoneId) return [];
  if (first.key === second.key) {
    const { apart } = cardOf(first.remedy);
    return [{ words: `${first.name} lies ${apart} days apart at least`, ordered: true, days: apart }];
  }
  return interactionTable.pairs.flatMap((pair): Rule[] => {
    if (pair.never !== undefined && pair.apartDays === undefined) return [];
    if (pair.told) return [];
    const [about, turned] = [isAbout(pair, first, second), isAbout(pair, second, first)];
    if (!about && !turned) return [];
    const plain = pair.words.replace(/\.$/, '');
    if (pair.carries === 'keeps seed from rooting') {
      const weeks = (about ? first : second).product?.noSeedingWeeks ?? 0;
      return [{ words: `${plain} (${weeks} weeks by its label)`, ordered: true, days: weeks * 7 }];
    }
    if (pair.order) return [{ words: plain, ordered: true, days: 0 }];
    return pair.apartDays ? [{ words: plain, ordered: false, days: pair.apartDays }] : [];
  });
}

/** In the order of work; doses of one treatment by their place. */
export const inOrder = (one: JobDose, other: JobDose): number =>
  remedyEntry(one.remedy).stage - remedyEntry(other.remedy).stage ||
  one.key.localeCompare(other.key) ||
  one.position - other.position;

/** What stands between a job on a day and another on its own, in sentences. */
function between(job: JobDose, day: string, other: JobDose, otherDay: string): string[] {
  const jobFirst = inOrder(job, other) <= 0;
  const [first, second] = jobFirst ? [job, other] : [other, job];
  const [firstDay, secondDay] = jobFirst ? [day, otherDay] : [otherDay, day];
  const gap = daysBetween(firstDay, secondDay);
  const isDone = job.done === true || other.done === true;
  return rulesBetween(first, second).flatMap(({ words, ordered, days }) => {
    if (ordered && !isDone ? gap >= days : Math.abs(gap) >= days) return [];
    return [`${words}: ${second.name} on ${secondDay}, ${first.name} on ${firstDay}.`];
  });
}

export interface Break {
  readonly words: string;
  /** Not to be had, whatever the reason: a law, or a cap of one pass. */
  readonly never: boolean;
}

/**
 * All that a job on a day would break.
 *
 * @param others jobs of the site with their days, the job itself left out or not
 */
export function breaksOf(
  job: JobDose,
  day: string,
  others: ReadonlyArray<JobDose & { readonly day: string | null }>,
  ground: JobGround,
): Break[] {
  const { verdict, reasons } = normalVerdict(job, day, ground);
  const beside = others.filter((other) => other.id !== job.id && other.zoneId === job.zoneId && other.day !== null);
  const feeds = (one: JobDose): boolean => one.product?.bringsNitrogen ?? one.remedy === 'nitrogen';
  const asOne = beside.filter(
    (other) => other.key === job.key && feeds(other) && Math.abs(daysBetween(day, other.day!)) < ONE_PASS,
  );
  return [
    ...(day < ground.today ? [{ words: `${day} is past: what was done goes into the logbook.`, never: true }] : []),
    ...(verdict === 'go'
      ? []
      : reasons.map((words) => ({
          words: verdict === 'never' ? words : `In an ordinary year: ${words}`,
          never: blackedOut(job, day, ground.blackouts),
        }))),
    ...asOne.map((other) => ({
      words: `${other.name} on ${other.day} and this are ${Math.abs(daysBetween(day, other.day!))} days apart: within ${ONE_PASS} days two passes feed and burn as one, over what one may carry.`,
      never: true,
    })),
    ...beside
      .filter((other) => !asOne.includes(other))
      .flatMap((other) => between(job, day, other, other.day!).map((words) => ({ words, never: false }))),
  ];
}

/** Days of a span on which the normals let a job be done, the first to the last of the first run of them. */
export function windowIn(
  job: JobDose,
  from: string,
  to: string,
  ground: JobGround,
): { from: string; to: string } | undefined {
  let first: string | undefined;
  let last: string | undefined;
  for (let day = from; day <= to; day = dayOn(day, 1)) {
    if (normalVerdict(job, day, ground).verdict === 'go') {
      first ??= day;
      last = day;
    } else if (first !== undefined) break;
  }
  return first === undefined ? undefined : { from: first, to: last! };
}

/** The runs of days, within a year from a day, on which the normals let it be done. */
export function windowsAhead(job: JobDose, ground: JobGround): Array<{ from: string; to: string }> {
  const end = dayOn(ground.today, 365);
  const runs: Array<{ from: string; to: string }> = [];
  let at = ground.today;
  for (;;) {
    const run = nextRun(job, at, end, ground);
    if (!run) return runs;
    runs.push(run);
    at = dayOn(run.to, 1);
  }
}

function nextRun(job: JobDose, from: string, end: string, ground: JobGround): { from: string; to: string } | undefined {
  for (let day = from; day <= end; day = dayOn(day, 1))
    if (normalVerdict(job, day, ground).verdict === 'go') return windowIn(job, day, end, ground);
  return undefined;
}

/**
 * Days for the doses of a site’s program: in their windows, in the order of work, with the gaps between them. What finds
 * no day is left without one, and says so.
 *
 * @param groundOf where and when a zone is worked; `kept` jobs that have their days already, and keep them
 */
export function planJobs(
  doses: readonly JobDose[],
  groundOf: (zoneId: string) => JobGround,
  kept: ReadonlyArray<JobDose & { readonly day: string | null }> = [],
): PlacedJob[] {
  const placed = new Map<string, PlacedJob>();
  const fixed = new Map(kept.map((job) => [job.id, job]));
  // Jobs keep to others of their zone only.
  const [freshOf, keptOf] = [new Map<string, PlacedJob[]>(), new Map<string, Array<(typeof kept)[number]>>()];
  for (const { zoneId } of [...doses, ...kept]) {
    freshOf.set(zoneId, []);
    keptOf.set(zoneId, []);
  }
  for (const job of kept) keptOf.get(job.zoneId)!.push(job);
  for (const job of [...doses].sort(inOrder)) {
    const others = [...freshOf.get(job.zoneId)!, ...keptOf.get(job.zoneId)!].filter(({ id }) => id !== job.id);
    const found = {
      ...place(job, others, groundOf(job.zoneId)),
      ...(fixed.has(job.id) ? { day: fixed.get(job.id)!.day } : {}),
    };
    placed.set(job.id, found);
    freshOf.get(job.zoneId)!.push(found);
  }
  return doses.map(({ id }) => placed.get(id)!);
}

/** The days nearest to those that do not suit, in a sentence. */
function nearestWords(job: JobDose, from: string, ground: JobGround): string[] {
  const far = (run: { from: string; to: string }): number =>
    run.to < from ? daysBetween(run.to, from) : Math.max(0, daysBetween(from, run.from));
  const [nearest] = windowsAhead(job, ground).sort((one, other) => far(one) - far(other));
  return nearest ? [`The nearest days that suit it are ${nearest.from} to ${nearest.to}: move it there.`] : [];
}

function place(
  job: JobDose,
  others: ReadonlyArray<JobDose & { readonly day: string | null }>,
  ground: JobGround,
): PlacedJob {
  const none = { ...job, earliest: null, latest: null, day: null };
  if (job.from === null || job.to === null || !ground.year)
    return {
      ...none,
      words: [
        ground.year
          ? 'No month of the program has room for it: set its day by hand, or let it wait for next year.'
          : 'The place has no climate, so no days are known: set it under “About the site”, or set the day by hand.',
      ],
    };
  const [from, to] = [job.from < ground.today ? ground.today : job.from, job.to];
  if (from > to)
    return {
      ...none,
      earliest: job.from,
      latest: job.to,
      words: [`Its days were ${job.from} to ${job.to} and are over: move it, or say why it is not done.`],
    };
  const window = windowIn(job, from, to, ground);
  const { earliest, latest } = window ? { earliest: window.from, latest: window.to } : { earliest: from, latest: to };
  const words = window
    ? []
    : [
        `No day of ${from} to ${to} suits it in an ordinary year. ${normalVerdict(job, from, ground).reasons[0] ?? ''}`.trim(),
        ...nearestWords(job, from, ground),
      ];
  if (!window && !job.own) return { ...none, earliest, latest, words };
  for (let day = earliest; day <= latest; day = dayOn(day, 1)) {
    const hindered = others.some((other) => other.day !== null && between(job, day, other, other.day).length > 0);
    if (!hindered && !blackedOut(job, day, ground.blackouts)) return { ...job, earliest, latest, day, words };
  }
  const why = others.flatMap((other) => (other.day === null ? [] : between(job, earliest, other, other.day)));
  return {
    ...none,
    earliest,
    latest,
    words: [...words, `No day of its window is left beside the others. ${why[0] ?? ''}`.trim()],
  };
}
