import { type Tables, readTables } from './readTables.ts';
import type { ExportedTable } from './tables.ts';
import { tablesOf5, today as bookToday } from './version5.ts';

/** Files that an export of format 4 did not have: nothing was offered line by line. */
const since5: readonly string[] = ['quotes.json', 'quote-lines.json'];

/** What was not kept of a price. */
const undated = { pricedOn: null, deliveryPrice: null, loadSize: null };

export const tablesOf4: ReadonlyArray<Pick<ExportedTable, 'file' | 'spread'>> = tablesOf5
  .filter(({ file }) => !since5.includes(file))
  .map(({ file, spread = [] }) => ({ file, spread }));

/** Tables of format 4, in those of today. */
export const today = (tables: Tables): Tables =>
  bookToday(
    new Map([
      ...tables,
      ...since5.map((file) => [file, []] as const),
      ['products.json', (tables.get('products.json') ?? []).map((row) => ({ ...undated, ...row }))],
    ]),
  );

/** An export of format 4, in the tables of today. */
export const readVersion4 = (files: ReadonlyMap<string, string>): Tables => today(readTables(files, tablesOf4));
