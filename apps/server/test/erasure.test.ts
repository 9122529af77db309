import type { AuditPageAnswer, ErasureAnswer, LabResultAnswer, SiteAnswer, ZoneAnswer, ZoneProgramAnswer } from '@glenfold/contract'; // prettier-ignore
import { zoneInput } from '@glenfold/contract';
import { cpSync, existsSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { erasedByDatabase, erasedColumns } from '../src/erasure/erasedColumns.ts';
import { Installation } from '../src/platform/installation.ts';
import { areaOf } from '@glenfold/agronomy/geometry';
import fc from 'fast-check';
import { moved, movingAway, namesIn, strikingOut } from '../src/erasure/forgetting.ts';
import { FileStore } from '../src/ports/fileStore.ts';
import { get, send, siteOf, useDemoServer } from './client.ts';
import { demoEmails, openBrowser, signIn } from './harness.ts';
import { picture } from './promisedRoutes.ts';

const server = useDemoServer();
// Files are taken away here, of a folder that no other test reads; and as in a practice of one's own, since the made-up
// one may share its folder.
const folder = mkdtempSync(join(tmpdir(), 'glenfold-erasure-'));
beforeAll(() => {
  const { app } = server.current();
  const installation = app.get(Installation);
  cpSync(installation.files, folder, { recursive: true });
  Object.assign(app.get(FileStore, { strict: false }), { folder });
  Object.assign(installation, { demo: false });
});
afterAll(() => rmSync(folder, { recursive: true }));
const sql = <T extends object>(text: string, values?: unknown[]): Promise<T[]> => server.current().sql<T>(text, values);

/** All text of all rows, of whatever table and schema. */
async function everything(): Promise<string> {
  const tables = await sql<{ name: string }>(
    `SELECT format('%I.%I', table_schema, table_name) AS name FROM information_schema.tables
     WHERE table_schema IN ('public', 'pgboss') AND table_type = 'BASE TABLE'`,
  );
  const texts: string[] = [];
  for (const { name } of tables) {
    const rows = await sql<{ row: string }>(`SELECT t::text AS row FROM ${name} t`);
    texts.push(...rows.map(({ row }) => `${name} ${row}`));
  }
  return texts.join('\n');
}

/** What of the ground is kept: figures by zone, whatever the zone is called. */
async function figuresOf(site: SiteAnswer): Promise<unknown> {
  const zones = await get<ZoneAnswer[]>(`/sites/${site.id}/zones`);
  const results = await get<LabResultAnswer[]>(`/sites/${site.id}/lab-results`);
  const programs = await Promise.all(
    zones.map(async ({ id }) => (await get<ZoneProgramAnswer>(`/zones/${id}/program?units=us`)).program),
  );
  return {
    zones: zones.map(({ id, area, grass, surface, measured, facts }) => [
      ...[id, area, grass, surface, facts.slope, facts.signs?.map(({ sign }) => sign)],
      Object.entries(measured).map(([name, one]) => [name, one.value]),
    ]),
    results: results.map(({ id, values, sampledOn, depth }) => [id, values, sampledOn, depth]),
    rates: programs.map((program) => program.treatments.map(({ key, rate }) => [key, rate?.value])),
  };
}

/** Every row of a site, as text. */
async function rowsOf({ id }: SiteAnswer): Promise<string[]> {
  const kinds = await sql<{ kind: string; ids: string[] }>(
    'SELECT "kind", array_agg("id") AS ids FROM rows_of_site($1) GROUP BY "kind" ORDER BY "kind"',
    [id],
  );
  const rows: string[] = [];
  for (const { kind, ids } of kinds)
    for (const { row } of await sql<{ row: string }>(
      `SELECT t::text AS row FROM "${kind}" t WHERE "id" = ANY($1) ORDER BY "id"`,
      [ids],
    ))
      rows.push(row);
  return rows;
}

it('what can hold words is accounted for in every table of a site, and in every column of it', async () => {
  const columns = await sql<{ table: string; column: string; word: boolean; named: boolean }>(
    `SELECT table_name AS table, column_name AS column, data_type IN ('text', 'jsonb', 'json', 'character varying') AS word,
       column_name IN ('siteId', 'zoneId', 'bagId', 'coreId', 'sampleId', 'programId', 'treatmentId', 'quoteId') AS named
     FROM information_schema.columns JOIN information_schema.tables USING (table_schema, table_name)
     WHERE table_schema = 'public' AND table_type = 'BASE TABLE'`,
  );
  const ofSites = new Set(columns.filter(({ table, named }) => named || table === 'site').map(({ table }) => table));
  for (const table of erasedByDatabase) ofSites.delete(table);
  expect(Object.keys(erasedColumns).sort()).toEqual([...ofSites].sort());
  const words = columns.filter(({ table, word }) => word && ofSites.has(table)).map(({ table, column }) => `${table}.${column}`);
  const told = Object.entries(erasedColumns).flatMap(([table, { emptied = {}, told = [], written = [], moved = [], stays = [] }]) =>
    [...new Set([...Object.keys(emptied), ...told, ...written, ...moved, ...stays])].map((column) => `${table}.${column}`),
  );
  const all = new Set(columns.map(({ table, column }) => `${table}.${column}`));
  expect(told.filter((one) => !all.has(one))).toEqual([]);
  expect(words.filter((one) => !told.includes(one))).toEqual([]);
}); // prettier-ignore

it('a client of several sites keeps the others, and what they sign in with', async () => {
  const [kelp, gannet] = [await siteOf('Kelp'), await siteOf('Gannet')];
  await sql(`UPDATE membership SET "siteIds" = $1 WHERE role = 'client'`, [JSON.stringify([kelp.id, gannet.id])]);
  expect(await send('post', `/sites/${kelp.id}/erasure`, { name: kelp.name }, 200)).toMatchObject({ accounts: 0 });
  const client = await signIn(server.current(), demoEmails.client);
  const reports = (await client.ask('get', '/reports')).body as ReadonlyArray<{ site: { name: string } }>;
  expect(JSON.stringify(reports)).toContain(gannet.name);
  expect(JSON.stringify(reports)).not.toContain(kelp.id);
});

it('a client is erased from all that is kept; the ground’s figures stay, and the record of changes says so', async () => {
  const site = await siteOf('Gannet');
  const [zone] = await get<ZoneAnswer[]>(`/sites/${site.id}/zones`);
  // Whatever people write where they may.
  await send('put', `/zones/${zone!.id}`, { ...zoneInput(zone!), name: 'Lawn of Hetty', aimReason: 'Mrs Coppice asked for moss' }); // prettier-ignore
  await send('post', `/sites/${site.id}/share-links`, { purpose: 'Jory Pell, by hand', days: 30 }, 201);
  await send('post', `/zones/${zone!.id}/photos`, { ...picture, caption: 'The door of number 4' }, 201);
  await send('post', '/invitations', { email: 'jory@gannetrow.example', role: 'client', siteIds: [site.id] }, 201);
  const before = await figuresOf(site);
  const school = await siteOf('Harbour');
  const others = await rowsOf(school);
  expect(others.length).toBeGreaterThan(50);
  const kept = await sql<{ file: string }>(
    `SELECT original AS file FROM lab_report WHERE "siteId" = $1 AND original IS NOT NULL
     UNION SELECT unnest(ARRAY[digest, thumb]) FROM zone_photo WHERE "zoneId" = $2 AND digest IS NOT NULL`,
    [site.id, zone!.id],
  );
  const path = (file: string): string => join(folder, file.slice(0, 2), file);
  expect(kept.length).toBeGreaterThan(1);
  expect(kept.filter(({ file }) => !existsSync(path(file)))).toEqual([]);

  const done = await send<ErasureAnswer>('post', `/sites/${site.id}/erasure`, { name: site.name }, 200);
  expect(done.site).toMatchObject({ place: null, contacts: null, access: null });
  expect(done.site.name).toMatch(/^Ground [0-9A-F]{6}$/);
  expect([done.accounts, done.files]).toEqual([1, kept.length]);

  // Nowhere in the database, nor among the files.
  const left = await everything();
  const secrets = /[Gg]annet|Hetty|Coppice|Jory|Pell\b|555 0102|555 0177|number 4|wash house|Terrier|GR-\d|26-041[89]|46\.501\d|-36\.003\d/g;
  expect(left.split('\n').flatMap((row) => [...row.matchAll(secrets)].map(([found]) => `${found}: ${row.slice(0, 120)}`))).toEqual([]);
  expect(kept.filter(({ file }) => existsSync(path(file)))).toEqual([]);

  expect(await figuresOf(done.site)).toEqual(before);
  expect(await rowsOf(school)).toEqual(others);
  // It is worked with as before.
  const pages = ['', '/state', '/zones', '/drawing', '/bags', '/season?units=us', '/logbook?units=us', '/report', '/readings?units=us', '/logbook.pdf?units=us&from=2024-01-01&to=2027-12-31']; // prettier-ignore
  for (const page of pages) {
    const { status } = await server.owner().ask('get', `/sites/${site.id}${page}`);
    expect([page, status]).toEqual([page, 200]);
  }
  const { entries } = await get<AuditPageAnswer>('/audit');
  expect(entries[0]).toMatchObject({ action: 'erase', kind: 'site', by: 'Orla Tench', recordName: done.site.name });
  expect((await openBrowser(server.current()).agent.post('/api/session').send({ email: demoEmails.client, password: 'x' })).status).not.toBe(200); // prettier-ignore
}); // prettier-ignore

it('a site is erased by its name only, and by an owner', async () => {
  const school = await siteOf('Harbour');
  const before = await rowsOf(school);
  expect(await send<{ detail: string }>('post', `/sites/${school.id}/erasure`, { name: 'Another' }, 422)).toMatchObject(
    {
      detail: `This site is called “${school.name}”. Type that to erase whose it is.`,
    },
  );
  const advisor = await signIn(server.current(), demoEmails.advisor);
  expect((await advisor.ask('post', `/sites/${school.id}/erasure`, { name: school.name })).status).toBe(403);
  expect(await rowsOf(school)).toEqual(before);
});

const degrees = (most: number) => fc.double({ min: -most, max: most, noNaN: true });

it('ground that is moved away keeps its shape, and lies within some kilometres', () => {
  const metres = fc.double({ min: 5, max: 200, noNaN: true });
  fc.assert(
    fc.property(degrees(179), degrees(65), metres, metres, (longitude, latitude, wide, deep) => {
      const right = longitude + wide / (111_320 * Math.cos((latitude * Math.PI) / 180));
      const up = latitude + deep / 111_320;
      const outline = { type: 'Polygon' as const, coordinates: [[[longitude, latitude], [right, latitude], [right, up], [longitude, up], [longitude, latitude]]] }; // prettier-ignore
      const { move, to } = movingAway([longitude, latitude]);
      const away = moved(outline, move) as typeof outline;
      expect(Math.abs(areaOf(away) / areaOf(outline) - 1)).toBeLessThan(1e-4);
      expect(Math.hypot(to[0] - longitude, to[1] - latitude)).toBeLessThan(0.0708);
    }),
  );
});

it('names are struck out as whole words, the longest first, and words of the calendar and the trade are none', () => {
  expect(namesIn('May Greene, Lime Lane 4')).toEqual(['May Greene, Lime Lane 4', 'Greene', 'Lane']);
  expect(namesIn('The Green')).toEqual(['The Green']);
  const strike = strikingOut([...namesIn('Hetty Coppice'), '555 0102 (evenings)']);
  expect(strike('Hetty Coppice, or Hetty: 555 0102 (evenings). Hettys coppice')).toBe('…, or …: …. Hettys coppice');
});
