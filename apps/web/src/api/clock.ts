/** Less than this a clock is right enough, ms: a request takes some time too. */
const RIGHT = 120_000;

let ahead = 0;
const watchers = new Set<() => void>();

/** Note the time that an answer of the server bears. @param date as HTTP has it; nothing where an answer has none */
export function noteServerTime(date: string | null): void {
  const difference = Date.parse(date ?? '') - Date.now();
  if (Number.isNaN(difference)) return;
  const next = Math.abs(difference) < RIGHT ? 0 : difference;
  const changed = clockWords(next) !== clockWords(ahead);
  ahead = next;
  if (changed) for (const watcher of watchers) watcher();
}

/** By how much the server's clock was ahead of this device's at its last answer, ms; 0 where they agree. */
export const serverAhead = (): number => ahead;

/** Follow {@link serverAhead}. @returns to leave off */
export function followClock(watcher: () => void): () => void {
  watchers.add(watcher);
  return () => void watchers.delete(watcher);
}

const units = [
  [86_400_000, 'day'],
  [3_600_000, 'hour'],
  [60_000, 'minute'],
] as const;

/** "1 day behind", of this device's clock; nothing where it is right. */
export function clockWords(difference = ahead): string | null {
  const size = Math.abs(difference);
  const [length, name] = units.find(([unit]) => size >= unit * 0.95) ?? [1, ''];
  const count = Math.round(size / length);
  return name === '' ? null : `${count} ${name}${count === 1 ? '' : 's'} ${difference > 0 ? 'behind' : 'ahead'}`;
}
