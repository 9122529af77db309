import { createHash } from 'node:crypto';
import { Breath } from './breath.ts';
import { Problem } from './problem.ts';

/** How much a body may hold, whatever its bytes. */
export interface Bounds {
  /** Values of all kinds: numbers, words, lists, objects. */
  readonly values: number;
  /** Objects in one list. */
  readonly listed: number;
}

/** No form of ours is nested so deep. */
export const DEEPEST = 40;
/** Bytes between looks at the time. */
const PART = 0x3_ffff;
const [QUOTE, BACKSLASH, COMMA] = [0x22, 0x5c, 0x2c];
const [LIST, END_OF_LIST, OBJECT, END_OF_OBJECT] = [0x5b, 0x5d, 0x7b, 0x7d];

const refused = (detail: string): Problem => new Problem(413, 'Too many values', detail);

/**
 * Count the values of a JSON text without reading it: what is too much is known before memory is taken for it. Whether
 * it is JSON at all, its reader says.
 *
 * @returns at least as many as there are
 * @throws a 413 problem where there are more than may be sent at once, a 400 one where they are nested too deep
 */
export async function countValues(text: Uint8Array, { values, listed }: Bounds): Promise<number> {
  const breath = new Breath();
  /** Objects so far in each list that is open; nothing for an object that is. */
  const open: Array<number | undefined> = [];
  let count = 1;
  let quoted = false;
  for (let at = 0; at < text.length; at += 1) {
    if ((at & PART) === 0) await breath.drawn();
    const sign = text[at];
    if (quoted) {
      if (sign === BACKSLASH) at += 1;
      else if (sign === QUOTE) quoted = false;
      continue;
    }
    if (sign === QUOTE) quoted = true;
    else if (sign === COMMA) count += 1;
    else if (sign === LIST || sign === OBJECT) {
      count += 1;
      const inList = open.at(-1);
      if (sign === OBJECT && inList !== undefined) {
        open[open.length - 1] = inList + 1;
        if (inList >= listed) throw refused(`A list has at most ${listed} lines at once: send it in smaller parts.`);
      }
      open.push(sign === LIST ? 0 : undefined);
      if (open.length > DEEPEST) {
        const message = `This is nested deeper than ${DEEPEST} levels: send it flat.`;
        throw new Problem(400, 'A value cannot be kept', message, [{ field: 'body', message }]);
      }
    } else if (sign === END_OF_LIST || sign === END_OF_OBJECT) open.pop();
    if (count > values) throw refused(`More than ${values} values came at once: send them in smaller parts.`);
  }
  return count;
}

/** @throws a 400 problem where it is no JSON */
export function parsed(text: Uint8Array): unknown {
  const unreadable = (why: string): Problem =>
    new Problem(400, 'The request cannot be read', `What was sent is not well-formed JSON: ${why}.`);
  let value: unknown;
  try {
    value = text.length === 0 ? {} : JSON.parse(new TextDecoder().decode(text));
  } catch (error) {
    throw unreadable((error as Error).message);
  }
  if (typeof value !== 'object' || value === null) throw unreadable('it is neither an object nor a list');
  return value;
}

/** A body of very many values, not read yet: a thread reads it, so that no other request waits. */
export class ManyValues {
  constructor(readonly text: Uint8Array) {}

  /** What it says, in few letters: the same is known again by it. */
  toJSON(): string {
    return createHash('sha256').update(this.text).digest('hex');
  }
}
