import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What a line of a quote may cost at most, where it was agreed to without a price. */
export class Ceilings1796040000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "quote_line" ADD "ceiling" double precision`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "quote_line" DROP "ceiling"`);
  }
}
