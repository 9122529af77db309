import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { type CaseFile, runCase } from '../src/calculators/publishedCases.ts';

const folder = join(import.meta.dirname, '../cases');

describe.each(readdirSync(folder).filter((name) => name.endsWith('.json')))('%s', (name) => {
  const file = JSON.parse(readFileSync(join(folder, name), 'utf8')) as CaseFile;

  it('names its source', () => expect(file.source.length).toBeGreaterThan(20));

  it.each(file.cases)('$calculator: $name', (entry) => {
    expect(runCase(entry)).toEqual({ passed: true, detail: '' });
  });
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
