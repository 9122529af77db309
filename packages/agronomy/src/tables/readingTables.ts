import { phAvailability } from '../readings/availability.ts';
import { limitCures } from '../readings/limitCures.ts';
import { readingMeanings } from '../readings/meanings.ts';
import { retestTable } from '../readings/retestDue.ts';
import { structureWords } from '../readings/structureBars.ts';
import { testErrors } from '../reading/testDifference.ts';
import { testWeights } from '../readings/testWeight.ts';
import { ownerTable } from '../owner/ownerTable.ts';
import { analytes, isAnalyte } from '../analytes/analytes.ts';
import type { Condition } from '../rules/engine.ts';
import { known, table } from './table.ts';

const nameOf = (key: string): string => (isAnalyte(key) ? analytes[key].name : key);

/** "word very low or low, soilGroup sand" */
const whenOf = (conditions: readonly Condition[]): string =>
  conditions
    .map(({ fact, is, above, below, from, to }) =>
      is
        ? `${fact} ${is.join(' or ')}`
        : `${fact} ${above === undefined ? '' : `above ${above}`}${below === undefined ? '' : `below ${below}`}${from === undefined ? '' : `from ${from}`}${to === undefined ? '' : `to ${to}`}`,
    )
    .join(', ');

export const ofReading = [
  table(
    'Reading',
    'What cures a limit, what that costs, and when it shows',
    limitCures,
    ['Limit', 'Remedy', 'Costs', 'Shows', 'Comes after'],
    limitCures.limits.map(({ label, remedy, byCarbonate, cost, shows, after = [] }) => [
      label,
      byCarbonate ? `${remedy}; on free carbonate: ${byCarbonate.present.remedy}` : remedy,
      cost,
      shows,
      after.join(', '),
    ]),
  ),
  table(
    'Reading',
    'How sure a value is',
    testErrors,
    ['Analyte', 'Laboratory', 'From core to core, %'],
    testErrors.analytes.map(({ key, absolute, relative, cv }) => [
      nameOf(key),
      absolute === undefined ? `${relative} % of the value` : `${absolute}`,
      known(cv),
    ]),
  ),
  table(
    'Reading',
    'When a test weighs less',
    testWeights,
    ['What', 'Its error counts'],
    [
      ...testWeights.old.map(({ years, factor }) => [`${years} years old and more`, `${factor} times`]),
      ['Of another season than the test before', `${testWeights.season} times`],
      [
        `Of another depth than the test before, or not ${testWeights.usualDepth.join(' to ')} cm`,
        `${testWeights.depth} times`,
      ],
      ['Too soon after something was spread', `${testWeights.soon} times`],
      ['Not of this ground alone', `${testWeights.borrowed} times`],
    ],
  ),
  table(
    'Reading',
    'When a lawn is tested again',
    retestTable,
    ['What', 'When or what bears on it'],
    [
      ['After a correction', `${retestTable.afterCorrection} year, of ${retestTable.corrections.join(' or ')}`],
      ['Otherwise', `${retestTable.routine} years`],
      ...retestTable.bears.map(({ analyte, kinds }) => [nameOf(analyte), kinds.join(', ')]),
    ],
  ),
  table(
    'Reading',
    'Words of what was measured on the ground',
    structureWords,
    ['Measure', 'Words', 'Limits between them', 'On fine turf', 'Asks for something'],
    structureWords.bars.map(({ name, words, limits, fineTurf, acts }) => [
      name,
      words.join(' | '),
      limits.join(' | '),
      fineTurf ? fineTurf.join(' | ') : '',
      acts.join(', '),
    ]),
  ),
  table(
    'Reading',
    'What a reading means, by grass, use and ground',
    readingMeanings,
    ['Reading', 'Where', 'Means'],
    readingMeanings.readings.flatMap(({ of, cases }) =>
      cases.map(({ when, words }) => [nameOf(of), whenOf(when), words]),
    ),
  ),
  table(
    'Reading',
    'What pH does to each nutrient, % of the most there is',
    phAvailability,
    [
      'Nutrient',
      ...phAvailability.nutrients[0]!.shares.map(
        (_, index) => `pH ${phAvailability.from + index * phAvailability.step}`,
      ),
    ],
    phAvailability.nutrients.map(({ name, shares }) => [name, ...shares.map(known)]),
  ),
  table(
    'Owner',
    'What an owner does himself',
    ownerTable,
    ['Where', 'Does', 'Without it'],
    ownerTable.parts.map(({ remedies, uses, does, without }) => [
      (remedies ?? uses ?? ['everywhere']).join(', '),
      does,
      without,
    ]),
  ),
];
