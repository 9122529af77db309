import { UnitError, convert, describeDimension, parseUnit, sameDimension } from './unit.ts';

/** A typed or transmitted amount that cannot be taken; the message reads after "is" or "must". */
export class QuantityError extends Error {}

const FRACTIONS: Readonly<Record<string, string>> = {
  '¼': '1/4',
  '½': '1/2',
  '¾': '3/4',
  '⅓': '1/3',
  '⅔': '2/3',
  '⅛': '1/8',
};
const NUMBER = String.raw`[-+]?(?:\d+\s+\d+\/\d+|\d+\/\d+|(?:\d+(?:,\d{3})*)(?:\.\d+)?(?:[eE][-+]?\d+)?|\.\d+)`;
const PART = new RegExp(`^${NUMBER}`);
const COMPOUND = new RegExp(String.raw`^([A-Za-z'"]+)\s*(?=${NUMBER}\s*[A-Za-z'"])`);

/** A number as people write it: 1,250.5, 1/4, 1 1/2, 6½. */
function readNumber(text: string): number {
  const mixed = /^([-+]?)(?:(\d+)\s+)?(\d+)\/(\d+)$/.exec(text);
  if (mixed) {
    const [, sign, whole = '0', top, bottom] = mixed;
    return (sign === '-' ? -1 : 1) * (Number(whole) + Number(top) / Number(bottom));
  }
  return Number(text.replaceAll(',', ''));
}

/** The number at the front of a text and what follows it, or nothing when it is not led by a number. */
export function splitNumber(text: string): { readonly value: number; readonly rest: string } | undefined {
  const plain = text
    .trim()
    .replace(/−/g, '-')
    .replace(/[¼½¾⅓⅔⅛]/g, (sign) => ` ${FRACTIONS[sign] ?? ''}`)
    .trim();
  const match = PART.exec(plain);
  if (!match) return undefined;
  const [number] = match;
  const rest = plain.slice(number.length).trim();
  if (/^,\d/.test(rest) || /^\.\d/.test(rest)) return undefined;
  const value = readNumber(number.trim());
  return Number.isFinite(value) ? { value, rest: rest.trim() } : undefined;
}

/** "550" of "$550", and "40 $/yd3" of "$40/yd3": money is written with its sign before it. */
const withoutSign = (text: string): string => text.replace(/^\s*[$€£¥]\s*/, '').replace(/^(\s*[\d.,]+)\s*\//, '$1 $/');

/**
 * Read an amount in a wanted unit.
 *
 * @param input a number, already in `unit`, or a text: a bare number in `unit`,
 *   or one with its own unit (`"40 lb/ac"`, `"65 F"`, `"1/4 in"`, `"5 ft 6 in"`).
 * @param unit the unit of the answer, `''` for a plain number.
 * @returns the amount in `unit`.
 * @throws {QuantityError} when it is not a number, not finite, or of another dimension.
 *
 * @example parseQuantity('8 in', 'cm') // 20.32
 */
export function parseQuantity(input: number | string, unit: string): number {
  if (typeof input === 'number') {
    if (!Number.isFinite(input)) throw new QuantityError('is not a finite number');
    return input;
  }
  const first = splitNumber(unit.startsWith('$') ? withoutSign(input) : input);
  if (!first) {
    const comma = /\d,\d/.test(input) ? '; write decimals with a point, as in 1.5' : '';
    throw new QuantityError(`is not a number${comma}`);
  }
  if (first.rest === '') return first.value;

  // "5 ft 6 in": a chain of amounts of one dimension, each smaller than the last.
  let total = 0;
  let part: typeof first | undefined = first;
  while (part) {
    const chained: RegExpExecArray | null = COMPOUND.exec(part.rest);
    const ownUnit: string = chained?.[1] ?? part.rest;
    total += readIn(part.value, ownUnit, unit);
    part = chained ? splitNumber(part.rest.slice(chained[0].length)) : undefined;
  }
  return total;
}

function readIn(value: number, ownUnit: string, unit: string): number {
  try {
    if (unit === '' || !sameDimension(parseUnit(ownUnit), parseUnit(unit))) {
      throw new QuantityError(`is in ${ownUnit}, but ${describeDimension(unit)} is wanted`);
    }
    return convert(value, ownUnit, unit);
  } catch (error) {
    if (error instanceof UnitError) throw new QuantityError(`has a unit that cannot be read: ${error.message}`);
    throw error;
  }
}
