import * as contract from '@glenfold/contract';
import {
  IssuedProgramAnswer,
  type LabReportAnswer,
  type LabResultAnswer,
  type SiteStateAnswer,
  type ZoneProgramAnswer,
  problemFields,
} from '@glenfold/contract';
import { plainToInstance } from 'class-transformer';
import { validateSync } from 'class-validator';
import { get, send, siteOf, useDemoServer, zoneOf } from './client.ts';

const server = useDemoServer();

type Answer = new () => object;

/** Faults of an answer against its contract class, names it does not know included. */
function faults(kind: Answer, body: unknown): unknown {
  const bodies = Array.isArray(body) ? (body as object[]) : [body as object];
  expect(bodies.length).toBeGreaterThan(0);
  return bodies.flatMap((one) =>
    problemFields(validateSync(plainToInstance(kind, one), { whitelist: true, forbidNonWhitelisted: true })),
  );
}

interface Description {
  readonly paths: Readonly<
    Record<
      string,
      Readonly<
        Record<
          string,
          {
            readonly parameters?: ReadonlyArray<{ readonly name: string }>;
            readonly responses: Readonly<Record<string, { readonly content?: Readonly<Record<string, Content>> }>>;
          }
        >
      >
    >
  >;
}
interface Content {
  readonly schema: { readonly $ref?: string; readonly items?: { readonly $ref?: string } };
}

/** The contract class that an address answers with by the description, or a list of it. */
function answerOf(content: Content | undefined): Answer | undefined {
  const name = (content?.schema.$ref ?? content?.schema.items?.$ref)?.split('/').at(-1);
  return name === undefined ? undefined : (contract as unknown as Readonly<Record<string, Answer>>)[name];
}

describe('every answer is what its contract says', () => {
  let description: Description;
  beforeAll(async () => {
    await send('post', '/invitations', { email: 'new@p.example', role: 'advisor', siteIds: [] });
    await send('post', `/sites/${(await siteOf('Gannet')).id}/share-links`, { purpose: 'Trustees', days: 7 });
    description = await get<Description>('/openapi.json');
  });

  it('at every address of the description that is read', async () => {
    const [gannet, harbour] = [await siteOf('Gannet'), await siteOf('Harbour')];
    const zone = await zoneOf('Harbour', 'HS-1');
    const [job] = (await get<contract.SeasonAnswer>(`/sites/${gannet.id}/season?units=us`)).jobs as [
      contract.JobAnswer,
    ];
    const bag = (await get<contract.BoardAnswer>('/bags')).bags[0]!;
    const fill = (address: string, siteId: string): string =>
      address
        .replace('/api', '')
        .replace('{siteId}', siteId)
        .replace('{zoneId}', zone.id)
        .replace('{bagId}', bag.id)
        .replace('{code}', bag.code)
        .replace('{jobId}', job.id);
    const unfilled: string[] = [];
    let asked = 0;
    for (const [address, { get: operation }] of Object.entries(description.paths)) {
      const kind = answerOf(operation?.responses['200']?.content?.['application/json']);
      if (!kind) continue;
      for (const site of [gannet, harbour]) {
        const path = fill(address, site.id);
        if (path.includes('{')) {
          unfilled.push(address);
          break;
        }
        const inUnits = operation?.parameters?.some(({ name }) => name === 'units');
        for (const query of inUnits ? ['?units=us', '?units=metric'] : ['']) {
          const body = await get<unknown>(`${path}${query}`);
          asked += 1;
          if (Array.isArray(body) && body.length === 0) continue;
          expect([address, faults(kind, body)]).toEqual([address, []]);
        }
        if (!address.includes('{siteId}')) break;
      }
    }
    // Links that work once are tried where they are made.
    expect(unfilled.filter((address) => !address.includes('{token}'))).toEqual([]);
    expect(asked).toBeGreaterThan(20);
  });

  it('POST a program', async () => {
    const zone = await zoneOf('Harbour', 'HS-1');
    expect(
      faults(
        IssuedProgramAnswer,
        await send('post', `/sites/${zone.siteId}/programs?units=metric`, { zoneIds: [zone.id] }),
      ),
    ).toEqual([]);
  });

  it('and no route is left out of the description', async () => {
    const { paths } = await get<{
      paths: Record<string, Record<string, { responses: Record<string, { content?: Record<string, unknown> }> }>>;
    }>('/openapi.json');
    for (const [path, operations] of Object.entries(paths)) {
      for (const [method, { responses }] of Object.entries(operations)) {
        const [status, success] = Object.entries(responses).find(([code]) => code.startsWith('2')) ?? [];
        const described = status === '204' || Object.keys(success?.content ?? {}).length > 0;
        expect([method, path, described, 'default' in responses]).toEqual([method, path, true, true]);
      }
    }
  });
});

describe('the server', () => {
  it('allows the browser nothing from elsewhere', async () => {
    const { headers } = await server.owner().ask('get', '/practice');
    const policy = headers['content-security-policy'] ?? '';
    expect(policy).toContain("default-src 'self'");
    expect(policy).toContain("script-src 'self'");
    expect(policy).toContain("object-src 'none'");
    expect(policy).toMatch(/style-src 'self' 'nonce-[\w+/=]{24}'/);
    expect(policy).toContain("frame-ancestors 'none'");
    expect(policy).not.toMatch(/https:|\*|unsafe/);
    expect(headers).not.toHaveProperty('x-powered-by');
  });

  it('keeps its faults to itself', async () => {
    const zone = await zoneOf('Harbour', 'HS-2');
    // A grass that no table holds can only come from a damaged database.
    await server.current().sql(`UPDATE zone SET grass = 'moss' WHERE id = $1`, [zone.id]);
    const response = await server.owner().ask('get', `/zones/${zone.id}/program?units=us`);
    await server.current().sql(`UPDATE zone SET grass = $2 WHERE id = $1`, [zone.id, zone.grass]);
    expect(response.status).toBe(500);
    expect(response.body).toEqual({
      type: 'about:blank',
      title: 'Something broke here',
      status: 500,
      detail: 'This is our fault, not yours. Nothing was changed; try again.',
      instance: `/api/zones/${zone.id}/program`,
      errors: [],
    });
  });

  it('writes a file’s results all together or not at all', async () => {
    const site = await siteOf('Gannet');
    const file = { fileName: 'two.csv', content: 'Sample,pH,Depth in,K Mehlich 3 ppm\nGR-1,5.6,6,70\nGR-2,6.1,6,61\n' };
    const { id } = await send<LabReportAnswer>('post', `/sites/${site.id}/lab-reports`, file);
    const count = async (): Promise<number> => (await get<LabResultAnswer[]>(`/sites/${site.id}/lab-results`)).length;
    const before = await count();
    // The second row meets a rule of the database that the first did not.
    await server.current().sql(`ALTER TABLE measurement ADD CONSTRAINT not_this CHECK (value <> 6.1)`);
    await send('post', `/lab-reports/${id}/confirm`, undefined, 500);
    expect(await count()).toBe(before);
    await server.current().sql(`ALTER TABLE measurement DROP CONSTRAINT not_this`);
    await send('post', `/lab-reports/${id}/confirm`);
    expect(await count()).toBe(before + 2);
  });

  it('takes the newest sampling date, not the last entry, as a zone’s test', async () => {
    const zone = await zoneOf('Harbour', 'HS-3');
    const { result: now } = await get<ZoneProgramAnswer>(`/zones/${zone.id}/program?units=us`);
    await send('post', '/lab-results', {
      zoneIds: [zone.id],
      label: 'old',
      sampledOn: '2019-10-01',
      depth: 15,
      extractant: 'mehlich-3',
      values: { soilPh: { value: 4.4, unit: 'pH', basis: 'element' } },
    });
    expect((await get<ZoneProgramAnswer>(`/zones/${zone.id}/program?units=us`)).result!.id).toBe(now!.id);
    const newest = await send<LabResultAnswer>('post', '/lab-results', {
      zoneIds: [zone.id],
      label: 'new',
      sampledOn: '2026-11-01',
      depth: 15,
      extractant: 'mehlich-3',
      values: { soilPh: { value: 6.9, unit: 'pH', basis: 'element' } },
    });
    expect((await get<ZoneProgramAnswer>(`/zones/${zone.id}/program?units=us`)).result!.id).toBe(newest.id);
    expect((await siteStates(zone.siteId)).rates).toBe('1 of 5 handed over');
  });
});

async function siteStates(siteId: string): Promise<Record<string, string>> {
  const { steps } = await get<SiteStateAnswer>(`/sites/${siteId}/state`);
  return Object.fromEntries(steps.map(({ step, words }) => [step, words]));
}
