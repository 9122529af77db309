/**
 * Two-sided deviate of the standard normal distribution.
 *
 * @param confidence % of the distribution that lies within ± the deviate, above 0 and below 100.
 * @returns the deviate, such as 1.645 for 90.
 * @see Abramowitz & Stegun (1964), 7.1.6 for the error function, inverted by bisection
 */
export function normalDeviate(confidence: number): number {
  const wanted = confidence / 100;
  let [low, high] = [0, 10];
  for (let step = 0; step < 80; step += 1) {
    const middle = (low + high) / 2;
    if (within(middle) < wanted) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

/** Share of the normal distribution within ± z: erf(z/√2) by its series of positive terms. */
function within(z: number): number {
  const x = z / Math.SQRT2;
  let term = x;
  let sum = x;
  for (let n = 1; n < 400 && term > 1e-17 * sum; n += 1) {
    term *= (2 * x * x) / (2 * n + 1);
    sum += term;
  }
  return (2 / Math.sqrt(Math.PI)) * Math.exp(-x * x) * sum;
}
