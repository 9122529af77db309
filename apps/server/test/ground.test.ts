import {
  type BoardAnswer,
  type ProblemAnswer,
  type SiteAnswer,
  type SiteStateAnswer,
  type SiteStatesAnswer,
  type SitesAnswer,
  type TasksAnswer,
  type ZoneAnswer,
  zoneInput,
} from '@glenfold/contract';
import { get, send, siteOf, useDemoServer, zoneOf } from './client.ts';

const server = useDemoServer();

describe('the demo scenario', () => {
  it('is read from its files once', async () => {
    expect((await get<SitesAnswer>('/sites')).sites.map(({ name }) => name)).toEqual([
      'Gannet Row Almshouses',
      'Harbour School field',
      'Kelp Cottage',
      'Quarry Lane',
      'Saltpan Bay pavilion',
      'Tollgate bowling green',
    ]);
    const [{ practices, tables }] = (await server
      .current()
      .sql<{ practices: string; tables: string }>(
        `SELECT (SELECT count(*) FROM practice) AS practices, (SELECT count(*) FROM zone) AS tables`,
      )) as [{ practices: string; tables: string }];
    expect([practices, tables]).toEqual(['2', '32']);
  });

  it('measures areas on the ellipsoid, less the holes', async () => {
    // 19 m × 23 m with a bed of 4 m × 4 m, laid out on a sphere: within a percent of the ellipsoid.
    const { area } = await zoneOf('Gannet', 'GR-1');
    expect(area / (19 * 23 - 16)).toBeCloseTo(1, 2);
  });

  it('tells on the rounds what is most pressing first', async () => {
    const { tasks } = await get<TasksAnswer>('/rounds');
    const runs = tasks.map(({ step }) => step).filter((step, index, all) => step !== all[index - 1]);
    expect(runs).toEqual(['lab', 'season', 'rates', 'lab', 'sampling', 'ground']);
    expect(tasks[0]!.words).toContain('harbour-school-2026-lab.csv');
  });

  it('has a bag in every state that a working day has: planned, drying, sent, at the laboratory, back and unread', async () => {
    const { bags } = await get<BoardAnswer>('/bags');
    expect(new Set(bags.map(({ state }) => state))).toEqual(
      new Set(['planned', 'drying', 'sent', 'at the lab', 'reported']),
    );
    const { siteId } = bags.find(({ state }) => state === 'reported')!;
    const { steps } = await get<SiteStateAnswer>(`/sites/${siteId}/state`);
    expect(steps.filter(({ state }) => state === 'act').map(({ step, words }) => [step, words])).toEqual([
      ['sampling', '1 report unread'],
      ['lab', '1 file to check'],
    ]);
  });
});

it('a site is renamed, deleted with all that belongs to it out of sight, and brought back', async () => {
  const { id } = await send<SiteAnswer>('post', '/sites', { name: '  Slipway ', place: 'by the water' });
  expect(await send<SiteAnswer>('put', `/sites/${id}`, { name: 'Old slipway' })).toMatchObject({
    id,
    name: 'Old slipway',
    place: null,
    version: 2,
  });
  await send('put', `/sites/${id}`, { name: ' ' }, 422);
  await send('delete', `/sites/${id}`);
  await get(`/sites/${id}/zones`, 404);
  expect((await get<SiteStatesAnswer>('/rounds/sites')).sites.some(({ site: { id: known } }) => known === id)).toBe(
    false,
  );
  expect(await send<SiteAnswer>('post', `/sites/${id}/restore`)).toMatchObject({ name: 'Old slipway' });
  await send('delete', `/sites/${id}`);
});

describe('zones', () => {
  it('are added, changed, deleted and brought back', async () => {
    const path = `/sites/${(await siteOf('Gannet')).id}/zones`;
    const input = {
      name: 'Porch strip',
      label: 'GR-9',
      area: 12.5,
      grass: 'tall fescue',
      surface: 'turf',
      intensity: 'low',
      shade: 'part',
      clippings: 'removed',
    };
    const { id } = await send<ZoneAnswer>('post', path, input);
    expect(await send<ZoneAnswer>('put', `/zones/${id}`, { ...input, thatch: 1.2 })).toMatchObject({
      thatch: 1.2,
      soilGroup: null,
    });
    await send('delete', `/zones/${id}`);
    expect((await get<ZoneAnswer[]>(path)).some((zone) => zone.id === id)).toBe(false);
    await get(`/zones/${id}/program?units=us`, 404);
    const { id: heir } = await send<ZoneAnswer>('post', path, input);
    await send('post', `/zones/${id}/restore`, undefined, 422);
    await send('delete', `/zones/${heir}`);
    expect(await send<ZoneAnswer>('post', `/zones/${id}/restore`)).toMatchObject({ name: 'Porch strip' });
    await send('delete', `/zones/${id}`);
  });

  it('refuse a bag label that is taken, naming who has it', async () => {
    const zone = await zoneOf('Gannet', 'GR-1');
    const problem = await send<ProblemAnswer>(
      'post',
      `/sites/${zone.siteId}/zones`,
      { ...zoneInput(zone), label: 'gr-1' },
      422,
    );
    expect(problem.errors).toEqual([
      { field: 'label', message: expect.stringContaining('Walled court already has') as string },
    ]);
  });
});
