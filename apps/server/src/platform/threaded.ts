/** A pure function that may take long: it is worked out on a thread of its own, so that no other request waits for it. */
export interface Threaded<A extends readonly unknown[], R> {
  /** The module it stands in, which a thread loads by itself. */
  readonly module: string;
  /** The name under which that module exports this very object. */
  readonly name: string;
  readonly work: (...args: A) => R | Promise<R>;
}

/**
 * Declare such a function.
 *
 * @param module `import.meta.url` of the module that exports it
 * @param name under which it is exported
 * @param work takes and gives back what can be copied between threads: no functions, no classes but errors of ours
 */
export const threaded = <A extends readonly unknown[], R>(
  module: string,
  name: string,
  work: (...args: A) => R | Promise<R>,
): Threaded<A, R> => ({ module, name, work });
