import type Geometry from 'jsts/org/locationtech/jts/geom/Geometry.js';
import GeoJSONReader from 'jsts/org/locationtech/jts/io/GeoJSONReader.js';
import GeoJSONWriter from 'jsts/org/locationtech/jts/io/GeoJSONWriter.js';
import BufferOp from 'jsts/org/locationtech/jts/operation/buffer/BufferOp.js';
import BufferParameters from 'jsts/org/locationtech/jts/operation/buffer/BufferParameters.js';
import OverlayOp from 'jsts/org/locationtech/jts/operation/overlay/OverlayOp.js';
import SnapIfNeededOverlayOp from 'jsts/org/locationtech/jts/operation/overlay/snap/SnapIfNeededOverlayOp.js';
import Polygonizer from 'jsts/org/locationtech/jts/operation/polygonize/Polygonizer.js';
import IsValidOp from 'jsts/org/locationtech/jts/operation/valid/IsValidOp.js';
import { polygonArea, measureRing } from '../ground/polygonArea.ts';
import { Plane, type Position } from './plane.ts';

type Ring = ReadonlyArray<readonly number[]>;
/** A GeoJSON Polygon or MultiPolygon in WGS84. */
export type Outline =
  | { readonly type: 'Polygon'; readonly coordinates: readonly Ring[] }
  | { readonly type: 'MultiPolygon'; readonly coordinates: ReadonlyArray<readonly Ring[]> };

/** What cannot be drawn or cut, told to the person with what to do instead. */
export class PlanError extends Error {}

/** Smaller than this nothing is ground: a hand's breadth, m². */
const NOTHING = 0.01;
const round = new BufferParameters(16, BufferParameters.CAP_ROUND, BufferParameters.JOIN_ROUND, 5);
const square = new BufferParameters(16, BufferParameters.CAP_FLAT, BufferParameters.JOIN_MITRE, 5);

/** The polygons of an outline, each its rings. */
export function partsOf(outline: Outline): ReadonlyArray<readonly Ring[]> {
  return outline.type === 'Polygon' ? [outline.coordinates] : outline.coordinates;
}

/** Area of an outline on the ellipsoid, less its holes, m². */
export function areaOf(outline: Outline): number {
  return partsOf(outline).reduce((sum, rings) => sum + polygonArea(rings), 0);
}

/** Length of all borders on the ellipsoid, those of holes too, m. */
export function perimeterOf(outline: Outline): number {
  return partsOf(outline)
    .flat()
    .reduce((sum, ring) => sum + measureRing(ring).perimeter, 0);
}

function planeAt(outline: Outline): Plane {
  const [longitude = 0, latitude = 0] = partsOf(outline)[0]?.[0]?.[0] ?? [];
  return new Plane([longitude, latitude]);
}

const reader = new GeoJSONReader();
const writer = new GeoJSONWriter();

/** The polygons of an outline on the plane. */
function flat(plane: Plane, outline: Outline) {
  return partsOf(outline).map((rings) =>
    rings.map((ring) => ring.map(([longitude = 0, latitude = 0]) => plane.toPlane([longitude, latitude]))),
  );
}

function read(plane: Plane, outline: Outline): Geometry {
  const geometry = reader.read({ type: 'MultiPolygon', coordinates: flat(plane, outline) });
  if (!IsValidOp.isValid(geometry))
    throw new PlanError('The outline crosses or touches itself: move its corners apart, or draw it as several.');
  return geometry;
}

function readLine(plane: Plane, line: readonly Position[]): Geometry {
  if (line.length < 2) throw new PlanError('A line needs two points.');
  return reader.read({ type: 'LineString', coordinates: line.map((point) => plane.toPlane(point)) });
}

/** Every polygon in a geometry that is large enough to be ground. */
function polygonsIn(geometry: Geometry): Geometry[] {
  const parts = Array.from({ length: geometry.getNumGeometries() }, (_, index) => geometry.getGeometryN(index));
  return parts.filter((part) => part.getGeometryType() === 'Polygon' && part.getArea() > NOTHING);
}

function write(plane: Plane, geometry: Geometry): Outline | null {
  const polygons = polygonsIn(geometry).map((polygon) =>
    writer
      .write(polygon)
      .coordinates.map((ring) => ring.map(([east = 0, north = 0]) => [...plane.toMap([east, north])])),
  );
  const [only] = polygons;
  if (!only) return null;
  return polygons.length === 1
    ? { type: 'Polygon', coordinates: only }
    : { type: 'MultiPolygon', coordinates: polygons };
}

const overlay = (one: Geometry, other: Geometry, operation: number): Geometry =>
  SnapIfNeededOverlayOp.overlayOp(one, other, operation);
const both = (one: Geometry, other: Geometry): Geometry => overlay(one, other, OverlayOp.INTERSECTION);
const either = (one: Geometry, other: Geometry): Geometry => overlay(one, other, OverlayOp.UNION);
const without = (one: Geometry, other: Geometry): Geometry => overlay(one, other, OverlayOp.DIFFERENCE);

function unionOf(geometries: readonly Geometry[]): Geometry | undefined {
  return geometries.length === 0 ? undefined : geometries.reduce(either);
}

type Box = readonly [west: number, south: number, east: number, north: number];

/** The box about an outline, in degrees. */
function boxOf(outline: Outline): Box {
  const corners = partsOf(outline).flat(2) as ReadonlyArray<readonly number[]>;
  let box: Box = [Infinity, Infinity, -Infinity, -Infinity];
  for (const [east = 0, north = 0] of corners)
    box = [Math.min(box[0], east), Math.min(box[1], north), Math.max(box[2], east), Math.max(box[3], north)];
  return box;
}

/** Whether two boxes share ground; what lies apart needs no cutting. */
function boxesMeet(one: Box, other: Box): boolean {
  return one[0] <= other[2] && other[0] <= one[2] && one[1] <= other[3] && other[1] <= one[3];
}

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
 * @throws {PlanError} for an outline that crosses itself.
 */
export function treatedArea(outline: Outline, exclusions: readonly Outline[]): TreatedArea {
  const plane = planeAt(outline);
  const whole = read(plane, outline);
  const box = boxOf(outline);
  const taken = unionOf(
    exclusions.filter((exclusion) => boxesMeet(box, boxOf(exclusion))).map((exclusion) => read(plane, exclusion)),
  );
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
 * @throws {PlanError} when the line does not go all the way through.
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
    throw new PlanError('The line does not cut the zone in two: start and end it outside the border.');
  return parts.sort((one, other) => areaOf(other) - areaOf(one));
}

/** Two outlines as one. @throws {PlanError} when they do not share a border. */
export function merge(one: Outline, other: Outline): Outline {
  const plane = planeAt(one);
  const merged = either(read(plane, one), read(plane, other));
  const joined = write(plane, merged);
  if (!joined || partsOf(joined).length > Math.max(partsOf(one).length, partsOf(other).length))
    throw new PlanError('The two do not share a border, so they cannot become one zone: close the gap first.');
  return joined;
}

/** An outline less another. @throws {PlanError} when nothing is left. */
export function cutOut(outline: Outline, hole: Outline): Outline {
  const plane = planeAt(outline);
  const left = write(plane, without(read(plane, outline), read(plane, hole)));
  if (!left) throw new PlanError('Nothing would be left of the zone.');
  return left;
}

export interface Parted {
  /** The part that was asked for. */
  readonly part: Outline;
  /** What is left of the zone. */
  readonly rest: Outline;
}

function parted(plane: Plane, whole: Geometry, tool: Geometry, where: string): Parted {
  const part = write(plane, both(whole, tool));
  if (!part) throw new PlanError(`Nothing of the zone lies ${where}.`);
  const rest = write(plane, without(whole, tool));
  if (!rest) throw new PlanError(`The whole zone lies ${where}, so there is nothing to part it from.`);
  return { part, rest };
}

/**
 * The strip of a zone along an edge, such as the yard beside paving that scorches.
 *
 * @param edge points of the edge; `width` m of the strip, measured from it.
 */
export function stripAlong(outline: Outline, edge: readonly Position[], width: number): Parted {
  if (!(width > 0)) throw new PlanError('The width of a strip is more than 0.');
  const plane = planeAt(outline);
  return parted(
    plane,
    read(plane, outline),
    BufferOp.bufferOp(readLine(plane, edge), width, round),
    'within the strip',
  );
}

/**
 * The ground of a zone under a tree's canopy, or a ring at the canopy's edge.
 *
 * @param radius m of the canopy; `ring` m of the ring's width, half to each side of the edge; none for all that is under it.
 */
export function underCanopy(outline: Outline, stem: Position, radius: number, ring?: number): Parted {
  if (!(radius > 0)) throw new PlanError('The radius of a canopy is more than 0.');
  if (ring !== undefined && !(ring > 0 && ring / 2 < radius))
    throw new PlanError('The ring is wider than 0, and narrower than the canopy.');
  const plane = planeAt(outline);
  const around = (distance: number): Geometry =>
    BufferOp.bufferOp(reader.read({ type: 'Point', coordinates: plane.toPlane(stem) }), distance, round);
  const tool = ring === undefined ? around(radius) : without(around(radius + ring / 2), around(radius - ring / 2));
  return parted(plane, read(plane, outline), tool, ring === undefined ? 'under the canopy' : 'at the canopy’s edge');
}

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
  const grown = BufferOp.bufferOp(covered, width / 2, square);
  const gaps = polygonsIn(without(BufferOp.bufferOp(grown, -width / 2, square), covered)).flatMap((gap) => {
    const reach = BufferOp.bufferOp(gap, width / 20, square);
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
  const filled = either(read(plane, outlines[keeper]!), BufferOp.bufferOp(read(plane, fault.outline), 0.001, square));
  const others = fault.zones.slice(1).map((index) => read(plane, outlines[index]!));
  const mended = write(plane, others.reduce(without, filled));
  return new Map(mended ? [[keeper, mended]] : []);
}
