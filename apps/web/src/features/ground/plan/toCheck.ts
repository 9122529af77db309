import { type Outline, neighbours, partsOf } from '@glenfold/agronomy/plan';
import type { ZoneAnswer } from '@glenfold/contract';

/** As many corners as are looked through without a person noticing. */
const CORNERS = 300;

const corners = (zones: readonly ZoneAnswer[]): number =>
  zones.reduce((sum, { geometry }) => sum + partsOf(geometry as Outline).flat(2).length, 0);

/** The drawn zones to look through for overlaps: all, or those about the chosen one where the plan is large. */
export function toCheck(drawn: readonly ZoneAnswer[], chosen: string | undefined): readonly ZoneAnswer[] {
  if (corners(drawn) <= CORNERS) return drawn;
  const at = drawn.findIndex(({ id }) => id === chosen);
  if (at < 0) return [];
  const outlines = drawn.map(({ geometry }) => geometry as Outline);
  const about = neighbours(outlines, at).map((index) => drawn[index]!);
  return corners(about) <= 2 * CORNERS ? about : [];
}
