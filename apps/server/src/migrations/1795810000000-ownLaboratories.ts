import type { MigrationInterface, QueryRunner } from 'typeorm';
import { protect } from './protect.ts';

/** Laboratories of the practices' own. */
export class OwnLaboratories1795810000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE "laboratory" (
        "id" uuid PRIMARY KEY DEFAULT gen_random_uuid(),
        "practiceId" uuid NOT NULL REFERENCES "practice" ("id"),
        "createdAt" timestamptz NOT NULL DEFAULT now(),
        "deletedAt" timestamptz,
        "version" integer NOT NULL DEFAULT 1,
        "name" text NOT NULL,
        "address" text,
        "scientist" text,
        "phone" text,
        "extractant" text NOT NULL,
        "bufferMethod" text,
        "depths" jsonb NOT NULL,
        "volume" double precision NOT NULL CHECK ("volume" > 0),
        "fees" jsonb NOT NULL,
        "daysLeast" integer NOT NULL,
        "daysMost" integer NOT NULL CHECK ("daysMost" >= "daysLeast")
      );
      CREATE UNIQUE INDEX "laboratory_name" ON "laboratory" ("practiceId", lower("name")) WHERE "deletedAt" IS NULL;
      ${protect('laboratory')}
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE "laboratory"');
  }
}
