import { type Analyte, type LabUnit, analyteList, isAnalyte, soilAnalytes } from '../analytes/analytes.ts';
import { type Basis, unitsFor } from '../analytes/reported.ts';
import type { Extractant } from '../nutrients/sufficiencyTables.ts';
import { type AdvisedColumn, readAdvisedHeader } from './advised.ts';
import type { BufferMethod } from './buffers.ts';

/** What a column of a laboratory's file can hold. */
export const labFields: readonly LabField[] = ['label', 'labNumber', 'sampledOn', 'depth', 'cores', ...soilAnalytes];
export type LabField = 'label' | 'labNumber' | 'sampledOn' | 'depth' | 'cores' | Analyte;

export interface ColumnMatch {
  readonly header: string;
  /** Nothing when the column is not read. */
  readonly field: LabField | null;
  /** Unit read from the header; nothing when it did not say. */
  readonly unit: LabUnit | 'in' | null;
  readonly basis: Basis;
  /** Extractant that the header itself names, where it is not that of the whole report. */
  readonly method?: Extractant | null | undefined;
  /** Least that the laboratory finds, in the column's unit: what "not detected" stands for. */
  readonly limit?: number | null | undefined;
  /** A column of the laboratory's own advice, instead of a field. */
  readonly advised?: AdvisedColumn | null | undefined;
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
  ['cores', /^(?:(?:no\.?|number|count) (?:of )?)?(?:cores?|sub-?samples?|borings?|plugs?)\b/i],
  [
    'label',
    /^(sample|bag|field|zone|lawn|your|client)?\s*(id|name|label|mark|ref|reference|no|number|#)\.?$|^(sample|bag|field|zone|lawn)$/i,
  ],
  ...analyteList.flatMap(({ key, header }) => (header ? [[key, new RegExp(header, 'i')] as const] : [])),
];

const unitPatterns: ReadonlyArray<readonly [Exclude<ColumnMatch['unit'], null>, RegExp]> = [
  ['lb/acre', /lbs?\s*(\/|per)\s*a(c|cre)?\b|pounds per acre/i],
  ['kg/ha', /kg\s*(\/|per)\s*ha\b/i],
  ['cmol/kg', /c?mol|meq/i],
  ['mg/100g', /mg\s*(\/|per)\s*100\s*g/i],
  ['mg/kg', /ppm|mg\s*(\/|per)\s*kg/i],
  ['dS/m', /\bd\s*s\s*\/\s*m\b|mmho|\bm\s*s\s*\/\s*cm\b/i],
  ['uS/cm', /[uµμ]\s*s\s*\/\s*cm/i],
  ['g/kg', /\bg\s*(\/|per)\s*kg\b/i],
  ['g/cm3', /\bg\s*\/\s*(cm3|cc|ml)\b/i],
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
  ['dtpa', /\bdtpa\b/i],
  ['hot water', /hot[\s-]*water/i],
];
/** The same words, to be left out where a header is searched for its analyte. */
const EXTRACTANT_WORDS =
  /mehlich[\s-]*(3|1|iii|i)?|\bm-?[13]\b|bray[\s-]*(p?-?1)?|olsen|ammonium acetate|nh4oac|\bdtpa\b|hot[\s-]*water/gi;

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

/** Nitrate and ammonium are told as nitrogen unless the header says otherwise. */
const OXIDE_WORDS = /\bp2o5\b|\bk2o\b|\bcao\b|\bmgo\b|\bso3\b|oxide|\bas (no3|nh4)\b/i;
const asDigit = (subscript: string): string => String('₀₁₂₃₄₅₆₇₈₉'.indexOf(subscript));

function plainHeader(header: string): string {
  return header.normalize('NFKC').replaceAll('_', ' ').replace(/\s+/g, ' ').trim();
}

/**
 * Recognise the columns of a laboratory's file by the words in its header. A
 * field is taken by one column only, the first that names it.
 */
export function readHeader(headers: readonly string[]): HeaderReading {
  const taken = new Set<LabField>();
  const found = headers.map((header) => {
    const text = plainHeader(header);
    // The method's own name must not be read as the nutrient ("M3-P", "Mehlich-3 Mg").
    const bare = text.replace(EXTRACTANT_WORDS, ' ').trim();
    const advised = readAdvisedHeader(text);
    const told = !advised && !VERDICT.test(text) && !METHOD.test(text) && !BUFFER_METHOD.test(text);
    const named = told ? firstMatch(fieldPatterns, /buffer/i.test(text) ? text : bare || text) : null;
    const field = named !== null && !taken.has(named) ? named : null;
    if (field !== null) taken.add(field);
    const unit = firstMatch(unitPatterns, text);
    return {
      header,
      field,
      // Where an analyte comes in one unit only, its header need not say it.
      unit: unit ?? (field !== null && isAnalyte(field) && unitsFor(field).length === 1 ? unitsFor(field)[0]! : null),
      basis: OXIDE_WORDS.test(text.replace(/[₂₃₄₅]/g, asDigit)) ? ('oxide' as const) : ('element' as const),
      ...(advised ? { advised } : {}),
      extractant: field === 'bufferPh' ? null : firstMatch(extractantPatterns, text),
      buffer: field === 'bufferPh' ? firstMatch(bufferPatterns, text) : null,
    };
  });
  const extractant = found.find((column) => column.extractant !== null)?.extractant ?? null;
  return {
    columns: found.map(({ extractant: own, buffer: _buffer, ...column }) => ({
      ...column,
      // Zinc by DTPA beside phosphorus by Olsen: each is rated by its own.
      ...(own !== null && own !== extractant ? { method: own } : {}),
    })),
    bufferMethod: found.find(({ buffer }) => buffer !== null)?.buffer ?? null,
    extractant,
  };
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
  const comma = cells.some((cell) =>
    (semicolons
      ? /^[<>]?\s*(\d+|\d{1,3}(\.\d{3})+),\d+$/
      : /^[<>]?\s*(\d{1,4},(\d{1,2}|\d{4,})|\d{1,3}(\.\d{3})+,\d+)$/
    ).test(cell),
  );
  // Three figures behind a point are thousands, where commas are decimals.
  return comma && !cells.some((cell) => /^[<>]?\s*\d+\.(\d{1,2}|\d{4,})$/.test(cell));
}

/** Which row is the header: the one that names most fields, among the first ones (files open with addresses and notes). */
export function findHeaderRow(rows: readonly (readonly string[])[], within = 20): number {
  const scores = rows
    .slice(0, within)
    .map((row) => readHeader(row).columns.filter((column) => column.field !== null).length);
  const best = Math.max(0, ...scores);
  return best >= 2 ? scores.indexOf(best) : -1;
}
