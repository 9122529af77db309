import { Injectable } from '@nestjs/common';
import { SITE_TESTS } from '../lab/lab.reporter.ts';
import { Clock } from '../platform/clock.ts';
import { Records } from '../platform/records.ts';
import { isBehind, placeOf } from '../steps/paging.ts';
import { CHANGED_SINCE } from './changedSince.ts';
import type { Behind, Facts, FoundTask, State, StepReporter, TaskKind } from '../steps/stepReporter.ts';
import { StepReporters } from '../steps/stepReporters.ts';
import { share } from '../steps/words.ts';

const HANDED_OVER = `EXISTS (SELECT FROM program_zone p WHERE p."labResultId" = t."resultId"
  AND p."zoneId" = t."zoneId" AND p."deletedAt" IS NULL)`;

/** Which zones’ programs are handed over, across sites. */
@Injectable()
export class RatesReporter implements StepReporter<'zones' | 'tested' | 'handedOver' | 'changed'> {
  readonly step = 'rates';
  readonly shared = {
    ...SITE_TESTS,
    changed: CHANGED_SINCE('"zoneId" IN (SELECT "id" FROM zone WHERE "siteId" = ANY($2) AND "deletedAt" IS NULL)'),
  };
  readonly numbers = `
    SELECT s."id" AS "siteId", count(t."zoneId")::int AS "zones", count(t."resultId")::int AS "tested",
      count(*) FILTER (WHERE ${HANDED_OVER})::int AS "handedOver",
      count(*) FILTER (WHERE ${HANDED_OVER} AND t."zoneId" IN (SELECT c."zoneId" FROM changed c))::int AS "changed"
    FROM site s LEFT JOIN tests t ON t."siteId" = s."id"
    WHERE s."practiceId" = $1 AND s."id" = ANY($2) GROUP BY s."id"`;
  readonly tasks: readonly TaskKind[] = [
    { name: 'hand over', pressing: 20, may: 'work.write', page: (behind, limit) => this.#toHandOver(behind, limit) },
    { name: 'hand over anew', pressing: 14, may: 'work.write', page: (behind, limit) => this.#changed(behind, limit) },
    { name: 'go on', pressing: 15, may: 'work.write', page: (behind, limit) => this.#toGoOn(behind, limit) },
  ];

  constructor(
    private readonly records: Records,
    private readonly clock: Clock,
    reporters: StepReporters,
  ) {
    reporters.register(this);
  }

  state({ zones, tested, handedOver, changed }: Facts<'zones' | 'tested' | 'handedOver' | 'changed'>): State {
    if (changed > 0) return { words: `${changed} changed since`, state: 'act' };
    return tested === 0 ? { words: 'no test yet', state: 'waiting' } : share(handedOver, zones, 'handed over');
  }

  async #toHandOver(behind: Behind | undefined, limit: number): Promise<FoundTask[]> {
    const sites = await this.records.ask<{ siteId: string; siteName: string; names: string[]; zoneIds: string[] }>(
      `SELECT s."id" AS "siteId", s."name" AS "siteName", o."names", o."zoneIds" FROM site s CROSS JOIN LATERAL (
         SELECT array_agg(t."name" ORDER BY t."position") AS "names", array_agg(t."zoneId" ORDER BY t."position") AS "zoneIds"
         FROM zone_tests($1) t WHERE t."siteId" = s."id" AND t."resultId" IS NOT NULL AND NOT ${HANDED_OVER}
       ) o
       WHERE s."practiceId" = $1 AND s."deletedAt" IS NULL AND ${isBehind('s."name"', 's."id"')}
         AND o."names" IS NOT NULL
       ORDER BY s."name", s."id" LIMIT $4`,
      [...placeOf(behind), limit],
    );
    return sites.map(({ siteId, siteName, names, zoneIds }) => ({
      ...{ id: siteId, siteId, siteName, zoneId: zoneIds[0]! },
      words: `Hand over the program: ${names.join(', ')}`,
      why: 'Tested, and the rates are worked out, but the owner has nothing in hand.',
    }));
  }

  /** Zones of which something was decided after their paper: it is handed over, or taken back. */
  async #changed(behind: Behind | undefined, limit: number): Promise<FoundTask[]> {
    const sites = await this.records.ask<{ siteId: string; siteName: string; names: string[]; zoneIds: string[] }>(
      `SELECT s."id" AS "siteId", s."name" AS "siteName", o."names", o."zoneIds" FROM site s JOIN (
         SELECT z."siteId", array_agg(z."name" ORDER BY z."position") AS "names",
           array_agg(z."id" ORDER BY z."position") AS "zoneIds"
         FROM (${CHANGED_SINCE('true')}) c JOIN zone z ON z."id" = c."zoneId" AND z."deletedAt" IS NULL
         GROUP BY z."siteId"
       ) o ON o."siteId" = s."id"
       WHERE s."practiceId" = $1 AND s."deletedAt" IS NULL AND ${isBehind('s."name"', 's."id"')}
       ORDER BY s."name", s."id" LIMIT $4`,
      [...placeOf(behind), limit],
    );
    return sites.map(({ siteId, siteName, names, zoneIds }) => ({
      ...{ id: siteId, siteId, siteName, zoneId: zoneIds[0]! },
      words: `Changed since it was handed over: ${names.join(', ')}`,
      why: 'The owner’s paper, the week and the cards say what was decided before: hand it over, or take the change back.',
    }));
  }

  /** Quotes whose answers wait, and years that are over while no other was begun. */
  async #toGoOn(behind: Behind | undefined, limit: number): Promise<FoundTask[]> {
    const sites = await this.records.ask<{ siteId: string; siteName: string; answeredBy: string | null }>(
      `SELECT s."id" AS "siteId", s."name" AS "siteName", g."answeredBy" FROM site s CROSS JOIN LATERAL (
         SELECT q."answeredBy", 1 AS "turn" FROM quote q
         WHERE q."siteId" = s."id" AND q."state" = 'answered' AND q."deletedAt" IS NULL
         UNION ALL
         SELECT NULL, 2 FROM (
           SELECT coalesce(p."startsOn", p."handedOverAt"::date) AS "began" FROM program p
           WHERE p."siteId" = s."id" AND p."state" = 'handed over' AND p."deletedAt" IS NULL
           ORDER BY p."handedOverAt" DESC LIMIT 1
         ) last
         WHERE last."began" + interval '12 months' <= $5::timestamptz AND NOT EXISTS (
           SELECT FROM program d WHERE d."siteId" = s."id" AND d."state" = 'draft' AND d."startsOn" > last."began"
         )
         ORDER BY "turn" LIMIT 1
       ) g
       WHERE s."practiceId" = $1 AND s."deletedAt" IS NULL AND ${isBehind('s."name"', 's."id"')}
       ORDER BY s."name", s."id" LIMIT $4`,
      [...placeOf(behind), limit, this.clock.now()],
    );
    return sites.map(({ siteId, siteName, answeredBy }) => ({
      ...{ id: siteId, siteId, siteName, zoneId: null },
      ...(answeredBy === null
        ? {
            words: 'Begin the next year',
            why: 'The year that was handed over is over: what was put off and what waits for the retest comes first.',
          }
        : {
            words: `Take over what ${answeredBy} has answered`,
            why: 'The quote is answered; what was declined still stands in the program.',
          }),
    }));
  }
}
