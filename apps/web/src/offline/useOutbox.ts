import { useCallback, useEffect, useRef, useState } from 'react';
import { type Entry, type OutboxKind, all, keep, putAway, send } from './outbox.ts';

/** Between tries to send, ms. */
const AGAIN = 8000;

/**
 * What was done on this device and has not arrived: kept at once, sent whenever that is possible.
 *
 * @param kinds what this page sends; the same list every time
 * @param onArrived told what has arrived, before it leaves the device
 */
export function useOutbox(
  kinds: ReadonlyArray<OutboxKind<never>>,
  onArrived: (arrived: readonly Entry[]) => Promise<void> | void,
) {
  const [entries, setEntries] = useState<readonly Entry[]>([]);
  const [trouble, setTrouble] = useState<string | null>(null);
  const sending = useRef(false);
  const arrived = useRef(onArrived);
  useEffect(() => {
    arrived.current = onArrived;
  });

  const look = useCallback(async (): Promise<readonly Entry[]> => {
    const found = (await all()).filter(({ kind }) => kinds.some(({ name }) => name === kind));
    setEntries(found);
    return found;
  }, [kinds]);

  const sendAll = useCallback(async (): Promise<void> => {
    if (sending.current) return;
    sending.current = true;
    try {
      await send(kinds, (told) => arrived.current(told));
      setTrouble(null);
    } catch (problem) {
      setTrouble((problem as Error).message);
    } finally {
      await look();
      sending.current = false;
    }
  }, [kinds, look]);

  useEffect(() => {
    const again = (): void =>
      void look().then((found) => (found.some(({ refused }) => !refused) ? sendAll() : undefined));
    const timer = setInterval(again, AGAIN);
    window.addEventListener('online', again);
    return () => {
      clearInterval(timer);
      window.removeEventListener('online', again);
    };
  }, [look, sendAll]);

  const add = async (entry: Entry): Promise<void> => {
    await keep(entry);
    await look();
    void sendAll();
  };
  const refused = entries.filter((entry) => entry.refused !== undefined);
  const letGo = async (): Promise<void> => {
    await putAway(new Set(refused.map(({ id }) => id)));
    await look();
  };
  return { waiting: entries.filter((entry) => entry.refused === undefined), refused, trouble, add, letGo, sendAll };
}
