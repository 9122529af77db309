import { nutrientSymbol } from '../nutrients/sufficiencyTables.ts';
import { QuantityError, splitNumber } from '../units/quantity.ts';
import { UnitError, convert, parseUnit, sameDimension } from '../units/unit.ts';
import { type Basis, type LabUnit, type PanelNutrient, type ReportedValue, labUnits, toElement } from './analytes.ts';

const oxideNames: Readonly<Partial<Record<PanelNutrient, string>>> = { p: 'P₂O₅', k: 'K₂O' };

/** What a column of a lab sheet is set to. */
export interface SheetColumn {
  readonly unit: LabUnit;
  readonly basis: Basis;
}

/** "P₂O₅" or "Ca", as the column's numbers are to be read. */
export function basisName(nutrient: PanelNutrient, basis: Basis): string {
  return (basis === 'oxide' && oxideNames[nutrient]) || nutrientSymbol(nutrient);
}

/**
 * Read what a person typed into a nutrient's cell: `21`, `<5`, or a number with
 * its own unit (`42 lb/ac` in a ppm column), which is kept as typed.
 *
 * @throws {QuantityError} for a word, a negative number, another basis than the
 *   column's (P₂O₅ typed where P is wanted), or a unit no soil test comes in.
 */
export function readTypedNutrient(text: string, nutrient: PanelNutrient, column: SheetColumn): ReportedValue {
  const below = /^\s*(<|less than)\s*/i.exec(text);
  const number = splitNumber(below ? text.slice(below[0].length) : text);
  const name = basisName(nutrient, column.basis);
  if (!number)
    throw new QuantityError(`"${text.trim()}" is not a number: type ${name} in ${column.unit}, such as 21 or <5.`);
  if (number.value < 0) throw new QuantityError(`${number.value} is negative: a test cannot read below 0.`);

  const oxide = /\b(p2o5|k2o)\b/i.test(number.rest.replace(/₂/g, '2').replace(/₅/g, '5'));
  const unitText = number.rest
    .replace(/₂/g, '2')
    .replace(/₅/g, '5')
    .replace(/\b(p2o5|k2o|p|k|ca|mg)\b(?!\s*\/)/gi, '')
    .trim();
  const unit = unitText === '' ? column.unit : soilTestUnit(unitText, text);
  if (oxide && column.basis === 'element') {
    const value = toElement(nutrient, { value: number.value, unit, basis: 'oxide' }).value;
    throw new QuantityError(
      `${number.value} is ${oxideNames[nutrient]}, but this column takes ${name}: that is ${Number(value.toPrecision(3))} mg/kg ${name}. Set the column to ${oxideNames[nutrient]}, or type the ${name}.`,
    );
  }
  return { value: number.value, unit, basis: column.basis, ...(below ? { belowDetection: true } : {}) };
}

function soilTestUnit(unitText: string, text: string): LabUnit {
  try {
    const unit = parseUnit(unitText);
    for (const known of labUnits) {
      if (sameDimension(unit, parseUnit(known)) && Math.abs(convert(1, unitText, known) - 1) < 1e-9) return known;
    }
  } catch (error) {
    if (!(error instanceof UnitError)) throw error;
  }
  throw new QuantityError(`"${text.trim()}": soil tests come in ppm (mg/kg), mg/100 g, lb/acre, kg/ha or meq/100g.`);
}
