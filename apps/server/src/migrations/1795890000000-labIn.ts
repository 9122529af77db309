import type { MigrationInterface, QueryRunner } from 'typeorm';
import { protect } from './protect.ts';

const owned = `
  "id" uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  "practiceId" uuid NOT NULL REFERENCES "practice" ("id"),
  "createdAt" timestamptz NOT NULL DEFAULT now(),
  "deletedAt" timestamptz,
  "version" integer NOT NULL DEFAULT 1`;

/** Laboratories' files byte for byte, their ways as they were learned, their own advice, and what was asked of them. */
export class LabIn1795890000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE "lab_profile" (${owned},
        "name" text NOT NULL,
        "columns" jsonb NOT NULL,
        "extractant" text,
        "bufferMethod" text,
        "limeFactor" double precision,
        "depth" double precision,
        "dateOrder" text CHECK ("dateOrder" IN ('day first', 'month first')),
        "sample" jsonb
      );
      CREATE UNIQUE INDEX "lab_profile_name" ON "lab_profile" ("practiceId", lower("name")) WHERE "deletedAt" IS NULL;
      ${protect('lab_profile')}

      ALTER TABLE "lab_report"
        ADD "original" text,
        ADD "mediaType" text,
        ADD "readAs" text,
        ADD "profileId" uuid REFERENCES "lab_profile" ("id"),
        ADD "dateOrder" text CHECK ("dateOrder" IN ('day first', 'month first'));
      CREATE UNIQUE INDEX "lab_report_original" ON "lab_report" ("siteId", "original") WHERE "deletedAt" IS NULL;

      ALTER TABLE "lab_result" ADD "advised" jsonb NOT NULL DEFAULT '[]';

      ALTER TABLE "measurement" DROP CONSTRAINT "measurement_qualifier_check";
      ALTER TABLE "measurement" ADD CONSTRAINT "measurement_qualifier_check" CHECK ("qualifier" IN ('below', 'above'));

      CREATE TABLE "lab_question" (${owned},
        "siteId" uuid NOT NULL REFERENCES "site" ("id"),
        "zoneId" uuid NOT NULL REFERENCES "zone" ("id"),
        "resultId" uuid REFERENCES "lab_result" ("id"),
        "laboratory" text,
        "askedOf" text,
        "askedOn" date NOT NULL,
        "askedBy" text,
        "question" text NOT NULL,
        "answer" text,
        "answeredBy" text,
        "answeredOn" date
      );
      CREATE INDEX "lab_question_site" ON "lab_question" ("siteId");
      ${protect('lab_question')}`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      DROP TABLE "lab_question";
      -- What is above the range of a method was not known before.
      UPDATE "measurement" SET "qualifier" = NULL WHERE "qualifier" = 'above';
      ALTER TABLE "measurement" DROP CONSTRAINT "measurement_qualifier_check";
      ALTER TABLE "measurement" ADD CONSTRAINT "measurement_qualifier_check" CHECK ("qualifier" IN ('below'));
      ALTER TABLE "lab_result" DROP "advised";
      ALTER TABLE "lab_report" DROP "original", DROP "mediaType", DROP "readAs", DROP "profileId", DROP "dateOrder";
      DROP TABLE "lab_profile";`);
  }
}
