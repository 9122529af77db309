import { type ColumnMatch, type HeaderReading, findHeaderRow, readHeader } from '@glenfold/agronomy';
import papaparse from 'papaparse';
import { Problem } from '../platform/problem.ts';

export interface LabTable {
  readonly header: HeaderReading;
  /** Body rows with the line they stand on in the file. */
  readonly rows: ReadonlyArray<{ readonly line: number; readonly cells: readonly string[] }>;
}

/** Find the table in a laboratory's CSV file: the delimiter, the header among preamble lines, the rows under it. */
export function readLabTable(content: string): LabTable {
  if (content.includes('\u0000'))
    throw new Problem(
      422,
      'Not a text file',
      'This is not a CSV file but a binary one (a spreadsheet or PDF?). Save it as CSV and drop that.',
    );
  const lines = papaparse.parse<string[]>(content.replace(/^\uFEFF/, '').trimEnd(), { skipEmptyLines: false }).data;
  const headerRow = findHeaderRow(lines);
  const headings = lines[headerRow];
  if (!headings) {
    throw new Problem(
      422,
      'No header found',
      'No line of this file names columns such as sample, pH or P. Check that it is the laboratory’s CSV file with its header line.',
    );
  }
  const rows = lines.flatMap((cells, index) =>
    index > headerRow && cells.some((cell) => cell.trim() !== '') ? [{ line: index + 1, cells }] : [],
  );
  if (rows.length === 0) throw new Problem(422, 'No samples found', 'The file has a header but no sample under it.');
  return { header: readHeader(headings), rows };
}

/** The columns as matched, with what the person corrected. */
export function correctColumns(
  matched: readonly ColumnMatch[],
  corrected: ReadonlyArray<Omit<ColumnMatch, 'header'>> | undefined,
): ColumnMatch[] {
  return matched.map((column, index) => ({ ...column, ...corrected?.[index] }));
}
