import fc from 'fast-check';
import {
  convert,
  drainagePercolation,
  findGrass,
  grassNames,
  limeAdamsEvans,
  limeSmp,
  nitrogenAnnual,
  nitrogenPass,
  nitrogenSchedule,
  productBalance,
  requirementMinimumLevel,
  requirementSufficiency,
  seedQuantity,
  soilBulkDensity,
  sulfurRequirement,
  swardOf,
} from '../src/index.ts';
import { limeAlreadyDown } from '../src/ledger/alreadyDown.ts';
import { correctionRules } from '../src/nutrients/correction.ts';
import { nitrogenCredits } from '../src/nutrients/nitrogenTables.ts';
import { targetOf } from '../src/nutrients/target.ts';
import { freeCarbonate } from '../src/reading/carbonate.ts';
import { phDegree } from '../src/reading/degrees.ts';

const double = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const grass = fc.constantFrom(...grassNames);
const surface = fc.constantFrom('turf', 'fine turf', 'seedbed');
const ph = double(4, 9);
const pounds = (grams: number): number => convert(grams, 'g/m2', 'lb/1000ft2');

describe('whether a pH is corrected, and where to', () => {
  it('never leads out of the band by itself, and never past the soil’s own pH', () => {
    fc.assert(
      fc.property(grass, ph, fc.constantFrom(...correctionRules), fc.option(double(4, 9)), (name, at, rule, own) => {
        const sward = swardOf({ grass: name });
        const [low, high] = sward.ph;
        const { aim, way, ruleWords, aimWords } = targetOf(sward, at, rule, own === null ? undefined : { aim: own });
        expect(aim).toBeGreaterThanOrEqual(low - 1e-9);
        expect(aim).toBeLessThanOrEqual(high + 1e-9);
        if (way === 'raise') expect(aim).toBeGreaterThan(at);
        if (way === 'lower') expect(aim).toBeLessThan(at);
        expect(ruleWords).toMatch(/^Rule: .*\.$|^The pH is at the aim/);
        // An aim that is moved or not followed is always told.
        if (own !== null && (own < low - 1e-9 || own > high + 1e-9)) expect(aimWords).toMatch(/outside/);
      }),
    );
  });

  it('follows an aim outside the band only for a reason, and then tells the risk', () => {
    const sward = swardOf({ grass: 'centipedegrass' });
    expect(targetOf(sward, 5.3, 'outside the band', { aim: 6.8 })).toMatchObject({ way: 'none' });
    const obeyed = targetOf(sward, 4.6, 'outside the band', { aim: 6.8, reason: 'roses beside it' });
    expect(obeyed).toMatchObject({ way: 'raise', aim: 6.8 });
    expect(obeyed.aimWords).toMatch(/“roses beside it”.*iron/);
    expect(targetOf(sward, 4.6, 'outside the band', { aim: 6.8, reason: '  ' }).aim).toBe(sward.ph[1]);
  });

  it('tells what an aim inside the band would take, where the rule leaves the soil as it is', () => {
    const sward = swardOf({ grass: 'tall fescue' });
    const left = targetOf(sward, 5.6, 'outside the band', { aim: 6.8 });
    expect([left.way, left.aimWords]).toEqual([
      'none',
      expect.stringMatching(/says where to, not whether.*To the aim/),
    ]);
    expect(targetOf(sward, 5.6, 'to the aim', { aim: 6.8 })).toMatchObject({ way: 'raise', aim: 6.8, aimWords: null });
  });

  it('reads a mix by the band that suits its parts, and says so', () => {
    const mix = [
      { grass: 'tall fescue', share: 60 },
      { grass: 'kentucky bluegrass', share: 40 },
    ];
    const { ph: band, nitrogen, notes } = swardOf({ grass: 'tall fescue', mix });
    const [tall, blue] = mix.map((part) => findGrass(part.grass));
    expect(band).toEqual([Math.max(tall!.ph[0], blue!.ph[0]), Math.min(tall!.ph[1], blue!.ph[1])]);
    expect(nitrogen[0]).toBeCloseTo(0.6 * tall!.nitrogen[0] + 0.4 * blue!.nitrogen[0], 9);
    expect(notes.join(' ')).toMatch(/read by its parts/);
  });

  it('lies lower on peat, for every grass', () => {
    fc.assert(
      fc.property(grass, double(20, 90), (name, organicMatter) => {
        const [mineral, peat] = [swardOf({ grass: name }), swardOf({ grass: name }, organicMatter)];
        expect(peat.organicSoil).toBe(true);
        expect(peat.aim).toBeLessThanOrEqual(5.5);
        expect(peat.ph[0]).toBeLessThanOrEqual(Math.max(mineral.ph[0], 5));
      }),
    );
  });
});

describe('words by degree', () => {
  const order = [null, 'small', 'clear', 'severe'];
  it('grow with the distance from the band, on either side', () => {
    fc.assert(
      fc.property(ph, ph, (one, other) => {
        const band = [6, 7] as const;
        const off = (at: number): number => Math.max(6 - at, at - 7, 0);
        const [near, far] = off(one) <= off(other) ? [one, other] : [other, one];
        // The two sides have bounds of their own beyond a clear miss.
        fc.pre(near < 6 === far < 6);
        expect(order.indexOf(phDegree(near, band))).toBeLessThanOrEqual(order.indexOf(phDegree(far, band)));
      }),
    );
  });

  it.each([
    [5.9, 'small'],
    [5.4, 'clear'],
    [4.8, 'severe'],
    [7.1, 'small'],
    [6.0, null],
    [8.3, 'severe'],
  ])('pH %d against 6.0–7.0', (at, degree) => expect(phDegree(at, [6, 7])).toBe(degree));

  it('free carbonate is never assumed where a drop of acid has answered', () => {
    fc.assert(
      fc.property(ph, (at) => {
        expect(freeCarbonate(at, { fizz: 'none' }, 'very high').state).toBe('absent');
        expect(freeCarbonate(at, { fizz: 'strong' }).state).toBe('present');
        expect(freeCarbonate(at, { fizz: 'none', carbonate: 3 }).state).toBe('present');
      }),
    );
    expect(freeCarbonate(7.9).state).toBe('unknown');
    expect(freeCarbonate(6.4).state).toBe('absent');
  });
});

describe('nitrogen', () => {
  it('goes down in passes within both caps, in the fewest that do', () => {
    fc.assert(
      fc.property(
        surface,
        double(0, 50),
        double(1, 60),
        fc.constantFrom(0, 30, 49, 50, 90, 100),
        (on, annual, n, slow) => {
          const { passes, perPass, rate } = nitrogenPass({
            product: { nitrogen: n, slow },
            surface: on,
            annual,
          }).result;
          const most = on === 'fine turf' ? 0.75 : on === 'turf' && slow >= 50 ? 1.5 : 1;
          expect(pounds(perPass)).toBeLessThanOrEqual(most * 1.0011);
          expect(pounds(perPass * (1 - slow / 100))).toBeLessThanOrEqual((on === 'fine turf' ? 0.5 : 1) * 1.0011);
          expect(perPass * passes).toBeCloseTo(annual, 6);
          expect((rate * n) / 100).toBeCloseTo(perPass, 6);
          if (pounds(annual) > 3.01) expect(passes).toBeGreaterThanOrEqual(3);
        },
      ),
    );
  });

  it('is never all saved by credits, and never above the range of its grass', () => {
    fc.assert(
      fc.property(
        grass,
        fc.constantFrom('low', 'medium', 'high'),
        fc.constantFrom('full sun', 'part', 'deep'),
        fc.constantFrom('returned', 'removed'),
        double(0, 19.9),
        (name, intensity, shade, clippings, organicMatter) => {
          const { annual } = nitrogenAnnual({ grass: name, intensity, shade, clippings, organicMatter }).result;
          const [low, high] = findGrass(name).nitrogen;
          expect(pounds(annual)).toBeLessThanOrEqual(high * 1.001);
          // Half of what is left of the least after shade, at worst.
          const lit = { 'full sun': 1, part: nitrogenCredits.shade.part, deep: nitrogenCredits.shade.deep }[shade];
          expect(pounds(annual)).toBeGreaterThanOrEqual(0.5 * low * lit * 0.999);
        },
      ),
    );
  });

  it('is never put into a month in which nothing grows', () => {
    const temperature = fc.array(double(-20, 38), { minLength: 12, maxLength: 12 });
    fc.assert(
      fc.property(
        double(1, 40),
        fc.constantFrom('cool', 'warm'),
        temperature,
        double(1, 10),
        (annual, season, warm, cap) => {
          const grows = [...warm.slice(1), 22];
          const { months, growthPotential, unplaced } = nitrogenSchedule({
            annual,
            season,
            monthlyTemperature: grows,
            cap,
          }).result;
          expect(months.reduce((sum, month) => sum + month, 0) + unplaced).toBeCloseTo(annual, 6);
          const fair = growthPotential.reduce((sum, potential) => sum + potential, 0);
          months.forEach((month, index) => {
            expect(month).toBeLessThanOrEqual(cap * (1 + 1e-9));
            if (growthPotential[index]! < 0.2)
              expect(month).toBeLessThanOrEqual((annual * growthPotential[index]!) / fair + 1e-9);
          });
        },
      ),
    );
  });
});

it('what products bring is the sum of what each brings, and over or under but never both', () => {
  const product = fc.record({
    rate: double(0, 100),
    n: double(0, 30),
    p: double(0, 30),
    k: double(0, 30),
    soluble: double(0, 100),
  });
  fc.assert(
    fc.property(fc.array(product, { maxLength: 5 }), double(0.1, 20), double(0.1, 20), (list, one, other) => {
      const need = { min: Math.min(one, other), max: Math.max(one, other) };
      const { supplied, solubleN, over, under } = productBalance({
        products: list.map(({ rate, n, p, k, soluble }, index) => ({
          name: `Product ${index}`,
          rate,
          analysis: { n, p2o5: p, k2o: k },
          solubleN: soluble,
        })),
        need: { n: need, p2o5: need, k2o: need },
      }).result;
      expect(supplied.p2o5).toBeCloseTo(
        list.reduce((sum, { rate, p }) => sum + (rate * p) / 100, 0),
        6,
      );
      expect(solubleN).toBeLessThanOrEqual(supplied.n + 1e-9);
      for (const nutrient of ['n', 'p2o5', 'k2o'] as const) {
        expect(over.includes(nutrient) && under.includes(nutrient)).toBe(false);
        if (supplied[nutrient] > need.max * 1.001) expect(over).toContain(nutrient);
        if (supplied[nutrient] < need.min * 0.999) expect(under).toContain(nutrient);
      }
    }),
  );
});

describe('lime', () => {
  it('already down is never counted as more than was put down, and less the longer it lay before the sample', () => {
    const day = fc
      .integer({ min: 0, max: 3000 })
      .map((days) => new Date(Date.UTC(2020, 0, 1) + days * 86_400_000).toISOString().slice(0, 10));
    fc.assert(
      fc.property(day, day, day, double(1, 500), double(10, 120), (sampled, one, other, rate, cce) => {
        const left = (on: string): number => limeAlreadyDown([{ kind: 'lime', on, rate, cce }], sampled, 'us').pure;
        const [earlier, later] = [one, other].sort();
        expect(left(later!)).toBeLessThanOrEqual((rate * cce) / 100 + 1e-9);
        expect(left(earlier!)).toBeLessThanOrEqual(left(later!) + 1e-9);
      }),
    );
  });

  it('without an amount or a day is said, not subtracted', () => {
    const lime = { kind: 'lime', on: '2026-04' } as const;
    for (const [applied, sampled] of [
      [lime, '2026-03-01'],
      [{ ...lime, rate: 100 }, undefined],
    ] as const) {
      const { pure, words } = limeAlreadyDown([applied], sampled, 'us');
      expect(pure).toBe(0);
      expect(words.join(' ')).toMatch(/is not taken off/);
    }
    expect(limeAlreadyDown([{ ...lime, kind: 'sulfur', rate: 100 }], '2026-03-01', 'us')).toMatchObject({
      pure: 0,
      words: [],
    });
  });

  it('weighs less where organic matter makes the soil light, and so does what a slice is short of', () => {
    const { bulkDensity: peat } = soilBulkDensity({ organicMatter: 25 }).result;
    const { bulkDensity: mineral } = soilBulkDensity({ organicMatter: 3 }).result;
    // By hand: 100 / (25 / 0.244 + 75 / 1.64) and 100 / (3 / 0.244 + 97 / 1.64).
    expect([peat, mineral]).toEqual([expect.closeTo(0.675, 3), expect.closeTo(1.4, 2)]);
    const short = (density: number): number =>
      requirementMinimumLevel({ nutrient: 'k', test: 20, nitrogen: 0, bulkDensity: density }).result.requirement;
    expect(short(peat) / short(mineral)).toBeCloseTo(peat / mineral, 9);
  });

  it('falls with a higher buffer and rises with depth', () => {
    fc.assert(
      fc.property(
        double(4.5, 5.9),
        double(5.4, 6.6),
        double(0.05, 0.5),
        double(5, 20),
        (soilPh, buffer, step, depth) => {
          const smp = (bufferPh: number, deep: number): number =>
            limeSmp({ soilPh, bufferPh, targetPh: 6.5, depth: deep }).result.requirement;
          expect(smp(buffer + step, depth)).toBeLessThanOrEqual(smp(buffer, depth) + 1e-6);
          expect(smp(buffer, depth + 1)).toBeGreaterThanOrEqual(smp(buffer, depth) - 1e-6);
        },
      ),
    );
    const adams = (targetPh: number): number =>
      limeAdamsEvans({ soilPh: 5.2, bufferPh: 7.6, targetPh, depth: 15 }).result.requirement;
    expect(adams(6)).toBeLessThan(adams(6.5));
  });
});

describe('sulfur', () => {
  it('grows with the fall wanted, smoothly through 6.5', () => {
    fc.assert(
      fc.property(
        double(5.5, 8.4),
        double(0.05, 1),
        fc.constantFrom('sand', 'loam', 'clay'),
        (from, fall, soilGroup) => {
          const need = (soilPh: number, targetPh: number): number =>
            sulfurRequirement({ soilPh, targetPh: Math.max(4.6, targetPh), soilGroup, depth: 15 }).result.requirement;
          expect(need(from, from - fall)).toBeLessThanOrEqual(need(from, from - fall - 0.1) + 1e-9);
          const [whole, parts] = [need(from, 5), need(from, 6.5) + need(Math.min(from, 6.5), 5)];
          expect(whole).toBeCloseTo(parts, 6);
        },
      ),
    );
  });
});

it('phosphorus and potassium are dosed less the less the grass takes', () => {
  const dose = (nutrient: 'p' | 'k', name: string): number =>
    requirementSufficiency({ nutrient, rating: 'low', established: true, grass: name }).result.requirement;
  for (const nutrient of ['p', 'k'] as const)
    expect(dose(nutrient, 'centipedegrass')).toBeLessThan(dose(nutrient, 'bermudagrass'));
});

it('a hole over a pan is judged by the pan, not by its mean', () => {
  const at = [
    [0, 0],
    [45, 6.9],
    [90, 12.7],
    [180, 14.1],
    [360, 14.9],
    [720, 15],
  ];
  const { result } = drainagePercolation({
    readings: at.map(([time, depthBelowStick]) => ({ time: time!, depthBelowStick: depthBelowStick! })),
    holeDepth: 30,
  });
  const slowest = Math.min(...result.layers.map(({ permeability }) => permeability));
  expect(slowest).toBeLessThan(result.layers[0]!.permeability / 3);
  expect(result.verdict).toMatch(/slow/);
});

it('better seed than ordinary needs less, worse needs more, and no label changes nothing', () => {
  const total = (label: object): number =>
    seedQuantity({ area: 100, mix: [{ species: 'tall fescue', share: 100 }], purpose: 'new', ...label }).result.total;
  expect(total({ purity: 99, germination: 95 })).toBeLessThan(total({ purity: 80, germination: 70 }));
  expect(total({ purity: 80, germination: 70 })).toBeGreaterThan(total({}));
});
