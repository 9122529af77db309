import { type BeforeApplicationShutdown, Injectable, Logger } from '@nestjs/common';
import pg from 'pg';
import type PgBoss from 'pg-boss';
import { Door } from '../platform/door.ts';
import { Installation } from '../platform/installation.ts';
import { Problem } from '../platform/problem.ts';
import { Records } from '../platform/records.ts';
import { Work } from '../platform/work.ts';
import { CLOCK, RUNS, TRIES_AGAIN, openQueue } from './queue.ts';
import type { Run } from './run.entity.ts';
import { RunKinds, Stopped } from './runKinds.ts';
import { RunsService, type Ticket } from './runs.service.ts';

/** Runs that one server works on at a time. */
const HANDS = 2;
const LOOKS_EVERY = 2;
/** How soon work of a server that was lost is seen to be nobody's, ms. */
const SWEEPS_EVERY = 5_000;
const ENDS_WITHIN = 10_000;

/** This server ends, or has lost its lock: somebody else is to go on. */
class Interrupted extends Error {}

const INTERRUPTED = 'The server ended again and again while it was at it. Begin it again.';
const FAULT =
  'Something failed that is not yours to mend; the server’s log says what. Begin it again, or tell whoever runs this server.';

/**
 * This server's share of the long work. Who works on a run holds a lock of the database, which goes with its
 * connection: work of a server that was lost is begun again by another, where the lost one left it.
 */
@Injectable()
export class RunsWorker implements BeforeApplicationShutdown {
  readonly #log = new Logger(RunsWorker.name);
  /** Runs that this server holds the lock of. */
  readonly #holds = new Set<string>();
  #connection: pg.ClientConfig = {};
  #pool: pg.Pool | undefined;
  #locks: Promise<pg.Client> | undefined;
  #queue: PgBoss | undefined;
  #sweep: NodeJS.Timeout | undefined;
  /** Questions of the queue that are under way, and work that came of them. */
  #asks = 0;
  #ending = false;

  constructor(
    private readonly installation: Installation,
    private readonly door: Door,
    private readonly records: Records,
    private readonly work: Work,
    private readonly kinds: RunKinds,
    private readonly runs: RunsService,
  ) {}

  /**
   * Open the queue and take a share of it. Called once every step has said what it can do.
   *
   * @param database with the rights of the application only
   */
  async open(database: pg.ClientConfig): Promise<void> {
    this.#connection = { ...database, application_name: 'glenfold work' };
    this.#pool = new pg.Pool({ ...this.#connection, max: 2 });
    this.#pool.on('error', (error) => this.#log.warn(error));
    const pool = this.#pool;
    const queue = openQueue((text, values) => this.#counted(() => pool.query(text, values)));
    queue.on('error', (error) => this.#log.warn(error));
    await queue.start();
    this.#queue = queue;
    this.runs.use(queue);
    const often = { batchSize: 1, pollingIntervalSeconds: LOOKS_EVERY, includeMetadata: true } as const;
    for (let hand = 0; hand < HANDS; hand += 1)
      await queue.work<Ticket>(RUNS, often, ([job]) => this.#counted(() => this.#take(job!)));
    await queue.work(CLOCK, { batchSize: 1, pollingIntervalSeconds: LOOKS_EVERY }, () =>
      this.#counted(() => this.strike()),
    );
    if (this.installation.clock) await queue.schedule(CLOCK, '* * * * *');
    this.#sweep = setInterval(() => void this.sweep(), SWEEPS_EVERY).unref();
    for (const kind of this.kinds.all) await kind.begin?.().catch((error: unknown) => this.#log.error(error));
  }

  /** What runs here ends at its next part, and goes on elsewhere or at the next start. */
  async beforeApplicationShutdown(): Promise<void> {
    this.#ending = true;
    clearInterval(this.#sweep);
    const queue = this.#queue;
    if (!queue) return;
    this.#queue = undefined;
    await queue.stop({ graceful: this.#holds.size > 0, wait: true, timeout: ENDS_WITHIN });
    // What the queue was asking for, or telling, when it was stopped.
    for (let turn = 0; this.#asks > 0 && turn < 100; turn += 1) await new Promise((done) => setTimeout(done, 20));
    await this.#pool?.end();
    await (await this.#locks)?.end();
  }

  async #counted<T>(ask: () => Promise<T>): Promise<T> {
    this.#asks += 1;
    try {
      return await ask();
    } finally {
      // The next of a chain has begun when this one is no longer counted.
      setImmediate(() => (this.#asks -= 1));
    }
  }

  /** What is done each minute; what fails is logged, and does not keep the others from their turn. */
  async strike(): Promise<void> {
    if (this.#ending) return;
    this.#holds.add(CLOCK);
    for (const each of this.kinds.minutes) await each().catch((error: unknown) => this.#log.error(error));
    this.#holds.delete(CLOCK);
  }

  /** Hand back to the queue what a server that is gone was working on. */
  async sweep(): Promise<void> {
    try {
      const running = await this.door.open((manager) =>
        manager.query<Ticket[]>(`SELECT id AS "runId", "practiceId" FROM run WHERE state = 'running'`),
      );
      for (const ticket of running.filter(({ runId }) => !this.#holds.has(runId))) {
        if (!(await this.#lock(ticket.runId))) continue;
        await this.work.run({ practiceId: ticket.practiceId, person: null, role: null }, () =>
          this.#orphan(ticket.runId),
        );
        await this.#unlock(ticket.runId);
      }
    } catch (error) {
      if (!this.#ending) this.#log.error(error);
    }
  }

  async #orphan(runId: string): Promise<void> {
    // Another server may have seen it first.
    if (!(await this.#tell(runId, `state = 'waiting'`, [], `state = 'running'`))) return;
    await this.#queue!.fail(RUNS, runId, { message: 'The server that worked on it is gone.' });
    const job = await this.#queue!.getJobById(RUNS, runId);
    if (job?.state === 'failed') await this.#tell(runId, `state = 'failed', words = $3, "endedAt" = now()`, [FAULT]);
  }

  async #take({ data: { runId, practiceId }, retryCount }: PgBoss.JobWithMetadata<Ticket>): Promise<void> {
    if (this.#ending) throw new Error('This server ends.');
    // Another server is still at it, out of the queue's sight: it comes round again.
    if (!(await this.#lock(runId))) throw new Error('Held by another server.');
    this.#holds.add(runId);
    try {
      await this.work.run({ practiceId, person: null, role: null }, () => this.#do(runId, retryCount >= TRIES_AGAIN));
    } finally {
      this.#holds.delete(runId);
      await this.#unlock(runId);
    }
  }

  async #do(runId: string, last: boolean): Promise<void> {
    const run = await this.#tell(runId, `state = 'running', tries = tries + 1`, [], `state IN ('waiting', 'running')`);
    if (!run) return;
    const end = (state: string, words: string) =>
      this.#tell(runId, `state = $3, words = $4, "endedAt" = now()`, [state, words]);
    try {
      const kind = this.kinds.find(run.kind);
      if (!kind)
        throw new Problem(422, 'Unknown work', 'This server does not know such work: it may be of another version.');
      const words = await kind.work({ at: (done, total) => this.#at(runId, done, total) });
      await end('done', words);
    } catch (error) {
      if (error instanceof Stopped) {
        await end('stopped', 'Stopped. What was done until then stays done.');
        return;
      }
      // What is refused would be refused again.
      if (error instanceof Problem) {
        await end('failed', error.message);
        return;
      }
      const interrupted = error instanceof Interrupted;
      if (!interrupted) this.#log.error(error);
      if (last) await end('failed', interrupted ? INTERRUPTED : FAULT);
      else await this.#tell(runId, `state = 'waiting'`, []);
      // The queue gives it out again, after a while.
      throw error;
    }
  }

  async #at(runId: string, done: number, total: number): Promise<void> {
    const run = await this.#tell(runId, `done = $3, total = $4`, [done, total]);
    if (run?.stopAsked) throw new Stopped();
    if (this.#ending || !this.#holds.has(runId)) throw new Interrupted();
  }

  async #tell(id: string, set: string, values: readonly unknown[], where = 'true'): Promise<Run | undefined> {
    const [rows] = (await this.records.ask<object>(
      `UPDATE run SET ${set} WHERE "practiceId" = $1 AND id = $2 AND ${where} RETURNING *`,
      [id, ...values],
    )) as unknown as [Run[]];
    return rows[0];
  }

  async #lock(id: string): Promise<boolean> {
    const locks = await (this.#locks ??= this.#openLocks());
    const { rows } = await locks.query<{ held: boolean }>(
      `SELECT pg_try_advisory_lock(hashtextextended($1, 0)) AS held`,
      [id],
    );
    return rows[0]!.held;
  }

  async #unlock(id: string): Promise<void> {
    const locks = await this.#locks;
    await locks?.query(`SELECT pg_advisory_unlock(hashtextextended($1, 0))`, [id]);
  }

  async #openLocks(): Promise<pg.Client> {
    const locks = new pg.Client(this.#connection);
    // The locks are gone, so others may take over: what runs here ends at its next part.
    const gone = (error: Error): void => {
      this.#log.warn(error);
      this.#holds.clear();
      this.#locks = undefined;
    };
    locks.on('error', gone);
    await locks.connect().catch((error: unknown) => {
      gone(error as Error);
      throw error;
    });
    return locks;
  }
}
