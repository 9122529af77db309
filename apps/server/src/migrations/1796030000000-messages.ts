import type { MigrationInterface, QueryRunner } from 'typeorm';
import { protect } from './protect.ts';

/** What is written about a site. */
export class Messages1796030000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE "message" (
        "id" uuid PRIMARY KEY DEFAULT gen_random_uuid(),
        "practiceId" uuid NOT NULL REFERENCES "practice" ("id"),
        "siteId" uuid NOT NULL REFERENCES "site" ("id"),
        "personId" uuid,
        "author" text NOT NULL,
        "side" text NOT NULL CHECK ("side" IN ('office', 'client', 'field')),
        "words" text NOT NULL,
        "at" timestamptz NOT NULL,
        "doneAt" timestamptz,
        "createdAt" timestamptz NOT NULL DEFAULT now(),
        "deletedAt" timestamptz,
        "version" integer NOT NULL DEFAULT 1
      );
      CREATE INDEX "message_site" ON "message" ("siteId", "at");
      CREATE INDEX "message_open" ON "message" ("practiceId", "siteId") WHERE "doneAt" IS NULL AND "deletedAt" IS NULL;
      ${protect('message')}
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DROP TABLE "message"`);
  }
}
