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

/** The draft of a card, kept on the device until it is written down: Escape, another page or a flat battery lose nothing. */
export function useCardDraft(jobId: string) {
  const [draft, setDraft] = useDeviceState<CardDraft>(`glenfold card ${jobId}`, EMPTY);
  const [photos, setPhotos] = useState(NO_PHOTOS);
  useEffect(() => {
    void get<readonly TakenPhoto[]>(jobId, photoStore).then((kept) =>
      setPhotos((now) => (now.length > 0 ? now : (kept ?? now))),
    );
  }, [jobId]);
  const note = useCallback((more: CardDraft) => setDraft((last) => ({ ...last, ...more })), [setDraft]);
  const addPhoto = (photo: TakenPhoto): void => {
    setPhotos((last) => [...last, photo]);
    // In one step each: two taken in a row both stay.
    void update<readonly TakenPhoto[]>(jobId, (kept = []) => [...kept, photo], photoStore);
  };
  const clear = async (): Promise<void> => {
    setDraft(EMPTY);
    setPhotos(NO_PHOTOS);
    await del(jobId, photoStore);
  };
  return { draft, note, photos, addPhoto, clear };
}
