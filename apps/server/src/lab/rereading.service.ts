import { type LabField, readLabRow } from '@glenfold/agronomy';
import type { ColumnChoice } from '@glenfold/contract';
import { Injectable, Logger } from '@nestjs/common';
import { LessThan } from 'typeorm';
import { Practice } from '../people/practice.entity.ts';
import { Door } from '../platform/door.ts';
import { Records, type RecordsOf } from '../platform/records.ts';
import { Threads } from '../platform/threads.ts';
import { Work } from '../platform/work.ts';
import { type RunAtWork, RunKinds } from '../runs/runKinds.ts';
import { RunsService } from '../runs/runs.service.ts';
import { SamplingService } from '../sampling/sampling.service.ts';
import { plural } from '../steps/words.ts';
import { LabResult } from './labResult.entity.ts';
import { LabReport } from './labReport.entity.ts';
import { besideOf } from './beside.ts';
import { LabService } from './lab.service.ts';
import { READER, correctColumns, labTable } from './labTable.ts';

const KIND = 'reread';

/** Fields of the first reader: where such a column is not read, somebody decided so. */
const KNOWN_BEFORE: ReadonlySet<LabField> = new Set([
  ...(['label', 'labNumber', 'sampledOn', 'depth', 'soilPh', 'saltPh', 'bufferPh'] as const),
  ...(['p', 'k', 'ca', 'mg', 'organicMatter'] as const),
]);

/**
 * Reads laboratories' files again that an older reader has read: what it knew no field for, and kept in words, comes back
 * as values. Values that are known stay as they are, also where somebody corrected them.
 */
@Injectable()
export class RereadingService {
  readonly #log = new Logger(RereadingService.name);

  constructor(
    private readonly records: Records,
    private readonly door: Door,
    private readonly work: Work,
    private readonly lab: LabService,
    private readonly sampling: SamplingService,
    private readonly runs: RunsService,
    private readonly threads: Threads,
    kinds: RunKinds,
  ) {
    kinds.register({ name: KIND, begin: () => this.begin(), work: (run) => this.again(run) });
  }

  /** Ask for it in every practice that keeps such files. */
  async begin(): Promise<void> {
    const practices = await this.door.open((manager) => manager.find(Practice));
    for (const { id: practiceId } of practices)
      await this.work.run({ practiceId, person: null, role: null }, async () => {
        if ((await this.#old()).length > 0) await this.runs.start(KIND, 'Reading kept laboratory files again');
      });
  }

  /** Each file stands or falls by itself, and is read once. */
  async again(run: RunAtWork): Promise<string> {
    const old = await this.#old();
    let failed = 0;
    for (const [index, { id }] of old.entries()) {
      await run.at(index, old.length);
      await this.records
        .together((of) => this.#again(of, id))
        .catch((error: unknown) => {
          failed += 1;
          this.#log.error(error);
        });
    }
    await run.at(old.length, old.length);
    const read = `${plural(old.length - failed, 'file')} read again`;
    return failed > 0 ? `${read}; ${plural(failed, 'file')} could not be read and stayed as they were.` : `${read}.`;
  }

  #old(): Promise<Array<Pick<LabReport, 'id'>>> {
    return this.records
      .of(LabReport)
      .findWithout(['content', 'found'], { readBy: LessThan(READER) }, { createdAt: 'ASC', id: 'ASC' });
  }

  async #again(of: RecordsOf, id: string): Promise<void> {
    const report = await of(LabReport).locked(id);
    // Another copy of the server may have read it meanwhile.
    if (report.readBy >= READER) return;
    const table = await this.threads.run(labTable, report.content);
    // What the person set stays; a column that the older reader had no field for is read now.
    const chosen = report.choices?.columns.map((column, index): ColumnChoice => {
      const { field = null, unit = null, basis = 'element', method = null } = table.header.columns[index] ?? {};
      const isNew = column.field === null && field !== null && !KNOWN_BEFORE.has(field);
      return isNew ? { field, unit, basis, method } : column;
    });
    const columns = correctColumns(table.header.columns, chosen);
    const bags = await this.sampling.filled(report.siteId);
    for (const [line, resultId] of Object.entries(report.imported)) {
      const row = table.rows.find((one) => one.line === Number(line));
      const [result] = await of(LabResult).findEver({ id: resultId });
      if (!row || !result || result.deletedAt) continue;
      const { values } = readLabRow(row.cells, columns, {
        ...table,
        dateOrder: report.dateOrder ?? table.dateOrder,
      }).row;
      const bag = bags.find((one) => one.id === result.sample.bagId);
      await this.lab.found(of, resultId, values, besideOf(columns, row.cells, bag));
    }
    const choices = report.choices && chosen ? { ...report.choices, columns: chosen } : report.choices;
    await of(LabReport).change(id, { found: table, choices, readBy: READER });
  }
}
