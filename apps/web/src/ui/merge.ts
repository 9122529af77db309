type Fields = Readonly<Record<string, unknown>>;

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a ?? null) === JSON.stringify(b ?? null);

export interface Merge {
  /** What is saved when the person keeps theirs: their changes, on top of what the other saved. */
  readonly kept: Record<string, unknown>;
  /** Fields that both touched and cannot both have, and fields that say nothing without one of those. */
  readonly contested: readonly string[];
  /** Fields that only the other changed: they stand either way. */
  readonly theirsOnly: readonly string[];
  /** Fields that only the person changed: they stand either way. */
  readonly mineOnly: readonly string[];
}

/** Fields of which one says nothing without the others: a rate is of its product, a price of its pack. */
const BOUND: ReadonlyArray<readonly string[]> = [
  ['values.material', 'values.rate', 'values.layer', 'values.times', 'out'],
  ['packSize', 'packUnit', 'packPrice'],
  ['deliveryPrice', 'loadSize'],
  ['geometry', 'area'],
  ['values.bufferPh', 'bufferMethod'],
  ['grass', 'mix'],
];

/**
 * Lay a refused save over what the other saved, field by field.
 * @param base the record as it was opened; without it every field counts as changed by both
 */
export function merge(mine: object, theirs: object, base: object | undefined): Merge {
  const [own, other, opened] = [mine as Fields, theirs as Fields, base as Fields | undefined];
  const fields = Object.keys(own);
  const mineChanged = (field: string): boolean => opened === undefined || !same(own[field], opened[field]);
  const theirsChanged = (field: string): boolean => opened === undefined || !same(other[field], opened[field]);
  const apart = fields.filter((field) => !same(own[field], other[field]));
  const disputed = BOUND.flatMap((bound) => {
    const those = apart.filter((field) => bound.includes(field));
    return those.some(mineChanged) && those.some(theirsChanged) ? those : [];
  });
  const contested = apart.filter((field) => disputed.includes(field) || (mineChanged(field) && theirsChanged(field)));
  const settled = apart.filter((field) => !contested.includes(field));
  return {
    kept: Object.fromEntries(
      fields.map((field) => [field, mineChanged(field) || contested.includes(field) ? own[field] : other[field]]),
    ),
    contested,
    theirsOnly: settled.filter(theirsChanged),
    mineOnly: settled.filter(mineChanged),
  };
}
