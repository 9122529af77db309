import type { MigrationInterface, QueryRunner } from 'typeorm';
import { protect } from './protect.ts';

/** Files of many years' tests, taken in as one piece of long work each. */
export class Histories1795920000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE "history_import" (
        "id" uuid PRIMARY KEY DEFAULT gen_random_uuid(),
        "practiceId" uuid NOT NULL REFERENCES "practice" ("id"),
        "createdAt" timestamptz NOT NULL DEFAULT now(),
        "deletedAt" timestamptz,
        "version" integer NOT NULL DEFAULT 1,
        "fileName" text NOT NULL,
        "original" text NOT NULL,
        "state" text NOT NULL DEFAULT 'waiting' CHECK ("state" IN ('waiting', 'imported', 'refused')),
        "rows" integer,
        "words" jsonb NOT NULL DEFAULT '[]'
      );
      CREATE UNIQUE INDEX "history_import_original" ON "history_import" ("practiceId", "original")
        WHERE "deletedAt" IS NULL AND "state" <> 'refused';
      ${protect('history_import')}`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DROP TABLE "history_import";`);
  }
}
