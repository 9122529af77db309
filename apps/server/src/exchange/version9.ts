import { type Tables, readTables } from './readTables.ts';
import type { ExportedTable } from './tables.ts';
import { tablesOf10, today as fromVersion10 } from './version10.ts';
import { withAdded } from './version11.ts';

export const tablesOf9: ReadonlyArray<Pick<ExportedTable, 'file' | 'spread'>> = tablesOf10;

/** Tables of format 9, in those of today: nothing was kept of whose place a job has taken. */
export const today = (tables: Tables): Tables =>
  fromVersion10(withAdded(tables, { 'jobs.json': { replacesId: null, was: null } }));

/** An export of format 9, in the tables of today. */
export const readVersion9 = (files: ReadonlyMap<string, string>): Tables => today(readTables(files, tablesOf9));
