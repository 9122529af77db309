import type { MigrationInterface, QueryRunner } from 'typeorm';
import { protect } from './protect.ts';

const owned = `
  "id" uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  "practiceId" uuid NOT NULL REFERENCES "practice" ("id"),
  "createdAt" timestamptz NOT NULL DEFAULT now(),
  "deletedAt" timestamptz,
  "version" integer NOT NULL DEFAULT 1`;

/** A program a site in place of a plan a zone: its zones as their owners saw them, its treatments and their doses. */
export class Programs1795850000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      SET LOCAL glenfold.loading = 'on';
      CREATE TABLE "program" (${owned},
        "siteId" uuid NOT NULL REFERENCES "site" ("id"),
        "startsOn" date,
        "state" text NOT NULL CHECK ("state" IN ('draft', 'handed over', 'superseded')),
        "handedOverAt" timestamptz,
        "units" text CHECK ("units" IN ('us', 'metric')),
        CHECK (("state" = 'draft') = ("handedOverAt" IS NULL))
      );
      CREATE INDEX "program_site" ON "program" ("siteId");
      CREATE UNIQUE INDEX "program_draft" ON "program" ("siteId") WHERE "state" = 'draft' AND "deletedAt" IS NULL;
      ${protect('program')}

      CREATE TABLE "program_zone" (${owned},
        "programId" uuid NOT NULL REFERENCES "program" ("id"),
        "zoneId" uuid NOT NULL REFERENCES "zone" ("id"),
        "labResultId" uuid REFERENCES "lab_result" ("id"),
        "issuedAt" timestamptz NOT NULL,
        "issued" jsonb NOT NULL
      );
      CREATE INDEX "program_zone_program" ON "program_zone" ("programId");
      CREATE INDEX "program_zone_zone" ON "program_zone" ("zoneId", "issuedAt");
      CREATE INDEX "program_zone_result" ON "program_zone" ("labResultId");
      ${protect('program_zone')}

      CREATE TABLE "treatment" (${owned},
        "programId" uuid NOT NULL REFERENCES "program" ("id"),
        "zoneId" uuid NOT NULL REFERENCES "zone" ("id"),
        "key" text NOT NULL,
        "remedy" text NOT NULL,
        "productId" uuid REFERENCES "product" ("id"),
        "rate" double precision,
        "unit" text,
        "override" jsonb
      );
      CREATE UNIQUE INDEX "treatment_once" ON "treatment" ("programId", "zoneId", "key") WHERE "deletedAt" IS NULL;
      CREATE INDEX "treatment_zone" ON "treatment" ("zoneId");
      ${protect('treatment')}

      CREATE TABLE "dose" (${owned},
        "treatmentId" uuid NOT NULL REFERENCES "treatment" ("id"),
        "position" integer NOT NULL,
        "rate" double precision NOT NULL,
        "earliest" date,
        "latest" date
      );
      CREATE INDEX "dose_treatment" ON "dose" ("treatmentId");
      ${protect('dose')}

      -- What was handed over, each as a program of its own: nobody handed several zones over together.
      CREATE TEMP TABLE moved ON COMMIT DROP AS
        SELECT p.*, gen_random_uuid() AS "programId", z."siteId",
          EXISTS (SELECT FROM "plan" n WHERE n."zoneId" = p."zoneId" AND n."issued" IS NOT NULL
            AND n."deletedAt" IS NULL AND n."issuedAt" > p."issuedAt") AS "superseded"
        FROM "plan" p JOIN "zone" z ON z."id" = p."zoneId" WHERE p."issued" IS NOT NULL;
      INSERT INTO "program" ("id", "practiceId", "createdAt", "deletedAt", "siteId", "state", "handedOverAt", "units")
        SELECT "programId", "practiceId", "createdAt", "deletedAt", "siteId",
          CASE WHEN "superseded" THEN 'superseded' ELSE 'handed over' END, "issuedAt", "issued" ->> 'units' FROM moved;
      INSERT INTO "program_zone" ("id", "practiceId", "createdAt", "deletedAt", "version", "programId", "zoneId", "labResultId", "issuedAt", "issued")
        SELECT "id", "practiceId", "createdAt", "deletedAt", "version", "programId", "zoneId", "labResultId", "issuedAt", "issued" FROM moved;
      CREATE TEMP TABLE line ON COMMIT DROP AS
        SELECT gen_random_uuid() AS "id", m."practiceId", m."createdAt", m."deletedAt", m."programId", m."zoneId", l.remedy, l.amount
        FROM moved m CROSS JOIN LATERAL (
          SELECT 'lime' AS remedy, m.issued #> '{answer,plan,lime,amount}' AS amount
          UNION ALL
          SELECT CASE n ->> 'nutrient' WHEN 'n' THEN 'nitrogen' WHEN 'p2o5' THEN 'phosphorus' ELSE 'potassium' END, n -> 'amount'
          FROM jsonb_array_elements(m.issued #> '{answer,plan,nutrients}') n
        ) l WHERE jsonb_typeof(l.amount) = 'object';
      INSERT INTO "treatment" ("id", "practiceId", "createdAt", "deletedAt", "programId", "zoneId", "key", "remedy", "productId", "rate", "unit")
        SELECT l."id", l."practiceId", l."createdAt", l."deletedAt", l."programId", l."zoneId", l.remedy, l.remedy,
          p."id", (l.amount #>> '{rate,value}')::float8, 'g/m2'
        FROM line l LEFT JOIN "product" p ON p."id"::text = l.amount ->> 'productId';
      INSERT INTO "dose" ("practiceId", "createdAt", "deletedAt", "treatmentId", "position", "rate")
        SELECT l."practiceId", l."createdAt", l."deletedAt", l."id", a.place - 1, (a.one ->> 'rate')::float8
        FROM line l CROSS JOIN LATERAL jsonb_array_elements(l.amount -> 'applications') WITH ORDINALITY a (one, place);

      -- Products that were chosen and not handed over, on the draft of their site.
      CREATE TEMP TABLE open ON COMMIT DROP AS
        SELECT p.*, z."siteId", c.key AS purpose, c.value AS "chosen" FROM "plan" p JOIN "zone" z ON z."id" = p."zoneId"
        CROSS JOIN LATERAL jsonb_each_text(p."choices") c WHERE p."issued" IS NULL AND p."deletedAt" IS NULL;
      INSERT INTO "program" ("practiceId", "createdAt", "siteId", "state")
        SELECT "practiceId", min("createdAt"), "siteId", 'draft' FROM open GROUP BY "practiceId", "siteId";
      INSERT INTO "treatment" ("practiceId", "createdAt", "programId", "zoneId", "key", "remedy", "productId", "override")
        SELECT o."practiceId", o."createdAt", g."id", o."zoneId", o.purpose, o.purpose, p."id",
          jsonb_build_object('values', jsonb_build_object('material', o."chosen"), 'reason', 'Chosen before reasons were kept.')
        FROM open o JOIN "program" g ON g."siteId" = o."siteId" AND g."state" = 'draft'
        LEFT JOIN "product" p ON p."id"::text = o."chosen";

      DROP TABLE "plan";
      SET LOCAL glenfold.loading = 'off';
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      SET LOCAL glenfold.loading = 'on';
      CREATE TABLE "plan" (${owned},
        "zoneId" uuid NOT NULL REFERENCES "zone" ("id"),
        "choices" jsonb NOT NULL DEFAULT '{}',
        "issuedAt" timestamptz,
        "labResultId" uuid REFERENCES "lab_result" ("id"),
        "issued" jsonb
      );
      CREATE INDEX "plan_zone" ON "plan" ("practiceId", "zoneId");
      CREATE INDEX "plan_result" ON "plan" ("labResultId");
      CREATE UNIQUE INDEX "plan_open" ON "plan" ("zoneId") WHERE "issuedAt" IS NULL AND "deletedAt" IS NULL;
      ${protect('plan')}
      -- What a plan cannot say is not handed back: those that were programs from the start stay behind.
      INSERT INTO "plan" ("id", "practiceId", "createdAt", "deletedAt", "version", "zoneId", "choices", "issuedAt", "labResultId", "issued")
        SELECT "id", "practiceId", "createdAt", "deletedAt", "version", "zoneId", coalesce("issued" #> '{answer,choices}', '{}'), "issuedAt", "labResultId", "issued"
        FROM "program_zone" WHERE "issued" #> '{answer,plan}' IS NOT NULL;
      INSERT INTO "plan" ("practiceId", "createdAt", "zoneId", "choices")
        SELECT t."practiceId", min(t."createdAt"), t."zoneId", jsonb_object_agg(t."key", t."productId")
        FROM "treatment" t JOIN "program" g ON g."id" = t."programId" AND g."state" = 'draft'
        WHERE t."deletedAt" IS NULL AND t."productId" IS NOT NULL AND t."key" IN ('lime', 'nitrogen', 'phosphorus', 'potassium')
        GROUP BY t."practiceId", t."zoneId";
      DROP TABLE "dose";
      DROP TABLE "treatment";
      DROP TABLE "program_zone";
      DROP TABLE "program";
      SET LOCAL glenfold.loading = 'off';
    `);
  }
}
