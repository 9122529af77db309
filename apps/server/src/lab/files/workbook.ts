import { findHeaderRow, readHeader } from '@glenfold/agronomy';
import { dayIn } from '@glenfold/contract';
import papaparse from 'papaparse';
import readXlsxFile from 'read-excel-file/node';
import yauzl from 'yauzl';
import { Problem } from '../../platform/problem.ts';

/** What a workbook of results may unpack to, bytes. */
const MOST = 80_000_000;

/** @throws a problem for a ZIP that is no workbook, that is cut short, or that unpacks to more than one ever holds */
function looksLikeWorkbook(bytes: Uint8Array): Promise<void> {
  const torn = (): Problem =>
    new Problem(
      422,
      'Not whole',
      'This workbook cannot be opened: a part of it is missing. Download or save it again.',
    );
  return new Promise((resolve, reject) => {
    yauzl.fromBuffer(Buffer.from(bytes), { lazyEntries: true }, (error, archive) => {
      if (error) {
        reject(torn());
        return;
      }
      let total = 0;
      let isWorkbook = false;
      const names: string[] = [];
      archive.on('error', () => reject(torn()));
      archive.on('entry', (entry: yauzl.Entry) => {
        total += entry.uncompressedSize;
        names.push(entry.fileName);
        isWorkbook ||= entry.fileName === 'xl/workbook.xml';
        if (total > MOST || names.length > 2000)
          reject(
            new Problem(
              422,
              'Too large',
              'This workbook unpacks to far more than a report holds. Save the one sheet with the results, and bring that.',
            ),
          );
        else archive.readEntry();
      });
      archive.on('end', () => {
        if (isWorkbook) resolve();
        else
          reject(
            new Problem(
              422,
              'Not a workbook',
              names.some((name) => name.startsWith('word/'))
                ? 'This is a text document, not a workbook: save it as PDF, or paste its text.'
                : names.includes('mimetype')
                  ? 'This is an OpenDocument file: save it as .xlsx or CSV, and bring that.'
                  : 'This is a packed file (ZIP): unpack it, and bring the report that is in it.',
            ),
          );
      });
      archive.readEntry();
    });
  });
}

/** A cell as it would stand in a text file; a day without its hour. */
function asText(cell: unknown): string {
  if (cell === null || cell === undefined) return '';
  // Workbooks know no time zone: their days are read as of UTC.
  if (cell instanceof Date) return Number.isNaN(cell.getTime()) ? '' : dayIn(cell, 'UTC');
  if (typeof cell === 'number') return String(Number(cell.toPrecision(12)));
  return typeof cell === 'string' ? cell : typeof cell === 'boolean' ? (cell ? 'yes' : 'no') : '';
}

/** How many fields the header of a sheet names. */
const named = (rows: readonly (readonly string[])[]): number => {
  const at = findHeaderRow(rows);
  return at < 0 ? 0 : readHeader(rows[at]!).columns.filter(({ field }) => field !== null).length;
};

/**
 * The sheet of a workbook that holds the results, as text; formulas stand as what they last came to.
 *
 * @throws a problem in words for what cannot be opened
 */
export async function readWorkbook(bytes: Uint8Array): Promise<{ readonly content: string; readonly sheet: string }> {
  await looksLikeWorkbook(bytes);
  let sheets: Awaited<ReturnType<typeof readXlsxFile>>;
  try {
    sheets = await readXlsxFile(Buffer.from(bytes));
  } catch {
    throw new Problem(
      422,
      'Not readable',
      'This workbook cannot be read. Open it, save the sheet with the results as CSV, and bring that.',
    );
  }
  const read = sheets.map(({ sheet, data }) => ({ sheet, rows: data.map((row) => row.map(asText)) }));
  const filled = read.filter(({ rows }) => rows.some((row) => row.some((cell) => cell.trim() !== '')));
  const [best] = [...filled].sort((one, other) => named(other.rows) - named(one.rows));
  if (!best) throw new Problem(422, 'Empty', 'No sheet of this workbook holds anything: was it saved whole?');
  return { content: papaparse.unparse(best.rows), sheet: best.sheet };
}
