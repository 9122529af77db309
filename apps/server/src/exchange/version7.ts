import { type Tables, readTables } from './readTables.ts';
import type { ExportedTable } from './tables.ts';
import { tablesOf8, today as fromVersion8 } from './version8.ts';

/** Files that an export of format 7 did not have. */
const since8: readonly string[] = ['owner-reports.json'];

export const tablesOf7: ReadonlyArray<Pick<ExportedTable, 'file' | 'spread'>> = tablesOf8
  .filter(({ file }) => !since8.includes(file))
  .map(({ file, spread = [] }) => ({ file, spread }));

/** Tables of format 7, in those of today: reports for owners were not kept. */
export const today = (tables: Tables): Tables =>
  fromVersion8(new Map([...tables, ...since8.map((file) => [file, []] as const)]));

/** An export of format 7, in the tables of today. */
export const readVersion7 = (files: ReadonlyMap<string, string>): Tables => today(readTables(files, tablesOf7));
