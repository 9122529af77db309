import { randomUUID } from 'node:crypto';
import type { Row } from './formats.ts';
import { type Tables, readTables } from './readTables.ts';
import type { ExportedTable } from './tables.ts';
import { tablesOf2, today } from './version2.ts';

/** Files that an export of format 1 did not have. */
const since2 = ['laboratories.json', 'sample-zones.csv', 'measurements.csv'];

type Value = Readonly<Record<string, unknown>>;
const isValue = (value: unknown): value is Value => typeof value === 'object' && value !== null && 'value' in value;

/** Values of a result of format 1, with a column for each of three and one for the nutrients, by analyte. */
function valuesOf({
  soilPh,
  bufferPh,
  bufferMethod,
  organicMatter,
  nutrients,
}: Row): Array<[analyte: string, value: Value]> {
  const plain = (value: unknown, unit: string): Value | null =>
    value === null || value === undefined ? null : { value: Number(value), unit, basis: 'element' };
  const buffer = plain(bufferPh, 'pH');
  const all = {
    soilPh: plain(soilPh, 'pH'),
    bufferPh: buffer && { ...buffer, method: bufferMethod },
    organicMatter: plain(organicMatter, '%'),
    ...(nutrients as Value | null),
  };
  return Object.entries(all).flatMap(([analyte, value]) => (isValue(value) ? [[analyte, value]] : []));
}

const FIELD_TESTS = ['thatch', 'rootDepth', 'probeStop'];

/** Of a plan on paper: the result that it rests on, in the words of today. What it says stays. */
function issuedToday(issued: unknown): unknown {
  if (typeof issued !== 'object' || issued === null) return issued;
  const { answer, ...paper } = issued as { readonly answer: { readonly result: Row; readonly reading: Row } };
  if (!('soilPh' in answer.result)) return issued;
  const { zoneId, soilPh, bufferPh, bufferMethod, organicMatter, nutrients, ...result } = answer.result;
  const values = Object.fromEntries(valuesOf({ soilPh, bufferPh, bufferMethod, organicMatter, nutrients }));
  return {
    ...paper,
    answer: {
      ...answer,
      reading: { ...answer.reading, others: [] },
      result: {
        ...result,
        sampleId: '',
        of: 'soil',
        zoneIds: [zoneId],
        values,
        inherited: [],
        supersedesId: null,
        supersededById: null,
      },
    },
  };
}

/**
 * An export of format 1, in the tables of today: its samples named their zone, its results held their values in columns,
 * and thatch, roots and probe stood with the zone.
 */
export function readVersion1(files: ReadonlyMap<string, string>): Tables {
  const known = tablesOf2
    .filter(({ file }) => !since2.includes(file))
    .map(({ file, spread }): Pick<ExportedTable, 'file' | 'spread'> => ({
      file,
      spread: file === 'lab-results.csv' ? ['nutrients'] : spread,
    }));
  const old = readTables(files, known);
  const samples = old.get('samples.csv')!;
  const results = old.get('lab-results.csv')!;
  const sampledOn = new Map(samples.map((sample) => [sample.id, sample.sampledOn]));
  const fresh = ({ createdAt }: Row): Row => ({ id: randomUUID(), createdAt, deletedAt: null, version: 1 });
  const none = { zoneId: null, sampleId: null, resultId: null, method: null, qualifier: null, takenOn: null, depthFrom: null, depthTo: null, place: null, error: null, source: null, supersedesId: null }; // prettier-ignore
  const ofResults = results.flatMap((result) =>
    valuesOf(result).map(([analyte, { value, unit, basis, method = null, belowDetection }]): Row => ({
      ...{ ...none, ...fresh(result), sampleId: result.sampleId, resultId: result.id, analyte },
      ...{ value, unit, basis, method, qualifier: belowDetection === true ? 'below' : null },
      takenOn: sampledOn.get(result.sampleId) ?? null,
    })),
  );
  const ofZones = old
    .get('zones.geojson')!
    .flatMap((zone) =>
      FIELD_TESTS.flatMap((analyte): Row[] =>
        typeof zone[analyte] === 'number'
          ? [{ ...none, ...fresh(zone), zoneId: zone.id, analyte, value: zone[analyte], unit: 'cm', basis: 'element' }]
          : [],
      ),
    );
  const reports = old.get('lab-files.json')!.map((report): Row => ({ ...report, readBy: 1 }));
  const reportOf = new Map(
    reports.flatMap(({ id, imported }) => Object.values(imported as Value).map((result) => [result, id] as const)),
  );
  return today(
    new Map([
      ...old,
      ['laboratories.json', []],
      ['samples.csv', samples.map((sample): Row => ({ ...sample, of: 'soil', depthFrom: 0 }))],
      [
        'sample-zones.csv',
        samples.map((sample): Row => ({ ...fresh(sample), sampleId: sample.id, zoneId: sample.zoneId, share: null })),
      ],
      ['lab-files.json', reports],
      [
        'lab-results.csv',
        results.map((result): Row => ({ ...result, reportId: reportOf.get(result.id) ?? null, supersedesId: null })),
      ],
      ['measurements.csv', [...ofResults, ...ofZones]],
      ['plans.json', old.get('plans.json')!.map((plan): Row => ({ ...plan, issued: issuedToday(plan.issued) }))],
    ]),
  );
}
