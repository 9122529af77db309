import {
  type Figure,
  type Product,
  type SoilTest,
  type TestedZone,
  type ZoneFacts,
  convert,
  planZone,
  present,
} from '../src/index.ts';

const zone: ZoneFacts = {
  name: 'North',
  area: 370,
  grass: 'kentucky bluegrass',
  surface: 'turf',
  intensity: 'medium',
  shade: 'full sun',
  clippings: 'removed',
  soilGroup: 'loam',
};
const ppm = (value: number) => ({ value, unit: 'mg/kg', basis: 'element' }) as const;
const test: SoilTest = {
  soilPh: 5.4,
  buffer: { method: 'smp', ph: 6.4 },
  extractant: 'mehlich-3',
  depth: 15.24,
  organicMatter: 3,
  nutrients: { p: ppm(18), k: ppm(60), ca: ppm(600), mg: ppm(150) },
};

const mesh = { passing8: 100, passing20: 95, passing60: 80, moisture: 0 };
const base = { grade: { n: 0, p2o5: 0, k2o: 0 }, slowRelease: 0, bagMass: 20, bagPrice: 10 };
const products: readonly Product[] = [
  {
    ...base,
    id: 'calcitic',
    name: 'Calcitic',
    purpose: 'lime',
    lime: { ...mesh, cce: 95, magnesium: false, caustic: false },
  },
  {
    ...base,
    id: 'dolomitic',
    name: 'Dolomitic',
    purpose: 'lime',
    lime: { ...mesh, cce: 103, magnesium: true, caustic: false },
  },
  {
    ...base,
    id: 'hydrated',
    name: 'Hydrated',
    purpose: 'lime',
    lime: { ...mesh, cce: 130, magnesium: false, caustic: true },
  },
  { ...base, id: 'urea', name: 'Urea', purpose: 'nitrogen', grade: { n: 46, p2o5: 0, k2o: 0 } },
  {
    ...base,
    id: 'coated',
    name: 'Coated urea',
    purpose: 'nitrogen',
    grade: { n: 43, p2o5: 0, k2o: 0 },
    slowRelease: 85,
  },
  { ...base, id: 'map', name: 'MAP', purpose: 'phosphorus', grade: { n: 11, p2o5: 52, k2o: 0 } },
  { ...base, id: 'sop', name: 'SOP', purpose: 'potassium', grade: { n: 0, p2o5: 0, k2o: 50 } },
];
const plan = (
  facts: Partial<ZoneFacts> = {},
  soil: Partial<SoilTest> = {},
  choices = {},
  others: readonly TestedZone[] = [],
  list = products,
) =>
  planZone({
    zone: { ...zone, ...facts },
    test: { ...test, ...soil },
    products: list,
    choices,
    others,
    system: 'us',
  });

describe('lime in a plan', () => {
  it('is the requirement at the strength of the product, rounded up to what a spreader can be set to', () => {
    const { lime } = plan().plan;
    // 4.72 ton/acre at 8 in of 65 % lime, by hand: 4.72 × 45.914 × 6/8 × 65 / (95 × 90 %) = 123.6 lb/1000 ft².
    expect(lime.amount?.productName).toBe('Calcitic');
    expect(present('limeRate', lime.amount!.rate.value, 'us').value).toBe(100);
    expect(lime.amount!.applications.map(({ rate }) => present('limeRate', rate, 'us').value)).toEqual([50, 50]);
    expect(present('limeRate', lime.afterRetest, 'us').value).toBe(24);
    // What waits for the retest is not bought.
    expect(lime.amount!.bags.value).toBe(Math.ceil((convert(100, 'lb/1000ft2', 'g/m2') * 370) / 1000 / 20));
    expect(lime.amount!.cost!.value).toBe(lime.amount!.bags.value * 10);
  });

  it.each([
    ['inside the band', { soilPh: 6.2 }, {}, 'none', /No lime here. pH 6.2 is inside Kentucky bluegrass’s 6.0–7.0/],
    ['above it', { soilPh: 7.6 }, {}, 'too high', /above/],
    [
      'at the advisor’s own aim',
      { soilPh: 5.4 },
      { aimPh: 5.3, aimReason: 'rhododendrons beside it' },
      'none',
      /at your aim of 5.3/,
    ],
    [
      'a little below, with hardly any reserve acidity',
      { soilPh: 5.9, buffer: { method: 'smp', ph: 7.1 } },
      {},
      'none',
      /retest/,
    ],
  ] as const)('%s', (_name, soil, facts, status, words) => {
    const { lime, leftOut } = plan(facts, soil).plan;
    expect([lime.status, lime.amount]).toEqual([status, null]);
    expect(lime.words).toMatch(words);
    expect(leftOut).toContain('Lime');
  });

  it.each([
    ['without a buffer', { buffer: undefined }, {}, /No buffer pH was measured: estimated/],
    [
      'for a grass the SMP table does not reach',
      { soilPh: 4.7 },
      { grass: 'centipedegrass' },
      /gives no rate to an aim of 5.5: estimated/,
    ],
    [
      'beyond the curve of the method',
      { soilPh: 4.2, buffer: { method: 'adams-evans', ph: 7.4 } },
      {},
      /cannot read this: the soil pH is 4.2; the Adams–Evans curve ends/,
    ],
    [
      'where the buffer is blind',
      { soilPh: 5.1, buffer: { method: 'smp', ph: 7.1 } },
      { soilGroup: 'sand' },
      /shows no reserve acidity, as it often does on sand/,
    ],
  ] as const)('is estimated %s, and the low end given', (_name, soil, facts, words) => {
    const { lime } = plan(facts, soil).plan;
    expect(lime.status).toBe('estimate');
    expect(lime.words).toMatch(words);
    const [, low, high] = /, (\d+) to (\d+) lb/.exec(lime.words)!.map(Number);
    expect(low).toBeLessThan(high!);
    const given = present('limeRate', lime.amount!.rate.value + lime.afterRetest, 'us').value;
    expect(Math.abs(given - low!)).toBeLessThanOrEqual(1);
  });

  it('counts what is already down by when it went down, and says what it cannot count', () => {
    const spring = { sampledOn: '2026-03-01' };
    const given = (on: string, rate?: number) =>
      plan({ applied: [{ kind: 'lime', on, rate, cce: 100 }] }, spring).plan.lime;
    const whole = plan({}, spring).plan.lime.requirement!.value;
    // Pure lime after the sample comes off at the method’s 65 %.
    expect(given('2026-04-10', 65).requirement!.value).toBeCloseTo(whole - 100, 6);
    const older = given('2025-03-01', 65).requirement!.value;
    expect(older).toBeGreaterThan(whole - 100);
    expect(older).toBeLessThan(whole);
    expect(given('2023-03-01', 65).requirement!.value).toBe(whole);
    expect(given('2026-04-10').words).toMatch(/how much is not told: it is not taken off/);
  });

  it('gives no rate of hydrated lime on living turf, and one on a seedbed', () => {
    expect(plan({}, {}, { lime: 'hydrated' }).plan.lime).toMatchObject({
      amount: null,
      cautions: [expect.stringContaining('burns')],
    });
    expect(plan({ surface: 'seedbed' }, {}, { lime: 'hydrated' }).plan.lime.amount).not.toBeNull();
  });

  it('is dolomitic only where magnesium is short', () => {
    expect(plan({}, { nutrients: { mg: ppm(60) } }).plan.lime.amount?.productName).toBe('Dolomitic');
    expect(plan({}, { nutrients: {} }).plan.lime.amount?.productName).toBe('Calcitic');
  });

  it('aims where the advisor says', () =>
    expect(plan({ aimPh: 6.2 }).plan.lime).toMatchObject({
      aim: 6.2,
      words: expect.stringContaining('Lime to 6.2') as string,
    }));
});

describe('two zones of one pH', () => {
  const other = {
    zone: { ...zone, name: 'South', grass: 'fine fescue' },
    test: { ...test, buffer: { method: 'smp', ph: 6.7 } as const },
  };

  it('differ by buffer and by grass, and the reasons add up to the difference', () => {
    // By hand, short tons/acre at 8 in: 4.72 here, 1.73 there; 3.86 with this buffer at that aim; each × 45.914 × 6/8 × 65 / 85.5.
    const [comparison] = plan({}, {}, {}, [other]).plan.comparisons;
    expect(comparison?.words).toMatch(/South has pH 5.4 too, and needs 78 lb\/1000 ft² less/);
    expect(comparison?.reasons).toEqual([
      'Buffer pH 6.4 here, 6.7 there: +56 lb/1000 ft².',
      'Aim 6.5 for Kentucky bluegrass here, 6.0 for fine fescue there: +23 lb/1000 ft².',
    ]);
  });

  it('are not compared when the answer or the pH is another matter', () => {
    expect(plan({}, {}, {}, [{ ...other, test: { ...other.test, soilPh: 6 } }]).plan.comparisons).toEqual([]);
    expect(plan({}, {}, {}, [{ zone: { ...zone, name: 'Twin' }, test }]).plan.comparisons).toEqual([]);
  });

  it('differ when one grass is content with the pH', () => {
    const [comparison] = plan({}, {}, {}, [{ zone: { ...zone, name: 'East', grass: 'centipedegrass' }, test }]).plan
      .comparisons;
    expect(comparison?.words).toMatch(/gets no lime/);
    expect(comparison?.reasons[0]).toMatch(/centipedegrass there wants 5.0–6.0/);
  });
});

describe('nutrients in a plan', () => {
  const rows = (...given: Parameters<typeof plan>) =>
    Object.fromEntries(plan(...given).plan.nutrients.map((advice) => [advice.nutrient, advice]));

  it('nitrogen is what phosphate did not bring, split at 1 lb soluble', () => {
    const { n, p2o5 } = rows();
    // 2 × 3.5/3 = 2.33 lb P₂O₅ as 11-52-0 is 4.49 lb in three: 1.4 a pass, since 1.5 would
    // bring more than the test asks for. That brings 0.46 lb N of 3.5.
    expect(p2o5!.amount!.rate.value).toBeCloseTo(convert(4.2, 'lb/1000ft2', 'g/m2'), 6);
    const product = convert(n!.amount!.rate.value, 'g/m2', 'lb/1000ft2');
    expect(product * 0.46 + 4.2 * 0.11).toBeGreaterThan(3.35);
    expect(product * 0.46 + 4.2 * 0.11).toBeLessThan(3.6);
    expect(n!.amount!.applications).toHaveLength(4);
    // 3.08 lb at 1.5 a pass would be three, and a year above 3 lb takes three.
    expect(rows({}, {}, { nitrogen: 'coated' }).n!.amount!.applications).toHaveLength(3);
    expect(rows({ surface: 'fine turf' }).n!.amount!.applications).toHaveLength(7);
  });

  it('phosphorus carries the gate of the law, the other way round when the test is medium', () => {
    expect(rows().p2o5!.cautions.join()).toMatch(/shortage that most phosphorus rules ask for/);
    const medium = { nutrients: { p: ppm(40) } };
    expect(rows({}, medium).p2o5!).toMatchObject({ status: 'none', amount: null });
    expect(rows({ surface: 'seedbed' }, medium).p2o5!.cautions.join()).toMatch(/only for a lawn being established/);
  });

  it('phosphate and potash come only from the test', () => {
    const enough = rows({}, { nutrients: { p: ppm(60), k: ppm(200) } });
    expect([enough.p2o5!.status, enough.k2o!.status]).toEqual(['none', 'none']);
    const unknown = rows({}, { nutrients: {}, extractant: 'morgan' });
    expect(unknown.p2o5!.words).toMatch(/not tested/);
    expect(rows({}, { extractant: 'dtpa' }).k2o!).toMatchObject({
      status: 'cannot say',
      words: expect.stringContaining('not converted') as string,
    });
  });
});

describe('cost and working', () => {
  it('stays open, naming the product, while a price is missing', () => {
    const { cost, unpriced } = plan(
      {},
      {},
      {},
      [],
      products.map((product) => (product.id === 'sop' ? { ...product, bagPrice: null } : product)),
    ).plan;
    expect([cost, unpriced]).toEqual([null, ['SOP']]);
  });

  it('every number carries the working that ends in it', () => {
    const { lime, nutrients, cost } = plan().plan;
    const lastNumber = ({ working }: Figure): unknown =>
      working.filter((entry) => entry.kind === 'step').at(-1)?.result;
    for (const amount of [lime.amount!, ...nutrients.map((advice) => advice.amount!)]) {
      for (const figure of [amount.mass, amount.bags, amount.cost!]) expect(lastNumber(figure)).toBe(figure.value);
    }
    expect(lastNumber(cost!)).toBe(cost!.value);
    expect(lastNumber(lime.requirement!)).toBe(lime.requirement!.value);
  });

  it('says first what limits the zone most', () => {
    const { reading } = plan({}, { soilPh: 4.8, organicMatter: 1.5, nutrients: { p: ppm(5) } });
    expect(reading.limitations.map(({ key, degree }) => `${key} ${degree}`)).toEqual([
      'acid severe',
      'organic matter severe',
      'phosphorus clear',
    ]);
    expect(reading.headline).toMatch(/aluminium/);
    expect(plan({}, { soilPh: 6.4, organicMatter: 4, nutrients: { p: ppm(40) } }).reading.headline).toMatch(
      /Nothing on this report limits/,
    );
  });
});
