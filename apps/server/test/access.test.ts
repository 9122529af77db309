import { type Role, roles } from '@glenfold/contract';
import { Controller, Get, type INestApplication, Module } from '@nestjs/common';
import { APP_GUARD } from '@nestjs/core';
import { Test } from '@nestjs/testing';
import { jest } from '@jest/globals';
import supertest from 'supertest';
import { csrfOf } from '../src/people/secrets.ts';
import { SessionService } from '../src/people/session.service.ts';
import { Door } from '../src/platform/door.ts';
import { For, Gate } from '../src/platform/gate.ts';
import { Settings } from '../src/platform/settings.ts';
import { typed } from './client.ts';
import { type TestServer, demoEmails, demoPassword, startServer } from './harness.ts';

jest.setTimeout(120_000);

/** Ids that addresses and bodies are filled with. */
type Ids = Readonly<
  Record<
    | 'siteId'
    | 'zoneId'
    | 'resultId'
    | 'importId'
    | 'productId'
    | 'planId'
    | 'memberId'
    | 'invitationId'
    | 'linkId'
    | 'mailId',
    string
  >
>;

type Method = 'GET' | 'POST' | 'PUT' | 'DELETE';
type Who = Role | 'nobody';

interface Route {
  /** owner, advisor, technician, client, nobody: the first letters of those who are let in. */
  readonly for: string;
  /** Which record the address is about. */
  readonly id?: keyof Ids;
  readonly body?: (ids: Ids) => object;
  /** Nothing in it belongs to a practice, or what does is the asker's own. */
  readonly ownOnly?: true;
}

const zoneBody = {
  name: 'Strip',
  label: 'X',
  area: 9,
  grass: 'tall fescue',
  surface: 'turf',
  intensity: 'low',
  shade: 'part',
  clippings: 'removed',
};
const result = ({ zoneId }: Ids) => typed({ id: zoneId, label: 'X' });
const nobodyThere = 'A'.repeat(43);

/** Every route, and everybody who may use it. Read it as the promise of who sees what. */
const promised: Readonly<Record<string, Route>> = {
  'GET /openapi.json': { for: 'OATCN', ownOnly: true },
  'GET /session': { for: 'OATCN', ownOnly: true },
  'POST /session': { for: 'OATCN', ownOnly: true, body: () => ({ email: demoEmails.owner, password: demoPassword }) },
  'POST /demo/session': { for: 'OATCN', ownOnly: true, body: () => ({ personId: '' }) },
  'POST /first-run': {
    for: 'OATCN',
    ownOnly: true,
    body: () => ({ practice: 'P', name: 'N', email: 'n@p.example', password: 'long enough words' }),
  },
  'POST /first-run/load': { for: 'OATCN', ownOnly: true },
  'POST /password-resets': { for: 'OATCN', ownOnly: true, body: () => ({ email: 'nobody@p.example' }) },
  'GET /password-resets/:token': { for: 'OATCN', ownOnly: true },
  'PUT /password-resets/:token': { for: 'OATCN', ownOnly: true, body: () => ({ password: 'long enough words' }) },
  'GET /invitations/:token/offer': { for: 'OATCN', ownOnly: true },
  'PUT /invitations/:token/offer': { for: 'OATCN', ownOnly: true, body: () => ({ password: 'long enough words' }) },
  'GET /shared/:token': { for: 'OATCN', ownOnly: true },
  'GET /shared/:token/plans/:planId/plan.pdf': { for: 'OATCN', ownOnly: true },

  'DELETE /session': { for: 'OATC', ownOnly: true },
  'DELETE /sessions': { for: 'OATC', ownOnly: true },
  'PUT /session/practice': { for: 'OATC', ownOnly: true, body: () => ({ practiceId: brackwater }) },
  'PUT /session/password': {
    for: 'OATC',
    ownOnly: true,
    body: () => ({ current: 'x', password: 'long enough words' }),
  },

  'GET /reports': { for: 'OATC', ownOnly: true },
  'GET /sites/:siteId/report': { for: 'OATC' },
  'GET /sites/:siteId/report/plans/:planId/plan.pdf': { for: 'OATC' },

  'GET /rounds': { for: 'OAT', ownOnly: true },
  'GET /sites': { for: 'OAT', ownOnly: true },
  'GET /sites/:siteId': { for: 'OAT' },
  'GET /sites/:siteId/state': { for: 'OAT' },
  'GET /sites/:siteId/zones': { for: 'OAT' },
  'GET /sites/:siteId/lab-results': { for: 'OAT' },
  'GET /sites/:siteId/lab-imports': { for: 'OAT' },
  'GET /zones/:zoneId/plan': { for: 'OAT' },
  'GET /plans/:planId/plan.pdf': { for: 'OAT' },
  'PUT /zones/:zoneId/measurements': { for: 'OAT', body: () => ({ thatch: 1 }) },

  'GET /products': { for: 'OA', ownOnly: true },
  'PUT /products/:id': { for: 'OA', id: 'productId', body: () => ({ bagMass: 20, bagPrice: 9 }) },
  'POST /sites': { for: 'OA', ownOnly: true, body: () => ({ name: 'New' }) },
  'PUT /sites/:siteId': { for: 'OA', body: () => ({ name: 'Renamed' }) },
  'POST /sites/:siteId/zones': { for: 'OA', body: () => ({ ...zoneBody, label: `X${(count += 1)}` }) },
  'PUT /zones/:zoneId': { for: 'OA', body: () => zoneBody },
  'POST /lab-results': { for: 'OA', body: result },
  'PUT /lab-results/:id': { for: 'OA', id: 'resultId', body: result },
  'POST /sites/:siteId/lab-imports': { for: 'OA', body: () => ({ fileName: 'a.csv', content: 'Sample,pH\nX,6.1\n' }) },
  'PUT /lab-imports/:id': { for: 'OA', id: 'importId', body: () => ({ columns: [], rows: [] }) },
  'POST /lab-imports/:id/confirm': { for: 'OA', id: 'importId' },
  'PUT /zones/:zoneId/plan/choices': { for: 'OA', body: () => ({}) },
  'POST /zones/:zoneId/plans': { for: 'OA' },
  'GET /sites/:siteId/share-links': { for: 'OA' },
  'POST /sites/:siteId/share-links': { for: 'OA', body: () => ({ purpose: 'Trustees', days: 3 }) },
  'DELETE /share-links/:id': { for: 'OA', id: 'linkId' },
  'DELETE /lab-imports/:id': { for: 'OA', id: 'importId' },
  'POST /lab-imports/:id/restore': { for: 'OA', id: 'importId' },
  'DELETE /lab-results/:id': { for: 'OA', id: 'resultId' },
  'POST /lab-results/:id/restore': { for: 'OA', id: 'resultId' },
  'DELETE /zones/:zoneId': { for: 'OA' },
  'POST /zones/:zoneId/restore': { for: 'OA' },
  'DELETE /sites/:siteId': { for: 'OA' },
  'POST /sites/:siteId/restore': { for: 'OA' },

  'GET /practice': { for: 'O', ownOnly: true },
  'PUT /practice': { for: 'O', ownOnly: true, body: () => ({ name: 'Brackwater' }) },
  'GET /practice/export': { for: 'O', ownOnly: true },
  'GET /audit': { for: 'O', ownOnly: true },
  'GET /outbox': { for: 'O', ownOnly: true },
  'POST /outbox/:id/send': { for: 'O', id: 'mailId' },
  'GET /members': { for: 'O', ownOnly: true },
  'PUT /members/:id': { for: 'O', id: 'memberId', body: () => ({ role: 'advisor', siteIds: [] }) },
  'POST /members/:id/password-reset': { for: 'O', id: 'memberId' },
  'DELETE /members/:id': { for: 'O', id: 'memberId' },
  'POST /members/:id/restore': { for: 'O', id: 'memberId' },
  'GET /invitations': { for: 'O', ownOnly: true },
  'POST /invitations': {
    for: 'O',
    ownOnly: true,
    body: () => ({ email: 'new@p.example', role: 'advisor', siteIds: [] }),
  },
  'DELETE /invitations/:id': { for: 'O', id: 'invitationId' },
};

let server: TestServer;
let brackwater: string;
let count = 0;

const one = async (sql: string, values: unknown[] = []): Promise<string> => {
  const [row] = await server.sql<{ id: string }>(sql, values);
  if (!row) throw new Error(`No row: ${sql}`);
  return row.id;
};

/** A practice's records of each kind, for one asker to work on. */
async function records(practiceId: string): Promise<Ids> {
  const add = (table: string, values: Readonly<Record<string, unknown>>): Promise<string> => {
    const all = { practiceId, ...values };
    const names = Object.keys(all).map((name) => `"${name}"`);
    const places = names.map((_name, index) => `$${index + 1}`);
    return one(`INSERT INTO ${table} (${names.join()}) VALUES (${places.join()}) RETURNING id`, Object.values(all));
  };
  count += 1;
  const siteId = await add('site', { name: `Site ${count}` });
  const zoneId = await add('zone', { ...zoneBody, siteId, position: 1 });
  const sampleId = await add('sample', { siteId, zoneId, label: 'X', depth: 15 });
  const resultId = await add('lab_result', {
    sampleId,
    zoneId,
    extractant: 'mehlich-3',
    soilPh: 5.9,
    nutrients: {},
    origin: 'typed',
  });
  const [{ issued } = { issued: {} }] = await server.sql<{ issued: object }>(
    'SELECT issued FROM plan WHERE issued IS NOT NULL LIMIT 1',
  );
  const personId = await one(`INSERT INTO person (email, name) VALUES ($1, 'Spare') RETURNING id`, [
    `spare${count}@p.example`,
  ]);
  const end = new Date(Date.now() + 86_400_000);
  return {
    siteId,
    zoneId,
    resultId,
    importId: await add('lab_import', {
      siteId,
      fileName: 'a.csv',
      content: 'Sample,pH,Depth cm,K Mehlich 3 ppm\nX,6.1,10,44\n',
      extractant: 'mehlich-3',
    }),
    productId: await add('product', {
      position: 1,
      name: 'P',
      purpose: 'potassium',
      grade: { n: 0, p2o5: 0, k2o: 50 },
      slowRelease: 0,
      bagMass: 25,
    }),
    planId: await add('plan', { zoneId, issuedAt: new Date(), issued, labResultId: resultId }),
    memberId: await add('membership', { personId, role: 'technician' }),
    invitationId: await add('invitation', {
      email: 'x@p.example',
      role: 'advisor',
      invitedBy: 'O',
      tokenHash: `i${count}`,
      expiresAt: end,
    }),
    linkId: await add('share_link', { siteId, purpose: 'P', madeBy: 'O', tokenHash: `s${count}`, expiresAt: end }),
    mailId: await add('mail', { to: 'x@p.example', subject: 'S', text: 'T' }),
  };
}

/** Ask a route as somebody, in a session of its own. @returns the status, or the title of a refusal of the gate */
async function ask(name: string, route: Route, who: Who, ids: Ids): Promise<number> {
  const [method, pattern] = name.split(' ') as [Method, string];
  const path = pattern.replace(/:(\w+)/g, (_whole, key: string) =>
    key === 'token' ? nobodyThere : ids[(key === 'id' ? route.id : key) as keyof Ids],
  );
  const request = supertest(server.app.getHttpServer())
    [method.toLowerCase() as 'get'](`/api${path}${/\/plan(s|\/choices)?$/.test(path) ? '?units=us' : ''}`)
    .set('if-match', `"${method === 'PUT' ? await versionAt(path, route, ids) : 1}"`);
  if (who !== 'nobody') {
    const personId = await one('SELECT id FROM person WHERE email = $1', [demoEmails[who]]);
    const token = await server.app
      .get(Door)
      .open((manager) => server.app.get(SessionService, { strict: false }).begin(manager, personId, brackwater));
    void request.set('cookie', `glenfold_session=${token}`).set('x-csrf-token', csrfOf(token));
  }
  const body =
    name === 'POST /demo/session'
      ? { personId: await one('SELECT id FROM person WHERE email = $1', [demoEmails.client]) }
      : route.body?.(ids);
  return (await (body ? request.send(body) : request)).status;
}

/** The version that stands now: it is not what is tested here. */
async function versionAt(path: string, { id }: Route, ids: Ids): Promise<number> {
  const tables = {
    siteId: 'site',
    zoneId: 'zone',
    resultId: 'lab_result',
    importId: 'lab_import',
    productId: 'product',
    memberId: 'membership',
  };
  const key = id ?? (path.startsWith('/zones') ? 'zoneId' : 'siteId');
  const choices = path.includes('/choices');
  const [table, recordId] = path === '/practice' ? ['practice', brackwater] : [tables[key as 'siteId'], ids[key]];
  const [row] = await server.sql<{ version: number }>(
    choices
      ? `SELECT version FROM plan WHERE "zoneId" = $1 AND "issuedAt" IS NULL`
      : `SELECT version FROM ${table} WHERE id = $1`,
    [recordId],
  );
  return row?.version ?? 0;
}

const letter = (who: Who): string => who.charAt(0).toUpperCase();
const everybody: readonly Who[] = [...roles, 'nobody'];

/** Every route the application answers, as its router knows them. */
function routesServed({ app }: TestServer): string[] {
  interface Layer {
    readonly route?: { readonly path: string; readonly methods: Readonly<Record<string, boolean>> };
  }
  const { router } = app.getHttpAdapter().getInstance() as { readonly router: { readonly stack: readonly Layer[] } };
  const routes = router.stack.flatMap(({ route }) =>
    route
      ? Object.keys(route.methods).map((method) => `${method.toUpperCase()} ${route.path.replace(/^\/api/, '')}`)
      : [],
  );
  // What Nest mounts for its middleware has no path of its own.
  return routes.filter((name) => name.includes('/'));
}

beforeAll(async () => {
  server = await startServer({ empty: false });
  brackwater = await one(`SELECT id FROM practice WHERE name LIKE 'Brackwater%'`);
});
afterAll(() => server.close());

describe('every route', () => {
  it('stands in the table', () => {
    expect(routesServed(server).sort()).toEqual(Object.keys(promised).sort());
  });

  it('lets in whom the table names, and refuses everybody else', async () => {
    const found: Record<string, string> = {};
    for (const who of everybody) {
      const own = await records(brackwater);
      await server.sql(`UPDATE membership SET "siteIds" = $1 WHERE role = 'client'`, [JSON.stringify([own.siteId])]);
      for (const [name, route] of Object.entries(promised)) {
        const status = await ask(name, route, who, own);
        const refused = status === (who === 'nobody' ? 401 : 403);
        // What is let in may still be told that its input is wrong, or that its link is unknown.
        const answered =
          status < 500 && ![401, 403, 428].includes(status) && (status !== 404 || name.includes(':token'));
        found[name] = (found[name] ?? '') + (refused ? '' : answered ? letter(who) : ` ${who} ${status}`);
      }
    }
    expect(found).toEqual(Object.fromEntries(Object.entries(promised).map(([name, route]) => [name, route.for])));
  });

  it('answers 404 for another practice’s records to those it lets in, and tells the others nothing more', async () => {
    const theirs = await records(await one(`SELECT id FROM practice WHERE name LIKE 'Ferry%'`));
    const found: Record<string, string> = {};
    const wanted: Record<string, string> = {};
    for (const [name, route] of Object.entries(promised)) {
      if (route.ownOnly) continue;
      const statuses = [];
      for (const who of everybody) statuses.push(`${letter(who)}${await ask(name, route, who, theirs)}`);
      found[name] = statuses.join(' ');
      wanted[name] = everybody
        .map((who) => `${letter(who)}${route.for.includes(letter(who)) ? 404 : who === 'nobody' ? 401 : 403}`)
        .join(' ');
    }
    expect(found).toEqual(wanted);
  });

  it('shows a client the sites shared with them, and no other of the practice', async () => {
    const hidden = await records(brackwater);
    for (const name of ['GET /sites/:siteId/report', 'GET /sites/:siteId/report/plans/:planId/plan.pdf'])
      expect(await ask(name, promised[name]!, 'client', hidden)).toBe(404);
  });
});

describe('a route that states no permission', () => {
  it('is closed to everybody', async () => {
    @Controller()
    class Forgotten {
      @Get('forgotten')
      read(): string {
        return 'seen';
      }

      @Get('stated')
      @For('anyone')
      stated(): string {
        return 'seen';
      }
    }
    @Module({
      controllers: [Forgotten],
      providers: [
        { provide: APP_GUARD, useClass: Gate },
        { provide: Settings, useValue: { address: 'http://127.0.0.1' } },
      ],
    })
    class Careless {}
    const app: INestApplication = (
      await Test.createTestingModule({ imports: [Careless] }).compile()
    ).createNestApplication();
    await app.init();
    const http = supertest(app.getHttpServer() as Parameters<typeof supertest>[0]);
    expect([(await http.get('/forgotten')).status, (await http.get('/stated')).status]).toEqual([403, 200]);
    await app.close();
  });
});
