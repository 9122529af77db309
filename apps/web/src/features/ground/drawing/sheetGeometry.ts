import type { DrawingAnswer } from '@glenfold/contract';
import { type DrawnGeometry, measureRing } from '@glenfold/agronomy';
import type { Plane, Position } from '@glenfold/agronomy/geometry';
import { type Geometry, LineString, MultiPolygon, Point, Polygon } from 'ol/geom.js';

export interface Measure {
  /** m² */
  readonly area?: number;
  /** m of border, or of the line. */
  readonly length: number;
}

/** A geometry of the plan as it lies on the sheet. */
export function toSheet(plane: Plane, geometry: DrawnGeometry): Geometry {
  const at = ([longitude = 0, latitude = 0]: readonly number[]): number[] => [...plane.toPlane([longitude, latitude])];
  switch (geometry.type) {
    case 'Point':
      return new Point(at(geometry.coordinates));
    case 'LineString':
      return new LineString(geometry.coordinates.map(at));
    case 'Polygon':
      return new Polygon(geometry.coordinates.map((ring) => ring.map(at)));
    case 'MultiPolygon':
      return new MultiPolygon(geometry.coordinates.map((part) => part.map((ring) => ring.map(at))));
  }
}

/** What was drawn on the sheet, in WGS84. @throws for shapes that no pen here draws */
export function toMap(plane: Plane, geometry: Geometry): DrawnGeometry {
  const at = ([east = 0, north = 0]: readonly number[]): number[] => [...plane.toMap([east, north])];
  if (geometry instanceof Point) return { type: 'Point', coordinates: at(geometry.getCoordinates()) };
  if (geometry instanceof LineString) return { type: 'LineString', coordinates: geometry.getCoordinates().map(at) };
  if (geometry instanceof Polygon)
    return { type: 'Polygon', coordinates: geometry.getCoordinates().map((ring) => ring.map(at)) };
  if (geometry instanceof MultiPolygon)
    return {
      type: 'MultiPolygon',
      coordinates: geometry.getCoordinates().map((part) => part.map((ring) => ring.map(at))),
    };
  throw new Error('A geometry that is not drawn here.');
}

/** Area and border on the ellipsoid, while the pen moves; nothing while there is no inside yet. */
export function measureDrawn(plane: Plane, geometry: Geometry): Measure | undefined {
  if (geometry instanceof LineString) return { length: geometry.getLength() };
  const drawn = toMap(plane, geometry);
  const rings =
    drawn.type === 'Polygon' ? drawn.coordinates : drawn.type === 'MultiPolygon' ? drawn.coordinates.flat() : [];
  const [outer, ...holes] = rings.filter((ring) => ring.length >= 4).map((ring) => measureRing(ring));
  if (!outer) return undefined;
  return { area: holes.reduce((area, hole) => area - hole.area, outer.area), length: outer.perimeter };
}

/**
 * A place on the plan to lay the sheet's origin at: where something is drawn, else where the site lies. What is drawn
 * first lands there, and the seasons of the place follow from it.
 */
export function originOf(
  { zones, features }: Pick<DrawingAnswer, 'zones' | 'features'>,
  position: readonly number[] | null | undefined,
): Position {
  const geometry = [...zones, ...features].find((entry) => entry.geometry)?.geometry;
  const [longitude, latitude] = geometry?.coordinates.flat(3) ?? position ?? [];
  return longitude === undefined || latitude === undefined ? [0, 0] : [longitude, latitude];
}
