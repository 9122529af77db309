import {
  type BufferMethod,
  type Extractant,
  type LabUnit,
  type Basis,
  type PanelNutrient,
  QuantityError,
  nutrientSymbol,
  panel,
  parseQuantity,
  questionPlausibility,
  readReported,
  readTypedNutrient,
  toElement,
} from '@glenfold/agronomy';
import { LabResultInput, type LabResultAnswer, problemFields } from '@glenfold/contract';
import { plainToInstance } from 'class-transformer';
import { validateSync } from 'class-validator';

/** What one laboratory's report has in common. */
export interface SheetHead {
  readonly sampledOn: string;
  /** As typed, with or without a unit. */
  readonly depth: string;
  readonly depthUnit: 'in' | 'cm';
  readonly extractant: Extractant;
  readonly bufferMethod: BufferMethod;
  /** Of an Adams–Evans laboratory; nothing until it is told. */
  readonly limeFactor?: number | null;
  readonly columns: Readonly<Record<PanelNutrient, { readonly unit: LabUnit; readonly basis: Basis }>>;
}

export const cells = ['soilPh', 'bufferPh', 'p', 'k', 'ca', 'mg', 'organicMatter'] as const;
export type Cell = (typeof cells)[number];
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
  columns: {
    p: { unit: 'mg/kg', basis: 'element' },
    k: { unit: 'mg/kg', basis: 'element' },
    ca: { unit: 'mg/kg', basis: 'element' },
    mg: { unit: 'mg/kg', basis: 'element' },
  },
};

export function isBlank(row: SheetRow): boolean {
  return cells.every((cell) => (row[cell] ?? '').trim() === '');
}

/** The cell's text as a number; text that is none goes to the contract as it is, and is refused there with the same words as at the server. */
function plainValue(text: string): number | string {
  try {
    return readReported(text).value;
  } catch (error) {
    if (!(error instanceof QuantityError)) throw error;
    return text;
  }
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
  const nutrients: Record<string, unknown> = {};
  for (const nutrient of panel) {
    if (text(nutrient) === '') continue;
    const column = head.columns[nutrient];
    const reported = attempt(nutrient, () => readTypedNutrient(text(nutrient), nutrient, column));
    if (!reported) continue;
    nutrients[nutrient] = reported;
    const element = toElement(nutrient, reported).value;
    if (reported.unit !== column.unit)
      notes.push(`${nutrientSymbol(nutrient)} ${text(nutrient)} = ${Number(element.toPrecision(3))} mg/kg.`);
    const question = reported.belowDetection ? undefined : questionPlausibility(nutrient, element);
    if (question) questions.push(question);
  }
  const input = plainToInstance(LabResultInput, {
    ...keep,
    zoneId: zone.id,
    label: keep.label ?? zone.label,
    ...(head.sampledOn ? { sampledOn: head.sampledOn } : {}),
    depth,
    extractant: head.extractant,
    ...(text('soilPh') === '' ? {} : { soilPh: plainValue(text('soilPh')) }),
    ...(text('bufferPh') === ''
      ? {}
      : {
          bufferMethod: head.bufferMethod,
          bufferPh: plainValue(text('bufferPh')),
          ...(head.bufferMethod === 'adams-evans' ? { limeFactor: head.limeFactor ?? null } : {}),
        }),
    ...(text('organicMatter') === '' ? {} : { organicMatter: plainValue(text('organicMatter').replace(/%$/, '')) }),
    nutrients,
  });
  const known = new Set(problems.map(({ field }) => field));
  for (const { field, message } of problemFields(validateSync(input))) {
    const cell = field.startsWith('nutrients.') ? (field.split('.')[1] ?? field) : field;
    if (!known.has(cell)) problems.push({ field: cell, message });
  }
  if (typeof input.organicMatter === 'number')
    questions.push(
      ...[questionPlausibility('organicMatter', input.organicMatter)].filter((question) => question !== undefined),
    );
  if (depth !== undefined)
    questions.push(...[questionPlausibility('depth', depth)].filter((question) => question !== undefined));
  const order = (field: string): number => cells.indexOf(field as Cell);
  return { input, problems: problems.sort((a, b) => order(a.field) - order(b.field)), questions, notes };
}

/** A recorded result back on the sheet, to be corrected. */
export function sheetOf(result: LabResultAnswer): { readonly head: SheetHead; readonly row: SheetRow } {
  const { nutrients } = result;
  const columns = Object.fromEntries(
    panel.map((nutrient) => [
      nutrient,
      nutrients[nutrient]
        ? { unit: nutrients[nutrient].unit, basis: nutrients[nutrient].basis }
        : freshHead.columns[nutrient],
    ]),
  ) as unknown as SheetHead['columns'];
  const number = (value: number | null | undefined): string => (value == null ? '' : String(value));
  return {
    head: {
      sampledOn: result.sampledOn ?? '',
      depth: `${Number(result.depth.toFixed(3))} cm`,
      depthUnit: 'cm',
      extractant: result.extractant,
      bufferMethod: result.bufferMethod ?? 'smp',
      limeFactor: result.limeFactor,
      columns,
    },
    row: {
      soilPh: number(result.soilPh),
      bufferPh: number(result.bufferPh),
      organicMatter: number(result.organicMatter),
      ...Object.fromEntries(
        panel.flatMap((nutrient) =>
          nutrients[nutrient]
            ? [[nutrient, `${nutrients[nutrient].belowDetection ? '<' : ''}${nutrients[nutrient].value}`]]
            : [],
        ),
      ),
    },
  };
}
