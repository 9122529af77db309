import type { PlanePoint } from './plane.ts';
import { GeometryError } from './outline.ts';

/** A place on an image, in pixels from its upper left corner, and the same place on the sheet, in m. */
export interface Match {
  readonly pixel: readonly [right: number, down: number];
  readonly place: PlanePoint;
}

/** How an image lies on the sheet: turned and stretched evenly, never skewed. */
export interface Placement {
  /** m on the sheet for one pixel. */
  readonly metresPerPixel: number;
  /** Radians by which the image is turned counter-clockwise. */
  readonly turn: number;
  /** Where the image's upper left corner lies. */
  readonly origin: PlanePoint;
  /** m by which the matches miss, root mean square; 0 for two matches, which always agree. */
  readonly miss: number;
}

/** Where a pixel of a placed image lies on the sheet. */
export function placeOf(
  { metresPerPixel, turn, origin }: Placement,
  [right, down]: readonly [number, number],
): PlanePoint {
  const [cos, sin] = [Math.cos(turn) * metresPerPixel, Math.sin(turn) * metresPerPixel];
  return [origin[0] + cos * right + sin * down, origin[1] + sin * right - cos * down];
}

/**
 * Lay an image on the sheet by matching points: the least-squares similarity (Umeyama 1991, without reflection).
 *
 * @throws {GeometryError} for fewer than two matches, and for matches that lie on one another.
 */
export function fitImage(matches: readonly Match[]): Placement {
  if (matches.length < 2)
    throw new GeometryError('Two matching points are needed at least: mark a second, far from the first.');
  const count = matches.length;
  const mean = (of: (match: Match) => number): number => matches.reduce((sum, match) => sum + of(match), 0) / count;
  const [right, down] = [mean(({ pixel }) => pixel[0]), mean(({ pixel }) => pixel[1])];
  const [east, north] = [mean(({ place }) => place[0]), mean(({ place }) => place[1])];
  let [spread, along, across, extent] = [0, 0, 0, 0];
  for (const { pixel, place } of matches) {
    // The image counts downward, the sheet upward.
    const [x, y] = [pixel[0] - right, down - pixel[1]];
    const [u, v] = [place[0] - east, place[1] - north];
    spread += x * x + y * y;
    extent += u * u + v * v;
    along += x * u + y * v;
    across += x * v - y * u;
  }
  if (spread < 25 * count)
    throw new GeometryError(
      'The points lie on one another on the image: mark them far apart, best at opposite corners.',
    );
  if (extent < 1e-4 * count || Math.hypot(along, across) < 1e-9)
    throw new GeometryError(
      'The points lie on one another on the plan: mark them far apart, best at opposite corners.',
    );
  const metresPerPixel = Math.hypot(along, across) / spread;
  const turn = Math.atan2(across, along);
  const still: Placement = { metresPerPixel, turn, origin: [0, 0], miss: 0 };
  const [shiftEast, shiftNorth] = placeOf(still, [right, down]);
  const placed: Placement = { ...still, origin: [east - shiftEast, north - shiftNorth] };
  const squares = matches.reduce((sum, { pixel, place }) => {
    const [x, y] = placeOf(placed, pixel);
    return sum + (x - place[0]) ** 2 + (y - place[1]) ** 2;
  }, 0);
  return { ...placed, miss: Math.sqrt(squares / count) };
}
