import type { Fix } from '@glenfold/agronomy/geometry';
import { useEffect, useRef, useState } from 'react';
import type { PositionSource } from '../../../position/positionSource.ts';

export interface Walk {
  readonly fixes: readonly Fix[];
  /** Why no position comes just now. */
  readonly lost: string | null;
  readonly recording: boolean;
}

const resting: Walk = { fixes: [], lost: null, recording: false };

/** Records a walk; the screen stays on while it does. */
export function useBoundary() {
  const [walk, setWalk] = useState<Walk>(resting);
  const stop = useRef<() => void>(() => undefined);
  const pause = (): void => {
    stop.current();
    stop.current = () => undefined;
    setWalk((last) => ({ ...last, recording: false }));
  };
  const record = (source: PositionSource): void => {
    stop.current();
    setWalk({ ...resting, recording: true });
    const unwatch = source.watch(
      (fix) => setWalk((last) => ({ ...last, fixes: [...last.fixes, fix], lost: null })),
      (lost) => setWalk((last) => ({ ...last, lost })),
    );
    const awake = stayAwake();
    stop.current = () => {
      unwatch();
      awake();
    };
  };
  const discard = (): void => {
    pause();
    setWalk(resting);
  };
  useEffect(() => () => stop.current(), []);
  return { walk, record, pause, discard };
}

/** Keep the screen on, where the browser can. @returns what lets it sleep again */
function stayAwake(): () => void {
  let over = false;
  let lock: WakeLockSentinel | undefined;
  if ('wakeLock' in navigator)
    void navigator.wakeLock.request('screen').then(
      (held) => {
        lock = held;
        if (over) void held.release();
      },
      () => undefined,
    );
  return () => {
    over = true;
    void lock?.release();
  };
}
