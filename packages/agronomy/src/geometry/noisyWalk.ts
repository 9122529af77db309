import { chanceFrom } from './chance.ts';
import { Plane, type PlanePoint, type Position } from './plane.ts';
import type { Fix } from './walk.ts';

export interface NoisyWalkOptions {
  /** Whole number; the same seed makes the same walk. */
  readonly seed: number;
  /** m, one standard deviation along an axis. */
  readonly error?: number;
  /** m/s */
  readonly speed?: number;
  /** Share of fixes that do not arrive. */
  readonly lost?: number;
  /** s between fixes. */
  readonly every?: number;
}

/** For how long a receiver errs the same way, s. */
const MEMORY = 6;

/**
 * What a receiver in the hand reports on a walk along a path and back to its start: errors of some metres that drift,
 * now and then a far one, and fixes that are lost singly and in runs. A stand-in for a device; the same seed gives the
 * same walk.
 *
 * @param path corners of the way, in WGS84.
 */
export function noisyWalk(
  path: readonly Position[],
  { seed, error = 1.5, speed = 1.3, lost = 0.08, every = 1 }: NoisyWalkOptions,
): Fix[] {
  const chance = chanceFrom(seed);
  const normal = (): number => Math.sqrt(-2 * Math.log(1 - chance())) * Math.cos(2 * Math.PI * chance());
  const plane = new Plane(path[0]!);
  const way = [...path, path[0]!].map((position) => plane.toPlane(position));
  const stay = Math.exp(-every / MEMORY);
  let drift: PlanePoint = [normal() * error, normal() * error];
  let losing = 0;
  const fixes: Fix[] = [];
  let [leg, along, time] = [0, 0, 0];
  while (leg < way.length - 1) {
    const [from, to] = [way[leg]!, way[leg + 1]!];
    const length = Math.hypot(to[0] - from[0], to[1] - from[1]);
    if (along >= length) {
      along -= length;
      leg += 1;
      continue;
    }
    const share = along / length;
    const next = (value: number): number => stay * value + Math.sqrt(1 - stay ** 2) * error * normal();
    drift = [next(drift[0]), next(drift[1])];
    losing = losing > 0 ? losing - 1 : chance() < lost / 3 ? Math.round(1 + 4 * chance()) : 0;
    const wild = chance() < 0.01 ? 30 : 0;
    const at: PlanePoint = [
      from[0] + share * (to[0] - from[0]) + drift[0] + wild,
      from[1] + share * (to[1] - from[1]) + drift[1],
    ];
    if (losing === 0)
      fixes.push({
        position: plane.toMap(at),
        accuracy: Math.round(24.48 * error * (0.8 + 0.4 * chance())) / 10,
        time,
      });
    along += speed * every;
    time += every;
  }
  return fixes;
}
