import { kindOfDateNamed } from '../season/siteDate.entity.ts';
import type { Row } from './formats.ts';
import { type Tables, readTables } from './readTables.ts';
import { type ExportedTable, exportedTables } from './tables.ts';

export const tablesOf8: ReadonlyArray<Pick<ExportedTable, 'file' | 'spread'>> = exportedTables.map(
  ({ file, spread = [] }) => ({ file, spread }),
);

const added: Readonly<Record<string, (row: Row) => Row>> = {
  'jobs.json': () => ({ mixed: [] }),
  'entries.json': () => ({ mixed: [] }),
  'site-dates.json': ({ name }) => ({ kind: kindOfDateNamed(String(name)) }),
};

/** Tables of format 8, in those of today: mixes were not kept thing by thing, and every date was a match. */
export const today = (tables: Tables): Tables =>
  new Map([...tables].map(([file, rows]) => [file, rows.map((row) => ({ ...added[file]?.(row), ...row }))]));

/** An export of format 8, in the tables of today. */
export const readVersion8 = (files: ReadonlyMap<string, string>): Tables => today(readTables(files, tablesOf8));
