import { type Analyte, type LabUnit, analytes, isNutrient } from '../analytes/analytes.ts';
import { ratingOf } from '../analytes/ratings.ts';
import { type ReportedAs, type ReportedValue, basisName, inOwnUnit, unitsFor } from '../analytes/reported.ts';
import { QuantityError, splitNumber } from '../units/quantity.ts';
import { UnitError, convert, parseUnit, sameDimension } from '../units/unit.ts';

/** What a column of a lab sheet is set to. */
export interface SheetColumn extends ReportedAs {
  /** Extractant of this column alone, where it is not the report's. */
  readonly method?: string | undefined;
}

const digits = (text: string): string => text.replace(/[₂₃₄₅]/g, (sign) => String('₀₁₂₃₄₅'.indexOf(sign)));
const escaped = (text: string): string => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');

/** "5.6–5.8" of a report that gives no one number; nothing where it is none. */
export function rangeIn(
  text: string,
): { readonly low: number; readonly high: number; readonly rest: string } | undefined {
  const first = splitNumber(text);
  const last =
    first && /^(?:[-–—]|to\b)/i.test(first.rest) ? splitNumber(first.rest.replace(/^(?:[-–—]|to)/i, '')) : undefined;
  return first && last && last.value > first.value
    ? { low: first.value, high: last.value, rest: last.rest }
    : undefined;
}

/**
 * Read what a person typed into the cell of an analyte: `21`, `<5`, or a number with
 * its own unit (`42 lb/ac` in a ppm column), which is kept as typed; of a range (`5.6–5.8`) the middle, and of a nutrient a
 * report's word (`low`).
 *
 * @throws {QuantityError} for a word, a negative number, another basis than the
 *   column's (P₂O₅ typed where P is wanted), or a unit that the analyte does not come in.
 */
export function readTypedValue(text: string, analyte: Analyte, column: SheetColumn): ReportedValue {
  const { oxide, symbol } = analytes[analyte];
  const [sign = ''] = /^\s*(?:[<>]|less than|more than)\s*/i.exec(text) ?? [];
  const rated = isNutrient(analyte) ? ratingOf(text) : undefined;
  if (rated)
    return {
      value: 0,
      unit: column.unit,
      basis: column.basis,
      rated,
      ...(column.method ? { method: column.method } : {}),
    };
  const between = rangeIn(text);
  const number = between
    ? { value: (between.low + between.high) / 2, rest: between.rest }
    : splitNumber(text.slice(sign.length));
  const name = basisName(analyte, column.basis);
  if (!number)
    throw new QuantityError(
      `"${text.trim()}" is not a number: type ${name}${column.unit === '' || column.unit === 'pH' ? '' : ` in ${column.unit}`}, such as ${oxide ? '21 or <5' : '6.4'}${isNutrient(analyte) ? ', or the report’s word, such as low' : ''}.`,
    );
  if (number.value < 0) throw new QuantityError(`${number.value} is negative: a test cannot read below 0.`);

  const rest = digits(number.rest);
  const asOxide = oxide !== undefined && new RegExp(`\\b${digits(oxide.name)}\\b`, 'i').test(rest);
  const own = [...(oxide ? [digits(oxide.name)] : []), digits(symbol)].map(escaped);
  // The element's sign may stand before or after the unit, but is not the unit's own ("mg/kg", "Mg").
  const unitText = rest.replace(new RegExp(`\\b(${own.join('|')})\\b(?!\\s*/)`, 'gi'), '').trim();
  const unit = unitText === '' ? column.unit : ownUnitOf(analyte, unitText, text);
  if (asOxide && column.basis === 'element') {
    const { value } = inOwnUnit(analyte, { value: number.value, unit, basis: 'oxide' });
    throw new QuantityError(
      `${number.value} is ${oxide.name}, but this column takes ${name}: that is ${Number(value.toPrecision(3))} mg/kg ${name}. Set the column to ${oxide.name}, or type the ${name}.`,
    );
  }
  return {
    value: number.value,
    unit,
    basis: column.basis,
    ...(/<|less/i.test(sign) ? { belowDetection: true } : {}),
    ...(/>|more/i.test(sign) ? { aboveRange: true } : {}),
    ...(column.method ? { method: column.method } : {}),
  };
}

/**
 * The unit that was written behind a number.
 *
 * @param text the whole, as a refusal quotes it.
 * @throws {QuantityError} for one that the analyte does not come in.
 */
export function ownUnitOf(analyte: Analyte, unitText: string, text: string): LabUnit {
  const units = unitsFor(analyte);
  try {
    const unit = parseUnit(unitText);
    for (const known of units) {
      const plain = known === 'pH' ? '' : known;
      if (plain === '') continue;
      if (sameDimension(unit, parseUnit(plain)) && Math.abs(convert(1, unitText, plain) - 1) < 1e-9) return known;
    }
  } catch (error) {
    if (!(error instanceof UnitError)) throw error;
  }
  const { name, sense } = analytes[analyte];
  const told = units.filter((known) => known !== '' && known !== 'pH');
  throw new QuantityError(
    sense === 'concentration'
      ? `"${text.trim()}": soil tests come in ppm (mg/kg), mg/100 g, lb/acre, kg/ha or meq/100g.`
      : told.length === 0
        ? `"${text.trim()}": ${name} is a plain number, without a unit.`
        : `"${text.trim()}": ${name} comes in ${told.join(' or ')}.`,
  );
}
