import type { MigrationInterface, QueryRunner } from 'typeorm';
import { protect } from './protect.ts';

const owned = `
  "id" uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  "practiceId" uuid NOT NULL REFERENCES "practice" ("id"),
  "createdAt" timestamptz NOT NULL DEFAULT now(),
  "deletedAt" timestamptz,
  "version" integer NOT NULL DEFAULT 1`;

/** A site’s program offered to its owner, line by line, each of which is accepted or declined. */
export class Quotes1795860000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE "quote" (${owned},
        "siteId" uuid NOT NULL REFERENCES "site" ("id"),
        "state" text NOT NULL CHECK ("state" IN ('open', 'answered', 'taken over', 'withdrawn')),
        "offeredAt" timestamptz NOT NULL,
        "validUntil" date NOT NULL,
        "note" text,
        "units" text NOT NULL CHECK ("units" IN ('us', 'metric')),
        "currency" text NOT NULL,
        "visits" double precision,
        "answeredAt" timestamptz,
        "answeredBy" text,
        "answerWords" text
      );
      CREATE INDEX "quote_site" ON "quote" ("siteId", "offeredAt");
      CREATE UNIQUE INDEX "quote_standing" ON "quote" ("siteId") WHERE "state" IN ('open', 'answered') AND "deletedAt" IS NULL;
      ${protect('quote')}

      CREATE TABLE "quote_line" (${owned},
        "quoteId" uuid NOT NULL REFERENCES "quote" ("id"),
        "zoneId" uuid NOT NULL REFERENCES "zone" ("id"),
        "position" integer NOT NULL,
        "key" text NOT NULL,
        "remedy" text NOT NULL,
        "zone" text NOT NULL,
        "name" text NOT NULL,
        "words" text NOT NULL,
        "amount" text NOT NULL,
        "doneIn" text NOT NULL,
        "caution" text,
        "price" double precision,
        "answer" text CHECK ("answer" IN ('accepted', 'declined'))
      );
      CREATE INDEX "quote_line_quote" ON "quote_line" ("quoteId");
      CREATE INDEX "quote_line_zone" ON "quote_line" ("zoneId");
      ${protect('quote_line')}
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DROP TABLE "quote_line"; DROP TABLE "quote";`);
  }
}
