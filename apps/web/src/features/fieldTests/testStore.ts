import { type FieldTestKind, drainageNext, fieldTestOf } from '@glenfold/agronomy';
import {
  type FieldTestAnswer,
  type FieldTestInput,
  type SiteAnswer,
  type ZoneAnswer,
  withReadableDays,
} from '@glenfold/contract';
import { createStore, del, entries, get, set, update } from 'idb-keyval';
import { ApiProblem, api } from '../../api/client.ts';
import { isHolders } from '../../offline/holder.ts';
import { type Doer, type Entry, type OutboxKind, signedIn } from '../../offline/outbox.ts';
import { type KeptPhoto, photoKind } from '../../offline/photos.ts';
import type { TakenPhoto } from '../../ui/field/TakePhoto.tsx';
import { deviceZone, todayIn } from '../../ui/today.ts';

/** What of a site is taken along, to test its zones without a connection. */
export interface PackedSite {
  readonly siteId: string;
  readonly siteName: string;
  readonly zones: readonly ZoneAnswer[];
  /** Whose days a test has: the site's, else the practice's. What was taken along by an earlier version has none. */
  readonly timeZone?: string;
  readonly practiceId: string;
  readonly person: { readonly id: string; readonly name: string } | null;
}

/** A test as it stands on this device. */
export interface KeptTest extends FieldTestInput {
  readonly siteId: string;
  /** Begun or changed here, and newer than what the server has. */
  readonly unsent: boolean;
}

const sites = createStore('glenfold-test-sites', 'kept');
const tests = createStore('glenfold-tests', 'kept');

export const workerOf = ({ practiceId, person }: PackedSite): Doer => ({ practiceId, person });

const keptOf = ({ id, zoneId, kind, on, record, closed, revision, doneBy, place, siteId }: FieldTestAnswer): KeptTest => ({
  ...{ id, zoneId, kind, on, record, closed, revision, doneBy, place, siteId, unsent: false },
}); // prettier-ignore

/** Fresh where there is a connection, else as it was taken along. @throws when there is neither */
export async function openSite(siteId: string, units: string): Promise<PackedSite> {
  const kept = await get<PackedSite>(siteId, sites);
  try {
    const { practice, person } = await signedIn();
    const before = new Set((await testsOf(siteId)).flatMap(({ id, unsent }) => (unsent ? [] : [id])));
    const [site, zones, known] = await Promise.all([
      api<SiteAnswer>('GET', `/sites/${siteId}`),
      api<ZoneAnswer[]>('GET', `/sites/${siteId}/zones`),
      api<FieldTestAnswer[]>('GET', `/sites/${siteId}/field-tests?units=${units}`),
    ]);
    const packed: PackedSite = {
      ...{ siteId, siteName: site.name, zones, practiceId: practice?.id ?? '' },
      ...((zone) => (zone ? { timeZone: zone } : {}))(site.timeZone ?? practice?.timeZone),
      person: person ? { id: person.id, name: person.name } : null,
    };
    await set(siteId, packed, sites);
    const here = new Map((await testsOf(siteId)).map((test) => [test.id, test]));
    // What was read here and has not arrived stands over what the server knows, also what is read this very moment.
    await Promise.all(
      known.map((test) =>
        update<KeptTest>(test.id, (own) => (own?.unsent && own.revision > test.revision ? own : keptOf(test)), tests),
      ),
    );
    // What arrived while the server was asked is no test that is gone.
    const gone = [...here.values()].filter(({ id, unsent }) => !unsent && before.has(id) && !known.some((one) => one.id === id)); // prettier-ignore
    await Promise.all(gone.map(({ id }) => del(id, tests)));
    return packed;
  } catch (error) {
    if (kept && isHolders(kept) && error instanceof ApiProblem && error.status === 0) return kept;
    throw error;
  }
}

/** Tests of a site on this device, the newest first. */
export async function testsOf(siteId: string): Promise<KeptTest[]> {
  const all = await entries<string, KeptTest>(tests);
  return all
    .map(([, test]) => test)
    .filter((test) => test.siteId === siteId)
    .sort((one, other) => other.on.localeCompare(one.on));
}

/** Tests that go on, of sites that who holds the device has taken along, with their sites. */
export async function openTests(): Promise<ReadonlyArray<{ readonly site: PackedSite; readonly test: KeptTest }>> {
  const known = new Map((await entries<string, PackedSite>(sites)).filter(([, site]) => isHolders(site)));
  const all = await entries<string, KeptTest>(tests);
  return all.flatMap(([, test]) => {
    const site = known.get(test.siteId);
    return site && !test.closed ? [{ site, test }] : [];
  });
}

/** What is due of an open test. */
export function dueOf(test: KeptTest, now: string): { readonly words: string; readonly late: boolean } | null {
  if (test.closed || test.kind !== 'drainage') return null;
  const next = drainageNext(test.record as Parameters<typeof drainageNext>[0], now);
  return { words: next.words, late: next.at !== null && Date.parse(next.at) < Date.parse(now) };
}

/** Begin a test here; nothing is sent before something is read. */
export async function beginTest(site: PackedSite, zoneId: string, kind: FieldTestKind): Promise<KeptTest> {
  const test: KeptTest = {
    ...{ id: crypto.randomUUID(), zoneId, kind, siteId: site.siteId, closed: false },
    on: todayIn(site.timeZone ?? deviceZone()),
    ...{ record: startOf(kind), revision: 0, doneBy: site.person?.name ?? null, place: null, unsent: true },
  };
  await set(test.id, test, tests);
  return test;
}

/** What a record holds before anything is read. */
function startOf(kind: FieldTestKind): object {
  switch (kind) {
    case 'drainage':
      return { holeDepth: 30, holeDiameter: 30, stickHeight: 0, readings: [] };
    case 'ring':
    case 'soilTemperature':
    case 'soilMoisture':
      return { readings: [] };
    case 'probe':
      return { stops: [] };
    case 'waterDrop':
      return { seconds: [] };
    case 'catchCups':
      return { cups: [] };
    case 'wateringDepth':
      return { places: [] };
    case 'cover':
      return { method: 'by eye' };
    default:
      return {};
  }
}

/** How a test is changed: of it as it stands by then, so that what is done quickly after one another adds up. */
export type TestEdit = (test: KeptTest) => Partial<Pick<KeptTest, 'record' | 'closed' | 'on' | 'doneBy'>>;

/** Keep a change of a test, as it was seen, on the device. @returns the test as it stands, to be put on its way */
export async function changeTest(seen: KeptTest, edit: TestEdit): Promise<KeptTest> {
  let changed = seen;
  await update<KeptTest>(
    seen.id,
    (test = seen) => (changed = { ...test, ...edit(test), revision: test.revision + 1, unsent: true }),
    tests,
  );
  return changed;
}

export const dropTest = (id: string): Promise<void> => del(id, tests);

const KIND = 'field test';

/** A test as it goes to the server: each reading is one. */
export const toSend = (doer: Doer, { siteId: _siteId, unsent: _unsent, ...test }: KeptTest): Entry<FieldTestInput> => ({
  ...doer,
  ...{ id: `${test.id} ${test.revision}`, kind: KIND, body: test },
});

const photos = photoKind('test photo');

/** A photo of a test on its way; the test is sent before it. */
export const photoToSend = (doer: Doer, { id, zoneId, on }: KeptTest, photo: TakenPhoto): Entry<KeptPhoto> =>
  photos.toSend(doer, { zoneId, photo: { ...photo, fieldTestId: id, takenOn: on } });

const test: OutboxKind<FieldTestInput> = {
  name: KIND,
  one: 'reading',
  atOnce: 100,
  send: async (going) => {
    // The newest of a test holds all that came before it.
    const { body } = going.at(-1)!;
    await api('POST', '/field-tests?units=metric', body);
    if (await get(body.id, tests))
      await update<KeptTest>(body.id, (own) => ({ ...own!, unsent: own!.revision !== body.revision }), tests);
    return going.map(({ id }) => ({ id }));
  },
  say: ({ body }) => `${fieldTestOf[body.kind].title}, ${withReadableDays(body.on)}`,
  day: { of: ({ on }) => on, put: (body, on) => ({ ...body, on }), ofBefore: true },
  refusal: ({ body }, words) => `The test of ${body.on} was not taken: ${words}`,
  stateOf: ({ body }) => body.id,
};
/** What a test sends. */
export const testKinds: ReadonlyArray<OutboxKind<never>> = [test, photos.kind];
