import type { ProblemField } from '@glenfold/contract';

/** No form of ours is nested so deep. */
const DEEPEST = 40;
const DAY = /^(\d{4})-(\d{2})-(\d{2})$/;
/** Whether no half of a pair stands by itself (ECMAScript 2024; the library of types is older). */
const isWellFormed = (text: string): boolean => (text as unknown as { isWellFormed: () => boolean }).isWellFormed();

/** Text of a file: whoever reads files says what is wrong with one, better than this could. */
const FILE_TEXT = 'content';

/** What is looked through: how many values there are, and the first that can be kept nowhere. */
export interface LookedThrough {
  readonly count: number;
  readonly fault?: ProblemField;
}

/**
 * Look through a value that somebody sent, however large or deep, without following it into itself.
 *
 * @param name of the whole, where the fault is not inside it
 */
export function lookThrough(value: unknown, name: string): LookedThrough {
  const waiting: Array<{ readonly value: unknown; readonly path: string; readonly depth: number }> = [
    { value, path: '', depth: 0 },
  ];
  let count = 0;
  for (let one = waiting.pop(); one; one = waiting.pop()) {
    count += 1;
    const { path, depth } = one;
    const fault = (message: string): LookedThrough => ({ count, fault: { field: path || name, message } });
    if (typeof one.value === 'string') {
      const words = textFault(one.value);
      if (words) return fault(words);
    }
    if (typeof one.value !== 'object' || one.value === null) continue;
    if (depth >= DEEPEST) return fault(`This is nested deeper than ${DEEPEST} levels: send it flat.`);
    for (const [key, inner] of Object.entries(one.value)) {
      const words = textFault(key);
      if (words) return fault(words);
      if (key === FILE_TEXT && typeof inner === 'string') continue;
      waiting.push({ value: inner, path: path === '' ? key : `${path}.${key}`, depth: depth + 1 });
    }
  }
  return { count };
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
