import { execFileSync } from 'node:child_process';
import type {
  LabImportAnswer,
  LabResultAnswer,
  ProblemAnswer,
  ProductAnswer,
  RoundsAnswer,
  SiteAnswer,
  ZoneAnswer,
  ZonePlanAnswer,
} from '@glenfold/contract';
import { jest } from '@jest/globals';
import { type TestServer, startServer } from './harness.ts';

jest.setTimeout(60_000);

let server: TestServer;
let sites: readonly SiteAnswer[];

const get = async <T>(path: string, status = 200): Promise<T> => {
  const response = await server.http.get(`/api${path}`);
  expect([path, response.status]).toEqual([path, status]);
  return response.body as T;
};
const send = async <T>(method: 'post' | 'put' | 'delete', path: string, body?: object, status?: number): Promise<T> => {
  const response = await server.http[method](`/api${path}`).send(body);
  expect([path, response.status, response.body]).toEqual([
    path,
    status ?? (method === 'post' ? 201 : method === 'put' ? 200 : 204),
    response.body,
  ]);
  return response.body as T;
};
const site = (name: string): SiteAnswer => sites.find((entry) => entry.name.startsWith(name))!;
const zonesOf = (name: string): Promise<ZoneAnswer[]> => get(`/sites/${site(name).id}/zones`);
const zoneOf = async (siteName: string, label: string): Promise<ZoneAnswer> =>
  (await zonesOf(siteName)).find((zone) => zone.label === label)!;
const typed = (zone: ZoneAnswer, more: object = {}) => ({
  zoneId: zone.id,
  label: zone.label,
  depth: 15.24,
  extractant: 'mehlich-3',
  bufferMethod: 'mehlich',
  soilPh: 5.2,
  bufferPh: 6,
  nutrients: { p: { value: 92, unit: 'lb/acre', basis: 'oxide' } },
  ...more,
});

beforeAll(async () => {
  server = await startServer({ empty: false });
  sites = await get('/sites');
});
afterAll(() => server.close());

describe('the demo scenario', () => {
  it('is read from its files once', async () => {
    expect(sites.map(({ name }) => name)).toEqual(['Gannet Row Almshouses', 'Harbour School field']);
    const [{ practices, tables }] = (await server.sql<{ practices: string; tables: string }>(
      `SELECT (SELECT count(*) FROM practice) AS practices, (SELECT count(*) FROM zone) AS tables`,
    )) as [{ practices: string; tables: string }];
    expect([practices, tables]).toEqual(['1', '8']);
  });

  it('measures areas on the ellipsoid, less the holes', async () => {
    // 19 m × 23 m with a bed of 4 m × 4 m, laid out on a sphere: within a percent of the ellipsoid.
    const { area } = await zoneOf('Gannet', 'GR-1');
    expect(area / (19 * 23 - 16)).toBeCloseTo(1, 2);
  });

  it('tells on the rounds what is most pressing first', async () => {
    const { tasks } = await get<RoundsAnswer>('/rounds');
    expect(tasks.map(({ step }) => step)).toEqual(['lab', 'rates', 'rates', 'lab', 'lab']);
    expect(tasks[0]!.words).toContain('harbour-school-2026-lab.csv');
  });
});

it('a site is renamed, deleted with all that belongs to it out of sight, and brought back', async () => {
  const { id } = await send<SiteAnswer>('post', '/sites', { name: '  Slipway ', place: 'by the water' });
  expect(await send<SiteAnswer>('put', `/sites/${id}`, { name: 'Old slipway' })).toEqual({
    id,
    name: 'Old slipway',
    place: null,
  });
  await send('put', `/sites/${id}`, { name: ' ' }, 422);
  await send('delete', `/sites/${id}`);
  await get(`/sites/${id}/zones`, 404);
  expect((await get<RoundsAnswer>('/rounds')).sites.some(({ site: { id: known } }) => known === id)).toBe(false);
  expect(await send<SiteAnswer>('post', `/sites/${id}/restore`)).toMatchObject({ name: 'Old slipway' });
  await send('delete', `/sites/${id}`);
});

describe('zones', () => {
  it('are added, changed, deleted and brought back', async () => {
    const path = `/sites/${site('Gannet').id}/zones`;
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
    expect((await zonesOf('Gannet')).some((zone) => zone.id === id)).toBe(false);
    await get(`/zones/${id}/plan?units=us`, 404);
    const { id: heir } = await send<ZoneAnswer>('post', path, input);
    await send('post', `/zones/${id}/restore`, undefined, 422);
    await send('delete', `/zones/${heir}`);
    expect(await send<ZoneAnswer>('post', `/zones/${id}/restore`)).toMatchObject({ name: 'Porch strip' });
    await send('delete', `/zones/${id}`);
  });

  it('refuse a bag label that is taken, naming who has it', async () => {
    const zone = await zoneOf('Gannet', 'GR-1');
    const { id: _id, siteId: _siteId, geometry: _geometry, ...input } = zone;
    const problem = await send<ProblemAnswer>('post', `/sites/${zone.siteId}/zones`, { ...input, label: 'gr-1' }, 422);
    expect(problem.errors).toEqual([
      { field: 'label', message: expect.stringContaining('Walled court already has') as string },
    ]);
  });
});

describe('a typed result', () => {
  it('keeps the laboratory’s own unit and basis, and is read as the element', async () => {
    const zone = await zoneOf('Gannet', 'GR-3');
    const { id } = await send<LabResultAnswer>('post', '/lab-results', typed(zone));
    const { result, reading } = await get<ZonePlanAnswer>(`/zones/${zone.id}/plan?units=us`);
    expect(result.nutrients.p).toEqual({ value: 92, unit: 'lb/acre', basis: 'oxide' });
    expect(reading.bars.find(({ key }) => key === 'p')!.figure.value).toBeCloseTo(46 / 2.2914, 6);
    await send('put', `/lab-results/${id}`, typed(zone, { nutrients: {}, bufferPh: null }));
    const corrected = await get<ZonePlanAnswer>(`/zones/${zone.id}/plan?units=us`);
    expect([corrected.result.nutrients, corrected.result.bufferMethod, corrected.plan.lime.status]).toEqual([
      {},
      null,
      'cannot say',
    ]);
    await send('delete', `/lab-results/${id}`);
    await get(`/zones/${zone.id}/plan?units=us`, 404);
  });

  it('is refused field by field, in the contract’s words, as problem details', async () => {
    const zone = await zoneOf('Gannet', 'GR-3');
    const response = await server.http
      .post('/api/lab-results')
      .send(typed(zone, { soilPh: 15, bufferPh: 7.5, depth: undefined, extra: 1 }));
    expect(response.status).toBe(422);
    expect(response.headers['content-type']).toContain('application/problem+json');
    expect((response.body as ProblemAnswer).errors.map(({ field }) => field).sort()).toEqual([
      'bufferPh',
      'depth',
      'extra',
      'soilPh',
    ]);
  });

  it.each([
    ['a zone that is not there', { zoneId: '00000000-0000-4000-8000-000000000000' }, 404],
    ['a date to come', { sampledOn: '2199-01-01' }, 422],
    ['a word for a number', { soilPh: 'low' }, 422],
  ])('refuses %s', async (_name, more, status) => {
    const zone = await zoneOf('Gannet', 'GR-3');
    await send('post', '/lab-results', typed(zone, more), status);
  });

  it('is questioned, not refused, when it looks like a slip', async () => {
    const zone = await zoneOf('Gannet', 'GR-3');
    const { id, questions } = await send<LabResultAnswer>(
      'post',
      '/lab-results',
      typed(zone, { nutrients: { k: { value: 960, unit: 'mg/kg', basis: 'element' } } }),
    );
    expect(questions).toEqual([expect.stringContaining('lb/acre')]);
    await send('delete', `/lab-results/${id}`);
  });
});

describe('a laboratory’s file', () => {
  const imports = (): Promise<LabImportAnswer[]> => get(`/sites/${site('Harbour').id}/lab-imports`);
  const choices = (file: LabImportAnswer, more: object = {}) => ({
    columns: file.columns.map(({ field, unit, basis }) => ({ field, unit, basis })),
    rows: [],
    extractant: file.extractant,
    bufferMethod: file.bufferMethod,
    depth: file.depth,
    ...more,
  });

  it('imports nothing until it is confirmed, then what is ready; the rest stays with its reason', async () => {
    const open = (await imports()).find(({ status }) => status === 'open')!;
    const before = await get<LabResultAnswer[]>(`/sites/${site('Harbour').id}/lab-results`);
    expect(open.rows.every(({ faults }) => faults.some(({ field }) => field === 'depth'))).toBe(true);
    await send('post', `/lab-imports/${open.id}/confirm`, undefined, 422);

    const east = await zoneOf('Harbour', 'HS-5');
    const corrected = await send<LabImportAnswer>(
      'put',
      `/lab-imports/${open.id}`,
      choices(open, { depth: 15.24, rows: [{ line: 10, zoneId: east.id }] }),
    );
    expect(corrected.rows.map(({ faults }) => faults.map(({ field }) => field))).toEqual([[], [], [], ['soilPh'], []]);
    const done = await send<LabImportAnswer>('post', `/lab-imports/${open.id}/confirm`);
    expect(done.rows.map(({ resultId }) => resultId !== null)).toEqual([true, true, true, false, true]);
    expect(done.rows[3]!.faults[0]!.message).toContain('"see note"');

    const after = await get<LabResultAnswer[]>(`/sites/${site('Harbour').id}/lab-results`);
    expect(after.length - before.length).toBe(4);
    expect(after.find(({ zoneId }) => zoneId === east.id)).toMatchObject({
      nutrients: { p: { value: 6, belowDetection: true, unit: 'lb/acre' } },
      origin: 'harbour-school-2026-lab.csv',
    });
    // A second confirmation finds nothing left to do, and doubles nothing.
    await send('post', `/lab-imports/${open.id}/confirm`, undefined, 422);
    expect(await get<LabResultAnswer[]>(`/sites/${site('Harbour').id}/lab-results`)).toHaveLength(after.length);
  });

  it.each([
    ['no header', 'a,b\n1,2\n', /No line of this file names columns/],
    ['a header alone', 'Sample,pH\n', /no sample under it/],
    ['a binary file', 'PK\u0000\u0001', /binary/],
  ])('with %s is explained', async (_name, content, message) => {
    const problem = await send<ProblemAnswer>(
      'post',
      `/sites/${site('Harbour').id}/lab-imports`,
      { fileName: 'x.csv', content },
      422,
    );
    expect(problem.detail).toMatch(message);
  });

  it('with two rows for one zone, a column taken twice or a zone from elsewhere asks again', async () => {
    const content = 'Sample,pH,Depth in,P Mehlich 3 ppm\nHS-1,6,6,20\nHS1,6.1,6,21\n';
    const file = await send<LabImportAnswer>('post', `/sites/${site('Harbour').id}/lab-imports`, {
      fileName: 'twice.csv',
      content,
    });
    expect(file.rows[1]!.faults[0]!.message).toMatch(/Line 2 already goes to this zone/);
    const twice = choices(file);
    twice.columns[1] = { ...twice.columns[1]!, field: 'label' };
    expect((await send<ProblemAnswer>('put', `/lab-imports/${file.id}`, twice, 422)).detail).toMatch(
      /both set to label/,
    );
    const elsewhere = await zoneOf('Gannet', 'GR-1');
    expect(
      (
        await send<ProblemAnswer>(
          'put',
          `/lab-imports/${file.id}`,
          choices(file, { rows: [{ line: 3, zoneId: elsewhere.id }] }),
          422,
        )
      ).detail,
    ).toMatch(/not on this site/);
    await send('delete', `/lab-imports/${file.id}`);
  });
});

describe('a plan', () => {
  it('differs between two zones of one pH, and says why', async () => {
    const [court, lawn] = [await zoneOf('Gannet', 'GR-1'), await zoneOf('Gannet', 'GR-2')];
    const { result, plan } = await get<ZonePlanAnswer>(`/zones/${court.id}/plan?units=metric`);
    const other = await get<ZonePlanAnswer>(`/zones/${lawn.id}/plan?units=metric`);
    expect(result.soilPh).toBe(other.result.soilPh);
    expect(plan.lime.amount!.rate.value).toBeGreaterThan(3 * other.plan.lime.amount!.rate.value);
    expect(plan.comparisons.find(({ otherZone }) => otherZone === 'Sycamore lawn')!.reasons).toHaveLength(2);
  });

  it('takes the advisor’s products, and refuses one for another purpose', async () => {
    const { id } = await zoneOf('Gannet', 'GR-1');
    const products = await get<ProductAnswer[]>('/products');
    const pulverised = products.find(({ name }) => name.startsWith('Pulverised'))!;
    const { plan } = await send<ZonePlanAnswer>('put', `/zones/${id}/plan/choices?units=us`, { lime: pulverised.id });
    expect(plan.lime.amount!.productName).toBe(pulverised.name);
    expect(
      (await send<ProblemAnswer>('put', `/zones/${id}/plan/choices?units=us`, { nitrogen: pulverised.id }, 422))
        .errors[0]!.field,
    ).toBe('nitrogen');
    await send('put', `/products/${pulverised.id}`, { bagMass: 25, bagPrice: -1 }, 422);
    await send('put', `/products/${pulverised.id}`, { bagMass: 25, bagPrice: null });
    expect((await get<ZonePlanAnswer>(`/zones/${id}/plan?units=us`)).plan).toMatchObject({
      cost: null,
      unpriced: [pulverised.name],
    });
    await send('put', `/products/${pulverised.id}`, { bagMass: 25, bagPrice: 6 });
  });

  it('once handed over is frozen: the paper stays when the test is corrected', async () => {
    const zone = await zoneOf('Gannet', 'GR-2');
    const { pdf } = await send<{ pdf: string }>('post', `/zones/${zone.id}/plans?units=us`);
    const read = async (): Promise<string> => {
      const paper = await server.http
        .get(pdf)
        .expect('content-type', 'application/pdf')
        .buffer(true)
        .parse((response, done) => {
          const parts: Buffer[] = [];
          response.on('data', (part: Buffer) => parts.push(part));
          response.on('end', () => done(null, Buffer.concat(parts)));
        });
      return execFileSync('pdftotext', ['-layout', '-', '-'], { input: paper.body as Buffer, encoding: 'utf8' });
    };
    const paper = await read();
    expect(paper).toMatch(/Sycamore lawn[\s\S]*pH 5.3 is below fine fescue’s 5.5–6.5. Lime to 6.0/);
    expect(paper).toMatch(/Walled court has pH 5.3 too/);
    const [newest] = (await get<LabResultAnswer[]>(`/sites/${zone.siteId}/lab-results`)).filter(
      ({ zoneId }) => zoneId === zone.id,
    );
    await send('put', `/lab-results/${newest!.id}`, typed(zone, { soilPh: 6.1 }));
    expect(await read()).toBe(paper);
  });
});

describe('the practice', () => {
  it('owns every row of every table, and another practice’s rows are not there', async () => {
    const tables = await server.sql<{ table: string }>(
      `SELECT table_name AS table FROM information_schema.tables WHERE table_schema = 'public' AND table_name NOT IN ('practice', 'migrations')`,
    );
    const owned = await server.sql<{ table: string }>(
      `SELECT table_name AS table FROM information_schema.columns WHERE column_name = 'practiceId' AND is_nullable = 'NO'`,
    );
    expect(owned.map(({ table }) => table).sort()).toEqual(tables.map(({ table }) => table).sort());

    const [{ id: practiceId }] = (await server.sql<{ id: string }>(
      `INSERT INTO practice (name, "createdAt") VALUES ('Another', now() + interval '1 day') RETURNING id`,
    )) as [{ id: string }];
    const [{ id: siteId }] = (await server.sql<{ id: string }>(
      `INSERT INTO site ("practiceId", name) VALUES ($1, 'Theirs') RETURNING id`,
      [practiceId],
    )) as [{ id: string }];
    const [{ id: zoneId }] = (await server.sql<{ id: string }>(
      `INSERT INTO zone ("practiceId", "siteId", position, name, label, area, grass, surface, intensity, shade, clippings) VALUES ($1, $2, 1, 'Z', 'Z', 10, 'tall fescue', 'turf', 'low', 'part', 'removed') RETURNING id`,
      [practiceId, siteId],
    )) as [{ id: string }];
    expect((await get<SiteAnswer[]>('/sites')).some(({ id }) => id === siteId)).toBe(false);
    for (const path of [
      `/sites/${siteId}`,
      `/sites/${siteId}/zones`,
      `/sites/${siteId}/state`,
      `/sites/${siteId}/lab-results`,
      `/sites/${siteId}/lab-imports`,
      `/zones/${zoneId}/plan?units=us`,
    ])
      await get(path, 404);
    await send('delete', `/zones/${zoneId}`, undefined, 404);
    await send('post', `/zones/${zoneId}/restore`, undefined, 404);
  });
});

describe('the API', () => {
  it('is described from the contract', async () => {
    const { openapi, paths, components } = await get<{
      openapi: string;
      paths: Record<string, unknown>;
      components: { schemas: Record<string, { required?: string[]; properties: Record<string, unknown> }> };
    }>('/openapi.json');
    expect(openapi).toMatch(/^3\./);
    expect(Object.keys(paths).length).toBeGreaterThan(15);
    expect(components.schemas.LabResultInput!.properties.soilPh).toEqual({ type: 'number', minimum: 2.5, maximum: 11 });
    expect(components.schemas.LabResultInput!.required).toContain('depth');
    const text = JSON.stringify({ paths, components });
    for (const [, name] of text.matchAll(/#\/components\/schemas\/(\w+)/g))
      expect(components.schemas).toHaveProperty(name!);
  });

  it.each([
    ['/nothing', 404],
    ['/zones/not-an-id/plan?units=us', 400],
    ['/zones/00000000-0000-4000-8000-000000000000/plan?units=stones', 400],
  ])('%s answers %d in problem details', async (path, status) => {
    expect(await get<ProblemAnswer>(path, status)).toMatchObject({
      status,
      title: expect.any(String) as string,
      errors: [],
    });
  });

  it('refuses a request that is too large or not JSON', async () => {
    const large = await server.http.post('/api/sites').send({ name: 'x'.repeat(4_000_000) });
    expect([large.status, (large.body as ProblemAnswer).title]).toEqual([413, 'Too large']);
    const broken = await server.http.post('/api/sites').set('content-type', 'application/json').send('{bad');
    expect(broken.status).toBe(400);
  });
});

describe('an empty start', () => {
  it('has a practice and the generic catalogue without prices, and nothing else', async () => {
    const empty = await startServer({ empty: true });
    try {
      const rounds = (await empty.http.get('/api/rounds')).body as RoundsAnswer;
      const products = (await empty.http.get('/api/products')).body as ProductAnswer[];
      expect(rounds).toEqual({ tasks: [], sites: [] });
      expect(products.length).toBeGreaterThan(10);
      expect(products.every(({ bagPrice }) => bagPrice === null)).toBe(true);
    } finally {
      await empty.close();
    }
  });
});
