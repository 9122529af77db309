import { type BagAnswer, type BagLineAnswer, type BoardAnswer, type CoreTapsAnswer, type PhotoAnswer, type LabReportAnswer, type ProblemAnswer, type QuoteAnswer, type QuoteOfSiteAnswer, type ZoneAnswer, zoneInput } from '@glenfold/contract'; // prettier-ignore
import fc from 'fast-check';
import pg from 'pg';
import { DataSource, QueryRunnerProviderAlreadyReleasedError } from 'typeorm';
import { ownerSource } from '../src/database.ts';
import { troubleOf } from '../src/platform/databaseTrouble.ts';
import { OneOfEach1795950000000 } from '../src/migrations/1795950000000-oneOfEach.ts';
import { migrations } from '../src/migrations/index.ts';
import type { Row } from '../src/exchange/formats.ts';
import { oneOfEach } from '../src/exchange/oneOfEach.ts';
import { get, programOf, send, siteOf, treatmentIn, until, useDemoServer, zoneOf } from './client.ts';
import { bagBody, picture } from './promisedRoutes.ts';

const server = useDemoServer();
const post = (path: string, body: object, head: Readonly<Record<string, string>> = {}) =>
  server.owner().ask('post', path, body).set(head);

/** A bag of the court with its core taken. */
async function filled(label = 'GR-1'): Promise<BagAnswer> {
  const zone = await zoneOf('Gannet', label);
  const [bag] = await send<BagAnswer[]>('post', `/sites/${zone.siteId}/bags`, { bags: [bagBody(zone.id)] }, 201);
  await send('post', '/bags/custody', { bagIds: [bag!.id], state: 'planned' }, 422);
  const at = new Date().toISOString();
  const taps = bag!.places.map(({ id: coreId }) => ({ id: crypto.randomUUID(), coreId, state: 'cored', at }));
  await send('post', '/core-taps', { sentAt: at, taps }, 200);
  return bag!;
}

it('bags that many move at once in opposite orders are moved by one after another, and nobody is told that something broke', async () => {
  const bags = [await filled(), await filled(), await filled()].map(({ id }) => id);
  const moves = Array.from({ length: 30 }, (_, turn) =>
    post('/bags/custody', {
      bagIds: turn % 2 ? bags : [...bags].reverse(),
      state: turn % 3 ? 'drying' : 'cored',
    }),
  );
  const statuses = (await Promise.all(moves)).map(({ status }) => status);
  expect(statuses.filter((status) => status !== 200 && status !== 422)).toEqual([]);
  expect(statuses).toContain(200);
  // Each step that was taken is in the history of each bag alike.
  const steps = await server
    .current()
    .sql<{ count: number }>(`SELECT count(*)::int FROM bag_custody WHERE "bagId" = ANY($1) GROUP BY "bagId"`, [bags]);
  expect(new Set(steps.map(({ count }) => count)).size).toBe(1);
});

it('two files of one bag, confirmed at once, leave one result that stands and one before it', async () => {
  const { siteId } = await zoneOf('Gannet', 'GR-1');
  for (let round = 0; round < 4; round += 1) {
    const bag = await filled();
    const file = (ph: number) => ({
      fileName: `bag ${bag.code} ${ph}.csv`,
      content: `Sample ID,Depth (in),pH (1:1 water),Mehlich-3 P (ppm)\n${bag.code},6,${ph},40\n`,
    });
    const drafts = await Promise.all(
      [5.6, 5.8].map((ph) => send<LabReportAnswer>('post', `/sites/${siteId}/lab-reports`, file(ph), 201)),
    );
    const confirmed = await Promise.all(drafts.map(({ id }) => post(`/lab-reports/${id}/confirm`, {})));
    expect(confirmed.map(({ status }) => status)).toEqual([201, 201]);
    const results = await server.current().sql<{ supersedesId: string | null }>(
      `SELECT r."supersedesId" FROM lab_result r JOIN sample s ON s.id = r."sampleId"
       WHERE s."bagId" = $1 AND r."deletedAt" IS NULL`,
      [bag.id],
    );
    expect(results.map(({ supersedesId }) => supersedesId === null).sort()).toEqual([false, true]);
  }
});

it('a laboratory’s number lands on one bag, whoever comes first', async () => {
  const bags = [await filled(), await filled()];
  const tries = await Promise.all(
    bags.map(({ id }) => server.owner().ask('put', `/bags/${id}/lab-number`, { labNumber: '26-7777' })),
  );
  expect(tries.map(({ status }) => status).sort()).toEqual([200, 422]);
  const found = (await get<BagAnswer[]>(`/sites/${(await siteOf('Gannet')).id}/bags`)).filter(
    ({ labNumber }) => labNumber === '26-7777',
  );
  expect(found).toHaveLength(1);
  const [loser] = tries.filter(({ status }) => status === 422);
  expect((loser!.body as { detail: string }).detail).toMatch(/a number is on one bag only/);
  expect((tries.find(({ status }) => status === 200)!.body as BagLineAnswer).labNumber).toBe('26-7777');
});

it('what makes something is done once, however often it is sent with one key, and told alike each time', async () => {
  const { siteId, id } = await zoneOf('Gannet', 'GR-1');
  const body = { bags: [bagBody(id)] };
  const key = { 'idempotency-key': crypto.randomUUID() };
  const before = (await get<BagAnswer[]>(`/sites/${siteId}/bags`)).length;
  const sent = await Promise.all(Array.from({ length: 10 }, () => post(`/sites/${siteId}/bags`, body, key)));
  expect(new Set(sent.map(({ status, text }) => `${status} ${text}`)).size).toBe(1);
  expect(sent[0]!.status).toBe(201);
  expect(await get<BagAnswer[]>(`/sites/${siteId}/bags`)).toHaveLength(before + 1);
  const other = await post(`/sites/${siteId}/bags`, { bags: [bagBody(id), bagBody(id)] }, key);
  expect([other.status, (other.body as ProblemAnswer).title]).toEqual([422, 'Another request']);
  expect((await post(`/sites/${siteId}/bags`, body, { 'idempotency-key': 'no' })).status).toBe(400);
});

it('a photo that is sent twenty times is one photo', async () => {
  const { id } = await zoneOf('Gannet', 'GR-1');
  const before = (await server.current().sql('SELECT id FROM zone_photo')).length;
  const photo = { id: crypto.randomUUID(), ...picture, takenOn: '2026-10-14' };
  const sent = await Promise.all(Array.from({ length: 20 }, () => post(`/zones/${id}/photos`, photo)));
  expect([...new Set(sent.map(({ status }) => status))]).toEqual([201]);
  expect(await server.current().sql('SELECT id FROM zone_photo')).toHaveLength(before + 1);
});

it('twelve who wait for one row are told that somebody saves it, and others are served meanwhile', async () => {
  const zone = await zoneOf('Gannet', 'GR-2');
  const other = new pg.Client({ connectionString: server.current().url });
  await other.connect();
  await other.query('BEGIN');
  await other.query('SELECT id FROM zone WHERE id = $1 FOR UPDATE', [zone.id]);
  const { id, siteId, version, ...rest } = zone;
  const input = zoneInput(rest as ZoneAnswer);
  const waiting = Array.from({ length: 12 }, () => server.owner().ask('put', `/zones/${id}`, input, version).then((answer) => answer)); // prettier-ignore
  const served = await get<ZoneAnswer[]>(`/sites/${siteId}/zones`);
  expect(served.some((one) => one.id === id)).toBe(true);
  const told = await Promise.all(waiting);
  await other.query('ROLLBACK');
  await other.end();
  expect(told.map(({ status }) => status)).toEqual(Array.from({ length: 12 }, () => 409));
  expect((told[0]!.body as ProblemAnswer).title).toBe('Somebody is saving this');
  expect(told[0]!.headers['retry-after']).toBeDefined();
});

it('what belongs to a deleted site is on no board, takes no touches and shows no photos; brought back, it does', async () => {
  const bag = await filled('GR-2');
  const zone = await zoneOf('Gannet', 'GR-2');
  const photo = await send<PhotoAnswer>('post', `/zones/${zone.id}/photos`, { ...picture, takenOn: '2026-10-14' });
  const onBoard = async (): Promise<boolean> =>
    (await get<BoardAnswer>('/bags?limit=100')).bags.some(({ id }) => id === bag.id);
  const touched = async (): Promise<string | undefined> => {
    const at = new Date().toISOString();
    const taps = [{ id: crypto.randomUUID(), coreId: bag.places[0]!.id, state: 'cored', at }];
    return (await send<CoreTapsAnswer>('post', '/core-taps', { sentAt: at, taps }, 200)).taps[0]?.outcome;
  };
  expect([await onBoard(), await touched()]).toEqual([true, 'taken']);
  await send('delete', `/sites/${zone.siteId}`);
  expect([await onBoard(), await touched()]).toEqual([false, 'gone']);
  await get(`/photos/${photo.id}/image`, 404);
  await get(`/zones/${zone.id}/program?units=us`, 404);
  await send('post', `/sites/${zone.siteId}/restore`);
  expect([await onBoard(), await touched()]).toEqual([true, 'taken']);
  await get(`/photos/${photo.id}/image`);
});

it('a database that goes away is told as such, and is found again', async () => {
  const elsewhere = new URL(server.current().url);
  elsewhere.pathname = 'postgres';
  const admin = new pg.Client({ connectionString: elsewhere.href });
  await admin.connect();
  const name = new URL(server.current().url).pathname.slice(1);
  await admin.query(`ALTER DATABASE ${name} ALLOW_CONNECTIONS false`);
  await admin.query(`SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = $1 AND usename = current_user AND application_name LIKE 'glenfold%'`, [name]); // prettier-ignore
  const away = await server.owner().ask('get', '/sites');
  expect([away.status, away.headers['retry-after'], (away.body as ProblemAnswer).title]).toEqual([
    503,
    '1',
    'The database is away',
  ]);
  await admin.query(`ALTER DATABASE ${name} ALLOW_CONNECTIONS true`);
  await admin.end();
  await until(async () => (await server.owner().ask('get', '/sites')).status === 200);
});

it('a connection that is lost in the middle of a transaction is the database’s trouble, and no fault of ours', async () => {
  const runner = server.current().app.get(DataSource).createQueryRunner();
  await runner.startTransaction();
  await runner.release();
  const error: unknown = await runner.query('SELECT 1').catch((reason: unknown) => reason);
  const released = new QueryRunnerProviderAlreadyReleasedError();
  expect([error, released, new TypeError('x is not a function')].map(troubleOf)).toEqual(['away', 'away', undefined]);
});

const alive = `"deletedAt" IS NULL`;

it('what came twice at the same moment in an earlier version follows one another after the migration, and no row is lost', async () => {
  const { sql, url } = server.current();
  const owner = await ownerSource(url).initialize();
  for (const { name } of [...migrations].reverse()) {
    await owner.undoLastMigration();
    if (name === OneOfEach1795950000000.name) break;
  }
  const bag = (await sql<{ id: string; practiceId: string }>(`SELECT b.id, b."practiceId" FROM bag b JOIN sample s ON s."bagId" = b.id WHERE s.${alive} LIMIT 1`))[0]!; // prettier-ignore
  // Twice the same sample with its result and its values, and twice one number.
  for (let turn = 0; turn < 2; turn += 1) {
    await sql(
      `WITH s AS (INSERT INTO sample ("practiceId", "siteId", "bagId", "of", label, depth)
         SELECT "practiceId", "siteId", "bagId", "of", label, depth FROM sample WHERE "bagId" = $1 LIMIT 1 RETURNING id, "practiceId"),
       r AS (INSERT INTO lab_result ("practiceId", "sampleId", extractant, origin)
         SELECT "practiceId", id, 'mehlich-3', 'again.csv' FROM s RETURNING id, "sampleId", "practiceId")
       INSERT INTO measurement ("practiceId", "sampleId", "resultId", analyte, value, unit, basis)
         SELECT "practiceId", "sampleId", id, 'p', 40 + $2::int, 'mg/kg', 'element' FROM r`,
      [bag.id, turn],
    );
  }
  const rows = () => sql<{ all: number }>(`SELECT (SELECT count(*) FROM sample) + (SELECT count(*) FROM lab_result) + (SELECT count(*) FROM measurement) AS "all"`); // prettier-ignore
  const [before] = await rows();
  await sql(`UPDATE bag SET "labNumber" = '77-1' WHERE id IN (SELECT id FROM bag WHERE "practiceId" = $1 ORDER BY "createdAt" LIMIT 3)`, [bag.practiceId]); // prettier-ignore
  await owner.runMigrations();
  await owner.destroy();
  expect(await rows()).toEqual([before]);
  expect(await sql(`SELECT 1 FROM sample WHERE "bagId" = $1 AND ${alive}`, [bag.id])).toHaveLength(1);
  const standing = await sql<{ value: number }>(
    `SELECT m.value FROM lab_result r JOIN sample s ON s.id = r."sampleId" LEFT JOIN measurement m ON m."resultId" = r.id AND m.analyte = 'p'
     WHERE s."bagId" = $1 AND s.${alive} AND r.${alive}
       AND NOT EXISTS (SELECT FROM lab_result n WHERE n."supersedesId" = r.id AND n.${alive})`,
    [bag.id],
  );
  expect(standing.map(({ value }) => value)).toEqual([41]);
  const numbers = await sql<{ labNumber: string }>(
    `SELECT "labNumber" FROM bag WHERE "labNumber" LIKE '77-1%' ORDER BY 1`,
  );
  expect(numbers.map(({ labNumber }) => labNumber)).toEqual(['77-1', '77-1 (2)', '77-1 (3)']);
});

it('an export of such a version is put in line as it is loaded, whatever came twice', () => {
  const row = fc.record({ bagId: fc.constantFrom('a', 'b', null), results: fc.integer({ min: 1, max: 3 }), gone: fc.boolean() }); // prettier-ignore
  fc.assert(
    fc.property(fc.array(row, { maxLength: 8 }), (given) => {
      const at = (index: number) => ({ createdAt: `2026-01-01T00:00:${10 + index}Z` });
      const samples = given.map(({ bagId, gone }, index) => ({ id: `s${index}`, bagId, deletedAt: gone ? 'x' : null, ...at(index) })); // prettier-ignore
      const results = given.flatMap(({ results: count, gone }, index) =>
        Array.from({ length: count }, (_, turn) => ({ id: `r${index}.${turn}`, sampleId: `s${index}`, supersedesId: turn === 2 ? `r${index}.0` : null, deletedAt: gone ? 'x' : null, ...at(index) })),
      ); // prettier-ignore
      const put = oneOfEach(new Map<string, Row[]>([['samples.csv', samples], ['lab-results.csv', results]])); // prettier-ignore
      const [own, lines] = [put.get('samples.csv')!, put.get('lab-results.csv')!].map((rows) => rows.filter(({ deletedAt }) => deletedAt === null)); // prettier-ignore
      const once = (values: readonly unknown[]): boolean => new Set(values).size === values.length;
      expect(once(own!.flatMap(({ bagId }) => bagId ?? []))).toBe(true);
      expect(once(lines!.filter(({ supersedesId }) => supersedesId === null).map(({ sampleId }) => sampleId))).toBe(true); // prettier-ignore
      expect(once(lines!.flatMap(({ supersedesId }) => supersedesId ?? []))).toBe(true);
      expect(put.get('lab-results.csv')).toHaveLength(results.length);
      expect(put.get('samples.csv')).toHaveLength(samples.length);
    }),
  );
});

describe('what an owner says and what the practice does at the same moment', () => {
  const told = (answers: ReadonlyArray<{ status: number; body: unknown }>, known: readonly number[]) =>
    answers.map(({ status, body }) => (known.includes(status) ? status : [status, body]));

  it('a decline that comes too late is told, and one in time stands in the program', async () => {
    const site = await siteOf('Gannet');
    for (let round = 0; round < 6; round += 1) {
      const quote = await send<QuoteAnswer>('post', `/sites/${site.id}/quotes?units=us`, { days: 30 });
      const lines = (answer: string) => quote.lines.map(({ id }) => ({ id, answer, ceiling: 90 }));
      await send('post', `/quotes/${quote.id}/answers`, { by: 'Hetty', lines: lines('accepted') }, 200);
      const [late, taken] = await Promise.all([
        post(`/quotes/${quote.id}/answers`, { by: 'Hetty', lines: lines('declined').slice(0, 1) }),
        post(`/quotes/${quote.id}/taken-over`, {}),
      ]);
      expect(told([late, taken], [200, 201, 409])).toEqual([expect.any(Number), 200]);
      const { lines: standing, state } = await get<QuoteAnswer>(`/sites/${site.id}/quote`).then((body) => (body as unknown as QuoteOfSiteAnswer).quote!); // prettier-ignore
      expect(state).toBe('taken over');
      const { zoneId, key } = (await server.current().sql<{ zoneId: string; key: string }>(`SELECT "zoneId", key FROM quote_line WHERE id = $1`, [quote.lines[0]!.id]))[0]!; // prettier-ignore
      const out = treatmentIn(await programOf(zoneId), key).status === 'left out';
      // Declined and left out, or taken over as accepted and the other told: never the one without the other.
      expect([standing.find(({ id }) => id === quote.lines[0]!.id)!.answer === 'declined', out]).toEqual([late.status === 200, late.status === 200]); // prettier-ignore
      if (out) await send('delete', `/zones/${zoneId}/program/treatments/${key}`);
    }
  });

  it('of two answers that turn one another round unseen the first stands, and the other is told', async () => {
    const { id: siteId } = await siteOf('Gannet');
    const quote = await send<QuoteAnswer>('post', `/sites/${siteId}/quotes?units=us`, { days: 30 });
    const say = (answer: string) => post(`/quotes/${quote.id}/answers`, { by: 'Hetty', version: quote.version, lines: quote.lines.map(({ id }) => ({ id, answer, ceiling: 90 })) }); // prettier-ignore
    const answers = await Promise.all([say('accepted'), say('declined'), say('accepted'), say('declined')]);
    const first = answers.filter(({ status }) => status === 200).map(({ body }) => (body as QuoteAnswer).lines[0]!.answer); // prettier-ignore
    expect([new Set(first).size, answers.filter(({ status }) => status === 409).length]).toEqual([1, 2]);
  });

  it('of four hand-overs at once one program is live, and the others are told', async () => {
    const { id: siteId } = await siteOf('Gannet');
    const handed = await Promise.all(
      Array.from({ length: 4 }, () => post(`/sites/${siteId}/programs?units=us`, {}, { 'idempotency-key': crypto.randomUUID() })),
    ); // prettier-ignore
    expect(told(handed, [201, 409]).filter((each) => each === 201).length).toBeGreaterThanOrEqual(1);
    expect(told(handed, [201, 409]).every((each) => typeof each === 'number')).toBe(true);
    const live = await server.current().sql(`SELECT id FROM program WHERE "siteId" = $1 AND state = 'handed over' AND EXISTS (SELECT FROM program_zone z WHERE z."programId" = program.id AND z."zoneId" IN (SELECT id FROM zone WHERE "siteId" = $1))`, [siteId]); // prettier-ignore
    expect(live).toHaveLength(1);
    const jobs = await server.current().sql<{ n: number }>(`SELECT count(*)::int AS n FROM job WHERE "siteId" = $1 AND state = 'open' GROUP BY "zoneId", key, position`, [siteId]); // prettier-ignore
    expect(jobs.every(({ n }) => n === 1)).toBe(true);
  });
});
