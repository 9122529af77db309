import { expose } from 'comlink';
import { readOutcome } from './readOutcome.ts';

/** Reads a large file beside the page. */
const work = { read: readOutcome };
export type ReadFileWork = typeof work;

expose(work);
