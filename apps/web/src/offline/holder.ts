import type { SessionAnswer } from '@glenfold/contract';

/** Who works with this device: what is taken along on it is theirs, in this practice. */
export interface Holder {
  readonly personId: string;
  readonly name: string;
  readonly practiceId: string;
  readonly practiceName: string;
}

const KEY = 'glenfold holder';
const watchers = new Set<() => void>();
let read: { readonly text: string | null; readonly holder: Holder | null } = { text: null, holder: null };

/** Where a browser keeps nothing: as long as the page is open. */
let inMemory: string | null = null;

/** Who was signed in here last and has not signed out; known without a connection. */
export function holderNow(): Holder | null {
  let text = inMemory;
  try {
    text = localStorage.getItem(KEY);
  } catch {
    // What is in memory stands.
  }
  if (text !== read.text) read = { text, holder: text === null ? null : (JSON.parse(text) as Holder) };
  return read.holder;
}

function hold(holder: Holder | null): void {
  const before = holderNow();
  inMemory = holder && JSON.stringify(holder);
  try {
    if (inMemory === null) localStorage.removeItem(KEY);
    else localStorage.setItem(KEY, inMemory);
  } catch {
    // It is known until the page is closed.
  }
  if (before !== holderNow()) for (const watcher of watchers) watcher();
}

/** Note who the server says is there. */
export function noteHolder({ state, person, practice }: Pick<SessionAnswer, 'state' | 'person' | 'practice'>): void {
  hold(
    state === 'signed in' && person && practice
      ? { personId: person.id, name: person.name, practiceId: practice.id, practiceName: practice.name }
      : null,
  );
}

/** Signed out: nothing that was taken along is shown any more. */
export const letDevice = (): void => hold(null);

/** Be told when somebody else holds the device, in another tab too. @returns to leave off */
export function followHolder(watcher: () => void): () => void {
  const stored = ({ key }: StorageEvent): void => {
    if (key === KEY || key === null) watcher();
  };
  watchers.add(watcher);
  window.addEventListener('storage', stored);
  return () => {
    watchers.delete(watcher);
    window.removeEventListener('storage', stored);
  };
}

/** Whose something is: nobody's in particular where an earlier version kept it. */
interface Someones {
  readonly practiceId: string;
  readonly person: { readonly id: string } | null;
}

/** Whether something that was taken along, or done here, is of a holder. */
export const isOf = (holder: Holder | null, { practiceId, person }: Someones): boolean =>
  holder?.practiceId === practiceId && (person === null || person.id === holder.personId);

/** Whether it is of who holds the device now. */
export const isHolders = (one: Someones): boolean => isOf(holderNow(), one);
