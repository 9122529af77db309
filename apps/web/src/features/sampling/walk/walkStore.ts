import { touchCore } from '@glenfold/agronomy';
import type {
  BagAnswer,
  CoreAnswer,
  CoreTapInput,
  CoreTapsAnswer,
  DrawnThingsAnswer,
  SiteAnswer,
  ZoneAnswer,
} from '@glenfold/contract';
import { createStore, get, set, values } from 'idb-keyval';
import { ApiProblem, api } from '../../../api/client.ts';
import { isHolders } from '../../../offline/holder.ts';
import { type Doer, type Entry, type OutboxKind, signedIn, takeOver } from '../../../offline/outbox.ts';
import { type KeptPhoto, photoKind } from '../../../offline/photos.ts';

/** A site as it is taken along, to be walked without a connection. */
export interface PackedSite {
  readonly site: SiteAnswer;
  readonly zones: readonly ZoneAnswer[];
  readonly things: DrawnThingsAnswer;
  readonly bags: readonly BagAnswer[];
  readonly person: string;
  /** Not in what an earlier version took along. */
  readonly personId?: string;
  readonly practiceId: string;
  readonly packedAt: string;
}

const store = createStore('glenfold-walk', 'kept');
const packKey = (siteId: string): string => `site ${siteId}`;
/** Touches sent at once. */
const BATCH = 500;

/** Take a site along; without a connection what was packed before is used. @throws when there is neither */
export async function packSite(siteId: string): Promise<PackedSite> {
  const packed = await get<PackedSite>(packKey(siteId), store);
  try {
    const session = await signedIn();
    const [site, zones, things, bags] = await Promise.all([
      api<SiteAnswer>('GET', `/sites/${siteId}`),
      api<ZoneAnswer[]>('GET', `/sites/${siteId}/zones`),
      api<DrawnThingsAnswer>('GET', `/sites/${siteId}/drawing`),
      api<BagAnswer[]>('GET', `/sites/${siteId}/bags`),
    ]);
    const fresh: PackedSite = {
      ...{ site, zones, bags },
      things: { ...things, underlay: null },
      person: session.person?.name ?? '',
      ...(session.person ? { personId: session.person.id } : {}),
      practiceId: session.practice?.id ?? '',
      packedAt: new Date().toISOString(),
    };
    await set(packKey(siteId), fresh, store);
    return fresh;
  } catch (error) {
    if (packed && isHolders(packedBy(packed)) && error instanceof ApiProblem && error.status === 0) return packed;
    throw error;
  }
}

const packedBy = (pack: PackedSite) => ({ practiceId: pack.practiceId, person: walkerOf(pack).person });

/** Cores of a packed site that wait. @param entries what is kept here and not sent: touches of it count as done */
export function coresWaiting({ bags }: PackedSite, entries: readonly Entry[]): number {
  // The newest touch of a core says how it stands.
  const touchedTo = new Map(entries.filter(isTap).map(({ body }) => [body.tap.coreId, body.tap.state]));
  return bags
    .filter(({ state }) => state === 'planned')
    .flatMap(({ places }) => places)
    .filter(({ id, state }) => (touchedTo.get(id) ?? state) === 'waiting').length;
}

/** Sites that who holds the device has taken along, in order of their names. */
export async function packedSites(): Promise<PackedSite[]> {
  const kept = await values<PackedSite | readonly unknown[]>(store);
  return kept
    .filter((one): one is PackedSite => 'site' in one && isHolders(packedBy(one)))
    .sort((one, other) => one.site.name.localeCompare(other.site.name));
}

/** Who walks with what was taken along. */
export const walkerOf = ({ practiceId, personId, person }: PackedSite): Doer => ({
  practiceId,
  person: personId === undefined ? null : { id: personId, name: person },
});

/** A touch, with the site it was made on. */
export interface KeptTap {
  readonly siteId: string;
  readonly tap: CoreTapInput;
}

const TAP = 'core tap';
/** Photos of the places of cores. */
const photos = photoKind('zone photo');
export const photoEntry = photos.toSend;
export const isPhoto = (entry: Entry): entry is Entry<KeptPhoto> => entry.kind === photos.kind.name;
export const isTap = (entry: Entry): entry is Entry<KeptTap> => entry.kind === TAP;
export const tapEntry = (walker: Doer, body: KeptTap): Entry<KeptTap> => ({
  ...walker,
  id: body.tap.id,
  kind: TAP,
  body,
});
/** A core as the newest touch of it leaves it. */
export function touched<T extends CoreAnswer>(core: T, over: ReadonlyMap<string, CoreTapInput>): T {
  const tap = over.get(core.id);
  return tap ? { ...core, ...touchCore(tap), at: tap.state === 'waiting' ? null : tap.at } : core;
}

/** A packed site with touches over it: what was sent is in it before the site is packed anew. */
function withTaps(pack: PackedSite, taps: readonly CoreTapInput[]): PackedSite {
  const over = new Map(taps.map((tap) => [tap.coreId, tap]));
  const bags = pack.bags.map((bag) => ({ ...bag, places: bag.places.map((core) => touched(core, over)) }));
  return { ...pack, bags };
}

/** Lay over the sites that are taken along what has arrived. */
export async function layOverPacks(arrived: readonly Entry[]): Promise<void> {
  const taps = arrived.filter(isTap);
  for (const siteId of new Set(taps.map(({ body }) => body.siteId))) {
    const packed = await get<PackedSite>(packKey(siteId), store);
    const own = taps.flatMap(({ body }) => (body.siteId === siteId ? [body.tap] : []));
    if (packed) await set(packKey(siteId), withTaps(packed, own), store);
  }
}

const taps: OutboxKind<KeptTap> = {
  name: TAP,
  one: 'tap',
  atOnce: BATCH,
  send: async (entries) => {
    const answer = await api<CoreTapsAnswer>('POST', '/core-taps', {
      sentAt: new Date().toISOString(),
      taps: entries.map(({ body }) => body.tap),
    });
    const minutes = Math.round(Math.abs(answer.clockAhead) / 60);
    const clock =
      minutes > 2
        ? [`This device’s clock is ${minutes} min ${answer.clockAhead > 0 ? 'ahead' : 'behind'}: the times were put right as they were sent. Set it.`] // prettier-ignore
        : [];
    return answer.taps.map(({ id, outcome, words }, index) =>
      outcome === 'refused'
        ? { id, refused: words ?? 'The server did not take it.' }
        : { id, notes: [...(words ? [words] : []), ...(index === 0 ? clock : [])] },
    );
  },
  say: ({ body }) => `Core ${body.tap.state}`,
  mendAt: ({ body }) => `/walk/${body.siteId}`,
  refusal: (_tap, words) => words,
  inOrder: true,
};
/** What a walk sends. */
export const walkKinds: ReadonlyArray<OutboxKind<never>> = [taps, photos.kind];

/** What an earlier version kept, of the device and not of a person, is taken over. */
export async function takeOverOld(): Promise<void> {
  const of = (old: unknown): Doer => ({ practiceId: (old as Doer).practiceId, person: null });
  await takeOver(store, 'queue', (old) => {
    const { siteId, tap } = old as KeptTap;
    return tapEntry(of(old), { siteId, tap });
  });
  await takeOver(store, 'photos', (old) => {
    const { zoneId, photo } = old as KeptPhoto;
    return photoEntry(of(old), { zoneId, photo });
  });
}
