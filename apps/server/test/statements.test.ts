import { randomUUID } from 'node:crypto';
import type { BagAnswer, CoreTapsAnswer } from '@glenfold/contract';
import { DataSource, type Logger } from 'typeorm';
import { get, send, siteOf, useDemoServer, zoneOf } from './client.ts';
import { bagBody } from './promisedRoutes.ts';

const server = useDemoServer();

/** Statements that something costs, all of them: the session, the beginning and end of transactions, settings. */
async function statements(work: () => Promise<unknown>): Promise<string[]> {
  const source = server.current().app.get(DataSource);
  const before = source.logger;
  const said: string[] = [];
  source.logger = { logQuery: (query: string) => said.push(query) } as unknown as Logger;
  try {
    await work();
  } finally {
    source.logger = before;
  }
  return said;
}

describe('what a request costs', () => {
  it.each<[what: string, most: number, path: () => string | Promise<string>]>([
    ['the state of a site', 10, async () => `/sites/${(await siteOf('Harbour')).id}/state`],
    ['the program of a site', 18, async () => `/sites/${(await siteOf('Quarry')).id}/program?units=us`],
    ['the program of a zone', 19, async () => `/zones/${(await zoneOf('Harbour', 'HS-1')).id}/program?units=us`],
    ['a list of sites', 10, () => '/sites'],
    ['the sites of the rounds', 10, () => '/rounds/sites'],
    ['the season of a site', 28, async () => `/sites/${(await siteOf('Gannet')).id}/season?units=us`],
    ['the logbook of a site', 22, async () => `/sites/${(await siteOf('Tollgate')).id}/logbook?units=us`],
    ['the week across sites', 16, () => '/season/week?units=us'],
    ['what wants doing', 20, () => '/rounds'],
    ['the board', 10, () => '/bags'],
    ['what a few letters find', 10, () => '/find?text=ga'],
    ['the report of a site', 30, async () => `/sites/${(await siteOf('Gannet')).id}/report`],
  ])('%s: at most %i statements', async (_what, most, pathOf) => {
    const path = await pathOf();
    const said = await statements(() => get(path));
    expect(said.length).toBeGreaterThan(3);
    if (said.length > most) throw new Error(`${said.length} statements:\n${said.join('\n')}`);
  });

  it('is never a second connection held with the first: forty who ask at once who they are do not wait for each other', async () => {
    const answers = await Promise.all(Array.from({ length: 40 }, () => get<{ state: string }>('/session')));
    expect(new Set(answers.map(({ state }) => state))).toEqual(new Set(['signed in']));
  });

  it('is the same for forty bags that go on together as for one', async () => {
    const site = await siteOf('Quarry');
    const { id: zoneId } = await zoneOf('Quarry', 'QL-2');
    const bag = { ...bagBody(zoneId), cores: [{ zoneId, turn: 1, place: null }] };
    const bags = await send<BagAnswer[]>('post', `/sites/${site.id}/bags`, { bags: Array(40).fill(bag) }, 201);
    const lost = (bagIds: readonly string[]) =>
      statements(() => send('post', '/bags/custody', { bagIds, state: 'lost' }, 200));
    const [one, ...others] = bags.map(({ id }) => id);
    expect((await lost(others)).length).toBe((await lost([one!])).length);
    const after = await get<BagAnswer[]>(`/sites/${site.id}/bags`);
    const ends = after.filter(({ id }) => bags.some((each) => each.id === id));
    expect(ends.map(({ state, custody }) => [state, custody.at(-1)!.state])).toEqual(Array(40).fill(['lost', 'lost']));
  });

  it('is the same for 500 touches of a walk as for a few', async () => {
    const site = await siteOf('Quarry');
    const { id: zoneId } = await zoneOf('Quarry', 'QL-1');
    const bag = {
      ...bagBody(zoneId),
      cores: Array.from({ length: 125 }, (_none, index) => ({ zoneId, turn: index + 1, place: null })),
    };
    const bags = await send<BagAnswer[]>('post', `/sites/${site.id}/bags`, { bags: [bag, bag, bag, bag] }, 201);
    const taps = bags
      .flatMap(({ places }) => places)
      .map(({ id }) => ({ id: randomUUID(), coreId: id, state: 'cored', at: new Date().toISOString(), pushed: 10 }));
    expect(taps).toHaveLength(500);
    let answer: CoreTapsAnswer | undefined;
    const said = await statements(async () => {
      answer = await send<CoreTapsAnswer>('post', '/core-taps', { sentAt: new Date().toISOString(), taps }, 200);
    });
    expect(new Set(answer!.taps.map(({ outcome }) => outcome))).toEqual(new Set(['taken']));
    expect(said.length).toBeLessThanOrEqual(30);
    const after = await get<BagAnswer[]>(`/sites/${site.id}/bags`);
    expect(after.filter(({ id, state }) => state === 'cored' && bags.some((one) => one.id === id))).toHaveLength(4);
  });
});
