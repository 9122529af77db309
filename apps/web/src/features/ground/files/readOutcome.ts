import { FileError, type FoundFile } from './found.ts';
import { type ReadOptions, readPlanFile } from './readFile.ts';

export type ReadOutcome = { readonly file: FoundFile } | { readonly trouble: string; readonly needsSystem: boolean };

/** Reads a foreign file; one that cannot be taken is told, not thrown. */
export function readOutcome(name: string, text: string, options: ReadOptions): ReadOutcome {
  try {
    return { file: readPlanFile(name, text, options) };
  } catch (error) {
    if (error instanceof FileError) return { trouble: error.message, needsSystem: error.needsSystem };
    throw error;
  }
}
