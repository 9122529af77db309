import type { Day } from '@glenfold/agronomy';
import type { EntryInput } from '@glenfold/contract';
import { createStore, del, get, update } from 'idb-keyval';
import { useCallback, useEffect, useState } from 'react';
import type { TakenPhoto } from '../../ui/field/TakePhoto.tsx';
import { useDeviceState } from '../../ui/useSessionState.ts';

/** What somebody has typed on a card and not written down yet. */
export interface CardDraft {
  /** What the day is like. */
  readonly day?: Day;
  /** The day on which it was looked at: weather of another day is none. */
  readonly lookedOn?: string;
  readonly state?: 'done' | 'partly done' | 'not done';
  readonly used?: number | string | null;
  readonly parts?: Readonly<Record<string, number | string | null>>;
  readonly done?: number | string | null;
  readonly reason?: string;
  readonly doneBy?: string;
  readonly on?: string;
}

/** What was written and not kept by the server, to be put right: nothing of it is typed twice. */
export const draftOf = ({ state, quantity, area, reason, doneBy, on }: EntryInput): CardDraft => ({
  ...(state === 'withdrawn' ? {} : { state }),
  ...{ used: quantity ?? null, done: area ?? null, reason: reason ?? '', on },
  ...(doneBy ? { doneBy } : {}),
});

// Pictures are too large for what keeps the words.
const photoStore = createStore('glenfold-card-drafts', 'photos');

const EMPTY: CardDraft = {};
const NO_PHOTOS: readonly TakenPhoto[] = [];

/** What was typed before anybody was known here, or by an earlier version, is that of who is there first. */
function adopt(job: string, own: string): string {
  const [old, mine] = [`glenfold card ${job}`, `glenfold card ${own}`];
  const typed = old === mine ? null : localStorage.getItem(old);
  if (typed !== null) {
    if (localStorage.getItem(mine) === null) localStorage.setItem(mine, typed);
    localStorage.removeItem(old);
  }
  return mine;
}

/**
 * The draft of a card, kept on the device until it is written down: Escape, another page or a flat battery lose
 * nothing, and on a phone that is shared nobody reads another's.
 * @param personId whose; the same as long as the page is there
 */
export function useCardDraft(jobId: string, personId: string | undefined) {
  const own = [personId, jobId].filter(Boolean).join(' ');
  const [key] = useState(() => adopt(jobId, own));
  const [draft, setDraft] = useDeviceState<CardDraft>(key, EMPTY);
  const [photos, setPhotos] = useState(NO_PHOTOS);
  useEffect(() => {
    void (async () => {
      const old = own === jobId ? undefined : await get<readonly TakenPhoto[]>(jobId, photoStore);
      if (old) {
        await update<readonly TakenPhoto[]>(own, (kept = []) => [...old, ...kept], photoStore);
        await del(jobId, photoStore);
      }
      const kept = await get<readonly TakenPhoto[]>(own, photoStore);
      setPhotos((now) => (now.length > 0 ? now : (kept ?? now)));
    })();
  }, [jobId, own]);
  const note = useCallback((more: CardDraft) => setDraft((last) => ({ ...last, ...more })), [setDraft]);
  const addPhoto = (photo: TakenPhoto): void => {
    setPhotos((last) => [...last, photo]);
    // In one step each: two taken in a row both stay.
    void update<readonly TakenPhoto[]>(own, (kept = []) => [...kept, photo], photoStore);
  };
  const clear = async (): Promise<void> => {
    setDraft(EMPTY);
    setPhotos(NO_PHOTOS);
    await del(own, photoStore);
  };
  return { draft, note, photos, addPhoto, clear };
}
