import { AsyncLocalStorage } from 'node:async_hooks';
import { Injectable } from '@nestjs/common';

/** The one clock of the server: nothing else asks the machine for the time. Which day that is, is a matter of the place. */
@Injectable()
export class Clock {
  readonly #asOf = new AsyncLocalStorage<Date>();

  now(): Date {
    return this.#asOf.getStore() ?? new Date();
  }

  /** Do some work as if it were another time: for playing past years of a scenario through. */
  asOf<T>(at: Date, work: () => Promise<T>): Promise<T> {
    return this.#asOf.run(at, work);
  }
}
