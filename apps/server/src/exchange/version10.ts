import { type Tables, readTables } from './readTables.ts';
import { type ExportedTable, exportedTables } from './tables.ts';
import { today as fromVersion11, withAdded } from './version11.ts';

/** Files that an export of format 10 did not have. */
const since11: readonly string[] = ['messages.json'];

export const tablesOf10: ReadonlyArray<Pick<ExportedTable, 'file' | 'spread'>> = exportedTables
  .filter(({ file }) => !since11.includes(file))
  .map(({ file, spread = [] }) => ({ file, spread }));

/** Tables of format 10, in those of today: nobody wrote messages, nor was it kept what stood decided with a paper. */
export const today = (tables: Tables): Tables =>
  fromVersion11(
    withAdded(new Map([...tables, ...since11.map((file) => [file, []] as const)]), {
      'program-zones.json': { decided: null },
      'quote-lines.json': { ceiling: null },
      'practice.json': { phone: null, email: null },
    }),
  );

/** An export of format 10, in the tables of today. */
export const readVersion10 = (files: ReadonlyMap<string, string>): Tables => today(readTables(files, tablesOf10));
