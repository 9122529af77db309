import { polygonArea } from '../src/index.ts';

describe('polygon area', () => {
  const square = (size: number, latitude: number, longitude = -36) => [
    [longitude, latitude],
    [longitude + size, latitude],
    [longitude + size, latitude + size],
    [longitude, latitude + size],
    [longitude, latitude],
  ];

  // A cell this small is its middle strip: (Δφ·M)·(Δλ·N·cos φ), with M and N the radii of curvature of WGS84.
  function cell(size: number, latitude: number): number {
    const e2 = 0.00669437999014;
    const phi = ((latitude + size / 2) * Math.PI) / 180;
    const bend = 1 - e2 * Math.sin(phi) ** 2;
    const meridian = (6378137 * (1 - e2)) / bend ** 1.5;
    const normal = 6378137 / Math.sqrt(bend);
    return meridian * normal * Math.cos(phi) * ((size * Math.PI) / 180) ** 2;
  }

  it.each([0, 30, 46.5, 60])('agrees with the ellipsoid at %d°', (latitude) => {
    expect(polygonArea([square(0.001, latitude)]) / cell(0.001, latitude)).toBeCloseTo(1, 5);
  });

  it('takes holes away and minds no direction', () => {
    const outer = square(0.001, 46.5);
    const hole = square(0.0004, 46.5003, -35.9997);
    expect(polygonArea([outer, hole])).toBeCloseTo(polygonArea([outer]) - polygonArea([hole]), 3);
    expect(polygonArea([[...outer].reverse()])).toBeCloseTo(polygonArea([outer]), 6);
    expect(() =>
      polygonArea([
        [
          [0, 0],
          [1, 1],
          [0, 0],
        ],
      ]),
    ).toThrow(RangeError);
  });
});
