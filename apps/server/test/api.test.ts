import type { ProblemAnswer, ProductAnswer, RoundsAnswer, SiteAnswer } from '@glenfold/contract';
import { get, send, useDemoServer } from './client.ts';
import { startServer } from './harness.ts';

const server = useDemoServer();

describe('the practice', () => {
  it('owns every row of every table, and another practice’s rows are not there', async () => {
    const tables = await server
      .current()
      .sql<{ table: string }>(
        `SELECT table_name AS table FROM information_schema.tables WHERE table_schema = 'public' AND table_name NOT IN ('practice', 'migrations')`,
      );
    const owned = await server
      .current()
      .sql<{ table: string }>(
        `SELECT table_name AS table FROM information_schema.columns WHERE column_name = 'practiceId' AND is_nullable = 'NO'`,
      );
    expect(owned.map(({ table }) => table).sort()).toEqual(tables.map(({ table }) => table).sort());

    const [{ id: practiceId }] = (await server
      .current()
      .sql<{ id: string }>(
        `INSERT INTO practice (name, "createdAt") VALUES ('Another', now() + interval '1 day') RETURNING id`,
      )) as [{ id: string }];
    const [{ id: siteId }] = (await server
      .current()
      .sql<{ id: string }>(`INSERT INTO site ("practiceId", name) VALUES ($1, 'Theirs') RETURNING id`, [
        practiceId,
      ])) as [{ id: string }];
    const [{ id: zoneId }] = (await server
      .current()
      .sql<{ id: string }>(
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
    const large = await server
      .current()
      .http.post('/api/sites')
      .send({ name: 'x'.repeat(4_000_000) });
    expect([large.status, (large.body as ProblemAnswer).title]).toEqual([413, 'Too large']);
    const broken = await server.current().http.post('/api/sites').set('content-type', 'application/json').send('{bad');
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
