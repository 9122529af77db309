import { type ErasureAnswer, whereLies } from '@glenfold/contract';
import { Injectable, Logger } from '@nestjs/common';
import { GroundService, siteAnswer } from '../ground/ground.service.ts';
import { Zone } from '../ground/zone.entity.ts';
import { Door } from '../platform/door.ts';
import { Installation } from '../platform/installation.ts';
import { refuse } from '../platform/problem.ts';
import { Records } from '../platform/records.ts';
import { type Digest, FileStore } from '../ports/fileStore.ts';
import { Site } from '../sites/site.entity.ts';
import { erasedColumns } from './erasedColumns.ts';
import { type Place, moved, movingAway, strikingOut, told, withoutWords } from './forgetting.ts';
import { type Names, NamesOfSite } from './namesOfSite.service.ts';

/** Ids of a site's rows by their table. */
type Rows = ReadonlyMap<string, readonly string[]>;

/** Where a file is named. */
const filed = [
  ['zone_photo', 'digest'],
  ['zone_photo', 'thumb'],
  ['lab_report', 'original'],
] as const;

/** Rows that are read and written at once, where their documents are gone through. */
const AT_ONCE = 20;

/**
 * Takes a client out of what is kept of their ground: all of it in one transaction, or nothing. What was measured, worked
 * out and put down stays, under a name that says nothing. Files go once the rows that named them are gone for good.
 */
@Injectable()
export class ErasureService {
  readonly #log = new Logger('Erasure');

  constructor(
    private readonly records: Records,
    private readonly door: Door,
    private readonly files: FileStore,
    private readonly ground: GroundService,
    private readonly installation: Installation,
    private readonly namesOf: NamesOfSite,
  ) {}

  /** @throws a 422 problem where the name is not the site's, and a 404 problem where there is no such site */
  async erase(siteId: string, name: string): Promise<ErasureAnswer> {
    const { changes, accounts, loose } = await this.records.scoped(async () => {
      const site = await this.records.of(Site).locked(siteId);
      if (site.name !== name)
        refuse([{ field: 'name', message: `This site is called “${site.name}”. Type that to erase whose it is.` }]);
      return this.#all(site);
    });
    // The made-up practice may share its folder with one of one's own, whose rows it does not see.
    const away = this.installation.demo ? [] : loose;
    for (const file of away)
      // Nobody finds it any more; that it lies there still is for whoever runs the server.
      await this.files
        .remove(file)
        .catch((error: unknown) => this.#log.error(`${file} still lies there: ${String(error)}`));
    const [site] = (await this.ground.sites({ ids: [siteId] })).sites;
    return { site: siteAnswer(site!), files: away.length, accounts, changes };
  }

  async #all(site: Site): Promise<{ readonly changes: number; readonly accounts: number; readonly loose: Digest[] }> {
    const rows = await this.#rows(site.id);
    const names = await this.namesOf.of(site, rows);
    const ground = `Ground ${site.id.slice(0, 6).toUpperCase()}`;
    const named = await this.#filesOf(rows);
    // What goes must not be written down as a change of it.
    await this.#writtenDown(false);
    const place = await this.#documents(site, rows, names);
    await this.records.ask(
      `UPDATE site SET "name" = $3, "position" = $4::jsonb, "version" = "version" + 1 WHERE "practiceId" = $1 AND "id" = $2`,
      [site.id, ground, place && JSON.stringify(place)],
    );
    await this.#columns(rows);
    await this.#elsewhere(site, names, named.histories);
    const accounts = await this.#people(site.practiceId, names);
    const [books] = await this.records.ask<{ readonly changes: number }>(
      `SELECT erase_books($2, $3, $4, $5) AS changes FROM practice WHERE "id" = $1`,
      [site.id, ground, names.struck, names.clients.filter(({ onlyHere }) => onlyHere).map(({ personId }) => personId)],
    );
    await this.#writtenDown(true);
    const loose = await this.records.ask<{ readonly file: Digest }>(
      `SELECT f AS file FROM files_of_nobody($2) AS f WHERE $1::uuid IS NOT NULL`,
      [named.all],
    );
    return { changes: books!.changes, accounts, loose: loose.map(({ file }) => file) };
  }

  /** Whether the database writes changes down. */
  #writtenDown(they: boolean): Promise<object[]> {
    return this.records.ask(`SELECT set_config('glenfold.loading', $2, true) WHERE $1::uuid IS NOT NULL`, [
      they ? 'off' : 'on',
    ]);
  }

  async #rows(siteId: string): Promise<Rows> {
    const found = await this.records.ask<{ readonly kind: string; readonly ids: string[] }>(
      `SELECT "kind", array_agg("id") AS ids FROM rows_of_site($2) WHERE $1::uuid IS NOT NULL GROUP BY "kind"`,
      [siteId],
    );
    return new Map(found.map(({ kind, ids }) => [kind, ids]));
  }

  async #filesOf(rows: Rows): Promise<{ readonly all: Digest[]; readonly histories: string[] }> {
    const all: Digest[] = [];
    for (const [table, column] of filed) {
      const found = await this.records.ask<{ readonly file: Digest }>(
        `SELECT "${column}" AS file FROM ${table} WHERE "practiceId" = $1 AND "id" = ANY($2) AND "${column}" IS NOT NULL`,
        [rows.get(table) ?? []],
      );
      all.push(...found.map(({ file }) => file));
    }
    // A file of many years names each site that it holds.
    const histories = await this.records.ask<{ readonly id: string; readonly original: Digest }>(
      `SELECT DISTINCT h."id", h."original" FROM history_import h JOIN lab_result r ON r."origin" = h."fileName"
       WHERE h."practiceId" = $1 AND r."id" = ANY($2)`,
      [rows.get('lab_result') ?? []],
    );
    all.push(...histories.map(({ original }) => original));
    return { all, histories: histories.map(({ id }) => id) };
  }

  /** Documents and outlines, which are gone through one by one. @returns where the site is said to lie */
  async #documents(site: Site, rows: Rows, { struck }: Names): Promise<Place | null> {
    const strike = strikingOut(struck);
    const from = whereLies(site, await this.records.of(Zone).find({ siteId: site.id }));
    const away = from && movingAway(from);
    const move = away?.move ?? ((place: Place) => place);
    const ways = {
      told: (value: unknown) => told(value, strike),
      written: (value: unknown) => withoutWords(value, strike, move),
      moved: (value: unknown) => moved(value, move),
    } as const;
    for (const [table, ids] of rows)
      for (const way of ['told', 'written', 'moved'] as const)
        for (const column of erasedColumns[table]?.[way] ?? [])
          for (let at = 0; at < ids.length; at += AT_ONCE)
            await this.#rewrite(table, column, ids.slice(at, at + AT_ONCE), ways[way]);
    return away?.to ?? null;
  }

  async #rewrite(
    table: string,
    column: string,
    ids: readonly string[],
    change: (value: unknown) => unknown,
  ): Promise<void> {
    const found = await this.records.ask<{ readonly id: string; readonly value: unknown }>(
      `SELECT "id", to_jsonb("${column}") AS value FROM "${table}"
       WHERE "practiceId" = $1 AND "id" = ANY($2) AND "${column}" IS NOT NULL`,
      [ids],
    );
    await this.records.ask(
      `UPDATE "${table}" t SET "version" = t."version" + 1,
         "${column}" = (jsonb_populate_record(t, jsonb_build_object('${column}', x."value")))."${column}"
       FROM jsonb_to_recordset($2) AS x("id" uuid, "value" jsonb) WHERE t."practiceId" = $1 AND t."id" = x."id"`,
      [JSON.stringify(found.map(({ id, value }) => ({ id, value: change(value) })))],
    );
  }

  /** Columns that are emptied, in one statement a table. */
  async #columns(rows: Rows): Promise<void> {
    for (const [table, ids] of rows) {
      const emptied = Object.entries(erasedColumns[table]?.emptied ?? {});
      if (emptied.length > 0)
        await this.records.ask(
          `UPDATE "${table}" SET "version" = "version" + 1, ${emptied.map(([column, now]) => `"${column}" = ${now}`).join(', ')}
           WHERE "practiceId" = $1 AND "id" = ANY($2)`,
          [ids],
        );
    }
  }

  /** Rows that are of no site, and may tell of one. */
  async #elsewhere(site: Site, { struck }: Names, histories: readonly string[]): Promise<void> {
    const ask = (statement: string, more: readonly unknown[]): Promise<object[]> => this.records.ask(statement, more);
    await ask(
      `UPDATE history_import SET "original" = 'erased ' || "id", "fileName" = 'erased', "words" = '[]'
       WHERE "practiceId" = $1 AND "id" = ANY($2)`,
      [histories],
    );
    const told = (column: string): string => `struck_out("${column}"::text, $2) <> "${column}"::text`;
    await ask(
      `UPDATE run SET "title" = struck_out("title", $2), "words" = struck_out("words", $2)
       WHERE "practiceId" = $1 AND (${told('title')} OR ${told('words')})`,
      [struck],
    );
    // The file that keeps testing a learned way, where it was theirs.
    await ask(`UPDATE lab_profile SET "sample" = NULL WHERE "practiceId" = $1 AND ${told('sample')}`, [struck]);
    await ask(
      `DELETE FROM done_once WHERE "practiceId" = $1 AND (${told('answer')} OR position($3 IN "answer"::text) > 0)`,
      [struck, site.id],
    );
    await ask(
      `UPDATE invitation SET "siteIds" = "siteIds" - $2::text,
         "email" = CASE WHEN "siteIds" = jsonb_build_array($2::text) THEN 'erased' ELSE "email" END,
         "deletedAt" = CASE WHEN "siteIds" = jsonb_build_array($2::text) THEN now() ELSE "deletedAt" END
       WHERE "practiceId" = $1 AND "siteIds" @> jsonb_build_array($2::text)`,
      [site.id],
    );
    await ask(
      `UPDATE membership SET "siteIds" = "siteIds" - $2::text,
         "deletedAt" = CASE WHEN "siteIds" = jsonb_build_array($2::text) THEN now() ELSE "deletedAt" END
       WHERE "practiceId" = $1 AND "role" = 'client' AND "siteIds" @> jsonb_build_array($2::text)`,
      [site.id],
    );
  }

  /** Clients of this site alone can sign in no more, and are called nothing; those of other sites or practices stay. */
  #people(practiceId: string, { clients, emails }: Names): Promise<number> {
    const leaving = clients.filter(({ onlyHere }) => onlyHere).map(({ personId }) => personId);
    return this.door.visit(async (manager) => {
      const gone = await manager.query<Array<{ readonly id: string }>>(
        `SELECT p."id" FROM person p WHERE p."id" = ANY($1)
         AND NOT EXISTS (SELECT FROM membership m WHERE m."personId" = p."id" AND m."deletedAt" IS NULL)`,
        [leaving],
      );
      const ids = gone.map(({ id }) => id);
      await manager.query(`DELETE FROM session WHERE "personId" = ANY($1)`, [ids]);
      await manager.query(`DELETE FROM known_device WHERE "personId" = ANY($1)`, [ids]);
      await manager.query(
        `UPDATE password_reset SET "tokenHash" = "id"::text, "usedAt" = coalesce("usedAt", now()) WHERE "personId" = ANY($1)`,
        [ids],
      );
      await manager.query(`DELETE FROM sign_in_attempt WHERE "email" = ANY($1)`, [emails]);
      await manager.query(
        `UPDATE mail SET "to" = 'erased', "subject" = 'erased', "text" = NULL, "failure" = NULL
         WHERE ("practiceId" = $2 AND "to" = ANY($1)) OR "to" IN (SELECT p."email" FROM person p WHERE p."id" = ANY($3))`,
        [emails, practiceId, ids],
      );
      await manager.query(
        `UPDATE person SET "name" = 'A client', "email" = 'erased-' || "id" || '@invalid', "passwordHash" = NULL, "units" = NULL
         WHERE "id" = ANY($1)`,
        [ids],
      );
      return ids.length;
    });
  }
}
