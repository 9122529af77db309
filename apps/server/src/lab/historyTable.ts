import { type Analyte, type ReportedValue, readLabRow } from '@glenfold/agronomy';
import { stored } from '../measurements/reported.ts';
import { Problem } from '../platform/problem.ts';
import { threaded } from '../platform/threaded.ts';
import { kindOf, lettersOf } from './files/letters.ts';
import { readWorkbook } from './files/workbook.ts';
import { type LabTable, readLabTable } from './labTable.ts';

/** One test of long ago, as far as its line can be read. */
export interface HistoryRow {
  readonly line: number;
  readonly site: string;
  readonly zone: string;
  readonly labNumber: string | null;
  readonly sampledOn: string | null;
  /** cm */
  readonly depth: number | null;
  readonly faults: readonly string[];
}

/** How a value was found: what many values of a history share. */
export interface HistoryKind extends Omit<ReturnType<typeof stored>, 'value'> {
  readonly analyte: Analyte;
}

/** Where a history has its table, and how it is written. */
export interface HistoryFile extends LabTable {
  readonly siteAt: number;
}

/** Some lines of a history, as they were read; flat, as many go from one thread to another at little cost so. */
export interface HistoryPart {
  readonly rows: readonly HistoryRow[];
  readonly kinds: readonly HistoryKind[];
  /** Of the value at each place, which of the kinds it is of; those of row n stand from `first[n]` to before `first[n + 1]`. */
  readonly kind: Int32Array;
  readonly value: Float64Array;
  readonly first: Int32Array;
}

const SITE = /^(site|property|client|customer|garden)( name)?$/i;
const ZONE = /^(zone|lawn|plot|area|section|field|sample|bag|label)( (id|name|label|no\.?))?$/i;

/** The table of a history, with a site, a zone, a day, a depth and values a line. @throws a problem in words for what is none */
async function findHistory(bytes: Uint8Array): Promise<HistoryFile> {
  const form = kindOf(bytes);
  if (form === 'pages')
    throw new Problem(422, 'Not a table', 'A history comes as CSV or as a workbook: a PDF holds too little to place its lines.');
  const table = readLabTable(
    form === 'workbook' ? (await readWorkbook(bytes)).content : lettersOf(bytes),
  );
  const { header } = table;
  const headings = header.columns.map(({ header: text }) => text.trim());
  const siteAt = headings.findIndex((text) => SITE.test(text));
  const zoneAt = headings.findIndex((text, index) => index !== siteAt && ZONE.test(text));
  if (siteAt < 0 || zoneAt < 0)
    throw new Problem(
      422,
      'No places',
      `A history names the site and the zone of each line: give the columns the heads “Site” and “Zone”. Found: ${headings.join(', ')}.`,
    );
  // Where a line belongs is read by itself; what is left is values.
  const columns = header.columns.map((column, index) =>
    index === siteAt ? { ...column, field: null } : index === zoneAt ? { ...column, field: 'label' as const } : column.field === 'label' ? { ...column, field: null } : column,
  );
  return { ...table, siteAt, header: { ...header, columns } };
} // prettier-ignore

/** What some lines of a history say. */
function readPart({ header, rows, decimalComma, dateOrder, siteAt }: HistoryFile): HistoryPart {
  const kinds = new Map<string, { readonly at: number; readonly kind: HistoryKind }>();
  const [kind, value, first]: [number[], number[], number[]] = [[], [], [0]];
  const read = rows.map(({ line, cells }): HistoryRow => {
    const { row, faults } = readLabRow(cells, header.columns, { decimalComma, dateOrder });
    for (const [analyte, one] of Object.entries(row.values) as Array<[Analyte, ReportedValue]>) {
      const method = one.method ?? (analyte === 'bufferPh' ? (header.bufferMethod ?? undefined) : undefined);
      const key = `${analyte}|${one.unit}|${one.basis}|${method}|${one.belowDetection}|${one.aboveRange}|${one.rated}`;
      let known = kinds.get(key);
      if (!known) {
        const { value: _one, ...shared } = stored({ ...one, method });
        kinds.set(key, (known = { at: kinds.size, kind: { analyte, ...shared } }));
      }
      kind.push(known.at);
      value.push(one.value);
    }
    first.push(kind.length);
    return {
      ...{ line, site: (cells[siteAt] ?? '').trim(), zone: row.label, labNumber: row.labNumber ?? null },
      ...{ sampledOn: row.sampledOn ?? null, depth: row.depth ?? null },
      faults: faults.map(({ message }) => message),
    };
  });
  return {
    ...{ rows: read, kinds: Array.from(kinds.values(), (one) => one.kind) },
    ...{ kind: Int32Array.from(kind), value: Float64Array.from(value), first: Int32Array.from(first) },
  };
}

export const historyFile = threaded(import.meta.url, 'historyFile', findHistory);
export const historyPart = threaded(import.meta.url, 'historyPart', readPart);
