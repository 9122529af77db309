import type { Row } from './formats.ts';
import { type Tables, readTables } from './readTables.ts';
import { type ExportedTable, exportedTables } from './tables.ts';

/** Files that an export of format 10 did not have. */
const since11: readonly string[] = ['messages.json'];

export const tablesOf10: ReadonlyArray<Pick<ExportedTable, 'file' | 'spread'>> = exportedTables
  .filter(({ file }) => !since11.includes(file))
  .map(({ file, spread = [] }) => ({ file, spread }));

/** Tables with what was added to their rows since, where it was not kept. */
export const withAdded = (tables: Tables, added: Readonly<Record<string, Row | ((row: Row) => Row)>>): Tables =>
  new Map(
    [...tables].map(([file, rows]) => {
      const more = added[file];
      return [file, rows.map((row) => ({ ...(typeof more === 'function' ? more(row) : more), ...row }))];
    }),
  );

/** Tables of format 10, in those of today: nobody wrote messages, nor was it kept what stood decided with a paper. */
export const today = (tables: Tables): Tables =>
  withAdded(new Map([...tables, ...since11.map((file) => [file, []] as const)]), {
    'program-zones.json': { decided: null },
    'quote-lines.json': { ceiling: null },
    'practice.json': { phone: null, email: null },
  });

/** An export of format 10, in the tables of today. */
export const readVersion10 = (files: ReadonlyMap<string, string>): Tables => today(readTables(files, tablesOf10));
