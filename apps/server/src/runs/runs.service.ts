import type { RunAnswer } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import type PgBoss from 'pg-boss';
import { Problem, notFound } from '../platform/problem.ts';
import { Records } from '../platform/records.ts';
import { Work } from '../platform/work.ts';
import { RUNS } from './queue.ts';
import type { Run } from './run.entity.ts';

/** What a run carries through the queue. */
export interface Ticket {
  readonly runId: string;
  readonly practiceId: string;
}

/** Long work of the practice at hand: asked for, looked at, stopped, begun again. */
@Injectable()
export class RunsService {
  #queue: PgBoss | undefined;

  constructor(
    private readonly records: Records,
    private readonly work: Work,
  ) {}

  /** Set once the queue is open. */
  use(queue: PgBoss): void {
    this.#queue = queue;
  }

  /**
   * Ask for long work, in the transaction that is open: one of a kind at a time.
   * @returns nothing where such work waits or runs already
   */
  start(kind: string, title: string): Promise<RunAnswer | undefined> {
    return this.records.scoped(async (manager) => {
      const { practiceId, person } = this.work.worker;
      const [run] = await manager.query<Run[]>(
        `INSERT INTO run ("practiceId", kind, title, "askedBy") VALUES ($1, $2, $3, $4)
           ON CONFLICT ("practiceId", kind) WHERE state IN ('waiting', 'running') DO NOTHING RETURNING *`,
        [practiceId, kind, title, person?.name ?? null],
      );
      if (!run) return undefined;
      const ticket: Ticket = { runId: run.id, practiceId };
      await this.#open.send(RUNS, ticket, { id: run.id, db: executor(manager) });
      return runAnswer(run);
    });
  }

  /** What waits, runs or failed, and what ended a short time ago; the newest first. */
  async all(): Promise<RunAnswer[]> {
    const runs = await this.records.ask<Run>(
      `SELECT * FROM run WHERE "practiceId" = $1 AND "deletedAt" IS NULL
         AND (state IN ('waiting', 'running', 'failed') OR "endedAt" > now() - interval '10 minutes')
       ORDER BY "createdAt" DESC, id LIMIT 20`,
    );
    return runs.map(runAnswer);
  }

  /** What waits does not begin; what runs ends after the part it is at. What was done stays done. */
  stop(id: string): Promise<RunAnswer> {
    return this.records.scoped(async (manager) => {
      const changed = await this.#update(
        `"stopAsked" = true, state = CASE state WHEN 'waiting' THEN 'stopped' ELSE state END,
         "endedAt" = CASE state WHEN 'waiting' THEN now() END`,
        id,
        `state IN ('waiting', 'running')`,
      );
      if (changed.state === 'stopped') await this.#open.cancel(RUNS, id, { db: executor(manager) });
      return changed;
    });
  }

  /** Begin again what failed or was stopped. */
  again(id: string): Promise<RunAnswer> {
    return this.records.scoped(async () => {
      const ended = await this.#update(`"deletedAt" = now()`, id, `state IN ('failed', 'stopped')`);
      const begun = await this.start(ended.kind, ended.title);
      if (!begun)
        throw new Problem(409, 'Runs already', `“${ended.title}” runs already: wait for it, or stop it first.`);
      return begun;
    });
  }

  /** Have done with what ended. */
  async dismiss(id: string): Promise<void> {
    await this.#update(`"deletedAt" = now()`, id, `state NOT IN ('waiting', 'running')`);
  }

  async #update(set: string, id: string, where: string): Promise<RunAnswer> {
    // What is given back by an UPDATE comes with how many rows it was.
    const [[changed]] = (await this.records.ask<object>(
      `UPDATE run SET ${set} WHERE "practiceId" = $1 AND id = $2 AND "deletedAt" IS NULL AND ${where} RETURNING *`,
      [id],
    )) as unknown as [Run[]];
    if (changed) return runAnswer(changed);
    const [run] = await this.records.ask<Run>(
      `SELECT * FROM run WHERE "practiceId" = $1 AND id = $2 AND "deletedAt" IS NULL`,
      [id],
    );
    if (!run) notFound();
    throw new Problem(
      409,
      'Changed meanwhile',
      `“${run.title}” is ${run.state} by now: look at the list again, and choose what fits.`,
    );
  }

  get #open(): PgBoss {
    if (!this.#queue) throw new Error('The queue is not open yet.');
    return this.#queue;
  }
}

/** Lets the queue write in the transaction that is open: the work and its ticket stand or fall together. */
function executor(open: { query: (text: string, values: unknown[]) => Promise<unknown> }): PgBoss.Db {
  return { executeSql: async (text, values) => ({ rows: (await open.query(text, values)) as unknown[] }) };
}

function runAnswer({
  id,
  kind,
  title,
  state,
  done,
  total,
  words,
  stopAsked,
  askedBy,
  createdAt,
  endedAt,
}: Run): RunAnswer {
  return {
    ...{ id, kind, title, state, done, total, words, askedBy },
    stopping: stopAsked && state === 'running',
    askedAt: createdAt.toISOString(),
    endedAt: endedAt?.toISOString() ?? null,
  };
}
