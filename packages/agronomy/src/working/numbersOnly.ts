/** Parts of an answer that are written for people. */
type Written = 'words' | 'working' | 'text' | 'numbers' | 'headline' | 'rule' | 'reasons' | 'cautions' | 'notes';

/** An answer of the core without what was written for people: what may be compared, summed and searched. */
export type Numbers<T> =
  T extends ReadonlyArray<infer U>
    ? ReadonlyArray<Numbers<U>>
    : T extends object
      ? { readonly [K in keyof T as K extends Written ? never : K]: Numbers<T[K]> }
      : T;

let written = true;

/** Whether workings and sentences are being written. */
export const isWritten = (): boolean => written;

/**
 * Compute for the numbers alone, several times as fast: no working is kept and no number is put into words. For
 * what-ifs, uncertainty and searching; what a person reads is computed anew with everything.
 *
 * @param compute synchronous functions of the core
 * @returns what it returns, of which the type leaves only what holds: sentences have gaps where their numbers stand
 */
export function numbersOnly<T>(compute: () => T): Numbers<T> {
  const before = written;
  written = false;
  try {
    return compute() as Numbers<T>;
  } finally {
    written = before;
  }
}
