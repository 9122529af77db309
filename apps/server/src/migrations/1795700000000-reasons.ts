import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Why an aim lies where it does, by what an Adams–Evans laboratory has multiplied its lime already, and the table that was found in a file. */
export class Reasons1795700000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      ALTER TABLE "zone" ADD COLUMN "aimReason" text;
      ALTER TABLE "lab_result" ADD COLUMN "limeFactor" double precision;
      ALTER TABLE "lab_import" ADD COLUMN "limeFactor" double precision;
      ALTER TABLE "lab_import" ADD COLUMN "found" jsonb;
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      ALTER TABLE "lab_import" DROP COLUMN "found";
      ALTER TABLE "lab_import" DROP COLUMN "limeFactor";
      ALTER TABLE "lab_result" DROP COLUMN "limeFactor";
      ALTER TABLE "zone" DROP COLUMN "aimReason";
    `);
  }
}
