import type { MigrationInterface, QueryRunner } from 'typeorm';
import { auditLeavesOut, protect } from './protect.ts';

const OWNED = `
        "id" uuid PRIMARY KEY DEFAULT gen_random_uuid(),
        "practiceId" uuid NOT NULL REFERENCES "practice" ("id"),
        "createdAt" timestamptz NOT NULL DEFAULT now(),
        "deletedAt" timestamptz,
        "version" integer NOT NULL DEFAULT 1`;

const PICTURE = `
        "type" text NOT NULL,
        "image" text NOT NULL`;

/** Facts of zones, taped shapes, heights, what foreign files said, photos, and images under plans. */
export class Facts1795490000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await auditLeavesOut(runner, `'tokenHash']`, `'tokenHash', 'image']`);
    await runner.query(`
      ALTER TABLE "zone"
        ADD "facts" jsonb,
        ADD "taped" jsonb,
        ADD "probeStop" double precision,
        ADD "properties" jsonb;
      ALTER TABLE "ground_feature"
        ADD "height" double precision,
        ADD "properties" jsonb;

      CREATE TABLE "zone_photo" (${OWNED},
        "zoneId" uuid NOT NULL REFERENCES "zone" ("id"),
        "caption" text,
        "takenOn" text,${PICTURE}
      );
      CREATE INDEX "zone_photo_zone" ON "zone_photo" ("zoneId");
      ${protect('zone_photo')}

      CREATE TABLE "underlay" (${OWNED},
        "siteId" uuid NOT NULL REFERENCES "site" ("id"),
        "name" text NOT NULL,
        "width" integer NOT NULL,
        "height" integer NOT NULL,
        "matches" jsonb NOT NULL,
        "opacity" double precision NOT NULL,${PICTURE}
      );
      CREATE UNIQUE INDEX "underlay_site" ON "underlay" ("siteId") WHERE "deletedAt" IS NULL;
      ${protect('underlay')}
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      DROP TABLE "underlay";
      DROP TABLE "zone_photo";
      ALTER TABLE "ground_feature" DROP "height", DROP "properties";
      ALTER TABLE "zone" DROP "facts", DROP "taped", DROP "probeStop", DROP "properties";
    `);
    await auditLeavesOut(runner, `'tokenHash', 'image']`, `'tokenHash']`);
  }
}
