import {
  type BackwardJob,
  type DateKind,
  type DatedGround,
  type Blackout,
  type JobDose,
  type JobGround,
  type MownSward,
  type PlacedJob,
  type UnitSystem,
  type WateredZone,
  EMERGE_UNKNOWN,
  backwardFrom,
  breaksOf,
  cardOf,
  dayOn,
  emergenceOf,
  firstCut as firstCutOf,
  firstCutWords,
  mowingAdvice,
  normalDay,
  planJobs,
  seedWater,
  sodCare,
  thirstiestWeek,
  waterWeek,
  windowsAhead,
} from '@glenfold/agronomy';
import type { SeasonAnswer, SeasonZoneAnswer } from '@glenfold/contract';
import { grouped } from '../platform/grouped.ts';
import { threaded } from '../platform/threaded.ts';
import { type YearPlace, yearsOf } from './ordinaryYears.ts';
import { weekOf } from './weeks.ts';

const WEEK = 7;

/** Where and when a site is worked. */
export interface SeasonPlace extends YearPlace {
  /** `2027-04-20` */
  readonly today: string;
  readonly units: UnitSystem;
}

/** What the days of a zone rest on. */
export interface SeasonZone {
  readonly zoneId: string;
  readonly watered: WateredZone;
  readonly blackouts: readonly Blackout[];
  /** Tilled ground that nothing grows on yet. */
  readonly bare: boolean;
  /** Nothing on a garden bed. */
  readonly mown: MownSward | null;
  /** All grasses of it. */
  readonly grasses: readonly string[];
}

/** A job with its day, as others beside it see it. */
export interface SeasonJob extends JobDose, DatedGround {
  readonly day: string | null;
  readonly latest: string | null;
  /** Whether it is to be done still; and whether nothing of it is done. */
  readonly open: boolean;
  readonly untouched: boolean;
  /** Whether it counts beside others. */
  readonly counts: boolean;
}

type Care = Pick<SeasonZoneAnswer, 'water' | 'driest' | 'mowing' | 'seedWater' | 'firstCut' | 'sod'>;

/** The season of a site in days. */
export interface SiteSeason {
  readonly zones: ReadonlyArray<Care & Pick<SeasonZoneAnswer, 'windows'>>;
  /** What jobs break that are to be done still, by their id. */
  readonly breaks: ReadonlyMap<string, readonly string[]>;
  readonly weeks: SeasonAnswer['weeks'];
  /** Before each fixed date. */
  readonly dates: ReadonlyArray<readonly BackwardJob[]>;
}

type Spans = SeasonZoneAnswer['windows'][number]['spans'];

/** All that the days of a job rest on beside the place: zones that have it in common have their windows in common. */
function restsOn({ remedy, product, bare }: JobDose, { year, blackouts }: JobGround): string {
  const { slow, feeds, bringsNitrogen, bringsPhosphorus } = product ?? {};
  return JSON.stringify([remedy, slow, feeds, bringsNitrogen, bringsPhosphorus, bare, year?.season, blackouts]);
}

/** When each kind of open work may be done; one of a kind stands for all of it. @param known of other zones */
function windowsOf(
  jobs: readonly SeasonJob[],
  ground: JobGround,
  known: Map<string, Spans>,
): SeasonZoneAnswer['windows'] {
  const kinds = new Map<string, SeasonJob>();
  for (const job of jobs) if (job.untouched && !kinds.has(job.key)) kinds.set(job.key, job);
  if (!ground.year) return [];
  return [...kinds.values()].map((job) => {
    const key = restsOn(job, ground);
    const spans = known.get(key) ?? (cardOf(job.remedy).window ? windowsAhead(job, ground) : []);
    known.set(key, spans);
    return { key: job.key, name: job.name, spans };
  });
}

/** Water and mowing of a zone: this week and the next, and the first weeks of what was sown or will be. */
function careOf(
  { watered, mown, grasses, bare }: SeasonZone,
  jobs: readonly SeasonJob[],
  { year, today, system }: JobGround,
): Care {
  const { from } = weekOf(today);
  const sown = jobs.find(({ remedy, day, counts }) => (remedy === 'seed' || remedy === 'mulch') && day !== null && counts);
  // What is in the bag that is sown, else all that grows there.
  const emerge = sown?.emerge ?? emergenceOf(grasses) ?? EMERGE_UNKNOWN;
  const laid = jobs.find(({ remedy, day, counts }) => remedy === 'sod' && day !== null && counts);
  const starter = jobs.some(({ remedy, day, counts }) => remedy === 'phosphorus' && laid && day !== null && counts && day <= laid.day!);
  return {
    water: year ? [0, WEEK].flatMap((by) => waterWeek(year, dayOn(from, by), watered, system) ?? []) : [],
    driest: (year && thirstiestWeek(year, from, watered, system)) ?? null,
    // Bare ground has no mower on it: its first cut is told with what is sown.
    mowing: bare ? null : ((mown && mowingAdvice(mown, system)?.words) ?? null),
    seedWater: sown ? seedWater(sown.day!, emerge, year, watered, system) : [],
    firstCut: sown && mown ? firstCutWords(mown.grass, system) : null,
    sod: laid ? sodCare(laid.day!, year, { cut: mown ? firstCutOf(mown.grass) : undefined, starter }, system) : null,
  };
} // prettier-ignore

/** Windows, care, and what does not keep its days, of all zones of a site: every day of a year for every kind of work. */
export const siteSeason = threaded(
  import.meta.url,
  'siteSeason',
  (
    place: SeasonPlace,
    zones: readonly SeasonZone[],
    jobs: readonly SeasonJob[],
    dates: ReadonlyArray<{ readonly day: string; readonly kind: DateKind }>,
  ): SiteSeason => {
    const { today, units } = place;
    const yearOf = yearsOf(place);
    const byZone = grouped(jobs, ({ zoneId }) => zoneId);
    const breaks = new Map<string, readonly string[]>();
    const windows = new Map<string, Spans>();
    const told = zones.map((zone) => {
      const own = byZone.get(zone.zoneId) ?? [];
      const ground = { today, system: units, blackouts: zone.blackouts, year: yearOf(zone.watered.season) };
      const beside = own.filter(({ counts }) => counts);
      for (const job of own)
        if (job.open && job.day !== null && job.day >= today)
          breaks.set(job.id, breaksOf(job, job.day, beside, ground).map(({ words }) => words)); // prettier-ignore
      return { windows: windowsOf(own, ground, windows), ...careOf(zone, own, ground) };
    });
    const [first] = zones;
    const year = first && yearOf(first.watered.season);
    const open = jobs.filter((job) => job.open);
    return {
      zones: told,
      breaks,
      weeks: year
        ? Array.from({ length: 53 }, (_, index) => dayOn(today, index * WEEK)).map((day) => {
            const { soil, growth } = normalDay(year, day);
            return { day, soil, growth };
          })
        : [],
      dates: dates.map(({ day, kind }) => backwardFrom(day, kind, open)),
    };
  },
);

/** Days for the doses of a site's program, beside those that keep theirs. */
export const placedJobs = threaded(
  import.meta.url,
  'placedJobs',
  (
    place: SeasonPlace,
    zones: readonly SeasonZone[],
    doses: readonly JobDose[],
    kept: ReadonlyArray<JobDose & { readonly day: string | null }>,
  ): PlacedJob[] => {
    const yearOf = yearsOf(place);
    const grounds = new Map(
      zones.map(({ zoneId, blackouts, watered }): [string, JobGround] => [
        zoneId,
        { today: place.today, system: place.units, blackouts, year: yearOf(watered.season) },
      ]),
    );
    return planJobs(doses, (zoneId) => grounds.get(zoneId)!, kept);
  },
);
