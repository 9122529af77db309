import fc from 'fast-check';
import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { genericCatalogue, genericShelf } from '../bin/catalogue.ts';
import { nitrogenCredits } from '../src/nutrients/nitrogenTables.ts';
import {
  type Advice,
  InputError,
  type Product,
  type ScenarioFile,
  advise,
  convert,
  findGrass,
  isWritten,
  numbersOnly,
  planZone,
  type PlanInput,
  grassNames,
  readReport,
  runScenario,
  swardOf,
} from '../src/index.ts';

const catalogue = genericCatalogue();
const shelf = genericShelf();
const folder = join(import.meta.dirname, '../scenarios');
const files = readdirSync(folder).map((name) => JSON.parse(readFileSync(join(folder, name), 'utf8')) as ScenarioFile);
const pounds = (rate: number): number => convert(rate, 'g/m2', 'lb/1000ft2');

describe('written reports', () => {
  const all = files.flatMap(({ scenarios }) => scenarios);
  it('are at least forty', () => expect(all.length).toBeGreaterThanOrEqual(40));
  it.each(all.map((scenario) => [scenario.name, scenario] as const))('%s', (_name, scenario) =>
    expect(runScenario(scenario, catalogue, shelf)).toEqual([]),
  );
  it('a scenario that expects something else fails, in every way it can expect', () => {
    const { input } = all[0]!;
    const faults = runScenario(
      {
        name: 'wrong',
        input,
        expect: {
          'status.lime': 'none',
          'totals.lime': { max: 0 },
          limits: { not: 'acid' },
          asks: { has: 'moonlight' },
          'passes.lime': 7,
        },
        says: ['never said by anybody'],
        neverSays: ['lime'],
      },
      catalogue,
    );
    expect(faults.length).toBeGreaterThanOrEqual(7);
    expect(runScenario({ name: 'taken', input, expectError: 'grass' }, catalogue)).toHaveLength(1);
  });
});

const share = fc.double({ min: 0, max: 50, noNaN: true });
/** Products that nobody would sell among some that are common. */
const products: fc.Arbitrary<object[]> = fc
  .array(
    fc.record({
      name: fc.constant('A product'),
      purpose: fc.constantFrom('nitrogen', 'phosphorus', 'potassium'),
      analysis: fc.oneof(
        fc
          .record({ n: share, p2o5: share, k2o: fc.double({ min: 0, max: 45, noNaN: true }) })
          .map(({ n, p2o5, k2o }) => {
            const all = Math.max(1, (n + p2o5 + k2o) / 100);
            return { n: n / all, p2o5: p2o5 / all, k2o: k2o / all };
          }),
        fc.constantFrom(
          { n: 46, p2o5: 0, k2o: 0 },
          { n: 5, p2o5: 4, k2o: 0 },
          { n: 16, p2o5: 4, k2o: 8 },
          { n: 0, p2o5: 46, k2o: 0 },
          { n: 13, p2o5: 0, k2o: 44 },
          { n: 0, p2o5: 0, k2o: 22 },
          { n: 0, p2o5: 0, k2o: 60 },
        ),
      ),
      slow: fc.constantFrom(0, 30, 50, 90, 100),
      bagMass: fc.constantFrom(5, 20),
      bagPrice: fc.constantFrom(10, 30),
    }),
    { minLength: 1, maxLength: 6 },
  )
  .map((list) => [
    ...list,
    {
      name: 'Calcitic lime',
      lime: { cce: 95, passing8: 100, passing20: 90, passing60: 60 },
      bagMass: 20,
      bagPrice: 6,
    },
  ]);

const maybe = <T>(value: fc.Arbitrary<T>): fc.Arbitrary<T | undefined> => fc.option(value, { nil: undefined });
const amount = fc.oneof(
  fc.double({ min: 0, max: 400, noNaN: true }),
  fc.integer({ min: 1, max: 100 }).map((limit) => `<${limit}`),
);
const upTo = (max: number) => fc.double({ min: 0.1, max, noNaN: true });
const reports = fc.record({
  zone: fc
    .record({
      area: fc.double({ min: 5, max: 20_000, noNaN: true }),
      grass: fc.constantFrom(...grassNames),
      second: maybe(fc.constantFrom(...grassNames)),
      surface: fc.constantFrom('turf', 'fine turf', 'seedbed'),
      intensity: fc.constantFrom('low', 'medium', 'high'),
      shade: fc.constantFrom('full sun', 'part', 'deep'),
      clippings: fc.constantFrom('returned', 'removed'),
      soilGroup: maybe(fc.constantFrom('sand', 'loam', 'clay')),
      aimPh: maybe(fc.double({ min: 4.5, max: 8, noNaN: true })),
    })
    .map(({ second, grass, ...rest }) =>
      second === undefined
        ? { ...rest, grass }
        : {
            ...rest,
            mix: [
              { grass, share: 60 },
              { grass: second, share: 40 },
            ],
          },
    ),
  test: maybe(
    fc.record({
      depth: fc.double({ min: 5, max: 20, noNaN: true }),
      extractant: fc.constantFrom('mehlich-3', 'bray-1', 'olsen', 'mehlich-1', 'morgan'),
      soilPh: fc.double({ min: 3.5, max: 9, noNaN: true }),
      buffer: maybe(
        fc.record({
          method: fc.constantFrom('smp', 'mehlich', 'adams-evans'),
          ph: fc.double({ min: 4.8, max: 8, noNaN: true }),
        }),
      ),
      organicMatter: maybe(fc.double({ min: 0, max: 60, noNaN: true })),
      values: fc.record(
        {
          ...{ p: amount, k: amount, ca: amount, mg: amount },
          ...{ esp: upTo(60), cec: upTo(60), ec: upTo(20) },
        },
        { requiredKeys: [] },
      ),
    }),
  ),
  settings: fc.record({
    correct: fc.constantFrom('outside the band', 'to the aim', 'leave alone', 'toward neutral'),
    phosphorusRule: fc.constantFrom('shortage', 'none'),
    school: fc.constantFrom('sufficiency', 'minimum level'),
    units: fc.constantFrom('us', 'metric'),
  }),
  products,
});

/** What one pass may carry, lb/1000 ft², typed in once more from the field’s own rules. */
const caps = {
  turf: { n: 1.5, solubleN: 1, k2o: 1, p2o5: 1, lime: 50, limeYear: 100, sulfur: 5, gypsum: 50 },
  'fine turf': { n: 0.75, solubleN: 0.5, k2o: 0.5, p2o5: 1, lime: 25, limeYear: 50, sulfur: 0.5, gypsum: 50 },
  seedbed: { n: 1, solubleN: 1, k2o: Infinity, p2o5: Infinity, lime: 150, limeYear: 150, sulfur: 5, gypsum: Infinity },
} as const;
const SLACK = 1.0011;

describe('any report with any catalogue', () => {
  it('passes no cap, no year of its grass, and brings nothing that was not wanted', () => {
    fc.assert(
      fc.property(reports, (report) => {
        let advice: Advice;
        try {
          advice = advise(report, catalogue);
        } catch (error) {
          expect(error).toBeInstanceOf(InputError);
          return;
        }
        const { zone } = readReport(report);
        const cap = caps[zone.surface];
        for (const key of ['n', 'solubleN', 'k2o', 'p2o5', 'lime', 'sulfur', 'gypsum'] as const)
          expect([key, pounds(advice.largestPass[key])]).toEqual([
            key,
            expect.closeTo(Math.min(pounds(advice.largestPass[key]), cap[key] * SLACK), 9),
          ]);
        expect(pounds(advice.totals.lime)).toBeLessThanOrEqual(cap.limeYear * SLACK);
        const [, high] = swardOf(zone).nitrogen;
        const year = Math.min(high * nitrogenCredits.shade[zone.shade], zone.surface === 'seedbed' ? 2 : Infinity);
        expect(pounds(advice.totals.n)).toBeLessThanOrEqual(year * SLACK + 1e-9);
        if (advice.status.phosphate === 'none' || advice.status.phosphate === 'cannot say')
          expect(advice.totals.p2o5).toBe(0);
        if (advice.status.lime === 'none' || advice.status.lime === 'cannot say') expect(advice.totals.lime).toBe(0);
        // Nobody limes and acidifies one ground, and what is not due brings nothing.
        expect(advice.totals.lime * advice.totals.sulfur).toBe(0);
        for (const remedy of ['sulfur', 'gypsum', 'compost'] as const)
          if (advice.status[remedy] !== 'due') expect([remedy, advice.totals[remedy]]).toEqual([remedy, 0]);
        expect(advice.passes.gypsum).toBeLessThanOrEqual(2);
        for (const sentence of advice.sentences) expect(sentence).not.toMatch(/undefined|NaN|null|\[object/);
      }),
      { numRuns: 600 },
    );
  });

  it('has the same numbers where nothing is written for people', () => {
    /** Every number, and every word of a fixed list, by its place. */
    const leaves = (value: unknown, at = ''): string[] => {
      if (typeof value !== 'object' || value === null)
        return typeof value === 'string' && !WORDS.has(value) ? [] : [`${at} ${String(value)}`];
      return Object.entries(value).flatMap(([key, inner]) =>
        ['working', 'words', 'text', 'cautions', 'notes'].includes(key) ? [] : leaves(inner, `${at}/${key}`),
      );
    };
    const WORDS = new Set(['due', 'none', 'estimate', 'cannot say', 'low', 'medium', 'high', 'very low', 'very high']);
    fc.assert(
      fc.property(reports, (report) => {
        let input: PlanInput;
        try {
          input = { ...readReport(report), products: catalogue };
        } catch {
          return;
        }
        const whole = planZone(input);
        const quiet = numbersOnly(() => planZone(input));
        expect(leaves(quiet)).toEqual(leaves(whole));
        expect(JSON.stringify(quiet)).not.toMatch(/"kind":"step"/);
      }),
      { numRuns: 200 },
    );
    expect(isWritten()).toBe(true);
  });

  it('sells centipede and fine fescue less than the others', () => {
    const need = (grass: string) =>
      advise(
        {
          zone: { area: 100, grass, surface: 'turf', soilGroup: 'loam' },
          test: { depth: 10, extractant: 'mehlich-3', soilPh: 6, values: { p: 8, k: 40 } },
        },
        catalogue,
      ).totals;
    const [centipede, fine, tall] = ['centipedegrass', 'fine fescue', 'tall fescue'].map(need);
    for (const nutrient of ['n', 'p2o5', 'k2o'] as const) {
      expect(centipede![nutrient]).toBeLessThan(fine![nutrient]);
      expect(fine![nutrient]).toBeLessThan(tall![nutrient]);
    }
    expect(pounds(centipede!.n)).toBeLessThanOrEqual(findGrass('centipedegrass').nitrogen[1]);
  });

  it.each([
    [{ zone: { area: 100, grass: 'moss', surface: 'turf' } }, 'zone.grass'],
    [{ zone: { area: 100, surface: 'turf' } }, 'zone.grass'],
    [{ zone: { area: 100, grass: 'tall fescue', surface: 'turf', slop: 3 } }, 'zone.slop'],
    [
      { zone: { area: 100, grass: 'tall fescue', surface: 'turf' }, test: { depth: 10, soilPh: 6, values: { p: 5 } } },
      'test.extractant',
    ],
    [
      {
        zone: { area: 100, grass: 'tall fescue', surface: 'turf' },
        test: { depth: 10, extractant: 'mehlich-3', soilPh: 6, values: { p: 'much' } },
      },
      'test.values.p',
    ],
    [
      { zone: { area: 100, grass: 'tall fescue', surface: 'turf' }, measurements: [{ kind: 'mood', value: 1 }] },
      'measurements.0.kind',
    ],
    [{ zone: { area: 100, surface: 'turf', mix: [{ grass: 'tall fescue', share: 60 }] } }, 'zone.mix'],
  ])('refuses what it does not understand, by its path: %#', (report, field) => {
    expect(() => advise(report, catalogue)).toThrow(field);
  });
});

it('the catalogue of one’s own is read like the generic one', () => {
  const only: Product[] = catalogue.filter(({ purpose }) => purpose === 'lime');
  const advice = advise(
    {
      zone: { area: 100, grass: 'tall fescue', surface: 'turf' },
      test: { depth: 10, extractant: 'mehlich-3', soilPh: 6.4, values: { p: 40, k: 40 } },
    },
    only,
  );
  expect(advice.totals.n).toBe(0);
  expect(advice.sentences.join(' ')).toMatch(/Choose a product/);
});
