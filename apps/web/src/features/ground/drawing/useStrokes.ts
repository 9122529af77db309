import type { DrawingAnswer, DrawingChangesInput } from '@glenfold/contract';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';

import { queries } from '../../../api/queries.ts';
import { type MadeStroke, type Stroke, again, back, forward, made, stillAsMade } from './strokes.ts';
import { useChangeDrawing } from '../api.ts';

interface History {
  readonly past: readonly MadeStroke[];
  readonly future: readonly MadeStroke[];
}

/** What could not be saved, and how to try it once more on the plan as it stands then. */
export interface Unsaved {
  readonly name: string;
  readonly error: Error;
  readonly again: (() => void) | null;
}

/** Strokes on a plan: saved one by one, undone and made again; what was not saved is kept until it is tried or let go. */
export function useStrokes(siteId: string) {
  const client = useQueryClient();
  const { mutateAsync, isPending } = useChangeDrawing(siteId);
  const [history, setHistory] = useState<History>({ past: [], future: [] });
  const [unsaved, setUnsaved] = useState<Unsaved | null>(null);
  const [zonesKey, thingsKey] = [queries.zones(siteId).queryKey, queries.groundThings(siteId).queryKey];
  const planNow = (): DrawingAnswer | undefined => {
    const [zones, things] = [client.getQueryData(zonesKey), client.getQueryData(thingsKey)];
    return zones && things && { ...things, zones };
  };

  async function send(
    name: string,
    changes: (plan: DrawingAnswer) => DrawingChangesInput,
    done: (before: DrawingAnswer, after: DrawingAnswer) => void,
  ): Promise<void> {
    const before = planNow();
    if (!before) return;
    try {
      const after = await mutateAsync(changes(before));
      const { zones, ...things } = after;
      client.setQueryData(zonesKey, zones);
      client.setQueryData(thingsKey, things);
      setUnsaved(null);
      done(before, after);
    } catch (error) {
      const retry = async (): Promise<void> => {
        // Another's changes first: the stroke is then made over the plan as it stands.
        await Promise.all([zonesKey, thingsKey].map((queryKey) => client.refetchQueries({ queryKey })));
        await send(name, changes, done);
      };
      setUnsaved({ name, error: error as Error, again: () => void retry() });
    }
  }

  const make = (stroke: Stroke): Promise<void> =>
    send(
      stroke.name,
      (plan) => forward(stroke, plan),
      (before, after) => setHistory(({ past }) => ({ past: [...past, made(stroke, before, after)], future: [] })),
    );
  const last = history.past.at(-1);
  const next = history.future[0];
  const undo = (): void => {
    const plan = planNow();
    if (!last || !plan) return;
    if (!stillAsMade(last, plan)) {
      const error = new Error('Somebody changed it after you did, so it was left as it is now.');
      setUnsaved({ name: `Undo: ${last.name}`, error, again: null });
      setHistory({ past: [], future: [] });
      return;
    }
    void send(
      `Undo: ${last.name}`,
      (plan) => back(last, plan),
      () => setHistory(({ past, future }) => ({ past: past.slice(0, -1), future: [last, ...future] })),
    );
  };
  const redo = (): void => {
    if (!next) return;
    void send(
      next.name,
      (plan) => again(next, plan),
      () => setHistory(({ past, future }) => ({ past: [...past, next], future: future.slice(1) })),
    );
  };
  const letGo = (): void => {
    setUnsaved(null);
    void client.invalidateQueries({ queryKey: zonesKey });
    void client.invalidateQueries({ queryKey: thingsKey });
  };
  return { make, undo, redo, last: last?.name, next: next?.name, unsaved, letGo, isPending };
}
