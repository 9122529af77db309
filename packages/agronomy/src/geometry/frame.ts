import type { DrawnGeometry } from '../ground/features.ts';
import type { PlanePoint, Position } from './plane.ts';

/** Ends of a piece of ground, m on its plane. */
export interface Ends {
  readonly west: number;
  readonly south: number;
  readonly east: number;
  readonly north: number;
}

/** Where a drawing may be, in its own units, y downward. */
export interface Box {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** Ends of the points; of nothing, the origin. */
export function endsOf(points: readonly PlanePoint[]): Ends {
  const along = (axis: 0 | 1, pick: 'min' | 'max'): number =>
    points.reduce((end, point) => Math[pick](end, point[axis]), points[0]?.[axis] ?? 0);
  return { west: along(0, 'min'), south: along(1, 'min'), east: along(0, 'max'), north: along(1, 'max') };
}

/** Units of the drawing to a metre, so that all of it is within the box; ground less than `least` m wide is not blown up. */
export function perMetreWithin({ west, south, east, north }: Ends, { width, height }: Box, least = 0): number {
  return Math.min(width / Math.max(least, east - west), height / Math.max(least, north - south));
}

/** Where points of the plane stand on the drawing: north up, the middle of the ground in the middle of the box. */
export function placedIn({ west, south, east, north }: Ends, { x, y, width, height }: Box, perMetre: number) {
  return ([toEast, toNorth]: PlanePoint): readonly [x: number, y: number] => [
    x + width / 2 + (toEast - (west + east) / 2) * perMetre,
    y + height / 2 - (toNorth - (south + north) / 2) * perMetre,
  ];
}

/** Every corner of a geometry. */
export function cornersOf({ coordinates }: DrawnGeometry): Position[] {
  const flat = (coordinates as unknown[]).flat(3) as number[];
  return Array.from({ length: flat.length / 2 }, (_, index) => [flat[2 * index]!, flat[2 * index + 1]!] as const);
}

/**
 * A geometry as the path data of SVG: outlines closed, lines open; nothing of a single place.
 *
 * @param at where a position stands on the drawing; told to a hundredth of its unit
 */
export function pathOf(geometry: DrawnGeometry, at: (position: Position) => readonly [x: number, y: number]): string {
  const round = (value: number): number => Math.round(value * 100) / 100;
  const line = (positions: ReadonlyArray<readonly number[]>): string =>
    `M${positions.map(([longitude = 0, latitude = 0]) => at([longitude, latitude]).map(round).join(' ')).join('L')}`;
  const outline = (rings: ReadonlyArray<ReadonlyArray<readonly number[]>>): string =>
    rings.map((ring) => `${line(ring)}Z`).join('');
  switch (geometry.type) {
    case 'Polygon':
      return outline(geometry.coordinates);
    case 'MultiPolygon':
      return geometry.coordinates.map(outline).join('');
    case 'LineString':
      return line(geometry.coordinates);
    case 'Point':
      return '';
  }
}
