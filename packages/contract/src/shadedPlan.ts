import { Plane, type PlanePoint, cornersOf, endsOf, innerPlace, pathOf, perMetreWithin, placedIn } from '@glenfold/agronomy/geometry'; // prettier-ignore
import { type Bar, ratings } from '@glenfold/agronomy';
import type { ZoneGeometry } from './site.ts';
import { colours } from './symbols.ts';

/** How a word of a reading is shaded: a ground and a hatching, so that print and colour-blind eyes tell them apart. */
export interface Shade {
  /** Name under which a pattern is defined. */
  readonly name: string;
  readonly ground: string;
  /** Strokes of a square of `SHADE` a side; nothing where it is plain. */
  readonly strokes: string;
  readonly ink: string;
}

/** Side of the square in which a shade repeats. */
export const SHADE = 8;

const below = 'M-2 10L10 -2M-2 2L2 -2M6 10L10 6';
const above = 'M-2 -2L10 10M6 -2L10 2M-2 6L2 10';

/** From far below to far above what is wanted; what was not measured is dotted. */
export const planShades: Readonly<Record<'farBelow' | 'below' | 'wanted' | 'above' | 'farAbove' | 'unknown', Shade>> = {
  farBelow: { name: 'far-below', ground: '#D9A66B', strokes: `${below}M-2 6L6 -2M2 10L10 2`, ink: colours.ochre },
  below: { name: 'below', ground: '#F0DFC9', strokes: below, ink: colours.ochre },
  wanted: { name: 'wanted', ground: colours.sheet, strokes: '', ink: colours.lichen },
  above: { name: 'above', ground: '#DCE2E6', strokes: above, ink: colours.slate },
  farAbove: { name: 'far-above', ground: '#A9B7C3', strokes: `${above}M2 -2L10 6M-2 2L6 10`, ink: colours.slate },
  unknown: { name: 'unknown', ground: '#EDE8DC', strokes: 'M2 2h.9M6 6h.9', ink: colours.faded },
};

/** The shade of a reading by where its word lies beside the one that is wanted; a sink of salt or thatch is shaded as below. */
export function shadeOf(bar: Pick<Bar, 'rating' | 'scale' | 'acts'> | undefined): Shade {
  if (!bar) return planShades.unknown;
  const { scale, rating } = bar;
  if (!scale && rating === null) return planShades.unknown;
  const by = scale ? scale.at - scale.wanted : ratings.indexOf(rating!) - ratings.indexOf('medium');
  if (by === 0) return planShades.wanted;
  // Where the wanted word is the first, more is worse: the warm side is what asks for care.
  const warm = scale ? bar.acts : by < 0;
  const far = Math.abs(by) > 1;
  return warm ? (far ? planShades.farBelow : planShades.below) : far ? planShades.farAbove : planShades.above;
}

/** A zone on a small drawing. */
export interface ShadedShape {
  readonly zoneId: string;
  readonly path: string;
  /** Where its number stands. */
  readonly at: readonly [x: number, y: number];
}

/** Zones to scale in a box, for a drawing shaded by a measure; those without an outline are left out. */
export function shadedPlan(
  zones: ReadonlyArray<{ readonly zoneId: string; readonly geometry: ZoneGeometry | null }>,
  box: { readonly width: number; readonly height: number },
): readonly ShadedShape[] {
  const drawn = zones.flatMap(({ zoneId, geometry }) => (geometry ? [{ zoneId, geometry }] : []));
  const [first] = drawn.flatMap(({ geometry }) => cornersOf(geometry));
  if (!first) return [];
  const plane = new Plane(first);
  const room = 6;
  const frame = { x: room, y: room, width: box.width - 2 * room, height: box.height - 2 * room };
  const ends = endsOf(drawn.flatMap(({ geometry }) => cornersOf(geometry).map((corner): PlanePoint => plane.toPlane(corner)))); // prettier-ignore
  const place = placedIn(ends, frame, perMetreWithin(ends, frame));
  const at = (position: readonly [number, number]) => place(plane.toPlane(position));
  return drawn.map(({ zoneId, geometry }) => ({
    ...{ zoneId, path: pathOf(geometry, at) },
    at: at(innerPlace(geometry).at),
  }));
}
