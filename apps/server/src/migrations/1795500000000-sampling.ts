import type { MigrationInterface, QueryRunner } from 'typeorm';
import { protect } from './protect.ts';

const OWNED = `
        "id" uuid PRIMARY KEY DEFAULT gen_random_uuid(),
        "practiceId" uuid NOT NULL REFERENCES "practice" ("id"),
        "createdAt" timestamptz NOT NULL DEFAULT now(),
        "deletedAt" timestamptz,
        "version" integer NOT NULL DEFAULT 1`;

/** Bags with their cores, the touches of the walk, and custody. */
export class Sampling1795500000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE "bag" (${OWNED},
        "siteId" uuid NOT NULL REFERENCES "site" ("id"),
        "code" text NOT NULL,
        "zoneIds" jsonb NOT NULL,
        "purpose" text NOT NULL,
        "depth" double precision NOT NULL,
        "probe" double precision NOT NULL,
        "panels" jsonb NOT NULL,
        "design" text NOT NULL,
        "edge" double precision NOT NULL,
        "clear" double precision NOT NULL,
        "seed" bigint NOT NULL,
        "plannedFor" date,
        "note" text,
        "state" text NOT NULL,
        "since" timestamptz NOT NULL,
        "laboratory" text,
        "labNumber" text,
        "parcel" text,
        "insteadOf" uuid REFERENCES "bag" ("id")
      );
      CREATE UNIQUE INDEX "bag_code" ON "bag" ("practiceId", "code");
      CREATE INDEX "bag_site" ON "bag" ("siteId");
      ${protect('bag')}

      CREATE TABLE "core" (${OWNED},
        "bagId" uuid NOT NULL REFERENCES "bag" ("id"),
        "zoneId" uuid NOT NULL REFERENCES "zone" ("id"),
        "number" integer NOT NULL,
        "turn" integer NOT NULL,
        "place" jsonb,
        "state" text NOT NULL,
        "pushed" double precision,
        "recovered" double precision,
        "moisture" text,
        "reason" text,
        "note" text,
        "at" timestamptz,
        "by" text,
        "byId" uuid
      );
      CREATE INDEX "core_bag" ON "core" ("bagId");
      ${protect('core')}

      CREATE TABLE "core_tap" (${OWNED},
        "coreId" uuid NOT NULL REFERENCES "core" ("id"),
        "tap" jsonb NOT NULL,
        "at" timestamptz NOT NULL,
        "by" text NOT NULL,
        "outcome" text NOT NULL
      );
      CREATE INDEX "core_tap_core" ON "core_tap" ("coreId");
      ${protect('core_tap')}

      CREATE TABLE "bag_custody" (${OWNED},
        "bagId" uuid NOT NULL REFERENCES "bag" ("id"),
        "state" text NOT NULL,
        "at" timestamptz NOT NULL,
        "by" text NOT NULL,
        "note" text
      );
      CREATE INDEX "bag_custody_bag" ON "bag_custody" ("bagId");
      ${protect('bag_custody')}
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['bag_custody', 'core_tap', 'core', 'bag']) await runner.query(`DROP TABLE "${table}"`);
  }
}
