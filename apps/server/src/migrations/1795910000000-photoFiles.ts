import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Photos move out of their rows into files; a run of the server carries over those that are there. */
export class PhotoFiles1795910000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      ALTER TABLE "zone_photo"
        ADD "digest" text,
        ADD "thumb" text,
        ALTER "image" DROP NOT NULL;`);
  }

  /** Photos that were moved stay in their files: the rows that would hold them again are taken away with care. */
  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      UPDATE "zone_photo" SET "image" = '' WHERE "image" IS NULL;
      ALTER TABLE "zone_photo" DROP "digest", DROP "thumb", ALTER "image" SET NOT NULL;`);
  }
}
