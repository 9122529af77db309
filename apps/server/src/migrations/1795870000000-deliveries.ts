import type { MigrationInterface, QueryRunner } from 'typeorm';

/** The day of a price, and what bringing a product costs. */
export class Deliveries1795870000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      ALTER TABLE "product"
        ADD "pricedOn" date,
        ADD "deliveryPrice" double precision,
        ADD "loadSize" double precision;
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "product" DROP "pricedOn", DROP "deliveryPrice", DROP "loadSize";`);
  }
}
