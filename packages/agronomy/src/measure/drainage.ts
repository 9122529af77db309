import { defaulted, optional, quantity } from '../calculators/fields.ts';
import { listOf, text } from '../calculators/structures.ts';
import { dropOf, drainagePercolation } from '../soil/percolation.ts';
import type { UnitSystem } from '../units/present.ts';
import { figure } from '../working/working.ts';
import { testLimits } from '../water/testLimits.ts';
import {
  type FieldTestJudged,
  type TestedGround,
  depthText,
  fieldTest,
  minutesBetween,
  moment,
  note,
  nothingYet,
  rateText,
} from './fieldTest.ts';

const { soakLeast, soakMost, readEvery, emptyWithin, longest, panRatio, slopeLeaves } = testLimits.drainage;

const fields = {
  holeDepth: quantity('cm', { above: 5, max: 120 }),
  holeDiameter: defaulted(quantity('cm', { above: 2, max: 120 }), 30),
  stickHeight: defaulted(quantity('cm', { min: 0, max: 50 }), 0),
  /** When it was filled the evening before. */
  soakedAt: optional(moment()),
  filledAt: optional(moment()),
  readings: listOf({ at: moment(), depthBelowStick: quantity('cm', { min: 0, max: 170 }) }, 'readings', { min: 0, max: 200 }), // prettier-ignore
  /** Soil that was seen while digging. */
  layers: optional(
    listOf({ from: quantity('cm', { min: 0, max: 150 }), to: quantity('cm', { above: 0, max: 150 }), words: text(200) }, 'layers', { min: 0, max: 12 }),
  ), // prettier-ignore
  note: note(),
};

export interface DrainageRecord {
  readonly holeDepth: number;
  readonly stickHeight?: number;
  readonly soakedAt?: string | undefined;
  readonly filledAt?: string | undefined;
  readonly readings: ReadonlyArray<{ readonly at: string; readonly depthBelowStick: number }>;
}

/** What is to be done next with a hole, and when. */
export interface DrainageNext {
  readonly what: 'soak' | 'fill' | 'read' | 'done';
  /** Nothing where it is whenever one likes. */
  readonly at: string | null;
  readonly words: string;
}

/** "20 minutes", "3 hours", "6 days". */
function lateWords(minutes: number): string {
  const [count, unit] =
    minutes < 90 ? [minutes, 'minute'] : minutes < 2160 ? [minutes / 60, 'hour'] : [minutes / 1440, 'day'];
  return `${Math.round(count)} ${unit}${Math.round(count) === 1 ? '' : 's'}`;
}

const hoursFrom = (at: string, hours: number): string => new Date(Date.parse(at) + hours * 3_600_000).toISOString();

/** Whether the water is gone, or the test has gone on long enough. */
function isDone({ holeDepth, stickHeight = 0, filledAt, readings }: DrainageRecord): boolean {
  const last = readings.at(-1);
  if (!last || !filledAt || readings.length < 2) return false;
  return last.depthBelowStick - stickHeight >= holeDepth - emptyWithin || minutesBetween(filledAt, last.at) >= longest * 60;
} // prettier-ignore

/** What comes next of a test hole, and how long it is overdue. @param now ISO 8601 */
export function drainageNext(record: DrainageRecord, now: string): DrainageNext {
  const { soakedAt, filledAt, readings } = record;
  if (isDone(record)) return { what: 'done', at: null, words: 'The test is done: take the stick away and close the hole.' };
  const first = readings[0]?.at ?? filledAt;
  if (!first) {
    if (!soakedAt)
      return { what: 'soak', at: null, words: 'Fill the hole this evening and let it drain overnight: dry walls drink, and tell nothing.' };
    const at = hoursFrom(soakedAt, soakLeast);
    const dry = minutesBetween(soakedAt, now) > soakMost * 60;
    return {
      what: dry ? 'soak' : 'fill',
      at,
      words: dry
        ? `It was soaked ${Math.round(minutesBetween(soakedAt, now) / 60)} hours ago, and the walls are dry again: soak it once more.`
        : minutesBetween(now, at) > 0
          ? `The walls soak: fill it again from ${soakLeast} hours after, tomorrow morning.`
          : 'The walls are wet through: fill it to the rim and read at once.',
    };
  }
  const at = hoursFrom(readings.at(-1)?.at ?? first, readEvery / 60);
  const late = Math.round(minutesBetween(at, now));
  return {
    what: 'read',
    at,
    words: readings.length === 0 ? 'Read the distance from the stick to the water now.' : late >= 1 ? late > longest * 60 ? `The next reading is ${lateWords(late)} overdue: read once more if the hole is still there, and close it.` : `The next reading is ${lateWords(late)} overdue.` : `Next reading in ${Math.max(0, -late)} minutes.`,
  };
} // prettier-ignore

/** The lie in words: whether water that cannot go down can go sideways. */
function lieWords({ slope, lie }: TestedGround): string {
  if (lie === 'hollow') return 'It lies in a hollow: water runs to it and stays. Roots drown here sooner than the figure says.';
  if (slope !== undefined && slope > slopeLeaves)
    return `On a slope of ${figure(slope)} % the water above it can leave sideways: less harm than on the flat, and a wet foot below.`;
  if (lie === 'flat' || slope !== undefined) return 'On the flat the water has nowhere else to go: a bathtub.';
  return 'How the ground lies is not known: on a slope the water could leave sideways. Give the slope in Ground.';
} // prettier-ignore

const classWords = {
  slow: 'slow: drainage comes before feeding',
  good: 'good',
  fast: 'on the fast side of good',
  'too fast': 'too fast: it dries out, and feed washes through',
} as const;

function judged(
  record: Parameters<typeof drainagePercolation>[0] & { readonly holeDepth: number; readonly stickHeight: number; readonly readings: ReadonlyArray<{ readonly time: number; readonly depthBelowStick: number }> },
  ground: TestedGround,
  units: UnitSystem,
): FieldTestJudged {
  const { result, working } = drainagePercolation(record);
  const { slowest, layers, overallRate, rating, verdict } = result;
  const above = layers[layers.findIndex((layer) => layer.fromDepth === slowest.fromDepth && layer.toDepth === slowest.toDepth) - 1];
  const isPan = above !== undefined && above.permeability >= panRatio * slowest.permeability && verdict === 'slow';
  const [first, last] = [record.readings[0]!, record.readings.at(-1)!];
  const gone = last.depthBelowStick - record.stickHeight;
  // While water stands, what lies under it is told by nothing; that it goes slowly is told at once.
  const standing = gone < record.holeDepth - emptyWithin && last.time - first.time < longest * 60 && verdict !== 'slow';
  if (standing)
    return {
      values: [],
      title: `Water stands at ${depthText(gone, units)} yet: what is below is not seen`,
      words: [
        `Down to there it would let a whole hole drop ${rateText(slowest.meanDrop, units)}.`,
        `A pan further down would hold the rest: read on until it is empty, or a day is over. Until then nothing of it goes into the zone’s record.`,
      ],
      working,
    };
  const title = isPan
    ? `A pan at ${depthText(slowest.fromDepth, units)}: water stands on it`
    : `Drains ${verdict === 'good' ? 'well' : verdict === 'fast' ? 'fast, still good' : verdict === 'slow' ? 'slowly' : 'too fast'}, by its slowest layer`;
  const words = [
    `The slowest layer, ${depthText(slowest.fromDepth, units)} to ${depthText(slowest.toDepth, units)}, lets a whole hole drop ${slowest.meanDrop < 0.5 ? 'hardly at all' : rateText(slowest.meanDrop, units)}: ${classWords[verdict]}.`,
    ...(isPan
      ? [`Above it, to ${depthText(layers[0]!.toDepth, units)}, it drains at ${rateText(dropOf(layers[0]!.permeability), units)}.`]
      : []),
    ...(rating !== verdict ? [`The mean of the hole, ${rateText(overallRate, units)}, would read ${rating}: it hides the layer.`] : []),
    ...(verdict === 'slow'
      ? [
          isPan
            ? 'Quick over tight: break it with a deep tine or a bar where it is thin, else give the water a way out, such as a gravel trench to lower ground.'
            : 'Evenly slow: texture or compaction. Core it, and build organic matter over years; a drain helps only where water comes to it.',
          lieWords(ground),
        ]
      : []),
    ...(verdict === 'too fast' ? ['Water and feed little and often, slow nitrogen, organic matter over years.'] : []),
    'One hole is one place: dig another where the lawn looks otherwise.',
  ];
  return {
    values: [
      { analyte: 'percolationSlowest', value: slowest.permeability, depthFrom: slowest.fromDepth, depthTo: slowest.toDepth },
      { analyte: 'percolationOverall', value: overallRate },
    ],
    title,
    words,
    working,
  };
} // prettier-ignore

/** A hole that is filled, and watched as it empties. */
export const drainageTest = fieldTest({
  kind: 'drainage',
  title: 'Drainage hole',
  about: 'Whether water leaves, and which layer holds it.',
  tools: ['spade', 'two buckets of water, or a hose', 'a straight stick', 'ruler', 'jar for each layer'],
  steps: [
    'Dig a hole about 30 cm (12 in) wide and deep, with upright walls; scratch the walls rough. Note each layer you dig through, and take a jar of each.',
    'In the evening fill it and let it drain overnight, so that the walls are wet through.',
    'Next morning lay the stick across, fill to the rim and read at once: the distance from the stick down to the water.',
    'Read about every hour until it is empty. The intervals matter more than the mean.',
  ],
  cautions: [
    'Have buried lines marked before you dig.',
    'A hole in a lawn breaks ankles: cover it overnight, and close it when you are done.',
  ],
  fields,
  judge: ({ readings, holeDepth, holeDiameter, stickHeight, filledAt }, ground, units) => {
    const first = readings[0]?.at ?? filledAt;
    if (!first || readings.length < 2) return nothingYet;
    return judged(
      {
        ...{ holeDepth, holeDiameter, stickHeight },
        readings: readings.map(({ at, depthBelowStick }) => ({ time: minutesBetween(first, at), depthBelowStick })),
      },
      ground,
      units,
    );
  },
});
