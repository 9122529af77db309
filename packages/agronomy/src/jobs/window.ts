import { defineCalculator } from '../calculators/calculator.ts';
import { type Field, choice, optional, quantity } from '../calculators/fields.ts';
import { flag, group, listOf } from '../calculators/structures.ts';
import { type Condition, type Known, allHold, holds } from '../rules/engine.ts';
import { type UnitSystem, present } from '../units/present.ts';
import {
  type Day,
  type DayFact,
  type DayFlag,
  type DayNumber,
  type DayWord,
  type WindowJob,
  type WindowRules,
  dayFlagNames,
  dayFlags,
  dayNumberNames,
  dayNumbers,
  dayWordNames,
  dayWords,
  readWindowRules,
  windowJobs,
  windowRules,
} from './windowRules.ts';

/** The facts of the day that the rules of a job ask for. */
export function factsAsked(job: WindowJob, rules: WindowRules = windowRules): DayFact[] {
  const { go = [], wait = [], never = [], warn = [] } = rules.jobs.find((entry) => entry.job === job) ?? {};
  const conditions = [
    ...go.flatMap(({ any }) => any.flatMap(({ all }) => all)),
    ...[...wait, ...never, ...warn].flatMap(({ when }) => when),
  ];
  return [...new Set(conditions.flatMap(({ fact }) => fact ?? []))] as DayFact[];
}

/** What was done before, and how many days ago. */
export interface Since {
  readonly job: WindowJob;
  readonly days: number;
}

export const windowVerdicts = ['go', 'wait', 'never'] as const;
export type WindowVerdict = (typeof windowVerdicts)[number];

export interface Window {
  readonly verdict: WindowVerdict;
  /** Why, the gravest first, then what is to be known, and what nobody told. */
  readonly reasons: readonly string[];
  /** Facts that would speak, were they told. */
  readonly unknown: readonly DayFact[];
  /** Conditions to go that hold, and how many there are. */
  readonly held: number;
  readonly asked: number;
}

const knownOf = (day: Day): Known =>
  Object.fromEntries(
    Object.entries(day as Readonly<Record<string, number | string | boolean | undefined>>).flatMap(([fact, value]) =>
      value === undefined ? [] : [[fact, typeof value === 'boolean' ? (value ? 'yes' : 'no') : value]],
    ),
  );

const isNumber = (fact: string): fact is DayNumber => Object.hasOwn(dayNumbers, fact);
const isWord = (fact: string): fact is DayWord => Object.hasOwn(dayWords, fact);

/** What a fact of the day is called. */
export const dayFactLabel = (fact: DayFact): string =>
  isNumber(fact) ? dayNumbers[fact].label : isWord(fact) ? dayWords[fact].label : dayFlags[fact];

const ends = ['above', 'below', 'from', 'to'] as const;

/** A number of the day in the reader’s unit; a potential as finely as rules ask for it. */
const tellNumber = (fact: DayNumber, value: number, system: UnitSystem): string =>
  dayNumbers[fact].sense === 'ratio'
    ? String(Number(value.toFixed(2)))
    : present(dayNumbers[fact].sense, value, system).text;

/** "wind 24 km/h, below 20 km/h": what is known of the numbers in some conditions, and what is asked of them. */
function tellNumbers(conditions: readonly Condition[], known: Known, system: UnitSystem): string {
  const facts = [...new Set(conditions.flatMap(({ fact }) => (fact && isNumber(fact) ? [fact] : [])))];
  return facts
    .flatMap((fact) => {
      const value = known[fact];
      if (typeof value !== 'number') return [];
      const { label } = dayNumbers[fact];
      const limits = conditions.flatMap((condition) =>
        condition.fact === fact
          ? ends.flatMap((end) =>
              condition[end] === undefined ? [] : [`${end} ${tellNumber(fact, condition[end], system)}`],
            )
          : [],
      );
      return [`${label} ${tellNumber(fact, value, system)}, asked ${limits.join(' ')}`];
    })
    .join('; ');
}

const sentence = (words: string, told: string): string => `${words}${told === '' ? '' : ` (${told})`}.`;

interface Way {
  readonly all: readonly Condition[];
}

/** Whether one of the ways holds, none of them can, or it turns on what nobody told. */
function heldIn(ways: readonly Way[], known: Known): 'held' | 'failed' | readonly string[] {
  if (ways.some(({ all }) => allHold(all, [], known))) return 'held';
  const open = ways.filter(({ all }) =>
    all.every((condition) => known[condition.fact!] === undefined || holds(condition, [], known)),
  );
  if (open.length === 0) return 'failed';
  return open.flatMap(({ all }) => all.flatMap(({ fact }) => (fact && known[fact] === undefined ? [fact] : [])));
}

/**
 * Whether a job may be done on a day: never if any `never` holds; else wait if any `wait` holds or a `go` condition that
 * can be judged fails; else go. What is not known is named, and does not fail.
 *
 * @param since what was done before, with the days between; `rules` a practice’s own.
 */
export function judgeDay(
  job: WindowJob,
  day: Day,
  since: readonly Since[] = [],
  { rules = windowRules, system = 'metric' }: { rules?: WindowRules | undefined; system?: UnitSystem } = {},
): Window {
  const rule = rules.jobs.find((entry) => entry.job === job);
  if (!rule)
    return {
      verdict: 'go',
      reasons: ['The rules given say nothing of this job: judge it by its label.'],
      unknown: [],
      held: 0,
      asked: 0,
    };
  const known = knownOf(day);
  const unknown = new Set<string>();
  const told = (list: ReadonlyArray<{ readonly when: readonly Condition[]; readonly words: string }> = []): string[] =>
    list.flatMap(({ when, words }) => {
      if (allHold(when, [], known)) return [sentence(words, tellNumbers(when, known, system))];
      if (when.every((condition) => known[condition.fact!] === undefined || holds(condition, [], known)))
        for (const { fact } of when) if (known[fact!] === undefined) unknown.add(fact!);
      return [];
    });
  const never = told(rule.never);
  const wait = told(rule.wait);
  const warn = told(rule.warn);
  const gaps = { never, wait, told: warn };
  for (const { jobs, days, verdict, unless, softly, words } of rule.since ?? []) {
    const last = since.filter((before) => jobs.includes(before.job)).sort((one, other) => one.days - other.days)[0];
    if (!last || last.days >= days || (unless && allHold(unless, [], known))) continue;
    gaps[softly && allHold(softly, [], known) ? 'told' : verdict].push(
      `${words}: ${last.job} ${last.days} ${last.days === 1 ? 'day' : 'days'} ago, ${days} are asked.`,
    );
  }
  let met = 0;
  for (const { words, any } of rule.go ?? []) {
    const held = heldIn(any, known);
    if (held === 'held') {
      met += 1;
      continue;
    }
    if (held !== 'failed') for (const fact of held) unknown.add(fact);
    else {
      // Of the ways there are, the one that comes nearest is told.
      const nearest = any.reduce((best, way) => (failing(way, known) < failing(best, known) ? way : best));
      wait.push(sentence(words, tellNumbers(nearest.all, known, system)));
    }
  }
  const open = [...unknown] as DayFact[];
  return {
    verdict: never.length > 0 ? 'never' : wait.length > 0 ? 'wait' : 'go',
    reasons: [
      ...[...never, ...wait, ...warn].filter((words, index, all) => all.indexOf(words) === index),
      ...(open.length > 0 ? [`Not known, look before you begin: ${open.map(dayFactLabel).join(', ')}.`] : []),
    ],
    unknown: open,
    held: met,
    asked: rule.go?.length ?? 0,
  };
}

const failing = ({ all }: Way, known: Known): number => all.filter((one) => !holds(one, [], known)).length;

const dayField = group({
  ...(Object.fromEntries(
    dayNumberNames.map((name) => {
      const { unit, min, max } = dayNumbers[name];
      return [name, optional(quantity(unit, { min, max }))];
    }),
  ) as Record<DayNumber, Field<number | undefined, true>>),
  ...(Object.fromEntries(dayWordNames.map((name) => [name, optional(choice(dayWords[name].words))])) as {
    [K in DayWord]: Field<(typeof dayWords)[K]['words'][number] | undefined, true>;
  }),
  ...(Object.fromEntries(dayFlagNames.map((name) => [name, optional(flag())])) as Record<
    DayFlag,
    Field<boolean | undefined, true>
  >),
});

const rulesField: Field<WindowRules, false> = {
  description: 'a table of rules, as the one that ships is written',
  optional: false,
  shape: { kind: 'json' },
  read: (raw, path) => readWindowRules(raw, path),
};

/**
 * Whether a job may be done on a day, by rules that are data.
 *
 * @param day what is known of it, °C, km/h, mm ahead, growth potential 0 to 1; `since` what was done before and how many
 *   days ago; `rules` the practice’s own table.
 * @returns `verdict` go, wait or never; `reasons` in sentences, also what is not known.
 */
export const seasonWindow = defineCalculator({
  name: 'season.window',
  title: 'Go, wait or never',
  source: windowRules.source,
  inputs: {
    job: choice(windowJobs),
    day: dayField,
    since: optional(
      listOf({ job: choice(windowJobs), days: quantity('', { min: 0, max: 4000 }) }, 'jobs', { min: 0, max: 200 }),
    ),
    rules: optional(rulesField),
  },
  outputs: { verdict: 'one of go, wait, never', reasons: '[text]' },
  compute({ job, day, since, rules }, book) {
    const { verdict, reasons, held, asked } = judgeDay(job, day, since, { rules });
    book.step({
      label: `Conditions to go that hold for ${job}`,
      formula: 'never before wait before go; what is not known does not fail',
      numbers: `${held} of ${asked}`,
      result: held,
      unit: 'conditions',
      source: (rules ?? windowRules).source,
    });
    for (const reason of reasons) book.warn(reason, (rules ?? windowRules).source);
    return { verdict, reasons };
  },
});
