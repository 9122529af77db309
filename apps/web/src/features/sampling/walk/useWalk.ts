import { writeBagCode } from '@glenfold/agronomy';
import type { CoreAnswer, CoreTapInput } from '@glenfold/contract';
import { useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { touch } from '../../../api/touches.ts';
import type { Entry } from '../../../offline/outbox.ts';
import { LONGEST_PHOTO } from '../../../offline/photos.ts';
import { useOutbox } from '../../../offline/useOutbox.ts';
import { shrink } from '../../../ui/shrink.ts';
import { deviceZone, todayIn } from '../../../ui/today.ts';
import {
  type PackedSite,
  isPhoto,
  isTap,
  layOverPacks,
  packSite,
  photoEntry,
  takeOverOld,
  tapEntry,
  touched,
  walkKinds,
  walkerOf,
} from './walkStore.ts';

/** A core of the walk, with what was tapped on this device over it. */
export interface WalkedCore extends CoreAnswer {
  readonly bagId: string;
  readonly code: string;
  readonly depth: number;
}

const tapsOf = (entries: readonly Entry[]): CoreTapInput[] => entries.filter(isTap).map(({ body }) => body.tap);

/** A site's cores in the order of the walk; touches are kept on the device, and sent when they can be. */
export function useWalk(siteId: string) {
  const [pack, setPack] = useState<PackedSite | null>(null);
  const [error, setError] = useState<Error | null>(null);
  const [done, setDone] = useState<readonly CoreTapInput[]>([]);
  const [told, setTold] = useState<readonly string[]>([]);
  const client = useQueryClient();

  const outbox = useOutbox(
    walkKinds,
    useCallback(
      async (arrived) => {
        const notices = arrived.flatMap(({ notes }) => notes);
        if (notices.length > 0) setTold((last) => [...new Set([...last, ...notices])]);
        // What arrived shows as done before it leaves the queue: no core looks untouched for a moment.
        setDone((last) => [...last, ...tapsOf(arrived)]);
        await layOverPacks(arrived);
        void touch(client, 'bag', 'photo');
      },
      [client],
    ),
  );
  const { waiting, refused, trouble, add, sendAll } = outbox;

  useEffect(() => {
    const gone = new AbortController();
    void (async () => {
      try {
        await takeOverOld();
        // What was tapped before is sent first, so that the site comes with it.
        await sendAll();
        const packed = await packSite(siteId);
        if (!gone.signal.aborted) setPack(packed);
      } catch (problem) {
        if (!gone.signal.aborted) setError(problem as Error);
      }
    })();
    return () => gone.abort();
  }, [siteId, sendAll]);

  const cores = useMemo((): WalkedCore[] => {
    const over = new Map([...done, ...tapsOf(waiting)].map((tap) => [tap.coreId, tap]));
    return (pack?.bags ?? [])
      .filter(
        ({ state, places }) => state === 'planned' || (state === 'cored' && places.some(({ id }) => over.has(id))),
      )
      .flatMap(({ id: bagId, code, depth, places }) =>
        places.map((core): WalkedCore => ({ ...touched(core, over), bagId, code, depth })),
      )
      .sort((one, other) => one.turn - other.turn || one.code.localeCompare(other.code));
  }, [pack, waiting, done]);

  const tap = async (made: Omit<CoreTapInput, 'id' | 'at'>): Promise<void> => {
    if (!pack) return;
    const entry = { ...made, id: crypto.randomUUID(), at: new Date().toISOString() };
    await add(tapEntry(walkerOf(pack), { siteId, tap: entry }));
  };
  /** Keep a photo of where a core is taken. @returns its id @throws with words for what is no picture */
  const takePhoto = async (core: WalkedCore, file: File): Promise<string> => {
    if (!pack) throw new Error('The site is not on this device yet.');
    const { type, image } = await shrink(file, LONGEST_PHOTO);
    const caption = `Core ${core.number} of bag ${writeBagCode(core.code)}`;
    const takenOn = todayIn(pack.site.timeZone ?? deviceZone());
    const photo = { ...{ id: crypto.randomUUID(), type, image }, caption, takenOn };
    await add(photoEntry(walkerOf(pack), { zoneId: core.zoneId, photo }));
    return photo.id;
  };
  const notices = [
    ...told.map((words) => ({ tapId: words, words })),
    ...refused.map(({ id, refused: words = '' }) => ({ tapId: id, words })),
  ];
  const letGo = (): void => {
    setTold([]);
    void outbox.letGo();
  };
  const photos = waiting.filter(isPhoto);
  return { pack, error, cores, photos, kept: waiting.length, notices, trouble, tap, takePhoto, letGo };
}
