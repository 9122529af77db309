/** Whether it is only tried whether it still runs, as the tests do. */
const tiny = process.env.BENCH_TINY !== undefined;
/** ms of a warm-up and of a timed batch: by time, since a run takes a microsecond or a second. */
const [WARM, BATCH] = tiny ? [0, 1] : [100, 200];

/** Runs for so many ms at least, and once. */
function runsFor(ms: number, work: () => unknown): { readonly runs: number; readonly took: number } {
  const start = performance.now();
  let runs = 0;
  do {
    work();
    runs += 1;
  } while (performance.now() - start < ms);
  return { runs, took: performance.now() - start };
}

/** Runs in a second, from a timed batch after a warm-up. */
function perSecond(work: () => unknown): number {
  if (WARM > 0) runsFor(WARM, work);
  const { runs, took } = runsFor(BATCH, work);
  return (runs * 1000) / took;
}

export function line(name: string, work: () => unknown, input: unknown): void {
  const json = JSON.stringify(input);
  const speed = perSecond(work);
  const baseline = perSecond(() => JSON.parse(json) as unknown);
  process.stdout.write(
    `${name.padEnd(40)} ${Math.round(speed).toLocaleString('en-US').padStart(10)} /s   ${(baseline / speed).toFixed(1)} × the time of parsing its input\n`,
  );
}

/** ms that one run takes, the least of a few. */
export function timeOf(work: () => unknown): number {
  work();
  const takes = Array.from({ length: tiny ? 1 : 5 }, () => {
    const { runs, took } = runsFor(BATCH / 2, work);
    return took / runs;
  });
  return Math.min(...takes);
}

/** How many times as many runs the one makes in the same time, alternating so that both meet the same machine. */
export function ratio(one: () => unknown, other: () => unknown): number {
  const [first, second] = [perSecond(one), perSecond(other)];
  return Math.max(first, perSecond(one)) / Math.max(second, perSecond(other));
}
export const times = (one: () => unknown, other: () => unknown): string => ratio(one, other).toFixed(1);

/** So many zones, or two where it is only tried. */
export const many = (count: number): number => (tiny ? Math.min(2, count) : count);
