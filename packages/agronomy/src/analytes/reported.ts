import { type UnitSystem, present } from '../units/present.ts';
import { convert } from '../units/unit.ts';
import { type Figure, WorkingBook, figure } from '../working/working.ts';
import { type Analyte, type LabUnit, OXIDE_SOURCE, analytes } from './analytes.ts';
import type { Rating } from './ratings.ts';

export const bases = ['element', 'oxide'] as const;
/** What a number counts: the element, or the compound that it is also told as (P₂O₅, MgO, NO₃). */
export type Basis = (typeof bases)[number];

/** A number as the laboratory printed it, with all that is needed to read it later. */
export interface ReportedValue {
  readonly value: number;
  readonly unit: LabUnit;
  readonly basis: Basis;
  /** The report said "<value": the truth lies between 0 and `value`. */
  readonly belowDetection?: boolean | undefined;
  /** The report said ">value": the truth is that or more. */
  readonly aboveRange?: boolean | undefined;
  /** The report gave a word and no number: `value` says nothing. */
  readonly rated?: Rating | undefined;
  /** Extractant or method of this value alone, where it is not the report's. */
  readonly method?: string | undefined;
}

/** Whether it is a number to be compared, and no limit of what can be read, nor a word. */
export const isNumber = ({ belowDetection, aboveRange, rated }: ReportedValue): boolean =>
  !belowDetection && !aboveRange && rated === undefined;

/** Values of one sample. */
export type ReportedValues = Readonly<Partial<Record<Analyte, ReportedValue>>>;

/** A column of a sheet or file: what its plain numbers are. */
export interface ReportedAs {
  readonly unit: LabUnit;
  readonly basis: Basis;
}

/** Units and bases that an analyte is reported in, the usual first. An oxide carries no charge of its own. */
export function reportedAs(analyte: Analyte): readonly ReportedAs[] {
  const { units, oxide } = analytes[analyte];
  return (oxide ? bases : bases.slice(0, 1)).flatMap((basis) =>
    units.filter((unit) => basis === 'element' || unit !== 'cmol/kg').map((unit) => ({ unit, basis })),
  );
}

/** Units that an analyte is reported in, the usual first. */
export const unitsFor = (analyte: Analyte): readonly LabUnit[] => analytes[analyte].units;

/** "P₂O₅" or "Ca", as the numbers are to be read. */
export function basisName(analyte: Analyte, basis: Basis): string {
  const { oxide, symbol } = analytes[analyte];
  return basis === 'oxide' && oxide ? oxide.name : symbol;
}

/** A unit as it stands beside a number. */
export const unitWord = (unit: LabUnit): string =>
  ({
    'mg/kg': 'ppm',
    'cmol/kg': 'meq/100 g',
    'mg/100g': 'mg/100 g',
    'uS/cm': 'µS/cm',
    'g/cm3': 'g/cm³',
    C: '°C',
    pH: '',
  })[unit as string] ?? unit;

/** Laboratories' slice of 6⅔ in and 2 000 000 lb per acre, whatever the depth of the bag. */
const SLICE_SOURCE = 'Laboratory convention: an acre slice of 6⅔ in weighs 2 000 000 lb (2 242 000 kg/ha)';

/**
 * A reported value in the analyte's own unit: mg/kg of the element, %, dS/m, cmol(+)/kg, cm …
 *
 * @returns the value with its working; below detection keeps the detection
 *   limit, and the working says so.
 */
export function inOwnUnit(analyte: Analyte, reported: ReportedValue): Figure {
  const { symbol, oxide, mgPerCmol, units, sense } = analytes[analyte];
  const [own = ''] = units;
  const book = new WorkingBook();
  let { value } = reported;
  const { unit, basis, belowDetection, aboveRange } = reported;
  const printed = `${belowDetection ? '<' : aboveRange ? '>' : ''}${figure(value)}${unit === '' || unit === 'pH' ? '' : ` ${unit}`}`;
  book.step({
    label: `${symbol} as the laboratory reported it`,
    formula: sense === 'concentration' ? basis : 'as printed',
    numbers: printed,
    result: value,
    unit: unit === 'pH' ? '' : unit,
  });
  const step = (formula: string, numbers: string, result: number, ofSlice = false): void => {
    book.step({
      label: sense === 'concentration' ? 'As a concentration' : 'In its usual unit',
      formula,
      numbers,
      result,
      unit: own,
      ...(ofSlice ? { source: SLICE_SOURCE } : {}),
    });
    value = result;
  };
  if (unit === 'lb/acre') step('mg/kg = lb/acre / 2', `${figure(value)} / 2`, value / 2, true);
  else if (unit === 'kg/ha') {
    const divisor = convert(2, 'lb/acre', 'kg/ha');
    step('mg/kg = kg/ha / 2.242', `${figure(value)} / ${figure(divisor)}`, value / divisor, true);
  } else if (unit === 'mg/100g') step('mg/kg = mg/100 g × 10', `${figure(value)} × 10`, value * 10);
  else if (unit === 'cmol/kg' && own === 'mg/kg') {
    const factor = mgPerCmol ?? Number.NaN;
    step('mg/kg = cmol/kg × equivalent mass', `${figure(value)} × ${factor}`, value * factor);
  } else if (unit !== own) step(`${own} from ${unit}`, `${figure(value)} ${unit}`, convert(value, unit, own));
  if (basis === 'oxide' && oxide) {
    const result = value / oxide.factor;
    book.step({
      label: `As ${symbol}`,
      formula: `${symbol} = ${oxide.name} / ${oxide.factor}`,
      numbers: `${figure(value)} / ${oxide.factor}`,
      result,
      unit: '',
      source: OXIDE_SOURCE,
    });
    value = result;
  }
  if (belowDetection)
    book.warn(`The report says below ${printed.slice(1)}: the true value lies between 0 and ${figure(value)} ${own}.`);
  if (aboveRange)
    book.warn(`The report says above ${printed.slice(1)}: the true value is ${figure(value)} ${own} or more.`);
  return { value, working: book.entries };
}

/** A value as a person reads it: "<27 ppm", "pH 5.8", "5.5 in", "weak". */
export function presentValue(analyte: Analyte, reported: ReportedValue, system: UnitSystem): string {
  const { words, sense } = analytes[analyte];
  if (reported.rated) return `“${reported.rated}”`;
  const sign = reported.belowDetection ? '<' : reported.aboveRange ? '>' : '';
  const { value } = inOwnUnit(analyte, reported);
  if (words) return words[Math.round(value)] ?? String(value);
  if (sense === 'rate' && value < 0.5) return system === 'us' ? 'under 0.02 in/h' : 'under 0.5 mm/h';
  if (sense === 'rate')
    return system === 'us'
      ? `${Number(convert(value, 'mm/h', 'in/h').toPrecision(2))} in/h`
      : `${Number(value.toPrecision(2))} mm/h`;
  return `${sign}${present(sense, value, system).text}`;
}
