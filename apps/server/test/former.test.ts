import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { gunzipSync } from 'node:zlib';
import { expect } from '@jest/globals';
import pg from 'pg';
import { ensureRoles, prepareDatabase } from '../src/database.ts';
import { randomUUID } from 'node:crypto';

type Row = Readonly<Record<string, unknown>>;
type Sql = (text: string) => Promise<Row[]>;

/** A database as a version of Glenfold left it, told by its last migration. */
async function former(version: string, use: (sql: Sql, url: string) => Promise<void>): Promise<void> {
  const admin = new pg.Client({ connectionString: process.env.DATABASE_URL });
  await admin.connect();
  const name = `former_${randomUUID().replaceAll('-', '')}`;
  await admin.query(`CREATE DATABASE ${name}`);
  const url = new URL(process.env.DATABASE_URL!);
  url.pathname = name;
  const client = new pg.Client({ connectionString: url.href });
  await client.connect();
  try {
    const dump = gunzipSync(readFileSync(join(import.meta.dirname, 'former', `${version}.sql.gz`))).toString();
    // Whoever comes first in a new cluster finds no roles in it.
    await ensureRoles(client);
    await client.query(dump);
    await client.query('SET search_path = public');
    await use(async (text) => (await client.query<Row>(text)).rows, url.href);
  } finally {
    await client.end();
    await admin.query(`DROP DATABASE ${name} WITH (FORCE)`);
    await admin.end();
  }
}

interface Amount {
  readonly rate: { readonly value: number };
  readonly applications: ReadonlyArray<{ readonly rate: number }>;
}

/** A plan as it was handed over. */
interface Issued {
  readonly answer: {
    readonly plan: {
      readonly lime: { readonly amount: Amount | null };
      readonly nutrients: ReadonlyArray<{ readonly amount: Amount | null }>;
    };
    readonly result: Row;
    readonly reading: Row;
  };
}

const byId = (rows: readonly Row[]): ReadonlyMap<unknown, Row> => new Map(rows.map((row) => [row.id, row]));

it('the demo of the former version comes over row by row: no value, zone, file, plan or change is lost', () =>
  former('1795700000000', async (sql, url) => {
    const tables = ['site', 'zone', 'bag', 'core', 'sample', 'lab_result', 'lab_import', 'product', 'plan', 'audit', 'membership']; // prettier-ignore
    const [chosenFor = {}] = await sql('SELECT id, "practiceId" FROM zone ORDER BY id LIMIT 1');
    const [chosen = {}] = await sql(`SELECT id FROM product WHERE purpose = 'lime' ORDER BY id DESC LIMIT 1`);
    await sql(`INSERT INTO plan ("practiceId", "zoneId", choices)
      VALUES ('${String(chosenFor.practiceId)}', '${String(chosenFor.id)}', '{"lime": "${String(chosen.id)}"}')`);
    const before = new Map<string, Row[]>();
    for (const table of tables) before.set(table, await sql(`SELECT to_jsonb(t) AS row FROM ${table} t`));
    const old = (table: string): Row[] => before.get(table)!.map(({ row }) => row as Row);
    await prepareDatabase(url);
    const now = async (table: string): Promise<Row[]> =>
      (await sql(`SELECT to_jsonb(t) AS row FROM ${table} t`)).map(({ row }) => row as Row);

    // What is no value or link of its own is as it was.
    for (const [table, was, dropped] of [
      ['site', 'site', []],
      ['zone', 'zone', ['thatch', 'rootDepth', 'probeStop']],
      ['bag', 'bag', []],
      ['core', 'core', []],
      ['product', 'product', ['bagMass', 'bagPrice', 'grade', 'lime', 'purpose', 'slowRelease']],
      ['membership', 'membership', []],
      ['audit', 'audit', []],
      ['lab_report', 'lab_import', []],
    ] as const) {
      const fresh = byId(await now(table));
      expect([table, fresh.size]).toEqual([table, old(was).length]);
      for (const row of old(was)) {
        const kept = Object.fromEntries(
          Object.entries(row).filter(([key]) => !(dropped as readonly string[]).includes(key)),
        );
        // What was put down before has moved from the zone into the book.
        const { applications: _applications, ...facts } = (kept.facts ?? {}) as Row;
        expect(fresh.get(row.id)).toMatchObject(table === 'zone' && kept.facts ? { ...kept, facts } : kept);
      }
    }
    const remembered = old('zone').flatMap(({ id, facts }) =>
      ((((facts ?? {}) as Row).applications as Row[] | undefined) ?? []).map(({ kind, on, words }) => ({
        zoneId: id,
        kind,
        on,
        words,
      })),
    );
    const book = await now('entry');
    expect(remembered.length).toBeGreaterThan(3);
    for (const one of remembered) expect(book).toContainEqual(expect.objectContaining({ ...one, state: 'done' }));
    expect(book).toHaveLength(remembered.length);

    // A product by purpose is a material by analysis, with every number of its label.
    const materials = byId(await now('product'));
    for (const product of old('product')) {
      const { bagMass, bagPrice, purpose, grade, lime, slowRelease } = product;
      const { magnesium = false, caustic = false, ...strength } = (lime ?? {}) as Row;
      const slow = (slowRelease as number) > 0 ? { slowRelease } : {};
      expect(materials.get(product.id)).toMatchObject({
        ...{ packSize: bagMass, packUnit: 'kg', packPrice: bagPrice, dolomitic: magnesium, caustic },
        kind: purpose === 'lime' ? 'lime' : 'fertilizer',
        analysis: purpose === 'lime' ? strength : { ...(grade as Row), ...slow },
      });
    }

    // Each former result of a zone is there with every value, through the sample that the zone shares.
    const shared = await sql(`
      SELECT own."zoneId", sample.*, sample.id AS "sampleId", result.id AS "resultId", result."labNumber", result.beside, result.origin,
        result.extractant, result."limeFactor", result."deletedAt" AS gone,
        (SELECT jsonb_object_agg(one.analyte, to_jsonb(one)) FROM measurement one WHERE one."resultId" = result.id) AS values
      FROM lab_result result JOIN sample ON sample.id = result."sampleId" JOIN sample_zone own ON own."sampleId" = sample.id`);
    const samples = byId(old('sample'));
    expect(shared).toHaveLength(old('lab_result').length);
    for (const result of old('lab_result')) {
      const sample = samples.get(result.sampleId)!;
      const [same, ...more] = shared.filter(
        (row) =>
          row.zoneId === result.zoneId &&
          row.label === sample.label &&
          row.bagId === sample.bagId &&
          row.origin === result.origin,
      );
      expect(more).toEqual([]);
      for (const key of ['labNumber', 'beside', 'extractant', 'limeFactor'] as const)
        expect(same![key]).toEqual(result[key]);
      expect(same!.depth).toBe(sample.depth);
      const values = same!.values as Readonly<Record<string, Row>>;
      const wanted: Record<string, Row> = { soilPh: { value: result.soilPh, unit: 'pH' } };
      if (result.bufferPh !== null) wanted.bufferPh = { value: result.bufferPh, method: result.bufferMethod };
      if (result.organicMatter !== null) wanted.organicMatter = { value: result.organicMatter, unit: '%' };
      for (const [nutrient, { value, unit, basis, belowDetection }] of Object.entries(
        result.nutrients as Record<string, Row>,
      ))
        wanted[nutrient] = { value, unit, basis, qualifier: belowDetection === true ? 'below' : null };
      expect(Object.keys(values).sort()).toEqual(Object.keys(wanted).sort());
      expect(values).toMatchObject(wanted);
    }
    // One sample a bag, however many zones share it.
    const bags = shared.flatMap(({ bagId, sampleId }) => (bagId === null ? [] : [[bagId, sampleId].join()]));
    expect(new Set(bags).size).toBe(new Set(bags.map((pair) => pair.split(',')[0])).size);

    // Thatch, roots and probe.
    const tests = await sql('SELECT * FROM measurement WHERE "zoneId" IS NOT NULL');
    const measured = old('zone').flatMap(({ id, ...zone }) =>
      ['thatch', 'rootDepth', 'probeStop'].flatMap((test) =>
        zone[test] === null ? [] : [`${String(id)} ${test} ${String(zone[test] as number)}`],
      ),
    );
    expect(measured.length).toBeGreaterThan(5);
    expect(
      tests.map(({ zoneId, analyte, value }) => `${String(zoneId)} ${String(analyte)} ${String(value)}`).sort(),
    ).toEqual(measured.sort());

    // A plan is a program now, resting on a result that is there; what was handed over says what it said.
    const results = byId(await now('lab_result'));
    const handedOver = byId(await now('program_zone'));
    const programs = byId(await now('program'));
    const plans = old('plan') as unknown as ReadonlyArray<Row & { readonly issued: Issued | null }>;
    expect(handedOver.size).toBe(plans.filter(({ issued }) => issued).length);
    for (const { id, zoneId, labResultId, issuedAt, issued } of plans) {
      if (!issued) continue;
      const kept = handedOver.get(id) as Row & { issued: Issued };
      if (labResultId !== null) expect(results.has(kept.labResultId)).toBe(true);
      expect(kept).toMatchObject({ zoneId, issuedAt });
      expect(programs.get(kept.programId)).toMatchObject({ state: 'handed over', handedOverAt: issuedAt, units: 'us' });
      expect(kept.issued.answer.plan).toEqual(issued.answer.plan);
      expect(kept.issued.answer.reading).toMatchObject(issued.answer.reading);
      const { soilPh, zoneId: sampled } = issued.answer.result;
      expect(kept.issued.answer.result).toMatchObject({
        zoneIds: [sampled],
        values: { soilPh: { value: soilPh, unit: 'pH' } },
      });
      // Its lines can be asked for: every amount, in the doses that the paper tells.
      const lines = await sql(`SELECT t.key, t.rate, array_agg(d.rate ORDER BY d.position) AS doses FROM treatment t
        JOIN dose d ON d."treatmentId" = t.id WHERE t."programId" = '${String(kept.programId)}' GROUP BY 1, 2`);
      const { lime, nutrients } = issued.answer.plan;
      const amounts = [lime, ...nutrients].flatMap(({ amount }) => amount ?? []);
      expect(lines.map(({ rate, doses }) => [rate, doses]).sort()).toEqual(
        amounts.map(({ rate, applications }) => [rate.value, applications.map((one) => one.rate)]).sort(),
      );
    }
    const decided = await sql(`SELECT t."zoneId", t.key, t."productId", t.override -> 'values' ->> 'material' AS chosen
      FROM treatment t JOIN program p ON p.id = t."programId" WHERE p.state = 'draft'`);
    expect(decided).toEqual([{ zoneId: chosenFor.id, key: 'lime', productId: chosen.id, chosen: chosen.id }]);
  }));

it('copies of a bag’s result become one that its zones share, unless somebody corrected one of them', () =>
  former('1795700000000', async (sql, url) => {
    const [bag] = await sql(`SELECT id, code FROM bag WHERE jsonb_array_length("zoneIds") > 0 LIMIT 1`);
    const zones = await sql(
      `SELECT z.id, z."practiceId", z."siteId" FROM zone z JOIN bag b ON b."siteId" = z."siteId" WHERE b.id = '${String(bag!.id)}' LIMIT 3`,
    );
    expect(zones).toHaveLength(3);
    const ids: unknown[] = [];
    for (const [index, { id, practiceId, siteId }] of zones.entries()) {
      const [sample] = await sql(`INSERT INTO sample ("practiceId", "siteId", "zoneId", "bagId", label, depth)
        VALUES ('${String(practiceId)}', '${String(siteId)}', '${String(id)}', '${String(bag!.id)}', 'B', 10) RETURNING id`);
      const [result] =
        await sql(`INSERT INTO lab_result ("practiceId", "sampleId", "zoneId", extractant, "soilPh", nutrients, origin)
        VALUES ('${String(practiceId)}', '${String(sample!.id)}', '${String(id)}', 'olsen', ${index === 2 ? 6.4 : 6.1}, '{}', 'r.csv') RETURNING id`);
      ids.push(result!.id);
    }
    const [{ practiceId, id: zoneId } = {}] = zones.slice(1);
    await sql(
      `INSERT INTO plan ("practiceId", "zoneId", "issuedAt", "labResultId", issued) SELECT '${String(practiceId)}', '${String(zoneId)}', now(), '${String(ids[1])}', issued
        FROM plan WHERE issued IS NOT NULL LIMIT 1`,
    );
    await prepareDatabase(url);
    const kept =
      await sql(`SELECT result.id, array_agg(own."zoneId" ORDER BY own."zoneId") AS zones, max(one.value) AS ph
      FROM lab_result result JOIN sample_zone own ON own."sampleId" = result."sampleId"
      JOIN measurement one ON one."resultId" = result.id WHERE result.origin = 'r.csv' GROUP BY 1 ORDER BY ph`);
    const [first, second, corrected] = zones.map(({ id }) => id as string);
    expect(kept).toEqual([
      { id: expect.anything() as unknown, zones: [first, second].sort(), ph: 6.1 },
      { id: ids[2], zones: [corrected], ph: 6.4 },
    ]);
    const [plan] = await sql(
      `SELECT "labResultId" FROM program_zone WHERE "zoneId" = '${String(zoneId)}' ORDER BY "issuedAt" DESC LIMIT 1`,
    );
    expect(plan!.labResultId).toBe(kept[0]!.id);
  }));

it('the way back to the former version loses nothing that it can hold', () =>
  former('1795700000000', async (sql, url) => {
    const told = async (): Promise<unknown> =>
      sql(`SELECT result.id, result."soilPh", result."bufferPh", result."bufferMethod", result."organicMatter",
        replace(result.nutrients::text, ', "belowDetection": false', '') AS nutrients, zone.name, zone.thatch, zone."rootDepth", zone."probeStop"
        FROM lab_result result JOIN zone ON zone.id = result."zoneId" ORDER BY result.id`);
    const plans = (): Promise<Row[]> =>
      sql(`SELECT id, "zoneId", "issuedAt", "labResultId", issued #> '{answer,plan}' AS plan FROM plan ORDER BY id`);
    const before = [await told(), await plans()];
    await prepareDatabase(url);
    const { ownerSource } = await import('../src/database.ts');
    const source = ownerSource(url);
    await source.initialize();
    while (
      (await source.query<Array<{ name: string }>>('SELECT name FROM migrations ORDER BY id DESC LIMIT 1'))[0]!.name !==
      'Reasons1795700000000'
    )
      await source.undoLastMigration();
    await source.destroy();
    expect([await told(), await plans()]).toEqual(before);
  }));
