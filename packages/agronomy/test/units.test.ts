import fc from 'fast-check';
import { coreUnit, inField, present, presentStep, roundTo, unitFor, type Sense } from '../src/units/present.ts';
import { QuantityError, parseQuantity } from '../src/units/quantity.ts';
import { UnitError, convert, parseUnit, sameDimension, unitSymbols } from '../src/units/unit.ts';
import { wholes } from '../src/units/wholes.ts';

/** Every unit symbol that is known, and the compound ones that labs, labels and maps use. */
const units = [
  ...unitSymbols,
  'm2',
  'ft2',
  'm3',
  'ft3',
  'yd3',
  'g/m2',
  'kg/ha',
  't/ha',
  'lb/1000ft2',
  'oz/1000ft2',
  'lb/acre',
  'ton/acre',
  'mm/h',
  'in/h',
  'mm/day',
  'cm/day',
  'mg/kg',
  'g/kg',
  'cmol/kg',
  'meq/100g',
  'dS/m',
  'mmho/cm',
  'g/cm3',
  'kg/m3',
  'lb/ft3',
  'L/m2',
  'gal/1000ft2',
];
const pairs = units.flatMap((from) =>
  units.filter((to) => sameDimension(parseUnit(from), parseUnit(to))).map((to) => [from, to] as const),
);
const finite = fc.double({ min: -1e6, max: 1e6, noNaN: true });

it('whole things are counted as by hand, however their amounts went round on the way from unit to unit', () => {
  // 25 lb/1000 ft² on 8 000 ft² in bags of 40 lb: 200 lb are five bags, with the bag told as 18.14 kg and the lawn as 743.2 m² too.
  const lime = convert(25, 'lb/1000ft2', 'g/m2');
  for (const area of [convert(8000, 'ft2', 'm2'), 743.2, 743])
    for (const bag of [convert(40, 'lb', 'kg'), 18.14, 18.15]) expect(wholes((lime * area) / 1000 / bag)).toBe(5);
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 400 }),
      fc.double({ min: 0.9991, max: 1.0009, noNaN: true }),
      (count, went) => {
        expect(wholes(count * went)).toBe(count);
        expect(wholes(count * 1.0021)).toBe(count + 1);
      },
    ),
  );
  // What is missing beside a full shed is measured by the whole amount.
  expect([wholes(0.0004, 5), wholes(0.1, 5), wholes(0), wholes(1e-6)]).toEqual([0, 1, 0, 1]);
});

describe('units', () => {
  it('come back from every unit of their dimension unchanged, for every pair', () => {
    expect(pairs.length).toBeGreaterThan(1000);
    const far: unknown[] = [];
    for (const [from, to] of pairs)
      for (const value of [-1234.5, -0.001, 0, 1 / 3, 1, 6.5, 1e6]) {
        const back = convert(convert(value, from, to), to, from);
        // A temperature loses what its zero point is away from the value.
        const allowed = 1e-12 * Math.max(Math.abs(value), parseUnit(from).offset, parseUnit(to).offset);
        if (Math.abs(back - value) > allowed) far.push([from, to, value, back]);
      }
    expect(far).toEqual([]);
  });

  it('convert by way of a third unit as they do directly', () => {
    const triples = pairs.flatMap(([from, to]) =>
      pairs.filter(([second]) => second === to).map(([, third]) => [from, to, third] as const),
    );
    fc.assert(
      fc.property(fc.constantFrom(...triples), finite, ([from, via, to], value) => {
        const [direct, round] = [convert(value, from, to), convert(convert(value, from, via), via, to)];
        expect(Math.abs(direct - round)).toBeLessThanOrEqual(1e-9 * Math.max(1, Math.abs(direct), Math.abs(value)));
      }),
      { numRuns: 500 },
    );
  });

  // Exact factors of agronomy handbooks, by a second route than the code's.
  it.each([
    [1, 'lb/1000ft2', 'g/m2', 4.8824276],
    [1, 'lb/1000ft2', 'lb/acre', 43.56],
    [1, 'ton/acre', 'lb/1000ft2', 45.9137],
    [1, 'ton/acre', 'g/m2', 224.1702],
    [1, 'kg/ha', 'lb/acre', 0.892179],
    [1, 'acre', 'ft2', 43560],
    [1, 'yd3', 'ft3', 27],
    [212, 'F', 'C', 100],
    [1, 'meq/100g', 'cmol/kg', 1],
    [1, '%', 'mg/kg', 10000],
    [1, 'mmho/cm', 'dS/m', 1],
  ])('%d %s is %s %d', (value, from, to, expected) => {
    expect(convert(value, from, to)).toBeCloseTo(expected, 3);
  });
});

describe('parseQuantity', () => {
  it.each([
    ['8 in', 'cm', 20.32],
    ['3.4 ton/acre', 'ton/acre', 3.4],
    ['50 lb/1000 ft²', 'lb/1000ft2', 50],
    ['50 lb per 1000 sq ft', 'lb/1000ft2', 50],
    ['40 lbs/A', 'lb/acre', 40],
    ['18 PPM', 'mg/kg', 18],
    ['65 °F', 'C', 18.3333],
    ['0.4 in/h', 'mm/h', 10.16],
    ['12 meq / 100 g', 'cmol/kg', 12],
    ['¼ in', 'mm', 6.35],
    ['1 1/2 in', 'mm', 38.1],
    ['5 ft 6 in', 'in', 66],
    [`5'6"`, 'in', 66],
    ['1,250.5', 'ft2', 1250.5],
    ['1e3 g', 'kg', 1],
    ['2 short tons', 'lb', 4000],
    ['3', 'cm', 3],
    ['−4 C', 'C', -4],
    ['$550', '$', 550],
    ['$1,250.50', '$', 1250.5],
    ['$40/yd3', '$/m3', 52.318],
  ])('%s in %s', (text, unit, expected) => {
    expect(parseQuantity(text, unit)).toBeCloseTo(expected, 3);
  });

  it.each([
    ['8 lb', 'cm', /a length/],
    ['8', 'parsec', /not a unit/],
    ['8 blobs', 'cm', /"blobs" is not a unit/],
    ['some', 'cm', /not a number/],
    ['1,5', 'cm', /point/],
    ['', 'cm', /not a number/],
    ['6 in', '', /plain number/],
    ['3 ft 2 lb', 'cm', /a length/],
    ['5 in/', 'in', /./],
  ])('refuses %j in %j', (text, unit, message) => {
    // A bare number is taken in the field's own unit, which must then exist.
    const read = (): unknown => (unit === 'parsec' ? parseUnit(unit) : parseQuantity(text, unit));
    expect(read).toThrow(message);
  });

  it('ends in a number or a QuantityError, whatever is typed', () => {
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string(),
          fc
            .tuple(finite, fc.constantFrom(...units, ' ', '/', 'lb/', '1000'))
            .map(([value, unit]) => `${value} ${unit}`),
        ),
        fc.constantFrom(...units),
        (text, unit) => {
          try {
            expect(Number.isFinite(parseQuantity(text, unit))).toBe(true);
          } catch (error) {
            expect(error).toBeInstanceOf(QuantityError);
          }
        },
      ),
    );
  });

  it('keeps unit errors apart from its own', () => expect(() => convert(1, 'm', 'kg')).toThrow(UnitError));
});

describe('numbers for people', () => {
  const senses: readonly Sense[] = [
    'limeRate',
    'nutrientRate',
    'productRate',
    'area',
    'mass',
    'depth',
    'length',
    'concentration',
    'ph',
    'percent',
    'count',
    'money',
  ];

  it.each([
    ['limeRate', 205.3, 'us', '42 lb/1000 ft²'],
    ['limeRate', 205.3, 'metric', '205 g/m²'],
    ['nutrientRate', 4.882, 'us', '1 lb/1000 ft²'],
    ['mass', 282.1, 'us', '622 lb'],
    ['mass', 0.42, 'metric', '0.42 kg'],
    ['depth', 15.24, 'us', '6 in'],
    ['ph', 6, 'us', '6.0'],
    ['money', 1250, 'metric', '$1,250.00'],
    ['area', 421.3, 'us', '4,530 ft²'],
    ['layer', 0.061, 'us', '0.02 in'],
    ['layer', 0.061, 'metric', '0.6 mm'],
    ['layer', 0.3, 'metric', '3 mm'],
  ] as const)('%s %d in %s reads %s', (sense, value, system, text) =>
    expect(present(sense, value, system).text).toBe(text),
  );

  it('drift by no more than half a step when read back', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...senses),
        fc.constantFrom('us' as const, 'metric' as const),
        fc.double({ min: 0, max: 1e5, noNaN: true }),
        (sense, system, value) => {
          const { unit, step } = unitFor(sense, system);
          // Small amounts step down to a smaller unit.
          const { value: told, unit: label } = present(sense, value, system);
          const small = { oz: 'oz', g: 'g', 'fl oz': 'floz', mL: 'mL', 'ft³': 'ft3', L: 'L', lb: 'lb', kg: 'kg' }[
            label
          ];
          const own = small ?? (unit === '' ? coreUnit(sense) : unit);
          expect(Math.abs(told - convert(value, coreUnit(sense), own))).toBeLessThanOrEqual(
            Math.max(step, 1) / 2 + 1e-6,
          );
          expect(present(sense, convert(told, own, coreUnit(sense)), system).value).toBeCloseTo(told, 6);
        },
      ),
    );
  });

  it.each([
    ['mass', 0.085, '3 oz', '85 g'],
    ['liquid', 0.03, '1 fl oz', '30 mL'],
    ['volume', 0.06, '2.1 ft³', '60 L'],
    ['liquid', 0, '0 gal', '0 L'],
    ['liquid', 2.5, '85 fl oz', '2.5 L'],
    ['depth', 1.27, '0.5 in', '1.3 cm'],
    ['depth', 10, '4 in', '10 cm'],
  ] as const)('say %s of %d in a unit that still says something', (sense, value, us, metric) => {
    expect([present(sense, value, 'us').text, present(sense, value, 'metric').text]).toEqual([us, metric]);
    // In a field the usual unit stands beside it.
    const typed = convert(inField(sense, value, 'us'), unitFor(sense, 'us').unit, coreUnit(sense));
    expect(Math.abs(typed - value)).toBeLessThanOrEqual(0.02 * value);
  });

  it('round up what must be bought', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 1e6, noNaN: true }), fc.constantFrom(0.1, 1, 5, 4.8824), (value, step) =>
        expect(roundTo(value, step, 'up')).toBeGreaterThanOrEqual(value * (1 - 1e-8) - 1e-8 * step),
      ),
    );
  });

  it('tell a working step in its own unit and in the person’s', () => {
    expect(presentStep(939.8, 'g/m2', 'us')).toBe('192.5 lb/1000 ft² (939.8 g/m²)');
    expect(presentStep(939.8, 'g/m2', 'metric')).toBe('939.8 g/m²');
    expect(presentStep('low', '', 'us')).toBe('low');
    // Every length to a power is spelt with it raised, whatever unit it stands in.
    for (const [unit, told] of [
      ['/m2', '/m²'],
      ['mol/m2', 'mol/m²'],
      ['m3/m3', 'm³/m³'],
      ['kg', 'kg'],
    ])
      // prettier-ignore
      expect(presentStep(2, unit!, 'metric')).toBe(`2 ${told}`);
  });
});
