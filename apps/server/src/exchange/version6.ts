import { type Tables, readTables } from './readTables.ts';
import type { ExportedTable } from './tables.ts';
import { tablesOf7, today as fromVersion7 } from './version7.ts';

/** Files that an export of format 6 did not have. */
const since7: readonly string[] = [
  ...['lab-profiles.json', 'lab-questions.json', 'field-tests.json', 'load-checks.json', 'histories.json'],
];

export const tablesOf6: ReadonlyArray<Pick<ExportedTable, 'file' | 'spread'>> = tablesOf7
  .filter(({ file }) => !since7.includes(file))
  .map(({ file, spread = [] }) => ({ file, spread }));

/** Tables of format 6, in those of today: laboratories' ways and questions were not kept, nor their advice in amounts. */
export function today(tables: Tables): Tables {
  return fromVersion7(
    new Map([
      ...tables,
      ['lab-results.csv', (tables.get('lab-results.csv') ?? []).map((row) => ({ advised: [], ...row }))],
      ...since7.map((file) => [file, []] as const),
    ]),
  );
}

/** An export of format 6, in the tables of today. */
export const readVersion6 = (files: ReadonlyMap<string, string>): Tables => today(readTables(files, tablesOf6));
