import type Geometry from 'jsts/org/locationtech/jts/geom/Geometry.js';
import {
  type Box,
  type Outline,
  areaOf,
  both,
  boxOf,
  boxesMeet,
  either,
  grow,
  planeAt,
  polygonsIn,
  read,
  square,
  unionOf,
  without,
  write,
} from './outline.ts';
import { cutOut } from './polygons.ts';

export interface Fault {
  readonly kind: 'overlap' | 'gap';
  /** Places of the zones in the list that was checked. */
  readonly zones: readonly number[];
  /** m² */
  readonly area: number;
  readonly outline: Outline;
}

/** Places of the outlines about one of them, itself among them: the only ones that it can overlap. */
export function neighbours(outlines: readonly Outline[], of: number): number[] {
  const [west, south, east, north] = boxOf(outlines[of]!);
  // About ten metres at any latitude where grass grows.
  const margin = 1e-4;
  const around: Box = [west - margin, south - margin, east + margin, north + margin];
  return outlines.flatMap((outline, index) => (boxesMeet(around, boxOf(outline)) ? [index] : []));
}

/**
 * Ground that two zones both claim, and slivers between zones that none does.
 *
 * The time it takes grows with the square of the corners: some hundreds are looked through in a blink.
 *
 * @param width m; what is narrower between zones is taken for a slip of the hand, not for a path.
 */
export function findFaults(outlines: readonly Outline[], width = 0.5): Fault[] {
  const [first] = outlines;
  if (!first) return [];
  const plane = planeAt(first);
  const zones = outlines.map((outline) => read(plane, outline));
  const told = (kind: Fault['kind'], members: readonly number[], geometry: Geometry): Fault[] => {
    const outline = write(plane, geometry);
    return outline ? [{ kind, zones: members, area: areaOf(outline), outline }] : [];
  };
  const boxes = outlines.map(boxOf);
  const overlaps = zones.flatMap((zone, index) =>
    zones.flatMap((other, later) =>
      later > index && boxesMeet(boxes[index]!, boxes[later]!)
        ? told('overlap', [index, later], both(zone, other))
        : [],
    ),
  );
  const covered = unionOf(zones)!;
  const grown = grow(covered, width / 2, square);
  const gaps = polygonsIn(without(grow(grown, -width / 2, square), covered)).flatMap((gap) => {
    const reach = grow(gap, width / 20, square);
    const about = write(plane, reach);
    const near = about ? boxOf(about) : undefined;
    const touched = zones
      .map((zone, index) => [index, near && boxesMeet(near, boxes[index]!) ? both(reach, zone).getArea() : 0] as const)
      .filter(([, shared]) => shared > 0)
      .sort(([, one], [, other]) => other - one);
    return touched.length > 1
      ? told(
          'gap',
          touched.map(([index]) => index),
          gap,
        )
      : [];
  });
  return [...overlaps, ...gaps];
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
