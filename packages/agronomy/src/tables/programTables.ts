import { interactionTable } from '../program/interactions.ts';
import { monthTable } from '../remedies/months.ts';
import { physical } from '../remedies/physical.ts';
import { remedyEntry, remedyTable } from '../remedies/remedyTable.ts';
import type { Condition } from '../rules/engine.ts';
import { spreading } from '../spread/spreading.ts';
import { mowing } from '../season/mowing.ts';
import { findGrass } from '../nutrients/grasses.ts';
import { known, range, table } from './table.ts';
import { capital } from '../units/capital.ts';

const facts: Readonly<Record<string, string>> = {
  ...{ low: 'mean low', high: 'mean high', mean: 'middle of the day', growth: 'growth potential' },
  ...{ growthAhead: 'growth potential of the next month', trend: 'trend', season: 'season of the grass' },
  daysToFrost: 'days to frost',
};

/** "growth potential from 0.4" of a condition. */
function tell({ fact = '', above, below, from, is }: Condition): string {
  const name = facts[fact] ?? fact;
  if (is) return `${name} ${is.join(' or ')}`;
  return above !== undefined
    ? `${name} above ${above}`
    : below !== undefined
      ? `${name} below ${below}`
      : `${name} from ${known(from)}`;
}

const labels = (names: ReadonlyArray<Parameters<typeof remedyEntry>[0]>): string =>
  names.map((name) => remedyEntry(name).label).join(', ');
const { coring, sand, clay, wetting, iron, mulch, clear, damage, sod } = physical;

/** What a year’s program is put together by. */
export const ofProgram = [
  table(
    'Program',
    'Remedies in the order of work',
    remedyTable,
    ['Remedy', 'One dose is', 'Keeps the months of'],
    remedyTable.remedies.map(({ label, dose, job }) => [label, dose, job]),
  ),
  table(
    'Program',
    'In which months a job may be done',
    monthTable,
    ['Job', 'Months from one dose to the next', 'First wanted', 'Else'],
    monthTable.jobs.map(({ job, apart, cases: [first, ...others] }) => [
      capital(job),
      `${apart} at least`,
      first!.when.map(tell).join(', '),
      others.map(({ when }) => when.map(tell).join(', ')).join('; or ') || '–',
    ]),
  ),
  table(
    'Program',
    'What works against what',
    interactionTable,
    ['One', 'Other', 'What is asked', 'Why'],
    [
      ...interactionTable.pairs.map(({ one, other, apartDays, order, never, carries, words }) => [
        labels(one),
        labels(other),
        [
          never === undefined ? undefined : 'never both',
          order ? 'the one first' : undefined,
          apartDays ? `${apartDays} days apart` : undefined,
          carries ? `where it carries ${carries}` : undefined,
        ]
          .filter(Boolean)
          .join(', '),
        words,
      ]),
      [
        'Salty feed',
        'dry turf',
        'cooler months',
        `Salt index from ${interactionTable.saltOnDry.indexFrom} of the soluble part, unwatered, in months of ${interactionTable.saltOnDry.meanFrom} °C and more.`,
      ],
      [
        'Twice in one zone',
        labels(interactionTable.once),
        'never both',
        'The label’s rate and what the test asks for count for both together.',
      ],
      [
        'Material on the surface',
        'all of a year',
        `${interactionTable.surfaceYear} cm at most`,
        'More smothers turf, coring or not.',
      ],
    ],
  ),
  table(
    'Program',
    'Work on the ground, until it is set otherwise',
    physical,
    ['What', 'Usual'],
    [
      [
        'Coring: tines, cm',
        `${coring.tineDiameter} wide, ${coring.depth} deep, ${coring.spacingAlong} × ${coring.spacingAcross} apart, ${coring.passes} passes`,
      ],
      [
        'Sand on turf, cm',
        `${sand.pass} a time, ${sand.mostPass} at most, ${sand.times} times; peat up to ${sand.peatTo} % by volume`,
      ],
      ['Calcined clay in a mix, % by volume', `${range(clay.share)}, never above ${clay.never}`],
      ['Wetting agent', `by its label, ${wetting.times} times`],
      ['Iron on the leaf, lb/1000 ft²', `${iron.spraying}, ${iron.most} at most`],
      ['Turf lifted', `${clear.depth} cm, by hand to ${clear.byHandTo} m²; spoil × ${clear.swells}`],
      [
        'Wanted grass',
        `above ${damage.overseedFrom} % overseed, from ${damage.slitFrom} % core or slit, below that start again`,
      ],
      ['Sod', `${sod.waste} % for cutting, ${sod.wasteOnCurves} % on curves, ${sod.waterAtOnce} mm at once`],
      ['Sprayed mulch, g/m²', mulch.slopes.map(({ to, mulch: rate }) => `${rate} to a slope of ${to} %`).join(', ')],
    ],
  ),
  table(
    'Program',
    'Mowing heights',
    mowing,
    ['Grass', 'Height, in'],
    mowing.heights.map(({ grass, height }) => [capital(findGrass(grass).label), range(height)]),
  ),
  table(
    'Spreaders and sprayers',
    'Calibration and mixing',
    spreading,
    ['What', 'Rule'],
    [
      ['Passes stand apart by', `where the catch has fallen to ${spreading.edgeShare * 100} % of the middle’s`],
      ['A lawn shows unevenness', `above ${spreading.unevenAbove} %`],
      ['A nozzle is worn', `more than ${spreading.wornAbove} % over a new one`],
      ['A nozzle is cleaned', `more than ${spreading.besideMean} % off the mean of all`],
      ['A setting is reckoned on', `up to ${spreading.stretch} times, then tried anew`],
      ['A trial is old', `after ${spreading.oldAfter} days`],
      ...spreading.mixing.map((step, index) => [`Into the tank, ${index + 1}`, step]),
      ...spreading.rinse.map((step, index) => [`Rinse, ${index + 1}`, step]),
    ],
  ),
];
