import { setImmediate as turn } from 'node:timers/promises';

/** ms after which work in parts lets the other requests have their turn. */
const LONG = 20;

/** Work in many small parts that would keep all other requests waiting if it were done in one go. */
export class Breath {
  #since = performance.now();

  /** To be awaited after each part. */
  async drawn(): Promise<void> {
    if (performance.now() - this.#since < LONG) return;
    await turn();
    this.#since = performance.now();
  }
}
