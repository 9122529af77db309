import type { PlanePoint } from '../geometry/plane.ts';

const square = (one: PlanePoint, other: PlanePoint): number => (one[0] - other[0]) ** 2 + (one[1] - other[1]) ** 2;
const ROUNDS = 30;
const PASSES = 12;

/**
 * Part cells into compact strata of one size: k-means with room for as many cells in each stratum, then cells of two
 * strata change places while that brings both nearer to their middles.
 *
 * @param cells middles of equal cells, m; `count` strata; `chance` even between 0 and 1.
 * @returns the middle of each stratum's cells, and its cells by their places in the list.
 * @see Walvoort, Brus & de Gruijter (2010), Computers & Geosciences 36: 1261–1267
 */
export function equalStrata(
  cells: readonly PlanePoint[],
  count: number,
  chance: () => number,
): ReadonlyArray<{ readonly middle: PlanePoint; readonly cells: readonly number[] }> {
  let middles = spread(cells, count, chance);
  const stratumOf = new Int32Array(cells.length);
  const middleOf = (stratum: number): PlanePoint => {
    let [east, north, number] = [0, 0, 0];
    for (let cell = 0; cell < cells.length; cell += 1)
      if (stratumOf[cell] === stratum)
        [east, north, number] = [east + cells[cell]![0], north + cells[cell]![1], number + 1];
    return number === 0 ? middles[stratum]! : [east / number, north / number];
  };
  for (let round = 0; round < ROUNDS; round += 1) {
    fill(cells, middles, stratumOf);
    const moved = middles.map((_, stratum) => middleOf(stratum));
    const still = moved.every((middle, stratum) => square(middle, middles[stratum]!) < 1e-6);
    middles = moved;
    if (still) break;
  }
  for (let pass = 0; pass < PASSES; pass += 1) {
    let swapped = false;
    for (let one = 0; one < cells.length; one += 1) {
      const own = stratumOf[one]!;
      for (let other = one + 1; other < cells.length; other += 1) {
        const their = stratumOf[other]!;
        if (own === their) continue;
        const [a, b] = [middles[stratumOf[one]!]!, middles[their]!];
        if (
          square(cells[one]!, b) + square(cells[other]!, a) <
          square(cells[one]!, a) + square(cells[other]!, b) - 1e-9
        ) {
          [stratumOf[one], stratumOf[other]] = [their, stratumOf[one]!];
          swapped = true;
          break;
        }
      }
    }
    if (!swapped) break;
    middles = middles.map((_, stratum) => middleOf(stratum));
  }
  return middles.map((middle, stratum) => ({
    middle,
    cells: [...cells.keys()].filter((cell) => stratumOf[cell] === stratum),
  }));
}

/** First middles far from one another (k-means++: Arthur & Vassilvitskii 2007). */
function spread(cells: readonly PlanePoint[], count: number, chance: () => number): PlanePoint[] {
  const middles = [cells[Math.floor(chance() * cells.length)]!];
  const nearest = cells.map((cell) => square(cell, middles[0]!));
  while (middles.length < count) {
    let left = chance() * nearest.reduce((sum, value) => sum + value, 0);
    const index = nearest.findIndex((value) => (left -= value) < 0);
    const middle = cells[index < 0 ? cells.length - 1 : index]!;
    middles.push(middle);
    cells.forEach((cell, at) => (nearest[at] = Math.min(nearest[at]!, square(cell, middle))));
  }
  return middles;
}

/** Each cell to a middle near it, those with most to lose first, as long as there is room. */
function fill(cells: readonly PlanePoint[], middles: readonly PlanePoint[], stratumOf: Int32Array): void {
  const distances = cells.map((cell) => middles.map((middle) => square(cell, middle)));
  const order = cells
    .map((_, cell) => ({ cell, loss: Math.max(...distances[cell]!) - Math.min(...distances[cell]!) }))
    .sort((one, other) => other.loss - one.loss);
  // The first few strata take one cell more where it does not divide.
  const room = middles.map(
    (_, stratum) => Math.floor(cells.length / middles.length) + (stratum < cells.length % middles.length ? 1 : 0),
  );
  for (const { cell } of order) {
    let [best, nearest] = [-1, Infinity];
    distances[cell]!.forEach((distance, stratum) => {
      if (room[stratum]! > 0 && distance < nearest) [best, nearest] = [stratum, distance];
    });
    stratumOf[cell] = best;
    room[best]! -= 1;
  }
}
