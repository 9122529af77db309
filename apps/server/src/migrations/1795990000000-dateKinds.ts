import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What kind of date work is to be ready for: those of before were reckoned as a match; the rains are known by their names. */
export class DateKinds1795990000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      ALTER TABLE "site_date" ADD "kind" text NOT NULL DEFAULT 'match';
      UPDATE "site_date" SET "kind" = CASE
        WHEN "name" ~* '(end|last).*(rain|water)' THEN 'rains end'
        WHEN "name" ~* 'rain|monsoon|storm' THEN 'rains begin'
        WHEN "name" ~* 'sale|visit|viewing|inspect' THEN 'visit'
        ELSE 'match' END;
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "site_date" DROP "kind"`);
  }
}
