type Fields = Readonly<Record<string, unknown>>;

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a ?? null) === JSON.stringify(b ?? null);

export interface Merge {
  /** What is saved when the person keeps theirs: their changes, on top of what the other saved. */
  readonly kept: Record<string, unknown>;
  /** Fields that both cannot have. */
  readonly contested: readonly string[];
  /** Fields that only the other changed: they stand either way. */
  readonly theirsOnly: readonly string[];
}

/**
 * Lay a refused save over what the other saved, field by field.
 * @param base the record as it was opened; without it every field counts as changed by the person
 */
export function merge(mine: object, theirs: object, base: object | undefined): Merge {
  const [own, other, opened] = [mine as Fields, theirs as Fields, base as Fields | undefined];
  const fields = Object.keys(own);
  const untouched = (field: string): boolean => opened !== undefined && same(own[field], opened[field]);
  return {
    kept: Object.fromEntries(fields.map((field) => [field, untouched(field) ? other[field] : own[field]])),
    contested: fields.filter((field) => !untouched(field) && !same(own[field], other[field])),
    theirsOnly: fields.filter((field) => untouched(field) && !same(own[field], other[field])),
  };
}
