import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A report may give a word and no number: it is kept as what it is. */
export class RatedWords1796000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      ALTER TABLE "measurement" DROP CONSTRAINT "measurement_qualifier_check";
      ALTER TABLE "measurement" ADD CONSTRAINT "measurement_qualifier_check"
        CHECK ("qualifier" IN ('below', 'above', 'very low', 'low', 'medium', 'high', 'very high'));
    `);
  }

  /** The version before would read a word’s empty value as a number: such values are left out there. */
  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      DELETE FROM "measurement" WHERE "qualifier" NOT IN ('below', 'above');
      ALTER TABLE "measurement" DROP CONSTRAINT "measurement_qualifier_check";
      ALTER TABLE "measurement" ADD CONSTRAINT "measurement_qualifier_check" CHECK ("qualifier" IN ('below', 'above'));
    `);
  }
}
