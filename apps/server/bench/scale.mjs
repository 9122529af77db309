// How the lists and a site's state stand at ten thousand sites: each request as a ratio to plain SQL that gives the
// same rows in the same run, and a site's state against the same request with the demo's few sites.
// Runs on the built server: npm run bench.
import { resolve } from 'node:path';
import { createRequire } from 'node:module';
import { createApp } from '../dist/app.js';

const root = resolve(import.meta.dirname, '../../..');
const pg = createRequire(import.meta.url)('pg');
// BENCH_TINY: only whether it still runs, as the tests ask.
const [SITES, ZONES, TESTS] = process.env.BENCH_TINY ? [20, 2, 2] : [10_000, 5, 4];
const databaseUrl = process.env.DATABASE_URL;

const app = await createApp({ root, databaseUrl, empty: false, address: 'http://127.0.0.1', quiet: true });
await app.listen(0, '127.0.0.1');
const base = `http://127.0.0.1:${app.getHttpServer().address().port}/api`;
const client = new pg.Client({ connectionString: databaseUrl });
await client.connect();
const rows = async (text, values = []) => (await client.query(text, values)).rows;

const [{ personId }] = (await (await fetch(`${base}/session`)).json()).demoPeople;
const entered = await fetch(`${base}/demo/session`, {
  method: 'POST',
  headers: { 'content-type': 'application/json' },
  body: JSON.stringify({ personId }),
});
const cookie = entered.headers.get('set-cookie').split(';')[0];
const ask = async (path) => {
  const response = await fetch(`${base}${path}`, { headers: { cookie } });
  if (!response.ok) throw new Error(`${path}: ${response.status} ${await response.text()}`);
  return response.json();
};

/** Middle time of several tries, ms. */
async function time(work, tries = 25) {
  if (process.env.BENCH_TINY) tries = 1;
  else for (let i = 0; i < 5; i += 1) await work();
  const times = [];
  for (let i = 0; i < tries; i += 1) {
    const start = performance.now();
    await work();
    times.push(performance.now() - start);
  }
  return times.sort((a, b) => a - b)[Math.floor(tries / 2)];
}
const memory = () => `${Math.round(process.memoryUsage().rss / 2 ** 20)} MiB`;
const say = (text) => process.stdout.write(`${text}\n`);

const { practice } = await ask('/session');
const [{ id: small }] = await rows('SELECT id FROM site WHERE "practiceId" = $1 ORDER BY name LIMIT 1', [practice.id]);
const alone = await time(() => ask(`/sites/${small}/state`));
say(`\nThe server at ${SITES.toLocaleString('en-US')} sites; with the demo's six it takes ${memory()}.`);

await client.query(`SET glenfold.loading = 'on'`);
const fill = (text) => client.query(text.replaceAll(':practice', `'${practice.id}'::uuid`));
await fill(`INSERT INTO site ("practiceId", name, place)
  SELECT :practice, 'Site ' || lpad(n::text, 5, '0') || ' ' || (ARRAY['court', 'green', 'field', 'terrace'])[1 + n % 4], 'Row ' || n % 97
  FROM generate_series(1, ${SITES}) n`);
await fill(`INSERT INTO zone ("practiceId", "siteId", position, name, label, area, grass, surface, intensity, shade, clippings)
  SELECT :practice, s.id, n, 'Lawn ' || n, 'L-' || n, 100 + n, 'tall fescue', 'turf', 'medium', 'full sun', 'returned'
  FROM site s, generate_series(1, ${ZONES}) n WHERE s.name LIKE 'Site %'`);
// One zone in a hundred has no test at all.
await fill(`CREATE TEMP TABLE tested AS SELECT gen_random_uuid() AS sample, gen_random_uuid() AS result, z.id AS zone, z."siteId" AS site, n
  FROM zone z, generate_series(1, ${TESTS}) n WHERE z.label LIKE 'L-%' AND abs(hashtext(z.id::text)) % 100 > 0;
  INSERT INTO sample (id, "practiceId", "siteId", label, "sampledOn", depth)
    SELECT sample, :practice, site, 'bag', date '2022-03-01' + n * 365, 10 FROM tested;
  INSERT INTO sample_zone ("practiceId", "sampleId", "zoneId") SELECT :practice, sample, zone FROM tested;
  INSERT INTO lab_result (id, "practiceId", "sampleId", extractant, origin)
    SELECT result, :practice, sample, 'mehlich-3', 'typed' FROM tested;
  INSERT INTO measurement ("practiceId", "sampleId", "resultId", analyte, value, unit, basis, "takenOn")
    SELECT :practice, sample, result, 'soilPh', 5.5 + n * 0.1, NULL, 'element', date '2022-03-01' + n * 365 FROM tested;
  CREATE TEMP TABLE handed AS SELECT gen_random_uuid() AS program, site, zone, result FROM tested
    WHERE n = ${TESTS} AND abs(hashtext(zone::text)) % 3 > 0;
  INSERT INTO program (id, "practiceId", "siteId", state, "handedOverAt", units, "startsOn")
    SELECT program, :practice, site, 'handed over', now(), 'us', current_date FROM handed;
  INSERT INTO program_zone ("practiceId", "programId", "zoneId", "labResultId", "issuedAt", issued)
    SELECT :practice, program, zone, result, now(), '{}' FROM handed`);
await fill(`INSERT INTO bag ("practiceId", "siteId", code, "zoneIds", purpose, depth, probe, panels, design, edge, clear, seed, state, since)
  SELECT :practice, z."siteId", 'B' || row_number() OVER (), jsonb_build_array(z.id), 'routine', 10, 1.9, '["routine"]', 'coverage', 1, 1, 1,
    (ARRAY['planned', 'drying', 'sent', 'at the lab', 'read', 'read'])[1 + abs(hashtext(z.id::text)) % 6], now() - (abs(hashtext(z.name || z.id)) % 9) * interval '1 day'
  FROM zone z WHERE z.label = 'L-1'`);
await client.query(`INSERT INTO core ("practiceId", "bagId", "zoneId", number, turn, state)
  SELECT b."practiceId", b.id, (b."zoneIds" ->> 0)::uuid, n, n, 'waiting' FROM bag b, generate_series(1, 8) n WHERE b.code LIKE 'B%'`);
await client.query('ANALYZE');
const [counts] = await rows(
  `SELECT (SELECT count(*) FROM site) AS sites, (SELECT count(*) FROM zone) AS zones, (SELECT count(*) FROM lab_result) AS results`,
);
say(`${counts.sites} sites, ${counts.zones} zones, ${counts.results} results`);

const p = practice.id;
const [{ id: one }] = await rows(`SELECT id FROM site WHERE name LIKE 'Site ${String(SITES / 2).padStart(5, '0')}%'`);
const waiting = (limit) =>
  rows(
    `SELECT s.id, s.name, o.names FROM site s CROSS JOIN LATERAL (
     SELECT array_agg(t.name ORDER BY t.position) AS names FROM zone_tests($1) t WHERE t."siteId" = s.id AND t."resultId" IS NOT NULL
       AND NOT EXISTS (SELECT FROM program_zone p WHERE p."labResultId" = t."resultId" AND p."zoneId" = t."zoneId")) o
   WHERE s."practiceId" = $1 AND s."deletedAt" IS NULL AND o.names IS NOT NULL ORDER BY s.name, s.id LIMIT $2`,
    [p, limit],
  );
const late = `b."practiceId" = $1 AND b."deletedAt" IS NULL AND (b.state = 'drying' AND b.since < now() - interval '8 days'
  OR b.state = 'sent' AND b.since < now() - interval '6 days' OR b.state = 'cored' AND b.since < now() - interval '3 days'
  OR b.state = 'at the lab' AND b.since < now() - interval '15 days')`;
const plain = {
  'what wants doing, a page': [
    '/rounds',
    async () => {
      await rows(
        `SELECT f.id, s.name FROM lab_report f JOIN site s ON s.id = f."siteId" WHERE f."practiceId" = $1 AND f.imported = '{}' AND f."deletedAt" IS NULL ORDER BY s.name LIMIT 41`,
        [p],
      );
      await rows(
        `SELECT b.id, s.name FROM bag b JOIN site s ON s.id = b."siteId" WHERE ${late} ORDER BY s.name, b.id LIMIT 41`,
        [p],
      );
    },
  ],
  'plans to hand over, a page': [
    `/rounds?after=${Buffer.from(JSON.stringify(['hand over', 'Site 03000', '00000000-0000-0000-0000-000000000000'])).toString('base64url')}`,
    () => waiting(41),
  ],
  'sites with their states, a page': [
    '/rounds/sites?text=court',
    () =>
      rows(
        `SELECT s.*, (SELECT count(*) FROM site c WHERE c."practiceId" = $1 AND c.name ILIKE '%court%') AS many,
           (SELECT count(*) FROM zone z WHERE z."siteId" = s.id) AS zones, (SELECT sum(area) FROM zone z WHERE z."siteId" = s.id) AS area,
           (SELECT count("resultId") FROM zone_tests($1) t WHERE t."siteId" = s.id) AS tested,
           (SELECT count(*) FROM bag b WHERE b."siteId" = s.id) AS bags
         FROM site s WHERE s."practiceId" = $1 AND s.name ILIKE '%court%' ORDER BY s.name, s.id LIMIT 40`,
        [p],
      ),
  ],
  'sites, a page': [
    '/sites',
    () =>
      rows(
        `SELECT s.*, (SELECT count(*) FROM site WHERE "practiceId" = $1) AS many FROM site s WHERE s."practiceId" = $1 AND s."deletedAt" IS NULL ORDER BY s.name, s.id LIMIT 40`,
        [p],
      ),
  ],
  'find “4321”': [
    '/find?text=4321',
    async () => {
      await rows(`SELECT id, name FROM site WHERE "practiceId" = $1 AND name ILIKE '%4321%' ORDER BY name LIMIT 20`, [
        p,
      ]);
      await rows(
        `SELECT z.id, z.name, s.name FROM zone z JOIN site s ON s.id = z."siteId" WHERE z."practiceId" = $1 AND (z.name || ' (' || z.label || '), ' || s.name) ILIKE '%4321%' ORDER BY z.name LIMIT 20`,
        [p],
      );
      await rows(
        `SELECT b.id, b.code FROM bag b JOIN site s ON s.id = b."siteId" WHERE b."practiceId" = $1 AND (b.code ILIKE '%4321%' OR s.name ILIKE '%4321%') LIMIT 20`,
        [p],
      );
    },
  ],
  'the board, a page': [
    '/bags',
    async () => {
      await rows(
        `SELECT b.*, (SELECT count(*) FROM core c WHERE c."bagId" = b.id) AS cores FROM bag b WHERE b."practiceId" = $1 AND b."deletedAt" IS NULL AND b.state NOT IN ('read', 'lost', 'spoiled') ORDER BY b.since LIMIT 41`,
        [p],
      );
      await rows(
        `SELECT state, laboratory, count(*) FROM bag WHERE "practiceId" = $1 AND "deletedAt" IS NULL GROUP BY 1, 2`,
        [p],
      );
    },
  ],
  'the state of a site': [
    `/sites/${one}/state`,
    () => rows(`SELECT count(*), count("resultId") FROM zone_tests($1) WHERE "siteId" = $2`, [p, one]),
  ],
};
for (const [name, [path, sql]] of Object.entries(plain)) {
  const [asked, bare] = [await time(() => ask(path)), await time(sql)];
  const ratio = asked / bare;
  const fits = ratio <= 3 || asked <= 15;
  say(
    `${name.padEnd(34)} ${asked.toFixed(1).padStart(8)} ms   ${ratio.toFixed(1).padStart(5)} × plain SQL (${bare.toFixed(1)} ms)${fits ? '' : '   OVER 3 × and 15 ms'}`,
  );
}
const among = await time(() => ask(`/sites/${one}/state`));
say(`a site's state among ${counts.sites} sites takes ${(among / alone).toFixed(2)} × what it takes among six`);
say(`memory of the server after all that: ${memory()}`);
await client.end();
await app.close();
