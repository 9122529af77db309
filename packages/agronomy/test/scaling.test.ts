import fc from 'fast-check';
import { acidityNitrogen } from '../src/acidify/nitrogenAcidity.ts';
import { limeLabel } from '../src/lime/label.ts';
import { grassNames } from '../src/nutrients/grasses.ts';
import { requirementMinimumLevel } from '../src/nutrients/minimumLevel.ts';
import { organicGain } from '../src/organic/gain.ts';
import { mixBlend } from '../src/organic/mix.ts';
import { samplingCoreVolume } from '../src/sampling/cores.ts';
import { seedQuantity } from '../src/seed/seed.ts';
import { textureJar } from '../src/soil/jar.ts';
import { coringOpening, spreadCalibrate, topdressThickness } from '../src/spread/spread.ts';
import { waterEt0 } from '../src/water/et0.ts';
import { waterReserve } from '../src/water/irrigation.ts';

const double = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const factor = double(1.1, 4);

/** How an answer moves when one input is multiplied: with it (1), against it (−1), with its square (2), not at all (0). */
const laws: ReadonlyArray<
  readonly [name: string, answer: (input: object) => number, input: object, powers: Readonly<Record<string, number>>]
> = [
  [
    'sampling.coreVolume',
    (input) => samplingCoreVolume(input as never).result.volume,
    { diameter: 2, depth: 10, cores: 12 },
    { diameter: 2, depth: 1 },
  ],
  [
    'organic.gain',
    (input) => organicGain(input as never).result.gain,
    {
      thickness: 1,
      bulkDensity: 0.3,
      dryFraction: 20,
      organicFraction: 20,
      retained: 20,
      soilDepth: 10,
      soilBulkDensity: 0.5,
    },
    {
      thickness: 1,
      bulkDensity: 1,
      dryFraction: 1,
      organicFraction: 1,
      retained: 1,
      soilDepth: -1,
      soilBulkDensity: -1,
    },
  ],
  [
    'spread.calibrate',
    (input) => spreadCalibrate(input as never).result.correction,
    { testArea: 50, massUsed: 1000, target: 24 },
    { testArea: 1, massUsed: -1, target: 1 },
  ],
  [
    'coring.opening',
    (input) => coringOpening(input as never).result.volume,
    { tineDiameter: 0.5, depth: 5, spacingAlong: 5, spacingAcross: 5, passes: 1 },
    { tineDiameter: 2, depth: 1, spacingAlong: -1, spacingAcross: -1 },
  ],
  [
    'topdress.thickness',
    (input) => topdressThickness(input as never).result.thickness,
    { rate: 4000, bulkDensity: 0.5 },
    { rate: 1, bulkDensity: -1 },
  ],
  [
    'water.reserve',
    (input) => waterReserve(input as never).result.days,
    { availableWater: 0.1, rootDepth: 15, depletion: 20, et0: 4, cropFactor: 0.3 },
    { availableWater: 1, rootDepth: 1, depletion: 1, et0: -1, cropFactor: -1 },
  ],
  [
    'acidity.nitrogen',
    (input) => acidityNitrogen(input as never).result.limeEquivalent,
    { nitrogen: 10, source: 'urea' },
    { nitrogen: 1 },
  ],
  [
    'lime.label, without acidity',
    (input) => limeLabel(input as never).result.years ?? NaN,
    { requirement: 400, assumedEffectiveness: 20, labelRate: 100, effectiveness: 40 },
    { requirement: 1, assumedEffectiveness: 1, labelRate: -1, effectiveness: -1 },
  ],
];

describe.each(laws)('%s', (_name, answer, input, powers) => {
  it.each(Object.entries(powers))('goes with %s to the power %d', (field, power) => {
    fc.assert(
      fc.property(factor, (by) => {
        const changed = { ...input, [field]: (input as Record<string, number>)[field]! * by };
        expect(answer(changed) / answer(input)).toBeCloseTo(by ** power, 8);
      }),
    );
  });
});

it('a blend lies between its parts, and parts of one kind blend into that kind', () => {
  const part = fc.record({ bulkDensity: double(0.1, 1.8), cec: double(0, 200), organicMatter: double(0, 100) });
  fc.assert(
    fc.property(part, part, double(1, 99), (one, other, volume) => {
      const parts = [
        { name: 'one', volume, ...one },
        { name: 'other', volume: 100 - volume, ...other },
      ];
      const blend = mixBlend({ parts }).result;
      for (const what of ['cec', 'organicMatter', 'bulkDensity'] as const) {
        const [low, high] = [Math.min(one[what], other[what]), Math.max(one[what], other[what])];
        expect(blend[what]).toBeGreaterThanOrEqual(low - 1e-6);
        expect(blend[what]).toBeLessThanOrEqual(high + 1e-6);
        expect(mixBlend({ parts: [...parts].reverse() }).result[what]).toBeCloseTo(blend[what], 6);
        expect(mixBlend({ parts: parts.map((entry) => ({ ...entry, ...one })) }).result[what]).toBeCloseTo(
          one[what],
          6,
        );
      }
    }),
  );
});

it('evapotranspiration is never negative, grows with warmth, and the hemispheres trade half a year', () => {
  fc.assert(
    fc.property(
      double(-66, 66),
      fc.integer({ min: 1, max: 182 }),
      double(-20, 35),
      double(0, 20),
      (latitude, dayOfYear, tMin, range) => {
        const et0 = (at: number, day: number, low: number, high: number): number =>
          waterEt0({ latitude: at, dayOfYear: day, tMin: low, tMax: high }).result.et0;
        const value = et0(latitude, dayOfYear, tMin, tMin + range);
        expect(value).toBeGreaterThanOrEqual(0);
        expect(et0(latitude, dayOfYear, tMin + 1, tMin + 1 + range)).toBeGreaterThanOrEqual(value - 1e-6);
        // The orbit is not quite round: the sun is up to 3.3 % nearer or farther half a year on.
        const radiation = (at: number, day: number): number =>
          waterEt0({ latitude: at, dayOfYear: day, tMin: 10, tMax: 20 }).result.radiation;
        expect(Math.abs(radiation(latitude, dayOfYear) - radiation(-latitude, dayOfYear + 182.5 - 0.5))).toBeLessThan(
          4,
        );
      },
    ),
  );
});

it('what keeps a minimum level is never negative, falls with the test and grows with the nitrogen', () => {
  const nutrient = fc.constantFrom('k', 'p', 'ca', 'mg', 's');
  fc.assert(
    fc.property(nutrient, double(0, 500), double(0, 40), double(0.1, 20), (name, test, nitrogen, more) => {
      const requirement = (level: number, feed: number): number =>
        requirementMinimumLevel({ nutrient: name, test: level, nitrogen: feed }).result.requirement;
      const now = requirement(test, nitrogen);
      expect(now).toBeGreaterThanOrEqual(0);
      expect(requirement(test + more, nitrogen)).toBeLessThanOrEqual(now);
      expect(requirement(test, nitrogen + more)).toBeGreaterThanOrEqual(now);
    }),
  );
});

it('seed goes with the area, more for new ground than for overseeding, and every grass has a rate or a reason', () => {
  for (const species of grassNames) {
    const seed = (area: number, purpose: string): number =>
      seedQuantity({ area, mix: [{ species, share: 100 }], purpose }).result.total;
    if (species === 'st augustinegrass') expect(() => seed(100, 'new')).toThrow(/sod, plugs or sprigs/);
    else {
      expect(seed(200, 'new') / seed(100, 'new')).toBeCloseTo(2, 9);
      expect(seed(100, 'new')).toBeGreaterThan(seed(100, 'overseed'));
    }
  }
});

it('shares of a jar add to 100 whatever its height', () => {
  fc.assert(
    fc.property(double(0, 20), double(0, 20), double(0.1, 20), factor, (sandHeight, siltHeight, clayHeight, by) => {
      const jar = textureJar({ sandHeight, siltHeight, clayHeight }).result;
      expect(jar.sand + jar.silt + jar.clay).toBeCloseTo(100, 9);
      const taller = { sandHeight: sandHeight * by, siltHeight: siltHeight * by, clayHeight: clayHeight * by };
      expect(textureJar(taller).result.sand).toBeCloseTo(jar.sand, 9);
    }),
  );
});
