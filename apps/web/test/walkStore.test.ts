import 'fake-indexeddb/auto';
import type { BagAnswer, CoreTapInput, CoreTapsInput } from '@glenfold/contract';
import { afterEach, beforeEach, describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import {
  keepPhoto,
  keepTap,
  packSite,
  packedSites,
  queued,
  queuedPhotos,
  sendKept,
  sendPhotos,
} from '../src/features/sampling/walk/walkStore.ts';

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
}
let server: FakeServer;
const bag = (siteId: string, cores: readonly string[]): Partial<BagAnswer> => ({
  id: `bag of ${siteId}`,
  code: 'K7F4Q2',
  state: 'planned',
  places: cores.map((id, index) => ({ id, zoneId: 'z', number: index + 1, turn: index + 1, place: null, state: 'waiting', pushed: null, recovered: null, moisture: null, reason: null, note: null, at: null, by: null })), // prettier-ignore
});
const json = (body: unknown, status = 200): Response => new Response(JSON.stringify(body), { status });

function answer(method: string, path: string, body: string | undefined): Response {
  const { practice, signedIn, came, photos, refusePhotos } = server;
  if (path === '/session')
    return json(
      signedIn
        ? { state: 'signed in', csrf: 't', person: { id: 'p', name: 'Wynn' }, practice: { id: practice } }
        : { state: 'signed out' },
    );
  if (path === '/core-taps') {
    const { taps } = JSON.parse(body!) as CoreTapsInput;
    const known = new Set(came.map(({ id }) => id));
    came.push(...taps);
    return json({ taps: taps.map(({ id }) => ({ id, outcome: known.has(id) ? 'known' : 'taken', words: null })), clockAhead: 0 }); // prettier-ignore
  }
  if (method === 'POST' && path.endsWith('/photos')) {
    if (refusePhotos) return json({ detail: 'The zone was deleted.', errors: [] }, 404);
    photos.push((JSON.parse(body!) as { id: string }).id);
    return json({}, 201);
  }
  const siteId = path.split('/')[2]!;
  if (path.endsWith('/zones')) return json([]);
  if (path.endsWith('/plan')) return json({ features: [], underlay: null });
  if (path.endsWith('/bags')) return json([bag(siteId, ['c1', 'c2', 'c3'])]);
  return json({ id: siteId, name: `Site ${siteId}` });
}

const realFetch = globalThis.fetch;
beforeEach(() => {
  server = { moods: [], practice: 'ours', signedIn: true, came: [], photos: [], refusePhotos: false };
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
  for (const practice of ['ours', 'theirs']) {
    server.practice = practice;
    await sendKept(() => undefined).catch(() => undefined);
    await sendPhotos(() => undefined).catch(() => undefined);
  }
  globalThis.fetch = realFetch;
});

let made = 0;
const touch = (coreId: string, more: Partial<CoreTapInput> = {}): CoreTapInput => {
  made += 1;
  return { id: `tap ${made}`, coreId, state: 'cored', at: '2026-10-14T09:00:00Z', ...more };
};
const keep = (tap: CoreTapInput, practiceId = 'ours'): Promise<void> => keepTap({ siteId: 's1', practiceId, tap });

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
          if (index % 3 === 0) await sendKept((sent) => told.push(...sent.map(({ id }) => id))).catch(() => undefined);
          expect((await queued()).map((entry) => entry.tap.id)).toEqual(
            taps.slice(0, index + 1).map(({ id }) => id).filter((id) => !told.includes(id)), // prettier-ignore
          );
        }
        server.moods = [];
        await sendKept((sent) => told.push(...sent.map(({ id }) => id)));
        expect(await queued()).toEqual([]);
        const first = [...new Map(server.came.map((tap) => [tap.id, tap])).keys()];
        expect(first).toEqual(taps.map(({ id }) => id));
        expect(told).toEqual(first);
      }),
      { numRuns: 60 },
    );
  });

  it('of another practice stay until it is the one at work', async () => {
    await keep(touch('c1'), 'theirs');
    await expect(sendKept(() => undefined)).rejects.toThrow(/belongs to another practice/);
    expect(server.came).toEqual([]);
    server.practice = 'theirs';
    await sendKept(() => undefined);
    expect([server.came.length, await queued()]).toEqual([1, []]);
  });

  it('stay while nobody is signed in, and the words say so', async () => {
    await keep(touch('c1'));
    server.signedIn = false;
    await expect(sendKept(() => undefined)).rejects.toThrow(/Sign in again to go on: what you tapped is kept/);
    expect(await queued()).toHaveLength(1);
  });
});

describe('a site that is taken along', () => {
  it('opens without a connection, with what was sent meanwhile in it', async () => {
    await packSite('s1');
    await packSite('s0');
    await keep(touch('c2', { pushed: 12, recovered: 11 }));
    await keep(touch('c3', { state: 'skipped', reason: 'root' }));
    await sendKept(() => undefined);
    server.moods = ['away'];
    const { bags, person } = await packSite('s1');
    expect(bags[0]!.places.map(({ state, pushed, reason }) => [state, pushed, reason])).toEqual([
      ['waiting', null, null],
      ['cored', 12, null],
      ['skipped', null, 'root'],
    ]);
    expect(person).toBe('Wynn');
    expect((await packedSites()).map(({ site }) => site.name)).toEqual(['Site s0', 'Site s1']);
  });

  it('that was never fetched says so without one', async () => {
    server.moods = ['away'];
    await expect(packSite('elsewhere')).rejects.toThrow(/The server does not answer/);
  });
});

describe('photos kept on the device', () => {
  const photo = (id: string) => ({
    practiceId: 'ours',
    zoneId: 'z',
    photo: { id, type: 'image/jpeg' as const, image: 'AAAA', caption: `Core of ${id}`, takenOn: '2026-10-14' },
  });

  it('go one by one, once more after a lost answer under the same id, and not at all without a connection', async () => {
    for (const id of ['a', 'b']) await keepPhoto(photo(id));
    server.moods = ['well', 'lost answer'];
    await expect(sendPhotos(() => undefined)).rejects.toThrow(/does not answer/);
    expect((await queuedPhotos()).map((entry) => entry.photo.id)).toEqual(['a', 'b']);
    await sendPhotos(() => undefined);
    expect([server.photos, await queuedPhotos()]).toEqual([['a', 'a', 'b'], []]);
  });

  it('that the server refuses for good leave with a notice, so that they do not stop the others', async () => {
    await keepPhoto(photo('c'));
    server.refusePhotos = true;
    const notices: string[] = [];
    await sendPhotos(({ words }) => notices.push(words));
    expect(notices).toEqual(['The photo “Core of c” cannot be kept: The zone was deleted.']);
    expect(await queuedPhotos()).toEqual([]);
  });
});
