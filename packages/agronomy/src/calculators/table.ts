import { type Fields, InputError, type Values, quantity, readFields } from './fields.ts';
import { text } from './structures.ts';

/** What every table of coefficients says of itself. */
const provenance = {
  /** Where the numbers were published, or that they were compiled here. */
  source: text(600),
  /** What the numbers are of, with units. */
  basis: text(400),
  /** Where they were made for. */
  region: text(),
  /** Year of publication, or of the compiling. */
  date: quantity('', { min: 1900, max: 2100, whole: true }),
};

export type Table<F extends Fields> = Values<F & typeof provenance>;

/**
 * Read a table of coefficients: one that ships with the core when the module loads, or a practice's own when it
 * comes in. Both pass the same reader, so that an own table can stand in for a general one anywhere.
 *
 * @param name what a refusal calls the table, such as `sufficiency.p`.
 * @throws {InputError} naming the field, what was given and what is allowed.
 */
export function readTable<F extends Fields>(name: string, fields: F, raw: unknown): Table<F> {
  return readFields({ ...fields, ...provenance }, raw, `${name}.`);
}

/** Refuse a table whose numbers do not rise. */
export function mustRise(path: string, values: readonly number[]): void {
  if (values.some((value, index) => index > 0 && value <= values[index - 1]!))
    throw new InputError(path, `was given ${values.join(', ')}; wanted each above the one before`);
}
