import type Geometry from 'jsts/org/locationtech/jts/geom/Geometry.js';
import {
  type Box,
  type Outline,
  areaOf,
  both,
  boxOf,
  boxesMeet,
  either,
  flat,
  grow,
  planeAt,
  polygonIn,
  polygonsIn,
  read,
  square,
  unionOf,
  without,
  write,
} from './outline.ts';
import type { PlanePoint } from './plane.ts';
import { cutOut } from './polygons.ts';

export interface Fault {
  readonly kind: 'overlap' | 'gap';
  /** Places of the zones in the list that was checked. */
  readonly zones: readonly number[];
  /** m² */
  readonly area: number;
  readonly outline: Outline;
}

/** About a metre at any latitude where grass grows, degrees. */
const MARGIN = 1e-5;

/** Places of the outlines about one of them, itself among them: the only ones that it can overlap. */
function neighbours(boxes: readonly Box[], of: number): number[] {
  const [west, south, east, north] = boxes[of]!;
  const around: Box = [west - MARGIN, south - MARGIN, east + MARGIN, north + MARGIN];
  return boxes.flatMap((box, index) => (boxesMeet(around, box) ? [index] : []));
}

type FlatRing = readonly PlanePoint[];

/** Distance of a point from a side, m. */
function distance([x, y]: PlanePoint, [ax, ay]: PlanePoint, [bx, by]: PlanePoint): number {
  const [dx, dy] = [bx - ax, by - ay];
  const length = dx * dx + dy * dy;
  const along = length === 0 ? 0 : Math.min(1, Math.max(0, ((x - ax) * dx + (y - ay) * dy) / length));
  return Math.hypot(x - ax - along * dx, y - ay - along * dy);
}

/** Corners of one outline that come near a border of the other without standing on it. */
function nearMisses(corners: readonly FlatRing[], borders: readonly FlatRing[], width: number): PlanePoint[] {
  return corners.flat().filter((corner) => {
    let nearest = Infinity;
    for (const ring of borders)
      for (let at = 1; at < ring.length; at += 1) {
        const [from, to] = [ring[at - 1]!, ring[at]!];
        // Most sides are far off, and need no root.
        if (Math.min(from[0], to[0]) - corner[0] > width || corner[0] - Math.max(from[0], to[0]) > width) continue;
        if (Math.min(from[1], to[1]) - corner[1] > width || corner[1] - Math.max(from[1], to[1]) > width) continue;
        nearest = Math.min(nearest, distance(corner, from, to));
      }
    return nearest > 1e-3 && nearest <= width;
  });
}

/** A window about all places where a zone comes near another without touching it; a sliver has a corner in one. */
function narrows(
  rings: ReadonlyArray<readonly FlatRing[]>,
  index: number,
  around: readonly number[],
  width: number,
): Geometry | undefined {
  const own = rings[index]!;
  const near = around.flatMap((other) =>
    other === index ? [] : [...nearMisses(rings[other]!, own, width), ...nearMisses(own, rings[other]!, width)],
  );
  if (near.length === 0) return undefined;
  const ends = (axis: 0 | 1): readonly [number, number] => {
    const values = near.map((corner) => corner[axis]);
    return [Math.min(...values) - 3 * width, Math.max(...values) + 3 * width];
  };
  const [[west, east], [south, north]] = [ends(0), ends(1)];
  return polygonIn([
    [west, south],
    [east, south],
    [east, north],
    [west, north],
    [west, south],
  ]);
}

/**
 * Ground that two zones both claim, and slivers between zones that none does. Each zone is held against those about it
 * only, so that the time grows with the zones and not with their square.
 *
 * @param width m, up to 1; what is narrower between zones is taken for a slip of the hand, not for a path.
 * @throws {GeometryError} for an outline that crosses itself.
 */
export function findFaults(outlines: readonly Outline[], width = 0.5): Fault[] {
  const [first] = outlines;
  if (!first) return [];
  const plane = planeAt(first);
  const zones = outlines.map((outline) => read(plane, outline));
  const boxes = outlines.map(boxOf);
  const rings = outlines.map((outline) => flat(plane, outline).flat());
  const told = (kind: Fault['kind'], members: readonly number[], geometry: Geometry): Fault[] => {
    const outline = write(plane, geometry);
    return outline ? [{ kind, zones: members, area: areaOf(outline), outline }] : [];
  };
  const overlapsOf = (index: number, around: readonly number[]): Fault[] =>
    around.flatMap((other) =>
      other > index && boxesMeet(boxes[index]!, boxes[other]!)
        ? told('overlap', [index, other], both(zones[index]!, zones[other]!))
        : [],
    );
  /** Slivers at a zone; each is told once, by the first of its zones. */
  const gapsOf = (index: number, around: readonly number[]): Fault[] => {
    const window = narrows(rings, index, around, width);
    if (!window) return [];
    const pieces = new Map(around.map((place) => [place, both(zones[place]!, window)]));
    const covered = unionOf([...pieces.values()])!;
    const closed = both(grow(grow(covered, width / 2, square), -width / 2, square), window);
    return polygonsIn(without(closed, covered)).flatMap((gap) => {
      const reach = grow(gap, width / 20, square);
      const touched = [...pieces]
        .map(([place, piece]) => [place, both(reach, piece).getArea()] as const)
        .filter(([, shared]) => shared > 0)
        .sort(([, one], [, other]) => other - one)
        .map(([place]) => place);
      return touched.length > 1 && Math.min(...touched) === index ? told('gap', touched, gap) : [];
    });
  };
  return outlines.flatMap((_outline, index) => {
    const around = neighbours(boxes, index);
    return [...overlapsOf(index, around), ...gapsOf(index, around)];
  });
}

/**
 * The zones with a fault mended: an overlap goes to the first of its zones, a gap to the one with most of its border.
 *
 * @returns the outlines that change, by their place in the list.
 */
export function mend(outlines: readonly Outline[], fault: Fault): ReadonlyMap<number, Outline> {
  const [keeper = 0, other = 0] = fault.zones;
  if (fault.kind === 'overlap') return new Map([[other, cutOut(outlines[other]!, outlines[keeper]!)]]);
  const plane = planeAt(fault.outline);
  // A hair wider, so that no line of nothing stays between the two.
  const filled = either(read(plane, outlines[keeper]!), grow(read(plane, fault.outline), 0.001, square));
  const others = fault.zones.slice(1).map((index) => read(plane, outlines[index]!));
  const mended = write(plane, others.reduce(without, filled));
  return new Map(mended ? [[keeper, mended]] : []);
}
