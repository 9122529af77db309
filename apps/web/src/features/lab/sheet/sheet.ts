import {
  type Analyte,
  type BufferMethod,
  type Extractant,
  type ReportedValue,
  type SheetColumn,
  QuantityError,
  inOwnUnit,
  isAnalyte,
  nutrientSymbol,
  parseQuantity,
  questionDepth,
  questionPlausibility,
  rangeIn,
  readTypedValue,
  reportedAs,
  routineAnalytes,
  sheetOrder,
  unitsFor,
} from '@glenfold/agronomy';
import { LabResultInput, type LabResultAnswer, problemFields } from '@glenfold/contract';
import { plainToInstance } from 'class-transformer';
import { validateSync } from 'class-validator';
import { headName } from '../fieldNames.ts';

/** What one laboratory's report has in common. */
export interface SheetHead {
  readonly sampledOn: string;
  /** As typed, with or without a unit. */
  readonly depth: string;
  readonly depthUnit: 'in' | 'cm';
  /** In each bag, as typed; empty where nobody counted. */
  readonly cores?: string;
  readonly extractant: Extractant;
  readonly bufferMethod: BufferMethod;
  /** Of an Adams–Evans laboratory; nothing until it is told. */
  readonly limeFactor?: number | null;
  /** Columns beside the routine ones. */
  readonly more?: readonly Analyte[];
  /** Columns that are not in the analyte's usual unit. */
  readonly columns?: Readonly<Partial<Record<Analyte, SheetColumn>>>;
}

export type Cell = Analyte;
export type SheetRow = Readonly<Partial<Record<Cell, string>>>;

export interface ReadSheetRow {
  readonly input: LabResultInput;
  /** What keeps it from being saved: one message a cell, or for the head. */
  readonly problems: ReadonlyArray<{ readonly field: string; readonly message: string }>;
  /** What looks like a slip; it may be saved all the same. */
  readonly questions: readonly string[];
  /** Values typed in a unit of their own, told both ways. */
  readonly notes: readonly string[];
}

export const freshHead: SheetHead = {
  sampledOn: '',
  depth: '',
  depthUnit: 'in',
  extractant: 'mehlich-3',
  bufferMethod: 'smp',
};

const isRoutine = (analyte: Analyte): boolean => routineAnalytes.some((one) => one === analyte);

/** Columns of the sheet, in the order in which a report is read. */
export function cellsOf({ more = [] }: SheetHead): readonly Cell[] {
  return sheetOrder.filter((analyte) => isRoutine(analyte) || more.includes(analyte));
}

/** Analytes that a column can be added for. */
export const moreAnalytes: readonly Analyte[] = sheetOrder.filter((analyte) => !isRoutine(analyte));

/** What the plain numbers of a column are. */
export function columnOf({ columns }: SheetHead, analyte: Analyte): SheetColumn {
  return columns?.[analyte] ?? reportedAs(analyte)[0]!;
}

export function isBlank(row: SheetRow): boolean {
  return Object.values(row).every((text) => text.trim() === '');
}

/** Read a typed row by the contract: the same words refuse it here and at the server. */
export function readSheetRow(
  row: SheetRow,
  head: SheetHead,
  zone: { readonly id: string; readonly label: string },
  keep: Partial<LabResultInput> = {},
): ReadSheetRow {
  const problems: Array<{ field: string; message: string }> = [];
  const notes: string[] = [];
  const questions: string[] = [];
  const attempt = <T>(field: string, read: () => T): T | undefined => {
    try {
      return read();
    } catch (error) {
      if (!(error instanceof QuantityError)) throw error;
      problems.push({ field, message: error.message });
      return undefined;
    }
  };
  // One or two figures after a comma are decimals wherever the report was written; three are thousands.
  const text = (cell: Cell): string => (row[cell] ?? '').trim().replace(/^(<?\d+),(\d{1,2})(?!\d)/, '$1.$2');
  const depth =
    head.depth.trim() === ''
      ? undefined
      : attempt('depth', () =>
          parseQuantity(/[a-z"']/i.test(head.depth) ? head.depth : `${head.depth} ${head.depthUnit}`, 'cm'),
        );
  const values: Partial<Record<Analyte, ReportedValue>> = {};
  for (const cell of cellsOf(head)) {
    if (text(cell) === '') continue;
    const column = columnOf(head, cell);
    const reported = attempt(cell, () => readTypedValue(text(cell), cell, column));
    if (!reported) continue;
    const between = rangeIn(text(cell));
    if (between)
      notes.push(
        `${headName(cell)} ${text(cell)}: taken as ${Number(reported.value.toPrecision(4))}, the middle of what the report gives.`,
      );
    if (reported.rated)
      notes.push(`${headName(cell)} ${reported.rated}: the report’s word, used without a number; ask for the number.`);
    values[cell] = cell === 'bufferPh' ? { ...reported, method: head.bufferMethod } : reported;
    // A unit that it does not come in is refused by the contract.
    if (!unitsFor(cell).includes(reported.unit)) continue;
    const own = inOwnUnit(cell, reported).value;
    if (reported.unit !== column.unit)
      notes.push(`${nutrientSymbol(cell)} ${text(cell)} = ${Number(own.toPrecision(3))} ${unitsFor(cell)[0]}.`);
    const question = reported.belowDetection || reported.rated ? undefined : questionPlausibility(cell, own);
    if (question) questions.push(question);
  }
  const input = plainToInstance(LabResultInput, {
    zoneIds: [zone.id],
    ...keep,
    label: keep.label ?? zone.label,
    ...(head.sampledOn ? { sampledOn: head.sampledOn } : {}),
    depth,
    ...((head.cores ?? '').trim() === '' ? {} : { cores: Number(head.cores) }),
    extractant: head.extractant,
    ...(values.bufferPh && head.bufferMethod === 'adams-evans' ? { limeFactor: head.limeFactor ?? null } : {}),
    values,
  });
  const known = new Set(problems.map(({ field }) => field));
  for (const { field, message } of problemFields(validateSync(input))) {
    const cell = field === 'values' ? 'soilPh' : field.startsWith('values.') ? (field.split('.')[1] ?? field) : field;
    if (!known.has(cell)) problems.push({ field: cell, message });
  }
  const deep = depth === undefined ? undefined : questionDepth(depth);
  if (deep) questions.push(deep);
  const order = (field: string): number => (isAnalyte(field) ? sheetOrder.indexOf(field) : -1);
  return { input, problems: problems.sort((a, b) => order(a.field) - order(b.field)), questions, notes };
}

/** A recorded result back on the sheet, to be corrected. */
export function sheetOf(result: LabResultAnswer): { readonly head: SheetHead; readonly row: SheetRow } {
  const known = sheetOrder.flatMap((analyte) => {
    const value = result.values[analyte];
    return value ? [[analyte, value] as const] : [];
  });
  const columns = Object.fromEntries(
    known.flatMap(([analyte, { unit, basis, method }]) =>
      analyte === 'bufferPh' ? [] : [[analyte, { unit, basis, ...(method === undefined ? {} : { method }) }]],
    ),
  ) as NonNullable<SheetHead['columns']>;
  const buffer = result.values.bufferPh?.method as BufferMethod | undefined;
  return {
    head: {
      sampledOn: result.sampledOn ?? '',
      depth: `${Number(result.depth.toFixed(3))} cm`,
      depthUnit: 'cm',
      cores: result.cores === null ? '' : String(result.cores),
      extractant: result.extractant,
      bufferMethod: buffer ?? 'smp',
      limeFactor: result.limeFactor,
      more: known.flatMap(([analyte]) => (isRoutine(analyte) ? [] : [analyte])),
      columns,
    },
    row: Object.fromEntries(
      known.map(([analyte, { value, belowDetection, rated }]) => [
        analyte,
        rated ?? `${belowDetection ? '<' : ''}${value}`,
      ]),
    ),
  };
}
