import type { MigrationInterface, QueryRunner } from 'typeorm';
import { whoAsks } from './1796050000000-reached.ts';

const BEFORE = `'email', q."email")`;
const SINCE = `'email', q."email", 'clientsShare', q."clientsShare")`;

/** What a practice left for later, clients who share their reports themselves, and the part of the day on which a job is done. */
export class Boards1796070000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      ALTER TABLE "practice" ADD "clientsShare" boolean NOT NULL DEFAULT false;
      ALTER TABLE "practice" ADD "later" jsonb NOT NULL DEFAULT '[]';
      ALTER TABLE "share_link" ADD "clientId" uuid;
      ALTER TABLE "membership" ADD "handedOn" jsonb;
      ALTER TABLE "job" ADD "part" text;
      ALTER TABLE "job" ADD "told" date;
    `);
    await whoAsks(runner, BEFORE, SINCE);
  }

  async down(runner: QueryRunner): Promise<void> {
    await whoAsks(runner, SINCE, BEFORE);
    await runner.query(`
      ALTER TABLE "membership" DROP "handedOn";
      ALTER TABLE "job" DROP "told";
      ALTER TABLE "job" DROP "part";
      ALTER TABLE "share_link" DROP "clientId";
      ALTER TABLE "practice" DROP "later";
      ALTER TABLE "practice" DROP "clientsShare";
    `);
  }
}
