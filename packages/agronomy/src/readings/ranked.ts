import type { Testimony } from '../rules/engine.ts';
import { weighedCauses } from '../trouble/trouble.ts';
import type { Evidence } from '../evidence/facts.ts';
import { type Degree, degrees } from '../reading/degrees.ts';
import { type CostClass, cureOf, curedAs, limitCures, limitLabel } from './limitCures.ts';
import { type Limitation, limitKeys } from '../reading/limits.ts';

/** What a limit rests on: a number, what somebody saw, or what is only likely from signs and facts. */
export type Standing = 'measured' | 'seen' | 'suspected';

/** A check that would settle a suspicion. */
export interface Check {
  readonly what: string;
  readonly effort: string;
  readonly settles: string;
}

/** What limits a zone, with all that speaks for and against it, and what to do about it. */
export interface RankedLimit {
  readonly key: string;
  readonly label: string;
  readonly degree: Degree;
  readonly standing: Standing;
  readonly what: string;
  readonly evidence: string;
  readonly for: readonly Testimony[];
  readonly against: readonly Testimony[];
  readonly remedy: string;
  readonly cost: CostClass;
  readonly costMeans: string;
  /** How long until it shows. */
  readonly shows: string;
  /** Labels of what stands in this list and comes first. */
  readonly after: readonly string[];
  /** Why what it rests on weighs less than it might; nothing where it weighs in full. */
  readonly doubt: string | null;
  readonly check: Check | null;
}

/** What was looked into because a sign points at it, and does not stand. */
export interface SetAside {
  readonly label: string;
  readonly for: readonly Testimony[];
  readonly against: readonly Testimony[];
}

export interface Ranked {
  readonly limits: readonly RankedLimit[];
  readonly setAside: readonly SetAside[];
}

/** What a ranking goes by. */
export interface RankedBy {
  /** What the rules of the reading found. */
  readonly limitations: readonly Limitation[];
  /** Names of the signs that were marked. */
  readonly seen: readonly string[];
  readonly evidence: Evidence;
  /** Why the test weighs less, in words; nothing where it weighs in full. */
  readonly testDoubt?: string | null;
  /** Whether the soil holds free carbonate; nothing where that is not known. */
  readonly carbonate?: 'present' | 'absent' | undefined;
  /** A garden bed: no grass grows there. */
  readonly garden?: boolean | undefined;
}

/** Limits that are judged by a number where there is one; what is judged is not suspected besides. */
const judgedBy: Readonly<Record<string, (evidence: Evidence) => boolean>> = {
  drainage: ({ drop }) => drop !== undefined,
  compaction: ({ probeStop }) => probeStop !== undefined,
  repellent: ({ waterDrop }) => waterDrop !== undefined,
  thatch: ({ thatch }) => thatch !== undefined,
  salt: ({ saltiness }) => saltiness !== undefined,
  acid: ({ ph }) => ph !== undefined,
  alkaline: ({ ph }) => ph !== undefined,
  shade: ({ sunShort }) => sunShort !== undefined,
};

/** Limits that a test in a laboratory tells of, and one’s own hands do not. */
const ofTheTest: ReadonlySet<string> = new Set(['acid', 'alkaline', 'organic matter', 'salt', 'sodium', 'nutrient']);

/** Places among equals: those of the reading, then what is only suspected, in the order of the cures. */
const place = (key: string): number => {
  const at = limitKeys.indexOf(key);
  return at >= 0 ? at : limitKeys.length + limitCures.limits.findIndex((cure) => cure.key === key);
};

const unique = (pieces: readonly Testimony[]): Testimony[] =>
  [...new Map(pieces.map((piece) => [piece.words, piece])).values()].sort(
    (one, other) => Math.abs(other.points) - Math.abs(one.points),
  );

/**
 * What limits a zone, most first: what the reading found, with the evidence that the causes of trouble weigh for and
 * against it, and what those causes let one suspect beside. Severe before clear before small; among equals what weighs
 * in full before what is doubted, then water and air, salt, light, acidity, organic matter, nutrients.
 */
export function rankedLimits({
  limitations,
  seen,
  evidence,
  testDoubt = null,
  carbonate,
  garden = false,
}: RankedBy): Ranked {
  const weighed = weighedCauses(seen, evidence);
  const piecesOf = (names: readonly string[]) => {
    const own = weighed.filter(({ cause }) => names.includes(cause.name)).map((one) => one.weighed);
    return { for: unique(own.flatMap((one) => one.for)), against: unique(own.flatMap((one) => one.against)) };
  };
  const found = limitations.map((limit): RankedLimit => {
    const { cost, causes, byCarbonate, inBed, ...usual } = cureOf(limit.key);
    const own = (carbonate && byCarbonate?.[carbonate]) ?? usual;
    const { shows } = own;
    const remedy = garden ? (inBed ?? own.remedy) : own.remedy;
    // A class of shade that nobody has counted hours for is a look, and no measurement.
    const measured = limit.seen !== true && (limit.key !== 'shade' || evidence.sunShort !== undefined);
    return {
      ...{ key: limit.key, degree: limit.degree, what: limit.what, evidence: limit.evidence },
      label: limitLabel(limit.key),
      standing: measured ? 'measured' : 'seen',
      ...piecesOf(causes),
      ...{ remedy, cost, costMeans: meansOf(cost), shows, after: [] },
      doubt: ofTheTest.has(curedAs(limit.key)) ? testDoubt : null,
      check: measured ? null : (weighed.find(({ cause }) => causes.includes(cause.name))?.cause.check ?? null),
    };
  });
  const listed = new Set(limitations.map(({ key }) => key));
  const suspected: RankedLimit[] = [];
  const setAside: SetAside[] = [];
  for (const { cause, weighed: own } of weighed) {
    const cure = limitCures.limits.find(({ causes }) => causes.includes(cause.name))!;
    if (listed.has(cure.key)) continue;
    const judged = judgedBy[cure.key]?.(evidence) ?? false;
    const strong = own.pointed || own.for.some(({ points }) => points >= limitCures.strong);
    if (!judged && strong && own.points >= limitCures.suspectFrom)
      suspected.push({
        ...{ key: cure.key, label: cure.label, standing: 'suspected', what: cause.means },
        degree: own.points >= limitCures.clearFrom ? 'clear' : 'small',
        evidence: `Suspected: ${own.for.map(({ words }) => words).join('; ')}.`,
        ...{
          for: own.for,
          against: own.against,
          remedy: garden ? (cure.inBed ?? cure.remedy) : cure.remedy,
          cost: cure.cost,
          costMeans: meansOf(cure.cost),
        },
        ...{ shows: cure.shows, after: [], doubt: null, check: cause.check },
      });
    else if (own.pointed && own.against.length > 0)
      setAside.push({ label: cure.label, for: own.for, against: own.against });
  }
  const all = [...found, ...suspected].sort(
    (one, other) =>
      degrees.indexOf(other.degree) - degrees.indexOf(one.degree) ||
      Number(one.doubt !== null) - Number(other.doubt !== null) ||
      place(one.key) - place(other.key),
  );
  return { limits: all.map((limit) => ({ ...limit, after: firstOf(limit, all) })), setAside };
}

const meansOf = (cost: CostClass): string => limitCures.costs.find(({ name }) => name === cost)!.means;

/** Labels of what comes before the cure of a limit, where it stands in the list at least clearly. */
function firstOf({ key }: RankedLimit, all: readonly RankedLimit[]): string[] {
  const { after = [] } = cureOf(key);
  return all
    .filter((other) => other.key !== key && other.degree !== 'small' && after.includes(curedAs(other.key)))
    .map(({ label }) => label);
}
