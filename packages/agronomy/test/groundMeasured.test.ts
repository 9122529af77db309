import fc from 'fast-check';
import { paceLength } from '../src/ground/pace.ts';
import { areaShape, shapeCorners } from '../src/ground/shapes.ts';
import { troubleCauses, troubleRules } from '../src/trouble/trouble.ts';
import {
  type Fix,
  type GroundThing,
  type Match,
  type Outline,
  Plane,
  GeometryError,
  type PlanePoint,
  type SpotHeight,
  areaOf,
  divisions,
  earthwork,
  fallOf,
  fitImage,
  noisyWalk,
  placeOf,
  slopeBreak,
  surroundings,
  walkedArea,
} from '../src/geometry/index.ts';

const double = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const plane = new Plane([-36, 46.5]);
const ringOf = (corners: readonly PlanePoint[]): Outline => {
  const ring = corners.map((corner) => [...plane.toMap(corner)]);
  return { type: 'Polygon', coordinates: [[...ring, ring[0]!]] };
};
const box = (west: number, south: number, east: number, north: number): Outline =>
  ringOf([[west, south], [east, south], [east, north], [west, north]]); // prettier-ignore
/** Twice the signed area of a flat ring, by the trapezium rule (the surveyor's formula). */
const shoelace = (ring: readonly PlanePoint[]): number =>
  ring.reduce((sum, [x, y], index) => {
    const [u, v] = ring[(index + 1) % ring.length]!;
    return sum + x * v - u * y;
  }, 0);

describe('taped shapes', () => {
  const length = double(2, 120);
  const share = double(0.1, 0.9);
  const shapes = fc.oneof(
    fc.tuple(length, length).map(([a, b]) => ['rectangle', { length: a, width: b }] as const),
    fc.tuple(length, length, share).map(([a, b, at]) => {
      // Any third side between the difference and the sum of the others closes.
      const third = Math.abs(a - b) + at * (a + b - Math.abs(a - b));
      return ['triangle', { sideA: a, sideB: b, sideC: third }] as const;
    }),
    fc
      .tuple(length, length, share, share)
      .map(([a, b, p, q]) => ['l', { length: a, width: b, cutLength: a * p, cutWidth: b * q }] as const),
    length.map((across) => ['circle', { across }] as const),
    fc
      .tuple(length, length, length)
      .map(([a, b, c]) => ['trapezium', { parallelOne: a, parallelTwo: b, between: c }] as const),
    fc.tuple(length, length, share, length, share).map(([a, b, p, c, q]) => {
      const diagonal = Math.abs(a - b) + p * (a + b - Math.abs(a - b));
      const d = Math.abs(diagonal - c) + q * (diagonal + c - Math.abs(diagonal - c));
      return ['four sides', { sideA: a, sideB: b, sideC: c, sideD: d, diagonal }] as const;
    }),
  );

  it('enclose the area that is told, laid out on a sheet', () => {
    fc.assert(
      fc.property(shapes, ([shape, lengths]) => {
        const { area, uncertainty } = areaShape({ shape, ...lengths }).result;
        const drawn = shoelace(shapeCorners(shape, lengths)) / 2;
        expect(Math.abs(drawn - area)).toBeLessThan(1e-6 * area + 1e-6);
        expect(uncertainty).toBeGreaterThan(0);
      }),
    );
  });

  it('are the same in paces as in the lengths of those paces', () => {
    fc.assert(
      fc.property(length, length, double(0.5, 1.1), (across, along, pace) => {
        const paced = areaShape({ shape: 'rectangle', length: along / pace, width: across / pace, pace }).result;
        expect(paced.area).toBeCloseTo(along * across, 6);
        expect(paced.uncertainty / paced.area).toBeCloseTo(0.05 * Math.SQRT2, 6);
      }),
    );
    const { pace, spread } = paceLength({
      walks: [20, 20, 20].map((distance, index) => ({ distance, paces: 25 + index })),
    }).result;
    expect(pace).toBeCloseTo(60 / 78, 6);
    expect(spread).toBeGreaterThan(3);
  });
});

describe('a walked boundary', () => {
  const lawn = fc.tuple(
    fc.integer({ min: 1, max: 1e9 }),
    fc.array(double(16, 32), { minLength: 5, maxLength: 9 }).map((radii) =>
      radii.map((radius, index): PlanePoint => {
        const angle = (2 * Math.PI * index) / radii.length;
        return [radius * Math.cos(angle), radius * Math.sin(angle)];
      }),
    ),
  );
  const walk = (corners: readonly PlanePoint[], seed: number): Fix[] =>
    noisyWalk(corners.map((corner) => plane.toMap(corner)), { seed }); // prettier-ignore

  it('holds the true area within its uncertainty, mostly, and is not far off', () => {
    const lawns = fc.sample(lawn, { numRuns: 120, seed: 11 });
    const told = lawns.flatMap(([seed, corners]) => {
      try {
        const { area, uncertainty } = walkedArea(walk(corners, seed));
        return [{ truth: shoelace(corners) / 2, area, uncertainty }];
      } catch (error) {
        if (error instanceof GeometryError) return [];
        throw error;
      }
    });
    expect(told.length).toBeGreaterThan(110);
    const held = told.filter(({ truth, area, uncertainty }) => Math.abs(area - truth) <= uncertainty);
    expect(held.length / told.length).toBeGreaterThan(0.9);
    const off = told.map(({ truth, area }) => area / truth - 1);
    expect(Math.abs(off.reduce((sum, value) => sum + value, 0) / off.length)).toBeLessThan(0.03);
    // An uncertainty that says nothing would hold everything.
    const widths = told.map(({ area, uncertainty }) => uncertainty / area).sort((one, other) => one - other);
    expect(widths[Math.floor(widths.length / 2)]!).toBeLessThan(0.35);
  });

  it.each<readonly [what: string, says: RegExp, make: (good: Fix[]) => Fix[]]>([
    ['nothing', /Nothing was recorded/, () => []],
    ['bad fixes', /good enough/, (good) => good.map((fix) => ({ ...fix, accuracy: 60 }))],
    ['half a walk', /Walk on to the start/, (good) => good.slice(0, good.length / 2)],
    ['standing still', /tape/i, (good) => good.map((fix) => ({ ...fix, position: good[0]!.position }))],
  ])('that is %s makes no area', (_what, says, make) => {
    const good = walk([[0, 0], [40, 0], [40, 30], [0, 30]], 3); // prettier-ignore
    expect(() => walkedArea(make(good))).toThrow(says);
  });

  it('that crosses itself makes no area', () => {
    const eight = walk([[0, 0], [60, 40], [60, 0], [0, 40]], 5); // prettier-ignore
    expect(() => walkedArea(eight)).toThrow(/crosses its own path/);
  });
});

describe('an image under the plan', () => {
  it('lies where two or more matching points put it', () => {
    fc.assert(
      fc.property(
        double(0.01, 2),
        double(-3.1, 3.1),
        double(-500, 500),
        fc.uniqueArray(fc.tuple(fc.integer({ min: 0, max: 30 }), fc.integer({ min: 0, max: 20 })), {
          minLength: 2,
          maxLength: 6,
          selector: String,
        }),
        (metresPerPixel, turn, shift, pixels) => {
          const truth = { metresPerPixel, turn, origin: [shift, -shift / 2] as const, miss: 0 };
          const matches = pixels.map(([x, y]): Match => {
            const pixel = [x * 40, y * 40] as const;
            return { pixel, place: placeOf(truth, pixel) };
          });
          const found = fitImage(matches);
          expect(found.metresPerPixel).toBeCloseTo(metresPerPixel, 8);
          expect(found.miss).toBeLessThan(1e-6);
          const [east, north] = placeOf(found, [777, 333]);
          const [wantedEast, wantedNorth] = placeOf(truth, [777, 333]);
          expect(Math.hypot(east - wantedEast, north - wantedNorth)).toBeLessThan(1e-5);
        },
      ),
    );
    expect(() => fitImage([{ pixel: [0, 0], place: [0, 0] }])).toThrow(/second/);
  });
});

describe('spot heights', () => {
  const grid = [0, 10, 20, 30].flatMap((east) => [0, 10, 20].map((north): PlanePoint => [east, north]));
  const taken = (height: (point: PlanePoint) => number): SpotHeight[] =>
    grid.map((point) => ({ position: plane.toMap(point), height: height(point) }));

  it('tell the fall of an even plane, and that it holds no water', () => {
    fc.assert(
      fc.property(double(0.3, 20), double(0, 359.9), double(-50, 400), (slope, aspect, level) => {
        const radians = (aspect * Math.PI) / 180;
        const [east, north] = [Math.sin(radians), Math.cos(radians)];
        const heights = taken(([x, y]) => level - (slope / 100) * (x * east + y * north));
        const fall = fallOf(heights);
        expect(fall.slope).toBeCloseTo(slope, 2);
        expect(Math.abs(((fall.aspect - aspect + 540) % 360) - 180)).toBeLessThan(0.1);
        expect(fall.hollows).toEqual([]);
        // Graded as it lies already, nothing is moved.
        const { cut, fill } = earthwork(box(0, 0, 30, 20), heights, { fall: slope, toward: aspect });
        expect(cut + fill).toBeLessThan(0.5);
      }),
    );
  });

  it('find the hollow, how deep water stands in it, and the soil that fills it', () => {
    const at: PlanePoint = [10, 10];
    const heights = taken(([x, y]) => (x === at[0] && y === at[1] ? 4.7 : 5));
    const { hollows } = fallOf(heights);
    expect(hollows).toHaveLength(1);
    expect(hollows[0]!.depth).toBeCloseTo(30, 6);
    // A pyramid over the triangles about the spot: a third of their area times the depth.
    const { fill, cut } = earthwork(box(0, 0, 30, 20), heights, { fall: 0, toward: 0, level: 5 });
    expect(cut).toBeLessThan(1e-6);
    expect(fill).toBeGreaterThan((0.3 * 200) / 3 - 2);
    expect(fill).toBeLessThan((0.3 * 400) / 3 + 2);
    const balanced = earthwork(box(0, 0, 30, 20), heights, { fall: 0, toward: 0 });
    expect(balanced.cut).toBeCloseTo(balanced.fill, 1);
  });

  it('find where a bank begins, and say nothing of an even fall', () => {
    const bank = taken(([x]) => (x <= 10 ? 5 : 5 - 0.25 * (x - 10)));
    const found = slopeBreak(bank);
    expect(found!.difference).toBeGreaterThan(15);
    const [[east]] = found!.line.map((end) => plane.toPlane(end)) as [PlanePoint];
    expect(east).toBeGreaterThan(5);
    expect(east).toBeLessThan(20);
    expect(slopeBreak(taken(([x]) => 5 - 0.1 * x))).toBeUndefined();
  });
});

describe('where one zone should be two', () => {
  const lawn = box(0, 0, 40, 20);
  const tree: GroundThing = {
    id: 'tree',
    kind: 'tree',
    geometry: { type: 'Point', coordinates: [...plane.toMap([20, 10])] },
    canopyRadius: 5,
  };
  const house: GroundThing = {
    id: 'house',
    kind: 'building',
    geometry: { type: 'Polygon', coordinates: box(0, -10, 40, 0).coordinates as number[][][] },
    height: 4,
  };

  it('parts off the canopy, the shade of a wall and the strip along it, to the square metre', () => {
    const found = divisions(lawn, [tree, house], []);
    const by = (why: string) => found.find((entry) => entry.why === why)!;
    expect(by('canopy').area).toBeCloseTo(Math.PI * 25, 0);
    // 4 m high at 46.5° N: 4 × tan 46.5° of shade to the north at noon of an equinox.
    expect(by('shade').area).toBeCloseTo(40 * 4 * Math.tan((46.5 * Math.PI) / 180), 0);
    expect(by('paved edge').area).toBeCloseTo(40 * 0.6, 0);
    for (const { parted } of found) expect(areaOf(parted.part) + areaOf(parted.rest)).toBeCloseTo(areaOf(lawn), 0);
    expect(surroundings(lawn, [tree, house])).toEqual({
      canopy: expect.closeTo((100 * Math.PI * 25) / 800, 0) as number,
      paved: expect.closeTo(40.6, 0) as number,
    });
    expect(divisions(lawn, [{ ...house, height: null, geometry: { ...house.geometry, type: 'Polygon', coordinates: box(100, 0, 110, 9).coordinates as number[][][] } }], [])).toEqual([]); // prettier-ignore
  });
});

describe('likely causes', () => {
  const known = troubleRules.signs.map(({ name }) => name);

  it('are named only where a sign points at them, and every sign points at some', () => {
    for (const sign of known) {
      const { causes } = troubleCauses({ signs: [sign] }).result;
      expect(causes.length).toBeGreaterThan(0);
      for (const cause of causes) {
        expect(cause.for.length).toBeGreaterThan(0);
        expect(cause.check.what).not.toBe('');
      }
    }
  });

  it('add up from their evidence, and more evidence against never raises one', () => {
    const facts = { shade: 'full sun', ph: 6.4, phBelow: -0.9, probeStop: 40, thatch: 0.5, slope: 1 } as const;
    fc.assert(
      fc.property(fc.subarray(known, { minLength: 1 }), (signs) => {
        const without = troubleCauses({ signs }).result.causes;
        const { causes } = troubleCauses({ signs, facts }).result;
        for (const { cause, points, for: pro, against } of causes) {
          expect(points).toBe([...pro, ...against].reduce((sum, piece) => sum + piece.points, 0));
          const before = without.find((entry) => entry.cause === cause)!;
          if (pro.length === before.for.length) expect(points).toBeLessThanOrEqual(before.points);
        }
        expect(causes.map(({ points }) => points)).toEqual(causes.map(({ points }) => points).sort((a, b) => b - a));
      }),
    );
  });
});
