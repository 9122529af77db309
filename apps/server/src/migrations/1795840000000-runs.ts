import type { MigrationInterface, QueryRunner } from 'typeorm';
import { openToDoor, wall } from './protect.ts';

/** Long work as the practice sees it. The queue's own tables are made by the queue. */
export class Runs1795840000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE "run" (
        "id" uuid PRIMARY KEY DEFAULT gen_random_uuid(),
        "practiceId" uuid NOT NULL REFERENCES "practice" ("id"),
        "createdAt" timestamptz NOT NULL DEFAULT now(),
        "deletedAt" timestamptz,
        "version" integer NOT NULL DEFAULT 1,
        "kind" text NOT NULL,
        "title" text NOT NULL,
        "state" text NOT NULL DEFAULT 'waiting' CHECK ("state" IN ('waiting', 'running', 'done', 'stopped', 'failed')),
        "done" integer NOT NULL DEFAULT 0,
        "total" integer,
        "words" text,
        "stopAsked" boolean NOT NULL DEFAULT false,
        "askedBy" text,
        "tries" integer NOT NULL DEFAULT 0,
        "endedAt" timestamptz
      );
      CREATE UNIQUE INDEX "run_one_of_a_kind" ON "run" ("practiceId", "kind") WHERE "state" IN ('waiting', 'running');
      CREATE INDEX "run_newest" ON "run" ("practiceId", "createdAt");
      ${wall('run')}
      ${openToDoor('run', 'SELECT')}
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DROP TABLE "run"`);
  }
}
