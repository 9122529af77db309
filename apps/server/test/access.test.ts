import { randomUUID } from 'node:crypto';
import { roles } from '@glenfold/contract';
import { Controller, Get, type INestApplication, Module } from '@nestjs/common';
import { APP_GUARD } from '@nestjs/core';
import { Test } from '@nestjs/testing';
import supertest from 'supertest';
import { csrfOf } from '../src/people/secrets.ts';
import { SessionService } from '../src/people/session.service.ts';
import { Door } from '../src/platform/door.ts';
import { For, Gate } from '../src/platform/gate.ts';
import { Installation } from '../src/platform/installation.ts';
import { type TestServer, demoEmails, startServer } from './harness.ts';
import { profileBody } from './promisedLabRoutes.ts';
import {
  type Ids,
  type Method,
  type Route,
  type Who,
  bagBody,
  laboratoryBody,
  lying,
  nobodyThere,
  picture,
  promised,
  result,
  zoneBody,
} from './promisedRoutes.ts';

/** A report for an owner with nothing in it, as the database keeps it. */
const madeReport = (): string =>
  JSON.stringify({
    report: { first: [], pages: [], cost: null, unpriced: [], saved: null, letter: 'Dear owner, nothing presses.' },
    ...{ siteName: 'X', place: null, practiceName: 'Y', outlines: [], photos: [] },
  });

let server: TestServer;
let brackwater: string;
let strangers: string;
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
  const sampleId = await add('sample', { siteId, label: 'X', depth: 15 });
  await add('sample_zone', { sampleId, zoneId });
  const resultId = await add('lab_result', {
    sampleId,
    extractant: 'mehlich-3',
    origin: 'typed',
  });
  await add('measurement', { sampleId, resultId, analyte: 'soilPh', value: 5.9, unit: 'pH' });
  const [{ issued } = { issued: {} }] = await server.sql<{ issued: object }>('SELECT issued FROM program_zone LIMIT 1');
  const programId = await add('program', { siteId, state: 'handed over', handedOverAt: new Date(), units: 'us' });
  const quoteId = await add('quote', {
    ...{ siteId, state: 'answered', offeredAt: new Date(), validUntil: '2999-12-31', units: 'us', currency: '$' },
    answeredAt: new Date(),
  });
  const words = { zone: 'X', name: 'Lime', words: '', amount: '', doneIn: '' };
  const personId = await one(`INSERT INTO person (email, name) VALUES ($1, 'Spare') RETURNING id`, [
    `spare${count}@p.example`,
  ]);
  const end = new Date(Date.now() + 86_400_000);
  const { cores: _cores, ...bag } = bagBody(zoneId);
  const asJson = { panels: JSON.stringify(bag.panels), zoneIds: JSON.stringify([zoneId]) };
  const bagId = await add('bag', { ...bag, ...asJson, siteId, code: `C${count}`, state: 'planned', since: new Date() });
  return {
    practiceId,
    siteId,
    zoneId,
    resultId,
    bagId,
    coreId: await add('core', { bagId, zoneId, number: 1, turn: 1, state: 'waiting' }),
    importId: await add('lab_report', {
      siteId,
      fileName: 'a.csv',
      content: 'Sample,pH,Depth cm,K Mehlich 3 ppm\nX,6.1,10,44\n',
      extractant: 'mehlich-3',
    }),
    jobId: await add('job', {
      ...{ siteId, zoneId, programId, key: 'lime', remedy: 'lime', name: 'Lime', dose: 'application', position: 0 },
      sense: 'limeRate',
    }),
    siteDateId: await add('site_date', { siteId, name: 'Match', day: '2999-09-12' }),
    calendarLinkId: await add('calendar_link', { personId, tokenHash: `c${count}` }),
    photoId: await add('zone_photo', { zoneId, ...picture }),
    underlayId: await add('underlay', {
      siteId: await add('site', { name: `Site ${count}, with a photo from the air` }),
      ...picture,
      name: 'grey.png',
      width: 1,
      height: 1,
      matches: JSON.stringify(lying.matches),
      opacity: 0.5,
    }),
    laboratoryId: await add('laboratory', {
      ...laboratoryBody,
      name: `L${count}`,
      depths: JSON.stringify(laboratoryBody.depths),
      fees: JSON.stringify(laboratoryBody.fees),
    }),
    productId: await add('product', {
      position: 1,
      name: 'P',
      kind: 'fertilizer',
      analysis: { k2o: 50 },
      packSize: 25,
    }),
    machineId: await add('machine', { name: `M${count}`, kind: 'roller' }),
    profileId: await add('lab_profile', { name: `W${count}`, columns: JSON.stringify(profileBody.columns) }),
    questionId: await add('lab_question', { siteId, zoneId, askedOn: '2026-10-01', question: 'Why?' }),
    fieldTestId: await add('field_test', {
      ...{ siteId, zoneId, kind: 'probe', on: '2026-10-01', record: { stops: [12] }, revision: 1 },
    }),
    loadCheckId: await add('load_check', { siteId, kind: 'sand', on: '2026-10-01', name: 'Sand', record: {} }),
    settingId: await add('setting', { kind: 'caps', name: 'Caps', siteId, value: { limeOnce: 90 } }),
    programId,
    quoteId,
    ownerDraftId: await add('owner_report', {
      // Of another site: asking anew for this one lets its drafts go.
      siteId: await add('site', { name: `Site ${count}, with a report` }),
      state: 'draft',
      units: 'us',
      letter: 'Dear owner, as it is.',
      made: madeReport(),
      madeOn: '2026-10-01',
    }),
    ownerReportId: await add('owner_report', {
      siteId,
      state: 'handed over',
      units: 'us',
      made: madeReport(),
      madeOn: '2026-10-01',
      handedOverAt: new Date(),
    }),
    quoteLineId: await add('quote_line', { ...words, quoteId, zoneId, position: 0, key: 'lime', remedy: 'lime' }),
    planId: await add('program_zone', { programId, zoneId, issuedAt: new Date(), issued, labResultId: resultId }),
    memberId: await add('membership', { personId, role: 'technician' }),
    invitationId: await add('invitation', {
      email: 'x@p.example',
      role: 'advisor',
      invitedBy: 'O',
      tokenHash: `i${count}`,
      expiresAt: end,
    }),
    messageId: await add('message', { siteId, author: 'H', side: 'client', words: 'When?', at: new Date() }),
    linkId: await add('share_link', { siteId, purpose: 'P', madeBy: 'O', tokenHash: `s${count}`, expiresAt: end }),
    runId: await add('run', { kind: `K${count}`, title: 'T', state: 'failed' }),
    endedRunId: await add('run', { kind: `E${count}`, title: 'T', state: 'done' }),
    mailId: await add('mail', { to: 'x@p.example', subject: 'S', text: 'T' }),
  };
}

/** Pieces of addresses that are no record’s. */
const fixed: Readonly<Record<string, string>> = {
  kind: 'caps',
  key: 'potassium',
  step: 'machines',
  token: nobodyThere,
  code: 'K7F-4Q',
};

/** Ask a route as somebody, in a session of its own. @returns the status, or the title of a refusal of the gate */
async function ask(name: string, route: Route, who: Who, ids: Ids): Promise<number> {
  const [method, pattern] = name.split(' ') as [Method, string];
  const path = pattern.replace(
    /:(\w+)/g,
    (_whole, key: string) => fixed[key] ?? ids[(key === 'id' ? route.id : key) as keyof Ids],
  );
  const request = supertest(server.app.getHttpServer())
    [method.toLowerCase() as 'get'](
      `/api${path}${route.query ? `?${route.query(ids)}` : /\/(drawing|program)(s|\.pdf|\.svg)?$/.test(path) ? '?units=us' : ''}`,
    )
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
    importId: 'lab_report',
    productId: 'product',
    laboratoryId: 'laboratory',
    machineId: 'machine',
    profileId: 'lab_profile',
    questionId: 'lab_question',
    memberId: 'membership',
    jobId: 'job',
    ownerDraftId: 'owner_report',
  };
  const key = id ?? (path.startsWith('/zones') ? 'zoneId' : 'siteId');
  const treatment = path.includes('/treatments/');
  const [table, recordId] = path === '/practice' ? ['practice', brackwater] : [tables[key as 'siteId'], ids[key]];
  const [row] = await server.sql<{ version: number }>(
    treatment
      ? `SELECT version FROM treatment WHERE "zoneId" = $1 AND "key" = 'potassium' AND "deletedAt" IS NULL`
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
  return routes.filter((name) => name.includes('/') && !name.includes('{/*splat}'));
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

const entryOf = (zoneId: string, more: object = {}) => ({
  ...{ id: randomUUID(), zoneId, on: '2026-05', kind: 'lime', state: 'done', words: 'stray', ...more },
});

describe('another practice’s ids inside a body', () => {
  it.each<readonly [string, (own: Ids, theirs: Ids) => readonly [route: string, ids: Ids, body: object]]>([
    ['the zone of a result', (own, theirs) => ['POST /lab-results', own, { ...result(theirs), label: 'stray' }]],
    ['the zone a result is moved to', (own, theirs) => ['PUT /lab-results/:id', own, result(theirs)]],
    [
      'the zone of a row of a file',
      (own, theirs) => ['PUT /lab-reports/:id', own, { columns: [], rows: [{ line: 2, zoneId: theirs.zoneId }] }],
    ],
    [
      'a product chosen for a zone',
      (own, theirs) => [
        'PUT /zones/:zoneId/program/treatments/:key',
        own,
        { remedy: 'potassium', reason: 'stray', values: { material: theirs.productId } },
      ],
    ],
    [
      'the sites of a client',
      (own, theirs) => ['PUT /members/:id', own, { role: 'client', siteIds: [own.siteId, theirs.siteId] }],
    ],
    [
      'the sites of somebody invited',
      (own, theirs) => [
        'POST /invitations',
        own,
        { email: 'stray@p.example', role: 'client', siteIds: [theirs.siteId] },
      ],
    ],
    ['the zone of an entry', (own, theirs) => ['POST /entries', own, entryOf(theirs.zoneId)]],
    [
      'the product of an entry',
      (own, theirs) => ['POST /entries', own, entryOf(own.zoneId, { productId: theirs.productId })],
    ],
    ['the machine of a job', (own, theirs) => ['PUT /jobs/:jobId/crew', own, { machineId: theirs.machineId }]],
    ['the practice that is switched to', (own) => ['PUT /session/practice', own, { practiceId: strangers }]],
  ])('%s is refused, and nothing of theirs changes', async (_what, make) => {
    strangers = await one(`INSERT INTO practice (name) VALUES ('Strangers') RETURNING id`);
    const [own, theirs] = [await records(brackwater), await records(strangers)];
    const before = await server.sql('SELECT t::text FROM zone t, treatment p WHERE t."practiceId" = $1', [strangers]);
    const [name, ids, body] = make(own, theirs);
    const status = await ask(name, { ...promised[name]!, body: () => body }, 'owner', ids);
    expect([404, 422]).toContain(status);
    expect(await server.sql('SELECT t::text FROM zone t, treatment p WHERE t."practiceId" = $1', [strangers])).toEqual(
      before,
    );
    expect(
      await server.sql(
        `SELECT result.id FROM lab_result result JOIN sample_zone own ON own."sampleId" = result."sampleId"
          WHERE result."practiceId" <> $1 AND result.origin = 'typed' AND own."zoneId" = $2 AND result.id <> $3`,
        [brackwater, theirs.zoneId, theirs.resultId],
      ),
    ).toEqual([]);
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
        { provide: Installation, useValue: { address: 'http://127.0.0.1' } },
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
