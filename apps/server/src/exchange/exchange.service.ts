import {
  LabResultInput,
  MaterialInput,
  type LoadExportInput,
  SiteInput,
  ZoneInput,
  problemFields,
} from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { plainToInstance } from 'class-transformer';
import { validate } from 'class-validator';
import type { EntityManager } from 'typeorm';
import { Person } from '../people/person.entity.ts';
import { newPasswordHash } from '../people/signIn.service.ts';
import { SessionService } from '../people/session.service.ts';
import { SetupService } from '../people/setup.service.ts';
import { reported } from '../measurements/reported.ts';
import { Door } from '../platform/door.ts';
import { grouped } from '../platform/grouped.ts';
import { Problem, refuse } from '../platform/problem.ts';
import { Records } from '../platform/records.ts';
import { Threads } from '../platform/threads.ts';
import { FileStore } from '../ports/fileStore.ts';
import { Work } from '../platform/work.ts';
import { type ArchiveFile, type Blob, notAnExport, readArchive, writeArchive } from './archive.ts';
import { oneOfEach } from './oneOfEach.ts';
import { type Tables, readTables } from './readTables.ts';
import { readVersion1 } from './version1.ts';
import { readVersion2 } from './version2.ts';
import { readVersion3 } from './version3.ts';
import { readVersion4 } from './version4.ts';
import { readVersion5 } from './version5.ts';
import { readVersion6 } from './version6.ts';
import { readVersion7 } from './version7.ts';
import { readVersion8 } from './version8.ts';
import { readVersion10 } from './version10.ts';
import { readVersion11 } from './version11.ts';
import { readVersion9 } from './version9.ts';
import { type Row, tableText } from './formats.ts';
import { type ExportedTable, exportedTables } from './tables.ts';

/** Tables that are written before there is a practice to work for. */
const AT_THE_DOOR = ['practice.json', 'people.csv', 'memberships.json'];

/** Leaving with everything, and coming back with it. */
/** Readers of former formats. */
const readers: Readonly<Record<number, (files: ReadonlyMap<string, string>) => Tables>> = {
  1: readVersion1,
  2: readVersion2,
  3: readVersion3,
  4: readVersion4,
  5: readVersion5,
  6: readVersion6,
  7: readVersion7,
  8: readVersion8,
  9: readVersion9,
  10: readVersion10,
  11: readVersion11,
};

@Injectable()
export class ExchangeService {
  constructor(
    private readonly records: Records,
    private readonly work: Work,
    private readonly door: Door,
    private readonly setup: SetupService,
    private readonly sessions: SessionService,
    private readonly threads: Threads,
    private readonly store: FileStore,
  ) {}

  /** The whole practice as of one moment. */
  async export(): Promise<{ readonly name: string; readonly stream: NodeJS.ReadableStream }> {
    const files = await this.records.scoped(async (manager) => {
      const written: ArchiveFile[] = [];
      for (const table of exportedTables) {
        const { columns, rows } = await this.#rows(manager, table);
        const { file, spread = [] } = table;
        written.push({
          path: table.file,
          what: table.what,
          rows: rows.length,
          text: await this.threads.run(tableText, { file, spread }, columns, rows),
        });
      }
      return written;
    }, 'REPEATABLE READ');
    const [practice] = JSON.parse(files[0]!.text) as [{ readonly name: string }];
    const blobs: Blob[] = [];
    for (const digest of digestsIn(files))
      blobs.push({ digest, bytes: await this.store.sizeOf(digest), open: () => this.store.open(digest) });
    const all = [readme(practice.name, files), ...files];
    return { name: practice.name, stream: await writeArchive(practice.name, all, blobs) };
  }

  /**
   * Make an exported practice this installation's, exactly as it was.
   * @param zip path of the file
   * @returns the cookie of the owner's new session
   * @throws a 409 problem where there is a practice already, a 422 problem for an export that cannot be taken
   */
  async load(zip: string, { email, password }: LoadExportInput): Promise<string> {
    const { manifest, files, blobs } = await readArchive(zip);
    const tables = oneOfEach((readers[manifest.version] ?? ((all) => readTables(all, exportedTables)))(files));
    const owner = findOwner(tables, email);
    await checkValues(tables);
    const passwordHash = await newPasswordHash(password, email);
    await blobs((digest, parts) => this.store.keepAs(digest, parts));
    return this.setup.first(async (manager) => {
      const [{ id: practiceId }] = tables.get('practice.json') as unknown as [{ readonly id: string }];
      await manager.query(`SELECT set_config('glenfold.loading', 'on', true)`);
      for (const table of exportedTables.filter(({ file }) => AT_THE_DOOR.includes(file)))
        await this.#insert(manager, table, tables, practiceId);
      await manager.update(Person, owner.id, { passwordHash });
      const worker = { practiceId, person: { id: owner.id, name: owner.name }, role: 'owner' as const };
      await this.door.enter(manager, worker, async () => {
        for (const table of exportedTables.filter(({ file }) => !AT_THE_DOOR.includes(file)))
          await this.#insert(manager, table, tables, practiceId);
      });
      return this.sessions.begin(manager, owner.id, practiceId);
    });
  }

  async #rows(manager: EntityManager, table: ExportedTable): Promise<{ columns: readonly string[]; rows: Row[] }> {
    const columns = columnsOf(manager, table);
    const { tableName } = manager.dataSource.getMetadata(table.entity);
    const order = table.file === 'changes.json' ? '"number"' : '"createdAt", "id"';
    const found = await manager.query<Array<{ row: Row }>>(
      `SELECT to_jsonb(chosen) AS row FROM (SELECT ${columns.map((column) => `"${column}"`).join(', ')} FROM "${tableName}" WHERE "${scopeColumn(table)}" = ANY($1) ORDER BY ${order}) AS chosen`,
      [await this.#scope(manager, table)],
    );
    return { columns, rows: found.map(({ row }) => row) };
  }

  /** What the rows of a table are chosen by: the practice, or its people. */
  async #scope(manager: EntityManager, { file }: ExportedTable): Promise<string[]> {
    const { practiceId } = this.work;
    if (file !== 'people.csv') return [practiceId];
    const members = await manager.query<Array<{ personId: string }>>(
      'SELECT "personId" FROM membership WHERE "practiceId" = $1',
      [practiceId],
    );
    return members.map(({ personId }) => personId);
  }

  async #insert(manager: EntityManager, table: ExportedTable, tables: Tables, practiceId: string): Promise<void> {
    const columns = columnsOf(manager, table);
    const { tableName } = manager.dataSource.getMetadata(table.entity);
    const owned = columns.includes('practiceId') ? { practiceId } : {};
    const rows = tables.get(table.file)!.map((row) => ({ ...row, ...owned }));
    const list = columns.map((column) => `"${column}"`).join(', ');
    try {
      await manager.query(
        `INSERT INTO "${tableName}" (${list}) SELECT ${list} FROM jsonb_populate_recordset(NULL::"${tableName}", $1::jsonb)`,
        [JSON.stringify(rows)],
      );
    } catch (error) {
      throw notAnExport(`${table.file} cannot be loaded: ${(error as Error).message}.`);
    }
  }
}

const DIGEST = /^[0-9a-f]{64}$/;

/** Files in the store that the tables name. */
function digestsIn(files: readonly ArchiveFile[]): string[] {
  const named = files
    .filter(({ path }) => ['photos.json', 'lab-files.json', 'histories.json'].includes(path))
    .flatMap(({ text }) => JSON.parse(text) as Row[])
    .flatMap(({ digest, thumb, original }) => [digest, thumb, original]);
  // A file that was erased has no name any more.
  return [...new Set(named.filter((one): one is string => typeof one === 'string' && DIGEST.test(one)))].sort();
}

function scopeColumn({ file }: ExportedTable): string {
  return file === 'practice.json' || file === 'people.csv' ? 'id' : 'practiceId';
}

function columnsOf(manager: EntityManager, { entity, without = [] }: ExportedTable): string[] {
  return manager.dataSource
    .getMetadata(entity)
    .columns.map(({ databaseName }) => databaseName)
    .filter((name) => !without.includes(name));
}

function findOwner(tables: Tables, email: string): { readonly id: string; readonly name: string } {
  const people = tables.get('people.csv') as ReadonlyArray<{ id: string; name: string; email: string }>;
  const owners = tables
    .get('memberships.json')!
    .filter(({ role, deletedAt }) => role === 'owner' && deletedAt === null)
    .flatMap(({ personId }) => people.find(({ id }) => id === personId) ?? []);
  const owner = owners.find((person) => person.email === email);
  if (tables.get('practice.json')!.length !== 1 || owners.length === 0)
    throw notAnExport('The export does not hold one practice with an owner.');
  return (
    owner ??
    refuse([
      {
        field: 'email',
        message: `The owners in this export are ${owners.map((person) => person.email).join(' and ')}: sign in as one of them.`,
      },
    ])
  );
}

/** What people type is checked when typed; what a file brings is checked the same way. */
async function checkValues(tables: Tables): Promise<void> {
  const samples = new Map(tables.get('samples.csv')!.map((sample) => [sample.id, sample]));
  const zones = grouped(tables.get('sample-zones.csv')!, ({ sampleId }) => sampleId);
  const values = grouped(tables.get('measurements.csv')!, ({ resultId }) => resultId);
  const results = tables.get('lab-results.csv')!.map((result) => {
    const { label, sampledOn, depth, of } = samples.get(result.sampleId) ?? {};
    return {
      ...result,
      ...{ label, sampledOn, of: of ?? 'soil', depth: Number(depth) },
      limeFactor: result.limeFactor === null ? null : Number(result.limeFactor),
      zoneIds: (zones.get(result.sampleId) ?? []).map(({ zoneId }) => zoneId),
      values: Object.fromEntries<object>(
        (values.get(result.id) ?? []).flatMap((one) =>
          one.deletedAt === null ? [[String(one.analyte), { ...reported(numbered(one)) }] as const] : [],
        ),
      ),
    };
  });
  const checks = [
    ['sites.json', SiteInput, tables.get('sites.json')!],
    ['products.json', MaterialInput, tables.get('products.json')!],
    ['zones.geojson', ZoneInput, tables.get('zones.geojson')!],
    ['lab-results.csv', LabResultInput, results],
  ] as const;
  for (const [file, kind, rows] of checks) {
    for (const [index, row] of rows.entries()) {
      const [fault] = problemFields(await validate(plainToInstance<object, Row>(kind, row)));
      if (fault)
        throw new Problem(422, 'Altered', `${file}, record ${index + 1}: ${fault.message} Nothing was loaded.`);
    }
  }
}

/** A value as the file tells it. */
function numbered({ value, unit, basis, method, qualifier }: Row): Parameters<typeof reported>[0] {
  return { value: Number(value), unit, basis, method: method ?? null, qualifier } as Parameters<typeof reported>[0];
}

function readme(name: string, files: readonly ArchiveFile[]): ArchiveFile {
  const lines = files.map(({ path, what }) => `${path.padEnd(20)}${what}`);
  const text = `${name}\n\nEverything Glenfold kept for this practice, in open formats. Units are SI unless a column names one.\n\n${lines.join('\n')}\n\nLeft behind: passwords, open invitations, share links, messages. Load this ZIP on the first screen of an empty\nGlenfold to go on there; manifest.json holds a checksum of each file, so load it as it was downloaded.\n`;
  return { path: 'README.txt', what: 'what is in here', rows: 0, text };
}
