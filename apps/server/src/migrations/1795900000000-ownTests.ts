import type { MigrationInterface, QueryRunner } from 'typeorm';
import { protect } from './protect.ts';

const owned = `
  "id" uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  "practiceId" uuid NOT NULL REFERENCES "practice" ("id"),
  "createdAt" timestamptz NOT NULL DEFAULT now(),
  "deletedAt" timestamptz,
  "version" integer NOT NULL DEFAULT 1`;

/** Tests with an advisor's own hands, whose values are measurements of the zone; and loads looked over at the gate. */
export class OwnTests1795900000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE "field_test" (${owned},
        "siteId" uuid NOT NULL REFERENCES "site" ("id"),
        "zoneId" uuid NOT NULL REFERENCES "zone" ("id"),
        "kind" text NOT NULL,
        "on" date NOT NULL,
        "record" jsonb NOT NULL,
        "closed" boolean NOT NULL DEFAULT false,
        "revision" integer NOT NULL,
        "doneBy" text,
        "place" jsonb
      );
      CREATE INDEX "field_test_site" ON "field_test" ("siteId");
      CREATE INDEX "field_test_zone" ON "field_test" ("zoneId");
      ${protect('field_test')}

      CREATE TABLE "load_check" (${owned},
        "siteId" uuid NOT NULL REFERENCES "site" ("id"),
        "kind" text NOT NULL,
        "on" date NOT NULL,
        "name" text NOT NULL,
        "record" jsonb NOT NULL,
        "decided" text CHECK ("decided" IN ('taken', 'taken for some things', 'sent back')),
        "reason" text,
        "by" text
      );
      CREATE INDEX "load_check_site" ON "load_check" ("siteId");
      ${protect('load_check')}

      ALTER TABLE "measurement" ADD "fieldTestId" uuid REFERENCES "field_test" ("id");
      CREATE INDEX "measurement_field_test" ON "measurement" ("fieldTestId");`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      ALTER TABLE "measurement" DROP "fieldTestId";
      DROP TABLE "load_check";
      DROP TABLE "field_test";`);
  }
}
