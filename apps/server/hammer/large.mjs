// A site of three hundred zones, three tests each: what one request for all of it does to everybody else.
import { nothingYet } from './blows.mjs';
import { Visitor, sql } from './instance.mjs';

const ZONES = 300;

/** Of the demo's practice, put into the database as it would have grown in years. @returns its id */
async function grow(url) {
  const [practice] = await sql(url, 'SELECT id FROM practice WHERE demo LIMIT 1');
  const [site] = await sql(
    url,
    `INSERT INTO site ("practiceId", name, climate, position) VALUES ($1, 'Large park', 'cool maritime', '[-36, 46.5]') RETURNING id`,
    [practice.id],
  );
  // A lawn of 23 by 22 m each, in rows of twenty.
  await sql(
    url,
    `INSERT INTO zone ("practiceId", "siteId", position, name, label, area, geometry, grass, surface, intensity, shade, clippings, "soilGroup", facts)
     SELECT $1, $2, n, 'Lawn ' || n, 'LP-' || n, 510, jsonb_build_object('type', 'Polygon', 'coordinates', jsonb_build_array(jsonb_build_array(
         jsonb_build_array(x, y), jsonb_build_array(x + 0.0003, y), jsonb_build_array(x + 0.0003, y + 0.0002), jsonb_build_array(x, y + 0.0002), jsonb_build_array(x, y)))),
       'perennial ryegrass', 'turf', 'medium', 'part', 'returned', 'loam', '{"slope": 2, "signs": [{"sign": "moss"}]}'
     FROM (SELECT n, -36 + n % 20 * 0.0004 AS x, 46.5 + n / 20 * 0.0004 AS y FROM generate_series(1, $3::int) AS n) AS places`,
    [practice.id, site.id, ZONES],
  );
  await sql(
    url,
    `WITH tested AS MATERIALIZED (
       SELECT gen_random_uuid() AS sample, gen_random_uuid() AS result, z.id AS zone, z.position AS n, turn, date '2020-10-01' + turn * 700 AS day
       FROM zone z, generate_series(1, 3) AS turn WHERE z."siteId" = $2
     ), samples AS (
       INSERT INTO sample (id, "practiceId", "siteId", label, "sampledOn", depth, "depthFrom", cores)
       SELECT sample, $1, $2, 'LP-' || n || '-' || turn, day, 10, 0, 15 FROM tested RETURNING id
     ), shares AS (
       INSERT INTO sample_zone ("practiceId", "sampleId", "zoneId") SELECT $1, t.sample, t.zone FROM tested t JOIN samples s ON s.id = t.sample RETURNING id
     ), results AS (
       INSERT INTO lab_result (id, "practiceId", "sampleId", extractant, origin)
       SELECT t.result, $1, t.sample, 'mehlich-3', 'typed' FROM tested t JOIN samples s ON s.id = t.sample RETURNING id
     )
     INSERT INTO measurement ("practiceId", "sampleId", "resultId", analyte, value, unit, method, basis, "takenOn")
     SELECT $1, t.sample, t.result, a.analyte, a.value + n % 7 * a.step, a.unit, a.method, 'element', t.day
     FROM tested t JOIN results r ON r.id = t.result, (VALUES
       ('soilPh', 5.2, 0.1, 'pH', NULL), ('bufferPh', 6.4, 0.03, 'pH', 'smp'), ('p', 12, 5, 'mg/kg', NULL), ('k', 40, 10, 'mg/kg', NULL),
       ('ca', 600, 50, 'mg/kg', NULL), ('mg', 60, 10, 'mg/kg', NULL), ('organicMatter', 2.2, 0.3, '%', NULL)) AS a(analyte, value, step, unit, method)`,
    [practice.id, site.id],
  );
  return site.id;
}

/** All that can be asked of the whole site, one after the other; its programs handed over before the half. */
export async function large({ servers: [server], url }) {
  const result = nothingYet();
  const siteId = await grow(url);
  const owner = await Visitor.enter(server, 'Orla');
  const ask = async (method, path, body) => {
    const began = performance.now();
    const { status, text } = await owner.ask(server, method, path, body === undefined ? {} : { body });
    result.times.push(performance.now() - began);
    result.tries += 1;
    if (status === 0) result.lost += 1;
    if (status >= 400) result.faults.push(`${status} ${method} ${path}: ${text.slice(0, 160)}`);
  };
  const units = 'units=us';
  const of = (path) => `/sites/${siteId}${path}`;
  for (const path of ['/state', '/zones', '/drawing', '/lab-results', `/program?${units}`, `/readings?${units}`, `/readings.pdf?${units}`, `/drawing.pdf?${units}`])
    await ask('get', of(path));
  await ask('post', of(`/programs?${units}`), {});
  await ask('post', of(`/season/days?${units}`), {});
  for (const path of [`/season?${units}`, `/logbook?${units}`, `/logbook.pdf?${units}&from=2024-01-01&to=2027-12-31`, '/proof', '/report', `/program?${units}`])
    await ask('get', of(path));
  for (const path of ['/rounds', '/retests', `/season/week?${units}`, '/audit', '/practice/export']) await ask('get', path);
  await ask('post', of('/erasure'), { name: 'Large park' });
  return result;
} // prettier-ignore
