import { choice, optional, quantity } from '../calculators/fields.ts';
import { listOf, text } from '../calculators/structures.ts';
import { readTable } from '../calculators/table.ts';
import data from '../data/program-months.json' with { type: 'json' };
import { type Known, checkConditions, conditionFields, firstThatHolds } from '../rules/engine.ts';
import { type PlaceClimate, growthByMonth } from '../season/climate.ts';
import { isInSowingWindow, type SowingWindow, shortWindowWords, sowingWindow } from '../season/sowingWindow.ts';
import { type NormalYear, dayOn, normalYear } from '../season/normalDays.ts';
import type { Blackout } from '../settings/settings.ts';

const facts = ['season', 'low', 'high', 'mean', 'growth', 'growthAhead', 'trend', 'daysToFrost'] as const;

/** In which months of a place each job may be done. */
export const monthTable = readTable(
  'program-months',
  {
    jobs: listOf(
      {
        job: text(40),
        /** Months from one dose to the next, at least. */
        apart: quantity('', { min: 1, max: 12, whole: true }),
        /** In the order in which they are wanted. */
        cases: listOf(
          {
            when: listOf(conditionFields(facts), 'conditions', { min: 1, max: 8 }),
            /** What is to be said where only this one is left. */
            words: optional(text(200)),
          },
          'cases',
          { min: 1, max: 8 },
        ),
      },
      'jobs',
      { min: 1, max: 30 },
    ),
  },
  data,
);
const vocabulary = { signs: [], words: { season: ['cool', 'warm'], trend: ['rising', 'falling', 'steady'] } };
for (const { job, cases } of monthTable.jobs)
  for (const { when } of cases) checkConditions(when, vocabulary, `program-months.${job}`);

export const monthJobs: readonly string[] = monthTable.jobs.map(({ job }) => job);
export const monthJobField = choice(monthJobs);

/** A month of a program’s year, by the normals of its place. */
export interface MonthAhead {
  /** `2027-03` */
  readonly month: string;
  /** °C */
  readonly mean: number;
  /** Growth potential, 0 to 1. */
  readonly growth: number;
  readonly known: Known;
}

/** The twelve months that a program is for, and whose numbers they are. */
export interface YearAhead {
  /** First day of it. */
  readonly from: string;
  readonly season: 'cool' | 'warm';
  readonly months: readonly MonthAhead[];
  readonly basis: string;
  readonly madeUp: boolean;
  readonly blackouts: readonly Blackout[];
  /** When cool-season grass is sown in autumn here. */
  readonly sowing: SowingWindow | undefined;
}

/** The ordinary days of a climate, for the window of sowing; worked out once for each. */
const coolYears = new WeakMap<PlaceClimate, NormalYear>();

function sowingOf(climate: PlaceClimate, season: 'cool' | 'warm'): SowingWindow | undefined {
  if (season === 'warm') return undefined;
  const year = coolYears.get(climate) ?? normalYear(climate, 'cool');
  coolYears.set(climate, year);
  return sowingWindow(year);
}

/** Days that a month must hold of the best of the window, or of the window, for a sowing to be put there. */
const ENOUGH_BEST = 14;
const ENOUGH = 10;

/** The month of the coming year in which cool-season grass is sown: the first of the best days, else the coolest that is left. */
function sowingMonthOf({ months, from }: Pick<YearAhead, 'months' | 'from'>, window: SowingWindow): number | undefined {
  const counted = months.map(({ month }, index) => {
    let [all, best] = [0, 0];
    for (let day = `${month}-01` < from ? from : `${month}-01`; day <= lastDay(month); day = dayOn(day, 1)) {
      if (!isInSowingWindow(window, day)) continue;
      all += 1;
      if (window.best !== null && isInSowingWindow({ ...window, from: window.best }, day)) best += 1;
    }
    return { index, all, best };
  });
  return (
    counted.find(({ best }) => best >= ENOUGH_BEST) ??
    counted.findLast(({ all }) => all >= ENOUGH) ??
    counted.find(({ all }) => all > 0)
  )?.index;
}

const pad = (number: number): string => String(number).padStart(2, '0');
const dayNumber = (day: string): number => Date.parse(`${day}T00:00:00Z`) / 86_400_000;

/** The last day of a month. */
export function lastDay(month: string): string {
  const [year = 0, number = 1] = month.split('-').map(Number);
  return `${month}-${pad(new Date(Date.UTC(year, number, 0)).getUTCDate())}`;
}

/** Months of a program that has begun late in one start with the next. */
const LATE = 20;

/** Twelve months, the one of the day on which they begin first; the next where it is nearly over. */
export function monthsFrom(day: string): string[] {
  const [year = 0, month = 1, date = 1] = day.split('-').map(Number);
  const first = year * 12 + month - 1 + (date > LATE ? 1 : 0);
  return Array.from({ length: 12 }, (_, index) => {
    const at = first + index;
    return `${Math.floor(at / 12)}-${pad((at % 12) + 1)}`;
  });
}

/** Whole days from the middle of a month to the next first frost; none in the season of frost, many where there is no frost. */
function daysToFrost(month: string, { firstFrost, lastFrost }: Pick<PlaceClimate, 'firstFrost' | 'lastFrost'>): number {
  if (!firstFrost) return 366;
  const middle = `${month.slice(5)}-15`;
  if (
    lastFrost &&
    (firstFrost > lastFrost ? middle >= firstFrost || middle < lastFrost : middle >= firstFrost && middle < lastFrost)
  )
    return 0;
  const day = dayNumber(`${month}-15`);
  const [year = 0] = month.split('-').map(Number);
  const [this_ = 0, next = 0] = [year, year + 1].map((of) => dayNumber(`${of}-${firstFrost}`));
  return (this_ >= day ? this_ : next) - day;
}

/**
 * The year that a program is for.
 *
 * @param from its first day, `2026-11-27`; `season` of the grass; `blackouts` of the rules of the place.
 * @returns nothing where the place has no climate: months are then not known.
 */
export function yearAhead(
  from: string,
  climate: PlaceClimate | undefined,
  season: 'cool' | 'warm',
  blackouts: readonly Blackout[] = [],
): YearAhead | undefined {
  if (!climate) return undefined;
  const growth = growthByMonth(climate, season);
  const mean = climate.low.map((low, index) => (low + climate.high[index]!) / 2);
  const names = monthsFrom(from);
  const months = names.map((month): MonthAhead => {
    const index = Number(month.slice(5)) - 1;
    const [before, after] = [mean[(index + 11) % 12]!, mean[(index + 1) % 12]!];
    const trend = Math.abs(after - before) < 0.5 ? 'steady' : after > before ? 'rising' : 'falling';
    return {
      month,
      mean: mean[index]!,
      growth: growth[index]!,
      known: {
        season,
        low: climate.low[index]!,
        high: climate.high[index]!,
        mean: mean[index]!,
        growth: growth[index]!,
        growthAhead: growth[(index + 1) % 12]!,
        trend,
        daysToFrost: daysToFrost(month, climate),
      },
    };
  });
  return {
    ...{ from, season, months, basis: climate.basis, madeUp: climate.madeUp, blackouts },
    sowing: sowingOf(climate, season),
  };
}

/** Whether a month lies wholly in days in which nothing of that may be spread. */
function blackedOut(month: string, nutrients: readonly Blackout['what'][], blackouts: readonly Blackout[]): boolean {
  const inside = (day: string, { from, to }: Blackout): boolean =>
    from <= to ? day >= from && day <= to : day >= from || day <= to;
  const ends = [`${month}-01`, lastDay(month)].map((day) => day.slice(5));
  return blackouts.some(
    (out) => (nutrients.includes(out.what) || out.what === 'all fertilizer') && ends.every((day) => inside(day, out)),
  );
}

export interface Candidates {
  /** Places of the months in the year. */
  readonly at: readonly number[];
  readonly apart: number;
  /** What is to be said of them. */
  readonly words: string | undefined;
}

/** The months of a year in which a job may be done: those of the case that is wanted most. */
export function candidates(job: string, year: YearAhead, nutrients: readonly Blackout['what'][] = []): Candidates {
  const { cases, apart } = monthTable.jobs.find((entry) => entry.job === monthJobField.read(job, 'job'))!;
  const free = year.months.flatMap((month, index) =>
    nutrients.length > 0 && blackedOut(month.month, nutrients, year.blackouts) ? [] : [{ month, index }],
  );
  const { sowing } = year;
  if (job === 'seed' && sowing) {
    const at = sowingMonthOf(year, sowing);
    if (at !== undefined) return { at: [at], apart, words: sowing.short ? shortWindowWords : undefined };
  }
  for (const one of cases) {
    const at = free.flatMap(({ month, index }) => (firstThatHolds([one], [], month.known) ? [index] : []));
    if (at.length > 0) return { at, apart, words: one.words };
  }
  return { at: [], apart, words: undefined };
}

/** All months in which it may be done at all, also where others are wanted more. */
export function possible(job: string, year: YearAhead, nutrients: readonly Blackout['what'][] = []): Candidates {
  const { cases, apart } = monthTable.jobs.find((entry) => entry.job === monthJobField.read(job, 'job'))!;
  const at = year.months.flatMap(({ month, known }, index) =>
    !(nutrients.length > 0 && blackedOut(month, nutrients, year.blackouts)) && firstThatHolds(cases, [], known)
      ? [index]
      : [],
  );
  return { at, apart, words: undefined };
}

/** As many of the months as doses, each at least so far from the one before, from the first on. */
export function earliest({ at, apart }: Candidates, doses: number, avoid: ReadonlySet<number> = new Set()): number[] {
  const chosen: number[] = [];
  const fits = (index: number): boolean => chosen.length === 0 || index - chosen.at(-1)! >= apart;
  // Months that another job wants are taken only where there are no others.
  for (const pool of [at.filter((index) => !avoid.has(index)), at]) {
    chosen.length = 0;
    for (const index of pool) if (chosen.length < doses && fits(index)) chosen.push(index);
    if (chosen.length === doses) break;
  }
  return chosen;
}

/** Doses spread over the months as the grass grows in them, one a month. */
export function byGrowth({ at }: Candidates, doses: number, year: YearAhead): number[] {
  const weights = at.map((index) => year.months[index]!.growth);
  const sum = weights.reduce((all, weight) => all + weight, 0);
  const taken = new Set<number>();
  for (let dose = 0; dose < Math.min(doses, at.length); dose += 1) {
    const middle = ((dose + 0.5) / doses) * sum;
    let reached = 0;
    let place = at.length - 1;
    for (const [index, weight] of weights.entries()) {
      reached += weight;
      if (reached >= middle) {
        place = index;
        break;
      }
    }
    const free = at.map((_, index) => index).filter((index) => !taken.has(index));
    taken.add(free.reduce((best, index) => (Math.abs(index - place) < Math.abs(best - place) ? index : best)));
  }
  return [...taken].sort((one, other) => one - other).map((index) => at[index]!);
}
