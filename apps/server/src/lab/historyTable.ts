import { type Analyte, type Extractant, type ReportedValue, readLabRow } from '@glenfold/agronomy';
import { Problem } from '../platform/problem.ts';
import { threaded } from '../platform/threaded.ts';
import { kindOf, lettersOf } from './files/letters.ts';
import { readWorkbook } from './files/workbook.ts';
import { readLabTable } from './labTable.ts';
import { entriesOf } from './questions.ts';

/** One test of long ago, as far as its line can be read. */
export interface HistoryRow {
  readonly line: number;
  readonly site: string;
  readonly zone: string;
  readonly labNumber: string | null;
  readonly sampledOn: string | null;
  /** cm */
  readonly depth: number | null;
  readonly values: ReadonlyArray<readonly [Analyte, ReportedValue]>;
  readonly faults: readonly string[];
}

export interface HistoryTable {
  readonly extractant: Extractant | null;
  readonly bufferMethod: string | null;
  readonly rows: readonly HistoryRow[];
}

const SITE = /^(site|property|client|customer|garden)( name)?$/i;
const ZONE = /^(zone|lawn|plot|area|section|field|sample|bag|label)( (id|name|label|no\.?))?$/i;

/** The lines of a history: a site, a zone, a day, a depth and values. @throws a problem in words for what is none */
async function readHistory(bytes: Uint8Array): Promise<HistoryTable> {
  const kind = kindOf(bytes);
  if (kind === 'pages')
    throw new Problem(422, 'Not a table', 'A history comes as CSV or as a workbook: a PDF holds too little to place its lines.');
  const { header, rows, decimalComma, dateOrder } = readLabTable(
    kind === 'workbook' ? (await readWorkbook(bytes)).content : lettersOf(bytes),
  );
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
  return {
    extractant: header.extractant,
    bufferMethod: header.bufferMethod,
    rows: rows.map(({ line, cells }): HistoryRow => {
      const { row, faults } = readLabRow(cells, columns, { decimalComma, dateOrder });
      return {
        ...{ line, site: (cells[siteAt] ?? '').trim(), zone: row.label, labNumber: row.labNumber ?? null },
        ...{ sampledOn: row.sampledOn ?? null, depth: row.depth ?? null, values: entriesOf(row.values) },
        faults: faults.map(({ message }) => message),
      };
    }),
  };
} // prettier-ignore

export const historyTable = threaded(import.meta.url, 'historyTable', readHistory);
