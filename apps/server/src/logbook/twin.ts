import type { EntryInput } from '@glenfold/contract';
import { standing } from '@glenfold/agronomy';
import { type EntryRecord, entryOf } from '../entries/entry.entity.ts';

/**
 * What is said where a card was written before, by another phone or another person: both count until one is withdrawn.
 * @param earlier entries of the job, oldest first
 */
export function twinWords(earlier: readonly EntryRecord[], input: EntryInput): string | undefined {
  if (input.state === 'withdrawn') return undefined;
  const stand = new Set(standing(earlier.map(entryOf)).map(({ id }) => id));
  const twin = earlier.find(({ id, state }) => stand.has(id) && id !== input.correctsId && state !== 'partly done');
  return (
    twin &&
    `${twin.writtenBy ?? 'Somebody'} wrote this card before, as ${twin.state} on ${twin.on}: both are kept and both count. If it was done once, withdraw one of them.`
  );
}
