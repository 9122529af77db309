import type { MigrationInterface, QueryRunner } from 'typeorm';
import { wall } from './protect.ts';

/** The last of a line of results, each of which takes the place of the one before. */
const lastOf = `
      CREATE FUNCTION pg_temp.last_of(result uuid) RETURNS uuid LANGUAGE plpgsql AS $$
        DECLARE next uuid;
        BEGIN
          LOOP
            SELECT r."id" INTO next FROM lab_result r WHERE r."supersedesId" = result AND r."deletedAt" IS NULL
              ORDER BY r."createdAt", r."id" LIMIT 1;
            EXIT WHEN next IS NULL;
            result := next;
          END LOOP;
          RETURN result;
        END $$;`;

/** A bag had two samples, or a sample two results that stood, where two files of it came at the same moment: they follow one another now. */
const oneLine = `
      CREATE TEMP TABLE second_sample ON COMMIT DROP AS
        SELECT "id", first_value("id") OVER (PARTITION BY "bagId" ORDER BY "createdAt", "id") AS "kept"
        FROM sample WHERE "bagId" IS NOT NULL AND "deletedAt" IS NULL;
      DELETE FROM second_sample WHERE "id" = "kept";
      -- Copies for other zones of the bag, which somebody corrected apart, stay apart.
      ALTER TABLE "sample" ADD "apart" boolean;
      UPDATE sample s SET "apart" = true FROM second_sample t WHERE t."id" = s."id" AND NOT EXISTS (
        SELECT FROM sample_zone own JOIN sample_zone other ON other."zoneId" = own."zoneId"
        WHERE own."sampleId" = t."id" AND other."sampleId" = t."kept" AND own."deletedAt" IS NULL AND other."deletedAt" IS NULL
      ) AND EXISTS (SELECT FROM sample_zone own WHERE own."sampleId" = t."id" AND own."deletedAt" IS NULL);
      DELETE FROM second_sample t USING sample s WHERE s."id" = t."id" AND s."apart";
      UPDATE lab_result r SET "sampleId" = t."kept" FROM second_sample t WHERE r."sampleId" = t."id";
      UPDATE measurement m SET "sampleId" = t."kept" FROM second_sample t WHERE m."sampleId" = t."id";
      UPDATE sample_zone z SET "deletedAt" = now() FROM second_sample t WHERE z."sampleId" = t."id" AND z."deletedAt" IS NULL;
      UPDATE sample s SET "deletedAt" = now() FROM second_sample t WHERE s."id" = t."id";
      DO $$
        DECLARE extra record;
        BEGIN
          FOR extra IN
            SELECT * FROM (
              SELECT "id", "createdAt", first_value("id") OVER (PARTITION BY "supersedesId" ORDER BY "createdAt", "id") AS "first"
              FROM lab_result WHERE "supersedesId" IS NOT NULL AND "deletedAt" IS NULL
            ) c WHERE "id" <> "first" ORDER BY "createdAt", "id"
          LOOP
            UPDATE lab_result SET "supersedesId" = pg_temp.last_of(extra."first") WHERE "id" = extra."id";
          END LOOP;
          FOR extra IN
            SELECT * FROM (
              SELECT "id", "createdAt", first_value("id") OVER (PARTITION BY "sampleId" ORDER BY "createdAt", "id") AS "first"
              FROM lab_result WHERE "supersedesId" IS NULL AND "deletedAt" IS NULL
            ) c WHERE "id" <> "first" ORDER BY "createdAt", "id"
          LOOP
            UPDATE lab_result SET "supersedesId" = pg_temp.last_of(extra."first") WHERE "id" = extra."id";
          END LOOP;
        END $$;
      DROP TABLE second_sample;`;

/** A number that two bags had: the later ones keep it with a mark. */
const oneNumber = `
      UPDATE bag b SET "labNumber" = b."labNumber" || ' (' || n."turn" || ')'
      FROM (
        SELECT "id", row_number() OVER (PARTITION BY "practiceId", "labNumber" ORDER BY "createdAt", "id") AS "turn"
        FROM bag WHERE "labNumber" IS NOT NULL AND "deletedAt" IS NULL
      ) n WHERE n."id" = b."id" AND n."turn" > 1;`;

/**
 * A bag has one sample, a sample one line of results, a laboratory's number one bag: whoever comes at the same moment. A
 * request that is sent again is known by its key.
 */
export class OneOfEach1795950000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    // Nobody changed anything.
    await runner.query(`SELECT set_config('glenfold.loading', 'on', true)`);
    await runner.query(`
      ${lastOf}
      ${oneLine}
      ${oneNumber}
      CREATE UNIQUE INDEX "one_sample_of_a_bag" ON "sample" ("bagId") WHERE "bagId" IS NOT NULL AND "apart" IS NOT TRUE AND "deletedAt" IS NULL;
      CREATE UNIQUE INDEX "one_first_result" ON "lab_result" ("sampleId") WHERE "supersedesId" IS NULL AND "deletedAt" IS NULL;
      CREATE UNIQUE INDEX "one_in_its_place" ON "lab_result" ("supersedesId") WHERE "supersedesId" IS NOT NULL AND "deletedAt" IS NULL;
      CREATE TABLE "done_once" (
        "practiceId" uuid NOT NULL REFERENCES "practice" ("id"),
        "key" text NOT NULL,
        "asked" text NOT NULL,
        "status" integer NOT NULL,
        "answer" json,
        "createdAt" timestamptz NOT NULL DEFAULT now(),
        PRIMARY KEY ("practiceId", "key")
      );
      CREATE INDEX "done_once_age" ON "done_once" ("practiceId", "createdAt");
      ${wall('done_once')}
      GRANT DELETE ON "done_once" TO glenfold_app;
      CREATE UNIQUE INDEX "one_bag_of_a_number" ON "bag" ("practiceId", "labNumber") WHERE "labNumber" IS NOT NULL AND "deletedAt" IS NULL;
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      DROP TABLE "done_once";
      DROP INDEX "one_sample_of_a_bag";
      ALTER TABLE "sample" DROP "apart";
      DROP INDEX "one_first_result";
      DROP INDEX "one_in_its_place";
      DROP INDEX "one_bag_of_a_number";
    `);
  }
}
