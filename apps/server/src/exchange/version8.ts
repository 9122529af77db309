import { kindOfDateNamed } from '../season/siteDate.entity.ts';
import type { Row } from './formats.ts';
import { type Tables, readTables } from './readTables.ts';
import type { ExportedTable } from './tables.ts';
import { withAdded } from './version11.ts';
import { tablesOf9, today as fromVersion9 } from './version9.ts';

export const tablesOf8: ReadonlyArray<Pick<ExportedTable, 'file' | 'spread'>> = tablesOf9;

const added = {
  'jobs.json': { mixed: [] },
  'entries.json': { mixed: [] },
  'site-dates.json': ({ name }: Row) => ({ kind: kindOfDateNamed(String(name)) }),
};

/** Tables of format 8, in those of today: mixes were not kept thing by thing, and every date was a match. */
export const today = (tables: Tables): Tables => fromVersion9(withAdded(tables, added));

/** An export of format 8, in the tables of today. */
export const readVersion8 = (files: ReadonlyMap<string, string>): Tables => today(readTables(files, tablesOf8));
