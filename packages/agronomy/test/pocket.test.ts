import {
  type Calculator,
  calculators,
  exampleOf,
  inputFrom,
  plainLabel,
  spelledOut,
  stillWanted,
  tellResult,
  typedFrom,
  unitOfOutput,
} from '../src/index.ts';

const all = [...calculators.values()] as readonly Calculator[];
const shapes = ({ inputs }: Calculator) => Object.entries(inputs).map(([name, { shape }]) => [name, shape] as const);

/** A form filled in from an input, and read again. */
const throughForm = (calculator: Calculator, input: Readonly<Record<string, unknown>>, system: 'us' | 'metric') =>
  Object.fromEntries(
    shapes(calculator).flatMap(([name, shape]) => {
      const value = inputFrom(typedFrom(input[name], shape, system), shape, system);
      return value === undefined ? [] : [[name, value]];
    }),
  );

describe('every calculator', () => {
  it.each(all.map((one) => [one.calculator, one] as const))(
    '%s has an example that it answers, the same through a form in either units',
    (name, calculator) => {
      const example = exampleOf(name)!;
      const { result, working } = calculator(example);
      expect(working.length).toBeGreaterThan(0);
      for (const system of ['us', 'metric'] as const)
        expect(calculator(throughForm(calculator, example, system) as never).result).toEqual(result);
      expect(stillWanted(calculator.inputs, example)).toEqual([]);
      expect(stillWanted(calculator.inputs, {})).toEqual(
        Object.entries(calculator.inputs).flatMap(([field, { optional }]) => (optional ? [] : [field])),
      );
    },
  );
});

describe('a form', () => {
  const depth = calculators.get('lime.smp')!.inputs.depth!.shape;

  it('reads a number in the unit that stands beside it, and any other by its own', () => {
    expect(inputFrom('6', depth, 'us')).toBe('6 in');
    expect(inputFrom('6', depth, 'metric')).toBe('6');
    expect(inputFrom('15 cm', depth, 'us')).toBe('15 cm');
    expect(inputFrom('', depth, 'us')).toBeUndefined();
  });

  it('keeps the meaning of what was typed where the units are changed', () => {
    const { inputs } = calculators.get('pace.length')!;
    const typed = [{ distance: '100', paces: '40' }];
    const walks = inputs.walks!.shape;
    expect(inputFrom(spelledOut(typed, walks, 'us'), walks, 'metric')).toEqual([{ distance: '100 ft', paces: '40' }]);
    expect(inputFrom(typed, walks, 'metric')).toEqual([{ distance: '100', paces: '40' }]);
  });

  it('calls inputs what a person calls them', () => {
    expect(['soilPh', 'bufferPh', 'holeDepth', 'cce', 'p2o5', 'monthsFromStart'].map(plainLabel)).toEqual(
      ['Soil pH', 'Buffer pH', 'Hole depth', 'CCE', 'P₂O₅', 'Months from start'], // prettier-ignore
    );
  });

  it('tells results in the person’s units, three figures', () => {
    const { outputs } = calculators.get('lime.program')!;
    expect(unitOfOutput(outputs, 'applications.rate')).toBe('g/m2');
    expect(unitOfOutput(outputs, 'applications.monthsFromStart')).toBe('');
    expect(tellResult(0.21688, 'mm/h', 'metric')).toBe('0.217 mm/h');
    expect(tellResult(244.12, 'g/m2', 'us')).toBe('50 lb/1000 ft²');
    expect(tellResult(244.12, 'g/m2', 'metric')).toBe('244 g/m²');
    expect(tellResult(20, 'C', 'us')).toBe('68 °F');
    expect(tellResult(1234.5678, 'm2', 'metric')).toBe('1,235 m²');
  });
});
