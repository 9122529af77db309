import type { MigrationInterface, QueryRunner } from 'typeorm';

const newestFirst = `
  ORDER BY coalesce(s."sampledOn", (r."createdAt" AT TIME ZONE 'UTC')::date) DESC, r."createdAt" DESC LIMIT 1`;
const current = `
  r."deletedAt" IS NULL AND s."deletedAt" IS NULL AND s."of" = 'soil'
  AND NOT EXISTS (SELECT FROM lab_result n WHERE n."supersedesId" = r."id" AND n."deletedAt" IS NULL)`;

/** What the state of many sites is asked by: the test of each zone as a table, who asks in one statement, indexes. */
export class Scale1795830000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE INDEX "site_by_name" ON "site" ("practiceId", "name", "id") WHERE "deletedAt" IS NULL;
      CREATE INDEX "zone_of_site" ON "zone" ("siteId", "position");
      CREATE INDEX "zone_joined" ON "zone" ("joinedInto") WHERE "joinedInto" IS NOT NULL;
      CREATE INDEX "zone_part" ON "zone" ("partOf") WHERE "partOf" IS NOT NULL;
      CREATE INDEX "lab_result_supersedes" ON "lab_result" ("supersedesId") WHERE "supersedesId" IS NOT NULL;
      CREATE INDEX "lab_report_open" ON "lab_report" ("practiceId", "siteId")
        WHERE "imported" = '{}' AND "deletedAt" IS NULL;
      CREATE INDEX "plan_result" ON "plan" ("labResultId");
      CREATE INDEX "core_zone" ON "core" ("zoneId");
      CREATE INDEX "bag_state" ON "bag" ("practiceId", "state", "since") WHERE "deletedAt" IS NULL;
      CREATE INDEX "membership_person" ON "membership" ("personId");

      -- Of a zone that was never sampled itself: the newest test of the ground it came from, taken before it was parted.
      CREATE FUNCTION inherited_test(zone uuid) RETURNS uuid LANGUAGE sql STABLE AS $$
        WITH RECURSIVE ground("id", "before") AS (
          SELECT inherited_test.zone, 'infinity'::timestamptz
          UNION
          SELECT up."id", least(g."before", up."until") FROM ground g CROSS JOIN LATERAL (
            SELECT c."partOf" AS "id", c."createdAt" AS "until" FROM zone c WHERE c."id" = g."id" AND c."partOf" IS NOT NULL
            UNION ALL
            SELECT j."id", 'infinity' FROM zone j WHERE j."joinedInto" = g."id" AND j."deletedAt" IS NOT NULL
          ) up
        )
        SELECT r."id" FROM ground g JOIN sample_zone sz ON sz."zoneId" = g."id" AND sz."deletedAt" IS NULL
          JOIN sample s ON s."id" = sz."sampleId" JOIN lab_result r ON r."sampleId" = s."id"
        WHERE coalesce(s."sampledOn"::timestamp AT TIME ZONE 'UTC', r."createdAt") < g."before" AND ${current} ${newestFirst}
      $$;

      -- The soil test that the rates of each zone rest on: its own newest, else that of the ground it came from.
      -- Beside the rule in words of the program (testOf), which a test holds it against.
      CREATE FUNCTION zone_tests(practice uuid)
        RETURNS TABLE ("siteId" uuid, "zoneId" uuid, "name" text, "position" integer, "resultId" uuid)
        LANGUAGE sql STABLE AS $$
        SELECT z."siteId", z."id", z."name", z."position", coalesce(own."id", CASE
          WHEN z."partOf" IS NOT NULL OR EXISTS (SELECT FROM zone j WHERE j."joinedInto" = z."id") THEN inherited_test(z."id")
        END)
        FROM zone z LEFT JOIN LATERAL (
          SELECT r."id" FROM sample_zone sz JOIN sample s ON s."id" = sz."sampleId" JOIN lab_result r ON r."sampleId" = s."id"
          WHERE sz."zoneId" = z."id" AND sz."deletedAt" IS NULL AND ${current} ${newestFirst}
        ) own ON true
        WHERE z."practiceId" = practice AND z."deletedAt" IS NULL
      $$;
      GRANT EXECUTE ON FUNCTION inherited_test(uuid), zone_tests(uuid) TO glenfold_app;

      -- Who holds a cookie, before any practice is known: the door's own question, in one statement.
      CREATE FUNCTION who_asks(token text) RETURNS TABLE (
        "sessionId" uuid, "seenAt" timestamptz, "createdAt" timestamptz, "person" jsonb, "practice" jsonb,
        "role" text, "siteIds" jsonb)
        LANGUAGE sql STABLE SECURITY DEFINER SET search_path = public AS $$
        SELECT s."id", s."seenAt", s."createdAt",
          jsonb_build_object('id', p."id", 'name', p."name", 'email', p."email", 'units', p."units"),
          CASE WHEN q."id" IS NOT NULL THEN jsonb_build_object('id', q."id", 'name', q."name", 'demo', q."demo",
            'timeZone', q."timeZone", 'currency', q."currency", 'version', q."version") END,
          m."role", to_jsonb(m."siteIds")
        FROM session s JOIN person p ON p."id" = s."personId"
        LEFT JOIN practice q ON q."id" = s."practiceId"
        LEFT JOIN membership m ON m."practiceId" = q."id" AND m."personId" = p."id" AND m."deletedAt" IS NULL
        WHERE s."tokenHash" = token
      $$;
      REVOKE ALL ON FUNCTION who_asks(text) FROM PUBLIC;
      GRANT EXECUTE ON FUNCTION who_asks(text) TO glenfold_app, glenfold_door;
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      DROP FUNCTION who_asks(text);
      DROP FUNCTION zone_tests(uuid);
      DROP FUNCTION inherited_test(uuid);
      ${['site_by_name', 'zone_of_site', 'zone_joined', 'zone_part', 'lab_result_supersedes', 'lab_report_open', 'plan_result', 'core_zone', 'bag_state', 'membership_person'].map((name) => `DROP INDEX "${name}";`).join('\n')}
    `);
  }
}
