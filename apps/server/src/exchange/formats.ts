import papaparse from 'papaparse';
import { threaded } from '../platform/threaded.ts';
import type { ExportedTable } from './tables.ts';

/** A row as the database tells it in JSON: numbers, texts, times in ISO 8601. */
export type Row = Readonly<Record<string, unknown>>;

/** Spreadsheets take a cell that begins so for a formula; such texts get an apostrophe before them. */
const FORMULA = /^'*[=+\-@\t\r]/;
const ESCAPED = /^'+[=+\-@\t\r]/;

/** Write rows in the format that the file's name says. */
export function writeRows(
  { file, spread = [] }: Pick<ExportedTable, 'file' | 'spread'>,
  columns: readonly string[],
  rows: readonly Row[],
): string {
  if (file.endsWith('.geojson')) return writeGeoJson(rows);
  if (file.endsWith('.json')) return `[\n${rows.map((row) => JSON.stringify(row)).join(',\n')}\n]\n`;
  const flat = rows.map((row) =>
    Object.fromEntries(
      Object.entries(row).flatMap(([column, value]) =>
        spread.includes(column) ? flatten(column, value) : [[column, value === null ? '' : value]],
      ),
    ),
  );
  const plain = columns.filter((column) => !spread.includes(column));
  const spreadColumns = [...new Set(flat.flatMap((row) => Object.keys(row)))].filter((name) => !plain.includes(name));
  const fields = [...plain, ...spreadColumns.sort()];
  return `${papaparse.unparse({ fields, data: flat }, { newline: '\n', escapeFormulae: FORMULA })}\n`;
}

/** The same on a thread: a practice may have very many rows. */
export const tableText = threaded(import.meta.url, 'tableText', writeRows);

/**
 * Read what {@link writeRows} wrote.
 * @throws {Error} with words about what is wrong in the file
 */
export function readRows({ file, spread = [] }: Pick<ExportedTable, 'file' | 'spread'>, text: string): Row[] {
  if (file.endsWith('.geojson')) return readGeoJson(text);
  if (file.endsWith('.json')) {
    const rows: unknown = parseJson(text);
    if (!Array.isArray(rows) || !rows.every(isObject)) throw new Error('it is not a list of records');
    return rows;
  }
  const { data, errors } = papaparse.parse<Record<string, string>>(text, { header: true, skipEmptyLines: 'greedy' });
  if (errors[0]) throw new Error(`line ${(errors[0].row ?? 0) + 2}: ${errors[0].message}`);
  return data.map((cells) => {
    const row: Record<string, unknown> = {};
    for (const [name, cell] of Object.entries(cells)) {
      const [column = '', ...path] = name.split('.');
      const value = ESCAPED.test(cell) ? cell.slice(1) : cell;
      // A list stands whole in the cell of its column.
      if (path.length === 0) row[column] = value === '' ? null : spread.includes(column) ? readScalar(value) : value;
      else if (value !== '' && spread.includes(column)) place(row, [column, ...path], readScalar(value));
    }
    return row;
  });
}

function writeGeoJson(rows: readonly Row[]): string {
  const features = rows.map(({ geometry, ...properties }) => JSON.stringify({ type: 'Feature', geometry, properties }));
  return `{"type":"FeatureCollection","features":[\n${features.join(',\n')}\n]}\n`;
}

function readGeoJson(text: string): Row[] {
  const parsed = parseJson(text);
  const features = isObject(parsed) ? parsed.features : undefined;
  if (!Array.isArray(features)) throw new Error('it is not a GeoJSON FeatureCollection');
  return features.map((feature: unknown) => {
    if (!isObject(feature) || !isObject(feature.properties)) throw new Error('a feature has no properties');
    return { ...feature.properties, geometry: feature.geometry ?? null };
  });
}

function parseJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch (error) {
    throw new Error(`it is not JSON: ${(error as Error).message}`, { cause: error });
  }
}

function isObject(value: unknown): value is Record<string, unknown> {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}

/** A JSON value as cells under dotted names. */
function flatten(name: string, value: unknown): Array<[string, string]> {
  if (isObject(value)) return Object.entries(value).flatMap(([key, inner]) => flatten(`${name}.${key}`, inner));
  if (value === null || value === undefined) return [];
  // A text that would be read as a number or the like is told apart by quotes.
  return [[name, typeof value === 'string' && readScalar(value) === value ? value : JSON.stringify(value)]];
}

function readScalar(cell: string): unknown {
  try {
    return JSON.parse(cell);
  } catch {
    return cell;
  }
}

function place(row: Record<string, unknown>, [key = '', ...rest]: readonly string[], value: unknown): void {
  if (rest.length === 0) row[key] = value;
  else {
    const inner = isObject(row[key]) ? row[key] : {};
    row[key] = inner;
    place(inner, rest, value);
  }
}
