/**
 * Where a value stands on a reading bar of five segments, each linear between
 * its own limits.
 *
 * @param limits starts of low, medium, high and very high, rising.
 * @returns 0 to 5 in segments, kept off the ends of each so that the pointer never stands on a border.
 */
export function placeOnBar(value: number, limits: readonly number[]): number {
  const [low = 0, medium = 0, high = 0, veryHigh = 0] = limits;
  const starts = [
    Math.max(0, Math.min(value, low - (medium - low))),
    low,
    medium,
    high,
    veryHigh,
    veryHigh + (veryHigh - high),
  ];
  const segment = limits.filter((limit) => value >= limit).length;
  const from = starts[segment] ?? 0;
  const to = starts[segment + 1] ?? from;
  const share = to > from ? (value - from) / (to - from) : 0.5;
  return segment + Math.min(0.97, Math.max(0.03, share));
}
