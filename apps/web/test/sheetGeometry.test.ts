import type { ZoneAnswer } from '@glenfold/contract';
import { type DrawnGeometry, polygonArea } from '@glenfold/agronomy';
import { Plane, type PlanePoint } from '@glenfold/agronomy/geometry';
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { GeometryCollection, LineString } from 'ol/geom.js';
import { gridStep } from '../src/features/ground/drawing/paper.ts';
import { measureDrawn, originOf, toMap, toSheet } from '../src/features/ground/drawing/sheetGeometry.ts';

const plane = new Plane([-36, 46.5]);
const metres = fc.double({ min: -400, max: 400, noNaN: true });
const corner = fc.tuple(metres, metres);
const onMap = (points: ReadonlyArray<readonly [number, number]>): number[][] =>
  points.map((point) => [...plane.toMap(point)]);
/** A ring about a middle: no two of its sides cross. */
const ring = fc
  .tuple(corner, fc.array(fc.double({ min: 2, max: 40, noNaN: true }), { minLength: 3, maxLength: 12 }))
  .map(([[east, north], reaches]): PlanePoint[] => {
    const points = reaches.map((reach, index): PlanePoint => {
      const turn = (2 * Math.PI * index) / reaches.length;
      return [east + reach * Math.cos(turn), north + reach * Math.sin(turn)];
    });
    return [...points, points[0]!];
  });

describe('what lies on the sheet', () => {
  const geometry: fc.Arbitrary<DrawnGeometry> = fc.oneof(
    corner.map((point): DrawnGeometry => ({ type: 'Point', coordinates: onMap([point])[0]! })),
    fc.array(corner, { minLength: 2, maxLength: 9 }).map((points): DrawnGeometry => ({ type: 'LineString', coordinates: onMap(points) })), // prettier-ignore
    ring.map((points): DrawnGeometry => ({ type: 'Polygon', coordinates: [onMap(points)] })),
    fc.array(ring, { minLength: 2, maxLength: 3 }).map((rings): DrawnGeometry => ({ type: 'MultiPolygon', coordinates: rings.map((points) => [onMap(points)]) })), // prettier-ignore
  );

  it('comes back to where it was on the map, to a hair', () => {
    fc.assert(
      fc.property(geometry, (given) => {
        const back = toMap(plane, toSheet(plane, given));
        expect(back.type).toBe(given.type);
        const flat = (of: DrawnGeometry): number[] => (of.coordinates as unknown[]).flat(3) as number[];
        const there = flat(given);
        for (const [index, degree] of flat(back).entries()) expect(Math.abs(degree - there[index]!)).toBeLessThan(1e-9);
      }),
    );
  });

  it('measures as the core does on the ellipsoid, and as long as it is drawn', () => {
    fc.assert(
      fc.property(ring, (points) => {
        const outline = { type: 'Polygon' as const, coordinates: [onMap(points)] };
        const { area, length } = measureDrawn(plane, toSheet(plane, outline))!;
        expect(area).toBeCloseTo(polygonArea(outline.coordinates), 6);
        const way = points.slice(1).reduce((sum, [x, y], index) => sum + Math.hypot(x - points[index]![0], y - points[index]![1]), 0); // prettier-ignore
        expect(length / way).toBeCloseTo(1, 3);
      }),
    );
  });

  it('has no inside before its third corner, and no pen here draws a collection', () => {
    expect(measureDrawn(plane, new LineString([[0, 0], [3, 4]]))).toEqual({ length: 5 }); // prettier-ignore
    expect(measureDrawn(plane, toSheet(plane, { type: 'Polygon', coordinates: [onMap([[0, 0], [3, 4], [0, 0]])] }))).toBeUndefined(); // prettier-ignore
    expect(() => toMap(plane, new GeometryCollection([]))).toThrow('A geometry that is not drawn here.');
  });
});

it('the grid has whole metres or feet, a finger’s breadth apart at every zoom', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0.002, max: 20, noNaN: true }),
      fc.constantFrom('metric' as const, 'us' as const),
      (resolution, system) => {
        // prettier-ignore
        const step = gridStep(resolution, system);
        const pixels = step / resolution;
        expect(pixels).toBeGreaterThan(12);
        expect(pixels).toBeLessThan(300);
        const inUnits = step / (system === 'us' ? 0.3048 : 1);
        const mantissa = inUnits / 10 ** Math.floor(Math.log10(inUnits) + 1e-9);
        expect([1, 2, 2.5, 5].some((even) => Math.abs(mantissa - even) < 1e-6)).toBe(true);
      },
    ),
  );
});

it('the first thing that is drawn lands where the site lies, and later ones beside what is drawn', () => {
  expect(originOf({ zones: [], features: [] }, [-36.1, 46.5])).toEqual([-36.1, 46.5]);
  const lawn = { geometry: { type: 'Polygon', coordinates: [[[-35, 46], [-35, 46.1], [-34.9, 46], [-35, 46]]] } } as unknown as ZoneAnswer; // prettier-ignore
  expect(originOf({ zones: [lawn], features: [] }, [-36.1, 46.5])).toEqual([-35, 46]);
  expect(originOf({ zones: [], features: [] }, null)).toEqual([0, 0]);
});
