import type Geometry from 'jsts/org/locationtech/jts/geom/Geometry.js';
import GeoJSONReader from 'jsts/org/locationtech/jts/io/GeoJSONReader.js';
import GeoJSONWriter from 'jsts/org/locationtech/jts/io/GeoJSONWriter.js';
import BufferOp from 'jsts/org/locationtech/jts/operation/buffer/BufferOp.js';
import BufferParameters from 'jsts/org/locationtech/jts/operation/buffer/BufferParameters.js';
import OverlayOp from 'jsts/org/locationtech/jts/operation/overlay/OverlayOp.js';
import SnapIfNeededOverlayOp from 'jsts/org/locationtech/jts/operation/overlay/snap/SnapIfNeededOverlayOp.js';
import IsValidOp from 'jsts/org/locationtech/jts/operation/valid/IsValidOp.js';
import { polygonArea, measureRing } from '../ground/polygonArea.ts';
import { Plane, type PlanePoint, type Position } from './plane.ts';

type Ring = ReadonlyArray<readonly number[]>;
/** A GeoJSON Polygon or MultiPolygon in WGS84. */
export type Outline =
  | { readonly type: 'Polygon'; readonly coordinates: readonly Ring[] }
  | { readonly type: 'MultiPolygon'; readonly coordinates: ReadonlyArray<readonly Ring[]> };

/** What cannot be drawn or cut, told to the person with what to do instead. */
export class GeometryError extends Error {}

/** Smaller than this nothing is ground: a hand's breadth, m². */
const NOTHING = 0.01;
export const round = new BufferParameters(16, BufferParameters.CAP_ROUND, BufferParameters.JOIN_ROUND, 5);
export const square = new BufferParameters(16, BufferParameters.CAP_FLAT, BufferParameters.JOIN_MITRE, 5);

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

export function planeAt(outline: Outline): Plane {
  const [longitude = 0, latitude = 0] = partsOf(outline)[0]?.[0]?.[0] ?? [];
  return new Plane([longitude, latitude]);
}

const reader = new GeoJSONReader();
const writer = new GeoJSONWriter();

/** The polygons of an outline on the plane. */
export function flat(plane: Plane, outline: Outline) {
  return partsOf(outline).map((rings) =>
    rings.map((ring) => ring.map(([longitude = 0, latitude = 0]) => plane.toPlane([longitude, latitude]))),
  );
}

export function read(plane: Plane, outline: Outline): Geometry {
  const geometry = reader.read({ type: 'MultiPolygon', coordinates: flat(plane, outline) });
  if (!IsValidOp.isValid(geometry))
    throw new GeometryError('The outline crosses or touches itself: move its corners apart, or draw it as several.');
  return geometry;
}

export function readLine(plane: Plane, line: readonly Position[]): Geometry {
  if (line.length < 2) throw new GeometryError('A line needs two points.');
  return reader.read({ type: 'LineString', coordinates: line.map((point) => plane.toPlane(point)) });
}

/** Every polygon in a geometry that is large enough to be ground. */
export function polygonsIn(geometry: Geometry): Geometry[] {
  const parts = Array.from({ length: geometry.getNumGeometries() }, (_, index) => geometry.getGeometryN(index));
  return parts.filter((part) => part.getGeometryType() === 'Polygon' && part.getArea() > NOTHING);
}

/** Corners nearer to each other than this are one: a hand that snaps misses by less, m. */
const HAIR = 0.001;

/** A closed ring on the map, without the hairs that a border followed by hand leaves where it is cut. */
function onMap(plane: Plane, ring: ReadonlyArray<readonly number[]>): number[][] {
  const far = ([east = 0, north = 0]: readonly number[], [toEast = 0, toNorth = 0]: readonly number[]): boolean =>
    Math.hypot(toEast - east, toNorth - north) > HAIR;
  const corners: Array<readonly number[]> = [];
  for (const corner of ring.slice(0, -1))
    if (corners.length === 0 || far(corners.at(-1)!, corner)) corners.push(corner);
  while (corners.length > 1 && !far(corners.at(-1)!, corners[0]!)) corners.pop();
  return [...corners, corners[0]!].map(([east = 0, north = 0]) => [...plane.toMap([east, north])]);
}

export function write(plane: Plane, geometry: Geometry): Outline | null {
  const polygons = polygonsIn(geometry).map((polygon) =>
    writer
      .write(polygon)
      .coordinates.map((ring) => onMap(plane, ring))
      .filter((ring, index) => index === 0 || ring.length > 3),
  );
  const [only] = polygons;
  if (!only) return null;
  return polygons.length === 1
    ? { type: 'Polygon', coordinates: only }
    : { type: 'MultiPolygon', coordinates: polygons };
}

/** All that lies within a distance of a geometry; a negative one shrinks it. */
export function grow(geometry: Geometry, distance: number, corners: BufferParameters): Geometry {
  return BufferOp.bufferOp(geometry, distance, corners);
}

const overlay = (one: Geometry, other: Geometry, operation: number): Geometry =>
  SnapIfNeededOverlayOp.overlayOp(one, other, operation);
export const both = (one: Geometry, other: Geometry): Geometry => overlay(one, other, OverlayOp.INTERSECTION);
export const either = (one: Geometry, other: Geometry): Geometry => overlay(one, other, OverlayOp.UNION);
export const without = (one: Geometry, other: Geometry): Geometry => overlay(one, other, OverlayOp.DIFFERENCE);

export function unionOf(geometries: readonly Geometry[]): Geometry | undefined {
  return geometries.length === 0 ? undefined : geometries.reduce(either);
}

export type Box = readonly [west: number, south: number, east: number, north: number];

/** The box about an outline, in degrees. */
export function boxOf(outline: Outline): Box {
  const corners = partsOf(outline).flat(2) as ReadonlyArray<readonly number[]>;
  let box: Box = [Infinity, Infinity, -Infinity, -Infinity];
  for (const [east = 0, north = 0] of corners)
    box = [Math.min(box[0], east), Math.min(box[1], north), Math.max(box[2], east), Math.max(box[3], north)];
  return box;
}

/** Whether two boxes share ground; what lies apart needs no cutting. */
export function boxesMeet(one: Box, other: Box): boolean {
  return one[0] <= other[2] && other[0] <= one[2] && one[1] <= other[3] && other[1] <= one[3];
}

/** The ground within a distance of a place. */
export function discAt(plane: Plane, place: Position, radius: number): Geometry {
  return grow(reader.read({ type: 'Point', coordinates: plane.toPlane(place) }), radius, round);
}

/** A polygon on the plane by its closed ring. */
export function polygonIn(ring: readonly PlanePoint[]): Geometry {
  return reader.read({ type: 'Polygon', coordinates: [ring] });
}
