import { QuantityError, parseQuantity, splitNumber } from '../units/quantity.ts';
import { convert } from '../units/unit.ts';

/**
 * A refused input: which field (full dotted path), what was given and what is
 * allowed, in one line.
 */
export class InputError extends Error {
  readonly field: string;

  constructor(field: string, problem: string) {
    // What was given may hold line ends; the message is one line all the same.
    super(
      `${field} ${problem}`
        .split(/[\r\n\u2028\u2029]/)
        .map((line, index) => (index === 0 ? line.trimEnd() : line.trim()))
        .filter((line) => line !== '')
        .join(' '),
    );
    this.name = 'InputError';
    this.field = field;
  }
}

/** What a form needs to know of a field to ask for it. */
export type FieldShape =
  | { readonly kind: 'quantity'; readonly unit: string; readonly whole: boolean }
  | { readonly kind: 'choice'; readonly names: readonly string[] }
  | { readonly kind: 'flag' }
  | { readonly kind: 'text' }
  | { readonly kind: 'list'; readonly item: Field<unknown>; readonly min: number; readonly max: number }
  | { readonly kind: 'group'; readonly fields: Fields }
  /** Something that no form asks for bit by bit: an outline, a table. It is pasted as JSON. */
  | { readonly kind: 'json' };

/** Reads one input field. `T` is what the calculation gets. */
export interface Field<T, O extends boolean = boolean> {
  /** For `--list` and the generated documentation. */
  readonly description: string;
  readonly optional: O;
  readonly shape: FieldShape;
  /** What it is when left out. */
  readonly whenLeftOut?: string | number | boolean;
  read(raw: unknown, path: string): T;
}

export type Fields = Readonly<Record<string, Field<unknown>>>;
export type Values<F extends Fields> = { readonly [K in keyof F]: F[K] extends Field<infer T> ? T : never };
type OptionalKeys<F extends Fields> = { [K in keyof F]: F[K] extends Field<unknown, true> ? K : never }[keyof F];
/** What a caller passes: numbers in the stated unit, or texts with their own. */
export type RawInput<F extends Fields> = Readonly<Record<Exclude<keyof F, OptionalKeys<F>>, unknown>> &
  Readonly<Partial<Record<OptionalKeys<F>, unknown>>>;

/** What was given, for a message, cut short. */
export function shown(raw: unknown): string {
  if (raw === undefined) return 'nothing';
  const text = typeof raw === 'string' ? `"${raw}"` : ((JSON.stringify(raw) as string | undefined) ?? typeof raw);
  return text.length > 60 ? `${text.slice(0, 57)}...` : text;
}

export interface QuantityOptions {
  readonly min?: number;
  readonly max?: number;
  /** Refuse the lower end itself. */
  readonly above?: number;
  readonly whole?: boolean;
  /** Why the range is what it is, appended to the refusal. */
  readonly why?: string;
}

function range(unit: string, { min, max, above }: QuantityOptions): string {
  const suffix = unit === '' || unit === 'pH' ? '' : ` ${unit}`;
  if (above !== undefined)
    return max === undefined ? `above ${above}${suffix}` : `above ${above}, up to ${max}${suffix}`;
  if (min !== undefined && max !== undefined) return plainRange(min, max, suffix.trim());
  if (min !== undefined) return `${min}${suffix} or more`;
  return max === undefined ? `a number${suffix && ` in${suffix}`}` : `${max}${suffix} at most`;
}

/** Beyond any amount of soil work; keeps arithmetic clear of overflow where a field states no limit. */
const CEILING = 1e12;

/** Share by which a limit may be rounded in another unit than its own. */
const ROUNDED = 0.02;
const ROUNDED_UNITS: ReadonlySet<string> = new Set([
  ...(['cm', 'mm', 'm', 'm2', 'm3', 'kg', 't', 'L', 'mL', 'g', 'g/m2', 'L/min', 'mm/h', 'km/h', 'mL/m2', 'C'] as const),
]);
const hasOtherUnit = (raw: string, unit: string): boolean => {
  const own = splitNumber(raw)?.rest ?? '';
  return own !== '' && own !== unit;
};

/** An amount in `unit` (`pH` and `''` are plain numbers), within its range. */
export function quantity(unit: string, options: QuantityOptions = {}): Field<number, false> {
  const allowed = range(unit, options);
  return {
    description: `${unit === '' ? 'number' : unit}, ${allowed}`,
    optional: false,
    shape: { kind: 'quantity', unit, whole: options.whole ?? false },
    read(raw, path) {
      if (typeof raw !== 'number' && typeof raw !== 'string') {
        throw new InputError(path, `was given ${shown(raw)}; wanted ${allowed}`);
      }
      let value: number;
      try {
        value = parseQuantity(raw, unit === 'pH' ? '' : unit);
      } catch (error) {
        if (error instanceof QuantityError)
          throw new InputError(path, `was given ${shown(raw)}, which ${error.message}; wanted ${allowed}`);
        throw error;
      }
      const { min = -CEILING, max = CEILING, above = -Infinity, whole, why } = options;
      // A converted limit ("8 in" where 20.32 cm is the end) must not fail on the last bit.
      // In a unit of one’s own a limit is told roundly, "4 in" of 10 cm, and taken as it is told.
      const foreign = typeof raw === 'string' && ROUNDED_UNITS.has(unit) && hasOtherUnit(raw, unit);
      const slack = foreign ? ROUNDED * Math.abs(value) : 1e-9 * Math.max(1, Math.abs(value));
      if (value < min - slack || value > max + slack || value <= above) {
        throw new InputError(path, `was given ${shown(raw)}; wanted ${allowed}${why ? ` (${why})` : ''}`);
      }
      if (whole && !Number.isInteger(value))
        throw new InputError(path, `was given ${shown(raw)}; wanted a whole number, ${allowed}`);
      return value;
    },
  };
}

/** A pH that a soil can have. */
export const soilPhField = (): Field<number, false> =>
  quantity('pH', { min: 2.5, max: 11, why: 'no soil reads outside it' });

/** Case, spaces and hyphens aside, so that "Tall Fescue" is "tall fescue". */
export function plainName(text: string): string {
  return text.toLowerCase().replace(/[^a-z0-9]/g, '');
}

/** One of a list of words; other spellings may be given as aliases. */
export function choice<const T extends string>(
  names: readonly T[],
  aliases: Readonly<Record<string, T>> = {},
): Field<T, false> {
  const lookup = new Map<string, T>(names.map((name) => [plainName(name), name]));
  for (const [alias, name] of Object.entries(aliases)) lookup.set(plainName(alias), name);
  return {
    description: `one of ${names.join(', ')}`,
    optional: false,
    shape: { kind: 'choice', names },
    read(raw, path) {
      const found = typeof raw === 'string' ? lookup.get(plainName(raw)) : undefined;
      if (found === undefined) throw new InputError(path, `was given ${shown(raw)}; wanted one of ${names.join(', ')}`);
      return found;
    },
  };
}

/** May be left out, and is then absent. */
export function optional<T>(field: Field<T>): Field<T | undefined, true> {
  return {
    description: `${field.description} (optional)`,
    optional: true,
    shape: field.shape,
    read: (raw, path) => (raw === undefined || raw === null ? undefined : field.read(raw, path)),
  };
}

/** May be left out, and then has the value that the documentation states. */
export function defaulted<T extends string | number | boolean>(field: Field<T>, value: T): Field<T, true> {
  return {
    description: `${field.description} (optional, ${value} when left out)`,
    optional: true,
    shape: field.shape,
    whenLeftOut: value,
    read: (raw, path) => (raw === undefined || raw === null ? value : field.read(raw, path)),
  };
}

/**
 * Read a whole input. Names it does not know are refused too: a misspelt
 * optional field must not be silently left out of a rate.
 *
 * @throws {InputError}
 */
export function readFields<F extends Fields>(fields: F, raw: unknown, path = ''): Values<F> {
  if (typeof raw !== 'object' || raw === null || Array.isArray(raw)) {
    throw new InputError(
      path.replace(/\.$/, '') || 'input',
      `was given ${shown(raw)}; wanted an object with ${Object.keys(fields).join(', ')}`,
    );
  }
  const given = raw as Readonly<Record<string, unknown>>;
  for (const name of Object.keys(given)) {
    if (!Object.hasOwn(fields, name)) {
      throw new InputError(`${path}${name}`, `is not an input here; known are ${Object.keys(fields).join(', ')}`);
    }
  }
  const values: Record<string, unknown> = {};
  for (const name of Object.keys(fields)) {
    values[name] = fields[name]!.read(Object.hasOwn(given, name) ? given[name] : undefined, path + name);
  }
  return values as Values<F>;
}

/** "2 to 60 cm (0.8 to 24 in)": a range in words, shared by every message that names one; lengths in both systems. */
export function plainRange(min: number, max: number, unit: string): string {
  const told = `${min} to ${max}${unit === '' ? '' : ` ${unit}`}`;
  if (unit !== 'cm') return told;
  const inches = (value: number): number => Math.round(convert(value, 'cm', 'in') * 10) / 10;
  return `${told} (${inches(min)} to ${inches(max)} in)`;
}
