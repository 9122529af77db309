import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Whose place a job has taken when its program was handed over, and what that one was to be. */
export class TakenOver1796010000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      ALTER TABLE "job" ADD "replacesId" uuid;
      ALTER TABLE "job" ADD "was" jsonb;
      CREATE INDEX ON "job" ("replacesId") WHERE "replacesId" IS NOT NULL;
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "job" DROP "replacesId"; ALTER TABLE "job" DROP "was";`);
  }
}
