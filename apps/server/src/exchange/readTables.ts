import { notAnExport } from './archive.ts';
import { type Row, readRows } from './formats.ts';
import type { ExportedTable } from './tables.ts';

/** Rows by the file that they stand in. */
export type Tables = ReadonlyMap<string, readonly Row[]>;

/** Read the files of an export. @throws a problem in words for one that is missing or cannot be read */
export function readTables(
  files: ReadonlyMap<string, string>,
  tables: ReadonlyArray<Pick<ExportedTable, 'file' | 'spread'>>,
): Tables {
  return new Map(
    tables.map((table) => {
      const text = files.get(table.file);
      if (text === undefined) throw notAnExport(`${table.file} is missing from the export.`);
      try {
        return [table.file, readRows(table, text)];
      } catch (error) {
        throw notAnExport(`${table.file} cannot be read: ${(error as Error).message}.`);
      }
    }),
  );
}
