import { choice, defaulted, optional, quantity } from '../calculators/fields.ts';
import { listOf, series, text } from '../calculators/structures.ts';
import { readTable } from '../calculators/table.ts';
import data from '../data/window-rules.json' with { type: 'json' };
import { checkConditions, conditionFields } from '../rules/engine.ts';

/** What is judged before it is done. */
export const windowJobs = [
  ...(['seed cool-season', 'seed warm-season', 'lime', 'gypsum', 'sulfur', 'soluble fertilizer'] as const),
  ...(['slow fertilizer', 'core', 'dethatch', 'compost', 'sand', 'wetting agent', 'living brew'] as const),
  ...(['sprayed mulch', 'sample', 'mow'] as const),
] as const;
export type WindowJob = (typeof windowJobs)[number];

/** What a day is known by as a number, with its unit, its sense and what it is called. */
export const dayNumbers = {
  soilTemperature: { unit: 'C', sense: 'temperature', label: 'soil at 5 cm', min: -40, max: 60 },
  airMax: { unit: 'C', sense: 'temperature', label: 'the day’s high', min: -60, max: 60 },
  wind: { unit: 'km/h', sense: 'speed', label: 'wind', min: 0, max: 300 },
  rain24: { unit: 'mm', sense: 'rainfall', label: 'rain ahead in 24 h', min: 0, max: 1000 },
  rain48: { unit: 'mm', sense: 'rainfall', label: 'rain ahead in 48 h', min: 0, max: 2000 },
  rainWeek: { unit: 'mm', sense: 'rainfall', label: 'rain ahead in a week', min: 0, max: 5000 },
  growth: { unit: '', sense: 'ratio', label: 'growth potential', min: 0, max: 1 },
  growthDays: { unit: '', sense: 'count', label: 'days of growth ahead', min: 0, max: 400 },
  daysToFrost: { unit: '', sense: 'count', label: 'days to the first frost', min: 0, max: 400 },
  slope: { unit: '%', sense: 'percent', label: 'slope', min: 0, max: 500 },
} as const;

/** What it is known by in words, and what that is called. */
export const dayWords = {
  soilTrend: { words: ['rising', 'falling', 'steady'], label: 'whether the soil warms or cools' },
  ground: { words: ['firm', 'wet', 'saturated', 'frozen', 'snow'], label: 'ground' },
  leaves: { words: ['dry', 'wet'], label: 'leaves' },
  sky: { words: ['sun', 'overcast', 'evening'], label: 'sky' },
} as const;

/** What is so or not, and what it is called. */
export const dayFlags = {
  bare: 'bare, tilled ground',
  moist: 'moist soil',
  drought: 'drought',
  pulverised: 'pulverised lime',
  fineSeed: 'fine seed',
  overseeding: 'overseeding',
  wetWanted: 'the label wants wet leaves',
  irrigated: 'water at hand',
  blackout: 'days that the local rules keep free',
  byWater: 'inside the strip along water',
  runningWater: 'running water',
  beforeRains: 'before the local date of the rains',
  fineOverCoarse: 'fine material over coarse',
  linesMarked: 'buried lines marked',
  tankRinsed: 'tank rinsed',
  sameSeason: 'the season of the last test',
} as const;

export type DayNumber = keyof typeof dayNumbers;
export type DayWord = keyof typeof dayWords;
export type DayFlag = keyof typeof dayFlags;
export type DayFact = DayNumber | DayWord | DayFlag;

/** A day as far as it is known. */
export type Day = Readonly<Partial<Record<DayNumber, number | undefined>>> & {
  readonly [K in DayWord]?: (typeof dayWords)[K]['words'][number] | undefined;
} & Readonly<Partial<Record<DayFlag, boolean | undefined>>>;

export const dayNumberNames = Object.keys(dayNumbers) as DayNumber[];
export const dayWordNames = Object.keys(dayWords) as DayWord[];
export const dayFlagNames = Object.keys(dayFlags) as DayFlag[];
export const dayFacts: readonly DayFact[] = [...dayNumberNames, ...dayWordNames, ...dayFlagNames];

const conditions = () => listOf(conditionFields(dayFacts), 'conditions', { min: 1, max: 8 });
const told = () => optional(listOf({ when: conditions(), words: text(200) }, 'rules', { min: 1, max: 12 }));

const ruleFields = {
  jobs: listOf(
    {
      job: choice(windowJobs),
      /** Each has to hold in one of its ways. */
      go: optional(
        listOf(
          { words: text(200), any: listOf({ all: conditions() }, 'ways', { min: 1, max: 6 }) },
          'conditions to go',
          { min: 1, max: 12 },
        ),
      ),
      wait: told(),
      never: told(),
      /** Said where it holds, and no hindrance. */
      warn: told(),
      since: optional(
        listOf(
          {
            jobs: series(choice(windowJobs), 'jobs', { min: 1, max: 12 }),
            /** Fewer than these since one of them are too few. */
            days: quantity('', { min: 1, max: 400 }),
            verdict: defaulted(choice(['wait', 'never', 'told']), 'wait'),
            /** Where this holds it is no matter. */
            unless: optional(conditions()),
            /** Where this holds it is said only. */
            softly: optional(conditions()),
            words: text(200),
          },
          'gaps',
          { min: 1, max: 8 },
        ),
      ),
    },
    'jobs',
    { min: 1, max: windowJobs.length },
  ),
};

const vocabulary = {
  signs: [],
  words: {
    ...Object.fromEntries(dayWordNames.map((name) => [name, dayWords[name].words])),
    ...Object.fromEntries(dayFlagNames.map((name) => [name, ['yes', 'no']])),
  },
};

/**
 * Read rules of when a job may be done: those that ship, or a practice’s own.
 *
 * @throws {InputError} naming the field, and for a condition that could never hold
 */
export function readWindowRules(raw: unknown, name = 'rules') {
  const table = readTable(name, ruleFields, raw);
  for (const { job, go = [], wait = [], never = [], warn = [], since = [] } of table.jobs) {
    const lists = [
      ...go.flatMap(({ any }) => any.map(({ all }) => all)),
      ...[...wait, ...never, ...warn].map(({ when }) => when),
      ...since.flatMap(({ unless, softly }) => [unless ?? [], softly ?? []]),
    ];
    for (const list of lists) checkConditions(list, vocabulary, `${name}.${job}`);
  }
  return table;
}

export type WindowRules = ReturnType<typeof readWindowRules>;
export const windowRules = readWindowRules(data, 'window-rules');
