import { jest } from '@jest/globals';
import { DataSource } from 'typeorm';
import { Site } from '../src/ground/site.entity.ts';
import { Zone } from '../src/ground/zone.entity.ts';
import { PracticeContext } from '../src/platform/practiceContext.ts';
import { Problem } from '../src/platform/problem.ts';
import { Records } from '../src/platform/records.ts';
import { type TestServer, startServer } from './harness.ts';

jest.setTimeout(60_000);

let server: TestServer;
let records: Records;
let context: PracticeContext;
let dataSource: DataSource;
let ours: string;
let theirs: string;

const practice = async (name: string): Promise<string> => {
  const [row] = await server.sql<{ id: string }>(`INSERT INTO practice (name) VALUES ($1) RETURNING id`, [name]);
  return row!.id;
};
const as = <T>(practiceId: string, work: () => Promise<T>): Promise<T> => context.run(practiceId, work);

beforeAll(async () => {
  server = await startServer({ empty: true });
  records = server.app.get(Records);
  context = server.app.get(PracticeContext);
  dataSource = server.app.get(DataSource);
  [ours, theirs] = [await practice('Ours'), await practice('Theirs')];
});
afterAll(() => server.close());

describe('records', () => {
  it('of another practice are not found, changed, deleted or restored', async () => {
    const site = await as(theirs, () => records.of(Site).add({ name: 'Secret', place: null }));
    for (const attempt of [
      () => records.of(Site).one(site.id),
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
        await new Promise((later) => setTimeout(later, Math.random() * 20));
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

describe('the migrations', () => {
  it('can be taken back and made again', async () => {
    await dataSource.undoLastMigration();
    expect(await server.sql(`SELECT 1 FROM information_schema.tables WHERE table_name = 'zone'`)).toEqual([]);
    await dataSource.runMigrations();
    expect(await server.sql(`SELECT 1 FROM information_schema.tables WHERE table_name = 'zone'`)).toHaveLength(1);
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
