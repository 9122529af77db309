import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { readFields } from '../src/calculators/fields.ts';
import { describeCalculators, describeTables } from '../src/registry/describe.ts';
import { type CaseFile, runCase } from '../src/registry/publishedCases.ts';
import { calculators } from '../src/registry/registry.ts';
import { referenceTables } from '../src/tables/tables.ts';

const folder = join(import.meta.dirname, '../cases');

/** Every number and flag of a result, by its place. */
function numbersIn(value: unknown, at = ''): readonly string[] {
  if (typeof value === 'number' || typeof value === 'boolean') return [`${at} ${value}`];
  return Object.entries(value ?? {}).flatMap(([key, inner]) =>
    typeof value === 'string' ? [] : numbersIn(inner, `${at}/${key}`),
  );
}

describe.each(readdirSync(folder).filter((name) => name.endsWith('.json')))('%s', (name) => {
  const file = JSON.parse(readFileSync(join(folder, name), 'utf8')) as CaseFile;

  it('names its source', () => expect(file.source.length).toBeGreaterThan(20));

  it.each(file.cases)('$calculator: $name', (entry) => {
    expect(runCase(entry)).toEqual({ passed: true, detail: '' });
  });

  it('has the same numbers where inputs are read once and no working is kept', () => {
    for (const { calculator: own, input, expect: wanted } of file.cases) {
      const calculator = calculators.get(own);
      if (!calculator || !wanted) continue;
      const numbers = calculator.numbers(readFields(calculator.inputs, input));
      expect([own, numbersIn(numbers)]).toEqual([own, numbersIn(calculator(input as never).result)]);
    }
  });
});

it.each([
  ['calculators.md', '--markdown', () => describeCalculators(calculators.values())],
  ['tables.md', '--tables', () => describeTables(referenceTables)],
])('docs/%s is fresh: npm run -s calc -- %s', (name, _option, describePage) => {
  expect(readFileSync(join(import.meta.dirname, '../../../docs', name), 'utf8')).toBe(describePage());
});

it('every calculator has at least five cases', () => {
  const files = readdirSync(folder).map((name) => JSON.parse(readFileSync(join(folder, name), 'utf8')) as CaseFile);
  const tested = files.flatMap(({ cases }) => cases.map(({ calculator }) => calculator));
  for (const name of calculators.keys())
    expect([name, tested.filter((own) => own === name).length >= 5]).toEqual([name, true]);
});

describe('the runner', () => {
  const convert = {
    calculator: 'nutrient.convert',
    name: 'x',
    input: { value: 10, nutrient: 'p', from: 'element', to: 'oxide' },
  };

  it.each([
    ['a wrong number', { ...convert, expect: { value: 23.5 } }, /value is 22.9/],
    ['a case that expects nothing', { ...convert, expect: {} }, /proves nothing/],
    ['input that should have been refused', { ...convert, expectError: 'value' }, /was accepted/],
    [
      'a refusal for another reason',
      { ...convert, input: { value: 1 }, expectError: 'bulkDensity' },
      /refused: nutrient/,
    ],
    ['an unknown calculator', { ...convert, calculator: 'lime.habit' }, /known are/],
  ])('fails %s', (_name, entry, detail) => {
    const verdict = runCase(entry);
    expect(verdict.passed).toBe(false);
    expect(verdict.detail).toMatch(detail);
  });
});
