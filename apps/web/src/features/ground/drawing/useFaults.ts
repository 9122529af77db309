import type { Fault, Outline } from '@glenfold/agronomy/geometry';
import type { ZoneAnswer } from '@glenfold/contract';
import { wrap } from 'comlink';
import { useEffect, useState } from 'react';
import { orBroken } from '../../../ui/worker.ts';
import type { FaultsWork } from './faults.worker.ts';

interface Found {
  readonly drawn: readonly ZoneAnswer[];
  readonly faults: readonly Fault[];
}

/** Overlaps and slivers between drawn zones, by their places in the list; a changed plan stops the search. */
export function useFaults(drawn: readonly ZoneAnswer[]): {
  readonly faults: readonly Fault[];
  readonly looking: boolean;
} {
  const [found, setFound] = useState<Found | null>(null);
  useEffect(() => {
    if (drawn.length < 2) return undefined;
    let worker: Worker | undefined;
    // The plan itself comes first.
    const begin = requestIdleCallback(() => {
      worker = new Worker(new URL('./faults.worker.ts', import.meta.url), { type: 'module' });
      const work = wrap<FaultsWork>(worker).find(drawn.map(({ geometry }) => geometry as Outline));
      // Nothing is said of overlaps where none could be looked for.
      orBroken(worker, work).then(
        (faults) => setFound({ drawn, faults }),
        () => setFound({ drawn, faults: [] }),
      );
    });
    return () => {
      cancelIdleCallback(begin);
      worker?.terminate();
    };
  }, [drawn]);
  const current = found?.drawn === drawn;
  return { faults: current ? found.faults : [], looking: !current && drawn.length > 1 };
}
