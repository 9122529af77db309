import {
  type BufferMethod,
  type FeatureKind,
  type LengthName,
  type ShapeName,
  InputError,
  checkGeometry,
  featureKinds,
  type PanelNutrient,
  type ReportedValue,
  areaShape,
  bufferMethods,
  bufferNames,
  bufferRange,
  labUnits,
  nutrientSymbol,
  plainRange,
  unitsFor,
} from '@glenfold/agronomy';
import { Transform } from 'class-transformer';
import { type ValidationArguments, type ValidationOptions, registerDecorator } from 'class-validator';

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

/** A buffer reading belongs to a method, and each method has its span. */
export function BufferReading(methodProperty: string): PropertyDecorator {
  const method = (args: ValidationArguments): unknown => (args.object as Record<string, unknown>)[methodProperty];
  return decorate(
    'bufferReading',
    [methodProperty],
    (value, args) => {
      const given = method(args);
      if (!bufferMethods.includes(given as BufferMethod)) return false;
      const [low, high] = bufferRange(given as BufferMethod);
      return typeof value === 'number' && value >= low && value <= high;
    },
    (args) => {
      const given = method(args);
      if (!Number.isFinite(args.value)) return `Buffer pH${quoted(args.value)} is not a number.`;
      if (!bufferMethods.includes(given as BufferMethod))
        return 'Say which buffer method gave this buffer pH: the same reading means different lime by each.';
      const [low, high] = bufferRange(given as BufferMethod);
      return `Buffer pH ${args.value} is outside the ${bufferNames[given as BufferMethod]} method’s ${low.toFixed(1)}–${high.toFixed(1)}. Check the reading and the method on the report.`;
    },
  ) as PropertyDecorator;
}

/** The unit is one that this nutrient is reported in. */
export function NutrientUnit(nutrient: PanelNutrient): PropertyDecorator {
  return decorate(
    'nutrientUnit',
    [nutrient],
    (value) => value === undefined || value === null || unitsFor(nutrient).includes((value as ReportedValue).unit),
    ({ value }) => {
      const { unit } = value as ReportedValue;
      const known = labUnits.includes(unit);
      return known
        ? `${nutrientSymbol(nutrient)} is not reported in ${unit}: choose one of ${unitsFor(nutrient).join(', ')}.`
        : `Say the unit of ${nutrientSymbol(nutrient)}: one of ${unitsFor(nutrient).join(', ')}.`;
    },
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
