import { proxy, wrap } from 'comlink';
import { useEffect, useState } from 'react';
import { orBroken } from '../../../ui/worker.ts';
import type { DesignWork } from './design.worker.ts';
import type { DesignTask, Designed } from '@glenfold/agronomy/sampling';

interface Done {
  readonly task: DesignTask;
  readonly designed: Designed;
}

/** Places and walk for a task, in a worker; a changed task stops the one before. */
export function useDesign(task: DesignTask): {
  readonly designed: Designed | null;
  /** 0 to 1 while it is being worked out. */
  readonly progress: number | null;
  /** Why it was not worked out. */
  readonly error: Error | null;
} {
  const [done, setDone] = useState<Done | null>(null);
  const [broken, setBroken] = useState<{ readonly task: DesignTask; readonly error: Error } | null>(null);
  const [progress, setProgress] = useState(0);
  useEffect(() => {
    if (task.zones.length === 0) return undefined;
    const worker = new Worker(new URL('./design.worker.ts', import.meta.url), { type: 'module' });
    orBroken(worker, wrap<DesignWork>(worker).design(task, proxy(setProgress))).then(
      (designed) => setDone({ task, designed }),
      (error: unknown) => setBroken({ task, error: error as Error }),
    );
    return () => worker.terminate();
  }, [task]);
  if (task.zones.length === 0) return { designed: null, progress: null, error: null };
  if (broken?.task === task) return { designed: null, progress: null, error: broken.error };
  return { designed: done?.designed ?? null, progress: done?.task === task ? null : progress, error: null };
}
