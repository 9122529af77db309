import {
  type Analyte,
  type BufferMethod,
  type Extractant,
  type ReportedValue,
  analytes,
  bufferMethods,
  bufferNames,
  bufferRange,
  extractants,
  inOwnUnit,
  isNutrient,
  labUnits,
  nutrientSymbol,
  plainRange,
  unitsFor,
} from '@glenfold/agronomy';
import type { ValidationArguments } from 'class-validator';
import { decorate } from './checks.ts';

/** How a value is told in a refusal: "P 21 mg/kg", "Soil pH 14". */
const toldOf = (analyte: Analyte, { value, unit }: ReportedValue): string =>
  `${analytes[analyte].sense === 'concentration' ? nutrientSymbol(analyte) : analytes[analyte].name} ${value}${unit === '' || unit === 'pH' ? '' : ` ${unit}`}`;

/** What is wrong with a value of an analyte; nothing where it can be. */
function faultOfValue(analyte: Analyte, reported: ReportedValue): string | undefined {
  const { name, oxide, range, sense } = analytes[analyte];
  const { value, unit, basis, method } = reported;
  const called = sense === 'concentration' ? nutrientSymbol(analyte) : name;
  // A value that is no number is refused by itself.
  if (typeof value !== 'number' || !Number.isFinite(value)) return undefined;
  const units = unitsFor(analyte).map((known) => known || 'no unit');
  if (!unitsFor(analyte).includes(unit))
    return labUnits.includes(unit)
      ? `${called} is not reported in ${unit || 'a plain number'}: choose one of ${units.join(', ')}.`
      : `Say the unit of ${called}: one of ${units.join(', ')}.`;
  if (basis === 'oxide' && !oxide) return `${called} is not reported as an oxide: give it as it is.`;
  if (analyte === 'bufferPh') {
    const { value: ph } = reported;
    if (!bufferMethods.includes(method as BufferMethod))
      return 'Say which buffer method gave this buffer pH: the same reading means different lime by each.';
    const [low, high] = bufferRange(method as BufferMethod);
    return ph >= low && ph <= high
      ? undefined
      : `Buffer pH ${ph} is outside the ${bufferNames[method as BufferMethod]} method’s ${low.toFixed(1)}–${high.toFixed(1)}. Check the reading and the method on the report.`;
  }
  if (method != null && isNutrient(analyte) && !extractants.includes(method as Extractant))
    return `The extractant of ${called} is not known: choose one of ${extractants.join(', ')}.`;
  const { value: own } = inOwnUnit(analyte, reported);
  const [min, max] = range;
  return own >= min - 1e-9 && own <= max + 1e-9
    ? undefined
    : `${toldOf(analyte, reported)} is outside ${plainRange(min, max, unitsFor(analyte)[0] === 'pH' ? '' : (unitsFor(analyte)[0] ?? ''))}. ${sense === 'ph' ? 'No soil reads outside it: check the report.' : 'Check the unit and the column.'}`;
}

/** The value is one that this analyte can have, in a unit that it is reported in. */
export function ValueOf(analyte: Analyte): PropertyDecorator {
  const fault = ({ value }: ValidationArguments): string | undefined =>
    typeof value === 'object' && value !== null ? faultOfValue(analyte, value as ReportedValue) : undefined;
  return decorate(
    'valueOf',
    [analyte],
    (_value, args) => fault(args) === undefined,
    (args) => fault(args) ?? '',
  ) as PropertyDecorator;
}

const phs = ['soilPh', 'saltPh', 'calciumChloridePh'] as const;

/** A report of soil has a pH: without one nothing of it can be read. */
export function WithPh(): PropertyDecorator {
  return decorate(
    'withPh',
    [],
    (value, { object }) => {
      if (typeof value !== 'object' || value === null) return true;
      if (((object as { of?: unknown }).of ?? 'soil') !== 'soil') return true;
      return phs.some((ph) => (value as Readonly<Record<string, unknown>>)[ph] != null);
    },
    () => `Soil pH is missing: give ${plainRange(...analytes.soilPh.range, '')}.`,
  ) as PropertyDecorator;
}
