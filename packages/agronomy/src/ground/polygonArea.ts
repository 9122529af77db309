import geodesic from 'geographiclib-geodesic';

/** Rings of [longitude, latitude], outer first, then holes (RFC 7946). */
export type PolygonRings = readonly (readonly (readonly number[])[])[];

/**
 * Area of a WGS84 polygon less its holes, on the ellipsoid.
 *
 * @returns m², never negative whichever way the rings run.
 * @throws {RangeError} for a ring of fewer than three corners.
 * @see Karney (2013), J. Geodesy 87:43–55
 */
export function polygonArea(rings: PolygonRings): number {
  const [outer, ...holes] = rings.map((ring) => measureRing(ring).area);
  if (outer === undefined) throw new RangeError('A polygon needs an outer ring.');
  return Math.max(0, outer - holes.reduce((sum, hole) => sum + hole, 0));
}

/** Area m² and length m of a ring on the ellipsoid. @throws {RangeError} for fewer than three corners. */
export function measureRing(ring: readonly (readonly number[])[]): {
  readonly area: number;
  readonly perimeter: number;
} {
  const first = ring[0];
  const last = ring.at(-1);
  const closed = first !== undefined && first[0] === last?.[0] && first[1] === last?.[1];
  const corners = closed ? ring.slice(0, -1) : ring;
  if (corners.length < 3) throw new RangeError('A ring needs at least three corners.');
  const polygon = geodesic.Geodesic.WGS84.Polygon(false);
  for (const [longitude, latitude] of corners) {
    if (longitude === undefined || latitude === undefined || Math.abs(latitude) > 90)
      throw new RangeError('Corners are [longitude, latitude] in degrees.');
    polygon.AddPoint(latitude, longitude);
  }
  const { area, perimeter } = polygon.Compute(false, true);
  return { area: Math.abs(area ?? 0), perimeter };
}
