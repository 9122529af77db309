import type { MigrationInterface, QueryRunner } from 'typeorm';

const owned = `
  "id" uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  "practiceId" uuid NOT NULL REFERENCES "practice" ("id"),
  "createdAt" timestamptz NOT NULL DEFAULT now(),
  "deletedAt" timestamptz`;

/** Practice, sites, zones, samples, results, files, products and plans. */
export class FirstSlice1795392000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE "practice" (
        "id" uuid PRIMARY KEY DEFAULT gen_random_uuid(),
        "name" text NOT NULL,
        "demo" boolean NOT NULL DEFAULT false,
        "createdAt" timestamptz NOT NULL DEFAULT now()
      );
      CREATE TABLE "site" (${owned},
        "name" text NOT NULL,
        "place" text
      );
      CREATE TABLE "zone" (${owned},
        "siteId" uuid NOT NULL REFERENCES "site" ("id"),
        "position" integer NOT NULL,
        "name" text NOT NULL,
        "label" text NOT NULL,
        "area" double precision NOT NULL CHECK ("area" > 0),
        "geometry" jsonb,
        "grass" text NOT NULL,
        "surface" text NOT NULL,
        "intensity" text NOT NULL,
        "shade" text NOT NULL,
        "clippings" text NOT NULL,
        "soilGroup" text,
        "aimPh" double precision,
        "thatch" double precision,
        "rootDepth" double precision
      );
      CREATE TABLE "sample" (${owned},
        "siteId" uuid NOT NULL REFERENCES "site" ("id"),
        "zoneId" uuid NOT NULL REFERENCES "zone" ("id"),
        "label" text NOT NULL,
        "sampledOn" date,
        "depth" double precision NOT NULL CHECK ("depth" > 0)
      );
      CREATE TABLE "lab_result" (${owned},
        "sampleId" uuid NOT NULL REFERENCES "sample" ("id"),
        "zoneId" uuid NOT NULL REFERENCES "zone" ("id"),
        "labNumber" text,
        "extractant" text NOT NULL,
        "bufferMethod" text,
        "soilPh" double precision NOT NULL,
        "bufferPh" double precision,
        "organicMatter" double precision,
        "nutrients" jsonb NOT NULL,
        "origin" text NOT NULL
      );
      CREATE TABLE "lab_import" (${owned},
        "siteId" uuid NOT NULL REFERENCES "site" ("id"),
        "fileName" text NOT NULL,
        "content" text NOT NULL,
        "choices" jsonb,
        "imported" jsonb NOT NULL DEFAULT '{}',
        "extractant" text,
        "bufferMethod" text,
        "depth" double precision
      );
      CREATE TABLE "product" (${owned},
        "position" integer NOT NULL,
        "name" text NOT NULL,
        "purpose" text NOT NULL,
        "grade" jsonb NOT NULL,
        "slowRelease" double precision NOT NULL,
        "lime" jsonb,
        "bagMass" double precision NOT NULL CHECK ("bagMass" > 0),
        "bagPrice" double precision
      );
      CREATE TABLE "plan" (${owned},
        "zoneId" uuid NOT NULL REFERENCES "zone" ("id"),
        "choices" jsonb NOT NULL DEFAULT '{}',
        "issuedAt" timestamptz,
        "labResultId" uuid REFERENCES "lab_result" ("id"),
        "issued" jsonb
      );
      CREATE INDEX "zone_site" ON "zone" ("practiceId", "siteId");
      CREATE INDEX "lab_result_zone" ON "lab_result" ("practiceId", "zoneId");
      CREATE INDEX "lab_import_site" ON "lab_import" ("practiceId", "siteId");
      CREATE INDEX "plan_zone" ON "plan" ("practiceId", "zoneId");
      CREATE UNIQUE INDEX "plan_open" ON "plan" ("zoneId") WHERE "issuedAt" IS NULL AND "deletedAt" IS NULL;
      CREATE UNIQUE INDEX "zone_label" ON "zone" ("siteId", lower("label")) WHERE "deletedAt" IS NULL;
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['plan', 'product', 'lab_import', 'lab_result', 'sample', 'zone', 'site', 'practice'])
      await runner.query(`DROP TABLE "${table}"`);
  }
}
