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
  ['morgan', /morgan/i],
  ['ammonium acetate', /ammonium acetate|nh4oac/i],
];

const bufferPatterns: ReadonlyArray<readonly [BufferMethod, RegExp]> = [
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
    const found = firstMatch(fieldPatterns, /buffer/i.test(text) ? text : bare || text);
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

/** Which row is the header: the one that names most fields, among the first twenty (files open with addresses and notes). */
export function findHeaderRow(rows: readonly (readonly string[])[]): number {
  const scores = rows
    .slice(0, 20)
    .map((row) => readHeader(row).columns.filter((column) => column.field !== null).length);
  const best = Math.max(0, ...scores);
  return best >= 2 ? scores.indexOf(best) : -1;
}
