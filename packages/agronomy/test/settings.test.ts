import fc from 'fast-check';
import {
  type AdviceSettings,
  type Decision,
  type ZoneFacts,
  capKeys,
  climateOf,
  climateNames,
  convert,
  defaultSettings,
  genericMaterials,
  growthByMonth,
  ownBands,
  ownRates,
  planZone,
  productOf,
  ratings,
  settingsFrom,
  soilTestOf,
} from '../src/index.ts';
import { limeLimits } from '../src/lime/materials.ts';
import { contentOf } from '../src/materials/product.ts';

const products = genericMaterials.flatMap((material, at) => productOf(String(at), material, 10) ?? []);
const lawn: ZoneFacts = {
  ...{ name: 'Lawn', area: 200, grass: 'tall fescue', surface: 'turf', intensity: 'medium', shade: 'full sun' },
  ...{ clippings: 'removed', soilGroup: 'loam' },
};
const value = (amount: number, unit: 'pH' | 'mg/kg' | '%' = 'mg/kg', more = {}) => ({
  value: amount,
  unit,
  basis: 'element' as const,
  ...more,
});
const test = (more: Record<string, ReturnType<typeof value>> = {}) =>
  soilTestOf({
    values: {
      soilPh: value(5.2, 'pH'),
      bufferPh: value(6.3, 'pH', { method: 'smp' }),
      ...{ p: value(20), k: value(60), ca: value(600), mg: value(200), organicMatter: value(3.4, '%') },
      ...more,
    },
    ...{ extractant: 'mehlich-3', bufferMethod: 'smp', depth: 15.24 },
  })!;
const plan = (settings: Partial<AdviceSettings>, zone: Partial<ZoneFacts> = {}, tested = test()) =>
  planZone({
    zone: { ...lawn, ...zone },
    test: tested,
    products,
    system: 'us',
    settings: { ...defaultSettings, ...settings },
  });
const nutrient = (of: 'n' | 'p2o5' | 'k2o', { plan: { nutrients } }: ReturnType<typeof plan>) =>
  nutrients.find((one) => one.nutrient === of)!;

describe('what was decided', () => {
  const school = (at: Decision['at'], correct: string, more = {}): Decision =>
    ({
      kind: 'school',
      at,
      value: { school: 'sufficiency', correct, limeDepth: 'sampled slice', ...more },
    }) as Decision;

  it('for a zone comes before its site, and that before the practice; nothing decided is the general rule', () => {
    expect(settingsFrom([])).toEqual(defaultSettings);
    const all = [
      school('zone', 'to the aim', { reason: 'roses' }),
      school('practice', 'toward neutral'),
      school('site', 'leave alone'),
    ];
    expect(settingsFrom(all)).toMatchObject({ correct: 'to the aim', correctBy: 'Set for this zone: “roses”.' });
    expect(settingsFrom(all.slice(1))).toMatchObject({ correct: 'leave alone', correctBy: 'Set for this site.' });
    expect(settingsFrom([all[1]!])).toMatchObject({ correct: 'toward neutral', correctBy: null });
  });

  it('of caps the lower one holds, whoever set it, the place’s rule among them', () => {
    const { caps } = settingsFrom([
      { kind: 'caps', at: 'practice', value: { nitrogenYear: 15, limeOnce: 100 } },
      { kind: 'caps', at: 'zone', value: { nitrogenYear: 18, limeOnce: 80 } },
      {
        kind: 'rules',
        at: 'site',
        value: { name: 'The code', source: '', phosphorus: 'shortage', nitrogenYear: 10, blackouts: [] },
      },
    ]);
    expect(caps.nitrogenYear).toEqual({ most: 10, by: 'The code' });
    expect(caps.limeOnce).toEqual({ most: 80, by: 'the zone’s own cap' });
  });
});

describe('caps of one’s own', () => {
  const caps = fc.record(
    Object.fromEntries(
      capKeys.map((key) => [
        key,
        fc.option(
          fc
            .double({ min: key.startsWith('lime') ? 20 : 0.5, max: key.startsWith('lime') ? 400 : 20, noNaN: true })
            .map((most) => ({ most, by: 'us' })),
          { nil: undefined },
        ),
      ]),
    ),
    { requiredKeys: [] },
  ) as fc.Arbitrary<AdviceSettings['caps']>;

  it('hold in every plan, and never loosen a general one', () => {
    fc.assert(
      fc.property(
        caps,
        fc.constantFrom<ZoneFacts['surface'][]>('turf', 'fine turf', 'seedbed'),
        fc.constantFrom<ZoneFacts['intensity'][]>('low', 'medium', 'high'),
        fc.constantFrom(...products.filter(({ grade }) => grade.n > 0).map(({ id }) => id)),
        (own, surface, intensity, nitrogen) => {
          const given = Object.fromEntries(Object.entries(own).filter(([, cap]) => Boolean(cap)));
          const { plan: told } = planZone({
            ...{ zone: { ...lawn, surface, intensity }, test: test(), products, choices: { nitrogen } },
            ...{ system: 'us', settings: { ...defaultSettings, caps: given } },
          });
          const slack = 1.0011;
          const limes = told.lime.amount?.applications.map(({ rate }) => rate) ?? [];
          const general = convert(limeLimits.capPerThousand[surface], 'lb/1000ft2', 'g/m2');
          for (const rate of limes)
            expect(rate).toBeLessThanOrEqual(Math.min(general, own.limeOnce?.most ?? Infinity) * slack);
          const year = limes.reduce((sum, rate) => sum + rate, 0);
          expect(year).toBeLessThanOrEqual((own.limeYear?.most ?? Infinity) * slack);
          expect(told.supplied.n).toBeLessThanOrEqual((own.nitrogenYear?.most ?? Infinity) * slack);
          for (const { amount } of told.nutrients) {
            const product = amount && products.find(({ id }) => id === amount.productId);
            if (!amount || !product) continue;
            for (const { rate } of amount.applications) {
              const n = (rate * contentOf(product).n) / 100;
              expect(n).toBeLessThanOrEqual((own.nitrogenPass?.most ?? Infinity) * slack);
              expect((n * (100 - product.slowRelease)) / 100).toBeLessThanOrEqual(
                (own.solubleNitrogenPass?.most ?? Infinity) * slack,
              );
              if (surface !== 'seedbed')
                expect((rate * contentOf(product).k2o) / 100).toBeLessThanOrEqual(
                  (own.potashPass?.most ?? Infinity) * slack,
                );
            }
          }
        },
      ),
    );
  });
});

describe('tables of one’s own', () => {
  const bands = ownBands({
    ...{ name: 'Fennimore laboratory', source: 'its price list', date: 2025, extractant: 'mehlich-3' },
    rows: [{ nutrient: 'k', low: 40, high: 90 }],
  });
  const same = (rate: number) => Object.fromEntries(ratings.map((rating) => [rating, rate])) as never;
  const rates = ownRates({
    name: 'The state',
    source: 'Guide 7',
    date: 2024,
    p: { ...(same(0) as object), 'very low': 8, low: 6 } as never,
    k: { ...(same(2) as object), high: 0, 'very high': 0 } as never,
  });

  it('stand before the general ones in reading and rates, and are named there', () => {
    const general = plan({});
    expect(general.reading.bars.find(({ key }) => key === 'k')).toMatchObject({ rating: 'low' });
    const own = plan({ bands: [bands], yearlyRates: rates });
    expect(own.reading.bars.find(({ key }) => key === 'k')).toMatchObject({
      rating: 'medium',
      words: expect.stringMatching(/By the table of Fennimore laboratory/) as string,
    });
    expect(nutrient('k2o', own).need!.value).toBeCloseTo(2, 6);
    expect(nutrient('k2o', own).words).toMatch(/By the rates of The state/);
    // What it does not hold is still read by the general one.
    expect(own.reading.bars.find(({ key }) => key === 'mg')!.words).not.toMatch(/Fennimore/);
  });

  it('are no way round what an extractant misreads', () => {
    const alkaline = test({ soilPh: value(8.2, 'pH'), p: value(10) });
    const p = ownBands({
      name: 'L',
      source: 's',
      date: 2025,
      extractant: 'mehlich-3',
      rows: [{ nutrient: 'p', low: 27, high: 54 }],
    });
    const told = plan({ bands: [p] }, {}, alkaline);
    expect(told.reading.bars.find(({ key }) => key === 'p')!.rating).toBeNull();
    expect(nutrient('p2o5', told)).toMatchObject({ status: 'cannot say', amount: null });
  });

  it('that do not rise, or give a poorer soil less, are refused', () => {
    expect(() =>
      ownBands({
        name: 'L',
        source: 's',
        date: 2025,
        extractant: 'olsen',
        rows: [{ nutrient: 'p', low: 20, high: 12 }],
      }),
    ).toThrow(/wanted/);
    expect(() =>
      ownRates({
        name: 'S',
        source: 's',
        date: 2025,
        p: { ...(same(1) as object), low: 2, 'very low': 1 } as never,
        k: same(1),
      }),
    ).toThrow(/gives more/);
  });
});

describe('rules of the place', () => {
  const rules = {
    name: 'The code',
    source: 'part 2',
    phosphorus: 'never' as const,
    waterStrip: 5,
    blackouts: [{ from: '11-15', to: '03-01', what: 'nitrogen' as const }],
  };

  it('that forbid phosphorus give none, whatever the test says, and none along with a feed', () => {
    const told = plan({ rules, phosphorusRule: 'never' });
    expect(nutrient('p2o5', told)).toMatchObject({
      status: 'none',
      amount: null,
      words: expect.stringMatching(/The code forbids phosphorus/) as string,
    });
    expect(told.plan.supplied.p2o5).toBe(0);
  });

  it('stand as cautions where nitrogen is given: the days it is not, and how far from water', () => {
    const { cautions } = nutrient('n', plan({ rules, phosphorusRule: 'shortage' }));
    expect(cautions.join(' ')).toMatch(
      /None from 15 November to 1 March: The code\. Stay 16.5 ft back from water and drains: The code\./,
    );
  });
});

describe('targets with a name', () => {
  it('are aimed at and told; organic matter below one asks for compost, but never on fine turf', () => {
    const targets = [
      { name: 'The school', analyte: 'organicMatter' as const, value: 4.5 },
      { name: 'Clover in it', analyte: 'soilPh' as const, value: 6.6, grass: 'tall fescue' },
    ];
    const told = plan({ targets });
    expect(told.plan.lime).toMatchObject({ aim: 6.6, rule: expect.stringMatching(/target “Clover in it”/) as string });
    expect(told.plan.verdicts.find(({ remedy }) => remedy === 'compost')).toMatchObject({
      status: 'due',
      words: expect.stringMatching(/below the 4.5 % that “The school” wants/) as string,
    });
    // A zone's own aim is nearer than a wish of the practice.
    expect(plan({ targets }, { aimPh: 6.2 }).plan.lime.aim).toBe(6.2);
    expect(
      plan({ targets }, { surface: 'fine turf' }).plan.verdicts.find(({ remedy }) => remedy === 'compost')!.status,
    ).toBe('none');
  });
});

it('lime reckoned for the top takes its share of the sampled slice on turf, and all of it on tilled ground', () => {
  const of = (limeDepth: AdviceSettings['limeDepth'], zone: Partial<ZoneFacts> = {}) =>
    plan({ limeDepth }, zone).plan.lime;
  const whole = of('sampled slice');
  const top = of('top 4 in');
  expect(top.requirement!.value / whole.requirement!.value).toBeCloseTo(10.16 / 15.24, 6);
  expect(top.words).toMatch(/reckoned for the top 4 in of the 6 in sampled/);
  expect(of('top 4 in', { surface: 'seedbed' }).requirement!.value).toBeCloseTo(whole.requirement!.value, 6);
});

describe('a garden bed', () => {
  const bed: Partial<ZoneFacts> = { grass: undefined, garden: true, surface: 'seedbed' };

  it('is read by a general band and limed by its buffer in one tilled dose, and gets no lawn feed', () => {
    const told = plan({}, bed);
    expect(told.reading.bars[0]).toMatchObject({ wanted: [6, 7], words: 'pH 5.2 is below a garden bed’s 6.0–7.0.' });
    // SMP, Tri-State: 60.4 − 0.87 × 63 short tons/acre at 8 in, by 6 in.
    expect(told.plan.lime.requirement!.value).toBeCloseTo((60.4 - 0.87 * 63) * (6 / 8) * 224.17, 0);
    expect(told.plan.nutrients.map(({ status, amount }) => [status, amount])).toEqual([
      ['none', null],
      ['none', null],
      ['none', null],
    ]);
    expect(told.reading.limitations.some(({ key }) => key === 'shade')).toBe(false);
    expect(told.plan.leftOut).not.toContain('Nitrogen');
    const sentences = JSON.stringify([told.reading.headline, told.plan.lime, told.plan.verdicts]);
    expect(sentences).not.toMatch(/grass|turf|moss|seeding|undefined/);
  });
});

describe('the climate of a place', () => {
  it('is its own before a class, turns about south of the equator, and is never assumed', () => {
    expect(climateOf({})).toBeUndefined();
    for (const climate of climateNames) {
      const [north, south] = [climateOf({ climate, latitude: 46 })!, climateOf({ climate, latitude: -46 })!];
      expect([...south.low.slice(6), ...south.low.slice(0, 6)]).toEqual(north.low);
      expect(north.madeUp && north.basis.includes('made-up')).toBe(true);
      expect(north.low.every((low, month) => low < north.high[month]!)).toBe(true);
    }
    const normals = {
      low: Array<number>(12).fill(5),
      high: Array<number>(12).fill(15),
      rain: Array<number>(12).fill(60),
      source: 'Station 12',
    };
    expect(climateOf({ climate: climateNames[0], normals })).toMatchObject({
      madeUp: false,
      basis: 'Own normals: Station 12',
    });
    expect(() => climateOf({ normals: { ...normals, low: normals.high.map(() => 20) } })).toThrow(
      /above the mean high/,
    );
    expect(() => climateOf({ climate: 'balmy' })).toThrow(/balmy/);
  });

  it('tells when grass can grow: best at its own warmth', () => {
    // Gelernter & Stowell: 1 at 20 °C for cool-season, at 31 °C for warm-season grass.
    const at = (mean: number) => ({ low: Array<number>(12).fill(mean - 5), high: Array<number>(12).fill(mean + 5) });
    expect(growthByMonth(at(20), 'cool')[0]).toBeCloseTo(1, 9);
    expect(growthByMonth(at(31), 'warm')[0]).toBeCloseTo(1, 9);
    expect(growthByMonth(at(9), 'cool')[0]).toBeCloseTo(Math.exp(-0.5 * 4), 9);
  });
});
