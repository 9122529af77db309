import type { ProblemField } from '@glenfold/contract';
import { DEEPEST } from './manyValues.ts';

const DAY = /^(\d{4})-(\d{2})-(\d{2})$/;
/** Whether no half of a pair stands by itself (ECMAScript 2024; the library of types is older). */
const isWellFormed = (text: string): boolean => (text as unknown as { isWellFormed: () => boolean }).isWellFormed();

/** Text of a file: whoever reads files says what is wrong with one, better than this could. */
const FILE_TEXT = 'content';

/** A value on the way through, and the one that it lies in. */
interface Passed {
  readonly value: unknown;
  readonly key: string;
  readonly inside: Passed | undefined;
  readonly depth: number;
}

/** "newZones.3.name". */
function pathOf(one: Passed): string {
  const keys: string[] = [];
  for (let at = one; at.inside; at = at.inside) keys.unshift(at.key);
  return keys.join('.');
}

/**
 * Look through a value that somebody sent, however large or deep, without following it into itself.
 *
 * @param name of the whole, where the fault is not inside it
 * @returns the first that can be kept nowhere
 */
export function lookThrough(value: unknown, name: string): ProblemField | undefined {
  const waiting: Passed[] = [{ value, key: '', inside: undefined, depth: 0 }];
  for (let one = waiting.pop(); one; one = waiting.pop()) {
    const here = one;
    const fault = (message: string): ProblemField => ({ field: pathOf(here) || name, message });
    if (typeof one.value === 'string') {
      const words = textFault(one.value);
      if (words) return fault(words);
    }
    if (typeof one.value !== 'object' || one.value === null) continue;
    if (one.depth >= DEEPEST) return fault(`This is nested deeper than ${DEEPEST} levels: send it flat.`);
    for (const [key, inner] of Object.entries(one.value)) {
      const words = textFault(key);
      if (words) return fault(words);
      if (key === FILE_TEXT && typeof inner === 'string') continue;
      waiting.push({ value: inner, key, inside: here, depth: one.depth + 1 });
    }
  }
  return undefined;
}

function textFault(text: string): string | undefined {
  if (text.includes('\0')) return 'There is a character in it that cannot be kept (NUL): type it anew.';
  if (!isWellFormed(text)) return 'There is half a letter in it that cannot be kept: type it anew.';
  const [, year, month, day] = DAY.exec(text) ?? [];
  if (year === undefined) return undefined;
  const there = new Date(`${text}T00:00:00Z`);
  const real = !Number.isNaN(there.getTime()) && there.getUTCDate() === Number(day) && there.getUTCMonth() + 1 === Number(month);
  return real && Number(year) >= 1 ? undefined : `There is no day ${text}: check the day and the month.`;
} // prettier-ignore
