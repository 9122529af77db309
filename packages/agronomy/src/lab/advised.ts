import { QuantityError, splitNumber } from '../units/quantity.ts';
import { UnitError, convert, parseUnit, sameDimension } from '../units/unit.ts';
import { plainDecimals } from './cells.ts';

/** What a laboratory advises an amount of. */
export const advisedKinds = [
  'lime',
  'sulfur',
  'gypsum',
  'nitrogen',
  'phosphate',
  'potash',
  'magnesium',
  'other',
] as const;
export type AdvisedKind = (typeof advisedKinds)[number];

/** Rates that laboratories print. */
export const advisedUnits = ['lb/1000ft2', 'lb/acre', 'ton/acre', 'g/m2', 'kg/ha', 't/ha'] as const;
export type AdvisedUnit = (typeof advisedUnits)[number];

/** What a laboratory itself advises of one thing, as it said so. */
export interface Advised {
  readonly what: AdvisedKind;
  /** As printed, in `unit`; nothing where it only says so in words. */
  readonly amount: number | null;
  readonly unit: AdvisedUnit | null;
  /** "pelletised calcitic lime" */
  readonly product?: string | null | undefined;
  /** The pH or level that it aims at. */
  readonly target?: string | null | undefined;
  readonly words?: string | null | undefined;
}

export const advisedUnitWords: Readonly<Record<AdvisedUnit, string>> = {
  'lb/1000ft2': 'lb/1000 ft²',
  'lb/acre': 'lb/acre',
  'ton/acre': 'ton/acre',
  'g/m2': 'g/m²',
  'kg/ha': 'kg/ha',
  't/ha': 't/ha',
};

/** An advised rate in g/m²; nothing where no amount was told. */
export function advisedRate({ amount, unit }: Pick<Advised, 'amount' | 'unit'>): number | undefined {
  if (amount === null || unit === null) return undefined;
  return unit === 't/ha' ? amount * 100 : convert(amount, unit, 'g/m2');
}

const kindPatterns: ReadonlyArray<readonly [AdvisedKind, RegExp]> = [
  ['gypsum', /gypsum/i],
  ['lime', /\blime\b|limestone|\bcaco3\b|\becce\b|\bcce\b/i],
  ['sulfur', /\bsul(f|ph)ur\b|\bs\b/i],
  ['nitrogen', /nitrogen|\bn\b/i],
  ['phosphate', /phosph|\bp2o5\b|\bp\b/i],
  ['potash', /potash|potass|\bk2o\b|\bk\b/i],
  ['magnesium', /magnes|\bmg\b/i],
];

const unitPatterns: ReadonlyArray<readonly [AdvisedUnit, RegExp]> = [
  ['lb/1000ft2', /\b(lbs?|pounds?)\s*(\/|per)\s*(1,?000|m(sf)?)\b/i],
  ['ton/acre', /\btons?\s*(\/|per)\s*a(c|cre)?\b/i],
  ['lb/acre', /\b(lbs?|pounds?)\s*(\/|per)\s*a(c|cre)?\b/i],
  ['g/m2', /\bg\s*(\/|per)\s*(m2|m²|sq\.? ?m)/i],
  ['kg/ha', /\bkg\s*(\/|per)\s*ha\b/i],
  ['t/ha', /\bt(onnes?)?\s*(\/|per)\s*ha\b/i],
];

const ADVICE = /\b(recommend\w*|advi[sc]ed?|requirement|to apply|application rate|rec\.?)(?![a-z])/i;
/** A column of the laboratory's advice: of what, and in which unit. */
export interface AdvisedColumn {
  readonly what: AdvisedKind;
  readonly unit: AdvisedUnit | null;
}

/** Whether a header names a column of advice, and of what. */
export function readAdvisedHeader(header: string): AdvisedColumn | undefined {
  const unit = unitPatterns.find(([, pattern]) => pattern.test(header))?.[0] ?? null;
  const bare = unitPatterns.reduce((text, [, pattern]) => text.replace(pattern, ' '), header);
  const what = kindPatterns.find(([, pattern]) => pattern.test(bare))?.[0];
  // "Lime, ton/acre" needs no word of advice: no test reads so.
  const plainly = what === 'lime' && unit !== null && !/index|buffer|free|carbonate/i.test(header);
  if (!ADVICE.test(header) && !plainly) return undefined;
  return { what: what ?? 'other', unit };
}

/** What a cell of such a column advises; nothing where it is empty. Words that hold no amount are kept as words. */
export function readAdvisedCell(cell: string, column: AdvisedColumn, decimalComma = false): Advised {
  const number = splitNumber(plainDecimals(cell, decimalComma));
  const unit = unitPatterns.find(([, pattern]) => pattern.test(cell))?.[0] ?? column.unit;
  const words = cell.trim();
  if (!number || number.value < 0 || unit === null) return { what: column.what, amount: null, unit: null, words };
  return { what: column.what, amount: number.value, unit, ...(number.rest === '' ? {} : { words }) };
}

/**
 * A rate as somebody typed it: "58 lb/1000 ft2", "1.5 ton/acre".
 *
 * @throws {QuantityError} with what is wanted.
 */
export function readAdvisedRate(text: string): Pick<Advised, 'amount' | 'unit'> {
  const number = splitNumber(text);
  const rest = number?.rest ?? '';
  const unit = unitPatterns.find(([, pattern]) => pattern.test(rest))?.[0];
  if (number && unit && number.value >= 0) return { amount: number.value, unit };
  try {
    if (number && rest !== '' && sameDimension(parseUnit(rest), parseUnit('g/m2')))
      return { amount: convert(number.value, rest, 'g/m2'), unit: 'g/m2' };
  } catch (error) {
    if (!(error instanceof UnitError)) throw error;
  }
  throw new QuantityError(
    `"${text.trim()}" is no rate: write it with its unit, such as 58 lb/1000 ft2, 1.5 ton/acre or 250 g/m2.`,
  );
}
