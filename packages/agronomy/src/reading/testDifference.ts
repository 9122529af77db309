import { defineCalculator } from '../calculators/calculator.ts';
import { optional, quantity } from '../calculators/fields.ts';
import { group, listOf, text } from '../calculators/structures.ts';
import { readTable } from '../calculators/table.ts';
import data from '../data/test-errors.json' with { type: 'json' };
import { figure } from '../working/working.ts';

/** How far a laboratory and a composite are off, by analyte. */
export const testErrors = readTable(
  'test-errors',
  {
    /** Deviations that a difference of two tests has to pass, 90 %. */
    deviations: quantity('', { above: 0, max: 4 }),
    analytes: listOf(
      {
        key: text(30),
        /** sd in the analyte’s own unit, or % of the value. */
        absolute: optional(quantity('', { above: 0, max: 100 })),
        relative: optional(quantity('%', { above: 0, max: 100 })),
        /** % from core to core. */
        cv: quantity('%', { above: 0, max: 200 }),
      },
      'analytes',
      { min: 1, max: 60 },
    ),
  },
  data,
);

const test = () =>
  group({
    value: quantity(''),
    laboratory: quantity('', { min: 0 }),
    cv: optional(quantity('%', { min: 0, max: 300 })),
    cores: optional(quantity('', { min: 1, max: 1000, whole: true })),
  });
interface Tested extends TestedValue {
  readonly laboratory: number;
  readonly cv?: number | undefined;
}

/** sd of one test: the laboratory’s, and that of a composite of so many cores. */
export const errorOfTest = ({ value, laboratory, cv, cores = 1 }: Tested): number =>
  Math.hypot(laboratory, cv === undefined ? 0 : (Math.abs(value) * cv) / 100 / Math.sqrt(cores));

/** The same, as it is worked. */
export const errorWorked = ({ value, laboratory, cv, cores = 1 }: Tested) => ({
  formula: '√(laboratory² + (value × cv / √cores)²)',
  numbers: `√(${figure(laboratory)}² + (${figure(value)} × ${figure(cv ?? 0)} % / √${cores})²)`,
});

/**
 * Whether two tests of one ground differ by more than chance.
 *
 * @param a the earlier and `b` the later, each with its `value`, the `laboratory`’s sd in the same unit, the `cv` from core
 *   to core, %, and the `cores` of the composite (one when not told).
 * @returns `change` b − a; `uncertainty` of it, 90 %; `differs` where the change is larger.
 */
export const testDifference = defineCalculator({
  name: 'test.difference',
  title: 'Two tests of one ground',
  source: testErrors.source,
  inputs: { a: test(), b: test() },
  outputs: { change: 'number', uncertainty: 'number', differs: 'true or false' },
  compute({ a, b }, book) {
    const [first, second] = [errorOfTest(a), errorOfTest(b)];
    for (const [label, tested, error] of [
      ['the first', a, first],
      ['the second', b, second],
    ] as const)
      book.step({
        ...{ label: `Error of ${label}`, ...errorWorked(tested) },
        result: error,
        unit: '',
      });
    const change = b.value - a.value;
    const uncertainty = testErrors.deviations * Math.hypot(first, second);
    book.step({
      label: 'A change that chance makes one time in ten',
      formula: `${testErrors.deviations} × √(error² + error²)`,
      numbers: `${testErrors.deviations} × √(${figure(first)}² + ${figure(second)}²)`,
      result: uncertainty,
      unit: '',
      source: testErrors.source,
    });
    return { change, uncertainty, differs: Math.abs(change) > uncertainty };
  },
});

export interface TestedValue {
  readonly value: number;
  readonly cores?: number | undefined;
}

/** A value with the errors of its analyte; nothing for one that is not in the table. */
export function testedOf(analyte: string, { value, cores }: TestedValue) {
  const entry = testErrors.analytes.find(({ key }) => key === analyte);
  return (
    entry && {
      ...{ value, cv: entry.cv, laboratory: entry.absolute ?? (Math.abs(value) * (entry.relative ?? 0)) / 100 },
      ...(cores === undefined ? {} : { cores }),
    }
  );
}

/** Two tests of an analyte of the table; nothing for one that is not in it. */
export function compareTests(analyte: string, a: TestedValue, b: TestedValue) {
  const [first, second] = [testedOf(analyte, a), testedOf(analyte, b)];
  return first && second && testDifference({ a: first, b: second });
}
