import type { Records } from '../platform/records.ts';

/**
 * What stands decided by hand of a zone, by treatment: a sum of each, so that two can be told apart. Who, when and why
 * change nothing of what is done.
 *
 * @param zone SQL that names a zone; `$1` is the practice
 */
export const DECIDED_OF = (zone: string): string => `
  coalesce((SELECT jsonb_object_agg(t."key",
      md5((t."override" - '{rateAt,outOn,by,reason}'::text[])::text || coalesce(t."productId"::text, '')))
    FROM treatment t JOIN program d ON d."id" = t."programId" AND d."state" = 'draft' AND d."deletedAt" IS NULL
    WHERE t."practiceId" = $1 AND t."zoneId" = ${zone} AND t."deletedAt" IS NULL), '{}'::jsonb)`;

/**
 * Zones of which something was decided after their last paper: `zoneId`, what it was and what it is by treatment.
 *
 * @param zones SQL that tells which of `program_zone`
 */
export const CHANGED_SINCE = (zones: string): string => `
  SELECT l."zoneId", l."was", l."is" FROM (
    SELECT p."zoneId", p."decided" AS "was", ${DECIDED_OF('p."zoneId"')} AS "is" FROM (
      SELECT DISTINCT ON ("zoneId") "zoneId", "decided" FROM program_zone
      WHERE "practiceId" = $1 AND "deletedAt" IS NULL AND ${zones} ORDER BY "zoneId", "issuedAt" DESC
    ) p
  ) l WHERE l."was" IS NOT NULL AND l."was" <> l."is"`;

type Sums = Readonly<Record<string, string>>;

/** What stands decided of some zones now, to be kept with their papers. */
export async function decidedNow(records: Records, zoneIds: readonly string[]): Promise<ReadonlyMap<string, Sums>> {
  const rows = await records.ask<{ id: string; decided: Sums }>(
    `SELECT z."id", ${DECIDED_OF('z."id"')} AS "decided" FROM zone z WHERE z."practiceId" = $1 AND z."id" = ANY($2)`,
    [[...zoneIds]],
  );
  return new Map(rows.map(({ id, decided }) => [id, decided]));
}

/** Treatments of some zones of which something was decided after their last paper, as `zone treatment`. */
export async function changedSince(records: Records, zoneIds: readonly string[]): Promise<ReadonlySet<string>> {
  const rows = await records.ask<{ zoneId: string; was: Sums; is: Sums }>(CHANGED_SINCE('"zoneId" = ANY($2)'), [
    [...new Set(zoneIds)],
  ]);
  return new Set(
    rows.flatMap(({ zoneId, was, is }) =>
      [...new Set([...Object.keys(was), ...Object.keys(is)])]
        .filter((key) => was[key] !== is[key])
        .map((key) => `${zoneId} ${key}`),
    ),
  );
}
