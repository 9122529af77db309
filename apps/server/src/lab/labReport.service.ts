import { type Arrangement, type SampleRead, arrangementFor } from '@glenfold/agronomy';
import type { LabFileInput, LabProfileInput, LabReportAnswer, LabReportChoices } from '@glenfold/contract';
import { Injectable, StreamableFile } from '@nestjs/common';
import { GroundService } from '../ground/ground.service.ts';
import { SiteMail } from '../people/siteMail.service.ts';
import { Problem, refuse } from '../platform/problem.ts';
import { Records, type RecordsOf } from '../platform/records.ts';
import { Threads } from '../platform/threads.ts';
import { FileStore } from '../ports/fileStore.ts';
import { SamplingService } from '../sampling/sampling.service.ts';
import { LabService } from './lab.service.ts';
import { type Draft, type Ground, columnsOf, labDrafts } from './labDraft.ts';
import type { LabProfile } from './labProfile.entity.ts';
import { LabProfilesService, rowsBy } from './labProfiles.service.ts';
import { LabReport } from './labReport.entity.ts';
import { READER, type ReadFile, labFile, readLabTable } from './labTable.ts';

/** More than any laboratory reports at once; a person cannot look through more, and a server not at once. */
const MOST_SAMPLES = 2_000;

/** Tests of a zone that a new one is laid beside. */
const LOOKED_BACK = 4;

/** A file as it is kept before anybody looked through it. */
function fresh({ content, mediaType, readAs, table }: ReadFile, way: LabProfile | undefined) {
  const { header } = table;
  return {
    ...{ content, mediaType, readAs, found: table, readBy: READER, choices: null, imported: {} },
    profileId: way?.id ?? null,
    extractant: header.extractant ?? way?.extractant ?? null,
    bufferMethod: header.bufferMethod ?? way?.bufferMethod ?? null,
    limeFactor: way?.limeFactor ?? null,
    depth: way?.depth ?? null,
    dateOrder: way?.dateOrder ?? null,
  };
}

/** A file is looked at first, corrected, and only then imported; it is kept whole, unreadable rows too. */
@Injectable()
export class LabReportService {
  constructor(
    private readonly records: Records,
    private readonly ground: GroundService,
    private readonly lab: LabService,
    private readonly sampling: SamplingService,
    private readonly threads: Threads,
    private readonly files: FileStore,
    private readonly profiles: LabProfilesService,
    private readonly mail: SiteMail,
  ) {}

  async list(siteId: string): Promise<LabReportAnswer[]> {
    const ground = await this.#ground(siteId);
    const found = await this.records.of(LabReport).find({ siteId }, { createdAt: 'DESC' });
    return (await this.threads.run(labDrafts, found, ground)).map(({ answer }) => answer);
  }

  async preview(siteId: string, file: LabFileInput): Promise<LabReportAnswer> {
    await this.ground.site(siteId);
    const entry = await this.receive(siteId, file);
    return (await this.#draft(entry, await this.#ground(siteId))).answer;
  }

  /**
   * Keep a laboratory's file, to be looked through and read; the same file again is the one that is there.
   * @throws a problem in words for what is no table of results
   */
  async receive(siteId: string, { fileName, content = '', bytes }: LabFileInput): Promise<LabReport> {
    const original = Buffer.from(bytes ?? content, bytes === undefined ? 'utf8' : 'base64');
    const read = await this.threads.run(labFile, original);
    const { table: found } = read;
    if (found.rows.length > MOST_SAMPLES)
      throw new Problem(
        422,
        'Too many samples',
        `This file has ${found.rows.length.toLocaleString('en-US')} samples; at most ${MOST_SAMPLES.toLocaleString('en-US')} of one file are looked through at once. Split it, and bring each part. Nothing of it was stored.`,
      );
    const digest = await this.files.keep(original);
    const ways = await this.profiles.all();
    const way = arrangementFor(found.header.columns.map(({ header }) => header), ways); // prettier-ignore
    return this.records.together(async (of) => {
      // The same file dropped twice at once is one.
      await this.records.ask('SELECT pg_advisory_xact_lock(hashtextextended($2, 0)), $1::uuid', [
        `${siteId} ${digest}`,
      ]);
      const [known] = await of(LabReport).find({ siteId, original: digest });
      return known ?? of(LabReport).add({ siteId, fileName, original: digest, ...fresh(read, way) });
    });
  }

  /** A file as it came. */
  async original(id: string): Promise<StreamableFile> {
    const { original, mediaType, fileName, content } = await this.records.of(LabReport).one(id);
    return new StreamableFile(original ? await this.files.read(original) : Buffer.from(content), {
      type: mediaType ?? 'text/plain',
      disposition: `attachment; filename*=UTF-8''${encodeURIComponent(fileName)}`,
    });
  }

  /** Keep how the columns of a file were put right as its laboratory's way, with the file to test it by. */
  learn(id: string, name: string): Promise<LabReportAnswer> {
    return this.records.together(async (of) => {
      const entry = await of(LabReport).locked(id);
      const table = entry.found ?? readLabTable(entry.content);
      const { columns } = columnsOf(entry, table, await this.profiles.all());
      const { extractant, bufferMethod, limeFactor, depth } = entry;
      const way: Arrangement = {
        columns: columns.map((column) => ({ ...column, method: column.method ?? null })),
        ...{ extractant, bufferMethod, limeFactor, depth, dateOrder: entry.dateOrder ?? table.dateOrder ?? null },
      };
      const sample = { fileName: entry.fileName, content: entry.content, rows: rowsBy(entry.content, way) };
      const kept = entry.content.length <= 2_000_000 ? sample : null;
      const learned = await this.profiles.learn({ name, ...structuredClone(way), sample: kept } as LabProfileInput);
      const saved = await of(LabReport).change(id, { profileId: learned.id });
      return (await this.#draft(saved, await this.#ground(entry.siteId))).answer;
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
    const { extractant = null, bufferMethod = null, limeFactor = null, depth = null, dateOrder = null } = choices;
    const { answer: current } = await this.#draft(entry, ground);
    const values = { choices, extractant, bufferMethod, limeFactor, depth, dateOrder };
    const saved = await of(LabReport).change(id, values, { version, tell: () => current });
    return (await this.#draft(saved, ground)).answer;
  }

  /** Import every row that can be read and has a zone; the others stay with their reasons. */
  async confirm(id: string): Promise<LabReportAnswer> {
    const { siteId } = await this.records.of(LabReport).one(id);
    const confirmed = await this.records.together((of) => this.#confirm(of, id));
    const { name } = await this.ground.site(siteId);
    const words = `The laboratory’s result for ${name} is there. Your advisor reads it next, and writes what it means.`;
    await this.mail.tell({ to: 'clients', siteId, subject: `A result for ${name}`, words });
    return confirmed;
  }

  async #confirm(of: RecordsOf, id: string): Promise<LabReportAnswer> {
    const entry = await of(LabReport).locked(id);
    // Two files of one bag: the second sees what the first has brought.
    await this.records.alone(`results of ${entry.siteId}`);
    const ground = await this.#ground(entry.siteId);
    const { inputs, answer } = await this.#draft(entry, ground);
    const waiting = [...inputs].filter(([line]) => !entry.imported[line]);
    if (waiting.length === 0)
      throw new Problem(
        422,
        'Nothing to import',
        answer.rows.some(({ doubts, resultId }) => resultId === null && doubts.some(({ grave }) => grave))
          ? 'No row of this file is ready: accept the doubts of a row or correct it, and try again.'
          : 'No row of this file is ready: see the reason beside each, correct the columns or choose the zones, and try again.',
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
    const { siteId, original } = await this.records.of(LabReport).deleted(id);
    if (original && (await this.records.of(LabReport).find({ siteId, original })).length > 0)
      throw new Problem(409, 'There already', 'The same file was brought in again meanwhile: go on with that one.');
    const entry = await this.records.of(LabReport).restore(id);
    return (await this.#draft(entry, await this.#ground(entry.siteId))).answer;
  }

  async #ground(siteId: string): Promise<Ground> {
    const [zones, bags] = [await this.ground.zones(siteId), await this.sampling.filled(siteId)];
    const before = await this.lab.ofBags(new Set(bags.map(({ id }) => id)));
    const profiles = (await this.profiles.all()).map(({ id, name, columns }) => ({ id, name, columns }));
    return {
      earlier: await this.#earlier(siteId),
      profiles,
      zones: zones.map(({ id, name, label }) => ({ id, name, label })),
      bags,
      before: before.map(({ id, sampleId, values, origin, sample }) => ({
        ...{ id, sampleId, values, origin },
        sample: { bagId: sample.bagId },
      })),
    };
  }

  /** The last tests of each zone. */
  async #earlier(siteId: string): Promise<Ground['earlier']> {
    const known: Record<string, Array<SampleRead & { bagId: string | null }>> = {};
    for (const { zoneIds, values, extractant, sample, supersededById } of await this.lab.resultsOf(siteId)) {
      if (supersededById !== null || sample.of !== 'soil') continue;
      for (const zoneId of zoneIds) {
        const list = (known[zoneId] ??= []);
        if (list.length < LOOKED_BACK)
          list.push({ values, extractant, depth: sample.depth, on: sample.sampledOn, bagId: sample.bagId });
      }
    }
    return known;
  }

  async #draft(entry: LabReport, ground: Ground): Promise<Draft> {
    const [draft] = await this.threads.run(labDrafts, [entry], ground);
    return draft!;
  }
}
