import { segmentsMeet } from '../ground/crossing.ts';
import { type Outline, GeometryError, partsOf } from './outline.ts';

/** More crossings than any ground has; cutting along them would take minutes and gigabytes. */
const MOST_CROSSINGS = 4000;
/** And more pairs of sides than are worth looking at one by one. */
const MOST_PAIRS = 20_000_000;

interface Side {
  readonly of: number;
  readonly a: readonly [number, number];
  readonly b: readonly [number, number];
  readonly west: number;
  readonly east: number;
  readonly south: number;
  readonly north: number;
}

function sidesOf(outline: Outline, of: number): Side[] {
  return partsOf(outline)
    .flat()
    .flatMap((ring) =>
      ring.slice(1).map(([x = 0, y = 0], index): Side => {
        const [fromX = 0, fromY = 0] = ring[index]!;
        return {
          of,
          a: [fromX, fromY],
          b: [x, y],
          west: Math.min(x, fromX),
          east: Math.max(x, fromX),
          south: Math.min(y, fromY),
          north: Math.max(y, fromY),
        };
      }),
    );
}

/**
 * Refuse outlines that cross one another too often to be cut, before any cutting: combs laid across each other, or a
 * drawing that went wrong. Stops counting as soon as it is too many.
 *
 * @throws {GeometryError}
 */
export function refuseTangled(outlines: readonly Outline[]): void {
  const sides = outlines.flatMap(sidesOf).sort((one, other) => one.west - other.west);
  let crossings = 0;
  let pairs = 0;
  let open: Side[] = [];
  for (const side of sides) {
    open = open.filter(({ east }) => east >= side.west);
    for (const other of open) {
      pairs += 1;
      if (pairs > MOST_PAIRS) refuse();
      if (other.of === side.of || other.north < side.south || other.south > side.north) continue;
      if (!segmentsMeet(side.a, side.b, other.a, other.b)) continue;
      crossings += 1;
      if (crossings > MOST_CROSSINGS) refuse();
    }
    open.push(side);
  }
}

function refuse(): never {
  throw new GeometryError(
    'These outlines cross one another too often to be measured: redraw them simpler, or leave out the thing that runs to and fro across the zone.',
  );
}
