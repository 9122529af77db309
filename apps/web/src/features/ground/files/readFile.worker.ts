import { expose } from 'comlink';
import { FileError, type FoundFile } from './found.ts';
import { type ReadOptions, readPlanFile } from './readFile.ts';

export type ReadOutcome = { readonly file: FoundFile } | { readonly trouble: string; readonly needsSystem: boolean };

/** Reads a large file beside the page; a file that cannot be taken is told, not thrown. */
const work = {
  read(name: string, text: string, options: ReadOptions): ReadOutcome {
    try {
      return { file: readPlanFile(name, text, options) };
    } catch (error) {
      if (error instanceof FileError) return { trouble: error.message, needsSystem: error.needsSystem };
      throw error;
    }
  },
};
export type ReadFileWork = typeof work;

expose(work);
