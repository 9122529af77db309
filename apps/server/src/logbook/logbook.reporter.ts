import { Injectable } from '@nestjs/common';
import type { Facts, State, StepReporter, TaskKind } from '../steps/stepReporter.ts';
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
  readonly tasks: readonly TaskKind[] = [];

  constructor(reporters: StepReporters) {
    reporters.register(this);
  }

  state({ entries, year }: Facts<'entries' | 'year'>): State {
    if (entries === 0) return { words: 'nothing written yet', state: 'waiting' };
    return {
      words: year > 0 ? `${plural(year, 'entry').replace('entrys', 'entries')} this year` : 'none this year',
      state: 'done',
    };
  }
}
