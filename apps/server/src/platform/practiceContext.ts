import { AsyncLocalStorage } from 'node:async_hooks';
import { Injectable } from '@nestjs/common';

/** Which practice the work at hand is done for: a request's, or an import's. */
@Injectable()
export class PracticeContext {
  readonly #storage = new AsyncLocalStorage<string>();

  /** Do some work in the name of a practice. */
  run<T>(practiceId: string, work: () => T): T {
    return this.#storage.run(practiceId, work);
  }

  /** @throws when no practice is known: unscoped work is a fault, never a default. */
  get practiceId(): string {
    const id = this.#storage.getStore();
    if (!id) throw new Error('No practice is set for this work.');
    return id;
  }
}
