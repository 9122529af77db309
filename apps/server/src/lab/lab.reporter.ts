import { Injectable } from '@nestjs/common';
import { Records } from '../platform/records.ts';
import { isBehind, placeOf } from '../steps/paging.ts';
import type { Behind, Facts, FoundTask, State, StepReporter, TaskKind } from '../steps/stepReporter.ts';
import { StepReporters } from '../steps/stepReporters.ts';
import { plural, share } from '../steps/words.ts';

/** Tests of the zones of the sites that are asked for. */
export const SITE_TESTS = { tests: 'SELECT * FROM zone_tests($1) WHERE "siteId" = ANY($2)' };

/** What is reported and what is not, across sites. */
@Injectable()
export class LabReporter implements StepReporter<'zones' | 'tested' | 'files'> {
  readonly step = 'lab';
  readonly shared = SITE_TESTS;
  readonly numbers = `
    SELECT s."id" AS "siteId", count(t."zoneId")::int AS "zones", count(t."resultId")::int AS "tested",
      (SELECT count(*)::int FROM lab_report f WHERE f."practiceId" = $1 AND f."siteId" = s."id"
         AND f."imported" = '{}' AND f."deletedAt" IS NULL) AS "files"
    FROM site s LEFT JOIN tests t ON t."siteId" = s."id"
    WHERE s."practiceId" = $1 AND s."id" = ANY($2) GROUP BY s."id"`;
  readonly tasks: readonly TaskKind[] = [
    { name: 'check', pressing: 10, may: 'work.write', page: (behind, limit) => this.#unread(behind, limit) },
    { name: 'enter', pressing: 30, may: 'work.write', page: (behind, limit) => this.#untested(behind, limit) },
  ];

  constructor(
    private readonly records: Records,
    reporters: StepReporters,
  ) {
    reporters.register(this);
  }

  state({ zones, tested, files }: Facts<'zones' | 'tested' | 'files'>): State {
    return files > 0 ? { words: `${plural(files, 'file')} to check`, state: 'act' } : share(tested, zones, 'tested');
  }

  async #unread(behind: Behind | undefined, limit: number): Promise<FoundTask[]> {
    const files = await this.records.ask<{ id: string; siteId: string; siteName: string; fileName: string }>(
      `SELECT f."id", f."siteId", s."name" AS "siteName", f."fileName"
       FROM lab_report f JOIN site s ON s."id" = f."siteId" AND s."deletedAt" IS NULL
       WHERE f."practiceId" = $1 AND f."imported" = '{}' AND f."deletedAt" IS NULL AND ${isBehind('s."name"', 'f."id"')}
       ORDER BY s."name", f."id" LIMIT $4`,
      [...placeOf(behind), limit],
    );
    return files.map(({ fileName, ...file }) => ({
      ...file,
      zoneId: null,
      words: `Check ${fileName} and import it`,
      why: 'A laboratory’s file is loaded, but none of its results is in use yet.',
    }));
  }

  async #untested(behind: Behind | undefined, limit: number): Promise<FoundTask[]> {
    const sites = await this.records.ask<{ siteId: string; siteName: string; names: string[]; zoneIds: string[] }>(
      `SELECT s."id" AS "siteId", s."name" AS "siteName", o."names", o."zoneIds" FROM site s CROSS JOIN LATERAL (
         SELECT array_agg(t."name" ORDER BY t."position") AS "names", array_agg(t."zoneId" ORDER BY t."position") AS "zoneIds"
         FROM zone_tests($1) t WHERE t."siteId" = s."id" AND t."resultId" IS NULL
       ) o
       WHERE s."practiceId" = $1 AND s."deletedAt" IS NULL AND ${isBehind('s."name"', 's."id"')}
         AND o."names" IS NOT NULL
       ORDER BY s."name", s."id" LIMIT $4`,
      [...placeOf(behind), limit],
    );
    return sites.map(({ siteId, siteName, names, zoneIds }) => ({
      ...{ id: siteId, siteId, siteName, zoneId: zoneIds[0]! },
      words: `Enter ${names.length === 1 ? 'a result' : `${names.length} results`}: ${names.join(', ')}`,
      why: 'No test: no lime, phosphorus or potassium without one.',
    }));
  }
}
