import { quantity } from '../calculators/fields.ts';
import { band, listOf } from '../calculators/structures.ts';
import { readTable } from '../calculators/table.ts';
import data from '../data/test-weights.json' with { type: 'json' };
import { notComparable, seasonName } from '../lab/comparable.ts';
import { samplingTables } from '../sampling/designTables.ts';
import { present, type UnitSystem } from '../units/present.ts';
import { capital } from '../units/capital.ts';
import type { Applied } from '../ground/applied.ts';
import { lastDayOf } from '../ledger/entries.ts';

const factor = () => quantity('', { min: 1, max: 5 });

/** By how much the error of a test grows where it is old, borrowed, of another season or depth, or came too soon. */
export const testWeights = readTable(
  'test-weights',
  {
    old: listOf({ years: quantity('', { above: 0, max: 50 }), factor: factor() }, 'ages', { min: 1, max: 6 }),
    season: factor(),
    depth: factor(),
    /** cm that turf is sampled to. */
    usualDepth: band(quantity('cm', { above: 0, max: 60 })),
    soon: factor(),
    borrowed: factor(),
    /** Of a hundred: chance of another word from which a reading says so. */
    borderFrom: quantity('%', { above: 0, max: 50 }),
  },
  data,
);

/** How the sample of a test was taken. */
export interface TakenTest {
  /** `2026-10-14`; nothing where nobody knows. */
  readonly on: string | null;
  /** cm */
  readonly depth: number;
  /** Of the composite; nothing where it was not told. */
  readonly cores?: number | undefined;
  /** Of what other ground it is too, in words. */
  readonly borrowed?: string | null | undefined;
}

/** How much less a test weighs, and why. */
export interface TestWeight {
  /** The error of each value is multiplied by it; 1 where it weighs in full. */
  readonly factor: number;
  readonly why: readonly string[];
}

const YEAR = 365.25 * 86_400_000;
const WEEK = 7 * 86_400_000;
/** What was spread so shortly before the sample that it shows in it. */
function tooSoon(on: string, applied: readonly Applied[]): string | undefined {
  const { waits } = samplingTables;
  return applied
    .flatMap(({ kind, on: when }) => {
      const wait = waits.find((one) => one.kind === kind);
      const weeks = (Date.parse(on) - Date.parse(lastDayOf(when))) / WEEK;
      // A month or a year that is only remembered proves nothing to the week.
      return wait && when.length === 10 && weeks >= 0 && weeks < wait.weeks
        ? [
            `taken ${weeks < 1 ? 'in the week' : `${Math.floor(weeks)} weeks`} after ${kind}, which asks for ${wait.weeks}`,
          ]
        : [];
    })
    .at(0);
}

/**
 * How much less a test weighs than a fresh one of this ground alone, at the usual depth and in the season of the others.
 *
 * @param before the test before it, where there is one; `today` ISO 8601
 */
export function testWeight(
  test: TakenTest,
  {
    before,
    applied = [],
    today,
    system,
  }: {
    readonly before?: TakenTest | undefined;
    readonly applied?: readonly Applied[] | undefined;
    readonly today: string;
    readonly system: UnitSystem;
  },
): TestWeight {
  const why: string[] = [];
  let all = 1;
  const doubt = (by: number, words: string): void => {
    all *= by;
    why.push(`${capital(words)}.`);
  };
  const { on, depth, borrowed } = test;
  if (on !== null) {
    const years = (Date.parse(today) - Date.parse(on)) / YEAR;
    const age = testWeights.old.filter((one) => years >= one.years).at(-1);
    if (age) doubt(age.factor, `${Math.floor(years)} years old: the ground has moved on since`);
    const soon = tooSoon(on, applied);
    if (soon) doubt(testWeights.soon, soon);
  } else doubt(testWeights.old[0]!.factor, 'the day of sampling was not told');
  const [shallow, deep] = testWeights.usualDepth;
  const slice = { analyte: 'soilPh', value: { value: 7, unit: 'pH', basis: 'element' } } as const;
  const apart =
    before &&
    notComparable(
      { ...slice, on, depthFrom: 0, depthTo: depth },
      { ...slice, on: before.on, depthFrom: 0, depthTo: before.depth },
    );
  if (depth < shallow - 1e-9 || depth > deep + 1e-9)
    doubt(
      testWeights.depth,
      `${present('depth', depth, system).text} deep, which is not the depth that bands of turf were made for`,
    );
  else if (apart?.startsWith('of '))
    doubt(
      testWeights.depth,
      `${present('depth', depth, system).text} deep, the test before ${present('depth', before!.depth, system).text}`,
    );
  if (apart?.startsWith('taken') && on && before!.on)
    doubt(testWeights.season, `taken in ${seasonName(on)}, the test before in ${seasonName(before!.on)}`);
  if (borrowed) doubt(testWeights.borrowed, borrowed.replace(/\.$/, ''));
  return { factor: all, why };
}
