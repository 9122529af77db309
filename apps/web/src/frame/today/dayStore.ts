import { shortestWalk } from '@glenfold/agronomy';
import { Plane, type Position } from '@glenfold/agronomy/geometry';
import {
  type AccessInput,
  type ContactInput,
  type OpenTestsAnswer,
  type PlannedWalkAnswer,
  whereLies,
} from '@glenfold/contract';
import { api } from '../../api/client.ts';
import { type PackedCard, packCards, packedCards } from '../../features/cards/cardStore.ts';
import { type KeptTest, openSite, openTests } from '../../features/fieldTests/testStore.ts';
import { type PackedSite, coresWaiting, packSite, packedSites } from '../../features/sampling/walk/walkStore.ts';
import { all } from '../../offline/outbox.ts';
import { keepPages } from '../../ui/keepPages.ts';

/** What is to be done at one site. */
export interface DaySite {
  readonly siteId: string;
  readonly name: string;
  readonly place: string | null;
  readonly access: AccessInput | null;
  readonly contacts: readonly ContactInput[];
  readonly position: Position | null;
  readonly cards: readonly PackedCard[];
  /** Cores to be taken. */
  readonly cores: number;
  readonly tests: readonly KeptTest[];
}

/** Sites in the order in which they are driven to, as the crow flies, from the first; those that lie nowhere come last. */
export function inDrivingOrder<T extends { readonly position: Position | null }>(sites: readonly T[]): T[] {
  const placed = sites.filter(({ position }) => position !== null);
  const [first] = placed;
  if (!first) return [...sites];
  const plane = new Plane(first.position!);
  const order = shortestWalk(placed.map(({ position }) => plane.toPlane(position!)));
  return [...order.map((index) => placed[index]!), ...sites.filter(({ position }) => position === null)];
}

/** All that is on this device for who holds it, site by site in driving order. */
export async function dayHere(): Promise<DaySite[]> {
  const [cards, packs, tests] = [await packedCards(), await packedSites(), await openTests()];
  const kept = await all();
  const walks = packs.filter((pack) => coresWaiting(pack, kept) > 0);
  const ids = [
    ...new Set([
      ...cards.map(({ card }) => card.job.siteId),
      ...walks.map(({ site }) => site.id),
      ...tests.map(({ test }) => test.siteId),
    ]),
  ];
  const known = new Map(packs.map((pack) => [pack.site.id, pack]));
  return inDrivingOrder(
    ids.map((siteId): DaySite => {
      const pack: PackedSite | undefined = known.get(siteId);
      const own = cards.filter(({ card }) => card.job.siteId === siteId);
      const tested = tests.filter(({ test }) => test.siteId === siteId);
      return {
        ...{ siteId, place: pack?.site.place ?? null, access: pack?.site.access ?? null },
        name: pack?.site.name ?? own[0]?.card.job.siteName ?? tested[0]?.site.siteName ?? '',
        contacts: pack?.site.contacts ?? [],
        position: (pack && whereLies(pack.site, pack.zones)) ?? null,
        cards: own,
        cores: pack ? coresWaiting(pack, kept) : 0,
        tests: tested.map(({ test }) => test),
      };
    }),
  );
}

/** What came of taking along. */
export interface TakenAlong {
  readonly sites: number;
  readonly superseded: readonly PackedCard[];
}

/**
 * Take along all that is to be done: cards, walks, tests that go on, and of their sites the drawing, gate codes, people
 * and last readings.
 *
 * @param until cards until this day; all of the week without
 * @throws without a connection
 */
export async function takeAlong(units: string, until?: string): Promise<TakenAlong> {
  const { packed, superseded } = await packCards(units, until);
  const walks = await api<PlannedWalkAnswer[]>('GET', '/walks');
  const tests = await api<OpenTestsAnswer[]>('GET', '/field-tests/open');
  const jobs = packed.map(({ card }) => card.job);
  const ids = [...new Set([...jobs, ...walks, ...tests].map(({ siteId }) => siteId))];
  for (const siteId of ids) {
    await packSite(siteId);
    await openSite(siteId, units);
  }
  await keepPages([
    ...['/today', '/sent'],
    ...jobs.map(({ id }) => `/cards/${id}`),
    ...ids.flatMap((siteId) => [`/walk/${siteId}`, `/tests/${siteId}`, `/field/${siteId}`]),
  ]);
  return { sites: ids.length, superseded };
}
