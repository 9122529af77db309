import { randomUUID } from 'node:crypto';
import type { Extractant } from '@glenfold/agronomy';
import type { HistoryAnswer, HistoryInput } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { Problem } from '../platform/problem.ts';
import { Records } from '../platform/records.ts';
import { Threads } from '../platform/threads.ts';
import { Work } from '../platform/work.ts';
import { FileStore } from '../ports/fileStore.ts';
import { type RunAtWork, RunKinds } from '../runs/runKinds.ts';
import { RunsService } from '../runs/runs.service.ts';
import { HistoryImport } from './historyImport.entity.ts';
import type { LabResult } from './labResult.entity.ts';
import { type HistoryKind, type HistoryPart, type HistoryRow, historyFile, historyPart } from './historyTable.ts';

const KIND = 'history';
/** Lines that are read on one thread and go into the database at once. */
const PART = 2_500;
/** Faults that are told of a file. */
const TOLD = 30;

/** A line that has its zone. */
interface Placed extends HistoryRow {
  readonly siteId: string;
  readonly zoneId: string;
}

/** Many years' tests of many sites, taken in as one piece of long work: all of it, or nothing and why. */
@Injectable()
export class HistoriesService {
  constructor(
    private readonly records: Records,
    private readonly files: FileStore,
    private readonly threads: Threads,
    private readonly runs: RunsService,
    private readonly work: Work,
    kinds: RunKinds,
  ) {
    kinds.register({ name: KIND, work: (run) => this.take(run) });
  }

  async list(): Promise<HistoryAnswer[]> {
    return (await this.records.of(HistoryImport).find({}, { createdAt: 'DESC' })).map(told);
  }

  /** Keep a history, and ask for it to be taken in. @throws a 409 problem where it is in already, or another is on its way */
  async add({ fileName, bytes }: HistoryInput): Promise<HistoryAnswer> {
    const original = await this.files.keep(Buffer.from(bytes, 'base64'));
    return this.records.together(async (of) => {
      await this.records.ask('SELECT pg_advisory_xact_lock(hashtextextended($2, 0)), $1::uuid', [original]);
      const [known] = (await of(HistoryImport).find({ original })).filter(({ state }) => state !== 'refused');
      if (known)
        throw new Problem(
          409,
          'In already',
          `This very file ${known.state === 'imported' ? 'was taken in' : 'waits to be taken in'}, as ${known.fileName}. Nothing is done twice.`,
        );
      const added = await of(HistoryImport).add({ fileName, original, state: 'waiting', rows: null, words: [] });
      // Where one is at it already, this one is next.
      await this.runs.start(KIND, `Taking in ${fileName}`);
      return told(added);
    });
  }

  /** Take in what waits, file by file. What was stopped or lost in the middle left nothing behind, and is taken in whole. */
  async take(run: RunAtWork): Promise<string> {
    const said: string[] = [];
    for (;;) {
      const [waiting] = await this.records.of(HistoryImport).find({ state: 'waiting' }, { createdAt: 'ASC' });
      if (!waiting) return said.join(' ') || 'Nothing waits.';
      said.push(await this.#take(waiting, run));
    }
  }

  async #take({ id, fileName, original }: HistoryImport, run: RunAtWork): Promise<string> {
    const refuse = async (words: readonly string[]): Promise<string> => {
      await this.records.of(HistoryImport).change(id, { state: 'refused', words: [...words] });
      return `Nothing of ${fileName} was taken in: ${words[0]}`;
    };
    let parts: HistoryPart[];
    let extractant: Extractant | null;
    try {
      const file = await this.threads.run(historyFile, await this.files.read(original));
      extractant = file.header.extractant;
      parts = await Promise.all(partsOf(file.rows).map((rows) => this.threads.run(historyPart, { ...file, rows })));
    } catch (error) {
      if (error instanceof Problem) return refuse([error.detail]);
      throw error;
    }
    const total = parts.reduce((all, { rows }) => all + rows.length, 0);
    await run.at(0, total);
    const { placed, faults } = await this.#place(parts, extractant);
    if (faults.length > 0) return refuse(faults);
    await this.records.together(async (of) => {
      // One line in the list of changes says it all: a million would say nothing.
      // Another server may be at it, or be done with it: one of the two takes it in.
      if ((await of(HistoryImport).locked(id)).state !== 'waiting') return;
      await this.#audited(false);
      let done = 0;
      for (const [index, part] of parts.entries()) {
        await this.#insert(placed[index]!, part, { extractant: extractant ?? 'mehlich-3', origin: fileName });
        done += part.rows.length;
        // Told outside of this transaction: nobody would see it before the end.
        const so = done;
        await this.work.run(this.work.worker, () => run.at(so, total));
      }
      await this.#audited(true);
      await of(HistoryImport).change(id, { state: 'imported', rows: total });
    });
    const zones = new Set(placed.flat().map(({ zoneId }) => zoneId)).size;
    return `${total === 1 ? '1 test' : `${total.toLocaleString('en-US')} tests`} of ${zones === 1 ? '1 zone' : `${zones} zones`} in the record.`;
  }

  /** Lines with the zones that they name; what keeps any from having one. */
  async #place(parts: readonly HistoryPart[], extractant: Extractant | null): Promise<{ placed: Placed[][]; faults: string[] }> {
    const zones = await this.records.ask<{ site: string; siteId: string; id: string; name: string; label: string }>(
      `SELECT lower(s."name") AS site, s."id" AS "siteId", z."id", lower(z."name") AS name, lower(z."label") AS label
       FROM zone z JOIN site s ON s."id" = z."siteId"
       WHERE z."practiceId" = $1 AND z."deletedAt" IS NULL AND s."deletedAt" IS NULL`,
    );
    const known = new Map<string, (typeof zones)[number]>();
    // A name that two zones share names neither: a test must not land on the wrong lawn.
    const shared = new Set<string>();
    for (const zone of zones)
      for (const word of [zone.label, zone.name]) {
        const key = `${zone.site}\u0001${word}`;
        if ((known.get(key) ?? zone).id !== zone.id) shared.add(key);
        known.set(key, zone);
      }
    const sites = new Set(zones.map(({ site }) => site));
    const faults: string[] = [];
    const strange = new Map<string, number[]>();
    const place = (row: HistoryRow, values: number): Placed[] => {
      const key = `${row.site.toLowerCase()}\u0001${row.zone.toLowerCase()}`;
      const zone = known.get(key);
      if (!zone || shared.has(key)) {
        const what = zone ? `Several zones of ${row.site} are called “${row.zone}”; give the label` : sites.has(row.site.toLowerCase())
          ? `${row.site} has no zone “${row.zone}”`
          : `No site is called “${row.site}”`;
        strange.set(what, [...(strange.get(what) ?? []), row.line]);
      }
      const own = [
        ...row.faults,
        ...(row.sampledOn === null ? ['no day'] : []),
        ...(row.depth === null ? ['no depth, which scales the lime'] : []),
        ...(values === 0 ? ['no value'] : []),
      ];
      if (own.length > 0) faults.push(`Line ${row.line}: ${own.join('; ')}.`);
      return zone ? [{ ...row, siteId: zone.siteId, zoneId: zone.id }] : [];
    };
    const placed = parts.map(({ rows, first }) => rows.flatMap((row, at) => place(row, first[at + 1]! - first[at]!)));
    if (extractant === null && parts.some(({ kinds }) => kinds.some(({ analyte }) => analyte === 'p' || analyte === 'k')))
      faults.unshift('No line says by which extractant P and K were found: name it in the heads, such as “P Mehlich-3 ppm”.');
    for (const [what, lines] of strange)
      faults.push(`${what}: ${lines.length === 1 ? 'line' : 'lines'} ${lines.slice(0, 5).join(', ')}${lines.length > 5 ? ` and ${lines.length - 5} more` : ''}. Add it, or mend the name.`);
    const more = faults.length - TOLD;
    return { placed, faults: more > 0 ? [...faults.slice(0, TOLD), `And ${more} more.`] : faults };
  } // prettier-ignore

  /** Whether each row that is written stands in the list of changes, until the end of the transaction. */
  async #audited(each: boolean): Promise<void> {
    await this.records.ask(`SELECT set_config('glenfold.loading', $2, true), $1::uuid`, [each ? '' : 'on']);
  }

  /** @param rows those of the part, each with its zone */
  async #insert(rows: readonly Placed[], part: HistoryPart, { extractant, origin }: Pick<LabResult, 'extractant' | 'origin'>): Promise<void> {
    const [samples, results] = [listed(rows.map(() => randomUUID())), listed(rows.map(() => randomUUID()))];
    const days = listed(rows.map(({ sampledOn }) => sampledOn!));
    await this.records.ask(
      `INSERT INTO sample ("id", "practiceId", "siteId", "label", "sampledOn", "depth", "of")
       SELECT i, $1, s, l, d, c, 'soil' FROM unnest($2::uuid[], $3::uuid[], $4::text[], $5::date[], $6::float8[]) AS t (i, s, l, d, c)`,
      [samples, listed(rows.map(({ siteId }) => siteId)), rows.map(({ zone }) => zone), days, listed(rows.map(({ depth }) => depth!))],
    );
    await this.records.ask(
      `INSERT INTO sample_zone ("practiceId", "sampleId", "zoneId") SELECT $1, s, z FROM unnest($2::uuid[], $3::uuid[]) AS t (s, z)`,
      [samples, listed(rows.map(({ zoneId }) => zoneId))],
    );
    await this.records.ask(
      `INSERT INTO lab_result ("id", "practiceId", "sampleId", "labNumber", "extractant", "origin")
       SELECT i, $1, s, n, $5, $6 FROM unnest($2::uuid[], $3::uuid[], $4::text[]) AS t (i, s, n)`,
      [results, samples, rows.map(({ labNumber }) => labNumber), extractant, origin],
    );
    const lines = rows.flatMap((_, at) => Array<number>(part.first[at + 1]! - part.first[at]!).fill(at + 1));
    const kinds = <T>(of: (kind: HistoryKind) => T): T[] => part.kinds.map(of);
    // What the values of a line, and those of a kind, share goes over once.
    await this.records.ask(
      `INSERT INTO measurement ("practiceId", "sampleId", "resultId", "takenOn", "value", "analyte", "method", "unit", "basis", "qualifier")
       SELECT $1, ($2::uuid[])[l], ($3::uuid[])[l], ($4::date[])[l], v,
         ($8::text[])[k], ($9::text[])[k], ($10::text[])[k], ($11::text[])[k], ($12::text[])[k]
       FROM unnest($5::int[], $6::float8[], $7::int[]) AS t (l, v, k)`,
      [
        ...[samples, results, days, listed(lines), listed(part.value), listed(part.kind.map((kind) => kind + 1))],
        ...[kinds(({ analyte }) => analyte), kinds(({ method }) => method), kinds(({ unit }) => unit)],
        ...[kinds(({ basis }) => basis), kinds(({ qualifier }) => qualifier)],
      ],
    );
  } // prettier-ignore
}

/** A list of what needs no quotes, as the database writes it: each by itself through the driver costs more than to insert it. */
const listed = (all: ReadonlyArray<number | string> | Float64Array | Int32Array): string => `{${all.join(',')}}`;

const partsOf = <T>(rows: readonly T[]): T[][] =>
  Array.from({ length: Math.ceil(rows.length / PART) }, (_, at) => rows.slice(at * PART, (at + 1) * PART));

const told = ({ id, fileName, state, rows, words, createdAt }: HistoryImport): HistoryAnswer => ({
  ...{ id, fileName, state, rows, words: [...words], at: createdAt.toISOString() },
});
