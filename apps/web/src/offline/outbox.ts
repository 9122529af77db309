import { dayOn } from '@glenfold/agronomy';
import { type SessionAnswer, dayIn, withReadableDays } from '@glenfold/contract';
import { createStore, del, entries as keptIn, get, keys, set, setMany } from 'idb-keyval';
import { ApiProblem, api, standAs } from '../api/client.ts';
import { clockWords, serverAhead } from '../api/clock.ts';
import { noteHolder } from './holder.ts';

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
  /** When it was kept, by this device's clock; not in what an earlier version kept. */
  readonly made?: string;
  /** What the server said when it refused it for good: it stays here to be read, and is not sent again. */
  readonly refused?: string;
}

/** What came of one entry, whatever came of those that went with it. */
export interface Outcome {
  readonly id: string;
  /** It will never be taken, and why. */
  readonly refused?: string;
  /** What the server said of what it took, to be read by the person. */
  readonly notes?: readonly string[];
}

/** An entry that has arrived. */
export interface Arrived extends Entry {
  readonly notes: readonly string[];
}

/** The day that something bears, where it may have been taken from the device's clock. */
interface DayOf<T> {
  readonly of: (body: T) => string | null | undefined;
  readonly put: (body: T, day: string) => object;
  /** It was begun on a day by this clock, and is kept again on later ones. */
  readonly ofBefore?: boolean;
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
   * @throws what the server says against all of them; the outbox decides what becomes of each
   */
  readonly send: (entries: ReadonlyArray<Entry<T>>) => Promise<readonly Outcome[]>;
  /** What one of them is, on the list of what waits and of what was sent. */
  readonly say: (entry: Entry<T>) => string;
  /** Where it can be written anew; nothing where it can only be sent as a note, or taken back. */
  readonly mendAt?: (entry: Entry<T>) => string;
  /** How something that will never be taken is told. */
  readonly refusal: (entry: Entry<T>, words: string) => string;
  /** What has to arrive before it: while that waits, this waits too. */
  readonly restsOn?: (entry: Entry<T>) => string | undefined;
  /** What an entry is a state of: those of one thing go together, and the newest stands for all of them. */
  readonly stateOf?: (entry: Entry<T>) => string;
  /** The day that it bears: put right as it is sent where this device's clock is wrong. */
  readonly day?: DayOf<T>;
  /** Whether the order in which these arrive matters, so that none overtakes one that waits. */
  readonly inOrder?: boolean;
}

/** Answers that do not change by sending the same again. */
const FINAL = new Set([400, 404, 409, 410, 413, 415, 422]);

/** What the server’s answer means for what was sent: never taken, not now, or nothing can be sent at all. */
function meaningOf(error: unknown): 'never' | 'not now' | 'nothing goes' {
  if (!(error instanceof ApiProblem) || error.status === 0 || error.status === 401) return 'nothing goes';
  if (error.title === 'Another practice is open') return 'nothing goes';
  // Somebody is saving the same just now: the server says when to come again.
  return FINAL.has(error.status) && error.retryAfter === undefined ? 'never' : 'not now';
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
  await set(nextKey(), { made: new Date().toISOString(), ...entry }, store);
}

/** What has not arrived, in the order in which it was done; with what was refused. */
export const all = async (): Promise<readonly Entry[]> => (await kept()).map(([, entry]) => entry);

/** Have done with what was refused. */
export async function putAway(ids: ReadonlySet<string>): Promise<void> {
  for (const [key, entry] of await kept()) if (entry.refused && ids.has(entry.id)) await del(key, store);
}

/** Take back what waits: it leaves this device and goes nowhere. */
export async function takeBack(ids: ReadonlySet<string>): Promise<void> {
  for (const [key, entry] of await kept()) if (ids.has(entry.id)) await del(key, store);
}

/** What somebody else kept here becomes the work of who is there: in what was written itself, who did it stays. */
export async function takeOn(ids: ReadonlySet<string>, person: NonNullable<Doer['person']>): Promise<void> {
  for (const [key, entry] of await kept()) if (ids.has(entry.id)) await set(key, { ...entry, person }, store);
}

/** Who is signed in. @throws with words where nobody is, or nobody can be asked */
export async function signedIn(): Promise<SessionAnswer> {
  const session = await api<SessionAnswer>('GET', '/session');
  noteHolder(session);
  if (session.state !== 'signed in')
    throw new ApiProblem(401, 'Sign in again to go on: what you did is kept on this device until then.', []);
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

type Kept = readonly [key: string, entry: Entry];

/**
 * An entry with its day as it really was, where this device took a wrong one for today: what somebody chose by hand
 * stays.
 */
function onRightDay<T>({ day }: OutboxKind<T>, entry: Entry<T>): { readonly entry: Entry<T>; readonly note?: string } {
  const own = day?.of(entry.body);
  const off = clockWords();
  if (!day || !entry.made || off === null || own?.length !== 10) return { entry };
  const { timeZone } = new Intl.DateTimeFormat().resolvedOptions();
  const [taken, right] = [0, serverAhead()].map((ahead) => dayIn(new Date(Date.parse(entry.made!) + ahead), timeZone));
  const days = (Date.parse(right!) - Date.parse(taken!)) / 86_400_000;
  if (days === 0 || (own !== taken && !day.ofBefore)) return { entry };
  const put = dayOn(own, days);
  return {
    entry: { ...entry, body: day.put(entry.body, put) as T },
    note: `This device’s clock is ${off}: the day was put right to ${withReadableDays(put)}. Set the clock.`,
  };
}

/** What came of entries that go together; where the server refuses them together, each is tried alone. */
async function outcomesOf(kind: OutboxKind<never>, going: readonly Entry[]): Promise<ReadonlyMap<string, Outcome>> {
  try {
    return new Map((await kind.send(going as ReadonlyArray<Entry<never>>)).map((one) => [one.id, one]));
  } catch (error) {
    if (meaningOf(error) !== 'never') throw error;
    if (going.length === 1 || kind.stateOf) {
      const newest = going.at(-1)! as Entry<never>;
      const refused = kind.refusal(newest, (error as Error).message);
      // It is told once.
      return new Map(going.map(({ id }) => [id, id === newest.id ? { id, refused } : { id }]));
    }
    const alone = new Map<string, Outcome>();
    for (const entry of going) for (const [id, outcome] of await outcomesOf(kind, [entry])) alone.set(id, outcome);
    return alone;
  }
}

/** What may go next together, of what is one’s own and is not held up: the oldest, and those of its kind behind it. */
function nextOf(own: readonly Kept[], kinds: ReadonlyArray<OutboxKind<never>>, held: ReadonlySet<string>) {
  for (const [, { kind: name }] of own) {
    const kind = kinds.find((one) => one.name === name)!;
    const waits = (entry: Entry): boolean =>
      held.has(entry.id) || held.has(kind.restsOn?.(entry as Entry<never>) ?? '') || held.has(name);
    const free = own.filter(([, entry]) => entry.kind === name && !waits(entry));
    const [first] = free;
    if (!first) continue;
    const of = (entry: Entry) => kind.stateOf?.(entry as Entry<never>);
    return { kind, going: free.filter(([, entry]) => of(entry) === of(first[1])).slice(0, kind.atOnce) };
  }
  return undefined;
}

/**
 * Send what is kept and belongs to who is signed in, oldest first. An entry leaves the device only when the server has
 * said what came of it. Whatever the server says against one, what does not rest on it goes on.
 *
 * @param onArrived told what has arrived, before it leaves the device
 * @throws when the server cannot be reached, or asks who it is, or what is kept is somebody else's; and, after all
 *   others have gone, when something has to be sent again: it stays
 */
export async function send(
  kinds: ReadonlyArray<OutboxKind<never>>,
  onArrived: (arrived: readonly Arrived[]) => Promise<void> | void,
): Promise<void> {
  /** Of what is to be sent again later: ids, what rests on them by the thing it is of, and kinds that keep their order. */
  const held = new Set<string>();
  let later: Error | undefined;
  for (;;) {
    const waiting = (await kept()).filter(
      ([, { kind, refused }]) => !refused && kinds.some((one) => one.name === kind),
    );
    if (waiting.length === 0) return;
    const { practice, person } = await signedIn();
    const own = waiting.filter(
      ([, entry]) => entry.practiceId === practice?.id && (!entry.person || entry.person.id === person?.id),
    );
    if (own.length === 0)
      throw notTheirs(
        waiting.map(([, entry]) => entry),
        practice?.id,
        kinds,
      );
    const next = nextOf(own, kinds, held);
    if (!next)
      throw (
        later ??
        new ApiProblem(502, 'The server did not answer for all that was sent: it is kept here and sent again.', [])
      );
    const { kind } = next;
    const notesOnDay = new Map<string, string>();
    const going = next.going.map(([key, entry]): Kept => {
      const dated = onRightDay(kind, entry as Entry<never>);
      if (dated.note) notesOnDay.set(entry.id, dated.note);
      return [key, dated.entry];
    });
    const hold = (entry: Entry): void => {
      held.add(entry.id);
      // What is of it, such as a photo, comes after it.
      const { id } = entry.body as { readonly id?: string };
      if (id) held.add(id);
      if (kind.inOrder) held.add(kind.name);
    };
    let outcomes: ReadonlyMap<string, Outcome>;
    try {
      outcomes = await outcomesOf(
        kind,
        going.map(([, entry]) => entry),
      );
    } catch (error) {
      if (meaningOf(error) === 'nothing goes') throw error;
      later ??= error as Error;
      for (const [, entry] of going) hold(entry);
      continue;
    }
    const told = going.flatMap(([key, entry]) => {
      const outcome = outcomes.get(entry.id);
      if (!outcome) hold(entry);
      return outcome
        ? [
            {
              key,
              entry,
              refused: outcome.refused,
              notes: [notesOnDay.get(entry.id) ?? [], outcome.notes ?? []].flat(),
            },
          ]
        : [];
    });
    await onArrived(told.flatMap(({ entry, refused, notes }) => (refused === undefined ? [{ ...entry, notes }] : [])));
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
