import { InputError } from '../calculators/fields.ts';
import { outlines } from './areaPolygon.ts';

/** Ground inside a zone that is not treated. */
export const exclusionKinds = ['bed', 'building', 'drive', 'pond', 'path'] as const;
export const lineKinds = ['buried line', 'irrigation', 'fence'] as const;
export const pointKinds = ['gate', 'tree', 'tap', 'downspout', 'drain', 'spot height'] as const;
export const featureKinds = [...exclusionKinds, ...lineKinds, ...pointKinds] as const;
export type ExclusionKind = (typeof exclusionKinds)[number];
export type FeatureKind = (typeof featureKinds)[number];

/** A GeoJSON geometry of the plan in WGS84. */
export type DrawnGeometry =
  | { readonly type: 'Point'; readonly coordinates: number[] }
  | { readonly type: 'LineString'; readonly coordinates: number[][] }
  | { readonly type: 'Polygon'; readonly coordinates: number[][][] }
  | { readonly type: 'MultiPolygon'; readonly coordinates: number[][][][] };

export function isExclusion(kind: FeatureKind): kind is ExclusionKind {
  return (exclusionKinds as readonly string[]).includes(kind);
}

/** The types of geometry in which a thing on the ground is drawn. */
export function geometryTypes(kind: FeatureKind | 'zone'): ReadonlyArray<DrawnGeometry['type']> {
  if (kind === 'zone' || isExclusion(kind)) return ['Polygon', 'MultiPolygon'];
  return (lineKinds as readonly string[]).includes(kind) ? ['LineString'] : ['Point'];
}

const MOST_POINTS = 5000;
const areas = outlines();

function checkPosition(raw: unknown, path: string): void {
  const [longitude, latitude] = (Array.isArray(raw) ? raw : []) as unknown[];
  if (typeof longitude !== 'number' || typeof latitude !== 'number' || !Number.isFinite(longitude + latitude))
    throw new InputError(path, 'is no place; wanted [longitude, latitude] in degrees');
  if (Math.abs(latitude) > 90 || Math.abs(longitude) > 180)
    throw new InputError(
      path,
      `was given [${longitude}, ${latitude}]; wanted [longitude, latitude] within ±180 and ±90 degrees`,
    );
}

/**
 * Check that a geometry is what a thing of its kind is drawn as, in WGS84.
 *
 * @throws {InputError} naming the place in the geometry; an outline that crosses itself is refused.
 */
export function checkGeometry(raw: unknown, kind: FeatureKind | 'zone', path: string): asserts raw is DrawnGeometry {
  const { type, coordinates } = (typeof raw === 'object' && raw !== null ? raw : {}) as Partial<DrawnGeometry>;
  const wanted = geometryTypes(kind);
  if (!wanted.includes(type!) || !Array.isArray(coordinates))
    throw new InputError(path, `is no geometry of a ${kind}; wanted a GeoJSON ${wanted.join(' or ')}`);
  if (type === 'Point') checkPosition(coordinates, `${path}.coordinates`);
  else if (type === 'LineString') {
    if (coordinates.length < 2 || coordinates.length > MOST_POINTS)
      throw new InputError(`${path}.coordinates`, `has ${coordinates.length} points; wanted 2 to ${MOST_POINTS}`);
    for (const [index, position] of coordinates.entries()) checkPosition(position, `${path}.coordinates.${index}`);
  } else areas.read(raw, path);
}
