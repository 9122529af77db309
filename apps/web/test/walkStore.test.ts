import 'fake-indexeddb/auto';
import type { BagAnswer, CoreTapInput, CoreTapsInput } from '@glenfold/contract';
import { afterEach, beforeEach, describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { createStore, get, set } from 'idb-keyval';
import {
  isTap,
  layOverPacks,
  packSite,
  packedSites,
  photoEntry,
  takeOverOld,
  tapEntry,
  walkKinds,
} from '../src/features/sampling/walk/walkStore.ts';
import { ApiProblem } from '../src/api/client.ts';
import { dayOf } from '../src/ui/today.ts';
import { type Doer, type Entry, all, keep as keepEntry, putAway, send } from '../src/offline/outbox.ts';

/** A server as the device sees it: sometimes away, sometimes gone after it took what was sent. */
interface FakeServer {
  /** What befalls each request, in turn; all is well once they are spent. */
  moods: Array<'well' | 'away' | 'lost answer'>;
  practice: string;
  signedIn: boolean;
  /** Touches as they came, each time. */
  readonly came: CoreTapInput[];
  readonly photos: string[];
  refusePhotos: boolean;
  /** What a photo is answered with, by its id, instead of being kept. */
  readonly photoAnswers: Map<string, Response>;
  /** Touches that it will never take. */
  readonly refuseTaps: Set<string>;
  /** Its time, where the device has another. */
  time: string | undefined;
  /** Days of photos, as they came. */
  readonly days: unknown[];
  person: { id: string; name: string };
}
const wynn = { id: 'p', name: 'Wynn Marram' };
const piet = { id: 'q', name: 'Piet Sandling' };
let server: FakeServer;
const bag = (siteId: string, cores: readonly string[]): Partial<BagAnswer> => ({
  id: `bag of ${siteId}`,
  code: 'K7F4Q2',
  state: 'planned',
  places: cores.map((id, index) => ({ id, zoneId: 'z', number: index + 1, turn: index + 1, place: null, state: 'waiting', pushed: null, recovered: null, moisture: null, reason: null, note: null, at: null, by: null })), // prettier-ignore
});
const json = (body: unknown, status = 200): Response =>
  new Response(JSON.stringify(body), { status, headers: server.time ? { date: server.time } : {} });

function answer(method: string, path: string, body: string | undefined): Response {
  const { practice, signedIn, came, photos, refusePhotos, refuseTaps, person } = server;
  if (path === '/session')
    return json(
      signedIn ? { state: 'signed in', csrf: 't', person, practice: { id: practice } } : { state: 'signed out' },
    );
  if (path === '/core-taps') {
    const { taps } = JSON.parse(body!) as CoreTapsInput;
    const known = new Set(came.map(({ id }) => id));
    came.push(...taps);
    return json({ taps: taps.map(({ id }) => ({ id, outcome: refuseTaps.has(id) ? 'refused' : known.has(id) ? 'known' : 'taken', words: refuseTaps.has(id) ? 'That core was deleted.' : null })), clockAhead: 0 }); // prettier-ignore
  }
  if (method === 'POST' && path.endsWith('/photos')) {
    if (refusePhotos) return json({ detail: 'The zone was deleted.', errors: [] }, 404);
    const { id, ...photo } = JSON.parse(body!) as { id: string };
    // As the contract has it: what it does not know is refused.
    expect(Object.keys(photo).filter((name) => !['type', 'image', 'caption', 'takenOn', 'fieldTestId'].includes(name))).toEqual([]); // prettier-ignore
    const own = server.photoAnswers.get(id);
    if (own) return own.clone();
    photos.push(id);
    server.days.push((photo as { takenOn?: unknown }).takenOn);
    return json({}, 201);
  }
  const siteId = path.split('/')[2]!;
  if (path.endsWith('/zones')) return json([]);
  if (path.endsWith('/drawing')) return json({ features: [], underlay: null });
  if (path.endsWith('/bags')) return json([bag(siteId, ['c1', 'c2', 'c3'])]);
  return json({ id: siteId, name: `Site ${siteId}` });
}

const realFetch = globalThis.fetch;
beforeEach(() => {
  server = {
    moods: [],
    practice: 'ours',
    signedIn: true,
    came: [],
    photos: [],
    refusePhotos: false,
    photoAnswers: new Map(),
    refuseTaps: new Set(),
    time: undefined,
    days: [],
    person: wynn,
  };
  globalThis.fetch = ((address: string, init: RequestInit = {}) => {
    const mood = server.moods.shift() ?? 'well';
    if (mood === 'away') return Promise.reject(new TypeError('no connection'));
    const response = answer(init.method ?? 'GET', address.replace('/api', ''), init.body as string | undefined);
    return mood === 'lost answer' ? Promise.reject(new TypeError('cut off')) : Promise.resolve(response);
  }) as typeof fetch;
});
afterEach(async () => {
  server.moods = [];
  server.refusePhotos = true;
  server.signedIn = true;
  for (const practice of ['ours', 'theirs'])
    for (const person of [wynn, piet]) {
      Object.assign(server, { practice, person });
      await sendKept().catch(() => undefined);
    }
  await putAway(new Set((await all()).map(({ id }) => id)));
  globalThis.fetch = realFetch;
});

const notices: string[] = [];
const sendKept = (onArrived: (arrived: readonly Entry[]) => void = () => undefined): Promise<void> =>
  send(walkKinds, async (arrived) => {
    notices.push(...arrived.flatMap(({ notes }) => notes));
    await layOverPacks(arrived);
    onArrived(arrived);
  });
const waitingIds = async (): Promise<string[]> => (await all()).filter(({ refused }) => !refused).map(({ id }) => id);

let made = 0;
const touch = (coreId: string, more: Partial<CoreTapInput> = {}): CoreTapInput => {
  made += 1;
  return { id: `tap ${made}`, coreId, state: 'cored', at: '2026-10-14T09:00:00Z', ...more };
};
const doer = (practiceId = 'ours', person: Doer['person'] = wynn): Doer => ({ practiceId, person });
const keep = (tap: CoreTapInput, by = doer()): Promise<void> => keepEntry(tapEntry(by, { siteId: 's1', tap }));

describe('touches kept on the device', () => {
  it('arrive once each and in their order, however the connection behaves, and leave only then', async () => {
    const mood = fc.constantFrom('well' as const, 'away' as const, 'lost answer' as const);
    await fc.assert(
      fc.asyncProperty(fc.array(mood, { maxLength: 12 }), fc.integer({ min: 1, max: 12 }), async (moods, count) => {
        server.came.length = 0;
        server.moods = moods;
        const taps = Array.from({ length: count }, (_, index) => touch(`c${index}`));
        const told: string[] = [];
        for (const [index, tap] of taps.entries()) {
          await keep(tap);
          // Sometimes it is tried between two touches.
          if (index % 3 === 0)
            await sendKept((sent) => void told.push(...sent.map(({ id }) => id))).catch(() => undefined);
          expect(await waitingIds()).toEqual(
            taps.slice(0, index + 1).map(({ id }) => id).filter((id) => !told.includes(id)), // prettier-ignore
          );
        }
        server.moods = [];
        await sendKept((sent) => void told.push(...sent.map(({ id }) => id)));
        expect(await all()).toEqual([]);
        const first = [...new Map(server.came.map((tap) => [tap.id, tap])).keys()];
        expect(first).toEqual(taps.map(({ id }) => id));
        expect(told).toEqual(first);
      }),
      { numRuns: 60 },
    );
  });

  it('of another practice stay until it is the one at work', async () => {
    await keep(touch('c1'), doer('theirs'));
    await expect(sendKept()).rejects.toThrow(/belongs to another practice/);
    expect(server.came).toEqual([]);
    server.practice = 'theirs';
    await sendKept();
    expect([server.came.length, await all()]).toEqual([1, []]);
  });

  it('stay while nobody is signed in, and the words say so', async () => {
    await keep(touch('c1'));
    server.signedIn = false;
    await expect(sendKept()).rejects.toThrow(/Sign in again to go on: what you did is kept/);
    expect(await all()).toHaveLength(1);
  });

  it('are sent by the person who made them, on whatever device the others are signed in', async () => {
    await keep(touch('c1'));
    await keep(touch('c2', { state: 'skipped', reason: 'root' }), doer('ours', piet));
    server.person = piet;
    await expect(sendKept()).rejects.toThrow('1 tap kept here is of Wynn Marram: sent when Wynn Marram signs in');
    expect(server.came.map(({ coreId }) => coreId)).toEqual(['c2']);
    server.person = wynn;
    await sendKept();
    expect(server.came.map(({ coreId }) => coreId)).toEqual(['c2', 'c1']);
  });

  it('have each its own outcome: one that is refused holds up no other, and stays to be read until it is put away', async () => {
    const [good, bad, later] = [touch('c1'), touch('gone'), touch('c2')];
    for (const tap of [good, bad, later]) await keep(tap);
    server.refuseTaps.add(bad.id);
    const arrived: string[] = [];
    await sendKept((sent) => void arrived.push(...sent.map(({ id }) => id)));
    expect(arrived).toEqual([good.id, later.id]);
    expect(await all()).toMatchObject([{ id: bad.id, refused: 'That core was deleted.' }]);
    server.came.length = 0;
    await sendKept();
    expect(server.came).toEqual([]);
    await putAway(new Set([bad.id]));
    expect(await all()).toEqual([]);
  });

  it('that an earlier version kept of the device are taken over once, and sent by whoever of the practice is there', async () => {
    const old = createStore('glenfold-walk', 'kept');
    await set('queue', [{ siteId: 's1', practiceId: 'ours', tap: touch('c1') }], old);
    await takeOverOld();
    await takeOverOld();
    expect([await get('queue', old), (await all()).map((entry) => isTap(entry) && entry.body.siteId)]).toEqual([
      undefined,
      ['s1'],
    ]);
    server.person = piet;
    await sendKept();
    expect([server.came.length, await all()]).toEqual([1, []]);
  });
});

describe('a site that is taken along', () => {
  it('opens without a connection, with what was sent meanwhile in it', async () => {
    await packSite('s1');
    await packSite('s0');
    await keep(touch('c2', { pushed: 12, recovered: 11 }));
    // What was measured belongs to a core that was taken.
    await keep(touch('c3', { state: 'skipped', reason: 'root', pushed: 9 }));
    await sendKept();
    server.moods = ['away'];
    const { bags, person } = await packSite('s1');
    expect(bags[0]!.places.map(({ state, pushed, reason }) => [state, pushed, reason])).toEqual([
      ['waiting', null, null],
      ['cored', 12, null],
      ['skipped', null, 'root'],
    ]);
    expect(person).toBe('Wynn Marram');
    expect((await packedSites()).map(({ site }) => site.name)).toEqual(['Site s0', 'Site s1']);
  });

  it('that was never fetched says so without one', async () => {
    server.moods = ['away'];
    await expect(packSite('elsewhere')).rejects.toThrow(/The server does not answer/);
  });
});

describe('photos kept on the device', () => {
  const keepPhoto = (id: string, takenOn = '2026-10-14'): Promise<void> => {
    // With the size that the camera gave, as the device keeps it.
    const photo = { id, type: 'image/jpeg' as const, image: 'AAAA', caption: `Core of ${id}`, takenOn, width: 1400, height: 1050 }; // prettier-ignore
    return keepEntry(photoEntry(doer(), { zoneId: 'z', photo }));
  };

  it('bear the day that it was where this device’s clock is a day wrong, and that which a person chose', async () => {
    const day = (later: number): string => dayOf(new Date(Date.now() + later * 86_400_000));
    for (const [id, on] of [['today', day(0)], ['chosen', day(-5)]] as const) await keepPhoto(id, on); // prettier-ignore
    server.time = new Date(Date.now() + 86_400_000).toUTCString();
    await sendKept();
    expect([server.photos, server.days]).toEqual([['today', 'chosen'], [day(1), day(-5)]]); // prettier-ignore
    expect(notices.filter((words) => words.includes('clock is 1 day behind: the day was put right'))).toHaveLength(1);
    server.time = new Date().toUTCString();
    await keepPhoto('right', day(0));
    await sendKept();
    expect(server.days.at(-1)).toBe(day(0));
  });

  it('go one by one, once more after a lost answer under the same id, and not at all without a connection', async () => {
    for (const id of ['a', 'b']) await keepPhoto(id);
    server.moods = ['well', 'lost answer'];
    await expect(sendKept()).rejects.toThrow(/does not answer/);
    expect(await waitingIds()).toEqual(['a', 'b']);
    await sendKept();
    expect([server.photos, await all()]).toEqual([['a', 'a', 'b'], []]);
  });

  it('that the server refuses for good are told, and stop neither each other nor the taps', async () => {
    await keepPhoto('c');
    await keep(touch('c1'));
    server.refusePhotos = true;
    await sendKept();
    expect(server.came).toHaveLength(1);
    expect((await all()).map(({ refused }) => refused)).toEqual([
      'The photo “Core of c” cannot be kept: The zone was deleted.',
    ]);
  });

  it.each([
    ['too large', 413, undefined, true],
    ['gone', 404, undefined, true],
    ['being saved by somebody', 409, '2', false],
    ['more than the disk holds', 507, undefined, false],
    ['a fault of the server', 500, undefined, false],
    ['not for the role', 403, undefined, false],
  ])('hold up nothing behind them: %s (%i)', async (_why, status, retry, final) => {
    for (const id of ['first', 'second']) await keepPhoto(id);
    await keep(touch('c1'));
    const headers = new Headers(retry ? { 'retry-after': retry } : undefined);
    server.photoAnswers.set('first', new Response(JSON.stringify({ detail: 'No.' }), { status, headers }));
    await sendKept().catch(() => undefined);
    expect([server.came.length, server.photos]).toEqual([1, ['second']]);
    expect((await all()).map(({ id, refused }) => [id, refused !== undefined])).toEqual([['first', final]]);
    // What was not for good arrives when the trouble is over.
    server.photoAnswers.clear();
    await sendKept();
    expect(server.photos).toEqual(final ? ['second'] : ['second', 'first']);
  });

  it('wait for what they are of: a test that is not taken yet has no pictures yet', async () => {
    const of = {
      ...{ id: 'on test', type: 'image/jpeg' as const },
      image: 'AAAA',
      fieldTestId: 't',
      takenOn: '2026-10-14',
    };
    const both = [{ ...walkKinds[1]!, name: 'test', restsOn: undefined, day: undefined, send: () => Promise.reject(new ApiProblem(503, 'Later.', [])) }, walkKinds[1]!] as typeof walkKinds; // prettier-ignore
    await keepEntry({ ...doer(), id: 't 1', kind: 'test', body: { id: 't' } });
    await keepEntry(photoEntry(doer(), { zoneId: 'z', photo: of }));
    await expect(send(both, () => undefined)).rejects.toThrow('Later.');
    expect(server.photos).toEqual([]);
    await send([{ ...both[0]!, send: () => Promise.resolve([{ id: 't 1' }]) }, walkKinds[1]!], () => undefined);
    expect([server.photos, await all()]).toEqual([['on test'], []]);
  });
});
