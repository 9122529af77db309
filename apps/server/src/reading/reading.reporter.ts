import { retestTable } from '@glenfold/agronomy';
import { Injectable } from '@nestjs/common';
import { SITE_TESTS } from '../lab/lab.reporter.ts';
import { Clock } from '../platform/clock.ts';
import { Records } from '../platform/records.ts';
import { isBehind, placeOf } from '../steps/paging.ts';
import type { Behind, Facts, FoundTask, State, StepReporter, TaskKind } from '../steps/stepReporter.ts';
import { StepReporters } from '../steps/stepReporters.ts';

/** Which zones can be read, across sites. */
@Injectable()
export class ReadingReporter implements StepReporter<'zones' | 'tested'> {
  readonly step = 'reading';
  readonly shared = SITE_TESTS;
  readonly numbers = `
    SELECT s."id" AS "siteId", count(t."zoneId")::int AS "zones", count(t."resultId")::int AS "tested"
    FROM site s LEFT JOIN tests t ON t."siteId" = s."id"
    WHERE s."practiceId" = $1 AND s."id" = ANY($2) GROUP BY s."id"`;
  readonly tasks: readonly TaskKind[] = [
    { name: 'test again', pressing: 26, may: 'field.write', page: (behind, limit) => this.#due(behind, limit) },
  ];

  constructor(
    private readonly records: Records,
    private readonly clock: Clock,
    reporters: StepReporters,
  ) {
    reporters.register(this);
  }

  state({ zones, tested }: Facts<'zones' | 'tested'>): State {
    return tested === 0
      ? { words: 'no test yet', state: 'waiting' }
      : { words: `${tested} of ${zones} readable`, state: 'done' };
  }

  /** Zones whose test is too old, and of which nothing is foretold that waits for its retest. */
  async #due(behind: Behind | undefined, limit: number): Promise<FoundTask[]> {
    const { corrections, afterCorrection, routine } = retestTable;
    const sites = await this.records.ask<{
      siteId: string;
      siteName: string;
      zoneId: string;
      names: string[];
      on: string;
    }>(
      `SELECT s."id" AS "siteId", s."name" AS "siteName", o.* FROM site s CROSS JOIN LATERAL (
         SELECT (array_agg(r."zoneId" ORDER BY r."due"))[1] AS "zoneId", array_agg(r."name" ORDER BY r."due") AS "names",
           min(r."due")::text AS "on"
         FROM retests($1, $5, $6, $7) r
         WHERE r."siteId" = s."id" AND r."due" <= $8::timestamptz::date
           AND NOT EXISTS (SELECT FROM prediction p WHERE p."zoneId" = r."zoneId" AND p."deletedAt" IS NULL)
       ) o
       WHERE s."practiceId" = $1 AND s."deletedAt" IS NULL AND ${isBehind('s."name"', 's."id"')} AND o."names" IS NOT NULL
       ORDER BY s."name", s."id" LIMIT $4`,
      [...placeOf(behind), limit, [...corrections], afterCorrection, routine, this.clock.now()],
    );
    return sites.map(({ siteId, siteName, zoneId, names, on }) => ({
      ...{ id: siteId, siteId, siteName, zoneId },
      words: `Test again: ${names.join(', ')}`,
      why: `Due since ${on}: a year after a correction, else about every three years.`,
    }));
  }
}
