import { type LabRow, type ReportedValue, SALT_STEP, phInWater, readLabRow, writeBagCode } from '@glenfold/agronomy';
import { type LabReportAnswer, type LabReportRowAnswer, LabResultInput, problemFields } from '@glenfold/contract';
import { plainToInstance } from 'class-transformer';
import { validate } from 'class-validator';
import type { Zone } from '../ground/zone.entity.ts';
import { threaded } from '../platform/threaded.ts';
import type { FilledBag } from '../sampling/sampling.service.ts';
import { besideOf } from './beside.ts';
import type { ReadResult } from './lab.service.ts';
import type { LabReport } from './labReport.entity.ts';
import { correctColumns, readLabTable } from './labTable.ts';
import { questionsAbout } from './questions.ts';
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
}

/** Of several files of a site, each as it would be imported now. */
export const labDrafts = threaded(import.meta.url, 'labDrafts', (entries: readonly LabReport[], ground: Ground) =>
  Promise.all(entries.map((entry) => read(entry, ground))),
);

/** What each line of a file would become, with what is to be asked and mended first. */
async function read(entry: LabReport, { zones, bags, before }: Ground): Promise<Draft> {
  const { header, rows, decimalComma } = entry.found ?? readLabTable(entry.content);
  const columns = correctColumns(header.columns, entry.choices?.columns);
  const inputs = new Map<number, ReadyRow>();
  const used = new Map<string, number>();
  const answers: LabReportRowAnswer[] = [];
  for (const { line, cells } of rows) {
    const { row, faults: cellFaults } = readLabRow(cells, columns, decimalComma);
    const faults = [...cellFaults];
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

    const depth = row.depth ?? entry.depth ?? goal.bag?.depth;
    const sampledOn = row.sampledOn ?? goal.bag?.sampledOn;
    const { bufferPh } = row.values;
    const result = plainToInstance(LabResultInput, {
      ...{ label: goal.bag ? writeBagCode(goal.bag.code) : row.label, labNumber: row.labNumber },
      ...(sampledOn === undefined ? {} : { sampledOn }),
      // Without a goal the row is looked through all the same.
      zoneIds: goal.zoneIds.length > 0 ? goal.zoneIds : [NOWHERE],
      depth,
      extractant: entry.extractant,
      ...(bufferPh ? { limeFactor: entry.limeFactor } : {}),
      values: {
        ...row.values,
        ...(bufferPh ? { bufferPh: { ...bufferPh, method: entry.bufferMethod ?? undefined } } : {}),
      },
    });
    const known = new Set(cellFaults.map(({ field }) => field));
    for (const { field, message } of problemFields(await validate(result))) {
      const root = (
        field === 'values' ? 'soilPh' : field.startsWith('values.') ? field.split('.')[1] : field
      ) as 'label';
      if (!known.has(root) && !(field === 'label' && row.label === '')) faults.push({ field: root, message });
    }
    if (goal.zoneIds.length > 0 && faults.length === 0)
      inputs.set(line, { goal, result, beside: besideOf(columns, cells, goal.bag) });
    const resultId = entry.imported[line] ?? null;
    answers.push({
      line,
      cells: [...cells],
      row: { ...row, ...(depth === undefined ? {} : { depth }) },
      zoneId: goal.bag ? null : (goal.zoneIds[0] ?? null),
      bagId: goal.bag?.id ?? null,
      zoneChosen: chosen !== undefined,
      faults,
      questions: [
        ...inSalt(row),
        ...questionsAbout({ depth, values: row.values }),
        ...(goal.bag && resultId === null ? aboutBag(goal.bag, row, before) : []),
      ],
      resultId,
    });
  }
  const { id, version, siteId, fileName, extractant, bufferMethod, limeFactor, depth, imported } = entry;
  const status = Object.keys(imported).length > 0 ? 'imported' : 'open';
  const file = {
    id,
    version,
    siteId,
    fileName,
    status,
    columns,
    extractant,
    bufferMethod,
    limeFactor,
    depth,
  } as const;
  const told = bags.map(({ id: bagId, code, zoneIds }) => ({ id: bagId, code, zoneIds }));
  return { inputs, answer: { ...file, rows: answers, bags: told } };
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
