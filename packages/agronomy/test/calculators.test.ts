import fc from 'fast-check';
import {
  InputError,
  type Working,
  calculators,
  convert,
  findGrass,
  grassNames,
  limeAdamsEvans,
  limeMehlich,
  limeProgram,
  limeSmp,
  nitrogenAnnual,
  refusalWords,
} from '../src/index.ts';
import { quantity } from '../src/calculators/fields.ts';
import { textureClass } from '../src/soil/texture.ts';

const double = (min: number, max: number) => fc.double({ min, max, noNaN: true });

describe('every calculator', () => {
  it('ends in a result or an InputError that names a field, whatever it is given', () => {
    const anything = fc.oneof(
      fc.jsonValue(),
      fc.double(),
      fc.string(),
      fc.constantFrom(
        '8 in',
        'mehlich-3',
        'loam',
        'turf',
        'p',
        'element',
        'tall fescue',
        'medium',
        NaN,
        -1,
        0,
        6.5,
        1e308,
      ),
    );
    for (const [, calculator] of calculators) {
      const names = [...Object.keys(calculator.inputs), 'extra'];
      const input = fc.oneof(
        fc.jsonValue(),
        fc.dictionary(fc.constantFrom(...names), anything),
        fc.record(Object.fromEntries(Object.keys(calculator.inputs).map((name) => [name, anything]))),
      );
      fc.assert(
        fc.property(input, (given) => {
          try {
            const { result, working } = calculator(given as never);
            expect(result).toBeDefined();
            expect(working.length).toBeGreaterThan(0);
            expect(JSON.stringify(result)).not.toMatch(/null|NaN/);
          } catch (error) {
            expect(error).toBeInstanceOf(InputError);
            expect((error as InputError).message).not.toContain('\n');
          }
        }),
        { numRuns: 150 },
      );
    }
  });

  it('names its source and its units', () => {
    for (const [name, { source, inputs, outputs }] of calculators) {
      expect([name, source.length > 10, Object.keys(inputs).length > 0, Object.keys(outputs).length > 0]).toEqual([
        name,
        true,
        true,
        true,
      ]);
    }
  });

  it('refuses a name it does not know rather than leave it out', () => {
    expect(() => limeProgram({ requirement: 100, effectiveness: 90, surface: 'turf', incremnt: 5 } as never)).toThrow(
      /incremnt is not an input here/,
    );
  });
});

describe('lime', () => {
  interface Soil {
    readonly soilPh: number;
    readonly bufferPh: number;
    readonly targetPh: number;
    readonly depth: number;
  }
  const methods: ReadonlyArray<
    readonly [
      name: string,
      calculator: (input: Soil) => { readonly result: { readonly requirement: number } },
      buffer: readonly [number, number],
      target: readonly [number, number],
    ]
  > = [
    ['SMP', limeSmp, [4.8, 7.2], [6, 6.8]],
    ['Mehlich', limeMehlich, [3.8, 6.6], [5.9, 6.6]],
    ['Adams–Evans', limeAdamsEvans, [7, 8], [5.9, 7.5]],
  ];

  it.each(methods)(
    'by %s asks for more with a lower buffer pH, a higher target and a deeper sample, never below zero, none at the target',
    (name, calculator, [lowest, highest], [lowTarget, highTarget]) => {
      const requirement = (soil: Soil): number => calculator(soil).result.requirement;
      const soil = fc.record({
        soilPh: double(4.6, 5.9),
        bufferPh: double(lowest, highest),
        targetPh: double(lowTarget, highTarget),
        depth: double(3, 30),
      });
      fc.assert(
        fc.property(soil, double(0.001, 0.5), (given, more) => {
          const base = requirement(given);
          const least = base - 1e-9;
          expect(base).toBeGreaterThanOrEqual(0);
          expect(requirement({ ...given, bufferPh: Math.max(lowest, given.bufferPh - more) })).toBeGreaterThanOrEqual(
            least,
          );
          expect(requirement({ ...given, depth: given.depth * (1 + more) })).toBeGreaterThanOrEqual(least);
          // The SMP lines cross near index 68: there a higher target asks for less, and all of them for almost nothing.
          if (name !== 'SMP' || given.bufferPh <= 6.8)
            expect(
              requirement({ ...given, targetPh: Math.min(highTarget, given.targetPh + more) }),
            ).toBeGreaterThanOrEqual(least);
          expect(requirement({ ...given, soilPh: given.targetPh })).toBe(0);
        }),
      );
    },
  );

  it('by Mehlich grows along the way to the target in proportion', () => {
    fc.assert(
      fc.property(double(4.5, 5.9), double(4, 6.5), double(0.01, 1), (soilPh, bufferPh, share) => {
        const to = (targetPh: number): number =>
          limeMehlich({ soilPh, bufferPh, targetPh, depth: 20.32 }).result.requirement;
        expect(to(soilPh + share * (6.6 - soilPh))).toBeCloseTo(share * to(6.6), 4);
      }),
    );
  });

  it('splits add up to the total, keep to the cap and to the increment, full caps first', () => {
    const surfaces = { turf: 50, 'fine turf': 25, seedbed: 150 } as const;
    fc.assert(
      fc.property(
        double(0, 3000),
        double(30, 110),
        fc.constantFrom('turf' as const, 'fine turf' as const, 'seedbed' as const),
        fc.option(double(1, 100), { nil: undefined }),
        (requirement, effectiveness, surface, increment) => {
          const { applications, total } = limeProgram({ requirement, effectiveness, surface, increment }).result;
          const cap = convert(surfaces[surface], 'lb/1000ft2', 'g/m2');
          const needed = (requirement * 100) / effectiveness;
          expect(applications.reduce((sum, { rate }) => sum + rate, 0)).toBeCloseTo(total, 6);
          expect(total).toBeGreaterThanOrEqual(needed * (1 - 1e-9) - 1e-6);
          expect(total).toBeLessThan(needed + (increment ?? 1e-3) + 1e-6);
          applications.forEach(({ rate, monthsFromStart }, index) => {
            expect(rate).toBeGreaterThan(0);
            expect(rate).toBeLessThanOrEqual(cap + 1e-6);
            expect(monthsFromStart).toBe(index * 3);
            if (increment) expect(Math.abs(rate / increment - Math.round(rate / increment))).toBeLessThan(1e-6);
            if (index < applications.length - 2) expect(rate).toBeCloseTo(applications[index + 1]!.rate, 6);
          });
        },
      ),
    );
  });

  it('shows every step that makes the number', () => {
    const { working, result } = limeSmp({ soilPh: 5.3, bufferPh: 6.3, targetPh: 6.3, depth: '6 in' });
    const steps = working.filter((entry): entry is Extract<Working[number], { kind: 'step' }> => entry.kind === 'step');
    expect(steps.map(({ label }) => label)).toEqual([
      'Lime test index',
      'Lime to pH 6.0, 8 in deep',
      'Lime to pH 6.5, 8 in deep',
      'Between the two targets, to pH 6.3',
      'For the sampled depth',
    ]);
    expect(steps.at(-1)).toMatchObject({ result: result.requirement, unit: 'g/m2' });
    expect(working.at(-1)).toMatchObject({
      kind: 'warning',
      text: expect.stringContaining('65 % effective') as string,
    });
  });
});

describe('texture', () => {
  // Points well inside each class, read off the triangle of Handbook 18.
  it.each([
    [92, 5, 3, 'sand'],
    [82, 12, 6, 'loamy sand'],
    [65, 25, 10, 'sandy loam'],
    [42, 40, 18, 'loam'],
    [20, 65, 15, 'silt loam'],
    [7, 88, 5, 'silt'],
    [60, 13, 27, 'sandy clay loam'],
    [32, 34, 34, 'clay loam'],
    [10, 56, 34, 'silty clay loam'],
    [52, 6, 42, 'sandy clay'],
    [6, 47, 47, 'silty clay'],
    [20, 20, 60, 'clay'],
  ])('%d / %d / %d is %s', (sand, silt, clay, name) =>
    expect(textureClass({ sand, silt, clay }).result.class).toBe(name),
  );
});

it.each([
  ['clayHeight', 'was given nothing; wanted 0 to 30 cm', 'Clay height is missing: give 0 to 30 cm.'],
  ['values.layers.0.depth', 'was given "deep", which is not a number; wanted 0 to 200 cm', 'Layer 1, depth: “deep” is not a number: give 0 to 200 cm.'], // prettier-ignore
  ['record.holes.1.drop', 'was given 40; wanted 0 to 30 cm', 'Hole 2, drop was given 40; wanted 0 to 30 cm.'],
  ['The code', 'has a sign that is none', 'The code has a sign that is none.'],
])('a refusal of %s is told to who typed it without a raw name: %s', (field, problem, words) => {
  expect(refusalWords(new InputError(field, problem))).toBe(words);
});

it('a limit that is told roundly in another unit is taken as it is told', () => {
  const depth = quantity('cm', { min: 0, max: 10 });
  expect(depth.read('4 in', 'depth')).toBeCloseTo(10.16, 6);
  expect(() => depth.read('4.5 in', 'depth')).toThrow(/wanted 0 to 10 cm/);
  expect(() => depth.read(10.16, 'depth')).toThrow(/wanted 0 to 10 cm/);
});

describe('nitrogen', () => {
  it('stays within the grass’s range times its credits', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...grassNames),
        fc.constantFrom('low', 'medium', 'high'),
        fc.constantFrom('full sun', 'part', 'deep'),
        fc.constantFrom('returned', 'removed'),
        fc.option(double(0, 40), { nil: undefined }),
        (grass, intensity, shade, clippings, organicMatter) => {
          const { annual, credits } = nitrogenAnnual({ grass, intensity, shade, clippings, organicMatter }).result;
          const [low, high] = findGrass(grass).nitrogen.map((rate) => convert(rate, 'lb/1000ft2', 'g/m2')) as [
            number,
            number,
          ];
          expect(annual).toBeGreaterThanOrEqual(0);
          expect(annual + credits.total).toBeGreaterThanOrEqual(low - 1e-9);
          expect(annual + credits.total).toBeLessThanOrEqual(high + 1e-9);
          if (shade === 'deep') expect(credits.shade).toBeCloseTo((annual + credits.total) / 2, 9);
        },
      ),
    );
  });
});
