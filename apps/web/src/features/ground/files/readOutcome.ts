import { knowAllSystems } from './coordinateSystems.ts';
import { FileError, type FoundFile } from './found.ts';
import { type ReadOptions, readPlanFile } from './readFile.ts';

export type ReadOutcome = { readonly file: FoundFile } | { readonly trouble: string; readonly needsSystem: boolean };

/** "PK", as every ZIP begins, a KMZ too. */
const isPacked = (bytes: Uint8Array): boolean => bytes[0] === 0x50 && bytes[1] === 0x4b;

/** What is packed is taken out first; by then it is a text. */
async function read(name: string, bytes: Uint8Array, options: ReadOptions): Promise<FoundFile> {
  if (!isPacked(bytes)) return readPlanFile(name, new TextDecoder().decode(bytes), options);
  // Few files are packed: whoever brings in another one does not wait for what unpacks them.
  const { unpack } = await import('./unpackFile.ts');
  const inside = unpack(name, bytes, options.system);
  const found = readPlanFile(inside.name, inside.text, options);
  return { ...found, name, notes: [...inside.notes, ...found.notes] };
}

/** Reads a foreign file; one that cannot be taken is told, not thrown. */
export async function readOutcome(name: string, bytes: Uint8Array, options: ReadOptions): Promise<ReadOutcome> {
  try {
    return { file: await read(name, bytes, options) };
  } catch (error) {
    if (!(error instanceof FileError)) throw error;
    // The list of the world's systems is long, and wanted where a file names one that is not usual.
    if (!error.needsSystem || !(await knowAllSystems())) return { trouble: error.message, needsSystem: error.needsSystem };
    return readOutcome(name, bytes, options);
  }
} // prettier-ignore
