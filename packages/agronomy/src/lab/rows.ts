import { type Analyte, type LabUnit, analytes } from '../analytes/analytes.ts';
import { type ReportedValue, unitsFor } from '../analytes/reported.ts';
import { QuantityError, splitNumber } from '../units/quantity.ts';
import { convert } from '../units/unit.ts';
import type { ColumnMatch, LabField } from './columns.ts';

/** One sample of a laboratory's file, as far as it could be read. */
export interface LabRow {
  label: string;
  labNumber?: string;
  sampledOn?: string;
  /** cm */
  depth?: number;
  /** As printed. */
  values: Partial<Record<Analyte, ReportedValue>>;
}

export interface RowFault {
  readonly field: LabField | 'row';
  readonly message: string;
}

export interface ReadRow {
  readonly row: LabRow;
  readonly faults: readonly RowFault[];
}

const EMPTY = /^(|-|–|n\/?a|nd|not tested|\*+)$/i;

/** A laboratory's number: "<0.5" keeps its sign, a word or a range is refused. */
export function readReported(text: string): { readonly value: number; readonly belowDetection: boolean } {
  const below = /^\s*(<|less than|bdl\b)\s*/i.exec(text);
  const number = splitNumber(below ? text.slice(below[0].length) : text);
  if (number?.rest !== '')
    throw new QuantityError(`"${text.trim()}" is not a number: correct it from the paper report`);
  if (number.value < 0) throw new QuantityError(`"${text.trim()}" is negative; a test cannot read below 0`);
  return { value: number.value, belowDetection: below !== null };
}

/** Year, month and day of a text, where the order is beyond doubt. */
function dateParts(text: string): readonly number[] | undefined {
  const iso = /^(\d{4})-(\d{1,2})-(\d{1,2})/.exec(text);
  if (iso) return iso.slice(1).map(Number);
  const other = /^(\d{1,2})[/.](\d{1,2})[/.](\d{4})$/.exec(text)?.slice(1).map(Number);
  if (!other) return undefined;
  const [first = 0, second = 0, year = 0] = other;
  if (first > 12) return [year, second, first];
  return second > 12 || first === second ? [year, first, second] : undefined;
}

/** A date as 2026-03-14; one that could be read two ways is refused. */
function readDate(text: string): string {
  const [year = 0, month = 0, day = 0] = dateParts(text.trim()) ?? [];
  const date = new Date(Date.UTC(year, month - 1, day));
  if (date.getUTCMonth() + 1 !== month || date.getUTCDate() !== day) {
    throw new QuantityError(`"${text.trim()}" is not a date that can be read one way only; write it as 2026-03-14`);
  }
  return date.toISOString().slice(0, 10);
}

function readCell(row: LabRow, column: ColumnMatch, text: string): void {
  switch (column.field) {
    case null:
      return;
    case 'label':
    case 'labNumber':
      row[column.field] = text.trim();
      return;
    case 'sampledOn':
      row.sampledOn = readDate(text);
      return;
    case 'depth': {
      const range = /^\s*0\s*[-–]/.exec(text);
      const number = splitNumber(range ? text.slice(range[0].length) : text);
      const unit = number?.rest || column.unit;
      if (!number || (unit !== 'in' && unit !== 'cm' && unit !== '"'))
        throw new QuantityError(`"${text.trim()}" has no unit; write 6 in or 15 cm, or name the unit in the header`);
      row.depth = convert(number.value, unit, 'cm');
      return;
    }
    default:
      row.values[column.field] = readValue(column.field, column, text);
  }
}

/** A cell of an analyte, in the unit of its column or its own. */
function readValue(analyte: Analyte, { header, unit, basis, method }: ColumnMatch, text: string): ReportedValue {
  const reported = readReported(text.replace(/%\s*$/, ''));
  const told = unit as LabUnit | null;
  const units = unitsFor(analyte);
  // A mass by another is never guessed: ppm and lb/acre lie apart by half. Shares and the like come in their usual unit.
  const used =
    told !== null && units.includes(told) ? told : analytes[analyte].sense === 'concentration' ? null : units[0]!;
  if (used === null) throw new QuantityError('has no unit: choose ppm or lb/acre for this column');
  // A lime test index is ten times the buffer pH.
  const index = analyte === 'bufferPh' && /index/i.test(header) && reported.value > 14;
  return {
    value: index ? reported.value / 10 : reported.value,
    unit: used,
    basis: analytes[analyte].oxide ? basis : 'element',
    ...(reported.belowDetection ? { belowDetection: true } : {}),
    ...(method ? { method } : {}),
  };
}

/**
 * Read one row by its columns. Whatever can be read is kept as it was printed; each cell that cannot be read is named
 * with the reason.
 *
 * @param decimalComma whether the file writes 6,4 for 6.4.
 */
export function readLabRow(cells: readonly string[], columns: readonly ColumnMatch[], decimalComma = false): ReadRow {
  const row: LabRow = { label: '', values: {} };
  const faults: RowFault[] = [];
  columns.forEach((column, index) => {
    const printed = cells[index] ?? '';
    const text = decimalComma ? printed.trim().replace(/^(<?\s*\d+),(\d+)$/, '$1.$2') : printed;
    if (EMPTY.test(text.trim())) return;
    try {
      readCell(row, column, text);
    } catch (error) {
      if (!(error instanceof QuantityError)) throw error;
      faults.push({ field: column.field ?? 'row', message: `${column.header}: ${error.message}` });
    }
  });
  if (row.label === '')
    faults.unshift({ field: 'label', message: 'No sample label: this row cannot be matched to a zone.' });
  return { row, faults };
}
