import { Injectable } from '@nestjs/common';
import { Clock } from '../platform/clock.ts';
import { Records } from '../platform/records.ts';
import { isBehind, placeOf } from '../steps/paging.ts';
import type { Behind, Facts, FoundTask, State, StepReporter, TaskKind } from '../steps/stepReporter.ts';
import { StepReporters } from '../steps/stepReporters.ts';
import { plural } from '../steps/words.ts';

type Known = 'open' | 'late' | 'held' | 'soon' | 'undated' | 'done';

/** The day at a site at a moment. */
const DAY_THERE = (at: string): string =>
  `(${at} AT TIME ZONE coalesce(s."timeZone", (SELECT p."timeZone" FROM practice p WHERE p."id" = s."practiceId"), 'UTC'))::date`;
const LAST_DAY = `coalesce(j."day", j."latest", j."to")`;

/** Which jobs are to be done, across sites. */
@Injectable()
export class SeasonReporter implements StepReporter<Known> {
  readonly step = 'season';
  readonly numbers = `
    SELECT s."id" AS "siteId",
      count(*) FILTER (WHERE j."state" IN ('open', 'partly done'))::int AS "open",
      count(*) FILTER (WHERE j."state" IN ('open', 'partly done') AND j."hold" IS NULL AND ${LAST_DAY} < ${DAY_THERE('$3')})::int AS "late",
      count(*) FILTER (WHERE j."state" IN ('open', 'partly done') AND j."hold" IS NOT NULL)::int AS "held",
      count(*) FILTER (WHERE j."state" IN ('open', 'partly done') AND j."hold" IS NULL
        AND j."day" BETWEEN ${DAY_THERE('$3')} AND ${DAY_THERE('$3')} + 6)::int AS "soon",
      count(*) FILTER (WHERE j."state" = 'open' AND j."hold" IS NULL AND j."day" IS NULL)::int AS "undated",
      count(*) FILTER (WHERE j."state" IN ('done', 'not done'))::int AS "done"
    FROM site s LEFT JOIN job j ON j."siteId" = s."id" AND j."deletedAt" IS NULL
      AND EXISTS (SELECT FROM zone z WHERE z."id" = j."zoneId" AND z."deletedAt" IS NULL)
    WHERE s."practiceId" = $1 AND s."id" = ANY($2) GROUP BY s."id"`;
  readonly tasks: readonly TaskKind[] = [
    { name: 'late job', pressing: 12, may: 'field.write', page: (behind, limit) => this.#due(true, behind, limit) },
    { name: 'job', pressing: 13, may: 'field.write', page: (behind, limit) => this.#due(false, behind, limit) },
  ];

  constructor(
    private readonly records: Records,
    private readonly clock: Clock,
    reporters: StepReporters,
  ) {
    reporters.register(this);
  }

  state({ open, late, held, soon, undated, done }: Facts<Known>): State {
    if (open === 0)
      return done > 0 ? { words: 'all worked off', state: 'done' } : { words: 'no jobs yet', state: 'waiting' };
    const words = [
      late > 0 ? `${late} late` : '',
      soon > 0 ? `${soon} this week` : '',
      held > 0 ? `${held} on hold` : '',
      undated > 0 && late + soon + held === 0 ? `${undated} without a day` : '',
    ].filter(Boolean);
    return {
      words: words.join(', ') || `${plural(open, 'job')} to come`,
      state: late + soon + undated > 0 ? 'act' : 'waiting',
    };
  }

  /** Jobs whose days are over, or that stand in the next seven days, a line for each site and kind of work. */
  async #due(late: boolean, behind: Behind | undefined, limit: number): Promise<FoundTask[]> {
    const sites = await this.records.ask<{
      siteId: string;
      siteName: string;
      zoneId: string;
      jobs: string[];
      day: string;
    }>(
      `SELECT s."id" AS "siteId", s."name" AS "siteName", o."zoneId", o."jobs", o."day" FROM site s CROSS JOIN LATERAL (
         SELECT array_agg(j."name" || ', ' || z."name" ORDER BY ${LAST_DAY}, z."position") AS "jobs",
           min(${LAST_DAY})::text AS "day", (array_agg(j."zoneId" ORDER BY ${LAST_DAY}, z."position"))[1] AS "zoneId"
         FROM job j JOIN zone z ON z."id" = j."zoneId" AND z."deletedAt" IS NULL
         WHERE j."siteId" = s."id" AND j."deletedAt" IS NULL AND j."hold" IS NULL AND j."state" IN ('open', 'partly done')
           AND ${late ? `${LAST_DAY} < ${DAY_THERE('$5::timestamptz')}` : `j."day" BETWEEN ${DAY_THERE('$5::timestamptz')} AND ${DAY_THERE('$5::timestamptz')} + 6`}
       ) o
       WHERE s."practiceId" = $1 AND s."deletedAt" IS NULL AND ${isBehind('s."name"', 's."id"')} AND o."jobs" IS NOT NULL
       ORDER BY s."name", s."id" LIMIT $4`,
      [...placeOf(behind), limit, this.clock.now()],
    );
    return sites.map(({ siteId, siteName, zoneId, jobs, day }) => ({
      ...{ id: siteId, siteId, siteName, zoneId },
      words: `${late ? 'Late' : 'This week'}: ${jobs.slice(0, 3).join('; ')}${jobs.length > 3 ? ` and ${jobs.length - 3} more` : ''}`,
      why: late
        ? `Due by ${day} and nobody has said what became of it: do it, hold it, or say why not.`
        : `The first on ${day}: look at the day, then load.`,
    }));
  }
}
