import { Injectable } from '@nestjs/common';
import { SITE_TESTS } from '../lab/lab.reporter.ts';
import { Clock } from '../platform/clock.ts';
import { Records } from '../platform/records.ts';
import { isBehind, placeOf } from '../steps/paging.ts';
import type { Behind, Facts, FoundTask, State, StepReporter, TaskKind } from '../steps/stepReporter.ts';
import { StepReporters } from '../steps/stepReporters.ts';
import { plural } from '../steps/words.ts';

/** The last prediction of each zone, and whether a test has come since. */
const WAITING = `SELECT DISTINCT ON (p."zoneId") p."siteId", p."zoneId", p."retestOn", p."from", p."retestWords"
  FROM prediction p JOIN zone z ON z."id" = p."zoneId" AND z."deletedAt" IS NULL
  WHERE p."practiceId" = $1 AND p."deletedAt" IS NULL ORDER BY p."zoneId", p."madeOn" DESC, p."createdAt" DESC`;
const RETESTED = `EXISTS (SELECT FROM sample_zone sz JOIN sample m ON m."id" = sz."sampleId" JOIN lab_result r ON r."sampleId" = m."id"
  WHERE sz."zoneId" = w."zoneId" AND sz."deletedAt" IS NULL AND r."deletedAt" IS NULL AND m."sampledOn" >= w."from" + 120)`;

/** Which retests are due, across sites. */
@Injectable()
export class ProofReporter implements StepReporter<'waiting' | 'due' | 'judged'> {
  readonly step = 'proof';
  readonly shared = SITE_TESTS;
  readonly numbers = `
    SELECT s."id" AS "siteId", count(w."zoneId") FILTER (WHERE NOT ${RETESTED})::int AS "waiting",
      count(w."zoneId") FILTER (WHERE NOT ${RETESTED} AND w."retestOn" <= $3::date)::int AS "due",
      count(w."zoneId") FILTER (WHERE ${RETESTED})::int AS "judged"
    FROM site s LEFT JOIN (${WAITING}) w ON w."siteId" = s."id"
    WHERE s."practiceId" = $1 AND s."id" = ANY($2) GROUP BY s."id"`;
  readonly tasks: readonly TaskKind[] = [
    { name: 'retest', pressing: 25, may: 'field.write', page: (behind, limit) => this.#due(behind, limit) },
  ];

  constructor(
    private readonly records: Records,
    private readonly clock: Clock,
    reporters: StepReporters,
  ) {
    reporters.register(this);
  }

  state({ waiting, due, judged }: Facts<'waiting' | 'due' | 'judged'>): State {
    if (due > 0) return { words: `${plural(due, 'retest')} due`, state: 'act' };
    if (judged > 0 && waiting === 0) return { words: `${judged} judged`, state: 'done' };
    return waiting > 0
      ? { words: 'waits for the retest', state: 'waiting' }
      : { words: 'nothing foretold yet', state: 'waiting' };
  }

  async #due(behind: Behind | undefined, limit: number): Promise<FoundTask[]> {
    const sites = await this.records.ask<{
      siteId: string;
      siteName: string;
      zoneId: string;
      names: string[];
      on: string;
      why: string;
    }>(
      `SELECT s."id" AS "siteId", s."name" AS "siteName", o.* FROM site s CROSS JOIN LATERAL (
         SELECT (array_agg(w."zoneId" ORDER BY w."retestOn"))[1] AS "zoneId", array_agg(z."name" ORDER BY w."retestOn") AS "names",
           min(w."retestOn")::text AS "on", (array_agg(w."retestWords" ORDER BY w."retestOn"))[1] AS "why"
         FROM (${WAITING}) w JOIN zone z ON z."id" = w."zoneId"
         WHERE w."siteId" = s."id" AND w."retestOn" <= $5::timestamptz::date + 28 AND NOT ${RETESTED}
       ) o
       WHERE s."practiceId" = $1 AND s."deletedAt" IS NULL AND ${isBehind('s."name"', 's."id"')} AND o."names" IS NOT NULL
       ORDER BY s."name", s."id" LIMIT $4`,
      [...placeOf(behind), limit, this.clock.now()],
    );
    return sites.map(({ siteId, siteName, zoneId, names, on, why }) => ({
      ...{ id: siteId, siteId, siteName, zoneId },
      words: `Retest: ${names.join(', ')}`,
      why: `Due from ${on}. ${why}`,
    }));
  }
}
