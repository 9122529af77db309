import type { Extractant } from '../nutrients/sufficiencyTables.ts';
import type { Basis, LabUnit } from './analytes.ts';
import type { BufferMethod } from './buffers.ts';

/** What a column of a laboratory's file can hold. */
export const labFields = [
  'label',
  'labNumber',
  'sampledOn',
  'depth',
  'soilPh',
  'saltPh',
  'bufferPh',
  'p',
  'k',
  'ca',
  'mg',
  'organicMatter',
] as const;
export type LabField = (typeof labFields)[number];

export interface ColumnMatch {
  readonly header: string;
  /** Nothing when the column is not read. */
  readonly field: LabField | null;
  /** Unit read from the header; nothing when it did not say. */
  readonly unit: LabUnit | 'cm' | 'in' | '%' | null;
  readonly basis: Basis;
}

/** What the headers say about the whole file. */
export interface HeaderReading {
  readonly columns: readonly ColumnMatch[];
  readonly bufferMethod: BufferMethod | null;
  readonly extractant: Extractant | null;
}

/** The first pattern that fits a header names its field. Order matters: "buffer pH" before "pH", "sample depth" before "sample". */
const fieldPatterns: ReadonlyArray<readonly [LabField, RegExp]> = [
  ['labNumber', /^(lab|laboratory|report|barcode)\s*(no|num|number|id|#|code|ref)?\.?$/i],
  ['sampledOn', /date|sampled on|collected|^taken$/i],
  ['depth', /depth/i],
  ['bufferPh', /buffer|\bbph\b|\bsmp\b|sikora|adams|lime (test )?index/i],
  // In salt or calcium chloride the pH reads lower: it is converted by a named step, and only where water is missing.
  ['saltPh', /\b(salt|kcl|cacl2?|calcium chloride)\b.*\bph\b|\bph\b.*\b(salt|kcl|cacl2?|calcium chloride)\b/i],
  ['soilPh', /\bph\b|acidity \(ph/i],
  ['organicMatter', /organic|\bo\.?m\.?\b|\bloi\b|humus/i],
  [
    'label',
    /^(sample|bag|field|zone|lawn|your|client)?\s*(id|name|label|mark|ref|reference|no|number|#)\.?$|^(sample|bag|field|zone|lawn)$/i,
  ],
  ['p', /phosph|\bp2o5\b|\bp\b/i],
  ['k', /potas|\bk2o\b|\bk\b/i],
  ['ca', /calcium|\bca\b/i],
  ['mg', /magnes|\bmg\b(?!\s*\/)/i],
];

const unitPatterns: ReadonlyArray<readonly [NonNullable<ColumnMatch['unit']>, RegExp]> = [
  ['lb/acre', /lbs?\s*(\/|per)\s*a(c|cre)?\b|pounds per acre/i],
  ['kg/ha', /kg\s*(\/|per)\s*ha\b/i],
  ['cmol/kg', /c?mol|meq/i],
  ['mg/100g', /mg\s*(\/|per)\s*100\s*g/i],
  ['mg/kg', /ppm|mg\s*(\/|per)\s*kg/i],
  ['%', /%|percent/i],
  ['cm', /\bcm\b/i],
  ['in', /\bin(ch(es)?)?\b|"/i],
];

const extractantPatterns: ReadonlyArray<readonly [Extractant, RegExp]> = [
  ['mehlich-3', /mehlich[\s-]*(3|iii)\b|\bm-?3\b/i],
  ['mehlich-1', /mehlich[\s-]*(1|i)\b|\bm-?1\b/i],
  ['bray-1', /bray/i],
  ['olsen', /olsen/i],
  // Original and modified Morgan read differently; the bare name does not tell which.
  ['morgan', /modified[\s-]*morgan|morgan[\s,(-]*modified/i],
  ['original morgan', /original[\s-]*morgan|morgan[\s,(-]*original/i],
  ['ammonium acetate', /ammonium acetate|nh4oac/i],
];

const bufferPatterns: ReadonlyArray<readonly [BufferMethod, RegExp]> = [
  // Moore–Sikora reads on the Adams–Evans scale.
  ['adams-evans', /moore/i],
  ['sikora', /sikora/i],
  ['adams-evans', /adams/i],
  ['mehlich', /mehlich/i],
  ['smp', /smp|lime (test )?index/i],
];

function firstMatch<T>(patterns: ReadonlyArray<readonly [T, RegExp]>, text: string): T | null {
  return patterns.find(([, pattern]) => pattern.test(text))?.[0] ?? null;
}

/**
 * Methods that a report names beside its table, in lines of its own: a clause that speaks of a buffer names the buffer
 * method, any other may name the extractant.
 */
export function readMethods(text: string): Pick<HeaderReading, 'bufferMethod' | 'extractant'> {
  const clauses = text.split(/[.;,\n]/);
  const found = <T>(patterns: ReadonlyArray<readonly [T, RegExp]>, ofBuffer: boolean): T | null =>
    clauses
      .filter((clause) => /buffer/i.test(clause) === ofBuffer)
      .reduce<T | null>((first, clause) => first ?? firstMatch(patterns, clause), null);
  return { extractant: found(extractantPatterns, false), bufferMethod: found(bufferPatterns, true) };
}

/** What a laboratory made of a number, in a word of its own: no number itself. */
const VERDICT = /\b(rating|rated|interpretation|status|sufficiency|recommend\w*|comment\w*)\b/i;
/** A column that names how every line was measured. */
const METHOD = /^(extract\w*|test|soil)?\s*(method|extractant|extraction)$/i;
const BUFFER_METHOD = /^buffer\s*(method|type)$/i;

function plainHeader(header: string): string {
  return header.normalize('NFKC').replaceAll('_', ' ').replace(/\s+/g, ' ').trim();
}

/**
 * Recognise the columns of a laboratory's file by the words in its header. A
 * field is taken by one column only, the first that names it.
 */
export function readHeader(headers: readonly string[]): HeaderReading {
  const taken = new Set<LabField>();
  let bufferMethod: BufferMethod | null = null;
  let extractant: Extractant | null = null;
  const columns = headers.map((header): ColumnMatch => {
    const text = plainHeader(header);
    // The method's own name must not be read as the nutrient ("M3-P", "Mehlich-3 Mg").
    const bare = text.replace(/mehlich[\s-]*(3|1|iii|i)?|\bm-?[13]\b|bray[\s-]*(p?-?1)?|olsen/gi, ' ').trim();
    const told = !VERDICT.test(text) && !METHOD.test(text) && !BUFFER_METHOD.test(text);
    const found = told ? firstMatch(fieldPatterns, /buffer/i.test(text) ? text : bare || text) : null;
    const field = found !== null && !taken.has(found) ? found : null;
    if (field !== null) taken.add(field);
    if (field === 'bufferPh') bufferMethod ??= firstMatch(bufferPatterns, text);
    else extractant ??= firstMatch(extractantPatterns, text);
    return {
      header,
      field,
      unit: firstMatch(unitPatterns, text),
      basis: /p2o5|k2o|oxide/i.test(text) ? 'oxide' : 'element',
    };
  });
  return { columns, bufferMethod, extractant };
}

/**
 * Methods that the lines themselves name, in a column of their own; nothing where the lines differ.
 *
 * @param rows the cells of the body.
 */
export function methodsOfRows(
  headers: readonly string[],
  rows: ReadonlyArray<readonly string[]>,
): Pick<HeaderReading, 'bufferMethod' | 'extractant'> {
  const named = <T>(heading: RegExp, patterns: ReadonlyArray<readonly [T, RegExp]>): T | null => {
    const column = headers.findIndex((header) => heading.test(plainHeader(header)));
    const found = new Set(
      column < 0
        ? []
        : rows
            .map((cells) => cells[column] ?? '')
            .filter((cell) => cell.trim() !== '')
            .map((cell) => firstMatch(patterns, cell)),
    );
    return found.size === 1 ? [...found][0]! : null;
  };
  return { extractant: named(METHOD, extractantPatterns), bufferMethod: named(BUFFER_METHOD, bufferPatterns) };
}

/**
 * Whether a file writes decimals with a comma: some number can be read no other way, and none has a decimal point.
 *
 * @param semicolons whether its columns are parted by semicolons, as such files are.
 */
export function writesDecimalComma(rows: ReadonlyArray<readonly string[]>, semicolons: boolean): boolean {
  const cells = rows.flat().map((cell) => cell.trim());
  const comma = cells.some((cell) => (semicolons ? /^<?\s*\d+,\d+$/ : /^<?\s*\d{1,4},(\d{1,2}|\d{4,})$/).test(cell));
  return comma && !cells.some((cell) => /^<?\s*\d+\.\d+$/.test(cell));
}

/** Which row is the header: the one that names most fields, among the first twenty (files open with addresses and notes). */
export function findHeaderRow(rows: readonly (readonly string[])[]): number {
  const scores = rows
    .slice(0, 20)
    .map((row) => readHeader(row).columns.filter((column) => column.field !== null).length);
  const best = Math.max(0, ...scores);
  return best >= 2 ? scores.indexOf(best) : -1;
}
