import { type UnitSystem, present } from '../units/present.ts';
import { samplingCoreVolume } from './cores.ts';
import { samplingTables } from './designTables.ts';
import { normalDeviate } from './normalDeviate.ts';

/** Error that so many cores leave in a composite, by analyte. */
export interface CoreError {
  readonly analyte: string;
  /** ± % of the mean, at the confidence asked for. */
  readonly margin: number;
}

/**
 * What a number of cores buys.
 *
 * @param cores in the composite, 1 or more; `confidence` %.
 * @see Cochran (1977), Sampling Techniques, 3rd ed., chapter 4: E = z · CV / √n
 */
export function coreErrors(cores: number, confidence = 90): CoreError[] {
  const z = normalDeviate(confidence);
  return samplingTables.variation.map(({ analyte, cv }) => ({ analyte, margin: (z * cv) / Math.sqrt(cores) }));
}

/**
 * Cores that are usual for a zone: 10 for a small lawn, one more for every 150 m², at most 30. A starting point; the
 * error that each choice leaves stands beside it.
 *
 * @param area m².
 */
export function usualCores(area: number): number {
  return Math.max(10, Math.min(30, Math.round(10 + area / 150)));
}

/**
 * Cores that fill the laboratory's bag.
 *
 * @param wanted mL of the bag; `diameter` of the probe and `depth`, cm.
 */
export function coresToFill(wanted: number, diameter: number, depth: number): number {
  const { volume } = samplingCoreVolume({ diameter, depth, cores: 1 }).result;
  return Math.ceil(wanted / volume - 1e-9);
}

/**
 * Whether the cores fill the laboratory's bag.
 *
 * @param volume mL that the cores bring; `wanted` mL.
 * @returns words where they do not, with how many would.
 */
export function volumeAdvice(volume: number, wanted: number, cores: number): string | undefined {
  if (cores < 1 || volume >= wanted) return undefined;
  return `${cores} cores do not fill the bag: take ${Math.ceil((wanted / volume) * cores)}, or a wider probe.`;
}

/** Depths that a laboratory is calibrated for. */
export interface CalibratedDepth {
  /** What ground it is for, such as "established turf". */
  readonly for: string;
  /** cm */
  readonly from: number;
  readonly to: number;
}

/** What is usual, where it is not known which laboratory it will be. */
const USUAL: readonly CalibratedDepth[] = [
  { for: 'established turf, where the laboratory says so', from: 7, to: 10.5 },
  { for: 'lawns and seedbeds', from: 14.5, to: 20.5 },
];

/**
 * Whether a depth suits the laboratory and the tests before.
 *
 * @param depth cm; `before` cm of the last test, where there was one; `system` of the sentences; `laboratory` with its
 *   own depths, where one is chosen.
 */
export function depthAdvice(
  depth: number,
  purpose: string,
  before: number | undefined,
  system: UnitSystem,
  laboratory?: { readonly name: string; readonly depths: readonly CalibratedDepth[] },
): string[] {
  const say = (cm: number): string => present('depth', cm, system).text;
  const depths = laboratory?.depths ?? USUAL;
  const fits = depths.some(({ from, to }) => depth >= from - 0.05 && depth <= to + 0.05);
  const told = depths
    .map(({ for: ground, from, to }) =>
      to - from < 1.5 ? `${say((from + to) / 2)} for ${ground}` : `${say(from)} to ${say(to)} for ${ground}`,
    ) // prettier-ignore
    .join(', ');
  return [
    ...(fits
      ? []
      : [
          `${laboratory?.name ?? 'No usual laboratory'} is ${laboratory ? 'not ' : ''}calibrated for ${say(depth)}, only for ${told}: its ratings and lime would be wrong. ${laboratory ? 'Take one of those depths, or another laboratory.' : 'Ask it first.'}`,
        ]),
    ...(before !== undefined && Math.abs(before - depth) > 0.75
      ? [
          `The last test went to ${say(before)}: another depth reads other soil, so the two will not compare, and lime is scaled by it.`,
        ]
      : []),
    ...(purpose === 'new seedbed' && depth < 14 ? ['A new seedbed is sampled to the depth that is tilled.'] : []),
  ];
}
