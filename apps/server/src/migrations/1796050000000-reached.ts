import type { MigrationInterface, QueryRunner } from 'typeorm';

/** By which a practice is reached. */
export class Reached1796050000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "practice" ADD "phone" text; ALTER TABLE "practice" ADD "email" text;`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "practice" DROP "phone"; ALTER TABLE "practice" DROP "email";`);
  }
}
