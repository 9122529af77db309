import { limeEstimate, phBuffering } from '../lime/estimate.ts';
import { limeSmp } from '../lime/smp.ts';
import { smpTable } from '../lime/buffers.ts';
import type { ProgramInput } from '../program/zoneProgram.ts';
import { inWater } from '../reading/reading.ts';
import { testErrors } from '../reading/testDifference.ts';
import type { SoilTest } from '../reading/zoneFacts.ts';
import { soilGroups } from '../soil/soilGroups.ts';
import { type WorthKey, worthTable } from './worthTable.ts';

/** Chance: even between 0 and 1. */
export type Chance = () => number;
/** What a zone's program would rest on, had something been measured and turned out in one of the ways that it may. */
export type Drawn = (chance: Chance) => {
  /** What was drawn, as a laboratory or a hand would tell it: drawn again, it comes to the same. */
  readonly told: string;
  readonly input: ProgramInput;
};

/** A number of the normal distribution (Box & Muller 1958). */
const normal = (chance: Chance): number =>
  Math.sqrt(-2 * Math.log(Math.max(1e-12, chance()))) * Math.cos(2 * Math.PI * chance());
const lognormal = (chance: Chance, { middle, spread }: { readonly middle: number; readonly spread: number }): number =>
  middle * Math.exp(spread * normal(chance));
const round = (value: number, step: number): number => Math.round(value / step) * step;

/** One of several by their weights. */
function one<T>(chance: Chance, of: ReadonlyArray<readonly [T, number]>): T {
  let left = chance() * of.reduce((sum, [, weight]) => sum + weight, 0);
  for (const [what, weight] of of) if ((left -= weight) <= 0) return what;
  return of.at(-1)![0];
}

const withTest = (input: ProgramInput, change: Partial<SoilTest>): ProgramInput => ({
  ...input,
  test: { ...input.test!, ...change },
});
const withMeasured = (input: ProgramInput, change: object): ProgramInput => ({
  ...input,
  zone: { ...input.zone, measured: { ...input.zone.measured, ...change } },
});

/** Deviations between which eight of ten of a normal distribution lie. */
const EIGHT_OF_TEN = 2 * 1.2816;
/** An SMP buffer pH for each lime that a soil may want, as laboratories print it. */
function bufferFor(soilPh: number, depth: number): (requirement: number) => number {
  const [low, high] = smpTable.bufferRange;
  const target = smpTable.lines.at(-1)!.target;
  if (soilPh >= target) return () => high;
  const read = Array.from({ length: Math.round((high - low) * 10) + 1 }, (_, at) => {
    const bufferPh = Math.round((low + at / 10) * 10) / 10;
    return { bufferPh, lime: limeSmp({ soilPh, bufferPh, targetPh: target, depth }).result.requirement };
  });
  return (requirement) =>
    read.reduce((best, next) => (Math.abs(next.lime - requirement) < Math.abs(best.lime - requirement) ? next : best))
      .bufferPh;
}

function bufferDrawn(input: ProgramInput): Drawn {
  const { test } = inWater(input.test!);
  const target = smpTable.lines.at(-1)!.target;
  const { requirement } = limeEstimate({
    ...{ soilPh: test.soilPh, targetPh: target, depth: test.depth },
    ...{ soilGroup: input.zone.soilGroup ?? 'loam', organicMatter: test.organicMatter },
  }).result;
  // The estimate's own range is what eight soils of ten lie in.
  const spread = Math.log(phBuffering.high / phBuffering.low) / EIGHT_OF_TEN;
  const middle = (requirement * Math.sqrt(phBuffering.high * phBuffering.low) * 100) / smpTable.assumedEffectiveness;
  const find = bufferFor(test.soilPh, test.depth);
  return (chance) => {
    const ph = find(lognormal(chance, { middle: Math.max(1e-9, middle), spread }));
    return { told: String(ph), input: withTest(input, { buffer: { method: 'smp', ph } }) };
  };
} // prettier-ignore

function drainageDrawn(input: ProgramInput): Drawn {
  const { holes } = worthTable;
  const chances = holes[input.zone.soilGroup ?? 'loam'];
  const times = input.zone.lie === 'hollow' || (input.zone.signs ?? []).some((sign) => /puddl|wet|moss|algae/i.test(sign)) ? holes.wetTimes : 1; // prettier-ignore
  const good = 100 - chances.slow - chances.stands;
  return (chance) => {
    const drop = one(chance, [
      [holes.good, good],
      [holes.slow, chances.slow * times],
      [holes.stands, chances.stands * times],
    ]);
    return { told: String(drop), input: withMeasured(input, { percolationOverall: drop }) };
  };
}

/** A test that was made once more, with more cores: as far from this one as both are in error. */
function againDrawn(input: ProgramInput): Drawn {
  const errorOf = (key: string, value: number): number => {
    const known = testErrors.analytes.find((entry) => entry.key === key);
    if (!known) return 0;
    const laboratory = known.absolute ?? (value * (known.relative ?? 0)) / 100;
    const of = (cores: number): number => Math.hypot(laboratory, (value * known.cv) / 100 / Math.sqrt(cores));
    return Math.hypot(of(worthTable.usualCores), of(worthTable.cores));
  };
  return (chance) => {
    const test = input.test!;
    const about = (key: string, value: number, least: number): number =>
      Math.max(least, value + errorOf(key, value) * normal(chance));
    const soilPh = round(Math.min(9.5, about('soilPh', test.soilPh, 3.5)), 0.1);
    const organicMatter =
      test.organicMatter === undefined ? undefined : round(about('organicMatter', test.organicMatter, 0.1), 0.1);
    const nutrients = Object.fromEntries(
      Object.entries(test.nutrients).map(([key, reported]) => [
        key,
        reported.belowDetection || reported.rated ? reported : { ...reported, value: about(key, reported.value, 0.1) },
      ]),
    );
    const told = JSON.stringify([soilPh, organicMatter, nutrients]);
    return {
      told,
      input: withTest(input, { soilPh, ...(organicMatter === undefined ? {} : { organicMatter }), nutrients }),
    };
  };
}

const nutrientDrawn = (input: ProgramInput, key: WorthKey, into: 'p' | 'k', method?: 'olsen'): Drawn => {
  const spread = worthTable.nutrients.find((entry) => entry.key === key)!;
  return (chance) => {
    const value = Math.max(1, Math.round(lognormal(chance, spread)));
    const reported = { value, unit: 'mg/kg' as const, basis: 'element' as const, ...(method ? { method } : {}) };
    const extractant = method ? input.test!.extractant : ('mehlich-3' as const);
    return {
      told: String(value),
      input: withTest(input, { extractant, nutrients: { ...input.test!.nutrients, [into]: reported } }),
    };
  };
};

/**
 * How a measurement that was not made may turn out; nothing for one that this does not know of.
 *
 * @param presumed whether free carbonate is told by pH and calcium alone: a test once more does not take it away
 */
export function drawnOf(key: WorthKey, input: ProgramInput, presumed = false): Drawn | undefined {
  const { test, zone } = input;
  if (!test) return undefined;
  const soilPh = inWater(test).test.soilPh;
  switch (key) {
    case 'buffer':
      return bufferDrawn(input);
    case 'carbonate': {
      const step = presumed ? worthTable.presumed : worthTable.fizz.filter(({ from }) => soilPh >= from).at(-1)!;
      return (chance) => {
        const fizz = one(chance, (['none', 'weak', 'strong'] as const).map((name) => [name, step[name]] as const));
        return { told: fizz, input: withMeasured(input, { fizz }) };
      };
    }
    case 'drainage':
      return drainageDrawn(input);
    case 'organic matter': {
      const middle = phBuffering.ordinaryOrganicMatter[zone.soilGroup ?? 'loam'];
      return (chance) => {
        const organicMatter = Math.min(30, Math.max(0.1, round(lognormal(chance, { middle, spread: worthTable.organicSpread }), 0.1)));
        return { told: String(organicMatter), input: withTest(input, { organicMatter }) };
      };
    }
    case 'salts':
      return (chance) => {
        const ec = Math.max(0.1, round(lognormal(chance, worthTable.salt), 0.1));
        return { told: String(ec), input: withTest(input, { ec }) };
      };
    case 'soil group':
      return (chance) => {
        const soilGroup = one(chance, soilGroups.map((group) => [group, 1] as const));
        return { told: soilGroup, input: { ...input, zone: { ...zone, soilGroup } } };
      };
    case 'olsen':
      return nutrientDrawn(input, key, 'p', 'olsen');
    case 'phosphorus':
      return nutrientDrawn(input, key, 'p');
    case 'potassium':
      return nutrientDrawn(input, key, 'k');
    case 'cores':
      return againDrawn(presumed ? withMeasured(input, { fizz: 'strong' }) : input);
    default:
      return undefined;
  }
} // prettier-ignore
