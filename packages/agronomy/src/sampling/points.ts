import type Geometry from 'jsts/org/locationtech/jts/geom/Geometry.js';
import {
  type Outline,
  GeometryError,
  areaOf,
  both,
  discAt,
  grow,
  partsOf,
  planeAt,
  read,
  readLine,
  round,
  square,
  unionOf,
  without,
  write,
} from '../geometry/outline.ts';
import { chanceFrom } from '../geometry/chance.ts';
import type { Plane, PlanePoint, Position } from '../geometry/plane.ts';
import type { PointDesign } from './designTables.ts';
import { equalStrata } from './strata.ts';

export interface CoringGround {
  /** What is treated of the zone. */
  readonly outline: Outline;
  /** Beds, buildings, drives, ponds, paths. */
  readonly exclusions: readonly Outline[];
  /** Buried lines, which may lie off what is drawn. */
  readonly lines: ReadonlyArray<readonly Position[]>;
  /** m kept from every edge. */
  readonly edge: number;
  /** m kept from lines. */
  readonly clear: number;
  /** Only ground about these places, or only ground away from them: the bad part of a lawn, and its healthy part. */
  readonly about?: GroundAbout | undefined;
}

export interface GroundAbout {
  readonly places: readonly Position[];
  /** m from the places to which the bad part reaches. */
  readonly reach: number;
  readonly part: 'bad' | 'healthy';
}

/** Healthy ground begins this many reaches away: between lies what is neither. */
const HEALTHY_FROM = 2;

/** Cells to a core, and at most in a zone: enough that strata are compact. */
const CELLS_A_CORE = 24;
const MOST_CELLS = 900;
/** Least ground between two cores on average, m². */
const LEAST_A_CORE = 0.25;

/**
 * The ground of a zone that may be cored: inside its edges and those of what is left out of it, away from buried lines.
 *
 * @throws {GeometryError} saying what to change when nothing is left.
 */
export function coringGround({ outline, exclusions, lines, edge, clear, about }: CoringGround): Outline {
  const plane = planeAt(outline);
  const kept = [
    ...exclusions.map((exclusion) => grow(read(plane, exclusion), edge, round)),
    ...lines.filter((line) => line.length > 1).map((line) => grow(readLine(plane, line), clear, round)),
  ];
  const inner = grow(read(plane, outline), -edge, square);
  const taken = unionOf(kept);
  const free = taken ? without(inner, taken) : inner;
  const left = write(plane, about ? partOf(plane, free, about) : free);
  if (left) return left;
  if (about && write(plane, free))
    throw new GeometryError(
      about.part === 'bad'
        ? 'Where the trouble is marked nothing can be cored: it lies at the edge, or on what is left out. Let it reach further, or keep less from the edges.'
        : 'No healthy ground is left beside the trouble: let it reach less far, or take the healthy half in another zone of the same grass and care.',
    );
  const within = write(plane, inner);
  throw new GeometryError(
    within
      ? 'Nothing is left to core: what is kept from the lines and from the edges takes the whole zone. Keep less from the edges, or mark the lines on the ground and core by hand.'
      : 'The zone is too narrow to keep that far from its edges: keep less from them.',
  );
}

function partOf(plane: Plane, ground: Geometry, { places, reach, part }: GroundAbout): Geometry {
  const distance = part === 'bad' ? reach : HEALTHY_FROM * reach;
  const near = unionOf(places.map((place) => discAt(plane, place, distance)));
  if (!near) return ground;
  return part === 'bad' ? both(ground, near) : without(ground, near);
}

/** Ground on the plane, with a quick test of what lies in it. */
interface Flat {
  readonly plane: Plane;
  readonly rings: ReadonlyArray<readonly PlanePoint[]>;
  readonly box: readonly [west: number, south: number, east: number, north: number];
}

function flatten(ground: Outline): Flat {
  const plane = planeAt(ground);
  const rings = partsOf(ground)
    .flat()
    .map((ring) => ring.map(([longitude = 0, latitude = 0]) => plane.toPlane([longitude, latitude])));
  const [easts, norths] = [0, 1].map((axis) => rings.flat().map((point) => point[axis as 0 | 1])) as [
    number[],
    number[],
  ];
  return { plane, rings, box: [Math.min(...easts), Math.min(...norths), Math.max(...easts), Math.max(...norths)] };
}

/** Whether a point lies inside, by the crossings of a ray: holes count themselves out. */
function inside({ rings }: Flat, [x, y]: PlanePoint): boolean {
  let odd = false;
  for (const ring of rings)
    for (let index = 1; index < ring.length; index += 1) {
      const [[a, b], [c, d]] = [ring[index - 1]!, ring[index]!];
      if (b > y !== d > y && x < a + ((y - b) / (d - b)) * (c - a)) odd = !odd;
    }
  return odd;
}

/** Middles of equal squares whose middles lie inside. */
function cellsOf(flat: Flat, area: number, wanted: number): PlanePoint[] {
  const [west, south, east, north] = flat.box;
  let side = Math.sqrt(area / wanted);
  for (let attempt = 0; ; attempt += 1) {
    const cells: PlanePoint[] = [];
    for (let y = south + side / 2; y < north; y += side)
      for (let x = west + side / 2; x < east; x += side) if (inside(flat, [x, y])) cells.push([x, y]);
    if (cells.length >= wanted * 0.8 || attempt > 6) return cells;
    side *= 0.8;
  }
}

function covering(flat: Flat, area: number, count: number, chance: () => number): PlanePoint[] {
  const cells = cellsOf(flat, area, Math.min(MOST_CELLS, Math.max(200, count * CELLS_A_CORE)));
  if (cells.length < count) return scattered(flat, count, chance);
  return equalStrata(cells, count, chance).map(({ middle, cells: own }) =>
    // The middle of a bent stratum can lie outside it.
    inside(flat, middle)
      ? middle
      : own.map((cell) => cells[cell]!).reduce((best, cell) => (span(cell, middle) < span(best, middle) ? cell : best)),
  );
}

const span = (one: PlanePoint, other: PlanePoint): number => Math.hypot(one[0] - other[0], one[1] - other[1]);

function scattered(flat: Flat, count: number, chance: () => number): PlanePoint[] {
  const [west, south, east, north] = flat.box;
  const points: PlanePoint[] = [];
  for (let attempt = 0; points.length < count && attempt < 200_000; attempt += 1) {
    const point: PlanePoint = [west + chance() * (east - west), south + chance() * (north - south)];
    if (inside(flat, point)) points.push(point);
  }
  return points;
}

/** Direction in which the ground is longest, radians from east. */
function longAxis({ rings }: Flat): number {
  const points = rings[0]!;
  const mean = (axis: 0 | 1): number => points.reduce((sum, point) => sum + point[axis], 0) / points.length;
  const [x, y] = [mean(0), mean(1)];
  let [xx, xy, yy] = [0, 0, 0];
  for (const [a, b] of points) [xx, xy, yy] = [xx + (a - x) ** 2, xy + (a - x) * (b - y), yy + (b - y) ** 2];
  return Math.atan2(2 * xy, xx - yy) / 2;
}

/** Points at even steps along a bent line over the ground, counting only what of it lies inside. */
function along(
  flat: Flat,
  corners: ReadonlyArray<readonly [along: number, across: number]>,
  count: number,
): PlanePoint[] {
  const turn = longAxis(flat);
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
  const turned = flat.rings.flat().map(([x, y]): PlanePoint => [x * cos + y * sin, y * cos - x * sin]);
  const ends = [0, 1].map((axis) => {
    const values = turned.map((point) => point[axis as 0 | 1]);
    return [Math.min(...values), Math.max(...values)] as const;
  });
  const way = corners.map(([a, b]): PlanePoint => {
    const [u, v] = [a, b].map((share, axis) => ends[axis]![0] + share * (ends[axis]![1] - ends[axis]![0])) as [
      number,
      number,
    ];
    return [u * cos - v * sin, u * sin + v * cos];
  });
  const length = way.slice(1).reduce((sum, corner, index) => sum + span(way[index]!, corner), 0);
  const step = Math.max(0.05, length / 4000);
  const on: PlanePoint[] = [];
  for (let leg = 1; leg < way.length; leg += 1) {
    const [from, to] = [way[leg - 1]!, way[leg]!];
    const steps = Math.max(1, Math.round(span(from, to) / step));
    for (let at = 0; at < steps; at += 1) {
      const share = (at + 0.5) / steps;
      const point: PlanePoint = [from[0] + share * (to[0] - from[0]), from[1] + share * (to[1] - from[1])];
      if (inside(flat, point)) on.push(point);
    }
  }
  if (on.length < count) return [];
  return Array.from({ length: count }, (_, index) => on[Math.floor(((index + 0.5) / count) * on.length)]!);
}

/** Corners of a Z, and of a zigzag whose legs are as far apart as its cores. */
function bentLine(design: 'Z' | 'zigzag', count: number): Array<readonly [number, number]> {
  const inset = 0.06;
  const [low, high] = [inset, 1 - inset];
  if (design === 'Z')
    return [
      [low, high],
      [high, high],
      [low, low],
      [high, low],
    ];
  const legs = Math.max(3, Math.round(Math.sqrt(count)) + 1);
  return Array.from({ length: legs + 1 }, (_, index) => [low + (index / legs) * (high - low), index % 2 ? high : low]);
}

/**
 * Where to push the probe.
 *
 * @param ground that may be cored, as `coringGround` gives it; `count` cores; `seed` whole number: the same gives the
 *   same places.
 * @returns as many places inside the ground, in WGS84.
 * @throws {GeometryError} when the ground is too small for so many cores.
 * @see Brus, de Gruijter & van Groenigen (2007), "Designing spatial coverage samples using the k-means clustering
 *   algorithm", Developments in Soil Science 31: 183–192
 */
export function corePlaces(ground: Outline, count: number, design: PointDesign, seed: number): Position[] {
  const area = areaOf(ground);
  if (area < count * LEAST_A_CORE)
    throw new GeometryError(
      `Inside its edges the zone has ${area.toFixed(1)} m², too little for ${count} cores: take fewer, or keep less from the edges.`,
    );
  const flat = flatten(ground);
  const chance = chanceFrom(seed);
  const places =
    design === 'random'
      ? scattered(flat, count, chance)
      : design === 'coverage'
        ? covering(flat, area, count, chance)
        : along(flat, bentLine(design, count), count);
  // A line over a very bent zone can miss it; coverage never does.
  const found = places.length === count ? places : covering(flat, area, count, chance);
  return found.map((place) => flat.plane.toMap(place));
}

/**
 * How well places cover the ground: the mean square of the distance from anywhere in it to the nearest of them, m².
 *
 * @see Brus, de Gruijter & van Groenigen (2007): mean squared shortest distance
 */
export function meanSquaredShortestDistance(ground: Outline, places: readonly Position[]): number {
  const flat = flatten(ground);
  const points = places.map((place) => flat.plane.toPlane(place));
  const cells = cellsOf(flat, areaOf(ground), 2000);
  return (
    cells.reduce((sum, cell) => sum + Math.min(...points.map((point) => span(cell, point))) ** 2, 0) / cells.length
  );
}
