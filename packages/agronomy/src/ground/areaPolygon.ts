import { defineCalculator } from '../calculators/calculator.ts';
import { type Field, InputError, optional } from '../calculators/fields.ts';
import { type WorkingBook, figure } from '../working/working.ts';
import { measureRing } from './polygonArea.ts';
import { type Point, crossesItself, isInside, outlinesMeet } from './crossing.ts';

const SOURCE = 'Karney (2013), Algorithms for geodesics, Journal of Geodesy 87:43–55, on the WGS84 ellipsoid';
/** Enough for any lawn; the check against crossings looks at every pair of sides. */
const MOST_CORNERS = 5000;

type Ring = readonly Point[];
/** Outer ring first, then holes. */
type Rings = readonly Ring[];

interface Geometry {
  readonly type?: unknown;
  readonly coordinates?: unknown;
  readonly geometry?: unknown;
}

function readRing(raw: unknown, path: string): Ring {
  if (!Array.isArray(raw)) throw new InputError(path, 'is no ring; wanted a list of [longitude, latitude]');
  const corners = raw.map((entry: unknown, index): Point => {
    const [longitude, latitude] = (Array.isArray(entry) ? entry : []) as unknown[];
    if (typeof longitude !== 'number' || typeof latitude !== 'number' || !Number.isFinite(longitude + latitude))
      throw new InputError(`${path}.${index}`, 'is no corner; wanted [longitude, latitude] in degrees');
    if (Math.abs(latitude) > 90 || Math.abs(longitude) > 180)
      throw new InputError(
        `${path}.${index}`,
        `was given [${longitude}, ${latitude}]; wanted [longitude, latitude] within ±180 and ±90 degrees: are they swapped, or in another coordinate system?`,
      );
    return [longitude, latitude];
  });
  const [first, last] = [corners[0], corners.at(-1)];
  const open = corners.length > 1 && first![0] === last![0] && first![1] === last![1] ? corners.slice(0, -1) : corners;
  if (open.length < 3) throw new InputError(path, `was given ${open.length} corners; wanted three or more`);
  if (open.length > MOST_CORNERS)
    throw new InputError(
      path,
      `was given ${open.length} corners; wanted at most ${MOST_CORNERS}: simplify the outline`,
    );
  if (crossesItself(open))
    throw new InputError(
      path,
      'crosses or touches itself, so it has no single area; redraw it as one outline, or as several',
    );
  return open;
}

/** A GeoJSON Polygon or MultiPolygon, or a Feature of one, or a list of them. */
function polygons(listed: boolean): Field<readonly Rings[], false> {
  const wanted = `a GeoJSON Polygon or MultiPolygon${listed ? ', or a list of them' : ''}`;
  const read = (raw: unknown, path: string): readonly Rings[] => {
    if (listed && Array.isArray(raw)) return raw.flatMap((entry, index) => read(entry, `${path}.${index}`));
    const { type, coordinates, geometry } = (typeof raw === 'object' && raw !== null ? raw : {}) as Geometry;
    if (type === 'Feature') return read(geometry, `${path}.geometry`);
    if ((type !== 'Polygon' && type !== 'MultiPolygon') || !Array.isArray(coordinates) || coordinates.length === 0)
      throw new InputError(path, `is not ${wanted} with coordinates in WGS84`);
    const parts = (type === 'Polygon' ? [coordinates] : coordinates) as unknown[];
    return parts.map((part, index) => {
      const own = type === 'Polygon' ? `${path}.coordinates` : `${path}.coordinates.${index}`;
      if (!Array.isArray(part) || part.length === 0) throw new InputError(own, `is empty; wanted ${wanted}`);
      return part.map((ring, place) => readRing(ring, `${own}.${place}`));
    });
  };
  return { description: wanted, optional: false, shape: { kind: 'json' }, read };
}

/** One outline: a polygon or several, none crossing itself. */
export const outlines = (): Field<unknown, false> => polygons(false);

const total = (values: readonly number[]): number => values.reduce((sum, value) => sum + value, 0);

function liesInside(inner: Ring, [outer, ...holes]: Rings): boolean {
  return (
    isInside(inner[0]!, outer!) &&
    !outlinesMeet(inner, outer!) &&
    holes.every((hole) => !outlinesMeet(inner, hole) && !isInside(inner[0]!, hole))
  );
}

/** Holes lie inside their outline and clear of each other; what is said of a ring names where it stands. */
function checkNesting(parts: readonly Rings[], exclusions: readonly Rings[]): void {
  for (const [index, [outer, ...holes]] of parts.entries())
    for (const [place, hole] of holes.entries())
      if (!liesInside(hole, [outer!]))
        throw new InputError(
          `polygon.${index}.hole ${place + 1}`,
          'does not lie inside its outline; cut it at the border',
        );
  for (const [index, [outer]] of exclusions.entries()) {
    if (!parts.some((part) => liesInside(outer!, part)))
      throw new InputError(
        `exclusions.${index}`,
        'does not lie wholly inside the polygon, so its part of the area is not known; cut it at the border, or leave it out',
      );
    for (const [later, [other]] of exclusions.slice(index + 1).entries())
      if (outlinesMeet(outer!, other!) || isInside(outer![0]!, other!) || isInside(other![0]!, outer!))
        throw new InputError(
          `exclusions.${index + 1 + later}`,
          `overlaps exclusions.${index}; join the two, or it is taken off twice`,
        );
  }
}

function areaOf(parts: readonly Rings[], label: string, book: WorkingBook): number {
  const outer = total(parts.map(([ring]) => measureRing(ring!).area));
  const holes = total(parts.flatMap(([, ...rings]) => rings.map((ring) => measureRing(ring).area)));
  book.step({
    label,
    formula: holes > 0 ? 'outlines − holes' : 'geodesic area of the outline',
    numbers:
      holes > 0
        ? `${figure(outer)} − ${figure(holes)} m²`
        : `${parts.length} of ${parts.map(([ring]) => ring!.length).join(', ')} corners`,
    result: outer - holes,
    unit: 'm2',
    source: SOURCE,
  });
  return outer - holes;
}

/**
 * Area of an outline on the ellipsoid, less its holes and exclusions.
 *
 * @param polygon GeoJSON Polygon or MultiPolygon in WGS84, [longitude, latitude]; `exclusions` the same, or a list:
 *   beds, buildings and ponds that lie wholly inside.
 * @returns `area` m²; `perimeter` m of the outer outlines.
 * @throws {InputError} for an outline that crosses itself, and for exclusions that reach over the border or overlap.
 */
export const areaPolygon = defineCalculator({
  name: 'area.polygon',
  title: 'Area of an outline',
  source: SOURCE,
  inputs: { polygon: polygons(false), exclusions: optional(polygons(true)) },
  outputs: { area: 'm2', perimeter: 'm' },
  compute({ polygon, exclusions = [] }, book) {
    checkNesting(polygon, exclusions);
    const whole = areaOf(polygon, 'Inside the outline', book);
    const out = exclusions.length > 0 ? areaOf(exclusions, 'Exclusions', book) : 0;
    const perimeter = total(polygon.map(([ring]) => measureRing(ring!).perimeter));
    book.step({
      label: 'Area that is treated',
      formula: 'inside the outline − exclusions',
      numbers: `${figure(whole)} − ${figure(out)} m²`,
      result: whole - out,
      unit: 'm2',
    });
    return { area: whole - out, perimeter };
  },
});
