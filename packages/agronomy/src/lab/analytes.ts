import { type Nutrient, nutrientSymbol } from '../nutrients/sufficiencyTables.ts';
import { nutrientConvert } from '../nutrients/convert.ts';
import { convert } from '../units/unit.ts';
import { type Figure, WorkingBook, figure } from '../working/working.ts';

/** The nutrients a routine panel reports, in the order of a lab sheet. */
export const panel = ['p', 'k', 'ca', 'mg'] as const;
export type PanelNutrient = (typeof panel)[number];

/** Units in which laboratories report them. */
export const labUnits = ['mg/kg', 'lb/acre', 'kg/ha', 'cmol/kg', 'mg/100g'] as const;
export type LabUnit = (typeof labUnits)[number];

export type Basis = 'element' | 'oxide';

/** A number as the laboratory printed it, with all that is needed to read it later. */
export interface ReportedValue {
  readonly value: number;
  readonly unit: LabUnit;
  readonly basis: Basis;
  /** The report said "<value": the truth lies between 0 and `value`. */
  readonly belowDetection?: boolean | undefined;
}

/** mg/kg per cmol(+)/kg, from atomic weights and charge. */
const chargeMass: Readonly<Partial<Record<Nutrient, number>>> = { k: 391, ca: 200.4, mg: 121.5 };

/** Phosphorus is a phosphate: it has no cation charge to be reported in. */
export function unitsFor(nutrient: PanelNutrient): readonly LabUnit[] {
  return chargeMass[nutrient] === undefined ? labUnits.filter((unit) => unit !== 'cmol/kg') : labUnits;
}

/** Laboratories' slice of 6⅔ in and 2 000 000 lb per acre, whatever the depth of the bag. */
const SLICE_SOURCE = 'Laboratory convention: an acre slice of 6⅔ in weighs 2 000 000 lb (2 242 000 kg/ha)';

/**
 * A reported value as mg/kg of the element.
 *
 * @returns the value with its working; below detection keeps the detection
 *   limit, and the working says so.
 */
export function toElement(nutrient: Nutrient, reported: ReportedValue): Figure {
  const book = new WorkingBook();
  const name = nutrientSymbol(nutrient);
  let value = reported.value;
  book.step({
    label: `${name} as the laboratory reported it`,
    formula: reported.basis === 'oxide' ? 'oxide' : 'element',
    numbers: `${reported.belowDetection ? '<' : ''}${figure(value)} ${reported.unit}`,
    result: value,
    unit: reported.unit,
  });
  if (reported.unit === 'lb/acre' || reported.unit === 'kg/ha') {
    const divisor = reported.unit === 'lb/acre' ? 2 : convert(2, 'lb/acre', 'kg/ha');
    book.step({
      label: 'As a concentration',
      formula: reported.unit === 'lb/acre' ? 'mg/kg = lb/acre / 2' : 'mg/kg = kg/ha / 2.242',
      numbers: `${figure(value)} / ${figure(divisor)}`,
      result: value / divisor,
      unit: 'mg/kg',
      source: SLICE_SOURCE,
    });
    value /= divisor;
  } else if (reported.unit === 'mg/100g') {
    book.step({
      label: 'As a concentration',
      formula: 'mg/kg = mg/100 g × 10',
      numbers: `${figure(value)} × 10`,
      result: value * 10,
      unit: 'mg/kg',
    });
    value *= 10;
  } else if (reported.unit === 'cmol/kg') {
    const factor = chargeMass[nutrient] ?? Number.NaN;
    book.step({
      label: 'As a concentration',
      formula: 'mg/kg = cmol/kg × equivalent mass',
      numbers: `${figure(value)} × ${factor}`,
      result: value * factor,
      unit: 'mg/kg',
    });
    value *= factor;
  }
  if (reported.basis === 'oxide') {
    const { result, working } = nutrientConvert({ value, nutrient, from: 'oxide', to: 'element' });
    book.include(working);
    value = result.value;
  }
  if (reported.belowDetection)
    book.warn(
      `The report says below ${figure(reported.value)} ${reported.unit}: the true value lies between 0 and ${figure(value)} mg/kg.`,
    );
  return { value, working: book.entries };
}
