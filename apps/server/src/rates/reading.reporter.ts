import { Injectable } from '@nestjs/common';
import { SITE_TESTS } from '../lab/lab.reporter.ts';
import type { Facts, State, StepReporter, TaskKind } from '../steps/stepReporter.ts';
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
  readonly tasks: readonly TaskKind[] = [];

  constructor(reporters: StepReporters) {
    reporters.register(this);
  }

  state({ zones, tested }: Facts<'zones' | 'tested'>): State {
    return tested === 0
      ? { words: 'no test yet', state: 'waiting' }
      : { words: `${tested} of ${zones} readable`, state: 'done' };
  }
}
