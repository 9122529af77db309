import type { MigrationInterface, QueryRunner } from 'typeorm';
import { wall } from './protect.ts';

/** Results know their bag, and what else their line said; what the simulated laboratories hold, which is nobody's record and not audited. */
export class Laboratories1795640000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      ALTER TABLE "sample" ADD COLUMN "bagId" uuid REFERENCES "bag" ("id");
      CREATE INDEX "sample_bag" ON "sample" ("bagId");
      ALTER TABLE "lab_result" ADD COLUMN "beside" text;
      ALTER TABLE "bag" ADD COLUMN "grassWanted" text;

      CREATE TABLE "standin_sample" (
        "id" uuid PRIMARY KEY DEFAULT gen_random_uuid(),
        "practiceId" uuid NOT NULL REFERENCES "practice" ("id"),
        "createdAt" timestamptz NOT NULL DEFAULT now(),
        "deletedAt" timestamptz,
        "version" integer NOT NULL DEFAULT 1,
        "bagId" uuid NOT NULL REFERENCES "bag" ("id"),
        "siteId" uuid NOT NULL,
        "siteName" text NOT NULL,
        "laboratory" text NOT NULL,
        "report" text NOT NULL,
        "printed" jsonb NOT NULL,
        "printedFirst" jsonb,
        "printedTwice" jsonb,
        "fault" text,
        "soils" jsonb NOT NULL,
        "arrivesAt" timestamptz NOT NULL,
        "reportsAt" timestamptz NOT NULL,
        "amendsAt" timestamptz,
        "told" integer NOT NULL
      );
      CREATE UNIQUE INDEX "standin_sample_bag" ON "standin_sample" ("bagId");
      ${wall('standin_sample')}
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      DROP TABLE "standin_sample";
      ALTER TABLE "bag" DROP COLUMN "grassWanted";
      ALTER TABLE "lab_result" DROP COLUMN "beside";
      ALTER TABLE "sample" DROP COLUMN "bagId";
    `);
  }
}
