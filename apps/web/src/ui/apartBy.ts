/** Labels from top to bottom, pushed down where they would stand on the one before. */
export function apartBy<T extends { readonly y: number }>(least: number, labels: readonly T[]): T[] {
  let last = -Infinity;
  return [...labels]
    .sort((one, other) => one.y - other.y)
    .map((label) => {
      last = Math.max(label.y, last + least);
      return { ...label, y: last };
    });
}
