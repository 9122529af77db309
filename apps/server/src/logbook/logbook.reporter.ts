import { Injectable } from '@nestjs/common';
import { Records } from '../platform/records.ts';
import { isBehind, placeOf } from '../steps/paging.ts';
import type { Behind, Facts, FoundTask, State, StepReporter, TaskKind } from '../steps/stepReporter.ts';
import { StepReporters } from '../steps/stepReporters.ts';
import { plural } from '../steps/words.ts';

/** What the books of sites hold of this year. */
@Injectable()
export class LogbookReporter implements StepReporter<'entries' | 'year'> {
  readonly step = 'logbook';
  readonly numbers = `
    SELECT s."id" AS "siteId", count(e."id")::int AS "entries",
      count(e."id") FILTER (WHERE left(e."on", 4) = to_char($3::timestamptz, 'YYYY'))::int AS "year"
    FROM site s LEFT JOIN entry e ON e."siteId" = s."id" AND e."state" IN ('done', 'partly done')
      AND NOT EXISTS (SELECT FROM entry c WHERE c."correctsId" = e."id")
    WHERE s."practiceId" = $1 AND s."id" = ANY($2) GROUP BY s."id"`;
  readonly tasks: readonly TaskKind[] = [
    { name: 'answer', pressing: 8, may: 'work.write', page: (behind, limit) => this.#toAnswer(behind, limit) },
  ];

  constructor(
    private readonly records: Records,
    reporters: StepReporters,
  ) {
    reporters.register(this);
  }

  /** Sites of which a client or the field has written, and nobody has answered or read it. */
  async #toAnswer(behind: Behind | undefined, limit: number): Promise<FoundTask[]> {
    const sites = await this.records.ask<{
      siteId: string;
      siteName: string;
      author: string;
      words: string;
      side: string;
    }>(
      `SELECT s."id" AS "siteId", s."name" AS "siteName", o."author", o."words", o."side" FROM site s CROSS JOIN LATERAL (
         SELECT m."author", left(m."words", 120) AS "words", m."side" FROM message m
         WHERE m."siteId" = s."id" AND m."doneAt" IS NULL AND m."deletedAt" IS NULL ORDER BY m."at" LIMIT 1
       ) o
       WHERE s."practiceId" = $1 AND s."deletedAt" IS NULL AND ${isBehind('s."name"', 's."id"')}
       ORDER BY s."name", s."id" LIMIT $4`,
      [...placeOf(behind), limit],
    );
    return sites.map(({ siteId, siteName, author, words, side }) => ({
      ...{ id: siteId, siteId, siteName, zoneId: null },
      words: side === 'client' ? `Answer ${author}` : `Read what ${author} wrote`,
      why: `“${words}”`,
    }));
  }

  state({ entries, year }: Facts<'entries' | 'year'>): State {
    if (entries === 0) return { words: 'nothing written yet', state: 'waiting' };
    return {
      words: year > 0 ? `${plural(year, 'entry').replace('entrys', 'entries')} this year` : 'none this year',
      state: 'done',
    };
  }
}
