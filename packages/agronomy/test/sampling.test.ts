import fc from 'fast-check';
import { InputError } from '../src/calculators/fields.ts';
import {
  type Outline,
  Plane,
  GeometryError,
  type PlanePoint,
  areaOf,
  chanceFrom,
  contains,
} from '../src/geometry/index.ts';
import { bagCode, readBagCode, writeBagCode } from '../src/sampling/bagCode.ts';
import { type SampledZone, apartBecause, proposeComposites, toAsk } from '../src/sampling/composites.ts';
import { corePush, probeStop } from '../src/sampling/corePush.ts';
import { samplingCoreCount } from '../src/sampling/cores.ts';
import { coreErrors, coresToFill, depthAdvice } from '../src/sampling/design.ts';
import { panelNames, pointDesigns, samplingTables } from '../src/sampling/designTables.ts';
import {
  coringGround,
  corePlaces,
  meanSquaredShortestDistance,
  nearestNeighbourTour,
  shortestWalk,
  spanningTreeLength,
  tourLength,
} from '../src/sampling/index.ts';
import { equalStrata } from '../src/sampling/strata.ts';
import { samplingTiming, seasonOf } from '../src/sampling/timing.ts';

const plane = new Plane([-36, 46.5]);
const ringOf = (corners: readonly PlanePoint[]): Outline => {
  const ring = corners.map((corner) => [...plane.toMap(corner)]);
  return { type: 'Polygon', coordinates: [[...ring, ring[0]!]] };
};
const signs = '23456789ABCDEFGHJKMNPQRSTUVWXYZ';
const seeds = fc.integer({ min: 0, max: 2 ** 31 });

describe('a bag’s code', () => {
  it('reads as it was made, however it is typed', () => {
    fc.assert(
      fc.property(seeds, (seed) => {
        const code = bagCode(chanceFrom(seed));
        expect(readBagCode(` ${writeBagCode(code).toLowerCase()} `)).toBe(code);
      }),
    );
  });

  it('is refused with any one sign wrong, and with any two signs changed about', () => {
    fc.assert(
      fc.property(seeds, fc.nat(5), fc.nat(5), fc.nat(30), (seed, one, other, sign) => {
        const code = bagCode(chanceFrom(seed));
        const wrong = [...code];
        wrong[one] = signs[sign]!;
        const swapped = [...code];
        [swapped[one], swapped[other]] = [code[other]!, code[one]!];
        for (const typed of [wrong.join(''), swapped.join('')])
          if (typed !== code) expect(() => readBagCode(typed)).toThrow(/mistyped/);
      }),
      { numRuns: 1000 },
    );
  });

  it('says what is wrong with what cannot be one', () => {
    expect(() => readBagCode('K0F-4Q2')).toThrow(/“0”, which is in no code/);
    expect(() => readBagCode('K7F')).toThrow(InputError);
  });
});

/** An L-shaped lawn with a bed in it and a cable across. */
const lawn = (long: number, wide: number, arm: number): Outline =>
  ringOf([[0, 0], [long, 0], [long, wide], [arm, wide], [arm, 2 * wide], [0, 2 * wide]]); // prettier-ignore
const size = fc.record({
  long: fc.integer({ min: 14, max: 90 }),
  wide: fc.integer({ min: 8, max: 40 }),
  share: fc.double({ min: 0.35, max: 0.8, noNaN: true }),
});

it('strata hold as many cells as one another, and no two cells would both lie nearer if they changed places', () => {
  fc.assert(
    fc.property(fc.integer({ min: 2, max: 9 }), fc.integer({ min: 30, max: 120 }), seeds, (count, cells, seed) => {
      const chance = chanceFrom(seed);
      const middles = Array.from({ length: cells }, (): PlanePoint => [60 * chance(), 30 * chance()]);
      const strata = equalStrata(middles, count, chance);
      const sizes = strata.map((stratum) => stratum.cells.length);
      expect(Math.max(...sizes) - Math.min(...sizes)).toBeLessThanOrEqual(1);
      expect(strata.flatMap((stratum) => stratum.cells).sort((one, other) => one - other)).toEqual([...middles.keys()]);
      // Each is about its own cells: nowhere else do they lie nearer on the whole.
      for (const { middle, cells: own } of strata) {
        const far = (about: PlanePoint): number =>
          own.reduce((sum, cell) => sum + (middles[cell]![0] - about[0]) ** 2 + (middles[cell]![1] - about[1]) ** 2, 0);
        for (const [east, north] of [
          [0.5, 0],
          [-0.5, 0],
          [0, 0.5],
          [0, -0.5],
        ] as const)
          // prettier-ignore
          expect(far(middle)).toBeLessThan(far([middle[0] + east, middle[1] + north]));
      }
    }),
    { numRuns: 60 },
  );
});

describe('places to push the probe', () => {
  it('are as many as wanted, inside the edges, off the bed and away from the line; the same seed gives the same', () => {
    fc.assert(
      fc.property(
        size,
        fc.constantFrom(...pointDesigns),
        fc.integer({ min: 5, max: 20 }),
        seeds,
        (lawnSize, design, count, seed) => {
          const { long, wide, share } = lawnSize;
          const outline = lawn(long, wide, long * share);
          const bed = ringOf([[2, 2], [4, 2], [4, 4], [2, 4]]); // prettier-ignore
          const line = [plane.toMap([long * 0.7, -5]), plane.toMap([long * 0.7, 2 * wide + 5])];
          const ground = coringGround({ outline, exclusions: [bed], lines: [line], edge: 0.6, clear: 1 });
          const places = corePlaces(ground, count, design, seed);
          expect(places).toHaveLength(count);
          expect(new Set(places.map(String)).size).toBe(count);
          expect(corePlaces(ground, count, design, seed)).toEqual(places);
          for (const place of places) {
            const [x, y] = plane.toPlane(place);
            expect(contains(outline, place)).toBe(true);
            expect(Math.abs(x - long * 0.7)).toBeGreaterThan(0.99);
            expect(Math.min(x, y)).toBeGreaterThan(0.59);
            expect(Math.hypot(Math.max(2 - x, 0, x - 4), Math.max(2 - y, 0, y - 4))).toBeGreaterThan(0.57);
          }
        },
      ),
      { numRuns: 30 },
    );
  });

  it('cover the ground better than chance does', () => {
    const ground = lawn(60, 30, 25);
    const spread = (design: 'coverage' | 'random', seed: number): number =>
      meanSquaredShortestDistance(ground, corePlaces(ground, 15, design, seed));
    const mean = (design: 'coverage' | 'random'): number =>
      [1, 2, 3, 4, 5, 6].reduce((sum, seed) => sum + spread(design, seed), 0) / 6;
    // Even squares would leave area / (6 · n) on average: nothing of one size covers better by much.
    const ideal = areaOf(ground) / 15 / 6;
    expect(mean('coverage')).toBeLessThan(0.7 * mean('random'));
    expect(mean('coverage')).toBeLessThan(1.35 * ideal);
    expect(mean('coverage')).toBeGreaterThan(0.95 * ideal);
  });

  it('of a pair: the bad half lies about the trouble, the healthy well away from it', () => {
    fc.assert(
      fc.property(
        fc.tuple(fc.integer({ min: 6, max: 34 }), fc.integer({ min: 6, max: 14 })),
        fc.integer({ min: 2, max: 4 }),
        (spot, reach) => {
          // prettier-ignore
          const free = { outline: lawn(60, 30, 40), exclusions: [], lines: [], edge: 0.5, clear: 1 };
          const places = [plane.toMap(spot)];
          const away = (part: 'bad' | 'healthy'): number[] =>
            corePlaces(coringGround({ ...free, about: { places, reach, part } }), 8, 'coverage', 1).map((place) => {
              const [x, y] = plane.toPlane(place);
              return Math.hypot(x - spot[0], y - spot[1]);
            });
          expect(Math.max(...away('bad'))).toBeLessThan(reach + 0.01);
          expect(Math.min(...away('healthy'))).toBeGreaterThan(1.98 * reach);
        },
      ),
      { numRuns: 20 },
    );
    const small = { outline: ringOf([[0, 0], [9, 0], [9, 9], [0, 9]]), exclusions: [], lines: [], edge: 0.5, clear: 1 }; // prettier-ignore
    const about = { places: [plane.toMap([4, 4])], reach: 4 };
    expect(() => coringGround({ ...small, about: { ...about, part: 'healthy' } })).toThrow(/No healthy ground is left/);
    const outside = { places: [plane.toMap([40, 4])], reach: 4, part: 'bad' } as const;
    expect(() => coringGround({ ...small, about: outside })).toThrow(/Where the trouble is marked nothing/);
  });

  it('are refused in words where the zone is too small or too narrow', () => {
    const strip = ringOf([[0, 0], [30, 0], [30, 1.5], [0, 1.5]]); // prettier-ignore
    const free = { exclusions: [], lines: [], clear: 1 };
    expect(() => coringGround({ ...free, outline: strip, edge: 1 })).toThrow(
      /too narrow to keep that far from its edges/,
    );
    const tiny = coringGround({ ...free, outline: ringOf([[0, 0], [3, 0], [3, 3], [0, 3]]), edge: 1 }); // prettier-ignore
    expect(() => corePlaces(tiny, 20, 'coverage', 1)).toThrow(GeometryError);
  });
});

describe('the walk', () => {
  const points = fc.array(
    fc.tuple(fc.double({ min: 0, max: 200, noNaN: true }), fc.double({ min: 0, max: 200, noNaN: true })),
    {
      minLength: 1,
      maxLength: 60,
    },
  );

  it('begins at the gate, comes by every core once, and is no longer than by the nearest each time', () => {
    fc.assert(
      fc.property(points, (all) => {
        const order = shortestWalk(all);
        expect(order[0]).toBe(0);
        expect([...order].sort((one, other) => one - other)).toEqual([...all.keys()]);
        const length = tourLength(all, order);
        expect(length).toBeLessThanOrEqual(tourLength(all, nearestNeighbourTour(all)) + 1e-6);
        expect(length).toBeGreaterThanOrEqual(spanningTreeLength(all) - 1e-6);
      }),
    );
  });

  it('finds the way round a ring, in whatever order its points are told', () => {
    const chance = chanceFrom(5);
    const ring = Array.from({ length: 40 }, (_, at): PlanePoint => [
      50 * Math.cos((at * Math.PI) / 20),
      50 * Math.sin((at * Math.PI) / 20),
    ]);
    const told = ring
      .map((point) => ({ point, by: chance() }))
      .sort((one, other) => one.by - other.by)
      .map(({ point }) => point);
    expect(tourLength(told, shortestWalk(told))).toBeCloseTo(40 * 100 * Math.sin(Math.PI / 40), 6);
  });
});

const zone = (name: string, more: Partial<SampledZone> = {}): SampledZone => ({
  id: name,
  name,
  grass: 'tall fescue',
  surface: 'turf',
  intensity: 'medium',
  shade: 'full sun',
  clippings: 'returned',
  watering: 'none',
  soil: 'loam',
  layers: [],
  applied: [],
  signs: [],
  ...more,
});

it('only zones alike in everything share a bag; trouble and what is not known stand alone', () => {
  const zones = [
    zone('A'),
    zone('B'),
    zone('Bank', { shade: 'deep shade', applied: ['lime 2025'] }),
    zone('Mossy', { signs: ['moss'] }),
    zone('Mossy too', { signs: ['moss'] }),
    zone('Unknown', { soil: undefined }),
  ];
  const composites = proposeComposites(zones);
  expect(composites.map((composite) => composite.zones.map(({ name }) => name))).toEqual([
    ['A', 'B'],
    ['Bank'],
    ['Mossy'],
    ['Mossy too'],
    ['Unknown'],
  ]);
  expect(composites[1]!.why).toMatch(/differs even from A, most like it, by what was put down, light/);
  expect(composites[2]!.why).toMatch(/shows moss/);
  expect(apartBecause(zones[0]!, zones[5]!)).toEqual(['soil known of one only']);
});

it('two fresh zones of which little is known share a bag, and what is not known of either is told', () => {
  const fresh = (name: string): SampledZone => zone(name, { soil: undefined, watering: undefined });
  const [bag, ...others] = proposeComposites([fresh('front'), fresh('back')]);
  expect([bag!.zones.length, others.length]).toEqual([2, 0]);
  expect(bag!.why).toMatch(/nothing that is known of them differs.*Not known of any: soil, watering\./);
  expect(apartBecause(fresh('front'), { ...fresh('back'), watering: 'none' })).toEqual(['watering known of one only']);
  // What alone keeps two apart is asked once; of a zone that differs anyway it is not asked.
  const asked = toAsk([fresh('front'), { ...fresh('back'), watering: 'none' }, { ...fresh('bed'), grass: 'moss' }]);
  expect(asked).toEqual([{ words: 'watering', of: [{ id: 'front', name: 'front' }] }]);
});

it('zones whose last tests want other rates are not mixed, by one extractant only', () => {
  const tested = (name: string, last: SampledZone['last']): SampledZone => ({ ...zone(name), last });
  const front = tested('front', { soilPh: 6.1, extractant: 'mehlich-3', p: 14, k: 90 });
  const back = { soilPh: 6.4, extractant: 'mehlich-3', p: 30, k: 120 };
  expect(apartBecause(front, tested('back', back))).toEqual(['P of the last tests, 14 and 30 mg/kg']);
  expect(apartBecause(front, tested('back', { ...back, extractant: 'olsen', soilPh: 6.6 }))).toEqual(['pH of the last tests, 6.1 and 6.6']); // prettier-ignore
  expect(apartBecause(front, tested('back', { ...back, p: 27 }))).toEqual([]);
  expect(apartBecause(front, tested('back', undefined))).toEqual([]);
});

it('so many cores are proposed that they fill the bag, and one less would not', () => {
  const size = fc.record({
    bag: fc.integer({ min: 100, max: 2000 }),
    diameter: fc.double({ min: 1, max: 6, noNaN: true }),
    depth: fc.double({ min: 5, max: 30, noNaN: true }),
  });
  fc.assert(
    fc.property(size, ({ bag, diameter, depth }) => {
      const cores = coresToFill(bag, diameter, depth);
      const volume = (count: number): number => count * Math.PI * (diameter / 2) ** 2 * depth;
      expect(volume(cores)).toBeGreaterThanOrEqual(bag * (1 - 1e-9));
      expect(volume(cores - 1)).toBeLessThan(bag);
    }),
  );
});

it('the day: wet and frost stop it, lime and another season put it off', () => {
  const day = { on: '2026-10-14', latitude: 46.5, applied: [], tested: ['2023-10-20'] };
  expect(samplingTiming(day)).toEqual([]);
  expect(samplingTiming({ ...day, soil: 'wet' })[0]).toMatchObject({ weight: 'stop' });
  const limed = samplingTiming({ ...day, applied: [{ kind: 'lime', on: '2026-09-01' }] });
  expect(limed).toEqual([
    expect.objectContaining({
      weight: 'wait',
      words: expect.stringMatching(/6 of 13 weeks.*From 2026-12-01 on/) as string,
    }),
  ]);
  // Past the least, and short of what is better.
  expect(samplingTiming({ ...day, applied: [{ kind: 'lime', on: '2026-06-01' }] })).toEqual([
    expect.objectContaining({ weight: 'note', words: expect.stringMatching(/26 weeks are better/) as string }),
  ]);
  // Only the year is remembered: the latest it can have been is counted.
  expect(samplingTiming({ ...day, applied: [{ kind: 'lime', on: '2026' }] })).toHaveLength(1);
  expect(samplingTiming({ ...day, applied: [{ kind: 'lime', on: '2025' }] })).toEqual([]);
  expect(samplingTiming({ ...day, on: '2026-04-14' })[0]!.words).toMatch(
    /in autumn \(2023-10-20\).*spring will not compare/,
  );
  expect([seasonOf('2026-10-14', 46), seasonOf('2026-10-14', -30), seasonOf('2026-12-01', 46)]).toEqual([
    'autumn',
    'spring',
    'winter',
  ]);
});

it('the error that cores leave is the one that the calculator of cores asks for', () => {
  for (const { analyte, cv } of samplingTables.variation) {
    const margin = coreErrors(15).find((error) => error.analyte === analyte)!.margin;
    expect(samplingCoreCount({ area: 500, cv, margin }).result).toMatchObject({ cores: 15 });
  }
  expect(samplingTables.questions.flatMap(({ panels }) => panels).every((panel) => panelNames.includes(panel))).toBe(
    true,
  );
});

it('a depth is held against the laboratory’s own, and against the last test’s', () => {
  const laboratory = { name: 'The station', depths: [{ for: 'lawns', from: 9.5, to: 10.5 }] };
  expect(depthAdvice(10.16, 'routine', 10, 'us', laboratory)).toEqual([]);
  expect(depthAdvice(15.24, 'routine', 15, 'us', laboratory)).toEqual([
    expect.stringMatching(/^The station is not calibrated for 6 in, only for 4 in for lawns/),
  ]);
  expect(depthAdvice(15.24, 'routine', 10, 'metric')).toEqual([
    expect.stringMatching(/The last test went to 10 cm: another depth reads other soil/),
  ]);
});

it('a push that stops reads compaction, a short core out of soft ground a jammed tube', () => {
  expect(corePush(15, 15, 14).finding).toBe('whole');
  expect(corePush(15, 8, 8).finding).toBe('stopped');
  expect(corePush(15, 15, 7)).toMatchObject({
    finding: 'short',
    words: expect.stringMatching(/cooking oil/) as string,
  });
  const pushes = [8, 9, 15, 10].map((pushed) => ({ pushed, recovered: pushed }));
  expect(probeStop(15, pushes)).toBe(9);
  expect(probeStop(15, pushes.slice(1))).toBeUndefined();
});

it('a site of forty zones of twenty cores is walked well short of the nearest each time', () => {
  const chance = chanceFrom(11);
  const cores = Array.from({ length: 801 }, (): PlanePoint => [chance() * 400, chance() * 400]);
  const length = tourLength(cores, shortestWalk(cores));
  expect(length).toBeLessThan(0.88 * tourLength(cores, nearestNeighbourTour(cores)));
  expect(length).toBeLessThan(1.25 * spanningTreeLength(cores));
});
