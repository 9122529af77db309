import type { MigrationInterface, QueryRunner } from 'typeorm';
import { protect } from './protect.ts';

/** Values of a result of the former kind, with a column for each of four and a JSON column, by analyte as they were printed. */
const VALUES_OF = `
  CREATE FUNCTION pg_temp.values_of(result jsonb) RETURNS jsonb LANGUAGE sql IMMUTABLE AS $$
    SELECT jsonb_strip_nulls(jsonb_build_object(
      'soilPh', CASE WHEN result ->> 'soilPh' IS NOT NULL
        THEN jsonb_build_object('value', result -> 'soilPh', 'unit', 'pH', 'basis', 'element') END,
      'bufferPh', CASE WHEN result ->> 'bufferPh' IS NOT NULL
        THEN jsonb_build_object('value', result -> 'bufferPh', 'unit', 'pH', 'basis', 'element', 'method', result -> 'bufferMethod') END,
      'organicMatter', CASE WHEN result ->> 'organicMatter' IS NOT NULL
        THEN jsonb_build_object('value', result -> 'organicMatter', 'unit', '%', 'basis', 'element') END
    ) || coalesce(result -> 'nutrients', '{}')) $$;`;

const owned = `
  "id" uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  "practiceId" uuid NOT NULL REFERENCES "practice" ("id"),
  "createdAt" timestamptz NOT NULL DEFAULT now(),
  "deletedAt" timestamptz,
  "version" integer NOT NULL DEFAULT 1`;

/** A record's change as it is written down; `skip` says which changes of parts belong to the record that they are parts of. */
const auditChange = (names: string, skip: string): string => `
  CREATE OR REPLACE FUNCTION audit_change() RETURNS trigger LANGUAGE plpgsql SECURITY DEFINER SET search_path = public AS $$
  DECLARE
    left_out text[] := ARRAY['id', 'practiceId', 'createdAt', 'deletedAt', 'version', 'tokenHash', 'image'];
    now_is jsonb := to_jsonb(NEW) - left_out;
    was jsonb := CASE WHEN TG_OP = 'UPDATE' THEN to_jsonb(OLD) - left_out END;
    whole jsonb := to_jsonb(NEW);
    deed text := 'add';
    changed text[];
  BEGIN
    -- An export brings its own audit along.
    IF current_setting('glenfold.loading', true) = 'on' THEN RETURN NULL; END IF;
    ${skip}
    IF TG_OP = 'UPDATE' THEN
      SELECT coalesce(array_agg(key), '{}') INTO changed FROM jsonb_object_keys(now_is) AS key
        WHERE now_is -> key IS DISTINCT FROM was -> key;
      deed := CASE
        WHEN to_jsonb(OLD) ->> 'deletedAt' IS NULL AND whole ->> 'deletedAt' IS NOT NULL THEN 'delete'
        WHEN to_jsonb(OLD) ->> 'deletedAt' IS NOT NULL AND whole ->> 'deletedAt' IS NULL THEN 'restore'
        ELSE 'change' END;
      IF deed = 'change' AND cardinality(changed) = 0 THEN RETURN NULL; END IF;
      IF deed = 'change' THEN
        SELECT jsonb_object_agg(key, was -> key), jsonb_object_agg(key, now_is -> key) INTO was, now_is FROM unnest(changed) AS key;
      END IF;
    END IF;
    INSERT INTO audit ("practiceId", "personId", "personName", "action", "kind", "recordId", "recordName", "before", "after")
    VALUES (
      coalesce(whole ->> 'practiceId', whole ->> 'id')::uuid,
      nullif(current_setting('glenfold.person', true), '')::uuid,
      coalesce(nullif(current_setting('glenfold.personName', true), ''), 'Glenfold'),
      deed, TG_TABLE_NAME, (whole ->> 'id')::uuid,
      coalesce(whole ->> 'name', whole ->> 'label', whole ->> 'email', whole ->> 'purpose', whole ->> 'fileName',
        (SELECT name FROM person WHERE id = (whole ->> 'personId')::uuid),
        (SELECT name FROM zone WHERE id = (whole ->> 'zoneId')::uuid), ${names} ''),
      CASE WHEN deed IN ('delete', 'change') THEN was END,
      CASE WHEN deed <> 'delete' THEN now_is END
    );
    RETURN NULL;
  END $$;`;

/** Names of the zones that the sample of a record speaks for. */
const ZONES_OF_SAMPLE = `
  (SELECT string_agg(zone.name, ', ' ORDER BY zone.position) FROM sample_zone AS own JOIN zone ON zone.id = own."zoneId"
    WHERE own."sampleId" = (whole ->> 'sampleId')::uuid AND own."deletedAt" IS NULL),`;

const PARTS = `
    -- Values of a result are written down with the result, the zones of a new sample with the sample.
    IF TG_TABLE_NAME = 'measurement' AND whole ->> 'resultId' IS NOT NULL THEN RETURN NULL; END IF;
    IF TG_TABLE_NAME = 'sample_zone' AND TG_OP = 'INSERT'
      AND EXISTS (SELECT 1 FROM sample WHERE id = (whole ->> 'sampleId')::uuid AND "createdAt" = now()) THEN RETURN NULL; END IF;
    -- What is measured on a zone is a change of the zone, "Roots to 5 in": from what was known before.
    IF TG_TABLE_NAME = 'measurement' THEN
      PERFORM tell_field_test(NEW, CASE WHEN TG_OP = 'UPDATE' THEN OLD END);
      RETURN NULL;
    END IF;`;

const AUDIT_FIELD_TESTS = `
  CREATE FUNCTION tell_field_test(now_is measurement, was measurement) RETURNS void
  LANGUAGE plpgsql SECURITY DEFINER SET search_path = public AS $$
  DECLARE
    value_now double precision := CASE WHEN now_is."deletedAt" IS NULL THEN now_is.value END;
    value_before double precision := CASE
      WHEN was.id IS NOT NULL THEN CASE WHEN was."deletedAt" IS NULL THEN was.value END
      ELSE (SELECT other.value FROM measurement AS other
        WHERE other."zoneId" = now_is."zoneId" AND other.analyte = now_is.analyte AND other.id <> now_is.id
          AND other."resultId" IS NULL AND other."deletedAt" IS NULL
        ORDER BY other."takenOn" DESC NULLS LAST, other."createdAt" DESC LIMIT 1) END;
  BEGIN
    IF value_now IS NOT DISTINCT FROM value_before THEN RETURN; END IF;
    UPDATE audit SET after = after || jsonb_build_object(now_is.analyte, value_now)
      WHERE "recordId" = now_is."zoneId" AND action = 'add'
        AND (SELECT "createdAt" FROM zone WHERE id = now_is."zoneId") = now();
    IF FOUND THEN RETURN; END IF;
    INSERT INTO audit ("practiceId", "personId", "personName", "action", "kind", "recordId", "recordName", "before", "after")
    VALUES (now_is."practiceId", nullif(current_setting('glenfold.person', true), '')::uuid,
      coalesce(nullif(current_setting('glenfold.personName', true), ''), 'Glenfold'), 'change', 'zone', now_is."zoneId",
      (SELECT name FROM zone WHERE id = now_is."zoneId"),
      jsonb_build_object(now_is.analyte, value_before), jsonb_build_object(now_is.analyte, value_now));
  END $$;
  REVOKE EXECUTE ON FUNCTION tell_field_test(measurement, measurement) FROM PUBLIC;`;

/** Of the values of a result: what a statement changed is one entry of the result, as "P 21 ppm, K 120 ppm". */
const AUDIT_VALUES = `
  CREATE FUNCTION told_value(one measurement) RETURNS jsonb LANGUAGE sql IMMUTABLE AS $$
    SELECT jsonb_strip_nulls(jsonb_build_object('value', one.value, 'unit', one.unit, 'basis', one.basis,
      'method', one.method, 'belowDetection', CASE WHEN one.qualifier = 'below' THEN true END)) $$;

  CREATE FUNCTION audit_values() RETURNS trigger LANGUAGE plpgsql SECURITY DEFINER SET search_path = public AS $$
  DECLARE
    entry record;
  BEGIN
    IF current_setting('glenfold.loading', true) = 'on' THEN RETURN NULL; END IF;
    FOR entry IN
      SELECT now_is."resultId" AS id, now_is."practiceId" AS practice,
        jsonb_object_agg(now_is.analyte, told_value(now_is)) FILTER (WHERE now_is."deletedAt" IS NULL) AS values
      FROM fresh AS now_is WHERE now_is."resultId" IS NOT NULL GROUP BY 1, 2
    LOOP
      UPDATE audit SET after = after || jsonb_build_object('values', coalesce(after -> 'values', '{}') || entry.values)
        WHERE "recordId" = entry.id AND action = 'add'
          AND (SELECT "createdAt" FROM lab_result WHERE id = entry.id) = now();
      IF NOT FOUND THEN
        PERFORM tell_values(entry.practice, entry.id, '{}', entry.values);
      END IF;
    END LOOP;
    RETURN NULL;
  END $$;

  CREATE FUNCTION audit_changed_values() RETURNS trigger LANGUAGE plpgsql SECURITY DEFINER SET search_path = public AS $$
  DECLARE
    entry record;
  BEGIN
    IF current_setting('glenfold.loading', true) = 'on' THEN RETURN NULL; END IF;
    FOR entry IN
      SELECT now_is."resultId" AS id, now_is."practiceId" AS practice,
        coalesce(jsonb_object_agg(was.analyte, told_value(was)) FILTER (WHERE was."deletedAt" IS NULL), '{}') AS before,
        coalesce(jsonb_object_agg(now_is.analyte, told_value(now_is)) FILTER (WHERE now_is."deletedAt" IS NULL), '{}') AS after
      FROM fresh AS now_is JOIN stale AS was ON was.id = now_is.id
      WHERE now_is."resultId" IS NOT NULL
        AND (told_value(was), was."deletedAt") IS DISTINCT FROM (told_value(now_is), now_is."deletedAt")
      GROUP BY 1, 2
    LOOP
      PERFORM tell_values(entry.practice, entry.id, entry.before, entry.after);
    END LOOP;
    RETURN NULL;
  END $$;

  CREATE FUNCTION tell_values(practice uuid, result uuid, was jsonb, now_is jsonb) RETURNS void
  LANGUAGE sql SECURITY DEFINER SET search_path = public AS $$
    INSERT INTO audit ("practiceId", "personId", "personName", "action", "kind", "recordId", "recordName", "before", "after")
    SELECT practice, nullif(current_setting('glenfold.person', true), '')::uuid,
      coalesce(nullif(current_setting('glenfold.personName', true), ''), 'Glenfold'), 'change', 'lab_result', result,
      coalesce((SELECT string_agg(zone.name, ', ' ORDER BY zone.position)
        FROM lab_result JOIN sample_zone AS own ON own."sampleId" = lab_result."sampleId" JOIN zone ON zone.id = own."zoneId"
        WHERE lab_result.id = result AND own."deletedAt" IS NULL), ''),
      jsonb_build_object('values', was), jsonb_build_object('values', now_is) $$;

  REVOKE EXECUTE ON FUNCTION tell_values(uuid, uuid, jsonb, jsonb) FROM PUBLIC;
  CREATE TRIGGER "audited_values" AFTER INSERT ON "measurement" REFERENCING NEW TABLE AS fresh
    FOR EACH STATEMENT EXECUTE FUNCTION audit_values();
  CREATE TRIGGER "audited_changed_values" AFTER UPDATE ON "measurement" REFERENCING OLD TABLE AS stale NEW TABLE AS fresh
    FOR EACH STATEMENT EXECUTE FUNCTION audit_changed_values();`;

/**
 * Every value becomes a measurement of its own; a sample is one for its bag, with the zones that share it; a laboratory's
 * file is a report, and what an amended one brings supersedes what was there. Nothing is written to the audit: nobody
 * changed anything.
 */
export class Measurements1795800000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`SELECT set_config('glenfold.loading', 'on', true)`);
    await runner.query(`
      ${VALUES_OF}
      ALTER TABLE "lab_import" RENAME TO "lab_report";
      ALTER INDEX "lab_import_site" RENAME TO "lab_report_site";
      ALTER TABLE "lab_report" ADD "readBy" integer NOT NULL DEFAULT 1;

      ALTER TABLE "sample" ADD "of" text NOT NULL DEFAULT 'soil' CHECK ("of" IN ('soil', 'water', 'compost', 'grass'));
      ALTER TABLE "sample" ADD "depthFrom" double precision NOT NULL DEFAULT 0 CHECK ("depthFrom" >= 0);
      CREATE INDEX "sample_site" ON "sample" ("practiceId", "siteId");

      CREATE TABLE "sample_zone" (${owned},
        "sampleId" uuid NOT NULL REFERENCES "sample" ("id"),
        "zoneId" uuid NOT NULL REFERENCES "zone" ("id"),
        "share" double precision CHECK ("share" > 0 AND "share" <= 1)
      );
      CREATE UNIQUE INDEX "sample_zone_once" ON "sample_zone" ("sampleId", "zoneId") WHERE "deletedAt" IS NULL;
      CREATE INDEX "sample_zone_zone" ON "sample_zone" ("zoneId");
      INSERT INTO "sample_zone" ("practiceId", "createdAt", "sampleId", "zoneId")
        SELECT "practiceId", "createdAt", "id", "zoneId" FROM "sample";

      ALTER TABLE "lab_result" ADD "reportId" uuid REFERENCES "lab_report" ("id");
      ALTER TABLE "lab_result" ADD "supersedesId" uuid REFERENCES "lab_result" ("id");
      CREATE INDEX "lab_result_sample" ON "lab_result" ("sampleId");
      UPDATE "lab_result" SET "reportId" = report.id
        FROM "lab_report" AS report, jsonb_each_text(report.imported) AS line
        WHERE line.value = "lab_result".id::text;

      -- A bag of several zones had a copy of its result for each: those that are still alike become one.
      CREATE TEMP TABLE twin ON COMMIT DROP AS
        SELECT * FROM (
          SELECT result.id, result."sampleId", result."zoneId", result."practiceId", result."createdAt",
            first_value(result.id) OVER alike AS keep, first_value(result."sampleId") OVER alike AS "keepSample"
          FROM "lab_result" AS result JOIN "sample" ON "sample".id = result."sampleId"
          WHERE "sample"."bagId" IS NOT NULL AND result."deletedAt" IS NULL AND "sample"."deletedAt" IS NULL
          WINDOW alike AS (
            PARTITION BY "sample"."bagId", "sample".label, "sample"."sampledOn", "sample".depth, result."labNumber",
              result.extractant, result."bufferMethod", result."soilPh", result."bufferPh", result."limeFactor",
              result."organicMatter", result.nutrients, result.beside, result.origin
            ORDER BY result."reportId" IS NULL, result."createdAt", result.id
          )
        ) AS copies WHERE id <> keep;
      INSERT INTO "sample_zone" ("practiceId", "createdAt", "sampleId", "zoneId")
        SELECT "practiceId", "createdAt", "keepSample", "zoneId" FROM twin ON CONFLICT DO NOTHING;
      UPDATE "plan" SET "labResultId" = twin.keep FROM twin WHERE "plan"."labResultId" = twin.id;
      DELETE FROM "lab_result" USING twin WHERE "lab_result".id = twin.id;
      DELETE FROM "sample_zone" USING twin WHERE "sample_zone"."sampleId" = twin."sampleId";
      DELETE FROM "sample" USING twin WHERE "sample".id = twin."sampleId";

      CREATE TABLE "measurement" (${owned},
        "zoneId" uuid REFERENCES "zone" ("id"),
        "sampleId" uuid REFERENCES "sample" ("id"),
        "resultId" uuid REFERENCES "lab_result" ("id"),
        "analyte" text NOT NULL,
        "method" text,
        "value" double precision NOT NULL,
        "unit" text,
        "basis" text NOT NULL DEFAULT 'element' CHECK ("basis" IN ('element', 'oxide')),
        "qualifier" text CHECK ("qualifier" IN ('below')),
        "takenOn" date,
        "depthFrom" double precision,
        "depthTo" double precision,
        "place" jsonb,
        "error" double precision CHECK ("error" >= 0),
        "source" text,
        "supersedesId" uuid REFERENCES "measurement" ("id"),
        CHECK ("zoneId" IS NOT NULL OR "sampleId" IS NOT NULL)
      );
      CREATE INDEX "measurement_zone" ON "measurement" ("zoneId", "analyte", "takenOn");
      CREATE INDEX "measurement_sample" ON "measurement" ("sampleId", "analyte");
      CREATE UNIQUE INDEX "measurement_once" ON "measurement" ("resultId", "analyte") WHERE "deletedAt" IS NULL;
      INSERT INTO "measurement" ("practiceId", "createdAt", "sampleId", "resultId", "analyte", "method", "value", "unit", "basis", "qualifier", "takenOn")
        SELECT result."practiceId", result."createdAt", result."sampleId", result.id, value.key, value.told ->> 'method',
          (value.told ->> 'value')::double precision, value.told ->> 'unit', coalesce(value.told ->> 'basis', 'element'),
          CASE WHEN (value.told ->> 'belowDetection')::boolean THEN 'below' END, "sample"."sampledOn"
        FROM "lab_result" AS result JOIN "sample" ON "sample".id = result."sampleId",
          jsonb_each(pg_temp.values_of(to_jsonb(result))) AS value (key, told)
        WHERE jsonb_typeof(value.told) = 'object';
      -- The day of what was measured on the ground was not written down; the change was.
      INSERT INTO "measurement" ("practiceId", "createdAt", "zoneId", "analyte", "value", "unit", "takenOn")
        SELECT "zone"."practiceId", "zone"."createdAt", "zone".id, test.key, (test.value #>> '{}')::double precision, 'cm',
          (SELECT change.at::date FROM "audit" AS change WHERE change."recordId" = "zone".id AND change.action = 'change'
            AND change.after ? test.key ORDER BY change.number DESC LIMIT 1)
        FROM "zone", jsonb_each(to_jsonb("zone")) AS test
        WHERE test.key IN ('thatch', 'rootDepth', 'probeStop') AND jsonb_typeof(test.value) = 'number';

      -- What was handed over stays as it was, told in the new words.
      UPDATE "plan" SET issued = jsonb_set(jsonb_set(issued, '{answer,reading,others}', '[]'), '{answer,result}',
          (issued #> '{answer,result}') - ARRAY['zoneId', 'soilPh', 'bufferPh', 'bufferMethod', 'organicMatter', 'nutrients']
          || jsonb_build_object('sampleId', '', 'of', 'soil', 'supersedesId', null, 'supersededById', null,
            'zoneIds', jsonb_build_array(issued #> '{answer,result,zoneId}'),
            'inherited', '[]'::jsonb, 'values', pg_temp.values_of(issued #> '{answer,result}')))
        WHERE issued #> '{answer,result,soilPh}' IS NOT NULL;

      DROP INDEX "lab_result_zone";
      ALTER TABLE "lab_result" DROP "zoneId", DROP "soilPh", DROP "bufferPh", DROP "bufferMethod", DROP "organicMatter", DROP "nutrients";
      ALTER TABLE "sample" DROP "zoneId";
      ALTER TABLE "zone" DROP "thatch", DROP "rootDepth", DROP "probeStop";
      ALTER TABLE "zone" ADD "partOf" uuid REFERENCES "zone" ("id"), ADD "joinedInto" uuid REFERENCES "zone" ("id");

      ${auditChange(ZONES_OF_SAMPLE, PARTS)}
      ${AUDIT_FIELD_TESTS}
      ${protect('sample_zone')}
      ${protect('measurement')}
      ${AUDIT_VALUES}
    `);
    await runner.query(`SELECT set_config('glenfold.loading', '', true)`);
  }

  async down(runner: QueryRunner): Promise<void> {
    const value = (analyte: string, column = 'value'): string =>
      `(SELECT one."${column}" FROM "measurement" AS one WHERE one."resultId" = result.id AND one.analyte = '${analyte}' AND one."deletedAt" IS NULL)`;
    const test = (analyte: string): string =>
      `(SELECT one.value FROM "measurement" AS one WHERE one."zoneId" = "zone".id AND one.analyte = '${analyte}' AND one."deletedAt" IS NULL
        ORDER BY one."takenOn" DESC NULLS LAST, one."createdAt" DESC LIMIT 1)`;
    await runner.query(`SELECT set_config('glenfold.loading', 'on', true)`);
    await runner.query(`
      ALTER TABLE "zone" DROP "partOf", DROP "joinedInto";
      ALTER TABLE "zone" ADD "thatch" double precision, ADD "rootDepth" double precision, ADD "probeStop" double precision;
      UPDATE "zone" SET "thatch" = ${test('thatch')}, "rootDepth" = ${test('rootDepth')}, "probeStop" = ${test('probeStop')};
      ALTER TABLE "sample" ADD "zoneId" uuid REFERENCES "zone" ("id");
      UPDATE "sample" SET "zoneId" = (SELECT own."zoneId" FROM "sample_zone" AS own WHERE own."sampleId" = "sample".id
        ORDER BY own."deletedAt" NULLS FIRST, own."createdAt", own.id LIMIT 1);
      ALTER TABLE "sample" ALTER "zoneId" SET NOT NULL;
      ALTER TABLE "lab_result" ADD "zoneId" uuid REFERENCES "zone" ("id"), ADD "soilPh" double precision,
        ADD "bufferPh" double precision, ADD "bufferMethod" text, ADD "organicMatter" double precision,
        ADD "nutrients" jsonb NOT NULL DEFAULT '{}';
      UPDATE "lab_result" AS result SET
        "zoneId" = (SELECT "zoneId" FROM "sample" WHERE "sample".id = result."sampleId"),
        "soilPh" = coalesce(${value('soilPh')}, ${value('calciumChloridePh')} + 0.6, ${value('saltPh')} + 0.6),
        "bufferPh" = ${value('bufferPh')}, "bufferMethod" = ${value('bufferPh', 'method')},
        "organicMatter" = ${value('organicMatter')},
        "nutrients" = coalesce((SELECT jsonb_object_agg(one.analyte, told_value(one) - 'method') FROM "measurement" AS one
          WHERE one."resultId" = result.id AND one.analyte IN ('p', 'k', 'ca', 'mg') AND one."deletedAt" IS NULL), '{}');
      DELETE FROM "lab_result" WHERE "soilPh" IS NULL AND NOT EXISTS (SELECT 1 FROM "plan" WHERE "labResultId" = "lab_result".id);
      ALTER TABLE "lab_result" ALTER "zoneId" SET NOT NULL, ALTER "soilPh" SET NOT NULL, ALTER "nutrients" DROP DEFAULT;
      CREATE INDEX "lab_result_zone" ON "lab_result" ("practiceId", "zoneId");
      DROP FUNCTION tell_field_test(measurement, measurement), told_value(measurement);
      DROP TABLE "measurement";
      DROP FUNCTION audit_values(), audit_changed_values(), tell_values(uuid, uuid, jsonb, jsonb);
      ALTER TABLE "lab_result" DROP "reportId", DROP "supersedesId";
      DROP INDEX "lab_result_sample";
      DROP TABLE "sample_zone";
      DROP INDEX "sample_site";
      ALTER TABLE "sample" DROP "of", DROP "depthFrom";
      ALTER TABLE "lab_report" DROP "readBy";
      ALTER TABLE "lab_report" RENAME TO "lab_import";
      ALTER INDEX "lab_report_site" RENAME TO "lab_import_site";
      ${auditChange('', '')}
    `);
    await runner.query(`SELECT set_config('glenfold.loading', '', true)`);
  }
}
