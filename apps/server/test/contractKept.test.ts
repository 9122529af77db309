import {
  type BoardAnswer,
  IssuedProgramAnswer,
  type Permission,
  allows,
  permissions,
  type JobAnswer,
  type MemberAnswer,
  type LabReportAnswer,
  type LabResultAnswer,
  type ProblemAnswer,
  type SeasonAnswer,
  type SiteStateAnswer,
  type ZoneProgramAnswer,
  problemFields,
} from '@glenfold/contract';
import { Ajv2020 } from 'ajv/dist/2020.js';
import { plainToInstance } from 'class-transformer';
import { validateSync } from 'class-validator';
import { decideTreatment, get, pdfText, send, siteOf, useDemoServer, zoneOf } from './client.ts';
import { demoEmails, signIn } from './harness.ts';

const server = useDemoServer();

type Answer = new () => object;

/** Faults of an answer against its contract class, names it does not know included. */
const faults = (kind: Answer, body: object): unknown =>
  problemFields(validateSync(plainToInstance(kind, body), { whitelist: true, forbidNonWhitelisted: true }));

/** Fields of an answer that hold an amount of money. */
function pricesIn(value: unknown, at = ''): string[] {
  if (typeof value === 'number') return /(price|cost|saved|fee|stake|haul|hireDay|total)$/i.test(at) && !at.includes('balance') ? [`${at} ${value}`] : []; // prettier-ignore
  if (typeof value !== 'object' || value === null) return [];
  return Object.entries(value).flatMap(([key, inner]) => pricesIn(inner, Array.isArray(value) ? at : `${at}.${key}`));
}

interface Operation {
  readonly summary?: string;
  readonly security: readonly object[];
  readonly 'x-permission': string;
  readonly parameters?: ReadonlyArray<{ readonly name: string; readonly in: string; readonly required?: boolean }>;
  readonly responses: Readonly<Record<string, { readonly content?: Readonly<Record<string, { schema: object }>> }>>;
}
interface Description {
  readonly openapi: string;
  readonly paths: Readonly<Record<string, Readonly<Record<string, Operation>>>>;
  readonly components: { readonly schemas: object; readonly securitySchemes: object };
}

/** Routes with their success, as `['get', '/api/sites', …]`. */
const routesOf = ({ paths }: Description) =>
  Object.entries(paths).flatMap(([path, operations]) =>
    Object.entries(operations).map(([method, operation]) => ({ method, path, operation })),
  );

describe('every answer is what the description says', () => {
  let description: Description;
  beforeAll(async () => {
    await send('post', '/invitations', { email: 'new@p.example', role: 'advisor', siteIds: [] });
    await send('post', `/sites/${(await siteOf('Gannet')).id}/share-links`, { purpose: 'Trustees', days: 7 });
    description = await get<Description>('/openapi.json');
  });

  it('at every address that is read, in the demo', async () => {
    const ajv = new Ajv2020({ strict: false, allErrors: true, validateFormats: false });
    ajv.addSchema(description, 'api');
    const sites = await Promise.all(['Gannet', 'Harbour', 'Saltpan'].map(siteOf));
    const zone = await zoneOf('Harbour', 'HS-1');
    const [job] = (await get<SeasonAnswer>(`/sites/${sites[0]!.id}/season?units=us`)).jobs as [JobAnswer];
    const bag = (await get<BoardAnswer>('/bags')).bags[0]!;
    const [member] = await get<MemberAnswer[]>('/members');
    const ids: Readonly<Record<string, string>> = { zoneId: zone.id, bagId: bag.id, code: bag.code, jobId: job.id, memberId: member!.id }; // prettier-ignore
    /** What is asked for beside an id. */
    const questions: Readonly<Record<string, string>> = {
      '/bags/submission.json': `?ids=${bag.id}`,
      '/find': '?text=lawn',
      [`/jobs/${job.id}/breaks`]: '?day=2027-04-01&units=us',
    };
    const unfilled: string[] = [];
    const wrong: unknown[] = [];
    let asked = 0;
    const check = async (kind: object, path: string): Promise<unknown> => {
      const fits = ajv.compile(
        JSON.parse(JSON.stringify(kind).replaceAll('#/components', 'api#/components')) as object,
      );
      const body = await get<unknown>(path);
      asked += 1;
      if (!fits(body)) wrong.push([path, ...(fits.errors ?? []).slice(0, 5)]);
      return body;
    };
    for (const { method, path, operation } of routesOf(description)) {
      const schema = operation.responses['200']?.content?.['application/json']?.schema;
      if (method !== 'get' || !schema || path.endsWith('/working') || path === '/api/openapi.json') continue;
      const queries = operation.parameters?.some(({ name }) => name === 'units')
        ? ['?units=us', '?units=metric']
        : [''];
      for (const site of path.includes('{siteId}') ? sites : [sites[0]!]) {
        const address = path
          .replace('/api', '')
          .replaceAll(/\{(\w+)\}/g, (whole, name: string) => (name === 'siteId' ? site.id : (ids[name] ?? whole)));
        if (address.includes('{')) {
          unfilled.push(path);
          break;
        }
        for (const query of queries) {
          const body = await check(schema, address + (questions[address] ?? query));
          // A number that opens to its working where somebody asks for it.
          const [, opens] = /"kind":"elsewhere","at":"\/api([^"]+)"/.exec(JSON.stringify(body)) ?? [];
          if (opens) await check({ $ref: '#/components/schemas/Working' }, opens);
        }
      }
    }
    expect(wrong).toEqual([]);
    // A field that the description does not know would have been found.
    const zoneOnly = JSON.parse(JSON.stringify(description.components.schemas)) as {
      ZoneAnswer: { properties: { grass?: object } };
    };
    delete zoneOnly.ZoneAnswer.properties.grass;
    ajv.addSchema({ components: { schemas: zoneOnly } }, 'less');
    expect(ajv.compile({ $ref: 'less#/components/schemas/ZoneAnswer' })(zone)).toBe(false);
    // Links that work once are tried where they are made, and what is asked with more than an id where it is built.
    expect(unfilled.filter((path) => !/token|planId|pile/.test(path))).toEqual([]);
    expect(asked).toBeGreaterThan(80);
  });

  it('and tells no amount of money to a technician, on screen or on paper', async () => {
    const technician = await signIn(server.current(), demoEmails.technician);
    const sites = await Promise.all(['Gannet'].map(siteOf));
    // The owner’s letter, the quote and what is set by hand say what things cost.
    const [site] = sites;
    const [first] = (await get<readonly { id: string }[]>(`/sites/${site!.id}/zones`)) as readonly { id: string }[];
    await decideTreatment(first!.id, 'added-fill', { remedy: 'fill', added: true, values: { soil: 'topsoil', loads: 5, pricePerVolume: '40', haul: '35' } }); // prettier-ignore
    await send('post', `/sites/${site!.id}/quotes?units=us`, { days: 30 });
    const report = { first: [], pages: [], cost: { value: 900, working: [] }, unpriced: [], saved: null, letter: 'Dear owner.' }; // prettier-ignore
    await server.current().sql(`INSERT INTO owner_report ("practiceId", "siteId", state, units, letter, made, "madeOn", "handedOverAt") SELECT "practiceId", id, 'handed over', 'us', '', $2, '2026-10-01', now() FROM site WHERE id = $1`, [site!.id, JSON.stringify({ report, ...{ siteName: 'X', place: null, practiceName: 'Y', outlines: [], photos: [] } })]); // prettier-ignore
    await server
      .current()
      .sql(`UPDATE owner_report SET letter = 'Dear owner, all of it comes to $1,234.50 this year.'`);
    const rows = await server.current().sql<{ kind: string; id: string; siteId: string }>(`
      SELECT 'ownerReport' AS kind, id, "siteId" FROM owner_report UNION ALL SELECT 'quoteId', id, "siteId" FROM quote
      UNION ALL SELECT 'planId', id, (SELECT "siteId" FROM zone WHERE zone.id = "zoneId") FROM program_zone
      UNION ALL SELECT 'programId', id, "siteId" FROM program WHERE state = 'handed over' UNION ALL SELECT 'jobId', id, "siteId" FROM job WHERE state = 'open' UNION ALL SELECT 'zoneId', id, "siteId" FROM zone`); // prettier-ignore
    expect(new Set(rows.map(({ kind }) => kind)).size).toBe(6);
    const told: string[] = [];
    let read = 0;
    for (const { method, path, operation } of routesOf(description)) {
      const demand = operation['x-permission'] as Permission;
      if (method !== 'get' || !(demand in permissions) || !allows('technician', demand) || /token|working|image/.test(path)) continue; // prettier-ignore
      for (const { id: siteId } of sites) {
        const own = (name: string): string | undefined =>
          name === 'siteId' ? siteId : rows.find((row) => row.siteId === siteId && row.kind === (name === 'id' ? 'ownerReport' : name))?.id; // prettier-ignore
        const address = path.replace('/api', '').replaceAll(/\{(\w+)\}/g, (whole, name: string) => own(name) ?? whole);
        if (address.includes('{')) continue;
        const units = operation.parameters?.some(({ name }) => name === 'units') ? '?units=us' : '';
        const response = await technician.ask('get', address + units).buffer(true);
        if (response.status !== 200) continue;
        read += 1;
        const paper = response.headers['content-type']?.includes('pdf') ?? false;
        const text = paper ? pdfText(response.body as Buffer) : response.text;
        const [found] = /.{0,60}[$€£] ?\d[\d,.]*/.exec(text) ?? [];
        if (found) told.push(`${path}: ${found}`);
        if (response.headers['content-type']?.includes('json'))
          told.push(...pricesIn(JSON.parse(text || 'null') as unknown).map((field) => `${path}: ${field}`));
      }
    }
    expect([...new Set(told)]).toEqual([]);
    expect(read).toBeGreaterThan(35);
  });

  it('with nothing that may be anything', () => {
    const untyped = routesOf(description).flatMap(({ method, path, operation }) =>
      Object.entries(operation.responses)
        .filter(([status]) => status.startsWith('2'))
        .flatMap(([, { content = {} }]) => Object.values(content))
        .filter(
          ({ schema }) => !/\$ref|"type":"(string|array|number|boolean)"|submission.csv/.test(JSON.stringify(schema)),
        )
        .map(() => `${method} ${path}`),
    );
    expect(untyped.filter((route) => !route.endsWith('openapi.json'))).toEqual([]);
  });

  it('and no route is left out: what it is for, who may use it, how one shows who one is, what comes back', () => {
    expect(description.openapi).toMatch(/^3\.1/);
    expect(Object.keys(description.components.securitySchemes)).toEqual(['session']);
    // A key is promised where it makes something once, and nowhere else.
    const keyed = (path: string) =>
      (description.paths[path]!.post!.parameters ?? []).some(({ name }) => name === 'idempotency-key');
    expect(['/api/sites/{siteId}/bags', '/api/invitations', '/api/session'].map(keyed)).toEqual([true, false, false]);
    for (const { method, path, operation } of routesOf(description)) {
      const { responses, summary = '', security, parameters = [], 'x-permission': demand } = operation;
      const [status, success] = Object.entries(responses).find(([code]) => code.startsWith('2')) ?? [];
      const described = status === '204' || Object.keys(success?.content ?? {}).length > 0;
      const needed = parameters.filter((each) => each.in === 'header' && each.required).map(({ name }) => name);
      expect({ method, path, described, default: 'default' in responses, said: summary !== '', security, needed }).toEqual({
        ...{ method, path, described: true, default: true, said: true },
        security: demand === 'anyone' ? [] : [{ session: [] }],
        needed: demand === 'anyone' || method === 'get' ? [] : ['x-csrf-token'],
      }); // prettier-ignore
    }
  });

  it('POST a program', async () => {
    const zone = await zoneOf('Harbour', 'HS-1');
    const issued = await send<object>('post', `/sites/${zone.siteId}/programs?units=metric`, { zoneIds: [zone.id] });
    expect(faults(IssuedProgramAnswer, issued)).toEqual([]);
  });

  it('and where the units are missing it says which there are', async () => {
    const { siteId } = await zoneOf('Harbour', 'HS-1');
    const refused = await get<ProblemAnswer>(`/sites/${siteId}/season`, 400);
    expect(refused.detail).toContain('units=us or units=metric');
    expect(refused.errors).toMatchObject([{ field: 'units' }]);
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
    const body = response.body as ProblemAnswer;
    expect(body.detail).toMatch(
      /^This is our fault, not yours\. Nothing was changed; try again\. .* the log as [\w-]{36}\.$/,
    );
    expect(body).toEqual({
      type: 'about:blank',
      title: 'Something broke here',
      status: 500,
      detail: body.detail,
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
