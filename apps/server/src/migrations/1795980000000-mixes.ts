import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A list of a document, empty where there is none. */
const listOf = (path: string): string => `CASE WHEN jsonb_typeof(${path}) = 'array' THEN ${path} ELSE '[]' END`;

/**
 * What goes into the same mix as a job’s own product, and what of it was put down. Open jobs that were handed over before
 * get theirs from the program they are of: the peat with the sand.
 */
export class Mixes1795980000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      ALTER TABLE "job" ADD "mixed" jsonb NOT NULL DEFAULT '[]';
      ALTER TABLE "entry" ADD "mixed" jsonb NOT NULL DEFAULT '[]';
      UPDATE "job" j SET "mixed" = found."mixed"
      FROM (
        SELECT o."id", jsonb_agg(jsonb_build_object(
          'productId', other.value->>'materialId',
          'name', other.value->>'name',
          'quantity', (other.value->'quantity'->>'value')::double precision
            / greatest(1, jsonb_array_length(treatment.value->'doses')),
          'unit', other.value->>'unit')) AS "mixed"
        FROM "job" o
        JOIN "program_zone" p ON p."programId" = o."programId" AND p."zoneId" = o."zoneId"
        CROSS JOIN LATERAL jsonb_array_elements(${listOf(`p."issued"->'answer'->'program'->'treatments'`)}) AS treatment
        CROSS JOIN LATERAL jsonb_array_elements(${listOf(`treatment.value->'others'`)}) AS other
        WHERE o."state" = 'open' AND treatment.value->>'key' = o."key"
        GROUP BY o."id"
      ) found
      WHERE j."id" = found."id";
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "job" DROP "mixed"; ALTER TABLE "entry" DROP "mixed";`);
  }
}
