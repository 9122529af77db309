import {
  type ColumnMatch,
  type Doubt,
  type LabRow,
  type ReportedValue,
  type SampleRead,
  SALT_STEP,
  arrange,
  doubtsAbout,
  exchangedPairs,
  isAnalyte,
  lastOf,
  phInWater,
  questionDepth,
  readLabRow,
  writeBagCode,
} from '@glenfold/agronomy';
import { type LabReportAnswer, type LabReportRowAnswer, LabResultInput, problemFields } from '@glenfold/contract';
import { plainToInstance } from 'class-transformer';
import { validate } from 'class-validator';
import type { Zone } from '../ground/zone.entity.ts';
import { threaded } from '../platform/threaded.ts';
import type { FilledBag } from '../sampling/sampling.service.ts';
import { besideOf } from './beside.ts';
import type { ReadResult } from './lab.service.ts';
import type { LabProfile } from './labProfile.entity.ts';
import type { LabReport } from './labReport.entity.ts';
import { type LabTable, correctColumns, readLabTable } from './labTable.ts';
import { type RowGoal, goalOf, missingOf } from './rowGoals.ts';

interface ReadyRow {
  readonly goal: RowGoal;
  readonly result: LabResultInput;
  /** What else the line says. */
  readonly beside: string | null;
}

export interface Draft {
  readonly answer: LabReportAnswer;
  /** What each row would become, by line: one result, which the zones that shared its bag share. Only rows that can be imported. */
  readonly inputs: ReadonlyMap<number, ReadyRow>;
}

/** What a site has that a line of a report may be about. */
export interface Ground {
  readonly zones: ReadonlyArray<Pick<Zone, 'id' | 'name' | 'label'>>;
  readonly bags: readonly FilledBag[];
  /** Results that came of these bags before. */
  readonly before: ReadonlyArray<
    Pick<ReadResult, 'id' | 'sampleId' | 'values' | 'origin'> & { readonly sample: Pick<ReadResult['sample'], 'bagId'> }
  >;
  /** Tests of each zone, the newest first; with the bag that they came of. */
  readonly earlier: Readonly<Record<string, ReadonlyArray<SampleRead & { readonly bagId: string | null }>>>;
  /** Laboratories’ ways. */
  readonly profiles: ReadonlyArray<Pick<LabProfile, 'id' | 'name' | 'columns'>>;
}

/** Of several files of a site, each as it would be imported now. */
export const labDrafts = threaded(import.meta.url, 'labDrafts', (entries: readonly LabReport[], ground: Ground) =>
  Promise.all(entries.map((entry) => read(entry, ground))),
);

/** The columns of a file: as its header names them, as its laboratory was learned, as a person has put them right. */
export function columnsOf(
  entry: Pick<LabReport, 'choices' | 'profileId'>,
  { header }: LabTable,
  profiles: Ground['profiles'],
): { readonly columns: readonly ColumnMatch[]; readonly profile: LabReportAnswer['profile'] } {
  const profile = profiles.find(({ id }) => id === entry.profileId);
  const learned = profile && arrange(header.columns, profile);
  return {
    columns: correctColumns(learned?.columns ?? header.columns, entry.choices?.columns),
    profile:
      profile && learned
        ? { id: profile.id, name: profile.name, fresh: [...learned.fresh], missing: [...learned.missing] }
        : null,
  };
}

/** One line as it stands, before it is weighed against the others. */
interface Line {
  readonly line: number;
  readonly cells: readonly string[];
  readonly row: LabRow;
  readonly faults: LabReportRowAnswer['faults'];
  readonly goal: RowGoal;
  readonly chosen: boolean;
  readonly state: LabReportRowAnswer['state'];
  readonly corrected: readonly string[];
  readonly earlier: readonly SampleRead[];
  readonly resultId: string | null;
}

/** What each line of a file would become, with what is to be asked and mended first. */
async function read(entry: LabReport, ground: Ground): Promise<Draft> {
  const table = entry.found ?? readLabTable(entry.content);
  const { columns, profile } = columnsOf(entry, table, ground.profiles);
  const lines = linesOf(entry, ground, table, columns);
  const exchanged = exchangedIn(lines);
  const inputs = new Map<number, ReadyRow>();
  const answers: LabReportRowAnswer[] = [];
  for (const [at, one] of lines.entries()) {
    const { line, cells, row, goal, earlier, resultId, state, corrected } = one;
    const depth = row.depth ?? entry.depth ?? goal.bag?.depth;
    const sampledOn = row.sampledOn ?? goal.bag?.sampledOn;
    const result = resultOf(entry, one, depth, sampledOn);
    const faults = [...one.faults, ...(await faultsOf(result, one))];
    const sample: SampleRead = { values: result.values, extractant: entry.extractant, depth, on: sampledOn ?? null };
    const doubts = [...doubtsAbout(sample, earlier), ...(exchanged.get(at) ?? [])];
    const taken = state !== 'held' && (state === 'accepted' || !doubts.some(({ grave }) => grave));
    if (goal.zoneIds.length > 0 && faults.length === 0 && taken)
      inputs.set(line, { goal, result, beside: besideOf(columns, cells, goal.bag) });
    const deep = depth === undefined ? undefined : questionDepth(depth);
    answers.push({
      ...{ line, cells: [...cells] },
      row: { ...row, ...(depth === undefined ? {} : { depth }) },
      zoneId: goal.bag ? null : (goal.zoneIds[0] ?? null),
      bagId: goal.bag?.id ?? null,
      zoneChosen: one.chosen,
      faults,
      questions: [
        ...inSalt(row),
        ...(deep ? [deep] : []),
        ...(goal.bag && resultId === null ? aboutBag(goal.bag, row, ground.before) : []),
      ],
      ...{ doubts, last: lastValues(sample, earlier), state, corrected: [...corrected], resultId },
    });
  }
  const { id, version, siteId, fileName, extractant, bufferMethod, limeFactor, depth, imported, readAs } = entry;
  const status = Object.keys(imported).length > 0 ? 'imported' : 'open';
  return {
    inputs,
    answer: {
      ...{ id, version, siteId, fileName, status, columns: [...columns], extractant, bufferMethod, limeFactor, depth },
      ...{ dateOrder: entry.dateOrder ?? table.dateOrder ?? null, readAs, profile, rows: answers },
      original: entry.original === null ? null : `/api/lab-reports/${id}/original`,
      bags: ground.bags.map(({ id: bagId, code, zoneIds }) => ({ id: bagId, code, zoneIds })),
    },
  };
}

function linesOf(entry: LabReport, ground: Ground, table: LabTable, columns: readonly ColumnMatch[]): Line[] {
  const { zones, bags } = ground;
  const used = new Map<string, number>();
  const writing = { decimalComma: table.decimalComma, dateOrder: entry.dateOrder ?? table.dateOrder };
  return table.rows.map(({ line, cells }): Line => {
    const { row: found, faults: cellFaults } = readLabRow(cells, columns, writing);
    const decision = entry.choices?.decisions?.find((one) => one.line === line);
    const decided = Object.entries((decision?.values ?? {}) as Readonly<Record<string, ReportedValue | null>>);
    const values = Object.fromEntries(decided.filter(([, value]) => value !== null));
    const row: LabRow = { ...found, values: { ...found.values, ...values } };
    const corrected = Object.keys(values);
    const faults = cellFaults.filter(({ field }) => !corrected.includes(field));
    const chosen = entry.choices?.rows.find((choice) => choice.line === line);
    const goal = goalOf(row.label, chosen, zones, bags);
    if (goal.fault) faults.push({ field: 'label', message: goal.fault });
    const key = goal.bag?.id ?? goal.zoneIds[0];
    const first = key === undefined ? undefined : used.get(key);
    if (first !== undefined)
      faults.push({
        field: 'label',
        message: goal.bag
          ? `Line ${first} is of this bag too, as when a laboratory runs it twice: set one of the two to nowhere.`
          : `Line ${first} already goes to this zone: choose another for one of them.`,
      });
    else if (key !== undefined) used.set(key, line);
    const known = ground.earlier[goal.zoneIds[0] ?? ''] ?? [];
    return {
      ...{ line, cells, row, faults, goal, chosen: chosen !== undefined, corrected },
      state: decision?.state ?? null,
      // What the same bag was reported with is amended by this, not a test of before.
      earlier: goal.bag ? known.filter(({ bagId }) => bagId !== goal.bag!.id) : known,
      resultId: entry.imported[line] ?? null,
    };
  });
}

function resultOf(
  entry: LabReport,
  { row, goal }: Line,
  depth: number | undefined,
  sampledOn: string | null | undefined,
): LabResultInput {
  const { bufferPh } = row.values;
  return plainToInstance(LabResultInput, {
    ...{ label: goal.bag ? writeBagCode(goal.bag.code) : row.label, labNumber: row.labNumber },
    ...(sampledOn == null ? {} : { sampledOn }),
    // Without a goal the row is looked through all the same.
    zoneIds: goal.zoneIds.length > 0 ? goal.zoneIds : [NOWHERE],
    depth,
    ...(row.cores === undefined ? {} : { cores: row.cores }),
    extractant: entry.extractant,
    ...(bufferPh ? { limeFactor: entry.limeFactor } : {}),
    ...(row.advised ? { advised: row.advised } : {}),
    values: {
      ...row.values,
      ...(bufferPh ? { bufferPh: { ...bufferPh, method: entry.bufferMethod ?? undefined } } : {}),
    },
  });
}

/** What keeps a line from being kept, beside cells that cannot be read. */
async function faultsOf(result: LabResultInput, { faults, row }: Line): Promise<LabReportRowAnswer['faults']> {
  const known = new Set(faults.map(({ field }) => field));
  return problemFields(await validate(result)).flatMap(({ field, message }) => {
    const root = (field === 'values' ? 'soilPh' : field.startsWith('values.') ? field.split('.')[1] : field) as 'label';
    return !known.has(root) && !(field === 'label' && row.label === '') ? [{ field: root, message }] : [];
  });
}

/** Lines whose bags look exchanged, by their place. */
function exchangedIn(lines: readonly Line[]): ReadonlyMap<number, readonly Doubt[]> {
  const open = lines.filter(({ resultId }) => resultId === null);
  const pairs = exchangedPairs(open.map(({ row, earlier }) => ({ values: row.values, before: earlier[0]?.values })));
  const found = new Map<number, Doubt[]>();
  const doubt = (one: Line, other: Line): void => {
    const words = `${one.row.label} and ${other.row.label} look exchanged: each fits the other’s last test far better than its own. Ask the laboratory, or look at the bags.`;
    const at = lines.indexOf(one);
    found.set(at, [...(found.get(at) ?? []), { key: 'exchanged', analyte: null, words, grave: true }]);
  };
  for (const { one, other } of pairs) {
    doubt(open[one]!, open[other]!);
    doubt(open[other]!, open[one]!);
  }
  return found;
}

function lastValues(sample: SampleRead, earlier: readonly SampleRead[]): LabReportRowAnswer['last'] {
  return Object.fromEntries(
    Object.keys(sample.values).flatMap((analyte) => {
      const last = isAnalyte(analyte) ? lastOf(analyte, sample, earlier) : undefined;
      return last ? [[analyte, { ...last, apart: last.apart ?? null }]] : [];
    }),
  );
}

/** What the person should know of a bag before its numbers are taken. */
function aboutBag(bag: FilledBag, row: LabRow, before: Ground['before']): string[] {
  const old = before.find(({ sample }) => sample.bagId === bag.id);
  const missing = missingOf(bag.panels, row);
  return [
    ...(bag.purpose === 'problem'
      ? [
          'This bag holds the bad part alone: it tells of the spot, to be read beside the healthy half. Let the zone’s rates rest on another bag.',
        ]
      : []),
    ...(old
      ? [
          `This bag was read before, ${phOf(old.values)}out of ${old.origin}: these numbers take their place, and the old ones stay to be read.`,
        ]
      : []),
    ...(missing.length > 0
      ? [
          `${missing.join(' and ')} ${missing.length === 1 ? 'was' : 'were'} asked for and not reported: ask the laboratory while it still has the bag.`,
        ]
      : []),
  ];
}

/** No zone: a row that goes nowhere yet is checked as if it went somewhere. */
const NOWHERE = '00000000-0000-4000-8000-000000000000';

const phs = ['soilPh', 'calciumChloridePh', 'saltPh'] as const;

/** "with pH 5.8 " where one was reported. */
function phOf(values: ReadResult['values']): string {
  const ph = phs.map((key) => values[key]).find((value) => value !== undefined);
  return ph ? `with pH ${ph.value.toFixed(1)} ` : '';
}

/** What is to be known of a pH that no water was used for. */
function inSalt({ values: { soilPh, ...values } }: LabRow): string[] {
  const ph: ReportedValue | undefined = values.calciumChloridePh ?? values.saltPh;
  return soilPh === undefined && ph !== undefined
    ? [
        `The pH ${ph.value.toFixed(1)} was measured in salt or calcium chloride, which reads about ${SALT_STEP} lower than water: it is taken as ${phInWater(ph.value).toFixed(1)} in water. Ask the laboratory for a pH in water.`,
      ]
    : [];
}
