import fc from 'fast-check';
import {
  InputError,
  type DrawnGeometry,
  checkGeometry,
  featureKinds,
  geometryTypes,
  isExclusion,
} from '../src/index.ts';
import { Plane } from '../src/geometry/plane.ts';
import { cornersOf, endsOf, findFaults, pathOf, perMetreWithin, placedIn } from '../src/geometry/index.ts';

const plane = new Plane([-36, 46.5]);
const place = fc
  .tuple(fc.double({ min: -400, max: 400, noNaN: true }), fc.double({ min: -400, max: 400, noNaN: true }))
  .map((point) => [...plane.toMap(point)]);
const square = (east: number, north: number, side: number): Extract<DrawnGeometry, { type: 'Polygon' }> => ({
  type: 'Polygon',
  coordinates: [
    [
      [0, 0],
      [side, 0],
      [side, side],
      [0, side],
      [0, 0],
    ].map(([x = 0, y = 0]) => [...plane.toMap([east + x, north + y])]),
  ],
});
const drawn: Readonly<Record<DrawnGeometry['type'], fc.Arbitrary<DrawnGeometry>>> = {
  Point: place.map((coordinates) => ({ type: 'Point', coordinates })),
  LineString: fc
    .array(place, { minLength: 2, maxLength: 9 })
    .map((coordinates) => ({ type: 'LineString', coordinates })),
  Polygon: fc.double({ min: 1, max: 90, noNaN: true }).map((side) => square(0, 0, side)),
  MultiPolygon: fc.double({ min: 1, max: 90, noNaN: true }).map((side) => ({
    type: 'MultiPolygon',
    coordinates: [square(0, 0, side), square(200, 0, side)].map((one) => one.coordinates),
  })),
};
const kinds = ['zone', ...featureKinds] as const;
const any = fc.constantFrom(...(Object.keys(drawn) as Array<DrawnGeometry['type']>)).chain((type) => drawn[type]);

it('each kind is drawn in its own types of geometry and in no other', () => {
  fc.assert(
    fc.property(fc.constantFrom(...kinds), any, (kind, geometry) => {
      const check = (): void => checkGeometry(geometry, kind, 'outline');
      if (geometryTypes(kind).includes(geometry.type)) expect(check).not.toThrow();
      else expect(check).toThrow(/wanted a GeoJSON/);
    }),
  );
  expect(featureKinds.filter(isExclusion).every((kind) => geometryTypes(kind).includes('MultiPolygon'))).toBe(true);
});

it('whatever is sent ends in a geometry or in a refusal that names the place in it', () => {
  const spoilt = fc.tuple(any, fc.jsonValue()).map(([{ type }, coordinates]) => ({ type, coordinates }));
  fc.assert(
    fc.property(fc.constantFrom(...kinds), fc.oneof(fc.jsonValue(), spoilt), (kind, raw) => {
      try {
        checkGeometry(raw, kind, 'outline');
      } catch (error) {
        expect(error).toBeInstanceOf(InputError);
        expect((error as InputError).field).toMatch(/^outline/);
      }
    }),
    { numRuns: 500 },
  );
  const far = { type: 'Point', coordinates: [46.5, 136] };
  expect(() => checkGeometry(far, 'tap', 'outline')).toThrow(/within ±180 and ±90/);
});

it('faults of many zones are those of each with its neighbours', () => {
  // A row that shares borders, but for one overlap of 2 m and one sliver of 0.2 m.
  const row = [0, 10, 18, 28, 38.2, 48.2].map((east, index) => square(east, 0, index === 5 ? 9 : 10));
  const found = findFaults(row).map(({ kind, zones, area }) => [kind, [...zones].sort(), Math.round(area)]);
  expect(found).toEqual([
    ['overlap', [1, 2], 20],
    ['gap', [3, 4], 2],
  ]);
});

describe('a drawing fitted into its box', () => {
  const box = { x: 20, y: 74, width: 500, height: 300 };
  const anything = fc.oneof(...Object.values(drawn));

  it('holds every corner, true to one scale, north up and the middle in the middle', () => {
    fc.assert(
      fc.property(fc.array(anything, { minLength: 1, maxLength: 6 }), (geometries) => {
        const points = geometries.flatMap(cornersOf).map((corner) => plane.toPlane(corner));
        const ends = endsOf(points);
        const perMetre = perMetreWithin(ends, box, 4);
        const at = placedIn(ends, box, perMetre);
        const placed = points.map(at);
        for (const [x, y] of placed) {
          expect(x).toBeGreaterThan(box.x - 1e-6);
          expect(x).toBeLessThan(box.x + box.width + 1e-6);
          expect(y).toBeGreaterThan(box.y - 1e-6);
          expect(y).toBeLessThan(box.y + box.height + 1e-6);
        }
        const [[x0, y0], [east0, north0]] = [placed[0]!, points[0]!];
        for (const [index, [east, north]] of points.entries()) {
          expect(placed[index]![0] - x0).toBeCloseTo((east - east0) * perMetre, 6);
          expect(y0 - placed[index]![1]).toBeCloseTo((north - north0) * perMetre, 6);
        }
        const on = endsOf(placed.map(([x, y]) => [x, y]));
        expect((on.west + on.east) / 2).toBeCloseTo(box.x + box.width / 2, 6);
        expect((on.south + on.north) / 2).toBeCloseTo(box.y + box.height / 2, 6);
      }),
    );
  });

  it('has a path through the same corners, closed where it has an inside', () => {
    fc.assert(
      fc.property(anything, (geometry) => {
        const path = pathOf(geometry, (position) => plane.toPlane(position));
        const through = [...path.matchAll(/[^MLZ]+/g)].map(([pair]) => pair.split(' ').map(Number));
        const corners = geometry.type === 'Point' ? [] : cornersOf(geometry).map((corner) => plane.toPlane(corner));
        expect(through).toHaveLength(corners.length);
        for (const [index, [x = 0, y = 0]] of through.entries())
          expect(Math.hypot(x - corners[index]![0], y - corners[index]![1])).toBeLessThan(0.01);
        const rings = geometry.type === 'Polygon' ? 1 : geometry.type === 'MultiPolygon' ? 2 : 0;
        expect(path.split('Z').length - 1).toBe(rings);
      }),
    );
  });
});
