import type { ProblemAnswer } from '@glenfold/contract';
import { get, useDemoServer } from './client.ts';

const server = useDemoServer();

describe('the API', () => {
  it('is described from the contract', async () => {
    const { openapi, paths, components } = await get<{
      openapi: string;
      paths: Record<string, unknown>;
      components: { schemas: Record<string, { required?: string[]; properties: Record<string, unknown> }> };
    }>('/openapi.json');
    expect(openapi).toMatch(/^3\./);
    expect(Object.keys(paths).length).toBeGreaterThan(15);
    expect(components.schemas.ValuesInput!.properties.ec15).toEqual({
      $ref: '#/components/schemas/ReportedValueInput',
    });
    expect(components.schemas.ZoneInput!.properties.aimPh).toEqual({
      ...{ type: ['number', 'null'], minimum: 4.5, maximum: 8, description: 'pH' },
    });
    expect(components.schemas.LabResultInput!.required).toContain('depth');
    const text = JSON.stringify({ paths, components });
    for (const [, name] of text.matchAll(/#\/components\/schemas\/(\w+)/g))
      expect(components.schemas).toHaveProperty(name!);
  });

  it.each([
    ['/nothing', 404],
    ['/zones/not-an-id/program?units=us', 400],
  ])('%s answers %d in problem details', async (path, status) => {
    expect(await get<ProblemAnswer>(path, status)).toMatchObject({
      status,
      title: expect.any(String) as string,
      errors: [],
    });
  });

  it('refuses a request that is too large or not JSON', async () => {
    const large = await server
      .owner()
      .ask('post', '/sites')
      .send({ name: 'x'.repeat(4_000_000) });
    expect([large.status, (large.body as ProblemAnswer).title]).toEqual([413, 'Too large']);
    const broken = await server.owner().ask('post', '/sites').set('content-type', 'application/json').send('{bad');
    expect(broken.status).toBe(400);
  });
});
