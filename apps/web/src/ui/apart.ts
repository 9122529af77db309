const PREFIX = 'values.';

/**
 * A record with each value of a report as a field of its own, so that two people may correct different ones.
 * @param other has values that stand as fields too, empty where the record does not hold them: they were taken away, or
 *   came with somebody else's save.
 */
export function apart(
  record: object,
  other: Readonly<Record<string, unknown>> = {},
): Readonly<Record<string, unknown>> {
  const { values, ...rest } = record as Readonly<Record<string, unknown>>;
  if (typeof values !== 'object' || values === null) return { ...rest };
  const missing = Object.keys(other).filter((key) => key.startsWith(PREFIX));
  return {
    ...rest,
    ...Object.fromEntries(missing.map((key) => [key, undefined])),
    ...Object.fromEntries(Object.entries(values).map(([key, value]) => [`${PREFIX}${key}`, value])),
  };
}

/** The record again. */
export function together(fields: Readonly<Record<string, unknown>>): Record<string, unknown> {
  const entries = Object.entries(fields);
  const values = entries.flatMap(([key, value]) =>
    key.startsWith(PREFIX) && value !== undefined ? [[key.slice(PREFIX.length), value] as const] : [],
  );
  return {
    ...Object.fromEntries(entries.filter(([key]) => !key.startsWith(PREFIX))),
    ...(values.length > 0 ? { values: Object.fromEntries(values) } : {}),
  };
}
