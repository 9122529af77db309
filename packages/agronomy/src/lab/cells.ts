import { QuantityError, splitNumber } from '../units/quantity.ts';

/** Which of two numbers of a date comes first, where the year does not. */
export const dateOrders = ['day first', 'month first'] as const;
export type DateOrder = (typeof dateOrders)[number];

/** How a file writes its numbers and dates. */
export interface Writing {
  /** 6,4 for 6.4, and 1.234,5 for 1234.5. */
  readonly decimalComma?: boolean | undefined;
  /** Nothing where its dates do not tell. */
  readonly dateOrder?: DateOrder | null | undefined;
}

/** Words of an empty cell, without their points and spaces. */
const NOTHING = new Set([
  ...['', 'na', 'n/a', 'nd', 'nt', 'nr', 'ns', 'none', 'null', 'tnp', 'nottested', 'notdetermined', 'notdetected'],
  ...['notreported', 'notrequested', 'notapplicable'],
]);
/** Nothing was found, which is less than what can be found. */
const NOT_DETECTED = /^(?:n\.?d\.?|not detected|bdl|< ?(?:lod|dl|mdl|loq|rl))$/i;

/** Whether a cell holds nothing. */
export const isNothing = (cell: string): boolean => NOTHING.has(cell.toLowerCase().replace(/[\s.*–—-]/g, ''));
/** Whether a cell says that nothing was found; how little can be found is the laboratory's to say. */
export const isNotDetected = (cell: string): boolean => NOT_DETECTED.test(cell.trim());

/** A printed number with decimals behind a point and without thousands. */
export function plainDecimals(text: string, decimalComma: boolean): string {
  const spaced = text.replace(/(\d)[\u00a0\u2009\u202f' ](?=\d{3}(?:\D|$))/g, '$1');
  return decimalComma ? spaced.replace(/(\d)\.(?=\d{3}(?:\D|$))/g, '$1').replace(/(\d),(\d)/, '$1.$2') : spaced;
}

/** Without the stars that lead to a footnote. */
function starless(text: string): string {
  let end = text.length;
  while (end > 0 && (text[end - 1] === '*' || text[end - 1] === ' ')) end -= 1;
  return text.slice(0, end);
}

/** A laboratory's number with what follows it. */
export interface Printed {
  readonly value: number;
  /** A unit of its own, as written; empty where its column says it. */
  readonly rest: string;
  readonly belowDetection: boolean;
  readonly aboveRange: boolean;
}

const SIGN = /^\s*(<=?|≤|less than|below|bdl\b|>=?|≥|more than|above|greater than)\s*/i;

/**
 * A laboratory's number: "<0.5" and "> 8.2" keep their sign, a word or a range is refused.
 *
 * @throws {QuantityError} for what is no number, and for one below 0.
 */
export function readPrinted(text: string): Printed {
  const [sign = '', word = ''] = SIGN.exec(text) ?? [];
  const number = splitNumber(starless(text.slice(sign.length)));
  if (!number || /^\s*[-–]\s*\d/.test(number.rest))
    throw new QuantityError(`"${text.trim()}" is not a number: correct it from the paper report`);
  if (number.value < 0) throw new QuantityError(`"${text.trim()}" is negative; a test cannot read below 0`);
  const above = /^(>|≥|more|above|greater)/i.test(word);
  return { ...number, belowDetection: word !== '' && !above, aboveRange: above };
}

const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'];
const monthOf = (word: string): number => MONTHS.indexOf(word.slice(0, 3).toLowerCase()) + 1;
const fullYear = (year: string): number => (year.length === 2 ? 2000 : 0) + Number(year);

/** The two leading numbers of a date that has its year last. */
const yearLast = (text: string): readonly string[] | undefined =>
  /^(\d{1,2})[/.-](\d{1,2})[/.-](\d{4}|\d{2})(?:[ T]|$)/.exec(text.trim())?.slice(1);

/** Which comes first in a column of dates; nothing where none of them tells, or they tell both. */
export function dateOrderOf(cells: readonly string[]): DateOrder | null {
  const read = cells.map(yearLast).filter((parts) => parts !== undefined);
  const dayFirst = read.some(([first]) => Number(first) > 12);
  const monthFirst = read.some(([, second]) => Number(second) > 12);
  return dayFirst === monthFirst ? null : dayFirst ? 'day first' : 'month first';
}

/** Year, month and day of a text, where the order is beyond doubt. */
function dateParts(text: string, order: DateOrder | null | undefined): readonly number[] | undefined {
  const iso = /^(\d{4})[-/.](\d{1,2})[-/.](\d{1,2})(?:[ T]|$)/.exec(text) ?? /^((?:19|20)\d\d)(\d\d)(\d\d)$/.exec(text);
  if (iso) return iso.slice(1).map(Number);
  const worded = /^(\d{1,2})\.?[ -]([a-z]{3,9})\.?,?[ -](\d{4}|\d{2})$/i.exec(text);
  if (worded) return [fullYear(worded[3]!), monthOf(worded[2]!), Number(worded[1])];
  const monthLed = /^([a-z]{3,9})\.? (\d{1,2}),? (\d{4})$/i.exec(text);
  if (monthLed) return [Number(monthLed[3]), monthOf(monthLed[1]!), Number(monthLed[2])];
  const parts = yearLast(text);
  if (!parts) return undefined;
  const [first, second, year] = [Number(parts[0]), Number(parts[1]), fullYear(parts[2]!)];
  if (first > 12) return [year, second, first];
  if (second > 12 || first === second) return [year, first, second];
  return order ? (order === 'day first' ? [year, second, first] : [year, first, second]) : undefined;
}

/**
 * A date as 2026-03-14.
 *
 * @throws {QuantityError} for one that could be read two ways, unless the order is known, and for one that is none.
 */
export function readDate(text: string, order?: DateOrder | null): string {
  const [year = 0, month = 0, day = 0] = dateParts(text.trim(), order) ?? [];
  const date = new Date(Date.UTC(year, month - 1, day));
  if (year < 1950 || date.getUTCMonth() + 1 !== month || date.getUTCDate() !== day)
    throw new QuantityError(
      `"${text.trim()}" is not a date that can be read one way only: say whether days or months come first, or write it as 2026-03-14`,
    );
  return date.toISOString().slice(0, 10);
}
