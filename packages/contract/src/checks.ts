import { plainRange } from '@glenfold/agronomy';
import { Transform } from './metadata.ts';
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

const UNSEEN = /[\s\p{Cf}]/u;

/** Text without what nobody sees at its ends: spaces, and signs that only steer others. */
function bare(text: string): string {
  let [from, to] = [0, text.length];
  while (from < to && UNSEEN.test(text.charAt(from))) from += 1;
  while (to > from && UNSEEN.test(text.charAt(to - 1))) to -= 1;
  return text.slice(from, to);
}

/** Texts are taken without the spaces around them. */
export const trim = Transform(({ value }: { value: unknown }) => (typeof value === 'string' ? bare(value) : value));

/** The same, and an empty text is none. */
export const trimOrNone = Transform(({ value }: { value: unknown }) =>
  typeof value === 'string' ? bare(value) || null : value,
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

/** A decorator of class-validator that knows its value, its record and its words. */
export function decorate(
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

/** Units in which a limit is told roundly to who reads US units, "4 in" of 10 cm: typed as it is told it is taken. */
const TOLD_ROUNDLY: ReadonlySet<string> = new Set(['cm', 'mm', 'm', 'kg', 'L', 'g/m²', 'L/min', 'mm/h', 'km/h', 'm³']);
const ROUNDED = 0.02;
const less = (limit: number, unit: string): number =>
  TOLD_ROUNDLY.has(unit) ? limit - ROUNDED * Math.abs(limit) : limit;
const more = (limit: number, unit: string): number =>
  TOLD_ROUNDLY.has(unit) ? limit + ROUNDED * Math.abs(limit) : limit;

/** A finite number within a range; one message says what is wrong and what is allowed. */
export function Amount(label: string, options: AmountOptions): PropertyDecorator {
  const { min, max, unit = '', remedy } = options;
  const allowed = plainRange(min, max, unit);
  return decorate(
    'amount',
    [options],
    (value) =>
      typeof value === 'number' && Number.isFinite(value) && value >= less(min, unit) && value <= more(max, unit),
    ({ value }) => {
      if (value === undefined || value === null || value === '') return `${label} is missing: give ${allowed}.`;
      if (typeof value !== 'number' || !Number.isFinite(value))
        return `${label}${quoted(value)} is not a number: give ${allowed}.`;
      return `${label} ${value} is outside ${allowed}.${remedy ? ` ${remedy}` : ''}`;
    },
  ) as PropertyDecorator;
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

/** Amend the words of a decorator that only knows a list. */
export function oneOf(label: string, values: readonly string[]): { message: string } {
  return { message: `${label}: choose one of ${values.join(', ')}.` };
}
