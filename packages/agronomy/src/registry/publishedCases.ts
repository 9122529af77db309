import { QuantityError, parseQuantity } from '../units/quantity.ts';
import { InputError } from '../calculators/fields.ts';
import { writtenUnit } from './pocket.ts';
import { findCalculator } from './registry.ts';

/** One published case: an input and what a publication says comes out of it. */
export interface PublishedCase {
  readonly calculator: string;
  readonly name: string;
  readonly input: unknown;
  readonly expect?: Readonly<Record<string, number | string | boolean>>;
  readonly expectError?: string;
  readonly tolerance?: Tolerance | Readonly<Record<string, Tolerance>>;
}

interface Tolerance {
  readonly abs?: number | string;
  readonly rel?: number;
}

export interface CaseFile {
  readonly source: string;
  readonly cases: readonly PublishedCase[];
}

export interface CaseVerdict {
  readonly passed: boolean;
  readonly detail: string;
}

function at(result: unknown, path: string): unknown {
  return path
    .split('.')
    .reduce<unknown>(
      (value, key) =>
        typeof value === 'object' && value !== null ? (value as Record<string, unknown>)[key] : undefined,
      result,
    );
}

/** An output such as an amount "as given" may be in one of several units: the first whose dimension fits. */
function readInOneOf(text: string, [unit = '', ...others]: readonly string[]): number {
  try {
    return parseQuantity(text, unit);
  } catch (error) {
    if (others.length === 0 || !(error instanceof QuantityError)) throw error;
    return readInOneOf(text, others);
  }
}

function check(
  path: string,
  expected: number | string | boolean,
  actual: unknown,
  unit: string,
  tolerance: Tolerance,
): string | undefined {
  if (typeof actual !== 'number') {
    return String(actual) === String(expected)
      ? undefined
      : `${path} is ${actual === undefined ? 'absent' : JSON.stringify(actual)}, expected ${expected}`;
  }
  const read = (value: number | string): number =>
    typeof value === 'number' ? value : readInOneOf(value, unit.split('|'));
  const wanted = read(typeof expected === 'boolean' ? Number.NaN : expected);
  const allowed = tolerance.abs === undefined ? (tolerance.rel ?? 0.01) * Math.abs(wanted) : read(tolerance.abs);
  const error = Math.abs(actual - wanted);
  return error <= allowed + 1e-9 * Math.abs(wanted)
    ? undefined
    : `${path} is ${actual} ${unit}, expected ${expected} ± ${tolerance.abs ?? `${(tolerance.rel ?? 0.01) * 100} %`}`;
}

/** Run one case against the calculators. Never throws: a broken case is a failed one. */
export function runCase(given: PublishedCase): CaseVerdict {
  const { calculator, input, expect = {}, expectError, tolerance = {} } = given;
  try {
    const run = findCalculator(calculator);
    const { result } = run(input as never);
    if (expectError !== undefined)
      return { passed: false, detail: `was accepted, expected a refusal naming "${expectError}"` };
    const perOutput = !('abs' in tolerance) && !('rel' in tolerance);
    const faults = Object.entries(expect).map(([path, wanted]) => {
      const own = perOutput
        ? ((tolerance as Readonly<Record<string, Tolerance>>)[path] ?? {})
        : (tolerance as Tolerance);
      return check(path, wanted, at(result, path), writtenUnit(run.outputs, path), own);
    });
    const wrong = faults.filter((fault) => fault !== undefined);
    if (Object.keys(expect).length === 0) wrong.push('expects nothing, so it proves nothing');
    return { passed: wrong.length === 0, detail: wrong.join('; ') };
  } catch (error) {
    const message = error instanceof Error ? error.message : String(error);
    const passed =
      expectError !== undefined &&
      error instanceof InputError &&
      message.toLowerCase().includes(expectError.toLowerCase());
    return { passed, detail: passed ? '' : `refused: ${message}` };
  }
}
