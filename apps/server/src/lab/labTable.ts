import {
  type ColumnMatch,
  type HeaderReading,
  findHeaderRow,
  methodsOfRows,
  readHeader,
  readMethods,
  writesDecimalComma,
} from '@glenfold/agronomy';
import papaparse from 'papaparse';
import { Problem } from '../platform/problem.ts';
import { threaded } from '../platform/threaded.ts';

/** Counts up whenever more of a file can be read than before: files that an older reader read are read again. */
export const READER = 2;

export interface LabTable {
  readonly header: HeaderReading;
  /** Body rows with the line they stand on in the file. */
  readonly rows: ReadonlyArray<{ readonly line: number; readonly cells: readonly string[] }>;
  /** Writes 6,4 for 6.4. */
  readonly decimalComma: boolean;
}

const FOUND_NOTHING =
  'No line of this file names columns such as sample, pH or P. Check that it is the laboratory’s file of results with its header line: CSV, JSON, or text in columns.';

/** Find the table in a laboratory's file: CSV among lines of its own, JSON, or text in columns. */
export function readLabTable(content: string): LabTable {
  if (content.includes('\u0000'))
    throw new Problem(
      422,
      'Not a text file',
      'This is not a CSV file but a binary one (a spreadsheet or PDF?). Save it as CSV and drop that.',
    );
  const text = content.replace(/^\uFEFF/, '').trimEnd();
  const table = /^\s*[[{]/.test(text) ? ofJson(text) : (ofDelimited(text) ?? ofColumns(text));
  if (!table) throw new Problem(422, 'No header found', FOUND_NOTHING);
  if (table.rows.length === 0)
    throw new Problem(422, 'No samples found', 'The file has a header but no sample under it.');
  return table;
}

function tableOf(
  lines: ReadonlyArray<readonly string[]>,
  above: (headerRow: number) => string,
  semicolons = false,
): LabTable | undefined {
  const headerRow = findHeaderRow(lines);
  const headings = lines[headerRow];
  if (!headings) return undefined;
  const rows = lines.flatMap((cells, index) =>
    index > headerRow && cells.some((cell) => cell.trim() !== '') ? [{ line: index + 1, cells }] : [],
  );
  const body = rows.map(({ cells }) => cells);
  const header = readHeader(headings);
  const ofRows = methodsOfRows(headings, body);
  const own = {
    ...header,
    extractant: header.extractant ?? ofRows.extractant,
    bufferMethod: header.bufferMethod ?? ofRows.bufferMethod,
  };
  return { header: withMethods(own, above(headerRow)), rows, decimalComma: writesDecimalComma(body, semicolons) };
}

/** The same on a thread: files may be large. */
export const labTable = threaded(import.meta.url, 'labTable', readLabTable);

/** The header's own methods, or those that stand beside the table. */
function withMethods(header: HeaderReading, beside: string): HeaderReading {
  const { extractant, bufferMethod } = readMethods(beside);
  return {
    ...header,
    extractant: header.extractant ?? extractant,
    bufferMethod: header.bufferMethod ?? bufferMethod,
  };
}

function ofDelimited(text: string): LabTable | undefined {
  const { data: lines, meta } = papaparse.parse<string[]>(text, { skipEmptyLines: false });
  return tableOf(
    lines,
    (headerRow) =>
      lines
        .slice(0, headerRow)
        .map((cells) => cells.join('\n'))
        .join('\n'),
    meta.delimiter === ';',
  );
}

/** Text in columns: they begin where the rule under the head does, or where its words do after two spaces. */
function ofColumns(text: string): LabTable | undefined {
  const lines = text.split(/\r?\n/);
  const headerRow = findHeaderRow(lines.map((line) => line.split(/\s{2,}/)));
  if (headerRow < 0) return undefined;
  const rule = lines[headerRow + 1] ?? '';
  // Two plain looks: one expression for both goes over a long rule again and again.
  const ruled = /^[\s=-]+$/.test(rule) && /[=-]{2}/.test(rule);
  const begins = [...(ruled ? rule.matchAll(/[=-]+/g) : lines[headerRow]!.matchAll(/\S+(?: \S+)*/g))].map(
    ({ index }) => index,
  );
  const cellsOf = (line: string): string[] =>
    begins.map((begin, column) => line.slice(begin, begins[column + 1]).trim());
  const cells = lines.map((line, index) =>
    index < headerRow || (ruled && index === headerRow + 1) ? [] : cellsOf(line),
  );
  return tableOf(cells, () => lines.slice(0, headerRow).join('\n'));
}

type Json = Record<string, unknown>;
const isObject = (value: unknown): value is Json =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
/** A value as it would stand in a cell. */
const asCell = (value: unknown): string =>
  typeof value === 'string' ? value : typeof value === 'number' || typeof value === 'boolean' ? `${value}` : '';

/** The longest list of samples in a JSON file; a number with its unit beside it is one column. */
function ofJson(text: string): LabTable | undefined {
  let file: unknown;
  try {
    file = JSON.parse(text);
  } catch (error) {
    throw new Problem(
      422,
      'Not whole',
      `The file begins as JSON but cannot be read: ${(error as Error).message}. Was it cut short? Download it again.`,
    );
  }
  let samples: readonly Json[] = [];
  const beside: string[] = [];
  const look = (value: unknown, path: string): void => {
    if (Array.isArray(value)) {
      const list: readonly unknown[] = value;
      if (list.length > samples.length && list.every(isObject)) samples = list;
    } else if (isObject(value)) for (const [key, inner] of Object.entries(value)) look(inner, `${path} ${key}`);
    else beside.push(`${path} ${asCell(value)}`);
  };
  look(file, '');
  const flat = samples.map(
    (sample) => new Map(Object.entries(sample).flatMap(([key, value]) => cellsOfJson(key, value))),
  );
  const headings = [...new Set(flat.flatMap((sample) => [...sample.keys()]))];
  return tableOf([headings, ...flat.map((sample) => headings.map((heading) => sample.get(heading) ?? ''))], () =>
    beside.join('\n'),
  );
}

function cellsOfJson(key: string, value: unknown): Array<[heading: string, text: string]> {
  if (!isObject(value)) return [[key, asCell(value)]];
  const { value: number, unit, ...rest } = value;
  const heading = typeof unit === 'string' ? `${key} ${unit}` : key;
  const own: Array<[string, string]> = number === undefined ? [] : [[heading, asCell(number)]];
  return [...own, ...Object.entries(rest).flatMap(([inner, more]) => cellsOfJson(`${key} ${inner}`, more))];
}

/** The columns as matched, with what the person corrected. */
export function correctColumns(
  matched: readonly ColumnMatch[],
  corrected: ReadonlyArray<Omit<ColumnMatch, 'header'>> | undefined,
): ColumnMatch[] {
  return matched.map((column, index) => ({ ...column, ...corrected?.[index] }));
}
