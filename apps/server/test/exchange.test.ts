import { createHash, randomBytes } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import type { ProblemAnswer, QuoteAnswer, SitesAnswer, ZoneAnswer } from '@glenfold/contract';
import type { Response } from 'supertest';
import { DataSource } from 'typeorm';
import papaparse from 'papaparse';
import yazl from 'yazl';
import { entities } from '../src/entities.ts';
import { FORMAT_VERSION, readArchive } from '../src/exchange/archive.ts';
import { Problem } from '../src/platform/problem.ts';
import { readRows, writeRows } from '../src/exchange/formats.ts';
import { exportedTables, notExported } from '../src/exchange/tables.ts';
import { FileStore } from '../src/ports/fileStore.ts';
import { type Browser, type TestServer, demoEmails, openBrowser, signIn, startServer } from './harness.ts';

let demo: TestServer;
let empty: TestServer;
let zip: Buffer;
const password = 'words for the new place';
const PHOTOS = 300;

function download(browser: Browser): Promise<Buffer> {
  return browser.agent
    .get('/api/practice/export')
    .buffer(true)
    .parse((response, done) => {
      const parts: Buffer[] = [];
      response.on('data', (part: Buffer) => parts.push(part));
      response.on('end', () => done(null, Buffer.concat(parts)));
    })
    .then(({ body }) => body as Buffer);
}

const load = (server: TestServer, file: Buffer, email: string = demoEmails.owner): Promise<Response> =>
  openBrowser(server)
    .agent.post('/api/first-run/load')
    .field('email', email)
    .field('password', password)
    .attach('file', file, 'practice.zip')
    .then((response) => response);

/** All that a practice holds, as the database has it. */
async function contents({ sql, app }: TestServer): Promise<Record<string, unknown>> {
  const held: Record<string, unknown> = {};
  const practice = `(SELECT id FROM practice WHERE name LIKE 'Brackwater%')`;
  for (const { entity, without = [] } of exportedTables) {
    const { tableName, columns } = app.get(DataSource).getMetadata(entity);
    const names = columns.map(({ databaseName }) => databaseName).filter((name) => !without.includes(name));
    const scope = names.includes('practiceId')
      ? `"practiceId" = ${practice}`
      : tableName === 'person'
        ? `id IN (SELECT "personId" FROM membership WHERE "practiceId" = ${practice})`
        : `id = ${practice}`;
    held[tableName] = await sql(
      `SELECT ${names.map((name) => `"${name}"::text`).join()} FROM ${tableName} WHERE ${scope} ORDER BY id`,
    );
  }
  return held;
}

/** The export with some of its files changed, and their checksums made to fit unless told otherwise. */
async function forge(
  change: (files: Map<string, string>) => void,
  { fit = true, version = FORMAT_VERSION } = {},
): Promise<Buffer> {
  const { manifest, files } = await readArchive(zip);
  const changed = new Map(files);
  change(changed);
  const listed = [...changed].map(([path, text]) => ({
    path,
    sha256: createHash('sha256')
      .update(fit ? text : (files.get(path) ?? ''))
      .digest('hex'),
  }));
  return pack(new Map([...changed, ['manifest.json', JSON.stringify({ ...manifest, version, files: listed })]]));
}

async function pack(files: ReadonlyMap<string, string>): Promise<Buffer> {
  const archive = new yazl.ZipFile();
  for (const [path, text] of files) archive.addBuffer(Buffer.from(text), path);
  archive.end();
  const parts: Buffer[] = [];
  for await (const part of archive.outputStream) parts.push(part as Buffer);
  return Buffer.concat(parts);
}

/** The same length, so that the ZIP stays whole: only a name in it changes. */
const rename = (from: string, to: string): Buffer => Buffer.from(zip.toString('latin1').replaceAll(from, to), 'latin1');

beforeAll(async () => {
  demo = await startServer({ empty: false });
  empty = await startServer({ empty: true });
  const owner = await signIn(demo, demoEmails.owner);
  // What spreadsheets take for formulas, quotes, line ends, deleted records and empty texts come through too.
  const odd = { name: '=2+3, "so"\nand\t–', place: "'-1" };
  const { id } = (await owner.ask('post', '/sites', odd)).body as { id: string };
  await owner.ask('post', '/sites', { name: '@ here', place: '' });
  await owner.ask('delete', `/sites/${id}`);
  // A program that is offered, with what was said to a line of it.
  const { sites } = (await owner.ask('get', '/sites')).body as SitesAnswer;
  const offered = sites.find(({ name }) => name.startsWith('Gannet'))!;
  const quote = (await owner.ask('post', `/sites/${offered.id}/quotes?units=us`, { days: 30 })).body as QuoteAnswer;
  await owner.ask('post', `/quotes/${quote.id}/answers`, {
    ...{ by: 'Hetty Coppice', lines: [{ id: quote.lines[0]!.id, answer: 'declined' }] },
  });
  // A result of which only the pH is known, and more photos than were ever held at once.
  const [zone] = (await owner.ask('get', `/sites/${offered.id}/zones`)).body as ZoneAnswer[];
  const typed = { zoneIds: [zone!.id], label: 'pH only', depth: 10, extractant: 'mehlich-3', values: { soilPh: { value: 6.1, unit: 'pH', basis: 'element' } } }; // prettier-ignore
  expect((await owner.ask('post', '/lab-results', typed)).status).toBe(201);
  const store = demo.app.get(FileStore);
  const digests: string[] = [];
  for (let at = 0; at < PHOTOS; at += 1) digests.push(await store.keep(randomBytes(2_000)));
  await demo.sql(
    `INSERT INTO zone_photo ("practiceId", "zoneId", type, digest, thumb) SELECT z."practiceId", z.id, 'image/jpeg', d, d FROM zone z, unnest($2::text[]) d WHERE z.id = $1`,
    [zone!.id, digests],
  );
  zip = await download(owner);
});
afterAll(() => Promise.all([demo.close(), empty.close()]));

describe('an export', () => {
  it('has a file for every table of a practice, and names what stays behind', () => {
    expect(new Set([...exportedTables.map(({ entity }) => entity), ...notExported])).toEqual(new Set(entities));
  });

  it('holds no secret and nothing of another practice', async () => {
    const { files, manifest } = await readArchive(zip);
    const text = [...files.values()].join('\n');
    expect(text).not.toMatch(/argon2|passwordHash|tokenHash|Ferry Green/);
    expect(manifest.files.every(({ sha256, bytes }) => sha256.length === 64 && bytes > 0)).toBe(true);
    expect(files.get('measurements.csv')).toMatch(/,p,,\d+,mg\/kg,element,/);
  });

  it.each<readonly [what: string, title: string, file: () => Promise<Buffer> | Buffer]>([
    ['no ZIP at all', 'Not a whole ZIP', () => Buffer.from('Sample,pH\n')],
    ['cut off', 'Not a whole ZIP', () => zip.subarray(0, Math.floor(zip.length * 0.7))],
    ['a ZIP of something else', 'Not an export', () => pack(new Map([['photo.txt', 'x']]))],
    [
      'altered',
      'Altered',
      () => forge((files) => files.set('sites.csv', `${files.get('sites.csv')!}x`), { fit: false }),
    ],
    [
      'with a file taken out',
      'Altered',
      async () => {
        const { manifest, files } = await readArchive(zip);
        return pack(new Map([...[...files].slice(1), ['manifest.json', JSON.stringify(manifest)]]));
      },
    ],
    [
      'with a file put in',
      'Altered',
      async () => {
        const { manifest, files } = await readArchive(zip);
        return pack(new Map([...files, ['more.csv', 'x'], ['manifest.json', JSON.stringify(manifest)]]));
      },
    ],
    ['from a newer version', 'From a newer Glenfold', () => forge(() => undefined, { version: FORMAT_VERSION + 1 })],
    ['whose names point out of it', 'Unsafe file name', () => rename('sites.json', '../ites.js')],
    ['whose names are absolute', 'Unsafe file name', () => rename('sites.json', '/ites.json')],
    [
      'with values nobody could have typed',
      'Altered',
      () =>
        forge((files) => files.set('zones.geojson', files.get('zones.geojson')!.replace('perennial ryegrass', 'moss'))),
    ],
    [
      'whose records refer to nothing',
      'Not an export',
      () =>
        forge((files) =>
          files.set(
            'lab-files.json',
            files.get('lab-files.json')!.replace(/"siteId":"[^"]+"/, '"siteId":"00000000-0000-4000-8000-000000000000"'),
          ),
        ),
    ],
    ['with text where a table should be', 'Not an export', () => forge((files) => files.set('programs.json', 'x'))],
    [
      'without an owner',
      'Not an export',
      () =>
        forge((files) =>
          files.set('memberships.json', files.get('memberships.json')!.replaceAll('"owner"', '"advisor"')),
        ),
    ],
  ])('that is %s is refused, and nothing of it is loaded', async (_what, title, file) => {
    const response = await load(empty, await file());
    const [status, body] = [response.status, response.body as ProblemAnswer];
    expect([status, body.title]).toEqual([422, title]);
    expect(body.detail).toMatch(/Nothing was loaded/);
    expect(
      await empty.sql('SELECT id FROM practice UNION SELECT id FROM person UNION SELECT id FROM audit LIMIT 1'),
    ).toEqual([]);
  });

  it('with any bytes of it spoilt is read as it was, or refused with words', async () => {
    const whole = JSON.stringify([...(await readArchive(zip)).files]);
    const spoilt = fc.array(fc.tuple(fc.nat(zip.length - 1), fc.integer({ min: 1, max: 255 })), {
      minLength: 1,
      maxLength: 6,
    });
    await fc.assert(
      fc.asyncProperty(spoilt, async (changes) => {
        const bytes = Buffer.from(zip);
        for (const [place, by] of changes) bytes[place] = (bytes[place]! + by) % 256;
        const outcome = await readArchive(bytes).then(
          ({ files }) => JSON.stringify([...files]),
          (error: unknown) => error,
        );
        if (outcome !== whole) expect(outcome).toBeInstanceOf(Problem);
      }),
      { numRuns: 150 },
    );
  });

  it('is loaded for one of its owners only, into an empty installation only', async () => {
    const stranger = await load(empty, zip, 'stranger@p.example');
    expect((stranger.body as ProblemAnswer).errors).toEqual([
      { field: 'email', message: expect.stringContaining(demoEmails.owner) as string },
    ]);
    expect((await load(demo, zip)).status).toBe(409);
  });

  it('gives the same practice back, to the last record', async () => {
    expect((await load(empty, zip)).status).toBe(204);
    const [before, after] = [await contents(demo), await contents(empty)];
    expect(Object.keys(after)).toHaveLength(exportedTables.length);
    for (const [table, rows] of Object.entries(before)) expect([table, after[table]]).toEqual([table, rows]);
    const { manifest } = await readArchive(zip);
    expect(manifest.files.filter(({ path }) => path.startsWith('files/')).length).toBeGreaterThanOrEqual(PHOTOS);
    expect([after.quote, after.quote_line].map((rows) => (rows as unknown[]).length > 0)).toEqual([true, true]);
    const owner = await signIn(empty, demoEmails.owner, password);
    const there = await signIn(demo, demoEmails.owner);
    expect((await owner.ask('get', '/rounds')).body).toEqual((await there.ask('get', '/rounds')).body);
    expect((await owner.ask('get', '/rounds/sites')).body).toEqual((await there.ask('get', '/rounds/sites')).body);
    // It goes on from there: the next change is written into the audit it brought along.
    expect((await owner.ask('post', '/sites', { name: 'Next' })).status).toBe(201);
    expect(await readArchive(await download(owner))).toHaveProperty('manifest.practice', 'Brackwater Soil Advisory');
  });
});

it('an export of the fourth format comes over: nothing was offered, and prices had no day', async () => {
  const old = await forge(
    (files) => {
      files.delete('quotes.json');
      files.delete('quote-lines.json');
      // Tests of one's own came later, and what they measured.
      const measured = papaparse.parse<Record<string, string>>(files.get('measurements.csv')!, { header: true });
      const printed = measured.data.filter(({ fieldTestId }) => !fieldTestId);
      files.set('measurements.csv', papaparse.unparse(printed, { columns: measured.meta.fields!, newline: '\n' }));
      const reports = JSON.parse(files.get('lab-files.json')!) as Array<Record<string, unknown>>;
      files.set('lab-files.json', JSON.stringify(reports.map((report) => ({ ...report, profileId: null }))));
      const products = JSON.parse(files.get('products.json')!) as Array<Record<string, unknown>>;
      const kept = products.map(({ pricedOn: _on, deliveryPrice: _price, loadSize: _load, ...product }) => product);
      files.set('products.json', JSON.stringify(kept));
    },
    { version: 4 },
  );
  const place = await startServer({ empty: true });
  try {
    expect((await load(place, old)).status).toBe(204);
    const [before, after] = [await contents(demo), await contents(place)];
    for (const table of ['site', 'zone', 'treatment', 'program_zone', 'setting'])
      expect([table, after[table]]).toEqual([table, before[table]]);
    const measurements = before.measurement as ReadonlyArray<{ readonly fieldTestId: string | null }>;
    expect(after.measurement).toEqual(measurements.filter(({ fieldTestId }) => fieldTestId === null));
    expect([after.quote, after.quote_line]).toEqual([[], []]);
    const prices = await place.sql('SELECT name, "packPrice", "pricedOn", "deliveryPrice" FROM product ORDER BY name');
    const were = await demo.sql<{ name: string; packPrice: number }>('SELECT name, "packPrice" FROM product p WHERE "practiceId" = (SELECT id FROM practice WHERE name LIKE \'Brackwater%\') ORDER BY name'); // prettier-ignore
    expect(prices).toEqual(were.map((product) => ({ ...product, pricedOn: null, deliveryPrice: null })));
    const owner = await signIn(place, demoEmails.owner, password);
    expect((await readArchive(await download(owner))).manifest).toMatchObject({ version: FORMAT_VERSION });
  } finally {
    await place.close();
  }
});

it('an export of the first format comes over with every value, link and paper', async () => {
  const old = readFileSync(join(import.meta.dirname, 'former/export-1.zip'));
  const { files } = await readArchive(old);
  const place = await startServer({ empty: true });
  try {
    expect((await load(place, old)).status).toBe(204);
    const owner = await signIn(place, demoEmails.owner, password);
    const results = readRows({ file: 'lab-results.csv', spread: ['nutrients'] }, files.get('lab-results.csv')!);
    const samples = new Map(readRows({ file: 'samples.csv' }, files.get('samples.csv')!).map((one) => [one.id, one]));
    const loaded = await place.sql<{ id: string; zoneId: string; label: string; values: Record<string, object> }>(
      `SELECT result.id, own."zoneId", sample.label, (SELECT jsonb_object_agg(one.analyte, to_jsonb(one)) FROM measurement one WHERE one."resultId" = result.id) AS values
        FROM lab_result result JOIN sample ON sample.id = result."sampleId" JOIN sample_zone own ON own."sampleId" = sample.id`,
    );
    expect(loaded).toHaveLength(results.length);
    for (const { id, zoneId, sampleId, soilPh, bufferPh, bufferMethod, nutrients } of results) {
      const one = loaded.find((entry) => entry.id === id)!;
      expect([one.zoneId, one.label]).toEqual([zoneId, samples.get(sampleId)!.label]);
      expect(one.values).toMatchObject({
        soilPh: { value: Number(soilPh), unit: 'pH' },
        ...(bufferPh === null ? {} : { bufferPh: { value: Number(bufferPh), method: bufferMethod } }),
        ...Object.fromEntries(
          Object.entries(nutrients as Record<string, { value: number; unit: string }>).map(
            ([nutrient, { value, unit }]) => [nutrient, { value, unit }],
          ),
        ),
      });
    }
    const zones = (
      JSON.parse(files.get('zones.geojson')!) as { features: Array<{ properties: { thatch: number | null } }> }
    ).features;
    const [{ thatch } = { thatch: 0 }] = await place.sql<{ thatch: number }>(
      `SELECT count(*)::int AS thatch FROM measurement WHERE analyte = 'thatch' AND unit = 'cm'`,
    );
    expect(thatch).toBe(zones.filter(({ properties }) => properties.thatch !== null).length);
    // A paper is printed as it was, and what is exported now is of today's format.
    const [paper] = await place.sql<{ id: string }>('SELECT id FROM program_zone LIMIT 1');
    expect((await owner.ask('get', `/program-zones/${paper!.id}/program.pdf`)).status).toBe(200);
    expect((await readArchive(await download(owner))).manifest.version).toBe(FORMAT_VERSION);
  } finally {
    await place.close();
  }
});

describe('the files', () => {
  const text = fc.oneof(
    fc.string(),
    fc.stringMatching(/^'*[=+@\t\r-].{0,4}$/),
    fc.constantFrom('1e3', 'true', 'null', '"x"', '{}', '007'),
  );
  const scalar = fc.oneof(
    text.filter((value) => value !== ''),
    fc.double({ noNaN: true, noDefaultInfinity: true }).map((value) => value + 0),
    fc.boolean(),
  );

  it.each(['rows.csv', 'rows.json', 'rows.geojson'] as const)('give back what was written: %s', (file) => {
    const table = { entity: Object, file, what: '', spread: ['inner'] };
    const row = fc.record({
      // An empty cell is "none": texts that may be missing are never empty.
      note: fc.option(
        text.filter((value) => value !== ''),
        { nil: null },
      ),
      inner: fc.dictionary(fc.constantFrom('p', 'k', 'ca'), fc.record({ value: scalar, unit: scalar }), { minKeys: 1 }),
    });
    fc.assert(
      fc.property(fc.array(row, { minLength: 1, maxLength: 5 }), (rows) => {
        const written = file === 'rows.geojson' ? rows.map((entry) => ({ ...entry, geometry: null })) : rows;
        const back = readRows(table, writeRows(table, ['note', 'inner'], written));
        expect(JSON.parse(JSON.stringify(back))).toEqual(JSON.parse(JSON.stringify(written)));
      }),
    );
  });
});

it('an export of the second format comes over: products by purpose as materials, sites with places to be told', async () => {
  const old = readFileSync(join(import.meta.dirname, 'former/export-2.zip'));
  const { files } = await readArchive(old);
  const place = await startServer({ empty: true });
  try {
    expect((await load(place, old)).status).toBe(204);
    const products = readRows({ file: 'products.csv', spread: ['grade', 'lime'] }, files.get('products.csv')!);
    const materials = await place.sql<Record<string, unknown>>('SELECT * FROM product');
    expect(materials).toHaveLength(products.length);
    for (const { id, name, purpose, grade, lime, bagMass, bagPrice } of products)
      expect(materials.find((one) => one.id === id)).toMatchObject({
        ...{ name, kind: purpose === 'lime' ? 'lime' : 'fertilizer', packSize: Number(bagMass), packUnit: 'kg' },
        packPrice: bagPrice === null ? null : Number(bagPrice),
        analysis:
          purpose === 'lime'
            ? { cce: Number((lime as { cce: unknown }).cce) }
            : { n: Number((grade as { n: unknown }).n), k2o: Number((grade as { k2o: unknown }).k2o) },
      });
    const sites = readRows({ file: 'sites.csv' }, files.get('sites.csv')!);
    expect(await place.sql('SELECT name, "timeZone", contacts FROM site ORDER BY name')).toEqual(
      sites
        .map(({ name }) => ({ name, timeZone: null, contacts: null }))
        .sort((a, b) => String(a.name).localeCompare(String(b.name))),
    );
    const owner = await signIn(place, demoEmails.owner, password);
    const rounds = (await owner.ask('get', '/rounds/sites')).body as { sites: unknown[] };
    expect(rounds.sites).toHaveLength(sites.length);
  } finally {
    await place.close();
  }
});
