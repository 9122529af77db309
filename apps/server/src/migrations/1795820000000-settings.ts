import type { MigrationInterface, QueryRunner } from 'typeorm';
import { protect } from './protect.ts';

const owned = `
  "id" uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  "practiceId" uuid NOT NULL REFERENCES "practice" ("id"),
  "createdAt" timestamptz NOT NULL DEFAULT now(),
  "deletedAt" timestamptz,
  "version" integer NOT NULL DEFAULT 1`;

/** Settings, machines, materials by analysis, places with time zones and people, garden beds. */
export class Settings1795820000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    // Until now days were those of the place where the server ran.
    const { timeZone } = new Intl.DateTimeFormat().resolvedOptions();
    await runner.query(`
      SET LOCAL glenfold.loading = 'on';
      ALTER TABLE "practice" ADD "timeZone" text NOT NULL DEFAULT 'UTC', ADD "currency" text NOT NULL DEFAULT '$';
      ALTER TABLE "person" ADD "units" text CHECK ("units" IN ('us', 'metric'));
      GRANT SELECT ("units") ON "person" TO glenfold_app;
      ALTER TABLE "site" ADD "position" jsonb, ADD "timeZone" text, ADD "climate" text, ADD "normals" jsonb,
        ADD "contacts" jsonb, ADD "access" jsonb;
      ALTER TABLE "zone" ALTER "grass" DROP NOT NULL,
        ADD CONSTRAINT "zone_grass_unless_garden" CHECK ("grass" IS NOT NULL OR "surface" = 'garden bed');
      ALTER TABLE "lab_result" ADD "advice" text;

      CREATE TABLE "setting" (${owned},
        "kind" text NOT NULL,
        "name" text NOT NULL,
        "siteId" uuid REFERENCES "site" ("id"),
        "zoneId" uuid REFERENCES "zone" ("id"),
        "value" jsonb NOT NULL,
        CHECK ("siteId" IS NULL OR "zoneId" IS NULL)
      );
      CREATE UNIQUE INDEX "setting_once" ON "setting" ("practiceId", "kind",
        coalesce("siteId", "zoneId", '00000000-0000-0000-0000-000000000000')) WHERE "deletedAt" IS NULL;
      CREATE INDEX "setting_site" ON "setting" ("siteId");
      CREATE INDEX "setting_zone" ON "setting" ("zoneId");
      ${protect('setting')}

      CREATE TABLE "machine" (${owned},
        "name" text NOT NULL,
        "kind" text NOT NULL,
        "width" double precision,
        "holds" double precision,
        "weight" double precision,
        "hired" boolean NOT NULL DEFAULT false,
        "hireDay" double precision,
        "hiredFrom" text,
        "settings" jsonb NOT NULL DEFAULT '[]',
        "note" text
      );
      CREATE UNIQUE INDEX "machine_name" ON "machine" ("practiceId", lower("name")) WHERE "deletedAt" IS NULL;
      ${protect('machine')}

      ALTER TABLE "product" RENAME "bagMass" TO "packSize";
      ALTER TABLE "product" RENAME "bagPrice" TO "packPrice";
      ALTER TABLE "product" ADD "kind" text, ADD "analysis" jsonb, ADD "nitrogenSource" text, ADD "chelate" text,
        ADD "seeds" jsonb, ADD "natural" boolean NOT NULL DEFAULT false, ADD "dolomitic" boolean NOT NULL DEFAULT false,
        ADD "caustic" boolean NOT NULL DEFAULT false, ADD "caution" text, ADD "packUnit" text NOT NULL DEFAULT 'kg',
        ADD "stock" double precision;
      UPDATE "product" SET
        "kind" = CASE WHEN "purpose" = 'lime' THEN 'lime' ELSE 'fertilizer' END,
        "analysis" = CASE WHEN "purpose" = 'lime'
          THEN "lime" - 'magnesium' - 'caustic'
          ELSE "grade" || CASE WHEN "slowRelease" > 0 THEN jsonb_build_object('slowRelease', "slowRelease") ELSE '{}' END END,
        "dolomitic" = coalesce(("lime" ->> 'magnesium')::boolean, false),
        "caustic" = coalesce(("lime" ->> 'caustic')::boolean, false),
        "natural" = "name" ~* '^(feather|bone) meal';
      ALTER TABLE "product" ALTER "kind" SET NOT NULL, ALTER "analysis" SET NOT NULL,
        DROP "purpose", DROP "grade", DROP "slowRelease", DROP "lime";
    `);
    await runner.query('UPDATE "practice" SET "timeZone" = $1', [timeZone]);
    await runner.query(`SET LOCAL glenfold.loading = 'off'`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      SET LOCAL glenfold.loading = 'on';
      DROP TABLE "machine";
      DROP TABLE "setting";
      ALTER TABLE "product" ADD "purpose" text, ADD "grade" jsonb, ADD "slowRelease" double precision, ADD "lime" jsonb;
      -- Only what is spread by its lime or its nutrients had a purpose.
      DELETE FROM "product" WHERE "kind" NOT IN ('lime', 'fertilizer');
      UPDATE "product" SET
        "purpose" = CASE WHEN "kind" = 'lime' THEN 'lime'
          WHEN coalesce(("analysis" ->> 'n')::float8, 0) >= greatest(coalesce(("analysis" ->> 'p2o5')::float8, 0), coalesce(("analysis" ->> 'k2o')::float8, 0)) THEN 'nitrogen'
          WHEN coalesce(("analysis" ->> 'p2o5')::float8, 0) >= coalesce(("analysis" ->> 'k2o')::float8, 0) THEN 'phosphorus'
          ELSE 'potassium' END,
        "grade" = jsonb_build_object('n', 0, 'p2o5', 0, 'k2o', 0)
          || CASE WHEN "kind" = 'lime' THEN '{}' ELSE "analysis" - 'slowRelease' END,
        "slowRelease" = coalesce(("analysis" ->> 'slowRelease')::float8, 0),
        "lime" = CASE WHEN "kind" = 'lime'
          THEN "analysis" || jsonb_build_object('magnesium', "dolomitic", 'caustic', "caustic") END;
      ALTER TABLE "product" ALTER "purpose" SET NOT NULL, ALTER "grade" SET NOT NULL, ALTER "slowRelease" SET NOT NULL,
        DROP "kind", DROP "analysis", DROP "nitrogenSource", DROP "chelate", DROP "seeds", DROP "natural",
        DROP "dolomitic", DROP "caustic", DROP "caution", DROP "packUnit", DROP "stock";
      ALTER TABLE "product" RENAME "packSize" TO "bagMass";
      ALTER TABLE "product" RENAME "packPrice" TO "bagPrice";
      ALTER TABLE "lab_result" DROP "advice";
      UPDATE "zone" SET "grass" = 'tall fescue', "surface" = 'seedbed' WHERE "grass" IS NULL;
      ALTER TABLE "zone" DROP CONSTRAINT "zone_grass_unless_garden", ALTER "grass" SET NOT NULL;
      ALTER TABLE "site" DROP "position", DROP "timeZone", DROP "climate", DROP "normals", DROP "contacts", DROP "access";
      ALTER TABLE "person" DROP "units";
      ALTER TABLE "practice" DROP "timeZone", DROP "currency";
      SET LOCAL glenfold.loading = 'off';
    `);
  }
}
