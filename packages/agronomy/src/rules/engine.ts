import { InputError } from '../calculators/fields.ts';
import { wordFacts } from '../evidence/facts.ts';

/** A piece of a rule: what speaks for or against something, where it is seen or known so. */
export interface Piece {
  /** Name of a sign; else a fact is looked at. */
  readonly sign?: string | undefined;
  readonly fact?: string | undefined;
  readonly above?: number | undefined;
  readonly below?: number | undefined;
  /** Words of the fact that count. */
  readonly is?: readonly string[] | undefined;
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

function holds({ above, below, is }: Piece, value: number | string): boolean {
  if (typeof value === 'string') return is?.includes(value) ?? false;
  return (above === undefined || value > above) && (below === undefined || value < below);
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
  const speaking = pieces.flatMap((piece): Testimony[] => {
    const { sign, fact = '' } = piece;
    if (sign !== undefined) return seen.includes(sign) ? [tell(piece, undefined)] : [];
    const value = known[fact];
    return value !== undefined && holds(piece, value) ? [tell(piece, value)] : [];
  });
  return {
    points: speaking.reduce((sum, { points }) => sum + points, 0),
    for: speaking.filter(({ points }) => points > 0),
    against: speaking.filter(({ points }) => points < 0),
    unknown: pieces.flatMap(({ fact }) => (fact && known[fact] === undefined ? [fact] : [])),
    pointed: pieces.some(({ sign, weight }) => sign !== undefined && weight > 0 && seen.includes(sign)),
  };
}

/**
 * See that every piece of a rule can speak.
 *
 * @param path where the pieces stand, for the message
 * @throws {InputError} for one that never could
 */
export function checkPieces(pieces: readonly Piece[], signNames: readonly string[], path: string): void {
  for (const [index, { sign, fact, above, below, is }] of pieces.entries()) {
    const at = `${path}.${index}`;
    if ((sign === undefined) === (fact === undefined)) throw new InputError(at, 'wants a sign or a fact, one of them');
    if (sign !== undefined && !signNames.includes(sign)) throw new InputError(`${at}.sign`, `"${sign}" is no sign`);
    if (fact === undefined) continue;
    const words = (wordFacts as Readonly<Record<string, readonly string[]>>)[fact];
    if (words ? !is?.every((word) => words.includes(word)) : (above === undefined) === (below === undefined))
      throw new InputError(at, `does not say when ${fact} counts`);
  }
}
