import { type Analyte, analyteKeys, analyteWord, analytes } from '../analytes/analytes.ts';
import { inOwnUnit } from '../analytes/reported.ts';
import { lastDayOf } from '../ledger/entries.ts';
import type { Applied } from '../ground/applied.ts';
import { notComparable } from '../lab/comparable.ts';
import { capital } from '../units/capital.ts';
import { monthOf } from '../units/monthOf.ts';
import { type UnitSystem, present } from '../units/present.ts';
import type { Working } from '../working/working.ts';
import type { TakenValue } from './lines.ts';
import { retestTable } from './retestDue.ts';
import { compareTests } from '../reading/testDifference.ts';

/** One value on the line of time. */
export interface TrendPoint {
  readonly on: string;
  readonly value: number;
  readonly told: string;
  /** Tests of one run can be laid side by side. */
  readonly run: number;
}

/** What was spread or done that bears on it. */
export interface TrendMark {
  readonly on: string;
  readonly words: string;
}

/** How an analyte went over the years. */
export interface Trend {
  readonly analyte: Analyte;
  readonly name: string;
  readonly points: readonly TrendPoint[];
  readonly marks: readonly TrendMark[];
  /** Plain sentences: what changed, since what, or that nobody can say. */
  readonly words: readonly string[];
  readonly working: Working;
}

interface Dated extends TakenValue {
  readonly on: string;
}

const kindsFor = (analyte: Analyte): readonly string[] =>
  retestTable.bears.find((one) => one.analyte === analyte)?.kinds ?? [];

/** What was done between two tests that bears on it, the last of each kind. */
function between(marks: readonly TrendMark[], from: string, to: string): TrendMark[] {
  return marks.filter(({ on }) => lastDayOf(on) > from && lastDayOf(on) <= to);
}

/** "since the lime of April 2025" */
function since(marks: readonly TrendMark[], from: string): string {
  // Of a feed nobody can say here what was in it.
  const last = marks.filter(({ words }) => words !== 'fertilizer').at(-1);
  return last ? `since the ${last.words} of ${monthOf(last.on)}` : `since ${monthOf(from)}`;
}

/** ", after the lime of November 2023"; the first that was put down. */
function whyOf(marks: readonly TrendMark[]): string {
  const first = marks.find(({ words }) => words !== 'fertilizer');
  return first ? `, after the ${first.words} of ${monthOf(first.on)}` : '';
}

/** "pH", "Phosphorus" at the head of a sentence. */
const named = (analyte: Analyte): string => (analyte === 'soilPh' ? 'pH' : capital(analyteWord(analyte)));

function trendOf(analyte: Analyte, values: readonly Dated[], applied: readonly Applied[], system: UnitSystem): Trend {
  const { sense, name } = analytes[analyte];
  const say = (value: number): string => (sense === 'word' ? String(value) : present(sense, value, system).text);
  const runs: Dated[] = [];
  const points = values.map((one): TrendPoint => {
    const known = runs.findIndex((first) => notComparable(one, first) === undefined);
    const run = known < 0 ? runs.push(one) - 1 : known;
    const { value } = inOwnUnit(analyte, one.value);
    return { on: one.on, value, told: say(value), run };
  });
  const first = values[0]!.on;
  const kinds = kindsFor(analyte);
  const marks = applied
    .filter(({ kind, on }) => kinds.includes(kind) && lastDayOf(on) > first)
    .map(({ kind, on }) => ({ on, words: kind }))
    .sort((one, other) => lastDayOf(one.on).localeCompare(lastDayOf(other.on)));
  const last = points.at(-1)!;
  const own = points.flatMap((point, index) => (point.run === last.run ? [{ point, taken: values[index]! }] : []));
  const words: string[] = [];
  let working: Working = [];
  const [newest, before] = [own.at(-1)!, own.at(-2)];
  if (!before)
    words.push(
      points.length > 1
        ? `${named(analyte)} of ${monthOf(last.on)} cannot be laid beside the tests before: ${notComparable(values.at(-1)!, values.at(-2)!) ?? 'another way of measuring'}.`
        : `${named(analyte)} was measured once.`,
    );
  else {
    const compared = compareTests(
      analyte,
      { value: before.point.value, cores: before.taken.cores },
      { value: newest.point.value, cores: newest.taken.cores },
    );
    const [from, to] = [before.point.told, newest.point.told];
    const done = between(marks, before.point.on, newest.point.on);
    if (!compared) words.push(`${named(analyte)} was ${from} in ${monthOf(before.point.on)} and is ${to}.`);
    else {
      working = compared.working;
      const { change, differs } = compared.result;
      const rose = change > 0 ? 'rose' : 'fell';
      words.push(
        differs
          ? `${named(analyte)} ${rose} ${say(Math.abs(change)).replace(/^pH /, '')}, from ${from} to ${to}, ${since(done, before.point.on)}.`
          : done.some(({ words: what }) => what !== 'fertilizer')
            ? `${named(analyte)} went from ${from} to ${to} ${since(done, before.point.on)}: no more than two samples of one lawn differ, so it has not shown yet.`
            : `${named(analyte)} went from ${from} to ${to} since ${monthOf(before.point.on)}: no more than two samples of one lawn differ.`,
      );
    }
    const oldest = own[0]!;
    const whole =
      own.length > 2
        ? compareTests(
            analyte,
            { value: oldest.point.value, cores: oldest.taken.cores },
            { value: newest.point.value, cores: newest.taken.cores },
          )
        : undefined;
    if (whole?.result.differs)
      words.push(
        `Over all: ${whole.result.change > 0 ? 'up' : 'down'} from ${oldest.point.told} in ${monthOf(oldest.point.on)}${whyOf(between(marks, oldest.point.on, newest.point.on))}: more than chance.`,
      );
  }
  return { analyte, name, points, marks, words, working };
}

/**
 * How each analyte of a zone went over the years: its tests, which of them can be laid side by side, what was spread that
 * bears on it, and whether it changed by more than chance.
 *
 * @param values of the zone, with a day; `applied` by the logbook
 * @returns what was measured more than once, in the order of a report
 */
export function trendsOf(values: readonly TakenValue[], applied: readonly Applied[], system: UnitSystem): Trend[] {
  // Soil pH decides what else is read, and comes first.
  const order: readonly Analyte[] = ['soilPh', ...analyteKeys.filter((key) => key !== 'soilPh')];
  return order.flatMap((analyte) => {
    const own = values
      .filter(
        (one): one is Dated =>
          one.analyte === analyte && one.on !== null && !one.value.belowDetection && !one.value.rated,
      )
      .sort((one, other) => one.on.localeCompare(other.on));
    return own.length > 1 && analytes[analyte].sense !== 'word' ? [trendOf(analyte, own, applied, system)] : [];
  });
}
