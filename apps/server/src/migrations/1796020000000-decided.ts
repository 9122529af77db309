import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What was decided by hand of a zone when its program was handed over, a sum of each treatment’s. */
export class Decided1796020000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "program_zone" ADD "decided" jsonb`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "program_zone" DROP "decided"`);
  }
}
