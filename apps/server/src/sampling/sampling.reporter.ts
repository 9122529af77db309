import { writeBagCode } from '@glenfold/agronomy';
import type { BagState } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { Clock } from '../platform/clock.ts';
import { Records } from '../platform/records.ts';
import { isBehind, placeOf } from '../steps/paging.ts';
import { DUE } from './due.ts';
import type { Behind, Facts, FoundTask, State, StepReporter, TaskKind } from '../steps/stepReporter.ts';
import { StepReporters } from '../steps/stepReporters.ts';
import { plural } from '../steps/words.ts';

const DAY = 86_400_000;

type Counted = 'zones' | 'alive' | 'gone' | 'unread' | 'late';

interface LateBag {
  readonly id: string;
  readonly siteId: string;
  readonly siteName: string;
  readonly code: string;
  readonly state: BagState;
  readonly since: Date;
  readonly laboratory: string | null;
}

/** Where the bags are, across sites. */
@Injectable()
export class SamplingReporter implements StepReporter<Counted> {
  readonly step = 'sampling';
  readonly numbers = `
    SELECT s."id" AS "siteId",
      (SELECT count(*)::int FROM zone z WHERE z."siteId" = s."id" AND z."deletedAt" IS NULL) AS "zones",
      count(b."id")::int AS "alive",
      count(*) FILTER (WHERE b."state" NOT IN ('planned', 'cored', 'drying'))::int AS "gone",
      count(*) FILTER (WHERE b."state" = 'reported')::int AS "unread",
      count(*) FILTER (WHERE b."state" <> 'reported' AND ${DUE} <= $3)::int AS "late"
    FROM site s LEFT JOIN bag b ON b."siteId" = s."id" AND b."deletedAt" IS NULL AND b."state" NOT IN ('lost', 'spoiled')
    WHERE s."practiceId" = $1 AND s."id" = ANY($2) GROUP BY s."id"`;
  readonly tasks: readonly TaskKind[] = [
    { name: 'late', pressing: 11, may: 'field.write', page: (behind, limit) => this.#late(behind, limit) },
    { name: 'walk', pressing: 40, may: 'field.write', page: (behind, limit) => this.#toWalk(behind, limit) },
  ];

  constructor(
    private readonly records: Records,
    private readonly clock: Clock,
    reporters: StepReporters,
  ) {
    reporters.register(this);
  }

  state({ zones, alive, gone, unread, late }: Facts<Counted>): State {
    if (alive === 0) return { words: zones > 0 ? 'no bag planned' : 'no zones yet', state: 'waiting' };
    const words =
      late > 0
        ? `${plural(late, 'bag')} overdue`
        : unread > 0
          ? `${plural(unread, 'report')} unread`
          : `${gone} of ${plural(alive, 'bag')} sent`;
    return { words, state: late + unread > 0 || gone < alive ? 'act' : 'done' };
  }

  async #late(behind: Behind | undefined, limit: number): Promise<FoundTask[]> {
    const now = this.clock.now();
    const bags = await this.records.ask<LateBag>(
      // A report that nobody read stands among the files already.
      `SELECT b."id", b."siteId", s."name" AS "siteName", b."code", b."state", b."since", b."laboratory"
       FROM bag b JOIN site s ON s."id" = b."siteId" AND s."deletedAt" IS NULL
       WHERE b."practiceId" = $1 AND b."deletedAt" IS NULL AND ${isBehind('s."name"', 'b."id"')} AND ${DUE} <= $5
         AND NOT (b."state" = 'reported' AND EXISTS (SELECT FROM lab_report f WHERE f."practiceId" = $1
           AND f."siteId" = b."siteId" AND f."imported" = '{}' AND f."deletedAt" IS NULL))
       ORDER BY s."name", b."id" LIMIT $4`,
      [...placeOf(behind), limit, now],
    );
    return bags.map(({ id, siteId, siteName, code, state, since, laboratory }) => {
      const days = Math.max(0, Math.floor((now.getTime() - since.getTime()) / DAY));
      const stands = state === 'at the lab' ? `At ${laboratory ?? 'the laboratory'}` : capital(state);
      return {
        ...{ id, siteId, siteName, zoneId: null },
        words: `${state === 'planned' ? 'Walk' : 'Ask after'} bag ${writeBagCode(code)}`,
        why:
          state === 'planned'
            ? 'Its day is past, and nobody has cored it.'
            : `${stands} for ${plural(days, 'day')}, longer than usual.`,
      };
    });
  }

  async #toWalk(behind: Behind | undefined, limit: number): Promise<FoundTask[]> {
    const sites = await this.records.ask<{ siteId: string; siteName: string; bags: number; names: string[] }>(
      `SELECT s."id" AS "siteId", s."name" AS "siteName", o."bags", o."names" FROM site s CROSS JOIN LATERAL (
         SELECT count(*)::int AS "bags", array_agg((
           SELECT string_agg(z."name", ', ' ORDER BY n."at") FROM jsonb_array_elements_text(b."zoneIds")
             WITH ORDINALITY AS n("id", "at") JOIN zone z ON z."id" = n."id"::uuid
         ) ORDER BY b."since", b."code") AS "names"
         FROM bag b WHERE b."siteId" = s."id" AND b."deletedAt" IS NULL AND b."state" = 'planned'
           AND (b."plannedFor" IS NULL OR ${DUE} > $5)
       ) o
       WHERE s."practiceId" = $1 AND s."deletedAt" IS NULL AND ${isBehind('s."name"', 's."id"')} AND o."bags" > 0
       ORDER BY s."name", s."id" LIMIT $4`,
      [...placeOf(behind), limit, this.clock.now()],
    );
    return sites.map(({ siteId, siteName, bags, names }) => ({
      ...{ id: siteId, siteId, siteName, zoneId: null },
      words: `Walk ${plural(bags, 'bag')}: ${names.join('; ')}`,
      why: 'Planned, with every core in its place; the soil waits.',
    }));
  }
}

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
