import { availableParallelism } from 'node:os';
import { Injectable, type OnApplicationShutdown } from '@nestjs/common';
import { Piscina } from 'piscina';
import { Installation } from './installation.ts';
import { Problem } from './problem.ts';
import type { ThreadOutcome, ThreadTask } from './thread.ts';
import type { Threaded } from './threaded.ts';

const tooMuch = (what: string): Problem =>
  new Problem(
    422,
    'Too much at once',
    `This took more than ${what} and was stopped; nothing of it was stored. Send it in smaller parts.`,
  );

/** Heavy work beside the requests: a few threads, each piece with a limit of time and of memory. */
@Injectable()
export class Threads implements OnApplicationShutdown {
  /** Of one piece of work: longer than anything that people bring takes on a slow machine, ms; and MB. */
  protected readonly limits: { readonly time: number; readonly memory: number } = { time: 30_000, memory: 512 };
  #pool: Piscina | undefined;

  constructor(private readonly installation: Installation) {}

  /**
   * Work something out on a thread.
   * @throws {Problem} as the function does, or where it takes too long or too much memory
   */
  async run<A extends readonly unknown[], R>(task: Threaded<A, R>, ...args: A): Promise<R> {
    if (!this.installation.threads) {
      const result = await task.work(...args);
      // What cannot be copied between threads shows here too.
      structuredClone([args, result]);
      return result;
    }
    this.#pool ??= new Piscina({
      filename: new URL(`./thread${import.meta.url.slice(-3)}`, import.meta.url).href,
      minThreads: 1,
      maxThreads: Math.max(2, availableParallelism() - 1),
      idleTimeout: 60_000,
      resourceLimits: { maxOldGenerationSizeMb: this.limits.memory },
    });
    const given: ThreadTask = { module: task.module, name: task.name, args };
    const time = AbortSignal.timeout(this.limits.time);
    const outcome = (await this.#pool.run(given, { signal: time }).catch((error: unknown) => {
      if (time.aborted) throw tooMuch(`${this.limits.time / 1000} seconds`);
      if ((error as { code?: string }).code === 'ERR_WORKER_OUT_OF_MEMORY')
        throw tooMuch(`${this.limits.memory} MB of memory`);
      throw error;
    })) as ThreadOutcome;
    if ('value' in outcome) return outcome.value as R;
    const { status, title, detail, errors } = outcome.refused;
    throw new Problem(status, title, detail, errors);
  }

  async onApplicationShutdown(): Promise<void> {
    await this.#pool?.destroy();
  }
}
