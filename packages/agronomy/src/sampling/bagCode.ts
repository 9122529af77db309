import { InputError } from '../calculators/fields.ts';

/** Signs that are not taken for one another by hand or eye: no 0, 1, I, L or O. A prime number of them. */
const SIGNS = '23456789ABCDEFGHJKMNPQRSTUVWXYZ';
const LENGTH = 6;
const valueOf = new Map([...SIGNS].map((sign, value) => [sign, value]));

/** Sum of values, each times its place from the right; 0 for a code that is whole. */
const remainder = (values: readonly number[]): number =>
  values.reduce((sum, value, index) => sum + value * (values.length - index), 0) % SIGNS.length;

/**
 * A bag's short code: five signs by chance and a check sign, such as `K7F4Q2`.
 *
 * Since the number of signs is prime and every place has another weight, one wrong sign is always caught, and so are
 * any two signs that changed places.
 *
 * @param chance even between 0 and 1.
 * @see Gallian (1996), "Error detection methods", ACM Computing Surveys 28(3): weighted check digits to a prime modulus
 */
export function bagCode(chance: () => number): string {
  const values = Array.from({ length: LENGTH - 1 }, () => Math.floor(chance() * SIGNS.length));
  const open = remainder([...values, 0]);
  return [...values, (SIGNS.length - open) % SIGNS.length].map((value) => SIGNS[value]).join('');
}

/** A code as it is printed: `K7F-4Q2`. */
export function writeBagCode(code: string): string {
  return `${code.slice(0, LENGTH / 2)}-${code.slice(LENGTH / 2)}`;
}

/**
 * A code as somebody typed or scanned it; spaces, hyphens and small letters do not matter.
 *
 * @returns the code as it is kept.
 * @throws {InputError} in words when it cannot be a code, or was mistyped.
 */
export function readBagCode(typed: string, path = 'code'): string {
  const code = typed.toUpperCase().replace(/[\s\-–—.]/g, '');
  const foreign = [...code].find((sign) => !valueOf.has(sign));
  if (foreign)
    throw new InputError(
      path,
      `has “${foreign}”, which is in no code: 0, 1, I, L and O are left out so that they are not mistaken`,
    );
  if (code.length !== LENGTH)
    throw new InputError(path, `has ${code.length} signs; a code has ${LENGTH}, such as K7F-4Q2`);
  if (remainder([...code].map((sign) => valueOf.get(sign)!)) !== 0)
    throw new InputError(
      path,
      `“${writeBagCode(code)}” is mistyped: its last sign does not fit the others. Read it again from the bag`,
    );
  return code;
}
