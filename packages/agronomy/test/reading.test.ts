import fc from 'fast-check';
import {
  type Figure,
  type Nutrient,
  type Product,
  type Rating,
  type ReportedValue,
  type SoilTest,
  type ZoneFacts,
  bufferMethods,
  bufferRange,
  extractants,
  findGrass,
  grassNames,
  planZone,
  ratings,
  readZone,
  tellBar,
  unitsFor,
} from '../src/index.ts';

const zones: fc.Arbitrary<ZoneFacts> = fc.record({
  name: fc.constant('Zone'),
  area: fc.double({ min: 1, max: 50_000, noNaN: true }),
  grass: fc.constantFrom(...grassNames),
  surface: fc.constantFrom('turf' as const, 'fine turf' as const, 'seedbed' as const),
  intensity: fc.constantFrom('low' as const, 'medium' as const, 'high' as const),
  shade: fc.constantFrom('full sun' as const, 'part' as const, 'deep' as const),
  clippings: fc.constantFrom('returned' as const, 'removed' as const),
  soilGroup: fc.option(fc.constantFrom('sand' as const, 'loam' as const, 'clay' as const), { nil: undefined }),
  aimPh: fc.option(fc.double({ min: 4.5, max: 8, noNaN: true }), { nil: undefined }),
});

const buffers = fc.constantFrom(...bufferMethods).chain((method) => {
  const [min, max] = bufferRange(method);
  return fc.double({ min, max, noNaN: true }).map((ph) => ({ method, ph }));
});

const reported = (nutrient: Nutrient): fc.Arbitrary<ReportedValue> =>
  fc.record({
    value: fc.double({ min: 0, max: 5000, noNaN: true }),
    unit: fc.constantFrom(...unitsFor(nutrient)),
    basis: fc.constantFrom('element' as const, 'oxide' as const),
    belowDetection: fc.boolean(),
  });

const tests: fc.Arbitrary<SoilTest> = fc.record({
  soilPh: fc.double({ min: 2.5, max: 11, noNaN: true }),
  buffer: fc.option(buffers, { nil: undefined }),
  extractant: fc.constantFrom(...extractants),
  depth: fc.double({ min: 2, max: 60, noNaN: true }),
  organicMatter: fc.option(fc.double({ min: 0, max: 100, noNaN: true }), { nil: undefined }),
  nutrients: fc.record(
    { p: reported('p'), k: reported('k'), ca: reported('ca'), mg: reported('mg') },
    { requiredKeys: [] },
  ),
});

const plainProduct = { grade: { n: 0, p2o5: 0, k2o: 0 }, slowRelease: 0, bagMass: 20, bagPrice: 12 };
const mesh = { passing8: 100, passing20: 90, passing60: 60, moisture: 1 };
const products: readonly Product[] = [
  {
    ...plainProduct,
    id: 'c',
    name: 'Calcitic',
    purpose: 'lime',
    lime: { ...mesh, cce: 95, magnesium: false, caustic: false },
  },
  {
    ...plainProduct,
    id: 'd',
    name: 'Dolomitic',
    purpose: 'lime',
    lime: { ...mesh, cce: 104, magnesium: true, caustic: false },
  },
  { ...plainProduct, id: 'n', name: 'Urea', purpose: 'nitrogen', grade: { n: 46, p2o5: 0, k2o: 0 } },
  { ...plainProduct, id: 'p', name: 'Phosphate', purpose: 'phosphorus', grade: { n: 11, p2o5: 52, k2o: 0 } },
  { ...plainProduct, id: 'k', name: 'Potash', purpose: 'potassium', grade: { n: 0, p2o5: 0, k2o: 60 } },
];

/** Every figure inside an answer. */
function figures(value: unknown): Figure[] {
  if (typeof value !== 'object' || value === null) return [];
  if ('working' in value && 'value' in value) return [value as Figure];
  return Object.values(value).flatMap(figures);
}

describe('any zone with any test that the contract lets through', () => {
  it('gets a plan: no number is negative or unknown, each has its working, and nothing is thrown', () => {
    fc.assert(
      fc.property(zones, tests, fc.constantFrom('us' as const, 'metric' as const), (zone, test, system) => {
        const { plan, reading } = planZone({ zone, test, products, system });
        for (const { value, working } of [...figures(plan), ...figures(reading)]) {
          expect(Number.isFinite(value) && value >= 0).toBe(true);
          expect(working.length).toBeGreaterThan(0);
          for (const entry of working) expect(JSON.stringify(entry)).not.toMatch(/undefined|NaN/);
        }
        const words = [reading.headline, plan.lime.words, ...plan.nutrients.map((advice) => advice.words)];
        for (const sentence of words) expect(sentence).toMatch(/^(pH|[A-Z]).*[.]$/);
      }),
      { numRuns: 400 },
    );
  });

  it('is limed only below the band, and never towards a pH below the soil’s', () => {
    fc.assert(
      fc.property(zones, tests, (zone, test) => {
        const { lime } = planZone({ zone, test, products, system: 'us' }).plan;
        const [low] = findGrass(zone.grass!).ph;
        if (test.soilPh >= low) expect(lime.amount).toBeNull();
        if (lime.amount) expect(lime.aim).toBeGreaterThan(test.soilPh);
        expect(lime.status === 'due' || lime.status === 'estimate').toBe(lime.cautions.length > 0);
      }),
    );
  });

  it('two such zones are compared both ways, or neither way', () => {
    fc.assert(
      fc.property(zones, tests, zones, tests, (zone, test, otherZone, otherTest) => {
        const here = { zone, test };
        const there = {
          zone: { ...otherZone, name: 'Other' },
          test: { ...otherTest, soilPh: test.soilPh, buffer: test.buffer },
        };
        const product = products.slice(0, 1);
        const one = planZone({ ...here, products: product, others: [there], system: 'us' }).plan.comparisons;
        const other = planZone({ ...there, products: product, others: [here], system: 'us' }).plan.comparisons;
        expect(one.length).toBe(other.length);
        for (const { reasons } of one) expect(reasons.length).toBeGreaterThan(0);
        if (one[0]?.words.includes(' less')) expect(other[0]?.words).toMatch(/ more/);
      }),
    );
  });
});

describe('a reading', () => {
  const zone: ZoneFacts = {
    name: 'Z',
    area: 100,
    grass: 'tall fescue',
    surface: 'turf',
    intensity: 'low',
    shade: 'part',
    clippings: 'returned',
  };
  const test: SoilTest = { soilPh: 6.2, extractant: 'mehlich-3', depth: 15, nutrients: {} };

  it.each([
    [4.9, 'very low', /below tall fescue’s 5.5–7.0/],
    [5.4, 'low', /below/],
    [5.5, 'medium', /inside/],
    [7, 'medium', /inside/],
    [7.2, 'high', /above/],
    [8.4, 'very high', /above/],
  ])('pH %d is %s for tall fescue', (soilPh, rating, words) => {
    const [bar] = readZone(zone, { ...test, soilPh }).bars;
    expect(bar).toMatchObject({ rating, words: expect.stringMatching(words) as string });
  });

  it.each([
    [1.2, 'very low'],
    [2.5, 'low'],
    [5, 'medium'],
    [9, 'high'],
    [30, 'very high'],
  ])('organic matter %d %% is %s', (organicMatter, rating) => {
    expect(readZone(zone, { ...test, organicMatter }).bars[1]).toMatchObject({ key: 'organicMatter', rating });
  });

  it('says what the report cannot tell, the buffer first', () => {
    expect(readZone(zone, { ...test, soilPh: 5 }).notMeasured[0]).toMatch(/Buffer pH/);
    expect(readZone(zone, { ...test, soilPh: 5 }).asks[0]).toBe('buffer');
    // Nobody misses a buffer where no lime is wanted.
    expect(readZone(zone, { ...test, soilPh: 8.2 }).notMeasured.join()).not.toMatch(/Buffer/);
    const whole = readZone(zone, { ...test, buffer: { method: 'smp', ph: 6.8 }, organicMatter: 4 }).notMeasured;
    expect(whole.join()).not.toMatch(/Buffer|Organic/);
    expect(readZone(zone, test).open).toBeNull();
    expect(readZone({ ...zone, soilGroup: 'clay' }, test).open).toMatch(/^Not known: drainage/);
  });

  it('shows a value without a table, unrated and in words', () => {
    const nutrients = { k: { value: 80, unit: 'mg/kg', basis: 'element' } as const };
    const bar = readZone(zone, { ...test, extractant: 'olsen', nutrients }).bars.at(-1)!;
    expect(bar).toMatchObject({ key: 'k', rating: null, limits: null, figure: { value: 80 } });
    expect(bar.words).toMatch(/Not rated: no table for K by Olsen/);
  });

  it('reads a word without a number as the rating that it is, wherever a number of that rating leads', () => {
    const own = (rated: Rating, soilGroup?: 'sand' | 'loam') => {
      const reading = readZone({ ...zone, soilGroup }, { ...test, nutrients: { k: { value: 0, unit: 'mg/kg', basis: 'element', rated } } }); // prettier-ignore
      return reading.bars.at(-1)!;
    };
    for (const rated of ratings) {
      const bar = own(rated, 'loam');
      expect([bar.rating, bar.word, tellBar(bar, 'us')]).toEqual([rated, rated, `“${rated}”`]);
      const same = readZone({ ...zone, soilGroup: 'loam' }, { ...test, nutrients: { k: { value: bar.figure.value, unit: 'mg/kg', basis: 'element' } } }).bars.at(-1)!; // prettier-ignore
      expect([same.rating, same.acts]).toEqual([rated, bar.acts]);
    }
    expect(own('low').words).toMatch(/The report says “low” and gives no number/);
    const none = readZone(zone, { ...test, extractant: 'olsen', nutrients: { k: { value: 0, unit: 'mg/kg', basis: 'element', rated: 'low' } } }).bars.at(-1)!; // prettier-ignore
    expect([none.rating, none.words]).toEqual([null, expect.stringMatching(/calls it low, and gives no number\. Not rated/)]); // prettier-ignore
  });

  it('warns where the extractant misleads at the soil’s own pH', () => {
    const nutrients = { p: { value: 12, unit: 'mg/kg', basis: 'element' } as const };
    const bar = (soilPh: number) => readZone(zone, { ...test, soilPh, extractant: 'bray-1', nutrients }).bars.at(-1)!;
    expect(bar(8.1)).toMatchObject({ rating: null, unrated: 'unsuited' });
    expect(bar(8.1).words).toMatch(/Bray P1 misreads P at pH 8.1.*Olsen/);
    expect(JSON.stringify(bar(8.1).figure.working)).toMatch(/carbonate spends its acid/);
    expect(bar(6.5).words).not.toMatch(/misreads/);
  });

  it('reads the same soil alike from every unit it can be reported in', () => {
    const soil = (value: number, unit: ReportedValue['unit'], basis: ReportedValue['basis'] = 'element') =>
      readZone(zone, { ...test, nutrients: { k: { value, unit, basis } } }).bars.at(-1)!;
    const plain = soil(120, 'mg/kg');
    for (const other of [
      soil(240, 'lb/acre'),
      soil(240 / 0.892179, 'kg/ha'),
      soil(120 / 391, 'cmol/kg'),
      soil(120 * 1.2046, 'mg/kg', 'oxide'),
    ]) {
      expect(other.figure.value).toBeCloseTo(plain.figure.value, 3);
      expect(other.rating).toBe(plain.rating);
      expect(other.figure.working.length).toBeGreaterThan(plain.figure.working.length);
    }
  });
});
