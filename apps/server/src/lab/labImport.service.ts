import { readLabRow } from '@glenfold/agronomy';
import {
  LabImportAnswer,
  type LabImportChoices,
  type LabImportRowAnswer,
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
import { LabService, questionsAbout } from './lab.service.ts';
import { LabImport } from './labImport.entity.ts';
import { correctColumns, readLabTable } from './labTable.ts';

interface Draft {
  readonly answer: LabImportAnswer;
  /** What each row would become, by line; only rows that can be imported. */
  readonly inputs: ReadonlyMap<number, LabResultInput>;
}

/** A file is looked at first, corrected, and only then imported; it is kept whole, unreadable rows too. */
@Injectable()
export class LabImportService {
  constructor(
    private readonly records: Records,
    private readonly ground: GroundService,
    private readonly lab: LabService,
  ) {}

  async list(siteId: string): Promise<LabImportAnswer[]> {
    const zones = await this.ground.zones(siteId);
    const found = await this.records.of(LabImport).find({ siteId }, { createdAt: 'DESC' });
    return Promise.all(found.map(async (entry) => (await this.#draft(entry, zones)).answer));
  }

  /** Imports that still hold rows nobody has dealt with, of the whole practice. */
  async open(): Promise<LabImport[]> {
    return (await this.records.of(LabImport).find()).filter(({ imported }) => Object.keys(imported).length === 0);
  }

  async preview(siteId: string, { fileName, content }: LabFileInput): Promise<LabImportAnswer> {
    const zones = await this.ground.zones(siteId);
    const { header } = readLabTable(content);
    const entry = await this.records.of(LabImport).add({
      siteId,
      fileName,
      content,
      choices: null,
      imported: {},
      extractant: header.extractant,
      bufferMethod: header.bufferMethod,
      depth: null,
    });
    return (await this.#draft(entry, zones)).answer;
  }

  correct(id: string, choices: LabImportChoices, version: number): Promise<LabImportAnswer> {
    return this.records.together((of) => this.#correct(of, id, choices, version));
  }

  async #correct(of: RecordsOf, id: string, choices: LabImportChoices, version: number): Promise<LabImportAnswer> {
    const entry = await of(LabImport).locked(id);
    const zones = await this.ground.zones(entry.siteId);
    const fields = choices.columns.map(({ field }) => field).filter((field) => field !== null);
    const twice = fields.find((field, index) => fields.indexOf(field) !== index);
    if (twice)
      refuse([{ field: 'columns', message: `Two columns are both set to ${twice}: set one of them to "not read".` }]);
    const unknown = choices.rows.find(({ zoneId }) => zoneId !== null && !zones.some((zone) => zone.id === zoneId));
    if (unknown)
      refuse([
        { field: 'rows', message: `Line ${unknown.line} is set to a zone that is not on this site: choose again.` },
      ]);
    const { extractant = null, bufferMethod = null, depth = null } = choices;
    const { answer: current } = await this.#draft(entry, zones);
    const values = { choices, extractant, bufferMethod, depth };
    const saved = await of(LabImport).change(id, values, { version, tell: () => current });
    return (await this.#draft(saved, zones)).answer;
  }

  /** Import every row that can be read and has a zone; the others stay with their reasons. */
  confirm(id: string): Promise<LabImportAnswer> {
    return this.records.together((of) => this.#confirm(of, id));
  }

  async #confirm(of: RecordsOf, id: string): Promise<LabImportAnswer> {
    const entry = await of(LabImport).locked(id);
    const zones = await this.ground.zones(entry.siteId);
    const { inputs } = await this.#draft(entry, zones);
    const waiting = [...inputs].filter(([line]) => !entry.imported[line]);
    if (waiting.length === 0)
      throw new Problem(
        422,
        'Nothing to import',
        'No row of this file is ready: see the reason beside each, correct the columns or choose the zones, and try again.',
      );
    const imported = { ...entry.imported };
    for (const [line, input] of waiting) {
      const result = await this.lab.write(of, input, entry.fileName);
      imported[line] = result.id;
    }
    const saved = await of(LabImport).change(id, { imported });
    return (await this.#draft(saved, zones)).answer;
  }

  async remove(id: string): Promise<void> {
    await this.records.of(LabImport).remove(id);
  }

  async restore(id: string): Promise<LabImportAnswer> {
    const entry = await this.records.of(LabImport).restore(id);
    return (await this.#draft(entry, await this.ground.zones(entry.siteId))).answer;
  }

  async #draft(entry: LabImport, zones: readonly Zone[]): Promise<Draft> {
    const { header, rows } = readLabTable(entry.content);
    const columns = correctColumns(header.columns, entry.choices?.columns);
    const inputs = new Map<number, LabResultInput>();
    const used = new Map<string, number>();
    const answers: LabImportRowAnswer[] = [];
    for (const { line, cells } of rows) {
      const { row, faults: cellFaults } = readLabRow(cells, columns);
      const faults = [...cellFaults];
      const chosen = entry.choices?.rows.find((choice) => choice.line === line);
      const zoneId = chosen ? chosen.zoneId : matchZone(row.label, zones);
      const depth = row.depth ?? entry.depth ?? undefined;

      const first = zoneId === null ? undefined : used.get(zoneId);
      if (first !== undefined)
        faults.push({
          field: 'label',
          message: `Line ${first} already goes to this zone: choose another for one of them.`,
        });
      else if (zoneId !== null) used.set(zoneId, line);

      if (zoneId === null) {
        if (row.label !== '' && !chosen)
          faults.push({ field: 'label', message: `No zone here has the bag label "${row.label}": choose its zone.` });
        else if (chosen) faults.push({ field: 'label', message: 'Set to go nowhere.' });
      }
      const { nutrients, ...read } = row;
      const input = plainToInstance(LabResultInput, {
        ...read,
        zoneId,
        depth,
        extractant: entry.extractant,
        ...(row.bufferPh === undefined ? {} : { bufferMethod: entry.bufferMethod }),
        nutrients,
      });
      const known = new Set(cellFaults.map(({ field }) => field));
      for (const { field, message } of problemFields(await validate(input))) {
        const root = (field.startsWith('nutrients.') ? field.split('.')[1] : field) as 'label';
        if (field !== 'zoneId' && !known.has(root) && !(field === 'label' && row.label === ''))
          faults.push({ field: root, message });
      }
      if (zoneId !== null && faults.length === 0) inputs.set(line, input);
      answers.push({
        line,
        cells: [...cells],
        row: { ...row, ...(depth === undefined ? {} : { depth }) },
        zoneId,
        zoneChosen: chosen !== undefined,
        faults,
        questions: questionsAbout({ depth, organicMatter: row.organicMatter, nutrients }),
        resultId: entry.imported[line] ?? null,
      });
    }
    const { id, version, siteId, fileName, extractant, bufferMethod, depth, imported } = entry;
    const status = Object.keys(imported).length > 0 ? 'imported' : 'open';
    return {
      inputs,
      answer: { id, version, siteId, fileName, status, columns, extractant, bufferMethod, depth, rows: answers },
    };
  }
}

/** The zone whose bag label or name the row carries; spaces, case and hyphens aside. */
function matchZone(label: string, zones: readonly Zone[]): string | null {
  const plain = (text: string): string => text.toLowerCase().replace(/[^a-z0-9]/g, '');
  const wanted = plain(label);
  if (wanted === '') return null;
  return (
    (zones.find((zone) => plain(zone.label) === wanted) ?? zones.find((zone) => plain(zone.name) === wanted))?.id ??
    null
  );
}
