import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What is told of the practice to who asks, before and since. */
const BEFORE = `'version', q."version")`;
const SINCE = `'version', q."version", 'phone', q."phone", 'email', q."email")`;

/** Tell who asks something else of the practice. */
export async function whoAsks(runner: QueryRunner, from: string, to: string): Promise<void> {
  const [{ definition }] = (await runner.query(`SELECT pg_get_functiondef('who_asks'::regproc) AS definition`)) as [
    { readonly definition: string },
  ];
  if (!definition.includes(from)) throw new Error(`who_asks tells nothing that ends with ${from}.`);
  await runner.query(definition.replace(from, to));
}

/** By which a practice is reached. */
export class Reached1796050000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "practice" ADD "phone" text; ALTER TABLE "practice" ADD "email" text;`);
    await whoAsks(runner, BEFORE, SINCE);
  }

  async down(runner: QueryRunner): Promise<void> {
    await whoAsks(runner, SINCE, BEFORE);
    await runner.query(`ALTER TABLE "practice" DROP "phone"; ALTER TABLE "practice" DROP "email";`);
  }
}
