import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Strings that the application itself writes, from short lists: they tell what was changed, and of nobody. */
const LISTED = ['state', 'kind', 'remedy', 'unit', 'analyte', 'method', 'grass', 'surface', 'intensity', 'shade', 'clippings', 'extractant', 'sense', 'role', 'answer']; // prettier-ignore

/** Columns by which a row belongs to a row of a site, and so to the site. */
const OWNERS = ['siteId', 'zoneId', 'bagId', 'coreId', 'sampleId', 'programId', 'treatmentId', 'quoteId'];

const list = (words: readonly string[]): string => words.map((word) => `'${word}'`).join(', ');

/**
 * Two books are never rewritten: the logbook, and the record of changes. For the one reason that a client is erased the
 * database does it itself, and writes down that it did: of the record of changes figures, days and words from lists stay,
 * in the logbook names are struck out of the words. Whose rows they are it finds out itself; the names it is told.
 */
export class Erasure1795970000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      ALTER TABLE "audit" DROP CONSTRAINT "audit_action_check";
      ALTER TABLE "audit" ADD CONSTRAINT "audit_action_check" CHECK ("action" IN ('add', 'change', 'delete', 'restore', 'erase'));

      CREATE OR REPLACE FUNCTION entry_stays() RETURNS trigger LANGUAGE plpgsql AS $$
        BEGIN
          IF TG_OP = 'UPDATE' AND current_setting('glenfold.erasing', true) = 'on' THEN RETURN NEW; END IF;
          RAISE EXCEPTION 'an entry of the logbook is never changed: write one that corrects it';
        END $$;

      CREATE FUNCTION figures_of(change jsonb) RETURNS jsonb LANGUAGE sql IMMUTABLE AS $$
        SELECT jsonb_object_agg(key, value) FROM jsonb_each(change)
        WHERE jsonb_typeof(value) IN ('number', 'boolean', 'null')
          OR (jsonb_typeof(value) = 'string' AND (key IN (${list(LISTED)}) OR value #>> '{}' ~ '^\\d{4}(-\\d\\d){0,2}$'))
      $$;

      CREATE FUNCTION struck_out(said text, names text[]) RETURNS text LANGUAGE plpgsql IMMUTABLE AS $$
        DECLARE name text;
        BEGIN
          FOREACH name IN ARRAY names LOOP
            said := CASE WHEN name ~ '^\\w+$' THEN regexp_replace(said, '\\m' || name || '\\M', '…', 'g') ELSE replace(said, name, '…') END;
          END LOOP;
          RETURN said;
        END $$;

      -- The rows of a site, whatever their table, deleted or not.
      CREATE FUNCTION rows_of_site(site uuid) RETURNS TABLE ("id" uuid, "kind" text) LANGUAGE plpgsql AS $$
        DECLARE owner record; more integer := 1; found integer;
        BEGIN
          CREATE TEMP TABLE row_of_site ON COMMIT DROP AS SELECT site AS "id", 'site' AS "kind";
          WHILE more > 0 LOOP
            more := 0;
            FOR owner IN
              SELECT c.table_name AS "table", c.column_name AS "column" FROM information_schema.columns c
              JOIN information_schema.tables t USING (table_schema, table_name)
              WHERE c.table_schema = 'public' AND t.table_type = 'BASE TABLE' AND c.column_name IN (${list(OWNERS)})
            LOOP
              EXECUTE format(
                'INSERT INTO row_of_site SELECT o."id", %L FROM %I o WHERE o.%I IN (SELECT r."id" FROM row_of_site r)
                 AND NOT EXISTS (SELECT FROM row_of_site r WHERE r."id" = o."id")',
                owner."table", owner."table", owner."column");
              GET DIAGNOSTICS found = ROW_COUNT;
              more := more + found;
            END LOOP;
          END LOOP;
          RETURN QUERY SELECT r."id", r."kind" FROM row_of_site r;
          DROP TABLE row_of_site;
        END $$;

      -- @param ground what the site is called from now on; @param names what is struck out of words; @param people its clients
      CREATE FUNCTION erase_books(site uuid, ground text, names text[], people uuid[]) RETURNS integer
        LANGUAGE plpgsql SECURITY DEFINER SET search_path TO 'public', 'pg_temp' AS $$
        DECLARE at_work uuid := practice_at_work(); changes integer;
        BEGIN
          IF NOT EXISTS (SELECT FROM site s WHERE s."id" = site AND s."practiceId" = at_work) THEN
            RAISE EXCEPTION 'no site of the practice at work';
          END IF;
          PERFORM set_config('glenfold.erasing', 'on', true);
          UPDATE entry SET "words" = struck_out("words", names), "reason" = struck_out("reason", names),
            "doneBy" = struck_out("doneBy", names), "notes" = struck_out("notes"::text, names)::jsonb
            WHERE "siteId" = site;
          PERFORM set_config('glenfold.erasing', 'off', true);
          UPDATE audit a SET "before" = figures_of(a."before"), "after" = figures_of(a."after"), "recordName" = ground
            FROM rows_of_site(site) r WHERE a."recordId" = r."id" AND a."practiceId" = at_work;
          GET DIAGNOSTICS changes = ROW_COUNT;
          UPDATE audit a SET "before" = figures_of(a."before"), "after" = figures_of(a."after"), "recordName" = ''
            WHERE a."practiceId" = at_work AND (
              (a."kind" IN ('membership', 'invitation', 'calendar_link') AND a."recordName" = ANY(names))
              OR (a."kind" IN ('history_import', 'run') AND struck_out(a."recordName", names) <> a."recordName"));
          UPDATE audit a SET "personName" = 'A client' WHERE a."practiceId" = at_work AND a."personId" = ANY(people);
          INSERT INTO audit ("practiceId", "personId", "personName", "action", "kind", "recordId", "recordName", "after")
          VALUES (at_work, nullif(current_setting('glenfold.person', true), '')::uuid,
            coalesce(nullif(current_setting('glenfold.personName', true), ''), 'Glenfold'), 'erase', 'site', site, ground,
            jsonb_build_object('changes', changes));
          RETURN changes;
        END $$;
      REVOKE ALL ON FUNCTION erase_books(uuid, text, text[], uuid[]) FROM PUBLIC;
      GRANT EXECUTE ON FUNCTION erase_books(uuid, text, text[], uuid[]) TO glenfold_app;

      -- Files that no row of any practice names: a store keeps what is the same once.
      CREATE FUNCTION files_of_nobody(digests text[]) RETURNS SETOF text LANGUAGE sql STABLE SECURITY DEFINER
        SET search_path TO 'public' AS $$
        SELECT DISTINCT f FROM unnest(digests) AS f
        WHERE NOT EXISTS (SELECT FROM zone_photo WHERE "digest" = f OR "thumb" = f)
          AND NOT EXISTS (SELECT FROM lab_report WHERE "original" = f)
          AND NOT EXISTS (SELECT FROM history_import WHERE "original" = f)
      $$;
      REVOKE ALL ON FUNCTION files_of_nobody(text[]) FROM PUBLIC;
      GRANT EXECUTE ON FUNCTION files_of_nobody(text[]) TO glenfold_app;
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      DROP FUNCTION files_of_nobody(text[]);
      DROP FUNCTION erase_books(uuid, text, text[], uuid[]);
      DROP FUNCTION rows_of_site(uuid);
      DROP FUNCTION struck_out(text, text[]);
      DROP FUNCTION figures_of(jsonb);
      CREATE OR REPLACE FUNCTION entry_stays() RETURNS trigger LANGUAGE plpgsql AS $$
        BEGIN RAISE EXCEPTION 'an entry of the logbook is never changed: write one that corrects it'; END $$;
      UPDATE "audit" SET "action" = 'change' WHERE "action" = 'erase';
      ALTER TABLE "audit" DROP CONSTRAINT "audit_action_check";
      ALTER TABLE "audit" ADD CONSTRAINT "audit_action_check" CHECK ("action" IN ('add', 'change', 'delete', 'restore'));
    `);
  }
}
