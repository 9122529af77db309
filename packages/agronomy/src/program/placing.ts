import { remedyEntry } from '../remedies/remedyTable.ts';
import {
  type Candidates,
  type YearAhead,
  byGrowth,
  candidates,
  earliest,
  lastDay,
  monthTable,
  monthsFrom,
  possible,
} from '../remedies/months.ts';
import type { Blackout, UsualYear } from '../settings/settings.ts';
import type { Change } from './changes.ts';
import { monthName } from '../units/monthOf.ts';
import { changeOf } from './ownChanges.ts';
import { interactionTable } from './interactions.ts';
import { visitsOf } from './usualYear.ts';
import { dayOn } from '../season/normalDays.ts';
import { isInSowingWindow } from '../season/sowingWindow.ts';
import type { Dose, Treatment } from '../remedies/treatment.ts';

/** What a program is placed in. */
export interface Calendar {
  /** First day of the program. */
  readonly from: string;
  /** Nothing where the place has no climate. */
  readonly year: YearAhead | undefined;
  readonly changes: readonly Change[];
  /** What a program begins from. */
  readonly usual: UsualYear | null;
}

/** Days of a month that keep lime two weeks from what it must not meet. */
const EARLY = '10';
const HALF = '14';
const AFTER_HALF = '15';
const LATE = '25';

const jobOf = ({ job, remedy }: Treatment): string => job ?? remedyEntry(remedy).job;

const forbiddenFor = ({ remedy, brings }: Pick<Treatment, 'remedy' | 'brings'>): readonly Blackout['what'][] => {
  if (remedy === 'mulch')
    return [...(brings.n > 0 ? (['nitrogen'] as const) : []), ...(brings.p2o5 > 0 ? (['phosphorus'] as const) : [])];
  if (remedy === 'nitrogen' || remedy === 'phosphorus') return [remedy];
  return remedy === 'potassium' || remedy === 'magnesium' ? ['all fertilizer'] : [];
};

const onMonth = (dose: Dose, month: string, { from }: Calendar, own: boolean): Dose => ({
  ...dose,
  from: `${month}-01` < from ? from : `${month}-01`,
  to: lastDay(month),
  own,
});

/** "March, May and June 2027" of places in the year. */
const monthsTold = (at: readonly number[], ahead: readonly string[]): string =>
  at.map((index) => monthName(Number(ahead[index]!.slice(5)))).join(', ');

/**
 * Months that were set by hand, and kept. Doses beyond them go into months that suit, and that is said; so is a month of
 * one’s own that does not suit, with those that would.
 */
function byHand(treatment: Treatment, months: readonly number[], calendar: Calendar): Treatment {
  const ahead = monthsFrom(calendar.from);
  const { doses } = treatment;
  const { year } = calendar;
  const found = year && candidates(jobOf(treatment), year, forbiddenFor(treatment));
  const set = months
    .map((number) => ahead.findIndex((month) => Number(month.slice(5)) === number))
    .slice(0, doses.length);
  const { apart: gap } = monthTable.jobs.find(({ job }) => job === jobOf(treatment))!;
  const missing = doses.length - set.length;
  const free = (found?.at ?? []).filter((index) => set.every((own) => Math.abs(own - index) >= gap));
  const more = missing > 0 ? earliest({ at: free, apart: gap, words: undefined }, missing) : [];
  const at = [...set.map((index) => ({ index, own: true })), ...more.map((index) => ({ index, own: false }))].sort(
    (one, other) => one.index - other.index,
  );
  const unsuited = found ? set.filter((index) => !found.at.includes(index)) : [];
  const told = [
    unsuited.length > 0 &&
      `Set by hand to ${monthsTold(unsuited, ahead)}: ${found!.at.length > 0 ? `${monthsTold(found!.at, ahead)} would suit this work here` : 'no month of the coming year suits this work here'}.`,
    more.length > 0 &&
      `A pass carries no more, so ${more.length === 1 ? 'one more dose goes' : `${more.length} more doses go`} into ${monthsTold(more, ahead)}.`,
    at.length < doses.length &&
      `${doses.length - at.length} of ${doses.length} ${doses.length - at.length === 1 ? 'has' : 'have'} no month: choose more months, or give less.`,
  ].filter(Boolean);
  return {
    ...treatment,
    doses: doses.map((dose, place) =>
      at[place] === undefined ? dose : onMonth(dose, ahead[at[place].index]!, calendar, at[place].own),
    ),
    when: told.length > 0 ? told.join(' ') : null,
  };
}

/** Doses in the months that were chosen; what finds none is told. */
function onMonths(
  treatment: Treatment,
  at: readonly number[],
  words: string | undefined,
  year: YearAhead,
  calendar: Calendar,
): Treatment {
  const { doses, remedy } = treatment;
  const missing = doses.length - at.length;
  const rest = remedyEntry(remedy).job === 'feed' ? 'more slow nitrogen in a pass' : 'let the rest wait for next year';
  const told = [
    words,
    missing > 0 &&
      `${missing} of ${doses.length} ${missing === 1 ? 'finds' : 'find'} no month with room here: give less, or ${rest}.`,
  ].filter(Boolean);
  return {
    ...treatment,
    doses: doses.map((dose, index) =>
      at[index] === undefined ? dose : onMonth(dose, year.months[at[index]]!.month, calendar, false),
    ),
    when: told.length > 0 ? told.join(' ') : null,
  };
}

/** Where what belongs to a sowing goes: all but the later feeds with it. */
const withSowing = (sowing: number, { doses, remedy }: Treatment): number[] =>
  doses.map((_, index) => sowing + (remedy === 'nitrogen' ? index : 0)).filter((index) => index < 12);

/** What goes into the holes of coring, and so after it. */
/** The months of the usual year in which the work can be done at this place, and as many more as it wants. */
function usualMonths(treatment: Treatment, { usual }: Calendar, year: YearAhead): number[] | undefined {
  const { remedy, doses } = treatment;
  const numbers = visitsOf(usual, remedy).map(({ month }) => month);
  if (numbers.length === 0) return undefined;
  const { job } = remedyEntry(remedy);
  const all = possible(job, year, forbiddenFor(treatment));
  const set = all.at
    .filter((index) => numbers.includes(Number(year.months[index]!.month.slice(5))))
    .slice(0, doses.length);
  if (set.length === 0) return undefined;
  const free = all.at.filter((index) => set.every((taken) => Math.abs(taken - index) >= all.apart));
  const more = doses.length - set.length;
  const others = job === 'feed' ? byGrowth({ ...all, at: free }, more, year) : earliest({ ...all, at: free }, more);
  return [...set, ...(more > 0 ? others : [])].sort((one, other) => one - other);
}

/** Months in which the lawn is walked for nitrogen anyway, and others only where those are too few. */
function alongside(found: Candidates, fedAt: ReadonlySet<number>, doses: number, year: YearAhead): number[] {
  const shared = found.at.filter((index) => fedAt.has(index));
  const first = byGrowth({ ...found, at: shared }, doses, year);
  const others = found.at.filter((index) => !shared.includes(index));
  const more = first.length < doses ? byGrowth({ ...found, at: others }, doses - first.length, year) : [];
  return [...first, ...more].sort((one, other) => one - other);
}

/** Whether the order of work wants one before the other. */
const goesBefore = (first: Treatment, second: Treatment): boolean =>
  interactionTable.pairs.some(
    ({ order, one, other }) => order && one.includes(first.remedy) && other.includes(second.remedy),
  );

/** What is sown in autumn has the days of the window, not whole months. */
function inSowingWindow(treatment: Treatment, { sowing }: YearAhead): Treatment {
  if (treatment.remedy !== 'seed' || jobOf(treatment) !== 'seed' || !sowing) return treatment;
  return {
    ...treatment,
    doses: treatment.doses.map((dose) => {
      if (!dose.from || !dose.to || dose.own) return dose;
      const days: string[] = [];
      for (let day = dose.from; day <= dose.to; day = dayOn(day, 1)) if (isInSowingWindow(sowing, day)) days.push(day);
      return days.length > 0 ? { ...dose, from: days[0]!, to: days.at(-1)! } : dose;
    }),
  };
}

const TILLED_IN: readonly Treatment['remedy'][] = ['lime', 'compost', 'gypsum', 'phosphorus', 'potassium', 'nitrogen'];

/**
 * Months for every dose: those in which the job may be done, feeding as the grass grows, lime where no feed is near,
 * and all that is tilled into a bed with its sowing.
 */
export function placed(treatments: readonly Treatment[], seedbed: boolean, calendar: Calendar): Treatment[] {
  const { year, changes } = calendar;
  const monthsOf = (treatment: Treatment): Candidates => candidates(jobOf(treatment), year!, forbiddenFor(treatment));
  const set = ({ key }: Treatment) => changeOf(changes, key)?.months;
  const sown = treatments.find(
    ({ remedy, status }) => status === 'planned' && (remedy === 'seed' || remedy === 'mulch'),
  );
  const monthAt = (number: number): number =>
    monthsFrom(calendar.from).findIndex((month) => Number(month.slice(5)) === number);
  const ownAt = (treatment: Treatment): number | undefined => {
    const [month] = set(treatment) ?? [];
    return month === undefined ? undefined : monthAt(month);
  };
  // Where the first dose of each stands that is placed, or was set by hand.
  const firstAt = new Map(treatments.flatMap((treatment) => (ownAt(treatment) === undefined ? [] : [[treatment.key, ownAt(treatment)!] as const]))); // prettier-ignore
  /** Months between what has to be done before it and what has to come after it. */
  const inTurn = (treatment: Treatment, found: Candidates): Candidates => {
    const at = (others: readonly Treatment[]): number[] => others.flatMap(({ key }) => firstAt.get(key) ?? []);
    const given = treatments.filter(({ status, key }) => status === 'planned' && key !== treatment.key);
    const least = Math.max(0, ...at(given.filter((other) => goesBefore(other, treatment))));
    const most = Math.min(Infinity, ...at(given.filter((other) => goesBefore(treatment, other))));
    const late = found.at.filter((index) => index >= least);
    const between = late.filter((index) => index <= most);
    // Where none is left it stands in its own months, and the order is told.
    return { ...found, at: between.length > 0 ? between : late.length > 0 ? late : found.at };
  };
  const sowing =
    seedbed && year && sown ? (ownAt(sown) ?? inTurn(sown, candidates(jobOf(sown), year)).at[0]) : undefined;
  const fedAt = new Set<number>();
  const monthsFor = (treatment: Treatment, found: Candidates, ahead: YearAhead): number[] => {
    const { remedy, doses } = treatment;
    const usual = usualMonths(treatment, calendar, ahead);
    if (usual) return usual;
    if (remedy === 'nitrogen') return byGrowth(found, doses.length, ahead);
    if (remedyEntry(remedy).job === 'feed') return alongside(found, fedAt, doses.length, ahead);
    const beside = [...fedAt].flatMap((index) => [index - 1, index, index + 1]);
    return earliest(found, doses.length, remedy === 'lime' ? new Set(beside) : undefined);
  };
  const place = (treatment: Treatment): Treatment => {
    const own = set(treatment);
    const { doses, remedy } = treatment;
    if (doses.length === 0) return treatment;
    if (own) return byHand(treatment, own, calendar);
    if (!year) return treatment;
    if (sowing !== undefined && TILLED_IN.includes(remedy))
      return onMonths(treatment, withSowing(sowing, treatment), undefined, year, calendar);
    const found = inTurn(treatment, monthsOf(treatment));
    const at = monthsFor(treatment, found, year);
    if (remedy === 'nitrogen') at.forEach((index) => fedAt.add(index));
    if (at[0] !== undefined) firstAt.set(treatment.key, at[0]);
    return inSowingWindow(onMonths(treatment, at, found.words, year, calendar), year);
  };
  // Nitrogen first: lime looks for months without it.
  const nitrogen = new Map(
    treatments.filter(({ remedy }) => remedy === 'nitrogen').map((treatment) => [treatment.key, place(treatment)]),
  );
  const all = treatments.map((treatment) => nitrogen.get(treatment.key) ?? place(treatment));
  return seedbed ? bedded(all) : apart(all);
}

const FEEDS: readonly Treatment['remedy'][] = ['nitrogen', 'phosphorus'];

/** The month so many after another. */
function monthOn(month: string, by: number): string {
  const [year = 0, number = 1] = month.split('-').map(Number);
  const at = year * 12 + number - 1 + by;
  return `${Math.floor(at / 12)}-${String((at % 12) + 1).padStart(2, '0')}`;
}

/** The doses of some treatments that stand in the months that were found for them, by month. */
function byMonth(treatments: readonly Treatment[], remedies: readonly Treatment['remedy'][]): Set<string> {
  const doses = treatments
    .filter(({ remedy, status }) => remedies.includes(remedy) && status === 'planned')
    .flatMap((treatment) => treatment.doses);
  return new Set(doses.flatMap(({ from, own }) => (from && !own ? [from.slice(0, 7)] : [])));
}

/** A dose within some days of its month. */
function within(dose: Dose, window: Partial<Pick<Dose, 'from' | 'to'>>): Dose {
  const from = [dose.from!, window.from ?? ''].sort().at(-1)!;
  const to = [dose.to!, window.to ?? '9'].sort()[0]!;
  // A program that begins late in the month leaves no such days: the whole of what is left stands, and is found.
  return from <= to ? { ...dose, from, to } : dose;
}

/** A bed that is limed is tilled early in the month, lies for two weeks, and is sown and fed late in it. */
function bedded(treatments: readonly Treatment[]): Treatment[] {
  const limed = byMonth(treatments, ['lime']);
  return treatments.map((treatment) => ({
    ...treatment,
    doses: treatment.doses.map((dose) => {
      const month = dose.from?.slice(0, 7);
      if (!month || dose.own || !limed.has(month)) return dose;
      const late = treatment.remedy === 'nitrogen' || treatment.remedy === 'seed';
      if (late) return within(dose, { from: `${month}-${LATE}` });
      return TILLED_IN.includes(treatment.remedy) ? within(dose, { to: `${month}-${EARLY}` }) : dose;
    }),
  }));
}

/** Lime and feed that share a month, or stand in neighbouring ones, keep to the days that are two weeks apart. */
function apart(treatments: readonly Treatment[]): Treatment[] {
  const limed = byMonth(treatments, ['lime']);
  const fed = byMonth(treatments, FEEDS);
  const untilOf = new Map<string, string>();
  const fromOf = new Map<string, string>();
  const limeWindow = new Map<string, Partial<Pick<Dose, 'from' | 'to'>>>();
  for (const month of limed) {
    const [before, after] = [monthOn(month, -1), monthOn(month, 1)];
    const [same, next, previous] = [fed.has(month), fed.has(after), fed.has(before)];
    if (same) fromOf.set(month, `${month}-${LATE}`);
    if (previous && (same || next)) untilOf.set(before, `${before}-${HALF}`);
    if (same) limeWindow.set(month, { to: `${month}-${EARLY}` });
    else if (next) limeWindow.set(month, { to: `${month}-${HALF}` });
    else if (previous) limeWindow.set(month, { from: `${month}-${AFTER_HALF}` });
  }
  return treatments.map((treatment) => ({
    ...treatment,
    doses: treatment.doses.map((dose) => {
      const month = dose.from?.slice(0, 7);
      if (!month || dose.own) return dose;
      if (treatment.remedy === 'lime') return within(dose, limeWindow.get(month) ?? {});
      if (!FEEDS.includes(treatment.remedy)) return dose;
      return within(dose, { from: fromOf.get(month) ?? '', to: untilOf.get(month) ?? '9' });
    }),
  }));
}
