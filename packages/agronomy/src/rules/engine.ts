import { InputError, choice, optional, quantity } from '../calculators/fields.ts';
import { series, text } from '../calculators/structures.ts';

/** What is seen, or known to be so; one of a sign, something said, and a fact. */
export interface Condition {
  /** Name of a sign that was marked. */
  readonly sign?: string | undefined;
  /** What somebody saw, in words of their own: a pattern, case aside. */
  readonly said?: string | undefined;
  readonly fact?: string | undefined;
  /** Beyond an end, which does not count itself. */
  readonly above?: number | undefined;
  readonly below?: number | undefined;
  /** From an end on, which counts. */
  readonly from?: number | undefined;
  /** Up to an end, which counts. */
  readonly to?: number | undefined;
  /** Words of the fact that count. */
  readonly is?: readonly string[] | undefined;
}

/** A piece of a rule: what speaks for or against something, where it is seen or known so. */
export interface Piece extends Condition {
  /** Positive for it, negative against. */
  readonly weight: number;
  readonly words: string;
}

/** What is known, by the names of the facts. */
export type Known = Readonly<Record<string, number | string | undefined>>;

/** A piece as it stands for a zone. */
export interface Testimony {
  readonly points: number;
  readonly words: string;
}

/** The pieces of one rule, weighed. */
export interface Weighed {
  readonly points: number;
  readonly for: readonly Testimony[];
  readonly against: readonly Testimony[];
  /** Names of the facts that would speak, were they known. */
  readonly unknown: readonly string[];
  /** Whether something that was seen speaks for it. */
  readonly pointed: boolean;
}

/** One of the ways in which something may stand: it does where all of it holds and nothing is known that it stands in for. */
export interface Case {
  readonly when: readonly Condition[];
  /** Facts that say it better, where they are known. */
  readonly unless?: readonly string[] | undefined;
}

const EPS = 1e-9;

const patterns = new Map<string, RegExp>();
const patternOf = (said: string): RegExp => {
  const known = patterns.get(said) ?? new RegExp(said, 'i');
  patterns.set(said, known);
  return known;
};

/** What was seen that a condition speaks of. */
const seenBy = ({ sign, said }: Condition, seen: readonly string[]): string | undefined =>
  sign === undefined
    ? seen.find((words) => said !== undefined && patternOf(said).test(words))
    : seen.find((name) => name === sign);

function holdsOf({ above, below, from, to, is }: Condition, value: number | string): boolean {
  if (typeof value === 'string') return is?.includes(value) ?? false;
  return (
    (above === undefined || value > above + EPS) &&
    (below === undefined || value < below - EPS) &&
    (from === undefined || value >= from - EPS) &&
    (to === undefined || value <= to + EPS)
  );
}

/** Whether something is seen, or known to be so; what nobody knows does not hold. */
export function holds(condition: Condition, seen: readonly string[], known: Known): boolean {
  const { fact } = condition;
  if (fact === undefined) return seenBy(condition, seen) !== undefined;
  const value = known[fact];
  return value !== undefined && holdsOf(condition, value);
}

/** Whether every one of the conditions holds. */
export const allHold = (conditions: readonly Condition[], seen: readonly string[], known: Known): boolean =>
  conditions.every((condition) => holds(condition, seen, known));

/**
 * The first case that holds.
 *
 * @param seen names of signs, or what was seen in words
 * @returns the case, and what was seen that it rests on
 */
export function firstThatHolds<C extends Case>(
  cases: readonly C[],
  seen: readonly string[],
  known: Known,
): { readonly found: C; readonly sign: string | undefined } | undefined {
  const found = cases.find(
    ({ when, unless = [] }) => unless.every((fact) => known[fact] === undefined) && allHold(when, seen, known),
  );
  if (!found) return undefined;
  const [sign] = found.when.flatMap((condition) => seenBy(condition, seen) ?? []);
  return { found, sign };
}

/**
 * Weigh what speaks for and against something.
 *
 * @param seen names of signs; `tell` puts a piece that speaks into words, with the value it speaks of
 */
export function weigh(
  pieces: readonly Piece[],
  seen: readonly string[],
  known: Known,
  tell: (piece: Piece, value: number | string | undefined) => Testimony,
): Weighed {
  const speaking = pieces.flatMap((piece) =>
    holds(piece, seen, known) ? [tell(piece, piece.fact === undefined ? undefined : known[piece.fact])] : [],
  );
  return {
    points: speaking.reduce((sum, { points }) => sum + points, 0),
    for: speaking.filter(({ points }) => points > 0),
    against: speaking.filter(({ points }) => points < 0),
    unknown: pieces.flatMap(({ fact }) => (fact && known[fact] === undefined ? [fact] : [])),
    pointed: pieces.some((piece) => piece.fact === undefined && piece.weight > 0 && holds(piece, seen, known)),
  };
}

/** What conditions may speak of. */
export interface Vocabulary {
  /** Names of the signs that can be marked. */
  readonly signs: readonly string[];
  /** The words of each fact that is told in words; any other is a number. */
  readonly words: Readonly<Record<string, readonly string[]>>;
}

/**
 * See that every condition of a rule can hold.
 *
 * @param path where they stand, for the message
 * @throws {InputError} for one that never could
 */
export function checkConditions(conditions: readonly Condition[], { signs, words }: Vocabulary, path: string): void {
  for (const [index, { sign, said, fact, above, below, from, to, is }] of conditions.entries()) {
    const at = `${path}.${index}`;
    if ([sign, said, fact].filter((one) => one !== undefined).length !== 1)
      throw new InputError(at, 'wants a sign, something said or a fact, one of them');
    if (sign !== undefined && !signs.includes(sign)) throw new InputError(`${at}.sign`, `"${sign}" is no sign`);
    if (fact === undefined) continue;
    const own = words[fact];
    const ends = [above, below, from, to].filter((end) => end !== undefined).length;
    if (own ? !is?.every((word) => own.includes(word)) : ends !== 1)
      throw new InputError(at, `does not say when ${fact} counts`);
  }
}

/** The fields of a condition in a table of rules, of these facts. */
export const conditionFields = <const F extends string>(facts: readonly F[]) => ({
  sign: optional(text(40)),
  said: optional(text(200)),
  fact: optional(choice(facts)),
  above: optional(quantity('')),
  below: optional(quantity('')),
  from: optional(quantity('')),
  to: optional(quantity('')),
  is: optional(series(text(40), 'words', { min: 1, max: 6 })),
});
