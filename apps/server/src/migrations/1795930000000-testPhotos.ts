import type { MigrationInterface, QueryRunner } from 'typeorm';
import { audited } from './protect.ts';

/**
 * A photo may show a test of one's own. Many rows at once are written without asking each whether it is audited, and only into the indexes
 * that find it.
 */
export class TestPhotos1795930000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    const tables = (await runner.query(
      `SELECT tgrelid::regclass::text AS name FROM pg_trigger WHERE tgname = 'audited' AND NOT tgisinternal`,
    )) as Array<{ name: string }>;
    for (const { name } of tables) await runner.query(audited(name.replaceAll('"', '')));
    await runner.query(indexes(true));
    await runner.query(`ALTER TABLE "zone_photo" ADD "fieldTestId" uuid REFERENCES "field_test" ("id")`);
  }

  async down(runner: QueryRunner): Promise<void> {
    // A trigger that looks once more does no harm.
    await runner.query(indexes(false));
    await runner.query(`ALTER TABLE "zone_photo" DROP "fieldTestId"`);
  }
}

const indexes = (partial: boolean): string => `
  DROP INDEX "measurement_zone", "measurement_field_test";
  CREATE INDEX "measurement_zone" ON "measurement" ("zoneId", "analyte", "takenOn") ${partial ? 'WHERE "zoneId" IS NOT NULL' : ''};
  CREATE INDEX "measurement_field_test" ON "measurement" ("fieldTestId") ${partial ? 'WHERE "fieldTestId" IS NOT NULL' : ''};`;
