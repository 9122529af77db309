/** What a worker that cannot go on is told as; also when its code is gone after an update. */
const FAILED = 'The work in the background stopped. Try it again; if it stops again, load the page anew.';

/** Rejects when a worker breaks: its calls alone would wait for ever. */
export function whenBroken(worker: Worker): Promise<never> {
  return new Promise((_answer, reject) => {
    const fail = (): void => reject(new Error(FAILED));
    worker.addEventListener('error', fail);
    worker.addEventListener('messageerror', fail);
  });
}

/** The answer of a worker, or its failure in words. */
export const orBroken = <T>(worker: Worker, answer: Promise<T>): Promise<T> =>
  Promise.race([answer, whenBroken(worker)]);
