// A history of 50 000 tests through the application, from the request to the last row, against parsing the same file and
// inserting its rows by unnest, in one run: once into the tables they belong in, with their keys and indexes, and once
// into a table without any rule. Runs on the built server: npm run bench.
import { randomUUID } from 'node:crypto';
import { resolve } from 'node:path';
import { createRequire } from 'node:module';
import { createApp } from '../dist/app.js';

const require = createRequire(import.meta.url);
const [pg, papaparse] = [require('pg'), require('papaparse')];
const root = resolve(import.meta.dirname, '../../..');
const databaseUrl = process.env.DATABASE_URL;
const [SITES, ZONES, ROWS] = process.env.BENCH_TINY ? [2, 2, 40] : [100, 10, 50_000];
const say = (text) => process.stdout.write(`${text}\n`);

const app = await createApp({ root, databaseUrl, empty: false, address: 'http://127.0.0.1', quiet: true });
await app.listen(0, '127.0.0.1');
const base = `http://127.0.0.1:${app.getHttpServer().address().port}/api`;
const client = new pg.Client({ connectionString: databaseUrl });
await client.connect();

const [{ personId }] = (await (await fetch(`${base}/session`)).json()).demoPeople;
const entered = await fetch(`${base}/demo/session`, {
  method: 'POST',
  headers: { 'content-type': 'application/json' },
  body: JSON.stringify({ personId }),
});
const cookie = entered.headers.get('set-cookie').split(';')[0];
const { csrf, practice } = await (await fetch(`${base}/session`, { headers: { cookie } })).json();
const headers = { cookie, 'x-csrf-token': csrf, 'content-type': 'application/json' };

await client.query(`SET glenfold.loading = 'on'`);
await client.query(
  `INSERT INTO site ("practiceId", name) SELECT $1, 'Bench ' || n FROM generate_series(1, ${SITES}) n`,
  [practice.id],
);
await client.query(
  `INSERT INTO zone ("practiceId", "siteId", position, name, label, area, grass, surface, intensity, shade, clippings)
   SELECT $1, s.id, n, 'Lawn ' || n, 'L-' || n, 100 + n, 'tall fescue', 'turf', 'medium', 'full sun', 'returned'
   FROM site s, generate_series(1, ${ZONES}) n WHERE s.name LIKE 'Bench %'`,
  [practice.id],
);

const head = ['Site', 'Zone', 'Date', 'Depth cm', 'pH', 'P Mehlich-3 ppm', 'K ppm', 'OM %'];
const lines = Array.from({ length: ROWS }, (_, at) => [
  ...[
    `Bench ${1 + (at % SITES)}`,
    `L-${1 + (Math.floor(at / SITES) % ZONES)}`,
    `${1976 + (at % 50)}-10-0${1 + (at % 9)}`,
    10,
  ],
  ...[(5 + (at % 25) / 10).toFixed(1), 10 + (at % 70), 40 + (at % 160), (2 + (at % 40) / 10).toFixed(1)],
]);
const text = papaparse.unparse([head, ...lines]);

const ANALYTES = ['soilPh', 'p', 'k', 'organicMatter'];

/** The same file parsed, and its rows in a table that knows no rules. */
async function plainly() {
  const started = performance.now();
  const { data } = papaparse.parse(text.trimEnd());
  await client.query('CREATE TEMP TABLE plain (id uuid, site text, zone text, day date, depth float8, analyte text, value float8)');
  const values = data.slice(1).flatMap(([site, zone, day, depth, ...found]) => {
    const id = randomUUID();
    return ANALYTES.map((analyte, at) => [id, site, zone, day, Number(depth), analyte, Number(found[at])]);
  });
  for (let from = 0; from < values.length; from += 8000)
    await client.query(
      'INSERT INTO plain SELECT * FROM unnest($1::uuid[], $2::text[], $3::text[], $4::date[], $5::float8[], $6::text[], $7::float8[])',
      columns(values.slice(from, from + 8000)),
    );
  await client.query('DROP TABLE plain');
  return performance.now() - started;
} // prettier-ignore

const columns = (rows) => rows[0].map((_, at) => rows.map((row) => row[at]));

/** The same file parsed, and its rows where they belong; taken back. */
async function intoTheTables() {
  const { rows: zones } = await client.query(`SELECT s.name || '/' || z.label AS key, z.id, s.id AS site FROM zone z JOIN site s ON s.id = z."siteId"`);
  const known = new Map(zones.map((zone) => [zone.key, zone]));
  const started = performance.now();
  const { data } = papaparse.parse(text.trimEnd());
  await client.query('BEGIN');
  await client.query(`SET LOCAL glenfold.loading = 'on'`);
  for (let from = 1; from < data.length; from += 2000) {
    const part = data.slice(from, from + 2000).map((line) => ({ line, zone: known.get(`${line[0]}/${line[1]}`), sample: randomUUID(), result: randomUUID() }));
    const insert = (sql, rows) => client.query(sql, [practice.id, ...columns(rows)]);
    await insert(
      `INSERT INTO sample (id, "practiceId", "siteId", label, "sampledOn", depth, "of") SELECT i, $1, s, l, d, c, 'soil' FROM unnest($2::uuid[], $3::uuid[], $4::text[], $5::date[], $6::float8[]) AS t (i, s, l, d, c)`,
      part.map(({ line, zone, sample }) => [sample, zone.site, line[1], line[2], Number(line[3])]),
    );
    await insert(
      `INSERT INTO sample_zone ("practiceId", "sampleId", "zoneId") SELECT $1, s, z FROM unnest($2::uuid[], $3::uuid[]) AS t (s, z)`,
      part.map(({ zone, sample }) => [sample, zone.id]),
    );
    await insert(
      `INSERT INTO lab_result (id, "practiceId", "sampleId", extractant, origin) SELECT i, $1, s, 'mehlich-3', 'bench' FROM unnest($2::uuid[], $3::uuid[]) AS t (i, s)`,
      part.map(({ sample, result }) => [result, sample]),
    );
    await insert(
      `INSERT INTO measurement ("practiceId", "sampleId", "resultId", analyte, value, "takenOn") SELECT $1, s, r, a, v, d FROM unnest($2::uuid[], $3::uuid[], $4::text[], $5::float8[], $6::date[]) AS t (s, r, a, v, d)`,
      part.flatMap(({ line, sample, result }) => ANALYTES.map((analyte, at) => [sample, result, analyte, Number(line[4 + at]), line[2]])),
    );
  }
  const took = performance.now() - started;
  await client.query('ROLLBACK');
  return took;
} // prettier-ignore

async function throughTheApplication(fileName) {
  const started = performance.now();
  const body = JSON.stringify({ fileName, bytes: Buffer.from(`${text}\n${'\n'.repeat(Number(fileName))}`).toString('base64') });
  const answer = await fetch(`${base}/histories`, { method: 'POST', headers, body });
  if (!answer.ok) throw new Error(await answer.text());
  for (;;) {
    const [newest] = await (await fetch(`${base}/histories`, { headers: { cookie } })).json();
    if (newest.state === 'imported') return performance.now() - started;
    if (newest.state === 'refused') throw new Error(newest.words.join(' '));
    await new Promise((later) => setTimeout(later, 100));
  }
} // prettier-ignore

const best = async (of) => Math.min(await of(), await of());
const [plain, belonging] = [await best(plainly), await best(intoTheTables)];
const whole = Math.min(await throughTheApplication('1'), await throughTheApplication('2'));
say(`\nA history of ${ROWS.toLocaleString('en-US')} tests, ${(text.length / 1e6).toFixed(1)} MB.`);
say(
  `Parsed and inserted into the same tables: ${Math.round(belonging)} ms; into a table without rules: ${Math.round(plain)} ms. ` +
    `Through the application, from request to last row: ${Math.round(whole)} ms (up to 2 s of it is the queue's pause).`,
);
say(
  `Ratio ${(whole / belonging).toFixed(1)} to the same tables (at most 10, goal 3); ${(whole / plain).toFixed(1)} to a table without rules.`,
);
await client.end();
await app.close();
