import type { PhotoAnswer, ProblemAnswer, UnderlayAnswer, ZoneAnswer, ZoneFactsInput } from '@glenfold/contract';
import { zoneInput } from '@glenfold/contract';
import { demoEmails, signIn } from './harness.ts';
import { get, send, siteOf, textOf, useDemoServer, zoneOf } from './client.ts';
import { FileStore } from '../src/ports/fileStore.ts';
import sharp from 'sharp';
import { lying, picture, zoneBody } from './promisedRoutes.ts';

const server = useDemoServer();
const told = ({ errors }: ProblemAnswer): string[] => errors.map(({ field }) => field);

/** One that is not kept yet. */
const otherPicture = async (): Promise<string> =>
  (
    await sharp({ create: { width: 3, height: 2, channels: 3, background: '#345' } })
      .png()
      .toBuffer()
  ).toString('base64');

describe('the facts of a zone', () => {
  it('are kept whole, by a technician too, and say which of them cannot be', async () => {
    const court = await zoneOf('Gannet', 'GR-1');
    const facts: ZoneFactsInput = {
      mix: [
        { grass: 'tall fescue', share: 70 },
        { grass: 'kentucky bluegrass', share: 30 },
      ],
      sunHours: 3.5,
      slope: 2,
      aspect: 'north',
      irrigation: 'hose',
      use: 'ornamental',
      frostPocket: true,
      layers: [{ material: 'fill soil', depth: 20, on: '1998', note: 'from the new drain' }],
      applications: [{ kind: 'lime', on: '2025-10', words: 'about 50 lb/1000 ft²' }],
      signs: [{ sign: 'moss', at: [-36.0034, 46.5012], on: '2026-11-02' }],
      drySpell: 'held',
      section: 'now',
      sectionReason: 'seen from the gate',
    };
    const wynn = await signIn(server.current(), demoEmails.technician);
    const saved = await wynn.ask('put', `/zones/${court.id}/facts`, facts, court.version);
    // What was put down before goes into the book, and is told of the zone from there.
    const { applications = [], ...kept } = facts;
    expect((saved.body as ZoneAnswer).facts).toEqual(kept);
    expect((saved.body as ZoneAnswer).applied).toContainEqual(expect.objectContaining((applications ?? [])[0]!));
    const bad = {
      mix: [{ grass: 'tall fescue', share: 70 }],
      sunHours: 30,
      aspect: 'up',
      layers: [{ material: 'cheese', depth: 20 }],
      applications: [{ kind: 'lime', on: 'last year', words: 'some' }],
      signs: [{ sign: 'moss', at: [46.5, -136, 2] }],
    };
    const problem = await send<ProblemAnswer>('put', `/zones/${court.id}/facts`, bad, 422);
    expect(told(problem).sort()).toEqual(
      ['applications.0.on', 'aspect', 'layers.0.material', 'mix', 'signs.0.at', 'sunHours'].sort(),
    );
    expect((await zoneOf('Gannet', 'GR-1')).facts).toEqual(kept);
  });

  it('give a taped zone the area its lengths make, until it is drawn', async () => {
    const { id } = await siteOf('Gannet');
    const taped = { shape: 'l', lengths: { length: 20, width: 12, cutLength: 8, cutWidth: 5 } };
    const zone = await send<ZoneAnswer>('post', `/sites/${id}/zones`, { ...zoneBody, label: 'TAPE', area: 5, taped });
    expect(zone.area).toBe(200);
    const wider = { ...taped, lengths: { ...taped.lengths, length: 30 } };
    const changed = await send<ZoneAnswer>('put', `/zones/${zone.id}`, { ...zoneInput(zone), taped: wider });
    expect(changed.area).toBe(320);
    const open = { shape: 'triangle', lengths: { sideA: 3, sideB: 4, sideC: 9 } };
    const problem = await send<ProblemAnswer>('put', `/zones/${zone.id}`, { ...zoneInput(zone), taped: open }, 422);
    expect(problem.errors[0]!.message).toMatch(/closes no triangle/);
    const ring = [[-36, 46.5], [-35.9999, 46.5], [-35.9999, 46.5001], [-36, 46.5]]; // prettier-ignore
    const geometry = { type: 'Polygon', coordinates: [ring] };
    const outlines = [{ id: zone.id, version: changed.version, geometry }];
    await send('post', `/sites/${id}/drawing`, { outlines }, 200);
    const drawn = await zoneOf('Gannet', 'TAPE');
    expect(drawn.area).toBeGreaterThan(30);
    expect(drawn.area).toBeLessThan(60);
  });

  it('what a file said beside stays with what was drawn from it', async () => {
    const { id } = await siteOf('Gannet');
    const properties = { OBJECTID: 7, owner: { name: 'parish' } };
    const tap = { kind: 'tap', geometry: { type: 'Point', coordinates: [-36.0034, 46.5012] }, properties };
    await send('post', `/sites/${id}/drawing`, { newFeatures: [tap] }, 200);
    const { features } = await get<{ features: Array<{ kind: string; properties: object }> }>(`/sites/${id}/drawing`);
    expect(features.filter((entry) => entry.kind === 'tap').at(-1)!.properties).toEqual(properties);
  });
});

describe('pictures', () => {
  it('are photos of a zone: added, shown to those let in, deleted and brought back', async () => {
    const court = await zoneOf('Gannet', 'GR-1');
    const photo = await send<PhotoAnswer>('post', `/zones/${court.id}/photos`, {
      ...picture,
      caption: 'Moss by the wall',
    });
    const shown = await server.owner().agent.get(photo.address);
    expect([shown.status, shown.headers['content-type']]).toEqual([200, 'image/png']);
    expect((shown.body as Buffer).toString('base64')).toBe(picture.image);
    const hetty = await signIn(server.current(), demoEmails.client);
    expect((await hetty.agent.get(photo.address)).status).toBe(403);
    const list = async (): Promise<number> => (await get<PhotoAnswer[]>(`/sites/${court.siteId}/photos`)).length;
    expect(await list()).toBe(1);
    await send('delete', `/photos/${photo.id}`, undefined, 204);
    expect(await list()).toBe(0);
    await send('post', `/photos/${photo.id}/restore`);
    expect(await list()).toBe(1);
    const script = { type: 'image/png', image: Buffer.from('<svg onload=alert(1)>').toString('base64') };
    expect(told(await send<ProblemAnswer>('post', `/zones/${court.id}/photos`, script, 422))).toEqual(['image']);
    const [{ kept } = { kept: '' }] = await server
      .current()
      .sql<{ kept: string }>(`SELECT coalesce("after"::text, '') AS kept FROM audit WHERE kind = 'zone_photo' LIMIT 1`);
    expect(kept).not.toContain(picture.image);
  });

  it('are not blamed for a full disk: it is told as such, a laboratory’s file too, and what is there is read', async () => {
    const court = await zoneOf('Gannet', 'GR-1');
    const store = server.current().app.get(FileStore, { strict: false });
    const keep = store.keep.bind(store);
    const full = Object.assign(new Error('ENOSPC: no space left on device, write'), { code: 'ENOSPC' });
    Object.assign(store, { keep: () => Promise.reject(full) });
    const other = { ...picture, image: await otherPicture() };
    const file = { fileName: 'full.csv', content: 'Sample,pH\nGR-1,6.1\n' };
    const photos = `/zones/${court.id}/photos`;
    try {
      expect((await send<ProblemAnswer>('post', photos, other, 507)).title).toBe('No room left');
      expect((await send<ProblemAnswer>('post', `/sites/${court.siteId}/lab-reports`, file, 507)).title).toBe(
        'No room left',
      );
      await get(`/sites/${court.siteId}/photos`);
    } finally {
      Object.assign(store, { keep });
    }
    await send('post', photos, other, 201);
  });

  it('lie under a plan, one at a time', async () => {
    const { id } = await siteOf('Gannet');
    const under = { picture: { ...picture, name: 'air.png', width: 1, height: 1 }, ...lying };
    const first = await send<UnderlayAnswer>('post', `/sites/${id}/underlay`, under);
    await send('post', `/sites/${id}/underlay`, { ...under, opacity: 0.9 });
    const now = async () => (await get<{ underlay: UnderlayAnswer | null }>(`/sites/${id}/drawing`)).underlay;
    expect((await now())!.opacity).toBe(0.9);
    await send('post', `/underlays/${first.id}/restore`);
    expect((await now())!.opacity).toBe(0.5);
    const one = { matches: lying.matches.slice(1), opacity: 2 };
    const problem = await send<ProblemAnswer>('post', `/sites/${id}/underlay`, { ...under, ...one }, 422);
    expect(told(problem).sort()).toEqual(['matches', 'opacity']);
  });
});

it('the plan on paper is to scale, names every zone and says what comes off', async () => {
  const { id } = await siteOf('Harbour');
  const metric = await textOf(`/api/sites/${id}/drawing.pdf?units=metric`);
  for (const zone of await get<ZoneAnswer[]>(`/sites/${id}/zones`)) expect(metric).toContain(zone.name);
  expect(metric).toMatch(/1 : \d+ when printed at full size/);
  expect(await textOf(`/api/sites/${id}/drawing.pdf?units=us`)).toMatch(/1 in = \d+ ft/);
  const { text } = await server
    .owner()
    .agent.get(`/api/sites/${id}/drawing.svg?units=metric`)
    .buffer(true)
    .parse((response, done) => {
      let all = '';
      response.on('data', (part: Buffer) => (all += part.toString()));
      response.on('end', () => done(null, all));
    })
    .then(({ body }) => ({ text: String(body) }));
  // Two points of the drawing stand as far apart as the scale says.
  const scale = Number(/1 : (\d+) when/.exec(text)![1]);
  const bar = [...text.matchAll(/<rect x="([\d.]+)" y="[\d.]+" width="([\d.]+)" height="5"/g)].map(([, , width]) =>
    Number(width),
  );
  const metres = Number(/text-anchor="middle" fill="#22302B">(\d+) m<\/text>/.exec(text)![1]) / 2;
  expect((bar[0]! / 72) * 0.0254 * scale).toBeCloseTo(metres, 1);
});
