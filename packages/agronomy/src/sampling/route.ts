import type { PlanePoint } from '../geometry/plane.ts';

const apart = (one: PlanePoint, other: PlanePoint): number => Math.hypot(one[0] - other[0], one[1] - other[1]);

/** Length of a walk through points and back to the first, m. */
export function tourLength(points: readonly PlanePoint[], order: readonly number[]): number {
  return order.reduce((sum, at, index) => sum + apart(points[at]!, points[order[(index + 1) % order.length]!]!), 0);
}

/** A walk from the first point always to the nearest that is left. */
export function nearestNeighbourTour(points: readonly PlanePoint[]): number[] {
  const left = new Set(points.keys());
  const order: number[] = [];
  let at = 0;
  while (left.size > 0) {
    left.delete(at);
    order.push(at);
    let nearest = Infinity;
    let next = at;
    for (const other of left) {
      const distance = apart(points[at]!, points[other]!);
      if (distance < nearest) [nearest, next] = [distance, other];
    }
    at = next;
  }
  return order;
}

/** Length of the shortest tree that joins all points, m: no walk through all is shorter (Prim 1957). */
export function spanningTreeLength(points: readonly PlanePoint[]): number {
  const distance = points.map(() => Infinity);
  const joined = points.map(() => false);
  let total = 0;
  let at = 0;
  distance[0] = 0;
  for (const _ of points) {
    let nearest = Infinity;
    for (let index = 0; index < points.length; index += 1)
      if (!joined[index] && distance[index]! < nearest) [nearest, at] = [distance[index]!, index];
    joined[at] = true;
    total += nearest;
    for (let index = 0; index < points.length; index += 1)
      if (!joined[index]) distance[index] = Math.min(distance[index]!, apart(points[at]!, points[index]!));
  }
  return total;
}

const NEIGHBOURS = 10;
/** Longest run of points that is carried elsewhere whole. */
const RUN = 3;

/** The nearest few points of each. */
function neighbours(points: readonly PlanePoint[]): number[][] {
  return points.map((point, index) =>
    points
      .map((other, at) => [apart(point, other), at] as const)
      .filter(([, at]) => at !== index)
      .sort(([one], [other]) => one - other)
      .slice(0, NEIGHBOURS)
      .map(([, at]) => at),
  );
}

/**
 * A short walk from the first point through all others and back: nearest neighbour, then bettered by turning parts
 * round (2-opt) and carrying short runs elsewhere (Or-opt) until neither shortens it.
 *
 * @param points m on a plane, the gate first; `onProgress` told the share done, 0 to 1.
 * @returns places in `points`, in the order of walking, the gate first.
 * @see Croes (1958), Operations Research 6: 791–812; Or (1976), dissertation, Northwestern University
 */
export function shortestWalk(
  points: readonly PlanePoint[],
  onProgress: (share: number) => void = () => undefined,
): number[] {
  const count = points.length;
  const order = nearestNeighbourTour(points);
  if (count < 4) return order;
  const near = neighbours(points);
  const placeOf = new Int32Array(count);
  const number = (from: number, to: number): void => {
    for (let index = from; index <= to; index += 1) placeOf[order[index]!] = index;
  };
  number(0, count - 1);
  const at = (index: number): number => order[(index + count) % count]!;
  const d = (one: number, other: number): number => apart(points[one]!, points[other]!);
  const reverse = (from: number, to: number): void => {
    for (let [low, high] = [from, to]; low < high; low += 1, high -= 1)
      [order[low], order[high]] = [order[high]!, order[low]!];
    number(from, to);
  };

  /** Turn round the part after one point, or before it. */
  function turn(point: number): boolean {
    for (const forward of [true, false]) {
      const i = placeOf[point]!;
      const next = forward ? at(i + 1) : at(i - 1);
      const edge = d(point, next);
      for (const other of near[point]!) {
        const reach = d(point, other);
        if (reach >= edge) break;
        const j = placeOf[other]!;
        const after = forward ? at(j + 1) : at(j - 1);
        if (other === next || after === point) continue;
        if (reach + d(next, after) < edge + d(other, after) - 1e-9) {
          const [low, high] = forward ? [Math.min(i, j) + 1, Math.max(i, j)] : [Math.min(i, j), Math.max(i, j) - 1];
          reverse(low, high);
          return true;
        }
      }
    }
    return false;
  }

  /** Carry the run that begins at a point to between a neighbour and the one after it. */
  function carry(point: number): boolean {
    const i = placeOf[point]!;
    for (let length = 1; length <= RUN && i + length < count; length += 1) {
      if (i === 0) return false;
      const run = order.slice(i, i + length);
      const [first, last] = [run[0]!, run[length - 1]!];
      const [before, after] = [at(i - 1), at(i + length)];
      const gain = d(before, first) + d(last, after) - d(before, after);
      if (gain <= 1e-9) continue;
      for (const [end, turned] of [
        [first, false],
        [last, true],
      ] as const) {
        for (const other of near[end]!) {
          const reach = d(end, other);
          if (reach >= gain) break;
          const j = placeOf[other]!;
          if (j >= i && j < i + length) continue;
          const beyond = at(j + 1);
          if (j === i - 1) continue;
          const far = turned ? first : last;
          if (reach + d(far, beyond) - d(other, beyond) < gain - 1e-9) {
            order.splice(i, length);
            const to = (j > i ? j - length : j) + 1;
            order.splice(to, 0, ...(turned ? run.reverse() : run));
            number(Math.min(i, to), Math.min(count - 1, Math.max(i, to) + length));
            return true;
          }
        }
      }
    }
    return false;
  }

  const queue = [...order];
  const waiting = new Uint8Array(count).fill(1);
  let done = 0;
  while (queue.length > 0) {
    const point = queue.shift()!;
    waiting[point] = 0;
    const i = placeOf[point]!;
    const around = [at(i - 1), point, at(i + 1)];
    if (turn(point) || carry(point))
      for (const touched of [...around, ...near[point]!])
        if (!waiting[touched]) {
          waiting[touched] = 1;
          queue.push(touched);
        }
    done += 1;
    if (done % 50 === 0) onProgress(done / (done + queue.length));
  }
  const gate = order.indexOf(0);
  onProgress(1);
  return [...order.slice(gate), ...order.slice(0, gate)];
}
