import type { MigrationInterface, QueryRunner } from 'typeorm';
import { auditLeavesOut, openToDoor } from './protect.ts';

const BEFORE = `'tokenHash', 'image']`;
/** Laboratories' files and reports for owners are kept whole where they belong: the book of changes says that they came. */
const AFTER = `'tokenHash', 'image', 'content', 'found', 'made']`;

/**
 * Devices from which somebody has signed in before: wrong tries of others do not lock them out there. When an owner had a
 * password link sent stands with the member, and so in the record of changes.
 */
export class KnownDevices1795960000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await auditLeavesOut(runner, BEFORE, AFTER);
    await runner.query(`
      CREATE TABLE "known_device" (
        "tokenHash" text NOT NULL,
        "personId" uuid NOT NULL REFERENCES "person" ("id"),
        "createdAt" timestamptz NOT NULL DEFAULT now(),
        PRIMARY KEY ("tokenHash", "personId")
      );
      ALTER TABLE "known_device" ENABLE ROW LEVEL SECURITY;
      ${openToDoor('known_device', 'SELECT, INSERT, DELETE')}
      ALTER TABLE "membership" ADD "resetAskedAt" timestamptz;
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await auditLeavesOut(runner, AFTER, BEFORE);
    await runner.query(`
      ALTER TABLE "membership" DROP "resetAskedAt";
      DROP TABLE "known_device";
    `);
  }
}
