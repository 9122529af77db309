import type { MigrationInterface, QueryRunner } from 'typeorm';
import { protect } from './protect.ts';

const newestFirst = `
  ORDER BY coalesce(s."sampledOn", (r."createdAt" AT TIME ZONE 'UTC')::date) DESC, r."createdAt" DESC LIMIT 1`;
const current = `
  r."deletedAt" IS NULL AND s."deletedAt" IS NULL AND s."of" = 'soil'
  AND NOT EXISTS (SELECT FROM lab_result n WHERE n."supersedesId" = r."id" AND n."deletedAt" IS NULL)`;

/** @param joined what else is joined to a result; `first` what is put in order before the day. Without both, as it was before, to the letter. */
const zoneTests = (joined = '', first = ''): string => `
      CREATE OR REPLACE FUNCTION zone_tests(practice uuid)
        RETURNS TABLE ("siteId" uuid, "zoneId" uuid, "name" text, "position" integer, "resultId" uuid)
        LANGUAGE sql STABLE AS $$
        SELECT z."siteId", z."id", z."name", z."position", coalesce(own."id", CASE
          WHEN z."partOf" IS NOT NULL OR EXISTS (SELECT FROM zone j WHERE j."joinedInto" = z."id") THEN inherited_test(z."id")
        END)
        FROM zone z LEFT JOIN LATERAL (
          SELECT r."id" FROM sample_zone sz JOIN sample s ON s."id" = sz."sampleId" JOIN lab_result r ON r."sampleId" = s."id"${joined}
          WHERE sz."zoneId" = z."id" AND sz."deletedAt" IS NULL AND ${current} ${newestFirst.replace('BY ', `BY ${first}`)}
        ) own ON true
        WHERE z."practiceId" = practice AND z."deletedAt" IS NULL
      $$;`;
const BAD_HALF_LAST = `(coalesce(b."purpose", '') = 'problem'), `;

/** The bad half of a pair is no test for the rates of its zone where there is another; when each zone is tested again. */
export class Readings1795940000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      ALTER TABLE "sample" ADD "cores" integer;
      CREATE TABLE "owner_report" (
        "id" uuid PRIMARY KEY DEFAULT gen_random_uuid(),
        "practiceId" uuid NOT NULL REFERENCES "practice" ("id"),
        "createdAt" timestamptz NOT NULL DEFAULT now(),
        "deletedAt" timestamptz,
        "version" integer NOT NULL DEFAULT 1,
        "siteId" uuid NOT NULL REFERENCES "site" ("id"),
        "state" text NOT NULL CHECK ("state" IN ('asked', 'draft', 'handed over', 'superseded')),
        "units" text NOT NULL,
        "letter" text,
        "made" jsonb,
        "madeOn" date,
        "handedOverAt" timestamptz
      );
      CREATE INDEX "owner_report_site" ON "owner_report" ("siteId", "createdAt") WHERE "deletedAt" IS NULL;
      ${protect('owner_report')}
      ${zoneTests(` LEFT JOIN bag b ON b."id" = s."bagId"`, BAD_HALF_LAST)}

      -- When each zone with a dated test is to be tested again: so many years after the last correction that came after
      -- it, else after the test. Beside the rule in words of the program (retestDue), which a test holds it against.
      CREATE FUNCTION retests(practice uuid, corrections text[], after_correction integer, routine integer)
        RETURNS TABLE ("siteId" uuid, "zoneId" uuid, "name" text, "sampledOn" date, "correction" text, "correctedOn" text, "due" date)
        LANGUAGE sql STABLE AS $$
        SELECT t."siteId", t."zoneId", t."name", s."sampledOn", e."kind", e."on",
          coalesce(e."last" + make_interval(years => after_correction), s."sampledOn" + make_interval(years => routine))::date
        FROM zone_tests(practice) t JOIN lab_result r ON r."id" = t."resultId" JOIN sample s ON s."id" = r."sampleId"
        LEFT JOIN LATERAL (
          SELECT d.* FROM (
            SELECT n."kind", n."on", CASE length(n."on")
              WHEN 10 THEN n."on"::date
              WHEN 7 THEN ((n."on" || '-01')::date + interval '1 month' - interval '1 day')::date
              ELSE (n."on" || '-12-31')::date END AS "last"
            FROM entry n WHERE n."zoneId" = t."zoneId" AND n."deletedAt" IS NULL AND n."kind" = ANY(corrections)
              AND n."state" IN ('done', 'partly done')
              AND NOT EXISTS (SELECT FROM entry c WHERE c."correctsId" = n."id" AND c."deletedAt" IS NULL)
          ) d WHERE d."last" > s."sampledOn" ORDER BY d."last" DESC LIMIT 1
        ) e ON true
        WHERE s."sampledOn" IS NOT NULL
      $$;
      GRANT EXECUTE ON FUNCTION retests(uuid, text[], integer, integer) TO glenfold_app;
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      DROP TABLE "owner_report";
      ALTER TABLE "sample" DROP "cores";
      DROP FUNCTION retests(uuid, text[], integer, integer);
      ${zoneTests()}
    `);
  }
}
