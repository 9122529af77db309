import type {
  BagAnswer,
  CoreTapInput,
  CoreTapsAnswer,
  DrawnThingsAnswer,
  PhotoAnswer,
  PhotoInput,
  SessionAnswer,
  SiteAnswer,
  ZoneAnswer,
} from '@glenfold/contract';
import { createStore, get, set, update, values } from 'idb-keyval';
import { ApiProblem, api, standAs } from '../../../api/client.ts';

/** A site as it is taken along, to be walked without a connection. */
export interface PackedSite {
  readonly site: SiteAnswer;
  readonly zones: readonly ZoneAnswer[];
  readonly things: DrawnThingsAnswer;
  readonly bags: readonly BagAnswer[];
  readonly person: string;
  readonly practiceId: string;
  readonly packedAt: string;
}

/** Something that the server said of a touch, to be read by the person. */
export interface WalkNotice {
  readonly tapId: string;
  readonly words: string;
}

const store = createStore('glenfold-walk', 'kept');
const packKey = (siteId: string): string => `site ${siteId}`;
const QUEUE = 'queue';
const PHOTOS = 'photos';
/** Touches sent at once. */
const BATCH = 100;

/** Take a site along; without a connection what was packed before is used. @throws when there is neither */
export async function packSite(siteId: string): Promise<PackedSite> {
  const packed = await get<PackedSite>(packKey(siteId), store);
  try {
    const session = await signedIn();
    const [site, zones, things, bags] = await Promise.all([
      api<SiteAnswer>('GET', `/sites/${siteId}`),
      api<ZoneAnswer[]>('GET', `/sites/${siteId}/zones`),
      api<DrawnThingsAnswer>('GET', `/sites/${siteId}/plan`),
      api<BagAnswer[]>('GET', `/sites/${siteId}/bags`),
    ]);
    const fresh: PackedSite = {
      ...{ site, zones, bags },
      things: { ...things, underlay: null },
      person: session.person?.name ?? '',
      practiceId: session.practice?.id ?? '',
      packedAt: new Date().toISOString(),
    };
    await set(packKey(siteId), fresh, store);
    return fresh;
  } catch (error) {
    if (packed && error instanceof ApiProblem && error.status === 0) return packed;
    throw error;
  }
}

/** Who is signed in. @throws with words where nobody is, or nobody can be asked */
export async function signedIn(): Promise<SessionAnswer> {
  const session = await api<SessionAnswer>('GET', '/session');
  if (session.state !== 'signed in')
    throw new ApiProblem(401, 'Sign in again to go on: what you tapped is kept on this device until then.', []);
  standAs({ csrf: session.csrf, practiceId: session.practice?.id });
  return session;
}

/** Sites that were taken along, in order of their names. */
export async function packedSites(): Promise<PackedSite[]> {
  const kept = await values<PackedSite | readonly unknown[]>(store);
  return kept
    .filter((one): one is PackedSite => 'site' in one)
    .sort((one, other) => one.site.name.localeCompare(other.site.name));
}

/** A packed site with touches over it: what was sent is in it before the site is packed anew. */
function withTaps(pack: PackedSite, taps: readonly CoreTapInput[]): PackedSite {
  const over = new Map(taps.map((tap) => [tap.coreId, tap]));
  const bags = pack.bags.map((bag) => ({
    ...bag,
    places: bag.places.map((core) => {
      const tap = over.get(core.id);
      if (!tap) return core;
      const { state, pushed = null, recovered = null, moisture = null, reason = null, note = null } = tap;
      const at = state === 'waiting' ? null : tap.at;
      return { ...core, state, pushed, recovered, moisture, reason, note, at };
    }),
  }));
  return { ...pack, bags };
}

/** A touch, with the site it was made on. */
export interface QueuedTap {
  readonly siteId: string;
  readonly practiceId: string;
  readonly tap: CoreTapInput;
}

export async function queued(): Promise<readonly QueuedTap[]> {
  return (await get<QueuedTap[]>(QUEUE, store)) ?? [];
}

/** Keep a touch on the device before anything else is done with it. */
export async function keepTap(entry: QueuedTap): Promise<void> {
  await update<QueuedTap[]>(QUEUE, (last = []) => [...last, entry], store);
}

/**
 * Send what is kept, oldest first. A touch leaves the device only when the server has said that it has it; sent twice,
 * it counts once there.
 *
 * @param onSent told what has arrived, before it leaves the device, and what the server said of it.
 * @throws when the server cannot be reached, or refuses who asks: all of it stays kept.
 */
export async function sendKept(
  onSent: (taps: readonly CoreTapInput[], notices: readonly WalkNotice[]) => void,
): Promise<void> {
  for (;;) {
    const all = await queued();
    if (all.length === 0) return;
    const session = await signedIn();
    const mine = all.filter(({ practiceId }) => practiceId === session.practice?.id).slice(0, BATCH);
    if (mine.length === 0)
      throw new ApiProblem(409, 'What is kept here belongs to another practice: change to it to send it.', []);
    const answer = await api<CoreTapsAnswer>('POST', '/core-taps', {
      sentAt: new Date().toISOString(),
      taps: mine.map(({ tap }) => tap),
    });
    const told = new Set(answer.taps.map(({ id }) => id));
    const notices = answer.taps.flatMap(({ id, words }) => (words ? [{ tapId: id, words }] : []));
    const minutes = Math.round(Math.abs(answer.clockAhead) / 60);
    if (minutes > 2)
      notices.push({
        tapId: 'clock',
        words: `This device’s clock is ${minutes} min ${answer.clockAhead > 0 ? 'ahead' : 'behind'}: the times were put right as they were sent. Set it.`,
      });
    onSent(
      mine.flatMap(({ tap }) => (told.has(tap.id) ? [tap] : [])),
      notices,
    );
    for (const siteId of new Set(mine.map((entry) => entry.siteId))) {
      const packed = await get<PackedSite>(packKey(siteId), store);
      const arrived = mine.flatMap(({ tap }) => (told.has(tap.id) ? [tap] : []));
      if (packed) await set(packKey(siteId), withTaps(packed, arrived), store);
    }
    await update<QueuedTap[]>(QUEUE, (last = []) => last.filter(({ tap }) => !told.has(tap.id)), store);
  }
}

/** A photo made on the walk, with an id made here: sent twice, it counts once. */
export interface QueuedPhoto {
  readonly practiceId: string;
  readonly zoneId: string;
  readonly photo: PhotoInput & { readonly id: string };
}

export async function queuedPhotos(): Promise<readonly QueuedPhoto[]> {
  return (await get<QueuedPhoto[]>(PHOTOS, store)) ?? [];
}

export async function keepPhoto(entry: QueuedPhoto): Promise<void> {
  await update<QueuedPhoto[]>(PHOTOS, (last = []) => [...last, entry], store);
}

/**
 * Send photos that are kept, one at a time. One that the server refuses for good leaves the device with a notice.
 *
 * @throws when the server cannot be reached, or refuses who asks: the rest stays kept.
 */
export async function sendPhotos(onNotice: (notice: WalkNotice) => void): Promise<void> {
  if ((await queuedPhotos()).length === 0) return;
  const session = await signedIn();
  for (const { practiceId, zoneId, photo } of await queuedPhotos()) {
    if (practiceId !== session.practice?.id) continue;
    try {
      await api<PhotoAnswer>('POST', `/zones/${zoneId}/photos`, photo);
    } catch (error) {
      const final = error instanceof ApiProblem && [404, 409, 422].includes(error.status);
      if (!final) throw error;
      onNotice({ tapId: photo.id, words: `The photo “${photo.caption ?? ''}” cannot be kept: ${error.message}` });
    }
    await update<QueuedPhoto[]>(PHOTOS, (last = []) => last.filter((entry) => entry.photo.id !== photo.id), store);
  }
}
