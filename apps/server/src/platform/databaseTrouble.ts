import { setTimeout as pause } from 'node:timers/promises';

/** What PostgreSQL says was wrong (appendix A of its manual), as far as something is done about it here. */
const codes = {
  deadlock: '40P01',
  serialization: '40001',
  lockTimeout: '55P03',
  cancelled: '57014',
  unique: '23505',
} as const;

/** How codes begin for a value that no column takes: a text with NUL, a number out of range, a day that is none. */
const UNREADABLE = '22';

/** No place is left on the disk: of the database, or of the files. */
const FULL = new Set(['53100', 'ENOSPC', 'EDQUOT']);

/** The database goes down, comes up, has no place left, or cannot be reached. */
const AWAY = /^(08|53|57P|ECONN|ENOTFOUND|EPIPE|ETIMEDOUT|EAI_AGAIN)/;
/** Driver and mapper have words for it only; a connection that is lost takes its runner along, in the middle of whatever it ran. */
const AWAY_WORDS =
  /connection (terminated|ended)|query runner (was )?already released|timeout exceeded when trying to connect|not queryable|Client was closed|not currently accepting connections/i;

const codeOf = (error: unknown): string => {
  const { code } = (error ?? {}) as { readonly code?: unknown };
  return typeof code === 'string' ? code : '';
};

export type DatabaseTrouble = 'full' | 'collided' | 'locked' | 'too long' | 'unreadable' | 'away' | 'twice';

/** What is wrong with the database or the disk, or with what was asked of it; nothing for a fault of ours. */
export function troubleOf(error: unknown): DatabaseTrouble | undefined {
  const code = codeOf(error);
  if (FULL.has(code)) return 'full';
  if (code === codes.deadlock || code === codes.serialization) return 'collided';
  if (code === codes.lockTimeout) return 'locked';
  if (code === codes.cancelled) return 'too long';
  if (code === codes.unique) return 'twice';
  if (AWAY.test(code)) return 'away';
  if (code.startsWith(UNREADABLE)) return 'unreadable';
  return error instanceof Error && AWAY_WORDS.test(error.message) ? 'away' : undefined;
}

/** Tries of a transaction that collides with another. */
const TRIES = 5;
/** ms; doubled from try to try, and drawn, so that two do not meet again. */
const FIRST_PAUSE = 20;

/** Do a transaction again where it collided with another one: nothing of it stands until it is through. */
export async function again<T>(transaction: () => Promise<T>): Promise<T> {
  for (let tries = 1; ; tries += 1)
    try {
      return await transaction();
    } catch (error) {
      if (tries >= TRIES || troubleOf(error) !== 'collided') throw error;
      await pause(Math.random() * FIRST_PAUSE * 2 ** tries);
    }
}

/** What of a value no column takes, by the beginning of the code; what to do about it. */
const unreadable: ReadonlyArray<readonly [codes: RegExp, words: string]> = [
  [/^22003/, 'A number in the request is larger than any that is kept here: look for a digit too many.'],
  [/^2200[78]/, 'A day in the request does not exist, such as 31 April: correct it.'],
  [/^(22021|22P05)/, 'A text holds a character that is none, often from a copied file: paste it as plain text.'],
  [/^22P02/, 'An id in the address or in the request is no id: go back, and choose the record again.'],
];

/** Which value could not be kept, and what to do; nothing where it is not that. */
export const unreadableWords = (error: unknown): string | undefined =>
  unreadable.find(([codes_]) => codes_.test(codeOf(error)))?.[1];
