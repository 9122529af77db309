import type { Evidence } from '../evidence/facts.ts';
import { swardOf } from '../nutrients/sward.ts';
import { type AdviceSettings, defaultSettings } from '../settings/settings.ts';
import type { UnitSystem } from '../units/present.ts';
import { type ReadingLine, type TakenValue, readingLines } from './lines.ts';
import { type Trend, trendsOf } from './overTime.ts';
import { type Half, type Pair, readPair } from './pair.ts';
import { type Ranked, rankedLimits } from './ranked.ts';
import { type Reading, readTested, readUntested } from '../reading/reading.ts';
import { type RetestDue, retestDue } from './retestDue.ts';
import { type TakenTest, type TestWeight, testWeight } from './testWeight.ts';
import type { SoilTest, ZoneFacts } from '../reading/zoneFacts.ts';

/** All that a zone is read from. */
export interface ZoneToRead {
  readonly zone: ZoneFacts;
  readonly test?: SoilTest | undefined;
  /** How the test was taken. */
  readonly taken?: TakenTest | undefined;
  /** The comparable kind of test before it. */
  readonly before?: TakenTest | undefined;
  /** What is known of the ground for the causes of trouble. */
  readonly evidence: Evidence;
  /** Every value of the zone, oldest first. */
  readonly values: readonly TakenValue[];
  /** The two halves of a pair, where the lawn was sampled so. */
  readonly pair?: { readonly bad: HalfTest; readonly healthy: HalfTest } | undefined;
  readonly settings?: AdviceSettings;
  readonly system: UnitSystem;
  /** ISO 8601 */
  readonly today: string;
}

export interface HalfTest {
  readonly test: SoilTest;
  readonly cores?: number | undefined;
}

/** What a zone's soil says, what limits it most, how sure that is, and how it went over the years. */
export interface ZoneReading {
  readonly reading: Reading;
  readonly lines: readonly ReadingLine[];
  readonly ranked: Ranked;
  readonly weight: TestWeight;
  readonly trends: readonly Trend[];
  readonly pair: Pair | null;
  readonly retest: RetestDue | null;
  /** pH that the grass wants here. */
  readonly band: readonly [low: number, high: number];
}

const FULL: TestWeight = { factor: 1, why: [] };

/** The whole reading of one zone. */
export function zoneReading(input: ZoneToRead): ZoneReading {
  const { zone, test, taken, before, evidence, values, pair, settings = defaultSettings, system, today } = input;
  const read = test && readTested(zone, test, settings, system);
  const reading = read?.reading ?? readUntested(zone, system);
  const weight = taken ? testWeight(taken, { before, applied: zone.applied, today, system }) : FULL;
  const half = ({ test: own, cores }: HalfTest): Half => ({
    bars: readTested(zone, own, settings, system).reading.bars,
    cores,
  });
  return {
    reading,
    weight,
    lines: readingLines({
      ...{ zone, reading, settings, system, weight, values },
      test: read?.test,
      ground: read?.ground,
      cores: taken?.cores,
    }),
    ranked: rankedLimits({
      garden: zone.garden,
      carbonate: read && carbonateOf(read),
      limitations: reading.limitations,
      seen: zone.signs ?? [],
      evidence,
      testDoubt: weight.factor > 1 ? weight.why.join(' ') : null,
    }),
    trends: trendsOf(values, zone.applied ?? [], system),
    pair: pair ? readPair(half(pair.bad), half(pair.healthy), system) : null,
    retest: retestDue(taken?.on ?? null, zone.applied ?? [], read ? correctionsOf(read) : []),
    band: (read?.ground.sward ?? swardOf(zone)).ph,
  };
}

/** What is likely to be spread to correct what the test found; the program decides. */
function correctionsOf({ reading, ground: { target } }: ReturnType<typeof readTested>): string[] {
  const sodic = reading.limitations.some(({ key }) => key === 'sodium');
  return [
    ...(target.way === 'raise' ? ['lime'] : []),
    ...(target.way === 'lower' ? ['sulfur'] : []),
    ...(sodic ? ['gypsum'] : []),
  ];
}

/** A little is swallowed by little sulfur: there it works, as where there is none. */
function carbonateOf({ ground: { carbonate } }: ReturnType<typeof readTested>): 'present' | 'absent' | undefined {
  if (carbonate.state === 'unknown') return undefined;
  return carbonate.state === 'present' ? 'present' : 'absent';
}
