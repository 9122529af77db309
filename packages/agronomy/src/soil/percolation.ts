import { defineCalculator } from '../calculators/calculator.ts';
import { InputError, defaulted, quantity } from '../calculators/fields.ts';
import { listOf } from '../calculators/structures.ts';
import { mustRise, readTable } from '../calculators/table.ts';
import data from '../data/percolation.json' with { type: 'json' };
import { convert } from '../units/unit.ts';
import { figure } from '../working/working.ts';

const perHour = () => quantity('in/h', { above: 0, max: 100 });
/** Where the classes end, in/h. */
export const percolationClasses = readTable(
  'percolation',
  {
    slowBelow: perHour(),
    goodBelow: perHour(),
    fastUpTo: perHour(),
    layerRatio: quantity('', { above: 1, max: 100 }),
    /** Mean drop of a whole 30 × 30 cm hole over the permeability of its soil. */
    dropOfHole: quantity('', { above: 0, max: 20 }),
  },
  data,
);
mustRise('percolation', [percolationClasses.slowBelow, percolationClasses.goodBelow, percolationClasses.fastUpTo]);

const INVERSE_AUGER_HOLE =
  'Inverse auger-hole method: Ritzema ed. (1994), Drainage Principles and Applications, ILRI Publication 16, chapter 12';

export interface PercolationLayer {
  /** cm below the rim. */
  readonly fromDepth: number;
  readonly toDepth: number;
  /** mm/h */
  readonly permeability: number;
}

type Rating = 'slow' | 'good' | 'fast' | 'too fast';

/** Mean drop of a whole hole, mm/h, in a soil of that permeability, mm/h. */
export function dropOf(permeability: number): number {
  return permeability * percolationClasses.dropOfHole;
}

function rate(inchesPerHour: number): Rating {
  if (inchesPerHour < percolationClasses.slowBelow) return 'slow';
  if (inchesPerHour < percolationClasses.goodBelow) return 'good';
  return inchesPerHour <= percolationClasses.fastUpTo ? 'fast' : 'too fast';
}

/**
 * How fast water leaves a test hole, and where the soil around it changes.
 *
 * The drop slows by itself as the hole empties, since less of the wall is under water; layers are
 * therefore told apart by permeability, not by the drop.
 *
 * @param readings `time` min and `depthBelowStick` cm from a stick laid over the hole down to the water;
 *   `holeDepth`, `holeDiameter` cm; `stickHeight` cm of the stick above the rim.
 * @returns `intervals` with the drop in mm/h and depths in cm below the rim; `overallRate` mm/h and its `rating`; the `verdict`, by the slowest layer;
 *   `layers` from the rim to the bottom with their permeability in mm/h.
 * @throws {InputError} for readings that rise, go back in time, or lie outside the hole.
 */
export const drainagePercolation = defineCalculator({
  name: 'drainage.percolation',
  title: 'Percolation in a test hole',
  source: `${percolationClasses.source}; ${INVERSE_AUGER_HOLE}`,
  inputs: {
    readings: listOf(
      { time: quantity('min', { min: 0, max: 20_000 }), depthBelowStick: quantity('cm', { min: 0, max: 400 }) },
      'readings',
      { min: 2, max: 500 },
    ),
    holeDepth: quantity('cm', { above: 0, max: 300 }),
    holeDiameter: defaulted(quantity('cm', { above: 0, max: 200 }), 30),
    stickHeight: defaulted(quantity('cm', { min: 0, max: 100 }), 0),
  },
  outputs: {
    intervals: '[{rate mm/h, fromDepth cm, toDepth cm}]',
    overallRate: 'mm/h',
    rating: 'slow, good, fast or too fast, of the overall rate',
    verdict: 'slow, good, fast or too fast, of the slowest layer',
    slowest: '{permeability mm/h, meanDrop mm/h, fromDepth cm, toDepth cm}',
    layers: '[{fromDepth cm, toDepth cm, permeability mm/h}]',
  },
  compute({ readings, holeDepth, holeDiameter, stickHeight }, book) {
    const depths = readings.map(({ depthBelowStick }, index) => {
      const depth = depthBelowStick - stickHeight;
      if (depth < -1e-9 || depth > holeDepth + 1e-9)
        throw new InputError(
          `readings.${index}.depthBelowStick`,
          `was given ${figure(depthBelowStick)} cm, which is ${figure(depth)} cm below the rim; wanted 0 to ${figure(holeDepth)} cm, the depth of the hole`,
        );
      return depth;
    });
    const radius = holeDiameter / 2;
    const logHead = (depth: number): number => Math.log10(Math.max(0, holeDepth - depth) + radius / 2);
    const intervals = readings.slice(1).map(({ time }, index) => {
      const [before, fromDepth, toDepth] = [readings[index]!.time, depths[index]!, depths[index + 1]!];
      if (time <= before)
        throw new InputError(
          `readings.${index + 1}.time`,
          `was given ${figure(time)} min; wanted later than ${figure(before)} min, the reading before`,
        );
      if (toDepth < fromDepth - 1e-9)
        throw new InputError(
          `readings.${index + 1}.depthBelowStick`,
          `was given ${figure(readings[index + 1]!.depthBelowStick)} cm; water does not rise by itself: wanted ${figure(readings[index]!.depthBelowStick)} cm or more`,
        );
      const minutes = time - before;
      const permeability = (1.15 * radius * (logHead(fromDepth) - logHead(toDepth)) * 600) / minutes;
      book.step({
        label: `From ${figure(fromDepth)} to ${figure(toDepth)} cm`,
        formula: 'K = 1.15 r (log(h₁ + r/2) − log(h₂ + r/2)) / time',
        numbers: `1.15 × ${figure(radius)} × (log ${figure(holeDepth - fromDepth + radius / 2)} − log ${figure(holeDepth - toDepth + radius / 2)}) / ${figure(minutes)} min`,
        result: permeability,
        unit: 'mm/h',
        source: INVERSE_AUGER_HOLE,
      });
      return { rate: ((toDepth - fromDepth) * 600) / minutes, fromDepth, toDepth, permeability, minutes };
    });
    const [drop, minutes] = [depths.at(-1)! - depths[0]!, readings.at(-1)!.time - readings[0]!.time];
    const overallRate = (drop * 600) / minutes;
    book.step({
      label: 'Overall',
      formula: 'total drop / total time',
      numbers: `${figure(drop * 10)} mm / ${figure(minutes / 60)} h`,
      result: overallRate,
      unit: 'mm/h',
    });
    const rating = rate(convert(overallRate, 'mm/h', 'in/h'));
    book.step({
      label: 'Rating',
      formula: `below ${percolationClasses.slowBelow} in/h slow, below ${percolationClasses.goodBelow} good, up to ${percolationClasses.fastUpTo} fast, above too fast`,
      numbers: `${figure(convert(overallRate, 'mm/h', 'in/h'))} in/h`,
      result: rating,
      unit: '',
      source: percolationClasses.source,
    });
    if (depths[0]! > 0)
      book.warn('The soil above the first reading never stood under water: it is taken as part of the first layer.');
    const layers = layersOf(intervals, holeDepth);
    const slowest = layers.reduce((least, layer) => (layer.permeability < least.permeability ? layer : least));
    const meanDrop = dropOf(slowest.permeability);
    const verdict = rate(convert(meanDrop, 'mm/h', 'in/h'));
    book.step({
      label: `Verdict, by the slowest layer (${figure(slowest.fromDepth)} to ${figure(slowest.toDepth)} cm)`,
      formula: `permeability × ${percolationClasses.dropOfHole}, the mean drop of a whole 30 × 30 cm hole of that soil`,
      numbers: `${figure(slowest.permeability)} mm/h × ${percolationClasses.dropOfHole} = ${figure(meanDrop)} mm/h`,
      result: verdict,
      unit: '',
      source: INVERSE_AUGER_HOLE,
    });
    if (verdict === 'slow' && rating !== 'slow')
      book.warn('Quick over tight: the mean hides a pan. Break it, or give the water a way out.');
    return {
      verdict,
      slowest: { ...slowest, meanDrop },
      intervals: intervals.map(({ rate: drop, fromDepth, toDepth }) => ({ rate: drop, fromDepth, toDepth })),
      overallRate,
      rating,
      layers,
    };
  },
});

type Interval = Readonly<Record<'fromDepth' | 'permeability' | 'minutes', number>>;

/** Runs of intervals of about one permeability, each of them the mean over its time; from the rim to the bottom. */
function layersOf(intervals: readonly Interval[], holeDepth: number): PercolationLayer[] {
  const runs: Interval[][] = [];
  for (const interval of intervals) {
    const run = runs.at(-1);
    const known = run && meanPermeability(run);
    const [small, large] = [Math.min(known ?? 0, interval.permeability), Math.max(known ?? 0, interval.permeability)];
    if (run && large <= percolationClasses.layerRatio * small + 1e-12) run.push(interval);
    else runs.push([interval]);
  }
  return runs.map((run, index) => ({
    fromDepth: index === 0 ? 0 : run[0]!.fromDepth,
    toDepth: runs[index + 1]?.[0]!.fromDepth ?? holeDepth,
    permeability: meanPermeability(run),
  }));
}

function meanPermeability(run: readonly Interval[]): number {
  const minutes = run.reduce((sum, interval) => sum + interval.minutes, 0);
  return run.reduce((sum, interval) => sum + interval.permeability * interval.minutes, 0) / minutes;
}
