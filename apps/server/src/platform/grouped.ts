/** Entries by what `key` says of them, each group in the order it came in. */
export function grouped<T, K>(entries: readonly T[], key: (entry: T) => K): Map<K, T[]> {
  const groups = new Map<K, T[]>();
  for (const entry of entries) {
    const group = groups.get(key(entry));
    if (group) group.push(entry);
    else groups.set(key(entry), [entry]);
  }
  return groups;
}
