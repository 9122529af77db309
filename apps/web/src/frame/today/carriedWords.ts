import { type Holder, isOf } from '../../offline/holder.ts';
import type { Entry } from '../../offline/outbox.ts';
import { kindOf } from '../../offline/sender.ts';

/** What something kept here is, in words. */
export const saidOf = (entry: Entry): string => kindOf(entry)?.say(entry as unknown as Entry<never>) ?? entry.kind;

/** Where it can be written anew. */
export const mendedAt = (entry: Entry): string | undefined => kindOf(entry)?.mendAt?.(entry as unknown as Entry<never>);

/** Things of one name on one line, with how many. */
export function counted<T>(
  all: readonly T[],
  say: (one: T) => string,
): ReadonlyArray<readonly [words: string, of: readonly T[]]> {
  const found = new Map<string, T[]>();
  for (const one of all) found.set(say(one), [...(found.get(say(one)) ?? []), one]);
  return [...found];
}

/** Of whom something waits here beside who holds the device, in this practice where one is open: "3 of Wynn Marram". */
export function ofOthers(
  holder: Holder | null,
  entries: readonly Entry[],
): ReadonlyArray<readonly [name: string, ids: readonly string[]]> {
  const theirs = entries.filter(
    (one) => !isOf(holder, one) && (holder === null || one.practiceId === holder.practiceId),
  );
  return counted(theirs, ({ person }) => person?.name ?? 'somebody').map(([name, of]) => [
    name,
    of.map(({ id }) => id),
  ]);
}

export const things = (count: number): string => (count === 1 ? '1 thing' : `${count} things`);
