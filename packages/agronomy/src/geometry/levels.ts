import Delaunator from 'delaunator';
import { isInside } from '../ground/crossing.ts';
import { Plane, type PlanePoint, type Position } from './plane.ts';
import { type Outline, GeometryError, areaOf, partsOf } from './outline.ts';

/** A height that was taken at a place, m above whatever all of them are counted from. */
export interface SpotHeight {
  readonly position: Position;
  readonly height: number;
}

/** An even plane: height over the sheet. */
interface Tilt {
  /** m at the middle of the spots. */
  readonly level: number;
  /** m of rise for each m east, and north. */
  readonly east: number;
  readonly north: number;
}

export interface Hollow {
  readonly position: Position;
  /** cm of water that it holds before it runs over. */
  readonly depth: number;
}

export interface Fall {
  /** m of fall on 100 m. */
  readonly slope: number;
  /** Degrees from north toward which the ground falls. */
  readonly aspect: number;
  /** cm by which the spots stray from an even plane, root mean square. */
  readonly unevenness: number;
  /** Deepest first. */
  readonly hollows: readonly Hollow[];
  /** Whether there are spots inside enough to tell a hollow. */
  readonly tellsHollows: boolean;
}

interface Ground {
  readonly plane: Plane;
  readonly spots: ReadonlyArray<readonly [east: number, north: number, height: number]>;
  readonly middle: PlanePoint;
  readonly tilt: Tilt;
}

type Mesh = ReturnType<typeof triangulate>;
const DEGREE = Math.PI / 180;
/** Water shallower than this is dew, cm. */
const SHALLOWEST = 0.5;

/** The even plane nearest to the spots, by least squares. */
function evenPlane(spots: Ground['spots'], [east, north]: PlanePoint): Tilt {
  let [xx, xy, yy, xz, yz, z] = [0, 0, 0, 0, 0, 0];
  for (const [spotEast, spotNorth, height] of spots) {
    const [x, y] = [spotEast - east, spotNorth - north];
    xx += x * x;
    xy += x * y;
    yy += y * y;
    xz += x * height;
    yz += y * height;
    z += height;
  }
  const determinant = xx * yy - xy * xy;
  if (determinant < 1e-6 * (xx + yy) ** 2)
    throw new GeometryError('The spot heights stand on one line, or on one another: take one off to the side.');
  return {
    level: z / spots.length,
    east: (xz * yy - yz * xy) / determinant,
    north: (yz * xx - xz * xy) / determinant,
  };
}

function centreOf(spots: Ground['spots']): PlanePoint {
  const mean = (axis: 0 | 1): number => spots.reduce((sum, spot) => sum + spot[axis], 0) / spots.length;
  return [mean(0), mean(1)];
}

function groundOf(heights: readonly SpotHeight[]): Ground {
  if (heights.length < 3)
    throw new GeometryError(`${heights.length} spot heights say nothing of a fall: take three at least, spread out.`);
  const plane = new Plane(heights[0]!.position);
  const spots = heights.map(({ position, height }) => [...plane.toPlane(position), height] as const);
  const middle = centreOf(spots);
  return { plane, spots, middle, tilt: evenPlane(spots, middle) };
}

const evenHeight = ({ tilt, middle }: Ground, east: number, north: number): number =>
  tilt.level + tilt.east * (east - middle[0]) + tilt.north * (north - middle[1]);

const triangulate = (spots: Ground['spots']) => Delaunator.from(spots.map(([east, north]) => [east, north]));

/**
 * How high water stands at each spot before it finds a way out over the edge of the spots: each is filled to the lowest
 * pass on its way out (priority-flood, Barnes, Lehman & Mulla 2014, on the triangles between the spots).
 */
function waterLevels(spots: Ground['spots'], { triangles, hull }: Mesh): number[] {
  const neighbours = spots.map(() => new Set<number>());
  for (let at = 0; at < triangles.length; at += 1) {
    const next = at % 3 === 2 ? at - 2 : at + 1;
    neighbours[triangles[at]!]!.add(triangles[next]!);
    neighbours[triangles[next]!]!.add(triangles[at]!);
  }
  const levels = spots.map(() => Infinity);
  const open = new Set<number>();
  for (const edge of hull) {
    levels[edge] = spots[edge]![2];
    open.add(edge);
  }
  while (open.size > 0) {
    const lowest = [...open].reduce((one, other) => (levels[other]! < levels[one]! ? other : one));
    open.delete(lowest);
    for (const next of neighbours[lowest]!) {
      if (levels[next] !== Infinity) continue;
      levels[next] = Math.max(spots[next]![2], levels[lowest]!);
      open.add(next);
    }
  }
  return levels;
}

/**
 * Fall, evenness and hollows of ground from a few spot heights.
 *
 * @throws {GeometryError} for fewer than three spots, or spots on one line.
 */
export function fallOf(heights: readonly SpotHeight[]): Fall {
  const ground = groundOf(heights);
  const { spots, tilt } = ground;
  const strays = spots.map(([east, north, height]) => height - evenHeight(ground, east, north));
  const mesh = triangulate(spots);
  const levels = waterLevels(spots, mesh);
  const hollows = spots
    .map(([, , height], index): Hollow => ({
      position: heights[index]!.position,
      depth: 100 * (levels[index]! - height),
    }))
    .filter(({ depth }) => depth >= SHALLOWEST && Number.isFinite(depth))
    .sort((one, other) => other.depth - one.depth);
  return {
    slope: 100 * Math.hypot(tilt.east, tilt.north),
    aspect: (Math.atan2(-tilt.east, -tilt.north) / DEGREE + 360) % 360,
    unevenness: 100 * Math.sqrt(strays.reduce((sum, stray) => sum + stray ** 2, 0) / strays.length),
    hollows,
    tellsHollows: mesh.hull.length < spots.length,
  };
}

/** The even surface that is wanted. */
export interface WantedGrade {
  /** m of fall on 100 m. */
  readonly fall: number;
  /** Degrees from north toward which it is to fall. */
  readonly toward: number;
  /** m at the middle of the spots; left out, soil that is cut fills what is filled. */
  readonly level?: number | undefined;
}

export interface Earthwork {
  /** m³ in place. */
  readonly cut: number;
  readonly fill: number;
  /** cm */
  readonly deepestCut: number;
  readonly highestFill: number;
  /** m at the middle of the spots. */
  readonly level: number;
  /** Share of the area that lies outside the spots, where the heights are carried on from the nearest. */
  readonly guessed: number;
}

const CELLS = 4000;

/** Height of the ground at a place: within the triangles between the spots, and outside as the nearest spot strays. */
function surfaceOf(
  ground: Ground,
): (east: number, north: number) => { readonly height: number; readonly known: boolean } {
  const { spots } = ground;
  const { triangles } = triangulate(spots);
  const strays = spots.map(([east, north, height]) => height - evenHeight(ground, east, north));
  return (east, north) => {
    for (let at = 0; at < triangles.length; at += 3) {
      const [a, b, c] = [triangles[at]!, triangles[at + 1]!, triangles[at + 2]!];
      const [[ax, ay], [bx, by], [cx, cy]] = [spots[a]!, spots[b]!, spots[c]!];
      const whole = (by - cy) * (ax - cx) + (cx - bx) * (ay - cy);
      const one = ((by - cy) * (east - cx) + (cx - bx) * (north - cy)) / whole;
      const two = ((cy - ay) * (east - cx) + (ax - cx) * (north - cy)) / whole;
      const three = 1 - one - two;
      if (one >= -1e-9 && two >= -1e-9 && three >= -1e-9)
        return { height: one * spots[a]![2] + two * spots[b]![2] + three * spots[c]![2], known: true };
    }
    const nearest = spots.reduce(
      (best, [x, y], index) => {
        const distance = Math.hypot(x - east, y - north);
        return distance < best.distance ? { distance, index } : best;
      },
      { distance: Infinity, index: 0 },
    );
    return { height: evenHeight(ground, east, north) + strays[nearest.index]!, known: false };
  };
}

/**
 * Soil to cut and to fill so that an outline falls evenly, on a grid of some thousand cells.
 *
 * @throws {GeometryError} as {@link fallOf} does.
 */
export function earthwork(
  outline: Outline,
  heights: readonly SpotHeight[],
  { fall, toward, level }: WantedGrade,
): Earthwork {
  const ground = groundOf(heights);
  const rings = partsOf(outline).map((part) =>
    part.map((ring) =>
      ring.map(([longitude = 0, latitude = 0]) => ground.plane.toPlane([longitude, latitude])).slice(0, -1),
    ),
  );
  const corners = rings.flat(2);
  const ends = (axis: 0 | 1): readonly [number, number] => {
    const values = corners.map((corner) => corner[axis]);
    return [Math.min(...values), Math.max(...values)];
  };
  const [[west, east], [south, north]] = [ends(0), ends(1)];
  const side = Math.sqrt(((east - west) * (north - south)) / CELLS);
  const surface = surfaceOf(ground);
  const slope = { east: (-fall / 100) * Math.sin(toward * DEGREE), north: (-fall / 100) * Math.cos(toward * DEGREE) };
  /** How far the ground stands above the wanted slope through 0 at the middle, m. */
  const above: number[] = [];
  let outside = 0;
  for (let x = west + side / 2; x < east; x += side)
    for (let y = south + side / 2; y < north; y += side) {
      const inside = rings.some(
        ([outer, ...holes]) => isInside([x, y], outer!) && !holes.some((hole) => isInside([x, y], hole)),
      );
      if (!inside) continue;
      const { height, known } = surface(x, y);
      if (!known) outside += 1;
      above.push(height - slope.east * (x - ground.middle[0]) - slope.north * (y - ground.middle[1]));
    }
  if (above.length === 0) throw new GeometryError('The outline holds no ground to grade.');
  const balanced = above.reduce((sum, value) => sum + value, 0) / above.length;
  const wanted = level ?? balanced;
  const cell = areaOf(outline) / above.length;
  const off = above.map((value) => value - wanted);
  return {
    cut: cell * off.reduce((sum, value) => sum + Math.max(0, value), 0),
    fill: cell * off.reduce((sum, value) => sum + Math.max(0, -value), 0),
    deepestCut:
      100 *
      Math.max(
        0,
        off.reduce((most, value) => Math.max(most, value), 0),
      ),
    highestFill:
      100 *
      Math.max(
        0,
        off.reduce((most, value) => Math.max(most, -value), 0),
      ),
    level: wanted,
    guessed: outside / above.length,
  };
}

const points = ['north', 'north-east', 'east', 'south-east', 'south', 'south-west', 'west', 'north-west'] as const;
export type CompassPoint = (typeof points)[number];

/** The nearest of eight directions. */
export function compassPoint(degrees: number): CompassPoint {
  return points[Math.round((((degrees % 360) + 360) % 360) / 45) % 8]!;
}

export interface SlopeBreak {
  /** Ends of the line between the two slopes, far beyond the spots. */
  readonly line: readonly [Position, Position];
  /** Percentage points between the slopes on its two sides. */
  readonly difference: number;
}

const FEWEST_A_SIDE = 3;
/** Slopes that differ by less are treated alike, percentage points. */
const LEAST_DIFFERENCE = 5;

/** Where ground breaks from one slope into another: the cut across the fall that leaves both sides most even, if any. */
export function slopeBreak(heights: readonly SpotHeight[]): SlopeBreak | undefined {
  if (heights.length < 2 * FEWEST_A_SIDE) return undefined;
  const { plane, spots, middle, tilt } = groundOf(heights);
  const steepness = Math.hypot(tilt.east, tilt.north);
  if (steepness < 1e-4) return undefined;
  const [east, north] = [-tilt.east / steepness, -tilt.north / steepness];
  const along = ([x, y]: readonly number[]): number => (x! - middle[0]) * east + (y! - middle[1]) * north;
  const downhill = [...spots].sort((one, other) => along(one) - along(other));
  const evenness = (part: Ground['spots']): { readonly squares: number; readonly fall: number } | undefined => {
    try {
      const centre = centreOf(part);
      const own: Ground = { plane, spots: part, middle: centre, tilt: evenPlane(part, centre) };
      const squares = part.reduce((sum, [x, y, height]) => sum + (height - evenHeight(own, x, y)) ** 2, 0);
      return { squares, fall: -100 * (own.tilt.east * east + own.tilt.north * north) };
    } catch (error) {
      if (error instanceof GeometryError) return undefined;
      throw error;
    }
  };
  let best: { readonly squares: number; readonly at: number; readonly difference: number } | undefined;
  for (let cut = FEWEST_A_SIDE; cut <= downhill.length - FEWEST_A_SIDE; cut += 1) {
    const [upper, lower] = [evenness(downhill.slice(0, cut)), evenness(downhill.slice(cut))];
    if (!upper || !lower) continue;
    const squares = upper.squares + lower.squares;
    const at = (along(downhill[cut - 1]!) + along(downhill[cut]!)) / 2;
    if (!best || squares < best.squares) best = { squares, at, difference: Math.abs(upper.fall - lower.fall) };
  }
  const whole = evenness(downhill);
  if (!best || !whole || best.difference < LEAST_DIFFERENCE || best.squares > 0.5 * whole.squares) return undefined;
  const far = 2000;
  const end = (side: number): Position =>
    plane.toMap([middle[0] + east * best.at - north * side, middle[1] + north * best.at + east * side]);
  return { line: [end(-far), end(far)], difference: best.difference };
}
