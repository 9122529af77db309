import { InputError } from '../calculators/fields.ts';
import { parseQuantity } from '../units/quantity.ts';
import type { Product } from '../materials/product.ts';
import type { Stocked } from '../remedies/remedy.ts';
import { type Advice, advise } from './advise.ts';
import { programFaults } from './throughProgram.ts';

interface Range {
  readonly min?: number | string;
  readonly max?: number | string;
}
type Expected = number | string | boolean | null | Range | { readonly not: unknown } | { readonly has: unknown };

/** A report with what must come of it. */
export interface Scenario {
  readonly name: string;
  readonly input: unknown;
  readonly expect?: Readonly<Record<string, Expected>>;
  /** Regular expressions that some sentence matches. */
  readonly says?: readonly string[];
  /** Regular expressions that no sentence matches. */
  readonly neverSays?: readonly string[];
  /** The report is refused, with a message that contains this. */
  readonly expectError?: string;
}

export interface ScenarioFile {
  readonly source: string;
  readonly scenarios: readonly Scenario[];
}

/** Units of the numbers of an advice, by the first part of their path. */
const units: Readonly<Record<string, string>> = { totals: 'g/m2', largestPass: 'g/m2', cost: '$', passes: '' };

function valueAt(advice: Advice, path: string): unknown {
  return path
    .split('.')
    .reduce<unknown>(
      (value, key) =>
        typeof value === 'object' && value !== null ? (value as Record<string, unknown>)[key] : undefined,
      advice,
    );
}

const told = (value: unknown): string => (value === undefined ? 'nothing' : JSON.stringify(value));

function faultOf(path: string, expected: Expected, advice: Advice): string | undefined {
  const found = valueAt(advice, path);
  const number = (raw: number | string): number => parseQuantity(raw, units[path.split('.')[0] ?? ''] ?? '');
  const wrong = (wanted: string): string => `${path} is ${told(found)}; wanted ${wanted}`;
  if (typeof expected !== 'object' || expected === null) {
    if (typeof found === 'number' && (typeof expected === 'number' || typeof expected === 'string')) {
      const wanted = number(expected);
      return Math.abs(found - wanted) <= 0.01 * Math.abs(wanted) + 1e-9 ? undefined : wrong(told(expected));
    }
    return found === expected ? undefined : wrong(told(expected));
  }
  if ('has' in expected) {
    const list = Array.isArray(found) ? found : [];
    return list.some((entry) => entry === expected.has || (entry as { key?: unknown } | null)?.key === expected.has)
      ? undefined
      : wrong(`a list that has ${told(expected.has)}`);
  }
  if ('not' in expected) {
    const list = Array.isArray(found) ? found : [found];
    return list.some(
      (entry) => entry === expected.not || (entry as { key?: unknown } | null | undefined)?.key === expected.not,
    )
      ? wrong(`anything but ${told(expected.not)}`)
      : undefined;
  }
  if (typeof found !== 'number') return wrong(told(expected));
  const { min, max } = expected;
  const slack = 1e-3 * Math.abs(found) + 1e-9;
  if (min !== undefined && found < number(min) - slack) return wrong(`at least ${min}`);
  if (max !== undefined && found > number(max) + slack) return wrong(`at most ${max}`);
  return undefined;
}

/** Run a scenario, also through the program where there are materials to make it of; the faults that were found, one line each. */
export function runScenario(
  scenario: Scenario,
  catalogue: readonly Product[],
  materials: readonly Stocked[] = [],
): string[] {
  const { input, expect = {}, says = [], neverSays = [], expectError } = scenario;
  let advice: Advice;
  try {
    advice = advise(input, catalogue);
  } catch (error) {
    if (!(error instanceof InputError)) throw error;
    if (expectError === undefined) return [`the report is refused: ${error.message}`];
    return error.message.toLowerCase().includes(expectError.toLowerCase())
      ? []
      : [`refused with "${error.message}"; wanted "${expectError}" in it`];
  }
  if (expectError !== undefined) return [`the report is taken; wanted it refused with "${expectError}"`];
  return [
    ...(materials.length > 0 ? programFaults(input, materials) : []),
    ...Object.entries(expect).flatMap(([path, expected]) => faultOf(path, expected, advice) ?? []),
    ...says
      .filter((pattern) => !advice.sentences.some((sentence) => new RegExp(pattern, 'i').test(sentence)))
      .map((pattern) => `no sentence says /${pattern}/`),
    ...neverSays.flatMap((pattern) =>
      advice.sentences
        .filter((sentence) => new RegExp(pattern, 'i').test(sentence))
        .map((sentence) => `says "${sentence}", against /${pattern}/`),
    ),
  ];
}
