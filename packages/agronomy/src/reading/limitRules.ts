import { choice, optional } from '../calculators/fields.ts';
import { listOf, series, text } from '../calculators/structures.ts';
import { readTable } from '../calculators/table.ts';
import data from '../data/limit-rules.json' with { type: 'json' };
import { ratings } from '../nutrients/sufficiencyTables.ts';
import { nutrients } from '../analytes/analytes.ts';
import { surfaces } from '../ground/surfaces.ts';
import { checkConditions, conditionFields } from '../rules/engine.ts';
import { degrees } from './degrees.ts';
import { saltRatings } from './salt.ts';
import { sodiumWords } from './ownWordBars.ts';

/** What the limits of a zone are judged by, as numbers with their unit; the rest is told in words. */
export const limitNumbers = {
  /** Drop of a test hole, of its slowest layer where that is known. */
  percolation: 'mm/h',
  slope: '%',
  probeStop: 'cm',
  thatch: 'cm',
  /** How long a drop of water stands. */
  waterDrop: 's',
  /** Hours by which the sun falls short of what the grass needs. */
  sunShort: 'h',
  ph: 'pH',
  /** Foot of the band of the grass, of the largest part of a mix. */
  bandFoot: 'pH',
  /** By how much organic matter misses what is wanted. */
  organicShort: '%',
} as const;
export const limitWords = {
  surface: surfaces,
  lie: ['slope', 'flat', 'hollow'],
  grows: ['grass', 'garden bed'],
  organicSoil: ['yes', 'no'],
  acidity: ['a little acid', 'acid', 'very acid', 'a little alkaline', 'alkaline', 'very alkaline'],
  salt: saltRatings,
  sodium: sodiumWords,
  organicRating: ratings,
  /** The nutrient that is being judged, and its rating. */
  nutrient: nutrients,
  rating: ratings,
} as const;

export const limitFacts = [...Object.keys(limitNumbers), ...Object.keys(limitWords)] as ReadonlyArray<
  keyof typeof limitNumbers | keyof typeof limitWords
>;

type Known<K extends keyof typeof limitWords> = (typeof limitWords)[K][number] | undefined;
/** What is known of a zone; nothing where it is not. */
export type LimitEvidence = Readonly<Partial<Record<keyof typeof limitNumbers, number | undefined>>> & {
  readonly [K in keyof typeof limitWords]?: Known<K>;
};

/** What a sentence of a rule may stand open for; a length or a rate in braces is told in the reader's unit. */
const blanks = [
  ...['hole', 'pan', 'sign', 'probeStop', 'waterDrop', 'thatch', 'grass', 'paste', 'stands', 'esp', 'sunWanted'],
  ...['sunHad', 'ph', 'possessive', 'low', 'high', 'against', 'short', 'Nutrient'],
];
const CONSTANT = /^[\d.]+ (?:cm|mm\/h)$/;

const conditions = () => listOf(conditionFields(limitFacts), 'conditions', { min: 1, max: 6 });
const additions = () => optional(listOf({ when: conditions(), words: text(200) }, 'additions', { min: 1, max: 6 }));

/** What limits a lawn, and how much: rules that the engine judges. */
export const limitRules = readTable(
  'limit-rules',
  {
    limits: listOf(
      {
        key: text(40),
        cases: listOf(
          {
            when: conditions(),
            unless: optional(series(text(40), 'facts', { min: 1, max: 4 })),
            degree: choice(degrees),
            /** Where this holds too, it is severe. */
            severe: optional(conditions()),
            what: text(240),
            evidence: text(240),
          },
          'cases',
          { min: 1, max: 12 },
        ),
        /** Said after what it is, where it holds. */
        adds: additions(),
        /** Said after the evidence: the first that holds. */
        besides: additions(),
      },
      'limits',
      { min: 1, max: 40 },
    ),
  },
  data,
);
export type LimitRule = (typeof limitRules)['limits'][number];

for (const { key, cases, adds = [], besides = [] } of limitRules.limits)
  for (const [index, entry] of [...cases, ...adds, ...besides].entries()) {
    const path = `limit-rules.${key}.${index}`;
    checkConditions(entry.when, { signs: [], words: limitWords }, path);
    for (const words of 'what' in entry ? [entry.what, entry.evidence] : [entry.words])
      for (const blank of blanksOf(words))
        if (!blanks.includes(blank) && !CONSTANT.test(blank)) throw new Error(`${path} has no words for {${blank}}`);
  }

/** What a sentence stands open for. */
function blanksOf(words: string): string[] {
  return [...words.matchAll(/\{([^{}]+)\}/g)].map(([, blank]) => blank!);
}

/** A sentence with its blanks filled. @param fill what stands for a blank, or for a constant with its unit */
export const filled = (words: string, fill: (blank: string) => string): string =>
  words.replace(/\{([^{}]+)\}/g, (_whole, blank: string) => fill(blank));

/** The rule of a limit. */
export const limitRule = (key: string): LimitRule => limitRules.limits.find((rule) => rule.key === key)!;
