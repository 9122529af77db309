import { type LabRow, type ReportedValue, SALT_STEP, phInWater, readLabRow, writeBagCode } from '@glenfold/agronomy';
import {
  LabReportAnswer,
  type LabReportChoices,
  type LabReportRowAnswer,
  type LabFileInput,
  LabResultInput,
  problemFields,
} from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { plainToInstance } from 'class-transformer';
import { validate } from 'class-validator';
import { GroundService } from '../ground/ground.service.ts';
import type { Zone } from '../ground/zone.entity.ts';
import { Problem, refuse } from '../platform/problem.ts';
import { Records, type RecordsOf } from '../platform/records.ts';
import { type FilledBag, SamplingService } from '../sampling/sampling.service.ts';
import { besideOf } from './beside.ts';
import { LabService, type ReadResult, questionsAbout } from './lab.service.ts';
import { LabReport } from './labReport.entity.ts';
import { READER, correctColumns, readLabTable } from './labTable.ts';
import { type RowGoal, goalOf, missingOf } from './rowGoals.ts';

interface ReadyRow {
  readonly goal: RowGoal;
  readonly result: LabResultInput;
  /** What else the line says. */
  readonly beside: string | null;
}

interface Draft {
  readonly answer: LabReportAnswer;
  /** What each row would become, by line: one result, which the zones that shared its bag share. Only rows that can be imported. */
  readonly inputs: ReadonlyMap<number, ReadyRow>;
}

/** What a site has that a line of a report may be about. */
interface Ground {
  readonly zones: readonly Zone[];
  readonly bags: readonly FilledBag[];
  /** Results that came of these bags before. */
  readonly before: readonly ReadResult[];
}

/** A file is looked at first, corrected, and only then imported; it is kept whole, unreadable rows too. */
@Injectable()
export class LabReportService {
  constructor(
    private readonly records: Records,
    private readonly ground: GroundService,
    private readonly lab: LabService,
    private readonly sampling: SamplingService,
  ) {}

  async list(siteId: string): Promise<LabReportAnswer[]> {
    const ground = await this.#ground(siteId);
    const found = await this.records.of(LabReport).find({ siteId }, { createdAt: 'DESC' });
    return Promise.all(found.map(async (entry) => (await this.#draft(entry, ground)).answer));
  }

  /** Imports that still hold rows nobody has dealt with, of the whole practice. */
  async open(): Promise<LabReport[]> {
    return (await this.records.of(LabReport).find()).filter(({ imported }) => Object.keys(imported).length === 0);
  }

  async preview(siteId: string, file: LabFileInput): Promise<LabReportAnswer> {
    const ground = await this.#ground(siteId);
    return (await this.#draft(await this.receive(siteId, file), ground)).answer;
  }

  /** Keep a laboratory's file, to be looked through and read. @throws a problem in words for what is no table of results */
  receive(siteId: string, { fileName, content }: LabFileInput): Promise<LabReport> {
    const found = readLabTable(content);
    const { header } = found;
    return this.records.of(LabReport).add({
      siteId,
      fileName,
      content,
      choices: null,
      imported: {},
      extractant: header.extractant,
      bufferMethod: header.bufferMethod,
      limeFactor: null,
      found,
      depth: null,
      readBy: READER,
    });
  }

  correct(id: string, choices: LabReportChoices, version: number): Promise<LabReportAnswer> {
    return this.records.together((of) => this.#correct(of, id, choices, version));
  }

  async #correct(of: RecordsOf, id: string, choices: LabReportChoices, version: number): Promise<LabReportAnswer> {
    const entry = await of(LabReport).locked(id);
    const ground = await this.#ground(entry.siteId);
    const fields = choices.columns.map(({ field }) => field).filter((field) => field !== null);
    const twice = fields.find((field, index) => fields.indexOf(field) !== index);
    if (twice)
      refuse([{ field: 'columns', message: `Two columns are both set to ${twice}: set one of them to "not read".` }]);
    const isNone = (id: string | null | undefined, known: ReadonlyArray<{ readonly id: string }>): boolean =>
      id != null && !known.some((one) => one.id === id);
    const unknown = choices.rows.find(
      ({ zoneId, bagId }) => isNone(zoneId, ground.zones) || isNone(bagId, ground.bags),
    );
    if (unknown)
      refuse([
        {
          field: 'rows',
          message: `Line ${unknown.line} is set to a zone or bag that is not on this site: choose again.`,
        },
      ]);
    const { extractant = null, bufferMethod = null, limeFactor = null, depth = null } = choices;
    const { answer: current } = await this.#draft(entry, ground);
    const values = { choices, extractant, bufferMethod, limeFactor, depth };
    const saved = await of(LabReport).change(id, values, { version, tell: () => current });
    return (await this.#draft(saved, ground)).answer;
  }

  /** Import every row that can be read and has a zone; the others stay with their reasons. */
  confirm(id: string): Promise<LabReportAnswer> {
    return this.records.together((of) => this.#confirm(of, id));
  }

  async #confirm(of: RecordsOf, id: string): Promise<LabReportAnswer> {
    const entry = await of(LabReport).locked(id);
    const ground = await this.#ground(entry.siteId);
    const { inputs } = await this.#draft(entry, ground);
    const waiting = [...inputs].filter(([line]) => !entry.imported[line]);
    if (waiting.length === 0)
      throw new Problem(
        422,
        'Nothing to import',
        'No row of this file is ready: see the reason beside each, correct the columns or choose the zones, and try again.',
      );
    const imported = { ...entry.imported };
    for (const [line, { goal, result, beside }] of waiting) {
      // What the same bag was reported with before is kept, and superseded.
      const supersedes = goal.bag && ground.before.find(({ sample }) => sample.bagId === goal.bag!.id);
      const from = { origin: entry.fileName, reportId: id, bagId: goal.bag?.id ?? null, beside, supersedes };
      imported[line] = (await this.lab.write(of, result, from)).id;
      if (goal.bag) await this.sampling.read(of, goal.bag.id, entry.fileName);
    }
    const saved = await of(LabReport).change(id, { imported });
    return (await this.#draft(saved, await this.#ground(entry.siteId))).answer;
  }

  async remove(id: string): Promise<void> {
    await this.records.of(LabReport).remove(id);
  }

  async restore(id: string): Promise<LabReportAnswer> {
    const entry = await this.records.of(LabReport).restore(id);
    return (await this.#draft(entry, await this.#ground(entry.siteId))).answer;
  }

  async #ground(siteId: string): Promise<Ground> {
    const [zones, bags] = [await this.ground.zones(siteId), await this.sampling.filled(siteId)];
    return { zones, bags, before: await this.lab.ofBags(new Set(bags.map(({ id }) => id))) };
  }

  async #draft(entry: LabReport, { zones, bags, before }: Ground): Promise<Draft> {
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
          ...(goal.bag && resultId === null ? this.#aboutBag(goal.bag, row, before) : []),
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
  #aboutBag(bag: FilledBag, row: LabRow, before: readonly ReadResult[]): string[] {
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
