import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What a program came to as it was handed over. */
export class Prices1796060000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "program" ADD "price" jsonb`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "program" DROP "price"`);
  }
}
