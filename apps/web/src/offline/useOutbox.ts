import { useEffect, useMemo, useRef, useSyncExternalStore } from 'react';
import { followHolder, holderNow } from './holder.ts';
import type { Arrived, OutboxKind } from './outbox.ts';
import { add, carriedNow, carry, follow, letGo, listen, sendAll } from './sender.ts';

/** Who holds this device; nobody where nobody is signed in. */
export const useHolder = () => useSyncExternalStore(followHolder, holderNow);

/** All that was done on this device and has not arrived, and what has lately. */
export const useCarried = () => useSyncExternalStore(follow, carriedNow);

/**
 * What was done on this device and has not arrived: kept at once, sent whenever that is possible, from whatever page.
 *
 * @param kinds what this page shows of it; the same list every time
 * @param onArrived told what of these has arrived, before it leaves the device
 */
export function useOutbox(
  kinds: ReadonlyArray<OutboxKind<never>>,
  onArrived: (arrived: readonly Arrived[]) => Promise<void> | void,
) {
  const { entries: carried, trouble } = useCarried();
  const arrived = useRef(onArrived);
  useEffect(() => {
    arrived.current = onArrived;
  });
  useEffect(() => {
    carry(kinds);
    const names = new Set(kinds.map(({ name }) => name));
    return listen((all) => {
      const own = all.filter(({ kind }) => names.has(kind));
      return own.length > 0 ? arrived.current(own) : undefined;
    });
  }, [kinds]);
  const entries = useMemo(
    () => carried.filter(({ kind }) => kinds.some(({ name }) => name === kind)),
    [carried, kinds],
  );
  const refused = useMemo(() => entries.filter((entry) => entry.refused !== undefined), [entries]);
  const waiting = useMemo(() => entries.filter((entry) => entry.refused === undefined), [entries]);
  return { waiting, refused, trouble, add, letGo: () => letGo(refused.map(({ id }) => id)), sendAll };
}
