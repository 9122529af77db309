import type { Row } from './formats.ts';
import { type Tables, readTables } from './readTables.ts';
import { exportedTables } from './tables.ts';

/** Tables with what was added to their rows since, where it was not kept. */
export const withAdded = (tables: Tables, added: Readonly<Record<string, Row | ((row: Row) => Row)>>): Tables =>
  new Map(
    [...tables].map(([file, rows]) => {
      const more = added[file];
      return [file, rows.map((row) => ({ ...(typeof more === 'function' ? more(row) : more), ...row }))];
    }),
  );

/** Tables of format 11, in those of today: what a program came to was not kept line by line, no client shared a report, and no job had a part of the day. */
export const today = (tables: Tables): Tables =>
  withAdded(tables, {
    'programs.json': { price: null },
    'practice.json': { clientsShare: false, later: [] },
    'memberships.json': { handedOn: null },
    'jobs.json': { part: null, told: null },
  });

/** An export of format 11, in the tables of today. */
export const readVersion11 = (files: ReadonlyMap<string, string>): Tables => today(readTables(files, exportedTables));
