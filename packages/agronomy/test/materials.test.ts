import fc from 'fast-check';
import {
  InputError,
  type Material,
  analysisEntries,
  analysisKeys,
  analysisOf,
  checkMaterial,
  genericMaterials,
  materialColumns,
  materialKinds,
  packUnits,
  productEffectiveness,
  productOf,
  purposeOf,
  readMaterialRow,
  serves,
  suggestProduct,
  unitPrice,
  writeMaterialRow,
} from '../src/index.ts';
import { by, programOf } from './programScene.ts';
import { straightOf } from '../src/nutrients/straights.ts';

const named = (name: string): Material => genericMaterials.find((one) => one.name === name)!;
const refused = (act: () => unknown): InputError => {
  try {
    act();
  } catch (error) {
    if (error instanceof InputError) return error;
    throw error;
  }
  throw new Error('It was taken.');
};

/** Any material that can be: numbers of its kind within their ranges, as far as they hold together. */
const materials: fc.Arbitrary<Material> = fc
  .record({
    kind: fc.constantFrom(...materialKinds),
    name: fc.string({ minLength: 1, maxLength: 40 }).filter((text) => text.trim() === text && text !== ''),
    packUnit: fc.constantFrom(...packUnits),
    packSize: fc.double({ min: 0.01, max: 9999, noNaN: true }).map((size) => Number(size.toPrecision(5))),
    natural: fc.constantFrom(undefined, true),
    caution: fc.constantFrom(undefined, 'Keep it dry; "always", they say', '=1+1 is no formula'),
    shares: fc.constantFrom([100], [60, 40], [50, 30, 20]),
  })
  .chain(({ kind, shares, ...rest }) =>
    fc
      .record(
        Object.fromEntries(
          analysisOf(kind).map((key) => {
            const { min, max, required } = analysisEntries[key];
            const value = fc
              .double({ min, max: Math.min(max, min + 9), noNaN: true })
              .map((one) => Number(one.toFixed(2)));
            return [key, required ? value : fc.option(value, { nil: undefined })];
          }),
        ),
      )
      .map((numbers) => ({
        ...rest,
        kind,
        analysis: Object.fromEntries(Object.entries(numbers).filter(([, value]) => value !== undefined)),
        ...(kind === 'seed'
          ? { seeds: shares.map((share, at) => ({ grass: ['tall fescue', 'fine fescue', 'bahiagrass'][at]!, share })) }
          : {}),
      })),
  )
  .filter((material) => {
    try {
      checkMaterial(material as Material);
      return true;
    } catch {
      return false;
    }
  }) as fc.Arbitrary<Material>;

const plainRow = { name: 'X', kind: 'fertilizer', n: '20', pack_size: '20' };

/** What a practice keeps of it. */
const kept = fc.record({
  packPrice: fc.option(fc.nat(500)),
  stock: fc.option(fc.nat(60)),
  pricedOn: fc.option(fc.constantFrom('2026-03-20', '2025-11-01')),
  deliveryPrice: fc.option(fc.nat(200)),
  loadSize: fc.option(fc.integer({ min: 1, max: 20 })),
});

describe('a material', () => {
  it('goes out into a row and comes back the same, whatever it is', () => {
    fc.assert(
      fc.property(materials, kept, (material, own) => {
        const row = writeMaterialRow({ material, ...own });
        expect(Object.keys(row)).toEqual([...materialColumns]);
        const back = readMaterialRow(row, 0);
        expect(JSON.parse(JSON.stringify(back))).toEqual(JSON.parse(JSON.stringify({ material, ...own })));
      }),
    );
  });

  it.each([
    [
      'numbers of another kind',
      { kind: 'seed', purity_percent: '98', n: '5', seeds: 'tall fescue' },
      '0.n',
      /does not belong to seed/,
    ],
    ['a lime without its mesh', { kind: 'lime', cce_percent: '90' }, '0.passing_8_mesh', /missing/],
    [
      'a finer mesh that lets more through',
      { kind: 'lime', cce_percent: '90', passing_8_mesh: '80', passing_20_mesh: '90', passing_60_mesh: '50' },
      '0.passing_20_mesh',
      /out of order/,
    ],
    ['more than all of it', { kind: 'fertilizer', n: '46', p2o5: '46', k2o: '20' }, '0.n', /112 % together/],
    // What its label leaves out of a straight counts, too.
    ['a straight filled up beyond itself', { kind: 'fertilizer', n: '21', fe: '60' }, '0.n', /105 % together/],
    ['a fertilizer of nothing', { kind: 'fertilizer', n: '0' }, '0.n', /holds something/],
    ['seed that makes no whole', { kind: 'seed', seeds: 'tall fescue 60; fine fescue 20' }, '0.seeds', /80 % together/],
    ['grass nobody knows', { kind: 'seed', seeds: 'moss 100' }, '0.grass', /moss/],
    [
      'a lime by the litre',
      {
        kind: 'lime',
        cce_percent: '90',
        passing_8_mesh: '90',
        passing_20_mesh: '80',
        passing_60_mesh: '50',
        pack_unit: 'L',
      },
      '0.pack_unit',
      /by weight/,
    ],
    ['a word for a number', { kind: 'fertilizer', n: 'much' }, '0.n', /"much"/],
    ['a column nobody knows', { kind: 'fertilizer', n: '5', colour: 'green' }, '0.colour', /no column/],
  ])('is refused with %s', (_what, row, field, message) => {
    const error = refused(() => readMaterialRow({ name: 'X', pack_size: '20', ...row }, 0));
    expect([error.field, error.message]).toEqual([field, expect.stringMatching(message)]);
  });

  it('is read as people write it: other words, decimal commas, percent and money signs', () => {
    const { material, packPrice } = readMaterialRow(
      { Product: 'Blend', kind: 'Fertilizer', N: '15,5 %', K2O: '8', bag_kg: '22,5', Price: '€ 27.50' },
      0,
      '€',
    );
    expect(material).toMatchObject({ name: 'Blend', analysis: { n: 15.5, k2o: 8 }, packSize: 22.5 });
    expect(packPrice).toBe(27.5);
  });
});

describe('the generic catalogue', () => {
  it('holds what the trade holds, each once and each by its kind', () => {
    expect(new Set(genericMaterials.map(({ name }) => name.toLowerCase())).size).toBe(genericMaterials.length);
    expect(genericMaterials.length).toBeGreaterThanOrEqual(60);
    for (const kind of materialKinds) expect(genericMaterials.some((one) => one.kind === kind)).toBe(true);
    // A name that tells a grade tells its own.
    for (const { name, analysis } of genericMaterials) {
      const [, n, p2o5, k2o] = /(?:^| )([\d.]+)-([\d.]+)-([\d.]+)/.exec(name) ?? [];
      if (n) expect([name, analysis.n ?? 0, analysis.p2o5 ?? 0, analysis.k2o ?? 0]).toEqual([name, +n, +p2o5!, +k2o!]);
    }
  });

  it.each([
    ['Granulated biosolids 5-2-0', 'nitrogen', ['nitrogen', 'phosphorus']],
    ['Blend 16-4-8, a third slow', 'nitrogen', ['nitrogen', 'phosphorus', 'potassium']],
    ['Bone meal 3-15-0', 'phosphorus', ['nitrogen', 'phosphorus']],
    ['Potassium-magnesium sulfate 0-0-22', 'potassium', ['potassium']],
    ['Marl', 'lime', ['lime']],
  ])('%s is for %s first, and can be chosen for %j', (name, main, all) => {
    const product = productOf('x', named(name), 1)!;
    expect(purposeOf(product)).toBe(main);
    expect((['lime', 'nitrogen', 'phosphorus', 'potassium'] as const).filter((one) => serves(product, one))).toEqual(
      all,
    );
  });

  it('gives no rate of what is not spread by lime or nutrients', () => {
    for (const name of ['Gypsum, pelletised', 'Leaf mould', 'Tall fescue seed', 'Wetting agent, block copolymer'])
      expect(productOf('x', named(name), 1)).toBeUndefined();
  });

  it('suggests the magnesium potash only where it brings no more magnesium than is wanted', () => {
    const products = genericMaterials.flatMap((material, at) => productOf(String(at), material, 1) ?? []);
    const wish = { magnesium: true, acidifying: false, lowSalt: false, closeMown: false };
    const name = (potash: { need: number; magnesium: number } | undefined) =>
      suggestProduct('potassium', products, { ...wish, potash })!.name;
    // 11 % Mg beside 22 % K₂O: half of the potash.
    expect(name({ need: 4.9, magnesium: 2.45 })).toMatch(/magnesium/);
    expect(name({ need: 5, magnesium: 2.45 })).toBe('Sulfate of potash 0-0-50');
    expect(name(undefined)).toBe('Sulfate of potash 0-0-50');
  });

  it('has no price in two moneys: another sign than the practice’s is refused with what to do', () => {
    const row = (pack_price: string) => ({ ...plainRow, pack_price });
    const priced = (text: string, currency?: string) => readMaterialRow(row(text), 0, currency).packPrice;
    expect([priced('$31.50'), priced('31,50'), priced('31.5 €', '€'), priced('kr 310', 'kr')]).toEqual([
      31.5, 31.5, 31.5, 310,
    ]);
    for (const [text, currency] of [
      ['€31.50', '$'],
      ['31.50 EUR', '$'],
      ['$31.50', '€'],
      ['£5', '€'],
    ] as const)
      // prettier-ignore
      expect(() => priced(text, currency)).toThrow(/is in .+, and this practice reckons in .+: convert it/);
  });

  it('suggests no granules for close-mown turf that its mower would pick up, and says where that is not known', () => {
    const urea = productOf('u', named('Urea 46-0-0'), 1)!;
    const [coarse, fine] = [240, 100].map((sgn) => ({ ...urea, id: String(sgn), sgn }));
    const plain = { magnesium: false, acidifying: false, lowSalt: false };
    const chosen = (closeMown: boolean, ...products: Array<typeof coarse>) =>
      suggestProduct('nitrogen', products as never, { ...plain, closeMown })!.id;
    expect([chosen(true, coarse, fine), chosen(false, coarse, fine), chosen(true, coarse)]).toEqual([
      '100',
      '240',
      '240',
    ]);
    const green = (sgn?: number) =>
      by(
        programOf({
          zone: { surface: 'fine turf', grass: 'creeping bentgrass' },
          materials: [
            { id: 'u', material: { ...named('Urea 46-0-0'), analysis: { n: 46, ...(sgn ? { sgn } : {}) } }, price: 1 },
          ],
        }).treatments,
        'nitrogen',
      ).cautions.join(' ');
    expect([green(240), green(), green(100)]).toEqual([
      expect.stringMatching(/SGN 240 lie on turf mown this short/),
      expect.stringMatching(/is not on record: turf mown this short wants SGN 125 or less/),
      expect.not.stringMatching(/SGN/),
    ]);
  });

  it('costs by what it is bought for', () => {
    expect(unitPrice(named('Urea 46-0-0'), 31)).toEqual({
      of: 'N',
      perKg: expect.closeTo(31 / (22.67962 * 0.46), 6) as number,
    });
    const lime = named('Pelletised calcitic lime');
    const { value } = productEffectiveness(productOf('x', lime, 1)!.lime!);
    expect(unitPrice(lime, 6.8)).toEqual({
      of: 'effective lime',
      perKg: expect.closeTo(680 / (18.14369 * value), 6) as number,
    });
    expect(unitPrice(named('Leaf mould'), 46)).toBeNull();
    expect(unitPrice(lime, null)).toBeNull();
  });
});

it('every number of an analysis has a place, a column of its own and a range', () => {
  expect(new Set(analysisKeys.map((key) => analysisEntries[key].column)).size).toBe(analysisKeys.length);
  for (const key of analysisKeys) {
    const { min, max, kinds } = analysisEntries[key];
    expect([key, kinds.length > 0, min < max]).toEqual([key, true, true]);
  }
  expect(straightOf({ n: 21, p2o5: 0, k2o: 0 })?.s).toBe(24);
});
