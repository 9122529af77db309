import { type GroundThing, surroundings } from './divisions.ts';
import { type SpotHeight, fallOf } from './levels.ts';
import { GeometryError, type Outline } from './outline.ts';
import { contains } from './polygons.ts';

/** m about a zone that still count as of it: levels are taken at its edge. */
const ABOUT = 2;

/** Spot heights in or just about a zone. */
export function spotHeightsOf(outline: Outline | null, things: readonly GroundThing[]): SpotHeight[] {
  return things.flatMap(({ kind, geometry, height }) => {
    if (kind !== 'spot height' || height == null || geometry.type !== 'Point' || !outline) return [];
    const [longitude = 0, latitude = 0] = geometry.coordinates;
    const position = [longitude, latitude] as const;
    return contains(outline, position, ABOUT) ? [{ position, height }] : [];
  });
}

/** What a drawing tells of a zone. */
export interface DrawnFacts {
  /** % of it under canopies. */
  readonly canopy?: number;
  /** m of border along paving and walls. */
  readonly paved?: number;
  /** % of its fall. */
  readonly slope?: number;
  /** cm of the deepest standing water by the spot heights. */
  readonly hollow?: number;
}

/** What the drawing says of a zone; nothing where it is not drawn, or cannot be read. */
export function drawnFacts(outline: Outline | null, things: readonly GroundThing[]): DrawnFacts {
  if (!outline) return {};
  try {
    const spots = spotHeightsOf(outline, things);
    const fall = spots.length >= 3 ? fallOf(spots) : undefined;
    return {
      ...surroundings(outline, things),
      ...(fall ? { slope: fall.slope } : {}),
      ...(fall?.tellsHollows ? { hollow: fall.hollows[0]?.depth ?? 0 } : {}),
    };
  } catch (error) {
    if (error instanceof GeometryError) return {};
    throw error;
  }
}
