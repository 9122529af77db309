import { createStore, get, update } from 'idb-keyval';
import { ApiProblem } from '../api/client.ts';
import {
  type Arrived,
  type Doer,
  type Entry,
  type OutboxKind,
  all,
  keep,
  putAway,
  send,
  takeBack,
  takeOn,
} from './outbox.ts';

/** Something that has arrived, as it is told on this device for some days. */
export interface Sent extends Doer {
  readonly id: string;
  readonly kind: string;
  readonly words: string;
  /** What the server said of it. */
  readonly notes: readonly string[];
  /** When, ISO 8601. */
  readonly at: string;
}

/** What this device holds, and how it goes. */
export interface Carried {
  /** Nothing is known before it was looked for. */
  readonly known: boolean;
  readonly entries: readonly Entry[];
  readonly sent: readonly Sent[];
  /** Why nothing goes just now. */
  readonly trouble: string | null;
}

/** Between tries to send, ms. */
const AGAIN = 8000;
/** How long what was sent is told, ms. */
const TOLD = 2 * 86_400_000;
const LOG = 'log';
const log = createStore('glenfold-sent', 'log');

type Listener = (arrived: readonly Arrived[]) => Promise<void> | void;

const kinds = new Map<string, OutboxKind<never>>();
const watchers = new Set<() => void>();
const listeners = new Set<Listener>();
let carried: Carried = { known: false, entries: [], sent: [], trouble: null };
let going: Promise<void> | null = null;
let timer: ReturnType<typeof setInterval> | undefined;

/** As it stands, in few letters: who follows is told only of what is another. */
const gist = ({ known, entries, sent, trouble }: Carried): string =>
  [known, trouble, sent.at(-1)?.id, sent.length, ...entries.map(({ id, refused, person }) => `${id} ${refused} ${person?.id}`)].join('\n'); // prettier-ignore

function told(change: Partial<Carried>): void {
  const next = { ...carried, ...change };
  if (gist(next) === gist(carried)) return;
  carried = next;
  for (const watcher of watchers) watcher();
}

async function look(): Promise<readonly Entry[]> {
  const entries = await all();
  told({ known: true, entries, sent: (await get<readonly Sent[]>(LOG, log)) ?? [] });
  return entries;
}

/** What has arrived is told to whoever shows it, and stands in the list of what was sent. */
async function arrive(arrived: readonly Arrived[]): Promise<void> {
  for (const listener of listeners) await listener(arrived);
  const now = new Date();
  // Of what is a state of one thing only the newest is told.
  const fresh = new Map(
    arrived.map((entry): [string, Sent] => {
      const kind = kinds.get(entry.kind)!;
      const id = kind.stateOf?.(entry as unknown as Entry<never>) ?? entry.id;
      const { practiceId, person, notes } = entry;
      const words = kind.say(entry as unknown as Entry<never>);
      return [id, { id, kind: entry.kind, practiceId, person, notes, words, at: now.toISOString() }];
    }),
  );
  const stays = ({ id, at }: Sent): boolean => !fresh.has(id) && now.getTime() - Date.parse(at) < TOLD;
  await update<readonly Sent[]>(LOG, (before = []) => [...before.filter(stays), ...fresh.values()], log);
}

async function sendOnce(): Promise<void> {
  try {
    await send([...kinds.values()], arrive);
    told({ trouble: null });
  } catch (problem) {
    const away = problem instanceof ApiProblem && problem.status === 0;
    told({ trouble: away ? 'No connection: it goes as soon as there is one.' : (problem as Error).message });
  } finally {
    await look();
  }
}

/** Only one tab sends at a time. */
const alone = (): Promise<void> =>
  'locks' in navigator
    ? navigator.locks.request('glenfold sender', { ifAvailable: true }, (lock) =>
        lock ? sendOnce() : look().then(() => undefined),
      )
    : sendOnce();

/** Send all that waits; one try at a time, whoever asks. */
export function sendAll(): Promise<void> {
  going ??= alone().finally(() => {
    going = null;
  });
  return going;
}

// A browser that keeps nothing has nothing to send.
const again = (): void =>
  void (async () => ((await look()).some(({ refused }) => !refused) ? sendAll() : undefined))().catch(() => undefined);

/** Say how entries of some kinds are sent: from now on they are, from whatever page. */
export function carry(more: ReadonlyArray<OutboxKind<never>>): void {
  for (const kind of more) kinds.set(kind.name, kind);
}

/** Follow what is carried; while anybody does, it is sent whenever that is possible. @returns to leave off */
export function follow(watcher: () => void): () => void {
  watchers.add(watcher);
  if (timer === undefined) {
    timer = setInterval(again, AGAIN);
    window.addEventListener('online', again);
    again();
  }
  return () => {
    watchers.delete(watcher);
    if (watchers.size > 0) return;
    clearInterval(timer);
    timer = undefined;
    window.removeEventListener('online', again);
  };
}

/** Be told what arrives before it leaves the device. @returns to leave off */
export function listen(listener: Listener): () => void {
  listeners.add(listener);
  return () => void listeners.delete(listener);
}

export const carriedNow = (): Carried => carried;

/** How something is sent. */
export const kindOf = (entry: Entry): OutboxKind<never> | undefined => kinds.get(entry.kind);

/** Keep something on the device, then try to send it. */
export async function add(entry: Entry): Promise<void> {
  await keep(entry);
  await look();
  // A try that is under way may have looked before this was kept.
  void (going ?? Promise.resolve()).then(() => sendAll());
}

/** Have done with what was refused. */
export async function letGo(ids: readonly string[]): Promise<void> {
  await putAway(new Set(ids));
  await look();
}

/** Take back what waits, or was refused: it goes nowhere. */
export async function drop(ids: readonly string[]): Promise<void> {
  await takeBack(new Set(ids));
  await look();
}

/** Send somebody else's work as that of who is there. */
export async function takeOver(ids: readonly string[], person: NonNullable<Doer['person']>): Promise<void> {
  await takeOn(new Set(ids), person);
  await look();
  void sendAll();
}
