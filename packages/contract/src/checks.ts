import {
  type Analyte,
  type BufferMethod,
  type Extractant,
  type FeatureKind,
  type LengthName,
  type ReportedValue,
  type ShapeName,
  InputError,
  analytes,
  areaShape,
  bufferMethods,
  bufferNames,
  bufferRange,
  checkGeometry,
  extractants,
  featureKinds,
  inOwnUnit,
  isNutrient,
  labUnits,
  nutrientSymbol,
  plainRange,
  unitsFor,
} from '@glenfold/agronomy';
import { Transform } from 'class-transformer';
import { type ValidationArguments, type ValidationOptions, registerDecorator } from 'class-validator';
import { atField } from './problems.ts';

/** Whether a text names a time zone, `Europe/Lisbon`. */
export function isTimeZone(name: string): boolean {
  try {
    return new Intl.DateTimeFormat('en', { timeZone: name }).resolvedOptions().timeZone !== '';
  } catch {
    return false;
  }
}

/** The day of a moment where the clocks show that time zone, `2026-10-14`. */
export function dayIn(at: Date, timeZone: string): string {
  return new Intl.DateTimeFormat('en-CA', { timeZone, year: 'numeric', month: '2-digit', day: '2-digit' }).format(at);
}

/** Texts are taken without the spaces around them. */
export const trim = Transform(({ value }: { value: unknown }) => (typeof value === 'string' ? value.trim() : value));

/** The same, and an empty text is none. */
export const trimOrNone = Transform(({ value }: { value: unknown }) =>
  typeof value === 'string' ? value.trim() || null : value,
);

/** An empty list is none: a form without entries sends one. */
export const noneWhenEmpty = Transform(({ value }: { value: unknown }) =>
  Array.isArray(value) && value.length === 0 ? null : value,
);

export interface AmountOptions {
  readonly min: number;
  readonly max: number;
  readonly unit?: string;
  /** What to do about a value outside the range. */
  readonly remedy?: string;
}

function decorate(
  name: string,
  constraints: unknown[],
  validate: (value: unknown, args: ValidationArguments) => boolean,
  message: (args: ValidationArguments) => string,
) {
  return (target: object, propertyName: string): void => {
    const options: ValidationOptions = {};
    registerDecorator({
      name,
      target: target.constructor,
      propertyName,
      constraints,
      options,
      validator: { validate: (value, args) => validate(value, args!), defaultMessage: (args) => message(args!) },
    });
  };
}

/** A text that was given where a number is wanted, to be found again on the report; nothing of what is no text. */
const quoted = (value: unknown): string => (typeof value === 'string' ? ` "${value.slice(0, 60)}"` : '');

/** A finite number within a range; one message says what is wrong and what is allowed. */
export function Amount(label: string, options: AmountOptions): PropertyDecorator {
  const { min, max, unit = '', remedy } = options;
  const allowed = plainRange(min, max, unit);
  return decorate(
    'amount',
    [options],
    (value) => typeof value === 'number' && Number.isFinite(value) && value >= min && value <= max,
    ({ value }) => {
      if (value === undefined || value === null || value === '') return `${label} is missing: give ${allowed}.`;
      if (typeof value !== 'number' || !Number.isFinite(value))
        return `${label}${quoted(value)} is not a number: give ${allowed}.`;
      return `${label} ${value} is outside ${allowed}.${remedy ? ` ${remedy}` : ''}`;
    },
  ) as PropertyDecorator;
}

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

/** What does not go together in a record, beside what is wrong with each part of it. */
export function Held(
  fault: (record: never) => { readonly field: string; readonly message: string } | undefined,
): PropertyDecorator {
  const faultOf = (object: object) => {
    try {
      return fault(object as never);
    } catch (error) {
      // Parts of another shape than they are said to have: each is refused by itself.
      if (error instanceof TypeError) return undefined;
      throw error;
    }
  };
  return decorate(
    'held',
    [],
    (_value, { object }) => faultOf(object) === undefined,
    ({ object }) => {
      const found = faultOf(object);
      return found ? atField(found.field, found.message) : '';
    },
  ) as PropertyDecorator;
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

/** A geometry of the plan that suits what it is drawn as; the message names the place in it that does not. */
export function Drawn(kind: FeatureKind | 'zone' | 'by kind'): PropertyDecorator {
  const fault = ({ value, object }: ValidationArguments): string | undefined => {
    const drawnAs = kind === 'by kind' ? (object as { kind: FeatureKind }).kind : kind;
    // A kind that nobody knows is refused by itself.
    if (drawnAs !== 'zone' && !featureKinds.includes(drawnAs)) return undefined;
    try {
      checkGeometry(value, drawnAs, 'The outline');
    } catch (error) {
      if (error instanceof InputError) return `${error.message}.`;
      throw error;
    }
    return undefined;
  };
  return decorate(
    'drawn',
    [kind],
    (_value, args) => fault(args) === undefined,
    (args) => fault(args) ?? '',
  ) as PropertyDecorator;
}

/** A place in WGS84: [longitude, latitude]. */
export function Place(): PropertyDecorator {
  return decorate(
    'place',
    [],
    (value) =>
      Array.isArray(value) &&
      value.length === 2 &&
      value.every((part, index) => Number.isFinite(part) && Math.abs(part as number) <= (index === 0 ? 180 : 90)),
    () => 'A place is [longitude, latitude] in degrees.',
  ) as PropertyDecorator;
}

/** Something that a function finds nothing wrong with. */
export function Checked(name: string, faultOf: (value: unknown) => string | undefined): PropertyDecorator {
  return decorate(
    name,
    [],
    (value) => faultOf(value) === undefined,
    ({ value }) => faultOf(value) ?? '',
  ) as PropertyDecorator;
}

/** A time zone of the IANA list, as this machine knows it. */
export function KnownTimeZone(): PropertyDecorator {
  return decorate(
    'knownTimeZone',
    [],
    (value) => typeof value === 'string' && isTimeZone(value),
    () => 'Choose a time zone of the list, such as Europe/Lisbon.',
  ) as PropertyDecorator;
}

/** Shares of a whole add up to it, with 1 % for rounding. */
export function SharesAddUp(): PropertyDecorator {
  const shareOf = (entry: unknown): number => {
    const share = (entry as { readonly share?: unknown } | null)?.share;
    return typeof share === 'number' ? share : NaN;
  };
  const sum = (value: unknown): number =>
    Array.isArray(value) ? value.reduce<number>((total, entry) => total + shareOf(entry), 0) : NaN;
  return decorate(
    'sharesAddUp',
    [],
    (value) => Math.abs(sum(value) - 100) <= 1,
    ({ value }) =>
      Number.isFinite(sum(value))
        ? `The shares make ${Math.round(sum(value))} % together: they are to make 100 %.`
        : 'Give each grass with its share in %, 100 % together.',
  ) as PropertyDecorator;
}

/** A simple shape whose lengths close it. */
export function Taped(): PropertyDecorator {
  const fault = ({ value }: ValidationArguments): string | undefined => {
    try {
      const { lengths, ...shape } = value as TapedShape;
      areaShape({ ...lengths, ...shape });
    } catch (error) {
      if (error instanceof InputError) return `${error.message}.`;
      throw error;
    }
    return undefined;
  };
  return decorate(
    'taped',
    [],
    (value, args) => typeof value === 'object' && value !== null && fault(args) === undefined,
    (args) => fault(args) ?? '',
  ) as PropertyDecorator;
}

/** A simple shape by its lengths, m, or in paces where a pace is given. */
export interface TapedShape {
  readonly shape: ShapeName;
  readonly lengths: Readonly<Partial<Record<LengthName, number>>>;
  /** m */
  readonly pace?: number;
  /** % by which a length may be off. */
  readonly spread?: number;
}

/** Amend the words of a decorator that only knows a list. */
export function oneOf(label: string, values: readonly string[]): { message: string } {
  return { message: `${label}: choose one of ${values.join(', ')}.` };
}
