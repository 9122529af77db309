// A history of 50 000 tests through the application, from the request to the last row, against parsing the same file and
// inserting its rows into a table without rules by unnest, in one run. Runs on the built server: npm run bench.
import { randomUUID } from 'node:crypto';
import { resolve } from 'node:path';
import { createRequire } from 'node:module';
import { createApp } from '../dist/app.js';

const require = createRequire(import.meta.url);
const [pg, papaparse] = [require('pg'), require('papaparse')];
const root = resolve(import.meta.dirname, '../../..');
const databaseUrl = process.env.DATABASE_URL;
const [SITES, ZONES, ROWS] = [100, 10, 50_000];
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

/** The same file parsed, and its rows in a table that knows no rules. */
async function plainly() {
  const started = performance.now();
  const { data } = papaparse.parse(text.trimEnd());
  const rows = data.slice(1);
  await client.query('CREATE TEMP TABLE plain (id uuid, site text, zone text, day date, depth float8, analyte text, value float8)');
  const values = rows.flatMap(([site, zone, day, depth, ph, p, k, om]) => {
    const id = randomUUID();
    return [['soilPh', ph], ['p', p], ['k', k], ['organicMatter', om]].map(([analyte, value]) => [id, site, zone, day, Number(depth), analyte, Number(value)]);
  });
  for (let from = 0; from < values.length; from += 8000) {
    const part = values.slice(from, from + 8000);
    const column = (at) => part.map((row) => row[at]);
    await client.query(
      'INSERT INTO plain SELECT * FROM unnest($1::uuid[], $2::text[], $3::text[], $4::date[], $5::float8[], $6::text[], $7::float8[])',
      [0, 1, 2, 3, 4, 5, 6].map(column),
    );
  }
  await client.query('DROP TABLE plain');
  return performance.now() - started;
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

await plainly();
const plain = await plainly();
const whole = await throughTheApplication('1');
say(`\nA history of ${ROWS.toLocaleString('en-US')} tests, ${(text.length / 1e6).toFixed(1)} MB.`);
say(
  `Parsed and inserted without rules: ${Math.round(plain)} ms. Through the application, from request to last row: ${Math.round(whole)} ms.`,
);
say(`Ratio ${(whole / plain).toFixed(1)} (at most 10, goal 3; up to 2 s of it is the queue's pause).`);
await client.end();
await app.close();
