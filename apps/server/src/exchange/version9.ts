import type { Row } from './formats.ts';
import { type Tables, readTables } from './readTables.ts';
import { type ExportedTable, exportedTables } from './tables.ts';

export const tablesOf9: ReadonlyArray<Pick<ExportedTable, 'file' | 'spread'>> = exportedTables.map(
  ({ file, spread = [] }) => ({ file, spread }),
);

const added: Readonly<Record<string, Row>> = { 'jobs.json': { replacesId: null, was: null } };

/** Tables of format 9, in those of today: nothing was kept of whose place a job has taken. */
export const today = (tables: Tables): Tables =>
  new Map([...tables].map(([file, rows]) => [file, rows.map((row) => ({ ...added[file], ...row }))]));

/** An export of format 9, in the tables of today. */
export const readVersion9 = (files: ReadonlyMap<string, string>): Tables => today(readTables(files, tablesOf9));
