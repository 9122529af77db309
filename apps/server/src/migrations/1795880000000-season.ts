import type { MigrationInterface, QueryRunner } from 'typeorm';
import { protect, openToDoor } from './protect.ts';

const owned = `
  "id" uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  "practiceId" uuid NOT NULL REFERENCES "practice" ("id"),
  "createdAt" timestamptz NOT NULL DEFAULT now(),
  "deletedAt" timestamptz,
  "version" integer NOT NULL DEFAULT 1`;

/** Jobs of a season, what was done, what was foretold; what was put down before moves from the zones into the book. */
export class Season1795880000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`SELECT set_config('glenfold.loading', 'on', true)`);
    await runner.query(`
      CREATE TABLE "job" (${owned},
        "siteId" uuid NOT NULL REFERENCES "site" ("id"),
        "zoneId" uuid NOT NULL REFERENCES "zone" ("id"),
        "programId" uuid REFERENCES "program" ("id"),
        "doseId" uuid REFERENCES "dose" ("id"),
        "key" text NOT NULL,
        "remedy" text NOT NULL,
        "name" text NOT NULL,
        "dose" text NOT NULL,
        "position" integer NOT NULL,
        "productId" uuid REFERENCES "product" ("id"),
        "rate" double precision,
        "sense" text NOT NULL,
        "quantity" double precision,
        "unit" text CHECK ("unit" IN ('kg', 'L', 'm3')),
        "cautions" jsonb NOT NULL DEFAULT '[]',
        "from" date,
        "to" date,
        "own" boolean NOT NULL DEFAULT false,
        "dated" boolean NOT NULL DEFAULT false,
        "earliest" date,
        "latest" date,
        "day" date,
        "words" jsonb NOT NULL DEFAULT '[]',
        "movedBecause" text,
        "moved" boolean NOT NULL DEFAULT false,
        "hold" jsonb,
        "personId" uuid REFERENCES "person" ("id"),
        "machineId" uuid REFERENCES "machine" ("id"),
        "state" text NOT NULL DEFAULT 'open' CHECK ("state" IN ('open', 'done', 'partly done', 'not done', 'superseded'))
      );
      CREATE INDEX "job_site" ON "job" ("siteId", "day");
      CREATE INDEX "job_zone" ON "job" ("zoneId");
      CREATE INDEX "job_day" ON "job" ("practiceId", "day") WHERE "state" = 'open' AND "deletedAt" IS NULL;
      ${protect('job')}

      CREATE TABLE "entry" (${owned},
        "siteId" uuid NOT NULL REFERENCES "site" ("id"),
        "zoneId" uuid NOT NULL REFERENCES "zone" ("id"),
        "jobId" uuid REFERENCES "job" ("id"),
        "on" text NOT NULL,
        "kind" text NOT NULL,
        "state" text NOT NULL CHECK ("state" IN ('done', 'partly done', 'not done', 'withdrawn')),
        "words" text NOT NULL,
        "productId" uuid REFERENCES "product" ("id"),
        "material" jsonb,
        "quantity" double precision,
        "quantityUnit" text CHECK ("quantityUnit" IN ('kg', 'L', 'm3')),
        "rate" double precision,
        "unit" text CHECK ("unit" IN ('g/m2', 'cm', 'mL/m2', 'mm')),
        "area" double precision,
        "cce" double precision,
        "reason" text,
        "doneBy" text,
        "writtenBy" text,
        "day" jsonb,
        "correctsId" uuid REFERENCES "entry" ("id"),
        "notes" jsonb NOT NULL DEFAULT '[]',
        "recordedAt" timestamptz NOT NULL DEFAULT clock_timestamp()
      );
      CREATE INDEX "entry_zone" ON "entry" ("zoneId", "on");
      CREATE INDEX "entry_site" ON "entry" ("siteId", "on");
      CREATE INDEX "entry_job" ON "entry" ("jobId");
      ${protect('entry')}
      -- A book is not rewritten: what is wrong is mended by a later entry that names the first.
      REVOKE UPDATE ON "entry" FROM glenfold_app;
      CREATE FUNCTION entry_stays() RETURNS trigger LANGUAGE plpgsql AS $$
        BEGIN RAISE EXCEPTION 'an entry of the logbook is never changed: write one that corrects it'; END $$;
      CREATE TRIGGER "append_only" BEFORE UPDATE OR DELETE ON "entry" FOR EACH ROW EXECUTE FUNCTION entry_stays();

      CREATE TABLE "prediction" (${owned},
        "siteId" uuid NOT NULL REFERENCES "site" ("id"),
        "zoneId" uuid NOT NULL REFERENCES "zone" ("id"),
        "programId" uuid NOT NULL REFERENCES "program" ("id"),
        "labResultId" uuid REFERENCES "lab_result" ("id"),
        "madeOn" date NOT NULL,
        "from" date NOT NULL,
        "ph" double precision NOT NULL,
        "days" jsonb NOT NULL,
        "retestOn" date NOT NULL,
        "retestWords" text NOT NULL
      );
      CREATE INDEX "prediction_zone" ON "prediction" ("zoneId", "madeOn");
      CREATE INDEX "prediction_program" ON "prediction" ("programId");
      ${protect('prediction')}

      CREATE TABLE "site_date" (${owned},
        "siteId" uuid NOT NULL REFERENCES "site" ("id"),
        "name" text NOT NULL,
        "day" date NOT NULL
      );
      CREATE INDEX "site_date_site" ON "site_date" ("siteId");
      ${protect('site_date')}

      CREATE TABLE "calendar_link" (${owned},
        "personId" uuid NOT NULL REFERENCES "person" ("id"),
        "tokenHash" text NOT NULL UNIQUE
      );
      CREATE INDEX "calendar_link_person" ON "calendar_link" ("personId");
      ${protect('calendar_link')}
      ${openToDoor('calendar_link', 'SELECT')}

      ALTER TABLE "zone_photo" ADD "entryId" uuid REFERENCES "entry" ("id");
      CREATE INDEX "zone_photo_entry" ON "zone_photo" ("entryId");

      INSERT INTO "entry" ("practiceId", "createdAt", "siteId", "zoneId", "on", "kind", "state", "words", "rate", "unit", "cce", "recordedAt")
        SELECT z."practiceId", z."createdAt", z."siteId", z."id", a.one ->> 'on', a.one ->> 'kind', 'done',
          coalesce(a.one ->> 'words', a.one ->> 'kind'), (a.one ->> 'rate')::double precision,
          CASE WHEN a.one ->> 'rate' IS NULL THEN NULL ELSE 'g/m2' END, (a.one ->> 'cce')::double precision,
          z."createdAt" + a.place * interval '1 millisecond'
        FROM "zone" z CROSS JOIN LATERAL jsonb_array_elements(
          CASE WHEN jsonb_typeof(z."facts" -> 'applications') = 'array' THEN z."facts" -> 'applications' ELSE '[]' END
        ) WITH ORDINALITY a (one, place);
      UPDATE "zone" SET "facts" = "facts" - 'applications' WHERE "facts" ? 'applications';

      INSERT INTO "job" ("practiceId", "siteId", "zoneId", "programId", "doseId", "key", "remedy", "name", "dose", "position", "productId",
          "rate", "sense", "quantity", "unit", "from", "to")
        SELECT t."practiceId", p."siteId", t."zoneId", p."id", d."id", t."key", t."remedy", initcap(t."remedy"),
          'application', d."position", t."productId", d."rate",
          CASE WHEN t."unit" = 'g/m2' AND t."remedy" IN ('lime', 'gypsum') THEN 'limeRate' WHEN t."unit" = 'g/m2' THEN 'productRate'
            WHEN t."unit" = 'cm' THEN 'layer' WHEN t."unit" = 'mL/m2' THEN 'liquidRate' WHEN t."unit" = 'mm' THEN 'rainfall' ELSE 'count' END,
          CASE t."unit" WHEN 'g/m2' THEN d."rate" * z."area" / 1000 WHEN 'mL/m2' THEN d."rate" * z."area" / 1000 WHEN 'cm' THEN d."rate" * z."area" / 100 END,
          CASE t."unit" WHEN 'g/m2' THEN 'kg' WHEN 'mL/m2' THEN 'L' WHEN 'cm' THEN 'm3' END,
          d."earliest", d."latest"
        FROM "dose" d JOIN "treatment" t ON t."id" = d."treatmentId" JOIN "program" p ON p."id" = t."programId"
          JOIN "zone" z ON z."id" = t."zoneId"
        WHERE p."state" = 'handed over' AND d."deletedAt" IS NULL AND t."deletedAt" IS NULL AND p."deletedAt" IS NULL
          AND p."id" = (SELECT pz."programId" FROM "program_zone" pz WHERE pz."zoneId" = t."zoneId" AND pz."deletedAt" IS NULL
            ORDER BY pz."issuedAt" DESC LIMIT 1);
    `);
    await runner.query(`SELECT set_config('glenfold.loading', '', true)`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`SELECT set_config('glenfold.loading', 'on', true)`);
    await runner.query(`
      UPDATE "zone" z SET "facts" = coalesce(z."facts", '{}') || jsonb_build_object('applications', e.all)
        FROM (SELECT "zoneId", jsonb_agg(jsonb_strip_nulls(jsonb_build_object('kind', "kind", 'on', "on", 'words', "words",
            'rate', CASE WHEN "unit" = 'g/m2' THEN "rate" END, 'cce', "cce")) ORDER BY "recordedAt") AS "all"
          FROM "entry" WHERE "jobId" IS NULL AND "state" = 'done' AND "kind" IN
            ('fertilizer', 'lime', 'sulfur', 'compost', 'sand', 'seed', 'weedkiller', 'other') GROUP BY "zoneId") e
        WHERE e."zoneId" = z."id";
      ALTER TABLE "zone_photo" DROP "entryId";
      DROP TABLE "calendar_link", "site_date", "prediction", "entry", "job";
      DROP FUNCTION entry_stays();
    `);
    await runner.query(`SELECT set_config('glenfold.loading', '', true)`);
  }
}
