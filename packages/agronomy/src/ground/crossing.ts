type Point = readonly [x: number, y: number];

/** Twice the signed area of a triangle: which way the turn goes at b. */
function turn(a: Point, b: Point, c: Point): number {
  return (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]);
}

function between(a: number, b: number, value: number): boolean {
  return Math.min(a, b) <= value && value <= Math.max(a, b);
}

const onSegment = (a: Point, b: Point, point: Point): boolean =>
  turn(a, b, point) === 0 && between(a[0], b[0], point[0]) && between(a[1], b[1], point[1]);

/** Whether two spans of one axis lie apart. */
const apart = (a: number, b: number, c: number, d: number): boolean =>
  (a < c && a < d && b < c && b < d) || (a > c && a > d && b > c && b > d);

/** Whether two segments share a point. */
export function segmentsMeet(a: Point, b: Point, c: Point, d: Point): boolean {
  // Most pairs of an outline are far from each other.
  if (apart(a[0], b[0], c[0], d[0]) || apart(a[1], b[1], c[1], d[1])) return false;
  const [one, two, three, four] = [turn(a, b, c), turn(a, b, d), turn(c, d, a), turn(c, d, b)];
  if (one * two < 0 && three * four < 0) return true;
  return onSegment(a, b, c) || onSegment(a, b, d) || onSegment(c, d, a) || onSegment(c, d, b);
}

/** The sides of an outline whose first corner is not repeated. */
export function sides(corners: readonly Point[]): ReadonlyArray<readonly [Point, Point]> {
  return corners.map((corner, index) => [corner, corners[(index + 1) % corners.length]!]);
}

/** Whether an outline crosses or touches itself. */
export function crossesItself(corners: readonly Point[]): boolean {
  const all = sides(corners);
  return all.some(([a, b], index) =>
    all.some(([c, d], other) => {
      if (other <= index) return false;
      const next = other === index + 1;
      const closing = index === 0 && other === all.length - 1;
      // Neighbours share a corner; they may share no more than that.
      if (next) return onSegment(a, b, d) || onSegment(c, d, a);
      if (closing) return onSegment(a, b, c) || onSegment(c, d, b);
      return segmentsMeet(a, b, c, d);
    }),
  );
}

/** Whether the sides of two outlines share a point. */
export function outlinesMeet(one: readonly Point[], other: readonly Point[]): boolean {
  return sides(one).some(([a, b]) => sides(other).some(([c, d]) => segmentsMeet(a, b, c, d)));
}

/** Whether a point lies inside an outline, by the crossings of a ray. */
export function isInside([x, y]: Point, corners: readonly Point[]): boolean {
  return sides(corners).reduce(
    (inside, [[ax, ay], [bx, by]]) =>
      ay > y !== by > y && x < ((bx - ax) * (y - ay)) / (by - ay) + ax ? !inside : inside,
    false,
  );
}

export type { Point };
