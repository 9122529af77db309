import { writeBagCode } from '@glenfold/agronomy';
import type { CoreAnswer, CoreTapInput } from '@glenfold/contract';
import { useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { shrink } from '../../../ui/shrink.ts';
import {
  type PackedSite,
  type QueuedTap,
  type WalkNotice,
  keepPhoto,
  keepTap,
  packSite,
  queued,
  queuedPhotos,
  sendKept,
  sendPhotos,
} from './walkStore.ts';
import { today } from '../../../ui/today.ts';

/** Longest side of a photo, pixels. */
const LONGEST = 1600;
/** Between tries to send, ms. */
const AGAIN = 8000;

/** A core of the walk, with what was tapped on this device over it. */
export interface WalkedCore extends CoreAnswer {
  readonly bagId: string;
  readonly code: string;
  readonly depth: number;
}

/** A site's cores in the order of the walk; touches are kept on the device, and sent when they can be. */
export function useWalk(siteId: string) {
  const [pack, setPack] = useState<PackedSite | null>(null);
  const [error, setError] = useState<Error | null>(null);
  const [kept, setKept] = useState<readonly QueuedTap[]>([]);
  const [photos, setPhotos] = useState(0);
  const [done, setDone] = useState<readonly CoreTapInput[]>([]);
  const [notices, setNotices] = useState<readonly WalkNotice[]>([]);
  const [trouble, setTrouble] = useState<string | null>(null);
  const sending = useRef(false);
  const client = useQueryClient();

  const send = useCallback(async (): Promise<void> => {
    if (sending.current) return;
    sending.current = true;
    try {
      await sendKept((taps, told) => {
        // What arrived shows as done before it leaves the queue: no core looks untouched for a moment.
        setDone((last) => [...last, ...taps]);
        void client.invalidateQueries();
        setNotices((last) => [...last.filter(({ tapId }) => !told.some((notice) => notice.tapId === tapId)), ...told]);
      });
      await sendPhotos((notice) => setNotices((last) => [...last, notice]));
      setTrouble(null);
    } catch (problem) {
      setTrouble((problem as Error).message);
    } finally {
      setKept(await queued());
      setPhotos((await queuedPhotos()).length);
      sending.current = false;
    }
  }, [client]);

  useEffect(() => {
    const gone = new AbortController();
    void (async () => {
      try {
        // What was tapped before is sent first, so that the site comes with it.
        await send();
        const packed = await packSite(siteId);
        if (!gone.signal.aborted) setPack(packed);
      } catch (problem) {
        if (!gone.signal.aborted) setError(problem as Error);
      }
    })();
    const again = (): void =>
      void Promise.all([queued(), queuedPhotos()]).then(([taps, pictures]) =>
        taps.length + pictures.length > 0 ? send() : undefined,
      );
    const timer = setInterval(again, AGAIN);
    window.addEventListener('online', again);
    return () => {
      gone.abort();
      clearInterval(timer);
      window.removeEventListener('online', again);
    };
  }, [siteId, send]);

  const cores = useMemo((): WalkedCore[] => {
    const over = new Map([...done, ...kept.map(({ tap }) => tap)].map((tap) => [tap.coreId, tap]));
    return (pack?.bags ?? [])
      .filter(
        ({ state, places }) => state === 'planned' || (state === 'cored' && places.some(({ id }) => over.has(id))),
      )
      .flatMap(({ id: bagId, code, depth, places }) =>
        places.map((core): WalkedCore => {
          const {
            state,
            pushed = null,
            recovered = null,
            moisture = null,
            reason = null,
            note = null,
            at,
          } = over.get(core.id) ?? core;
          return { ...core, state, pushed, recovered, moisture, reason, note, at, bagId, code, depth };
        }),
      )
      .sort((one, other) => one.turn - other.turn || one.code.localeCompare(other.code));
  }, [pack, kept, done]);

  const tap = async (touch: Omit<CoreTapInput, 'id' | 'at'>): Promise<void> => {
    if (!pack) return;
    const entry = { ...touch, id: crypto.randomUUID(), at: new Date().toISOString() };
    await keepTap({ siteId, practiceId: pack.practiceId, tap: entry });
    setKept(await queued());
    void send();
  };
  /** Keep a photo of where a core is taken. @throws with words for what is no picture */
  const takePhoto = async (core: WalkedCore, file: File): Promise<void> => {
    if (!pack) return;
    const { type, image } = await shrink(file, LONGEST);
    const caption = `Core ${core.number} of bag ${writeBagCode(core.code)}`;
    const photo = { id: crypto.randomUUID(), type, image, caption, takenOn: today() };
    await keepPhoto({ practiceId: pack.practiceId, zoneId: core.zoneId, photo });
    setPhotos((await queuedPhotos()).length);
    void send();
  };
  const letGo = (): void => setNotices([]);
  return { pack, error, cores, kept: kept.length + photos, notices, trouble, tap, takePhoto, letGo };
}
