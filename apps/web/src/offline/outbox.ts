import type { SessionAnswer } from '@glenfold/contract';
import { createStore, del, entries as keptIn, get, keys, set, setMany } from 'idb-keyval';
import { ApiProblem, api, standAs } from '../api/client.ts';

/** Whose something is that was done without a connection. */
export interface Doer {
  readonly practiceId: string;
  /** Nothing for what an earlier version kept, which did not know: whoever of the practice is there sends it. */
  readonly person: { readonly id: string; readonly name: string } | null;
}

/** Something that was done on this device and has not arrived yet. */
export interface Entry<T = unknown> extends Doer {
  /** Made here: sent twice, it counts once. */
  readonly id: string;
  readonly kind: string;
  readonly body: T;
  /** What the server said when it refused it for good: it stays here to be read, and is not sent again. */
  readonly refused?: string;
}

/** What came of one entry, whatever came of those that went with it. */
export interface Outcome {
  readonly id: string;
  /** It will never be taken, and why. */
  readonly refused?: string;
}

/** How entries of one kind are sent. */
export interface OutboxKind<T> {
  readonly name: string;
  /** "tap": how one of them is called. */
  readonly one: string;
  /** How many go at once. */
  readonly atOnce: number;
  /**
   * @returns what came of those that the server told of; what it told nothing of stays
   * @throws when the server cannot be reached, or refuses who asks: all of it stays
   */
  readonly send: (entries: ReadonlyArray<Entry<T>>) => Promise<readonly Outcome[]>;
}

const store = createStore('glenfold-outbox', 'entries');

/** Keys in the order in which things were done. */
let last = '';
function nextKey(): string {
  const now = new Date().toISOString();
  const [time = '', count = '0'] = last.split(' ');
  // Two in one moment, or with the clock put back, keep their order.
  last = now > time ? `${now} 000000` : `${time} ${String(Number(count) + 1).padStart(6, '0')}`;
  return last;
}

async function kept(): Promise<ReadonlyArray<readonly [key: string, entry: Entry]>> {
  const found = await keptIn<string, Entry>(store);
  return found.sort(([one], [other]) => (one < other ? -1 : 1));
}

/** Keep something on the device before anything else is done with it. */
export async function keep(entry: Entry): Promise<void> {
  const newest = (await keys<string>(store)).sort().at(-1) ?? '';
  if (newest > last) last = newest;
  await set(nextKey(), entry, store);
}

/** What has not arrived, in the order in which it was done; with what was refused. */
export const all = async (): Promise<readonly Entry[]> => (await kept()).map(([, entry]) => entry);

/** Have done with what was refused. */
export async function putAway(ids: ReadonlySet<string>): Promise<void> {
  for (const [key, entry] of await kept()) if (entry.refused && ids.has(entry.id)) await del(key, store);
}

/** Who is signed in. @throws with words where nobody is, or nobody can be asked */
export async function signedIn(): Promise<SessionAnswer> {
  const session = await api<SessionAnswer>('GET', '/session');
  if (session.state !== 'signed in')
    throw new ApiProblem(401, 'Sign in again to go on: what you tapped is kept on this device until then.', []);
  standAs({ csrf: session.csrf, practiceId: session.practice?.id });
  return session;
}

/** "3 taps and 1 photo". */
function countWords(entries: readonly Entry[], kinds: ReadonlyArray<OutboxKind<never>>): string {
  return kinds
    .flatMap(({ name, one }) => {
      const count = entries.filter(({ kind }) => kind === name).length;
      return count > 0 ? [`${count} ${one}${count === 1 ? '' : 's'}`] : [];
    })
    .join(' and ');
}

/** Why nothing of what waits can be sent by who is signed in. */
function notTheirs(waiting: readonly Entry[], practiceId: string | undefined, kinds: ReadonlyArray<OutboxKind<never>>) {
  const here = waiting.filter((entry) => entry.practiceId === practiceId);
  const names = [...new Set(here.flatMap(({ person }) => person?.name ?? []))].join(' and ');
  return new ApiProblem(
    409,
    here.length > 0
      ? `${countWords(here, kinds)} kept here ${here.length === 1 ? 'is' : 'are'} of ${names}: sent when ${names} signs in on this device.`
      : 'What is kept here belongs to another practice: change to it to send it.',
    [],
  );
}

/**
 * Send what is kept and belongs to who is signed in, oldest first. An entry leaves the device only when the server has
 * said what came of it; one that is refused holds up no other.
 *
 * @param onArrived told what has arrived, before it leaves the device
 * @throws when the server cannot be reached, or refuses who asks, or what is kept is somebody else's: it stays
 */
export async function send(
  kinds: ReadonlyArray<OutboxKind<never>>,
  onArrived: (arrived: readonly Entry[]) => Promise<void> | void,
): Promise<void> {
  for (;;) {
    const waiting = (await kept()).filter(
      ([, { kind, refused }]) => !refused && kinds.some((one) => one.name === kind),
    );
    if (waiting.length === 0) return;
    const { practice, person } = await signedIn();
    const own = waiting.filter(
      ([, entry]) => entry.practiceId === practice?.id && (!entry.person || entry.person.id === person?.id),
    );
    const kind = kinds.find(({ name }) => name === own[0]?.[1].kind);
    if (!kind)
      throw notTheirs(
        waiting.map(([, entry]) => entry),
        practice?.id,
        kinds,
      );
    const going = own.filter(([, entry]) => entry.kind === kind.name).slice(0, kind.atOnce);
    const outcomes = new Map(
      (await kind.send(going.map(([, entry]) => entry as Entry<never>))).map((one) => [one.id, one]),
    );
    const told = going.flatMap(([key, entry]) => {
      const outcome = outcomes.get(entry.id);
      return outcome ? [{ key, entry, refused: outcome.refused }] : [];
    });
    if (told.length === 0)
      throw new ApiProblem(502, 'The server said nothing of what was sent: it is kept here and sent again.', []);
    await onArrived(told.flatMap(({ entry, refused }) => (refused === undefined ? [entry] : [])));
    for (const { key, entry, refused } of told)
      await (refused === undefined ? del(key, store) : set(key, { ...entry, refused }, store));
  }
}

/** Take over what an earlier version kept in a place of its own, once. */
export async function takeOver(
  from: ReturnType<typeof createStore>,
  key: string,
  as: (old: unknown) => Entry,
): Promise<void> {
  const old = await get<readonly unknown[]>(key, from);
  if (!old) return;
  await setMany(
    old.map((one) => [nextKey(), as(one)]),
    store,
  );
  await del(key, from);
}
