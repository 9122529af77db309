import type { LabFileInput, LabReportAnswer, LabReportChoices } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { GroundService } from '../ground/ground.service.ts';
import { Problem, refuse } from '../platform/problem.ts';
import { Records, type RecordsOf } from '../platform/records.ts';
import { Threads } from '../platform/threads.ts';
import { SamplingService } from '../sampling/sampling.service.ts';
import { LabService } from './lab.service.ts';
import { type Draft, type Ground, labDrafts } from './labDraft.ts';
import { LabReport } from './labReport.entity.ts';
import { READER, labTable } from './labTable.ts';

/** More than any laboratory reports at once; a person cannot look through more, and a server not at once. */
const MOST_SAMPLES = 2_000;

/** A file is looked at first, corrected, and only then imported; it is kept whole, unreadable rows too. */
@Injectable()
export class LabReportService {
  constructor(
    private readonly records: Records,
    private readonly ground: GroundService,
    private readonly lab: LabService,
    private readonly sampling: SamplingService,
    private readonly threads: Threads,
  ) {}

  async list(siteId: string): Promise<LabReportAnswer[]> {
    const ground = await this.#ground(siteId);
    const found = await this.records.of(LabReport).find({ siteId }, { createdAt: 'DESC' });
    return (await this.threads.run(labDrafts, found, ground)).map(({ answer }) => answer);
  }

  async preview(siteId: string, file: LabFileInput): Promise<LabReportAnswer> {
    const ground = await this.#ground(siteId);
    return (await this.#draft(await this.receive(siteId, file), ground)).answer;
  }

  /** Keep a laboratory's file, to be looked through and read. @throws a problem in words for what is no table of results */
  async receive(siteId: string, { fileName, content }: LabFileInput): Promise<LabReport> {
    const found = await this.threads.run(labTable, content);
    if (found.rows.length > MOST_SAMPLES)
      throw new Problem(
        422,
        'Too many samples',
        `This file has ${found.rows.length.toLocaleString('en-US')} samples; at most ${MOST_SAMPLES.toLocaleString('en-US')} of one file are looked through at once. Split it, and bring each part. Nothing of it was stored.`,
      );
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
    const before = await this.lab.ofBags(new Set(bags.map(({ id }) => id)));
    return {
      zones: zones.map(({ id, name, label }) => ({ id, name, label })),
      bags,
      before: before.map(({ id, sampleId, values, origin, sample }) => ({
        ...{ id, sampleId, values, origin },
        sample: { bagId: sample.bagId },
      })),
    };
  }

  async #draft(entry: LabReport, ground: Ground): Promise<Draft> {
    const [draft] = await this.threads.run(labDrafts, [entry], ground);
    return draft!;
  }
}
