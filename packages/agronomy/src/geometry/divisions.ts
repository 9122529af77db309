import type Geometry from 'jsts/org/locationtech/jts/geom/Geometry.js';
import { isExclusion, type FeatureKind, type DrawnGeometry } from '../ground/features.ts';
import { type SpotHeight, slopeBreak } from './levels.ts';
import {
  type Outline,
  GeometryError,
  areaOf,
  both,
  discAt,
  grow,
  partsOf,
  planeAt,
  polygonIn,
  read,
  round,
  unionOf,
  without,
} from './outline.ts';
import type { Plane, PlanePoint, Position } from './plane.ts';
import { type Parted, parted, splitBy } from './polygons.ts';

/** A thing on the ground, as far as it divides a zone. */
export interface GroundThing {
  readonly id: string;
  readonly kind: FeatureKind;
  readonly geometry: DrawnGeometry;
  /** m, of a tree. */
  readonly canopyRadius?: number | null | undefined;
  /** m above the ground, of a building, a fence or a tree; of a spot height, its level. */
  readonly height?: number | null | undefined;
}

/** Where one zone should be two, and on what evidence. */
export interface Division {
  readonly why: 'canopy' | 'paved edge' | 'shade' | 'slope break';
  /** The thing that divides it. */
  readonly thing?: string | undefined;
  /** m² of the part. */
  readonly area: number;
  /** Of the zone, 0 to 1. */
  readonly share: number;
  /** m of paved edge; m of shadow; percentage points between two slopes. */
  readonly measure: number;
  readonly parted: Parted;
}

/** A part smaller than this is not worth a bag of its own, m². */
const LEAST = 4;
/** From this share on it is no part of the zone but the zone itself. */
const MOST_SHARE = 0.75;
/** What scorches beside paving, m. */
const STRIP = 0.6;
const SHORTEST_EDGE = 5;
const DEGREE = Math.PI / 180;

/** The length of the shadow of 1 m at noon at an equinox, to the nearest pole, m. */
function equinoxShadow(latitude: number): number {
  return Math.tan(Math.abs(latitude) * DEGREE);
}

/** The ground that an outline, moved along a way, passes over. */
function swept(plane: Plane, rings: ReadonlyArray<readonly PlanePoint[]>, [east, north]: PlanePoint): Geometry {
  const pieces = rings.flatMap((ring) =>
    ring.slice(1).flatMap((to, index) => {
      const from = ring[index]!;
      // A side that the shadow only runs along covers no ground.
      const area = (to[0] - from[0]) * north - (to[1] - from[1]) * east;
      if (Math.abs(area) < 0.01) return [];
      const moved = (point: PlanePoint): PlanePoint => [point[0] + east, point[1] + north];
      return [polygonIn([from, to, moved(to), moved(from), from])];
    }),
  );
  return unionOf(pieces) ?? discAt(plane, plane.toMap([0, 0]), 0.001);
}

interface Sheet {
  readonly plane: Plane;
  readonly outline: Outline;
  readonly whole: Geometry;
  readonly area: number;
}

function division(
  { plane, whole, area }: Sheet,
  tool: Geometry,
  told: Pick<Division, 'why' | 'thing' | 'measure'>,
): Division[] {
  try {
    const parts = parted(plane, whole, tool, 'there');
    const part = areaOf(parts.part);
    const share = part / area;
    return part >= LEAST && share <= MOST_SHARE ? [{ ...told, area: part, share, parted: parts }] : [];
  } catch (error) {
    if (error instanceof GeometryError) return [];
    throw error;
  }
}

const place = ({ geometry }: GroundThing): Position | undefined =>
  geometry.type === 'Point' ? [geometry.coordinates[0] ?? 0, geometry.coordinates[1] ?? 0] : undefined;

function canopies(sheet: Sheet, things: readonly GroundThing[]): Division[] {
  return things.flatMap((thing) => {
    const stem = thing.kind === 'tree' ? place(thing) : undefined;
    if (!stem || !thing.canopyRadius) return [];
    const tool = discAt(sheet.plane, stem, thing.canopyRadius);
    return division(sheet, tool, { why: 'canopy', thing: thing.id, measure: thing.canopyRadius });
  });
}

/** Things that store the day's heat. */
const paving: readonly FeatureKind[] = ['drive', 'path', 'building'];

/** m of a thing's border that runs along or through a zone. */
function edgeLength({ whole }: Sheet, ground: Geometry): number {
  return both(ground.getBoundary(), grow(whole, 0.3, round)).getLength();
}

const outlineOf = ({ kind, geometry }: GroundThing): Outline | undefined =>
  isExclusion(kind) && (geometry.type === 'Polygon' || geometry.type === 'MultiPolygon') ? geometry : undefined;

function pavedThings(sheet: Sheet, things: readonly GroundThing[]) {
  return things.flatMap((thing) => {
    const outline = paving.includes(thing.kind) ? outlineOf(thing) : undefined;
    if (!outline) return [];
    const ground = read(sheet.plane, outline);
    const length = edgeLength(sheet, ground);
    return length > 0 ? [{ thing, ground, length }] : [];
  });
}

function pavedEdges(sheet: Sheet, things: readonly GroundThing[]): Division[] {
  const beside = pavedThings(sheet, things).filter(({ length }) => length >= SHORTEST_EDGE);
  const lawn = without(sheet.whole, unionOf(beside.map(({ ground }) => ground)) ?? grow(sheet.whole, -1e6, round));
  return beside.flatMap(({ thing, ground, length }) => {
    const strip = both(grow(ground, STRIP, round), lawn);
    return division(sheet, strip, { why: 'paved edge', thing: thing.id, measure: length });
  });
}

function shadows(sheet: Sheet, things: readonly GroundThing[]): Division[] {
  const [, latitude = 0] = partsOf(sheet.outline)[0]?.[0]?.[0] ?? [];
  return things.flatMap((thing) => {
    const { geometry, height } = thing;
    if (!height || thing.kind === 'tree') return [];
    const length = height * equinoxShadow(latitude);
    const rings =
      geometry.type === 'Polygon'
        ? geometry.coordinates
        : geometry.type === 'MultiPolygon'
          ? geometry.coordinates.flat()
          : geometry.type === 'LineString'
            ? [geometry.coordinates]
            : [];
    if (rings.length === 0 || length < 1) return [];
    const flat = rings.map((ring) => ring.map(([longitude = 0, lat = 0]) => sheet.plane.toPlane([longitude, lat])));
    const tool = swept(sheet.plane, flat, [0, latitude < 0 ? -length : length]);
    const found = division(sheet, tool, { why: 'shade', thing: thing.id, measure: length });
    return found.filter(({ share }) => share >= 0.08);
  });
}

function breaks({ outline, area }: Sheet, heights: readonly SpotHeight[]): Division[] {
  const found = slopeBreak(heights);
  if (!found) return [];
  try {
    const [rest, part] = splitBy(outline, found.line);
    const size = areaOf(part!);
    return [
      {
        why: 'slope break',
        area: size,
        share: size / area,
        measure: found.difference,
        parted: { part: part!, rest: rest! },
      },
    ];
  } catch (error) {
    if (error instanceof GeometryError) return [];
    throw error;
  }
}

/**
 * Where a zone should be two: ground under a canopy, a strip along what stores heat, ground in the noon shade of a wall
 * at the equinox, and two slopes that differ. Each comes with its parts, ready to be drawn.
 *
 * @param things what lies on the ground, in any order; heights that are not known cast no shade.
 * @param heights spot heights in or about the zone.
 * @throws {GeometryError} for an outline that crosses itself.
 */
export function divisions(
  outline: Outline,
  things: readonly GroundThing[],
  heights: readonly SpotHeight[],
): Division[] {
  const plane = planeAt(outline);
  const sheet: Sheet = { plane, outline, whole: read(plane, outline), area: areaOf(outline) };
  return [
    ...canopies(sheet, things),
    ...shadows(sheet, things),
    ...breaks(sheet, heights),
    ...pavedEdges(sheet, things),
  ].sort((one, other) => other.share - one.share);
}

/** What the plan says about a zone's surroundings. */
export interface Surroundings {
  /** % of the zone under canopies. */
  readonly canopy: number;
  /** m of border along paving and walls. */
  readonly paved: number;
}

/** @throws {GeometryError} for an outline that crosses itself. */
export function surroundings(outline: Outline, things: readonly GroundThing[]): Surroundings {
  const plane = planeAt(outline);
  const sheet: Sheet = { plane, outline, whole: read(plane, outline), area: areaOf(outline) };
  const shade = unionOf(
    things.flatMap((thing) => {
      const stem = thing.kind === 'tree' ? place(thing) : undefined;
      return stem && thing.canopyRadius ? [discAt(plane, stem, thing.canopyRadius)] : [];
    }),
  );
  const canopy = shade ? (100 * both(sheet.whole, shade).getArea()) / sheet.whole.getArea() : 0;
  return { canopy, paved: pavedThings(sheet, things).reduce((sum, { length }) => sum + length, 0) };
}
