import type { BagState, FoundAnswer, FoundZone, SiteNameAnswer } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { anywhere } from '../platform/paging.ts';
import { Records } from '../platform/records.ts';

/** As many of a kind as a list shows. */
const MOST = 20;

interface FoundRow {
  readonly sites: SiteNameAnswer[] | null;
  readonly zones: FoundZone[] | null;
  readonly bags: Array<{ code: string; siteName: string; zoneNames: string[] | null; state: BagState }> | null;
}

/** Finds by a few letters, whatever the number of sites. */
@Injectable()
export class FindService {
  constructor(private readonly records: Records) {}

  /** What begins with the letters comes before what holds them elsewhere. Without letters, the first by name. */
  async find(text: string): Promise<FoundAnswer> {
    const letters = anywhere(text);
    const code = anywhere(text.replaceAll(/[\s-]/g, ''));
    const first = (name: string): string => `(${name} ILIKE substr($2, 2)) DESC, ${name}`;
    const [found] = await this.records.ask<FoundRow>(
      `SELECT
        (SELECT jsonb_agg(x) FROM (
          SELECT "id", "name", "place" FROM site WHERE "practiceId" = $1 AND "deletedAt" IS NULL AND "name" ILIKE $2
          ORDER BY ${first('"name"')} LIMIT ${MOST}) x) AS "sites",
        (SELECT jsonb_agg(x) FROM (
          SELECT z."id", z."name", z."label", z."siteId", s."name" AS "siteName"
          FROM zone z JOIN site s ON s."id" = z."siteId" AND s."deletedAt" IS NULL
          WHERE z."practiceId" = $1 AND z."deletedAt" IS NULL AND (z."name" || ' (' || z."label" || '), ' || s."name") ILIKE $2
          ORDER BY ${first('z."name"')} LIMIT ${MOST}) x) AS "zones",
        (SELECT jsonb_agg(x) FROM (
          SELECT b."code", s."name" AS "siteName", b."state", (
            SELECT jsonb_agg(z."name" ORDER BY n."at") FROM jsonb_array_elements_text(b."zoneIds")
              WITH ORDINALITY AS n("id", "at") JOIN zone z ON z."id" = n."id"::uuid) AS "zoneNames"
          FROM bag b JOIN site s ON s."id" = b."siteId" AND s."deletedAt" IS NULL
          WHERE b."practiceId" = $1 AND b."deletedAt" IS NULL AND (b."code" ILIKE $3 OR b."labNumber" ILIKE $2 OR s."name" ILIKE $2)
          ORDER BY b."since" DESC LIMIT ${MOST}) x) AS "bags"`,
      [letters, code],
    );
    const { sites, zones, bags } = found!;
    return {
      sites: sites ?? [],
      zones: zones ?? [],
      bags: (bags ?? []).map((bag) => ({ ...bag, zoneNames: bag.zoneNames ?? [] })),
    };
  }
}
