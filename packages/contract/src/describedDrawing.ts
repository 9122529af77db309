import { type DrawnGeometry, type FeatureKind, type UnitSystem, isExclusion, present } from '@glenfold/agronomy';
import type { GroundFeatureAnswer } from './drawing.ts';
import type { ZoneAnswer } from './site.ts';
import { colours, fillings, lineDashes, marks, zoneHatches } from './symbols.ts';

/** How a thing looks, whatever draws it. Inks and grounds are {@link colours}; strokes repeat in a square of `HATCH`. */
export type Look =
  /** `hatching` names the strokes: things with one name look alike. */
  | {
      readonly as: 'ground';
      readonly ground: string;
      readonly hatching: string;
      readonly strokes: string;
      readonly ink: string;
    }
  | { readonly as: 'line'; readonly ink: string; readonly dash: readonly number[] }
  /** `canopy` is a radius in metres. */
  | { readonly as: 'tree'; readonly canopy: number | null }
  | { readonly as: 'height' }
  /** A letter in a shape of so many corners; none is a circle. */
  | { readonly as: 'mark'; readonly letter: string; readonly corners: number };

/** One thing of a site's drawing. */
export interface Described {
  readonly id: string;
  readonly kind: 'zone' | FeatureKind;
  /** Place in the list of zones; of a zone only. */
  readonly position: number;
  readonly geometry: DrawnGeometry;
  /** Its name, or the height of a spot; nothing where it has none. */
  readonly text: string | null;
  readonly look: Look;
}

/** How a zone at this place of the list looks. */
export function zoneLook(position: number): Extract<Look, { as: 'ground' }> {
  const hatch = position % zoneHatches.length;
  return {
    as: 'ground',
    ground: colours.lichenWash,
    hatching: `zone-${hatch}`,
    strokes: zoneHatches[hatch]!,
    ink: colours.faded,
  };
}

/** How a thing of this kind looks. */
export function lookOf(kind: FeatureKind, canopyRadius?: number | null): Look {
  if (isExclusion(kind)) return { as: 'ground', hatching: kind, ...fillings[kind]! };
  const line = lineDashes[kind];
  if (line) return { as: 'line', ...line };
  if (kind === 'tree') return { as: 'tree', canopy: canopyRadius ?? null };
  return kind === 'spot height' ? { as: 'height' } : { as: 'mark', ...marks[kind]! };
}

/**
 * A site's drawing, described once for all that draw it: screen, paper and sketch. What lies under comes first: zones in
 * the order of their list, what is not treated, then lines and places.
 */
export function describeDrawing(
  { zones, features }: { readonly zones: readonly ZoneAnswer[]; readonly features: readonly GroundFeatureAnswer[] },
  units: UnitSystem,
): readonly Described[] {
  const grounds = zones.flatMap(({ id, name, geometry }, position): Described[] =>
    geometry ? [{ id, kind: 'zone', position, geometry, text: name, look: zoneLook(position) }] : [],
  );
  const things = features.map(({ id, kind, geometry, name, canopyRadius, height }): Described => {
    const spot = kind === 'spot height' && height != null;
    return {
      id,
      kind,
      position: -1,
      geometry,
      text: (spot ? present('spotHeight', height, units).text : name) ?? null,
      look: lookOf(kind, canopyRadius),
    };
  });
  const under = (thing: Described): boolean => thing.look.as === 'ground';
  return [...grounds, ...things.filter(under), ...things.filter((thing) => !under(thing))];
}
