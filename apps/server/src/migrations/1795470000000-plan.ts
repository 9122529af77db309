import type { MigrationInterface, QueryRunner } from 'typeorm';
import { protect } from './protect.ts';

/** Things on the ground, drawn on the plan. */
export class Plan1795470000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE "ground_feature" (
        "id" uuid PRIMARY KEY DEFAULT gen_random_uuid(),
        "practiceId" uuid NOT NULL REFERENCES "practice" ("id"),
        "createdAt" timestamptz NOT NULL DEFAULT now(),
        "deletedAt" timestamptz,
        "version" integer NOT NULL DEFAULT 1,
        "siteId" uuid NOT NULL REFERENCES "site" ("id"),
        "kind" text NOT NULL,
        "name" text,
        "geometry" jsonb NOT NULL,
        "canopyRadius" double precision
      );
      CREATE INDEX "ground_feature_site" ON "ground_feature" ("siteId");
      ${protect('ground_feature')}
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE "ground_feature"');
  }
}
