import { type Analyte, type LabUnit, analytes, isNutrient } from '../analytes/analytes.ts';
import { ratingOf } from '../analytes/ratings.ts';
import { type ReportedValue, unitsFor } from '../analytes/reported.ts';
import { QuantityError, splitNumber } from '../units/quantity.ts';
import { convert } from '../units/unit.ts';
import { type Advised, readAdvisedCell } from './advised.ts';
import { type Writing, isNotDetected, isNothing, plainDecimals, readDate, readPrinted } from './cells.ts';
import type { ColumnMatch, LabField } from './columns.ts';
import { ownUnitOf } from './typed.ts';

/** One sample of a laboratory's file, as far as it could be read. */
export interface LabRow {
  label: string;
  labNumber?: string;
  sampledOn?: string;
  /** cm */
  depth?: number;
  /** In the bag. */
  cores?: number;
  /** As printed. */
  values: Partial<Record<Analyte, ReportedValue>>;
  /** What the laboratory itself advises. */
  advised?: Advised[];
}

export interface RowFault {
  readonly field: LabField | 'row';
  readonly message: string;
}

export interface ReadRow {
  readonly row: LabRow;
  readonly faults: readonly RowFault[];
}

function readCell(row: LabRow, column: ColumnMatch, text: string, { dateOrder, decimalComma }: Writing): void {
  if (column.advised) {
    (row.advised ??= []).push(readAdvisedCell(text, column.advised, decimalComma));
    return;
  }
  switch (column.field) {
    case null:
      return;
    case 'label':
    case 'labNumber':
      row[column.field] = text.trim();
      return;
    case 'sampledOn':
      row.sampledOn = readDate(text, dateOrder);
      return;
    case 'depth':
      row.depth = readDepth(text, column);
      return;
    case 'cores':
      row.cores = readCores(text);
      return;
    default:
      row.values[column.field] = readValue(column.field, column, text);
  }
}

/** cm; of "0-6 in" the lower end. */
function readDepth(text: string, { unit: told }: ColumnMatch): number {
  const range = /^\s*0\s*(?:[-–]|to)/.exec(text);
  const number = splitNumber(range ? text.slice(range[0].length) : text);
  const unit = number?.rest || told;
  if (!number || (unit !== 'in' && unit !== 'cm' && unit !== '"'))
    throw new QuantityError(`"${text.trim()}" has no unit; write 6 in or 15 cm, or name the unit in the header`);
  return convert(number.value, unit, 'cm');
}

function readCores(text: string): number {
  const cores = Number(text.trim());
  if (!Number.isInteger(cores) || cores < 1)
    throw new QuantityError(`"${text.trim()}" is no number of cores; write a whole one, such as 15`);
  return cores;
}

/** A cell of an analyte, in the unit of its column or its own. */
function readValue(analyte: Analyte, column: ColumnMatch, text: string): ReportedValue {
  const { header, unit, basis, method, limit } = column;
  const found = isNotDetected(text);
  if (found && limit == null)
    throw new QuantityError(
      'says that nothing was found, and not how little can be: set the detection limit of the column',
    );
  const rated = isNutrient(analyte) ? ratingOf(text) : undefined;
  const printed = rated
    ? { value: 0, rest: '', belowDetection: false, aboveRange: false }
    : found
      ? { value: limit!, rest: '', belowDetection: true, aboveRange: false }
      : readPrinted(text.replace(/%\s*$/, ''));
  const units = unitsFor(analyte);
  const told = printed.rest === '' ? (unit as LabUnit | null) : ownUnitOf(analyte, printed.rest, text);
  // A mass by another is never guessed: ppm and lb/acre lie apart by half. Shares and the like come in their usual unit.
  const used =
    told !== null && units.includes(told) ? told : analytes[analyte].sense === 'concentration' ? null : units[0]!;
  if (used === null) throw new QuantityError('has no unit: choose ppm or lb/acre for this column');
  // A lime test index is ten times the buffer pH.
  const index = analyte === 'bufferPh' && /index/i.test(header) && printed.value > 14;
  return {
    value: index ? printed.value / 10 : printed.value,
    unit: used,
    basis: analytes[analyte].oxide ? basis : 'element',
    ...(printed.belowDetection ? { belowDetection: true } : {}),
    ...(printed.aboveRange ? { aboveRange: true } : {}),
    ...(rated ? { rated } : {}),
    ...(method ? { method } : {}),
  };
}

/**
 * Read one row by its columns. Whatever can be read is kept as it was printed; each cell that cannot be read is named
 * with the reason.
 *
 * @param writing how the file writes numbers and dates.
 */
export function readLabRow(cells: readonly string[], columns: readonly ColumnMatch[], writing: Writing = {}): ReadRow {
  const row: LabRow = { label: '', values: {} };
  const faults: RowFault[] = [];
  columns.forEach((column, index) => {
    const printed = (cells[index] ?? '').trim();
    if (isNothing(printed) && !(isNotDetected(printed) && column.limit != null)) return;
    const isText = column.field === 'label' || column.field === 'labNumber' || column.field === 'sampledOn';
    const text = isText || column.advised ? printed : plainDecimals(printed, writing.decimalComma ?? false);
    try {
      readCell(row, column, text, writing);
    } catch (error) {
      if (!(error instanceof QuantityError)) throw error;
      faults.push({ field: column.field ?? 'row', message: `${column.header}: ${error.message}` });
    }
  });
  if (row.label === '')
    faults.unshift({ field: 'label', message: 'No sample label: this row cannot be matched to a zone.' });
  return { row, faults };
}
