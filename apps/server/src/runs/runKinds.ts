import { Injectable } from '@nestjs/common';

/** The work at hand, as whoever does it sees it. */
export interface RunAtWork {
  /**
   * Say how far it is, after each part that stands by itself.
   * @throws where somebody stopped it, or this server ends: let it pass, and leave the rest for another time
   */
  readonly at: (done: number, total: number) => Promise<void>;
}

/**
 * A kind of long work. It may be begun again after a server was lost in the middle: what was done must be told from
 * what was not, and done once.
 */
export interface RunKind {
  readonly name: string;
  /** @returns what came of it, in words */
  readonly work: (run: RunAtWork) => Promise<string>;
  /** Asks for itself when a server starts. */
  readonly begin?: () => Promise<void>;
}

/** Somebody stopped it. */
export class Stopped extends Error {}

/** What can run, and what is done each minute. Written beside the step that does it, which registers here. */
@Injectable()
export class RunKinds {
  readonly #kinds = new Map<string, RunKind>();
  readonly #minutes: Array<() => Promise<void>> = [];

  register(kind: RunKind): void {
    this.#kinds.set(kind.name, kind);
  }

  /** Do something each minute: on one server, however many share the database. */
  eachMinute(work: () => Promise<void>): void {
    this.#minutes.push(work);
  }

  find(name: string): RunKind | undefined {
    return this.#kinds.get(name);
  }

  get all(): readonly RunKind[] {
    return [...this.#kinds.values()];
  }

  get minutes(): ReadonlyArray<() => Promise<void>> {
    return this.#minutes;
  }
}
