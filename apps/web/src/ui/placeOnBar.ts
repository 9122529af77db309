/**
 * Where a value stands on a reading bar, each segment linear between its own limits.
 *
 * @param limits where each segment after the first begins, rising; four for the five words of a rating.
 * @returns 0 to the number of segments, kept off the ends of each so that the pointer never stands on a border.
 */
export function placeOnBar(value: number, limits: readonly number[]): number {
  const first = limits[0] ?? 0;
  const last = limits.at(-1) ?? first;
  // The open ends are as wide as their neighbours.
  const below = (limits[1] ?? 2 * first) - first;
  const above = last - (limits.at(-2) ?? 0);
  const starts = [Math.max(0, Math.min(value, first - below)), ...limits, last + above];
  const segment = limits.filter((limit) => value >= limit).length;
  const from = starts[segment] ?? 0;
  const to = starts[segment + 1] ?? from;
  const share = to > from ? (value - from) / (to - from) : 0.5;
  return segment + Math.min(0.97, Math.max(0.03, share));
}
