import { Injectable } from '@nestjs/common';
import { Records } from '../platform/records.ts';
import { isBehind, placeOf } from '../steps/paging.ts';
import type { Behind, Facts, FoundTask, State, StepReporter, TaskKind } from '../steps/stepReporter.ts';
import { StepReporters } from '../steps/stepReporters.ts';
import { plural } from '../steps/words.ts';

/** What the ground has to tell across sites. */
@Injectable()
export class GroundReporter implements StepReporter<'zones'> {
  readonly step = 'ground';
  readonly numbers = `
    SELECT s."id" AS "siteId", count(z."id")::int AS "zones"
    FROM site s LEFT JOIN zone z ON z."siteId" = s."id" AND z."deletedAt" IS NULL
    WHERE s."practiceId" = $1 AND s."id" = ANY($2) GROUP BY s."id"`;
  readonly tasks: readonly TaskKind[] = [
    { name: 'divide', pressing: 41, may: 'work.write', page: (behind, limit) => this.#undivided(behind, limit) },
    { name: 'measure', pressing: 50, may: 'field.write', page: (behind, limit) => this.#unmeasured(behind, limit) },
  ];

  constructor(
    private readonly records: Records,
    reporters: StepReporters,
  ) {
    reporters.register(this);
  }

  state({ zones }: Facts<'zones'>): State {
    return { words: plural(zones, 'zone'), state: zones > 0 ? 'done' : 'act' };
  }

  async #undivided(behind: Behind | undefined, limit: number): Promise<FoundTask[]> {
    const sites = await this.records.ask<{ siteId: string; siteName: string }>(
      `SELECT s."id" AS "siteId", s."name" AS "siteName" FROM site s
       WHERE s."practiceId" = $1 AND s."deletedAt" IS NULL AND ${isBehind('s."name"', 's."id"')}
         AND NOT EXISTS (SELECT FROM zone z WHERE z."siteId" = s."id" AND z."deletedAt" IS NULL)
       ORDER BY s."name", s."id" LIMIT $4`,
      [...placeOf(behind), limit],
    );
    return sites.map(({ siteId, siteName }) => ({
      ...{ id: siteId, siteId, siteName, zoneId: null },
      words: 'Divide the ground into zones',
      why: 'Nothing can be sampled or treated before its area is known.',
    }));
  }

  async #unmeasured(behind: Behind | undefined, limit: number): Promise<FoundTask[]> {
    const known = (test: string): string =>
      `EXISTS (SELECT FROM measurement m WHERE m."zoneId" = z."id" AND m."analyte" = '${test}' AND m."deletedAt" IS NULL)`;
    const sites = await this.records.ask<{ siteId: string; siteName: string; names: string[]; zoneIds: string[] }>(
      `SELECT s."id" AS "siteId", s."name" AS "siteName", o."names", o."zoneIds" FROM site s CROSS JOIN LATERAL (
         SELECT array_agg(z."name" ORDER BY z."position") AS "names", array_agg(z."id" ORDER BY z."position") AS "zoneIds"
         FROM zone z WHERE z."siteId" = s."id" AND z."deletedAt" IS NULL AND z."surface" <> 'garden bed'
           AND NOT (${known('thatch')} AND ${known('rootDepth')})
       ) o
       WHERE s."practiceId" = $1 AND s."deletedAt" IS NULL AND ${isBehind('s."name"', 's."id"')}
         AND o."names" IS NOT NULL
       ORDER BY s."name", s."id" LIMIT $4`,
      [...placeOf(behind), limit],
    );
    return sites.map(({ siteId, siteName, names, zoneIds }) => ({
      ...{ id: siteId, siteId, siteName, zoneId: zoneIds[0]! },
      words: `Measure thatch and roots: ${names.join(', ')}`,
      why: 'Nobody has written down yet how thick the thatch is and how deep the roots go.',
    }));
  }
}
