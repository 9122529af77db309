import { listOf, text } from '../calculators/structures.ts';
import { readTable } from '../calculators/table.ts';
import data from '../data/reading-meanings.json' with { type: 'json' };
import { isAnalyte } from '../analytes/analytes.ts';
import { wordFacts } from '../evidence/facts.ts';
import { ratings } from '../nutrients/sufficiencyTables.ts';
import type { Sward } from '../nutrients/sward.ts';
import { checkConditions, conditionFields, firstThatHolds } from '../rules/engine.ts';
import { capital } from '../units/capital.ts';
import type { Bar } from '../reading/bars.ts';
import { degrees, phDegree } from '../reading/degrees.ts';
import { filled } from '../reading/limitRules.ts';
import { sodiumWords } from '../reading/ownWordBars.ts';
import { saltRatings } from '../reading/salt.ts';
import { structureWords } from './structureBars.ts';
import type { SoilTest, ZoneFacts } from '../reading/zoneFacts.ts';

const sides = ['inside', 'acid', 'alkaline'] as const;
/** What the sentence of a reading may turn on, told in words. */
const meaningWords = {
  /** Where the value lies on its own bar. */
  word: [
    ...new Set([
      ...[...ratings, ...saltRatings, ...sodiumWords, 'poor', 'fair', 'comfortable'],
      ...structureWords.bars.flatMap(({ words }) => words),
    ]),
  ],
  /** Of the bar’s own pH. */
  side: sides,
  degree: degrees,
  /** Of the soil’s pH, for every other bar. */
  phSide: sides,
  surface: wordFacts.surface,
  use: wordFacts.use,
  soilGroup: wordFacts.soilGroup,
  shade: wordFacts.shade,
  lie: ['slope', 'flat', 'hollow'],
  organicSoil: ['yes', 'no'],
  garden: ['yes', 'no'],
} as const;
const facts = [...Object.keys(meaningWords), 'value', 'ph'];

/** What a reading means for the grass and the use of the ground, one sentence each. */
export const readingMeanings = readTable(
  'reading-meanings',
  {
    readings: listOf(
      {
        of: text(40),
        cases: listOf(
          { when: listOf(conditionFields(facts), 'conditions', { min: 1, max: 5 }), words: text(240) },
          'cases',
          { min: 1, max: 30 },
        ),
      },
      'readings',
      { min: 1, max: 60 },
    ),
  },
  data,
);
for (const { of, cases } of readingMeanings.readings) {
  if (!isAnalyte(of)) throw new Error(`reading-meanings names no analyte: ${of}`);
  for (const [index, { when }] of cases.entries())
    checkConditions(when, { signs: [], words: meaningWords }, `reading-meanings.${of}.${index}`);
}

const sideOf = (ph: number, [low, high]: readonly [number, number]): (typeof sides)[number] =>
  ph < low - 1e-9 ? 'acid' : ph > high + 1e-9 ? 'alkaline' : 'inside';

/**
 * One sentence of the trade: what a value means for this grass, use, surface and degree.
 *
 * @returns nothing where no rule speaks of it, or it has no rating
 */
export function meaningOf(
  bar: Pick<Bar, 'key' | 'figure' | 'rating' | 'scale'>,
  { surface, use, soilGroup, shade, lie, garden }: ZoneFacts,
  sward: Sward,
  test: Pick<SoilTest, 'soilPh'> | undefined,
): string | null {
  const own = readingMeanings.readings.find(({ of }) => of === bar.key);
  if (!own) return null;
  const ofPh = bar.key === 'soilPh';
  const { value } = bar.figure;
  const known = {
    word: bar.scale ? bar.scale.words[bar.scale.at] : (bar.rating ?? undefined),
    side: ofPh ? sideOf(value, sward.ph) : undefined,
    degree: ofPh ? (phDegree(value, sward.ph) ?? undefined) : undefined,
    phSide: test && sideOf(test.soilPh, sward.ph),
    ...{ surface, use, soilGroup, shade, lie, value },
    ph: test?.soilPh,
    organicSoil: sward.organicSoil ? 'yes' : 'no',
    garden: garden === true ? 'yes' : 'no',
  };
  const found = firstThatHolds(own.cases, [], known)?.found.words;
  const grass = sward.label;
  return found === undefined
    ? null
    : filled(found, (blank) => (blank === 'grass' ? grass : blank === 'Grass' ? capital(grass) : ''));
}
