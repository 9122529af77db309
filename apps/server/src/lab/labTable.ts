import {
  type ColumnMatch,
  type DateOrder,
  type HeaderReading,
  dateOrderOf,
  findHeaderRow,
  methodsOfRows,
  readHeader,
  readMethods,
  writesDecimalComma,
} from '@glenfold/agronomy';
import papaparse from 'papaparse';
import { Problem } from '../platform/problem.ts';
import { threaded } from '../platform/threaded.ts';
import { kindOf, lettersOf } from './files/letters.ts';
import { readPages } from './files/pages.ts';
import { type Lines, joinedHead, paired, pivoted, turned } from './files/shapes.ts';
import { readWorkbook } from './files/workbook.ts';

/** Counts up whenever more of a file can be read than before: files that an older reader read are read again. */
export const READER = 2;

export interface LabTable {
  readonly header: HeaderReading;
  /** Body rows with the line they stand on in the file. */
  readonly rows: ReadonlyArray<{ readonly line: number; readonly cells: readonly string[] }>;
  /** Writes 6,4 for 6.4. */
  readonly decimalComma: boolean;
  /** Which comes first in its dates; nothing where they do not tell, or the file was kept before that was looked for. */
  readonly dateOrder?: DateOrder | null | undefined;
}

const FOUND_NOTHING =
  'No line of this file names columns such as sample, pH or P. Check that it is the laboratory’s file of results with its header line: CSV, XLSX, JSON, PDF, or text in columns.';
const MOST_LINE = 200_000;

/** Find the table in a laboratory's file: CSV among lines of its own, JSON, text in columns, or names with their values. */
export function readLabTable(content: string): LabTable {
  if (content.includes('\u0000'))
    throw new Problem(
      422,
      'Not a text file',
      'This is not a CSV file but a binary one, whatever its name says. Bring the report as CSV, XLSX, JSON, PDF or text.',
    );
  const text = content.replace(/^\uFEFF/, '').trimEnd();
  if (text.trim() === '') throw new Problem(422, 'Empty', 'This file is empty: was it saved whole?');
  if (text.length > MOST_LINE && text.split(/\r\n|\n|\r/).some((line) => line.length > MOST_LINE) && !/^\s*[[{]/.test(text))
    throw new Problem(
      422,
      'No table',
      `One line of this file has more than ${MOST_LINE.toLocaleString('en-US')} letters: this is no table of results. Bring the report as the laboratory sent it.`,
    );
  const table = /^\s*[[{]/.test(text) ? ofJson(text) : (ofDelimited(text) ?? ofColumns(text) ?? ofPairs(text));
  if (!table) throw new Problem(422, 'No header found', FOUND_NOTHING);
  if (table.rows.length === 0)
    throw new Problem(422, 'No samples found', 'The file has a header but no sample under it.');
  return table;
} // prettier-ignore

const NAMED = /[a-z]/i;

function tableOf(
  found: Lines,
  above: (headerRow: number) => string,
  semicolons = false,
): LabTable | undefined {
  const long = pivoted(found);
  const lines = long?.lines ?? found;
  const headerRow = findHeaderRow(lines);
  if (headerRow < 0) return undefined;
  const { headings, body: from } = joinedHead(lines, headerRow);
  const heading = lines[headerRow]!.join('\u0001');
  const rows = lines.flatMap((cells, index) =>
    index >= from && cells.some((cell) => cell.trim() !== '') && cells.join('\u0001') !== heading
      ? [{ line: index + 1, cells }]
      : [],
  );
  const body = rows.map(({ cells }) => cells);
  const header = readHeader(headings);
  const ofRows = methodsOfRows(headings, body);
  const own = {
    ...header,
    extractant: header.extractant ?? ofRows.extractant,
    bufferMethod: header.bufferMethod ?? ofRows.bufferMethod,
  };
  const dated = header.columns.findIndex(({ field }) => field === 'sampledOn');
  const beside = long ? long.above.map((cells) => cells.join('\n')).join('\n') : above(headerRow);
  return {
    header: withMethods(own, beside),
    rows,
    decimalComma: writesDecimalComma(body, semicolons),
    dateOrder: dated < 0 ? null : dateOrderOf(body.map((cells) => cells[dated] ?? '')),
  };
} // prettier-ignore

/** A file as it came, with its text as it is read. */
export interface ReadFile {
  readonly content: string;
  readonly mediaType: string;
  /** "the sheet Results of a workbook"; nothing of plain text. */
  readonly readAs: string | null;
  readonly table: LabTable;
}

/** Read a file of any kind. @throws a problem in words for what cannot be read */
async function readLabFile(bytes: Uint8Array): Promise<ReadFile> {
  switch (kindOf(bytes)) {
    case 'workbook': {
      const { content, sheet } = await readWorkbook(bytes);
      const mediaType = 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet';
      return { content, mediaType, readAs: `the sheet “${sheet}” of a workbook`, table: readLabTable(content) };
    }
    case 'pages': {
      const { content, pages } = await readPages(bytes);
      const readAs = `the text of ${pages} ${pages === 1 ? 'page' : 'pages'} of a PDF`;
      return { content, mediaType: 'application/pdf', readAs, table: readLabTable(content) };
    }
    default: {
      const content = lettersOf(bytes);
      const mediaType = /^\s*[[{]/.test(content) ? 'application/json' : 'text/plain';
      return { content, mediaType, readAs: null, table: readLabTable(content) };
    }
  }
}

/** The same on a thread. */
export const labFile = threaded(import.meta.url, 'labFile', readLabFile);

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
  const cells = lines.some((line) => line.length > 2) ? turned(lines) : undefined;
  const aside = (): string =>
    lines
      .filter(([name = '', ...rest]) => NAMED.test(name) && rest.every((cell) => cell.trim() === ''))
      .map(([name]) => name)
      .join('\n');
  if (cells && findHeaderRow(lines) < 0) return tableOf(cells, aside, meta.delimiter === ';');
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

/** Names with their values, one under the other. */
function ofPairs(text: string): LabTable | undefined {
  const lines = paired(text);
  return lines && tableOf(lines, () => text);
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
