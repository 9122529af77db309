import { DataSource } from 'typeorm';
import { Site } from '../src/sites/site.entity.ts';
import { Zone } from '../src/ground/zone.entity.ts';
import { AuditEntry } from '../src/platform/auditEntry.entity.ts';
import { entities, identityEntities, ownedEntities, serviceEntities } from '../src/entities.ts';
import { siteAnswer } from '../src/ground/ground.service.ts';
import { ownerSource } from '../src/database.ts';
import { Problem } from '../src/platform/problem.ts';
import { Records, Stale } from '../src/platform/records.ts';
import { Work } from '../src/platform/work.ts';
import { type TestServer, startServer } from './harness.ts';

let server: TestServer;
let records: Records;
let context: Work;
let dataSource: DataSource;
let ours: string;
let theirs: string;

const practice = async (name: string): Promise<string> => {
  const [row] = await server.sql<{ id: string }>(`INSERT INTO practice (name) VALUES ($1) RETURNING id`, [name]);
  return row!.id;
};
const as = <T>(practiceId: string, work: () => Promise<T>, name = 'Nell Brack'): Promise<T> =>
  context.run({ practiceId, person: { id: practiceId, name }, role: 'advisor' }, work);

beforeAll(async () => {
  server = await startServer({ empty: true });
  records = server.app.get(Records);
  context = server.app.get(Work);
  dataSource = server.app.get(DataSource);
  [ours, theirs] = [await practice('Ours'), await practice('Theirs')];
});
afterAll(() => server.close());

describe('records', () => {
  it('of another practice are not found, changed, deleted or restored', async () => {
    const site = await as(theirs, () => records.of(Site).add({ name: 'Secret', place: null }));
    for (const attempt of [
      () => records.of(Site).one(site.id),
      () => records.of(Site).locked(site.id),
      () => records.of(Site).change(site.id, { name: 'Taken' }),
      () => records.of(Site).remove(site.id),
      () => records.of(Site).restore(site.id),
      () => records.of(Site).deleted(site.id),
    ]) {
      await expect(as<unknown>(ours, attempt)).rejects.toBeInstanceOf(Problem);
    }
    expect(await as(ours, () => records.of(Site).find())).toEqual([]);
    expect(await as(ours, () => records.of(Site).find({ id: site.id, practiceId: theirs }))).toEqual([]);
    expect(await as(theirs, () => records.of(Site).one(site.id))).toMatchObject({ name: 'Secret', deletedAt: null });
  });

  it('cannot be added to, or moved into, another practice', async () => {
    const added = await as(ours, () => records.of(Site).add({ name: 'Mine', place: null, practiceId: theirs }));
    expect(added.practiceId).toBe(ours);
    const moved = await as(ours, () => records.of(Site).change(added.id, { practiceId: theirs, id: theirs }));
    expect([moved.id, moved.practiceId]).toEqual([added.id, ours]);
  });

  it('need a practice: work without one is a fault, not a default', () => {
    expect(() => records.of(Site)).toThrow('No practice is set');
  });

  it('of two practices do not mix when they work at the same time', async () => {
    const add = (id: string, name: string) =>
      as(id, async () => {
        // Let the others begin before it goes on.
        await new Promise((later) => setImmediate(later));
        return records.of(Site).add({ name, place: null });
      });
    const sites = await Promise.all(
      Array.from({ length: 20 }, (_, index) => add(index % 2 ? ours : theirs, String(index))),
    );
    for (const { name, practiceId } of sites) expect(practiceId).toBe(Number(name) % 2 ? ours : theirs);
  });

  it('changed together stand or fall together', async () => {
    const before = (await as(ours, () => records.of(Site).find())).length;
    const broken = as(ours, () =>
      records.together(async (of) => {
        const site = await of(Site).add({ name: 'Half', place: null });
        await of(Zone).add({ siteId: site.id, name: 'no area' });
      }),
    );
    await expect(broken).rejects.toThrow();
    expect(await as(ours, () => records.of(Site).find())).toHaveLength(before);
  });

  it('replace a JSON column whole', async () => {
    const base = {
      position: 1,
      name: 'Z',
      label: 'Z',
      area: 10,
      grass: 'tall fescue',
      surface: 'turf',
      intensity: 'low',
      shade: 'part',
      clippings: 'removed',
    } as const;
    const changed = await as(ours, async () => {
      const site = await records.of(Site).add({ name: 'S', place: null });
      const zone = await records.of(Zone).add({
        ...base,
        siteId: site.id,
        geometry: {
          type: 'Polygon',
          coordinates: [
            [
              [0, 0],
              [1, 0],
              [1, 1],
              [0, 0],
            ],
          ],
        },
      });
      await records.of(Zone).change(zone.id, { geometry: { type: 'Polygon', coordinates: [] } });
      return records.of(Zone).one(zone.id);
    });
    expect(changed.geometry).toEqual({ type: 'Polygon', coordinates: [] });
  });
});

describe('the second wall', () => {
  it('shows a query that forgets its scope nothing, and takes nothing from it', async () => {
    const site = await as(theirs, () => records.of(Site).add({ name: 'Walled', place: null }));
    const forgets = (): Promise<Site[]> => dataSource.manager.find(Site, { withDeleted: true });
    expect(await forgets()).toEqual([]);
    expect(await dataSource.query('UPDATE site SET name = $1', ['Taken'])).toEqual([[], 0]);
    await expect(
      dataSource.query('INSERT INTO site ("practiceId", name) VALUES ($1, $2)', [theirs, 'Smuggled']),
    ).rejects.toThrow('row-level security');
    // With a scope, even SQL without any condition stays at home.
    const seen = await as(ours, () =>
      records.scoped((manager) => manager.query<Array<{ practiceId: string }>>('SELECT "practiceId" FROM site')),
    );
    expect(new Set(seen.map(({ practiceId }) => practiceId))).toEqual(new Set([ours]));
    expect((await as(theirs, () => records.of(Site).one(site.id))).name).toBe('Walled');
  });

  it('stands around every table, and who is asking is kept from the practices’ work', async () => {
    const tables = await server.sql<{ name: string; walled: boolean }>(
      `SELECT relname AS name, relrowsecurity AS walled FROM pg_class WHERE relkind = 'r' AND relnamespace = 'public'::regnamespace AND relname <> 'migrations'`,
    );
    expect(tables.filter(({ walled }) => !walled)).toEqual([]);
    expect(tables.map(({ name }) => name).sort()).toEqual(
      dataSource.entityMetadatas.map(({ tableName }) => tableName).sort(),
    );
    for (const sql of [
      'SELECT "passwordHash" FROM person',
      'SELECT * FROM session',
      'DELETE FROM site',
      'DELETE FROM audit',
    ])
      await expect(dataSource.query(sql)).rejects.toThrow('permission denied');
    await expect(dataSource.query(`UPDATE audit SET "personName" = 'Nobody'`)).rejects.toThrow('permission denied');
  });

  it('and the audit belong to every table of records', async () => {
    const guarded = await server.sql<{ name: string }>(
      `SELECT DISTINCT tgrelid::regclass::text AS name FROM pg_trigger WHERE tgname = 'audited'`,
    );
    const names = [...ownedEntities.map((entity) => dataSource.getMetadata(entity).tableName), 'practice'];
    expect(guarded.map(({ name }) => name).sort()).toEqual(names.sort());
    expect(entities).toHaveLength(ownedEntities.length + identityEntities.length + serviceEntities.length + 1);
    for (const entity of [...ownedEntities, ...serviceEntities])
      expect(
        dataSource.getMetadata(entity).columns.find(({ propertyName }) => propertyName === 'practiceId')?.isNullable,
      ).toBe(false);
  });
});

describe('a save', () => {
  const told = { tell: siteAnswer };

  it('that rests on an older version is refused with the newer one, and nothing is overwritten', async () => {
    const { id } = await as(ours, () => records.of(Site).add({ name: 'Weir', place: null }));
    await as(ours, () => records.of(Site).change(id, { name: 'Upper weir' }, { version: 1, ...told }), 'Ada Sedge');
    const late = as(ours, () => records.of(Site).change(id, { place: 'below the mill' }, { version: 1, ...told }));
    await expect(late).rejects.toBeInstanceOf(Stale);
    expect(((await late.catch((error: unknown) => error)) as Stale).conflict).toEqual({
      current: expect.objectContaining({ id, name: 'Upper weir', place: null, version: 2 }) as object,
      changedBy: 'Ada Sedge',
      changedAt: expect.any(String) as string,
    });
    expect(await as(ours, () => records.of(Site).one(id))).toMatchObject({
      name: 'Upper weir',
      place: null,
      version: 2,
    });
  });

  it('of the same version by several at once goes through once', async () => {
    const { id } = await as(ours, () => records.of(Site).add({ name: 'Race', place: null }));
    const saves = Array.from({ length: 8 }, (_, index) =>
      as(ours, () => records.of(Site).change(id, { place: String(index) }, { version: 1, ...told })),
    );
    const outcomes = await Promise.allSettled(saves);
    expect(outcomes.filter(({ status }) => status === 'fulfilled')).toHaveLength(1);
    expect((await as(ours, () => records.of(Site).one(id))).version).toBe(2);
  });

  it('of a record that was deleted meanwhile says who deleted it', async () => {
    const { id } = await as(ours, () => records.of(Site).add({ name: 'Gone', place: null }));
    await as(ours, () => records.of(Site).remove(id), 'Ada Sedge');
    const late = as(ours, () => records.of(Site).change(id, { name: 'Back' }, { version: 1, ...told }));
    await expect(late).rejects.toThrow('Ada Sedge deleted this record');
  });

  it('stands in the audit with who, from what and to what; a change that fails leaves none', async () => {
    const audit = (): Promise<AuditEntry[]> =>
      as(ours, () => records.scoped((manager) => manager.find(AuditEntry, { order: { number: 'ASC' } })));
    const before = (await audit()).length;
    const { id } = await as(ours, () => records.of(Site).add({ name: 'Lock', place: 'north' }), 'Ada Sedge');
    await as(ours, () => records.of(Site).change(id, { place: 'south' }), 'Bram Rush');
    await as(ours, () => records.of(Site).change(id, { place: 'south' }), 'Bram Rush');
    await as(ours, () => records.of(Site).remove(id));
    await as(ours, () => records.of(Site).restore(id));
    const half = as(ours, () =>
      records.together(async (of) => {
        await of(Site).change(id, { place: 'west' });
        throw new Error('stop');
      }),
    );
    await expect(half).rejects.toThrow('stop');
    const untold = { access: null, climate: null, contacts: null, normals: null, position: null, timeZone: null };
    const entries = (await audit()).slice(before);
    expect(
      entries.map(({ action, personName, recordName, before, after }) => [
        action,
        personName,
        recordName,
        before,
        after,
      ]),
    ).toEqual([
      ['add', 'Ada Sedge', 'Lock', null, { ...untold, name: 'Lock', place: 'north' }],
      ['change', 'Bram Rush', 'Lock', { place: 'north' }, { place: 'south' }],
      ['delete', 'Nell Brack', 'Lock', { ...untold, name: 'Lock', place: 'south' }, null],
      ['restore', 'Nell Brack', 'Lock', null, { ...untold, name: 'Lock', place: 'south' }],
    ]);
    expect(new Set(entries.map(({ practiceId, kind, recordId }) => `${practiceId} ${kind} ${recordId}`))).toEqual(
      new Set([`${ours} site ${id}`]),
    );
  });
});

describe('the migrations', () => {
  it('can be taken back and made again', async () => {
    const there = async (table: string): Promise<boolean> =>
      (await server.sql(`SELECT 1 FROM information_schema.tables WHERE table_name = $1`, [table])).length > 0;
    const owner = await ownerSource(server.url).initialize();
    const column = async (name = 'aimReason'): Promise<number> =>
      (await server.sql(`SELECT 1 FROM information_schema.columns WHERE column_name = $1`, [name])).length;
    const known = async (name: string): Promise<number> =>
      (await server.sql(`SELECT 1 FROM pg_proc WHERE proname = $1`, [name])).length;
    const asks = (): Promise<number> => known('who_asks');
    expect([await asks(), await there('run'), await there('program')]).toEqual([1, true, true]);
    const partial = async (): Promise<number> =>
      (await server.sql(`SELECT 1 FROM pg_indexes WHERE indexname = 'measurement_zone' AND indexdef LIKE '%WHERE%'`))
        .length;
    expect([await partial(), await known('retests'), await there('known_device')]).toEqual([1, 1, true]);
    const qualifiers = async (): Promise<boolean> =>
      (await server.sql(`SELECT 1 FROM pg_constraint WHERE conname = 'measurement_qualifier_check' AND pg_get_constraintdef(oid) LIKE '%medium%'`)).length > 0; // prettier-ignore
    expect([await qualifiers(), await column('kind'), await column('mixed')]).toEqual([true, expect.any(Number), 2]);
    const kinds = await column('kind');
    const places = await column('replacesId');
    const phones = await column('phone');
    expect([await column('clientsShare'), await column('price')]).toEqual([1, expect.any(Number)]);
    const priced = await column('price');
    await owner.undoLastMigration();
    expect([await column('clientsShare'), await column('clientId'), await column('part')]).toEqual([0, 0, 0]);
    await owner.undoLastMigration();
    expect(await column('price')).toBe(priced - 1);
    await owner.undoLastMigration();
    expect([await column('phone'), await column('ceiling')]).toEqual([phones - 1, 1]);
    await owner.undoLastMigration();
    expect([await column('ceiling'), await there('message')]).toEqual([0, true]);
    await owner.undoLastMigration();
    expect(await there('message')).toBe(false);
    const decided = await column('decided');
    await owner.undoLastMigration();
    expect(await column('decided')).toBeLessThan(decided);
    await owner.undoLastMigration();
    expect([places, await column('replacesId')]).toEqual([1, 0]);
    await owner.undoLastMigration();
    expect(await qualifiers()).toBe(false);
    await owner.undoLastMigration();
    expect(await column('kind')).toBe(kinds - 1);
    await owner.undoLastMigration();
    expect([await column('mixed'), await known('erase_books')]).toEqual([0, 1]);
    await owner.undoLastMigration();
    expect([await known('erase_books'), await there('known_device')]).toEqual([0, true]);
    await owner.undoLastMigration();
    expect([await there('known_device'), await there('done_once')]).toEqual([false, true]);
    await owner.undoLastMigration();
    expect([await known('retests'), await there('done_once')]).toEqual([1, false]);
    await owner.undoLastMigration();
    expect([await partial(), await known('retests')]).toEqual([1, 0]);
    await owner.undoLastMigration();
    expect([await partial(), await there('history_import')]).toEqual([0, true]);
    await owner.undoLastMigration();
    expect([await there('history_import'), await column('thumb')]).toEqual([false, 1]);
    await owner.undoLastMigration();
    expect([await column('thumb'), await there('field_test')]).toEqual([0, true]);
    await owner.undoLastMigration();
    expect([await there('field_test'), await there('lab_profile')]).toEqual([false, true]);
    await owner.undoLastMigration();
    expect([await there('lab_profile'), await there('entry')]).toEqual([false, true]);
    await owner.undoLastMigration();
    expect([await there('entry'), await column('pricedOn')]).toEqual([false, 1]);
    await owner.undoLastMigration();
    expect(await column('pricedOn')).toBe(0);
    await owner.undoLastMigration();
    expect([await there('quote'), await there('program')]).toEqual([false, true]);
    await owner.undoLastMigration();
    expect([await there('program'), await there('plan')]).toEqual([false, true]);
    await owner.undoLastMigration();
    expect([await asks(), await there('run')]).toEqual([1, false]);
    await owner.undoLastMigration();
    expect([await asks(), await there('setting')]).toEqual([0, true]);
    await owner.undoLastMigration();
    expect([await there('setting'), await there('laboratory')]).toEqual([false, true]);
    await owner.undoLastMigration();
    expect([await there('laboratory'), await there('measurement')]).toEqual([false, true]);
    await owner.undoLastMigration();
    expect([await there('measurement'), await there('lab_import'), await column()]).toEqual([false, true, 1]);
    await owner.undoLastMigration();
    expect([await column(), await there('standin_sample')]).toEqual([0, true]);
    await owner.undoLastMigration();
    expect([await there('standin_sample'), await there('core_tap')]).toEqual([false, true]);
    await owner.undoLastMigration();
    expect([await there('core_tap'), await there('underlay')]).toEqual([false, true]);
    await owner.undoLastMigration();
    expect([await there('underlay'), await there('ground_feature')]).toEqual([false, true]);
    await owner.undoLastMigration();
    expect([await there('ground_feature'), await there('person')]).toEqual([false, true]);
    await owner.undoLastMigration();
    expect([await there('person'), await there('zone')]).toEqual([false, true]);
    await owner.undoLastMigration();
    expect(await there('zone')).toBe(false);
    await owner.runMigrations();
    for (const table of [
      'field_test',
      'lab_profile',
      'entry',
      'quote',
      'program',
      'setting',
      'measurement',
      'sample_zone',
      'lab_report',
      'standin_sample',
      'core_tap',
      'underlay',
      'ground_feature',
      'person',
      'zone',
    ])
      expect(await there(table)).toBe(true);
    await owner.destroy();
  });

  it('make every column that an entity has, and no other', async () => {
    const columns = await server.sql<{ name: string; nullable: string }>(
      `SELECT table_name || '.' || column_name AS name, is_nullable AS nullable FROM information_schema.columns WHERE table_schema = 'public' AND table_name <> 'migrations'`,
    );
    const made = columns.map(({ name, nullable }) => `${name} ${nullable === 'YES' ? 'null' : 'not null'}`);
    const wanted = dataSource.entityMetadatas.flatMap(({ tableName, columns: own }) =>
      own.map(({ databaseName, isNullable }) => `${tableName}.${databaseName} ${isNullable ? 'null' : 'not null'}`),
    );
    expect(made.sort()).toEqual(wanted.sort());
  });
});
