import { type Position, noisyWalk } from '@glenfold/agronomy/geometry';
import type { PositionSource } from './positionSource.ts';

/** After how long without a fix a receiver says so, s of the walk. */
const SILENCE = 3;

/**
 * A stand-in for a receiver: replays a walk along a path with errors of some metres and lost fixes, faster than one
 * walks it. The same seed makes the same walk.
 */
export function replayedWalk(path: readonly Position[], { seed = 1, hurry = 12 } = {}): PositionSource {
  return {
    name: 'Practice walk, simulated',
    simulated: true,
    watch(onFix, onLost) {
      const fixes = noisyWalk(path, { seed });
      const began = performance.now();
      let next = 0;
      const timer = setInterval(() => {
        const now = ((performance.now() - began) / 1000) * hurry;
        while (next < fixes.length && fixes[next]!.time <= now) {
          onFix(fixes[next]!);
          next += 1;
        }
        const last = fixes[next - 1]?.time ?? 0;
        if (next < fixes.length && now - last > SILENCE) onLost('No position just now: the sky is hidden here.');
        if (next === fixes.length) clearInterval(timer);
      }, 1000 / hurry);
      return () => clearInterval(timer);
    },
  };
}
