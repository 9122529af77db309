import type Geometry from 'jsts/org/locationtech/jts/geom/Geometry.js';
import Polygonizer from 'jsts/org/locationtech/jts/operation/polygonize/Polygonizer.js';
import {
  type Outline,
  GeometryError,
  areaOf,
  both,
  boxOf,
  boxesMeet,
  discAt,
  either,
  grow,
  partsOf,
  perimeterOf,
  planeAt,
  read,
  readLine,
  round,
  unionOf,
  without,
  write,
} from './outline.ts';
import type { Plane, Position } from './plane.ts';
import { refuseTangled } from './tangled.ts';

export interface TreatedArea {
  /** m² that are treated: the outline less what of the exclusions lies in it, each part taken off once. */
  readonly area: number;
  /** m² inside the outline. */
  readonly gross: number;
  /** m of the outline's borders. */
  readonly perimeter: number;
  /** What is left of the outline, or nothing when the exclusions cover it. */
  readonly treated: Outline | null;
}

/**
 * What of a zone is treated, on the ellipsoid. Exclusions may reach over the border and over one another.
 *
 * @throws {GeometryError} for an outline that crosses itself, and for outlines that cross one another too often.
 */
export function treatedArea(outline: Outline, exclusions: readonly Outline[]): TreatedArea {
  const plane = planeAt(outline);
  const whole = read(plane, outline);
  const box = boxOf(outline);
  const near = exclusions.filter((exclusion) => boxesMeet(box, boxOf(exclusion)));
  refuseTangled([outline, ...near]);
  const taken = unionOf(near.map((exclusion) => read(plane, exclusion)));
  const treated = taken ? write(plane, without(whole, taken)) : outline;
  return {
    area: treated ? areaOf(treated) : 0,
    gross: areaOf(outline),
    perimeter: perimeterOf(outline),
    treated,
  };
}

/**
 * The parts into which a line cuts an outline, largest first.
 *
 * @throws {GeometryError} when the line does not go all the way through.
 */
export function splitBy(outline: Outline, line: readonly Position[]): Outline[] {
  const plane = planeAt(outline);
  const whole = read(plane, outline);
  const polygonizer = new Polygonizer();
  polygonizer.add(either(whole.getBoundary(), readLine(plane, line)));
  const faces = polygonizer
    .getPolygons()
    .toArray()
    .filter((face) => both(face, whole).getArea() > face.getArea() / 2);
  const parts = faces.flatMap((face) => write(plane, face) ?? []);
  if (parts.length < 2)
    throw new GeometryError('The line does not cut the zone in two: start and end it outside the border.');
  return parts.sort((one, other) => areaOf(other) - areaOf(one));
}

/** Two outlines as one. @throws {GeometryError} when they do not share a border. */
export function merge(one: Outline, other: Outline): Outline {
  refuseTangled([one, other]);
  const plane = planeAt(one);
  const merged = either(read(plane, one), read(plane, other));
  const joined = write(plane, merged);
  if (!joined || partsOf(joined).length > Math.max(partsOf(one).length, partsOf(other).length))
    throw new GeometryError('The two do not share a border, so they cannot become one zone: close the gap first.');
  return joined;
}

/** An outline less another. @throws {GeometryError} when nothing is left. */
export function cutOut(outline: Outline, hole: Outline): Outline {
  refuseTangled([outline, hole]);
  const plane = planeAt(outline);
  const left = write(plane, without(read(plane, outline), read(plane, hole)));
  if (!left) throw new GeometryError('Nothing would be left of the zone.');
  return left;
}

export interface Parted {
  /** The part that was asked for. */
  readonly part: Outline;
  /** What is left of the zone. */
  readonly rest: Outline;
}

/** Part off what of a zone lies in a tool. @throws {GeometryError} when nothing, or everything, does. */
export function parted(plane: Plane, whole: Geometry, tool: Geometry, where: string): Parted {
  const part = write(plane, both(whole, tool));
  if (!part) throw new GeometryError(`Nothing of the zone lies ${where}.`);
  const rest = write(plane, without(whole, tool));
  if (!rest) throw new GeometryError(`The whole zone lies ${where}, so there is nothing to part it from.`);
  return { part, rest };
}

/**
 * The strip of a zone along an edge, such as the yard beside paving that scorches.
 *
 * @param edge points of the edge; `width` m of the strip, measured from it.
 */
export function stripAlong(outline: Outline, edge: readonly Position[], width: number): Parted {
  if (!(width > 0)) throw new GeometryError('The width of a strip is more than 0.');
  const plane = planeAt(outline);
  return parted(plane, read(plane, outline), grow(readLine(plane, edge), width, round), 'within the strip');
}

/**
 * The ground of a zone under a tree's canopy, or a ring at the canopy's edge.
 *
 * @param radius m of the canopy; `ring` m of the ring's width, half to each side of the edge; none for all that is under it.
 */
export function underCanopy(outline: Outline, stem: Position, radius: number, ring?: number): Parted {
  if (!(radius > 0)) throw new GeometryError('The radius of a canopy is more than 0.');
  if (ring !== undefined && !(ring > 0 && ring / 2 < radius))
    throw new GeometryError('The ring is wider than 0, and narrower than the canopy.');
  const plane = planeAt(outline);
  const around = (distance: number): Geometry => discAt(plane, stem, distance);
  const tool = ring === undefined ? around(radius) : without(around(radius + ring / 2), around(radius - ring / 2));
  return parted(plane, read(plane, outline), tool, ring === undefined ? 'under the canopy' : 'at the canopy’s edge');
}

/** A place well inside an outline, and how wide the ground is there from west to east, m: where its name goes. */
export function innerPlace(outline: Outline): { readonly at: Position; readonly width: number } {
  const plane = planeAt(outline);
  const rings = partsOf(outline)
    .flat()
    .map((ring) => ring.map(([longitude = 0, latitude = 0]) => plane.toPlane([longitude, latitude])));
  const norths = rings.flat().map(([, north]) => north);
  const [low, high] = [Math.min(...norths), Math.max(...norths)];
  let best = { at: plane.toPlane([0, 0]), width: -1 };
  // Off the corners, so that no scan runs along a side; the middle counts most.
  for (const share of [0.503, 0.397, 0.611, 0.293, 0.707]) {
    const north = low + share * (high - low);
    const crossings = rings
      .flatMap((ring) =>
        ring.slice(1).flatMap(([x, y], index) => {
          const [u, v] = ring[index]!;
          return y > north !== v > north ? [u + ((north - v) / (y - v)) * (x - u)] : [];
        }),
      )
      .sort((one, other) => one - other);
    for (let index = 0; index + 1 < crossings.length; index += 2) {
      const width = crossings[index + 1]! - crossings[index]!;
      if (width > best.width * 1.15) best = { at: [crossings[index]! + width / 2, north], width };
    }
  }
  return { at: plane.toMap(best.at), width: Math.max(0, best.width) };
}

/** Whether a place lies in an outline, or within some metres of it. */
export function contains(outline: Outline, place: Position, about = 0): boolean {
  const plane = planeAt(outline);
  return both(read(plane, outline), discAt(plane, place, Math.max(about, 0.01))).getArea() > 0;
}
