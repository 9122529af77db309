import { AsyncLocalStorage } from 'node:async_hooks';
import type { Role } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';

/** Who does a piece of work, and for which practice. */
export interface Worker {
  readonly practiceId: string;
  /** Nothing when Glenfold itself does it, such as loading the demo scenario. */
  readonly person: { readonly id: string; readonly name: string } | null;
  readonly role: Role | null;
}

interface Task extends Worker {
  /** The open transaction that further reads and writes join. */
  readonly manager?: EntityManager;
}

/** What the work at hand is done for: a request's, or an import's. */
@Injectable()
export class Work {
  readonly #storage = new AsyncLocalStorage<Task>();

  /** Do some work in the name of a practice. */
  run<T>(worker: Worker, work: () => T): T {
    const { practiceId, person, role } = worker;
    return this.#storage.run({ practiceId, person, role }, work);
  }

  /** Do some work within an open transaction. */
  within<T>(manager: EntityManager, work: () => T): T {
    return this.#storage.run({ ...this.#task, manager }, work);
  }

  get worker(): Worker {
    return this.#task;
  }

  get practiceId(): string {
    return this.#task.practiceId;
  }

  get manager(): EntityManager | undefined {
    return this.#task.manager;
  }

  /** @throws when no practice is known: unscoped work is a fault, never a default. */
  get #task(): Task {
    const task = this.#storage.getStore();
    if (!task) throw new Error('No practice is set for this work.');
    return task;
  }
}
