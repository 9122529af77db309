import type { State } from './stepReporter.ts';

export const plural = (count: number, word: string): string => `${count} ${word}${count === 1 ? '' : 's'}`;

/** "2 of 5 tested", "all 5 tested", "no zones yet". */
export const share = (part: number, of: number, done: string): State => ({
  words: of === 0 ? 'no zones yet' : part === of ? `all ${of} ${done}` : `${part} of ${of} ${done}`,
  state: of === 0 ? 'waiting' : part === of ? 'done' : 'act',
});
