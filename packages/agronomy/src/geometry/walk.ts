import { crossesItself } from '../ground/crossing.ts';
import { Plane, type PlanePoint, type Position } from './plane.ts';
import { type Outline, GeometryError, areaOf, perimeterOf } from './outline.ts';

/** One position of a walk, as a receiver gives it. */
export interface Fix {
  readonly position: Position;
  /** m within which the position lies in 95 of 100 cases, as browsers report it. */
  readonly accuracy: number;
  /** s */
  readonly time: number;
}

export interface WalkedArea {
  readonly outline: Outline;
  /** m² */
  readonly area: number;
  /** m² to each side, in which the area lies in 95 of 100 walks like this. */
  readonly uncertainty: number;
  readonly perimeter: number;
  /** m between where the walk ended and where it began. */
  readonly gap: number;
  readonly used: number;
  /** Fixes left out: too uncertain, or farther off than a person walks. */
  readonly dropped: number;
}

/** Worse than this a fix says nothing about a lawn, m. */
const WORST_ACCURACY = 25;
/** A person with a phone does not walk faster, m/s. */
const FASTEST = 3.5;
const FEWEST = 12;
/** Half-width of the smoothing, s: errors of a few metres even out, corners stay. */
const SMOOTHING = 8;
/** Receivers err the same way for some seconds: fixes this far apart count as independent, s. */
const INDEPENDENT = 10;
/** From the 95 % radius of a receiver to one standard deviation along an axis. */
const RADIUS_TO_SIGMA = 1 / 2.448;

interface PlaneFix {
  readonly at: PlanePoint;
  readonly sigma: number;
  readonly time: number;
}

const apart = ([x, y]: PlanePoint, [u, v]: PlanePoint): number => Math.hypot(u - x, v - y);

/** Fixes in order of time, without those that are too uncertain or that jump. */
function keep(fixes: readonly Fix[], plane: Plane): PlaneFix[] {
  const kept: PlaneFix[] = [];
  for (const { position, accuracy, time } of [...fixes].sort((one, other) => one.time - other.time)) {
    if (!(accuracy <= WORST_ACCURACY) || !Number.isFinite(position[0] + position[1] + time)) continue;
    const next = { at: plane.toPlane(position), sigma: Math.max(0.2, accuracy * RADIUS_TO_SIGMA), time };
    const last = kept.at(-1);
    if (last && next.time <= last.time) continue;
    const slack = last ? last.sigma + next.sigma : 0;
    if (last && apart(last.at, next.at) > FASTEST * (next.time - last.time) + 2 * slack) continue;
    kept.push(next);
  }
  return kept;
}

/** Value at 0 of the parabola through weighted points (local quadratic regression). */
function smoothAt(points: ReadonlyArray<readonly [offset: number, value: number, weight: number]>): number {
  let [s0, s1, s2, s3, s4, t0, t1, t2] = [0, 0, 0, 0, 0, 0, 0, 0];
  for (const [x, y, weight] of points) {
    const [wx, wxx] = [weight * x, weight * x * x];
    s0 += weight;
    s1 += wx;
    s2 += wxx;
    s3 += wxx * x;
    s4 += wxx * x * x;
    t0 += weight * y;
    t1 += wx * y;
    t2 += wxx * y;
  }
  const determinant = s0 * (s2 * s4 - s3 * s3) - s1 * (s1 * s4 - s2 * s3) + s2 * (s1 * s3 - s2 * s2);
  if (Math.abs(determinant) < 1e-9 * s0 * s2 * s4) return t0 / s0;
  return (t0 * (s2 * s4 - s3 * s3) - s1 * (t1 * s4 - t2 * s3) + s2 * (t1 * s3 - t2 * s2)) / determinant;
}

/** The walk with its jitter evened out (Cleveland 1979, locally weighted regression, here over time). */
function smooth(fixes: readonly PlaneFix[]): PlanePoint[] {
  return fixes.map(({ time }) => {
    const near = fixes.flatMap(({ at, sigma, time: when }) => {
      const share = Math.abs(when - time) / SMOOTHING;
      return share < 1 ? [{ offset: when - time, at, weight: (1 - share ** 3) ** 3 / sigma ** 2 }] : [];
    });
    const axis = (index: 0 | 1): number => smoothAt(near.map(({ offset, at, weight }) => [offset, at[index], weight]));
    return [axis(0), axis(1)];
  });
}

const STRIDE = 0.7;

/** Standing still adds nothing: points at least a stride apart. */
function thin(points: readonly PlanePoint[]): PlanePoint[] {
  const kept: PlanePoint[] = [];
  for (const point of points) if (kept.length === 0 || apart(kept.at(-1)!, point) >= STRIDE) kept.push(point);
  return kept;
}

const lengthOf = (points: readonly PlanePoint[]): number =>
  points.slice(1).reduce((sum, point, index) => sum + apart(points[index]!, point), 0);

/** A walk that passes its start and goes on is cut where its two ends come closest. */
function closeUp(points: readonly PlanePoint[]): PlanePoint[] {
  const reach = Math.max(1, Math.floor(points.length / 6));
  let best: readonly [from: number, to: number, gap: number] = [
    0,
    points.length - 1,
    apart(points[0]!, points.at(-1)!),
  ];
  for (let from = 0; from < reach; from += 1)
    for (let to = points.length - reach; to < points.length; to += 1) {
      const gap = apart(points[from]!, points[to]!);
      if (gap < best[2] - 0.5) best = [from, to, gap];
    }
  return points.slice(best[0], best[1] + 1);
}

function crossing(a: PlanePoint, b: PlanePoint, c: PlanePoint, d: PlanePoint): boolean {
  const side = (p: PlanePoint, q: PlanePoint, r: PlanePoint): number =>
    Math.sign((q[0] - p[0]) * (r[1] - p[1]) - (q[1] - p[1]) * (r[0] - p[0]));
  return side(a, b, c) !== side(a, b, d) && side(c, d, a) !== side(c, d, b);
}

/** The first two sides of a closed ring that cross, by their places. */
function firstCrossing(ring: readonly PlanePoint[]): readonly [first: number, second: number] | undefined {
  const next = (at: number): PlanePoint => ring[(at + 1) % ring.length]!;
  for (let first = 0; first < ring.length - 2; first += 1)
    for (let second = first + 2; second < ring.length; second += 1) {
      const neighbours = first === 0 && second === ring.length - 1;
      if (!neighbours && crossing(ring[first]!, next(first), ring[second]!, next(second))) return [first, second];
    }
  return undefined;
}

/**
 * Little loops, where the walker turned, stood, or passed the start, are cut off; large ones are the person's to sort
 * out.
 */
function withoutLoops(points: readonly PlanePoint[], longest: number): PlanePoint[] {
  let ring = [...points];
  for (let found = firstCrossing(ring); found && ring.length > 4; found = firstCrossing(ring)) {
    const [first, second] = found;
    const inner = ring.slice(first + 1, second + 1);
    const outer = [...ring.slice(second + 1), ...ring.slice(0, first + 1)];
    const [loop, rest] = lengthOf(inner) < lengthOf(outer) ? [inner, outer] : [outer, inner];
    if (lengthOf(loop) > longest) break;
    ring = rest;
  }
  return ring;
}

/** Scatter of the fixes about the smoothed walk, along one axis, m. */
function scatter(fixes: readonly PlaneFix[], smoothed: readonly PlanePoint[]): number {
  const sum = fixes.reduce((total, { at }, index) => total + apart(at, smoothed[index]!) ** 2, 0);
  return Math.sqrt(sum / fixes.length / 2);
}

/**
 * The area inside a boundary that was walked with a receiver: smoothed, closed, with its uncertainty.
 *
 * Each independent fix moves the border by its error along the length it stands for; errors that hold for seconds on
 * end count once. For m independent fixes on a border P long, the area errs by P σ / √m.
 *
 * @throws {GeometryError} for a walk that cannot make an area: too few good fixes, not closed, crossed, or smaller than
 *   its own uncertainty; with what to do instead.
 */
export function walkedArea(fixes: readonly Fix[]): WalkedArea {
  const [first] = fixes;
  if (!first) throw new GeometryError('Nothing was recorded. Wait for a position before you set off.');
  const plane = new Plane(first.position);
  const kept = keep(fixes, plane);
  if (kept.length < FEWEST)
    throw new GeometryError(
      `Only ${kept.length} of ${fixes.length} positions are good enough to use; ${FEWEST} are wanted. Wait until the accuracy is under ${WORST_ACCURACY} m (80 ft), under open sky, and walk again.`,
    );
  const smoothed = smooth(kept);
  const path = closeUp(thin(smoothed));
  const length = lengthOf(path);
  if (path.length < 6 || length < 15)
    throw new GeometryError('The walk is shorter than its own uncertainty. Measure so small a piece with a tape.');
  const gap = apart(path[0]!, path.at(-1)!);
  const mostGap = Math.max(8, 0.15 * length);
  if (gap > mostGap)
    throw new GeometryError(
      `The walk ends ${Math.round(gap)} m (${Math.round(gap / 0.3048)} ft) from where it began. Walk on to the start, so that it closes.`,
    );
  const ring = withoutLoops(path, Math.max(12, length / 8));
  if (ring.length < 4 || crossesItself(ring))
    throw new GeometryError(
      'The walk crosses its own path, so it has no single inside. Walk round one piece at a time, without cutting across.',
    );
  const corners = ring.map((point) => [...plane.toMap(point)]);
  const outline: Outline = { type: 'Polygon', coordinates: [[...corners, corners[0]!]] };
  const area = areaOf(outline);
  const sigma = Math.max(
    scatter(kept, smoothed),
    Math.sqrt(kept.reduce((sum, fix) => sum + fix.sigma ** 2, 0) / kept.length),
  );
  const perimeter = perimeterOf(outline);
  const time = kept.at(-1)!.time - kept[0]!.time;
  const independent = Math.max(4, Math.min(kept.length, time / INDEPENDENT));
  const uncertainty = (1.96 * perimeter * sigma) / Math.sqrt(independent) + (gap * sigma) / 2;
  if (uncertainty > area)
    throw new GeometryError(
      `The area (${Math.round(area)} m²) is smaller than its uncertainty (± ${Math.round(uncertainty)} m²): the receiver is not good enough for so small a piece. Tape it, or pace it.`,
    );
  return { outline, area, uncertainty, perimeter, gap, used: kept.length, dropped: fixes.length - kept.length };
}
