import { useRef } from 'react';

/** States that a sheet can go back to. */
const MOST = 200;

/**
 * Steps back and forward through what was typed. What follows within a moment on the same cell is one step.
 *
 * @param state as it stands; @param set puts another in its place
 */
export function useUndoable<T>(state: T, set: (state: T) => void) {
  const past = useRef<T[]>([]);
  const future = useRef<T[]>([]);
  const last = useRef<{ readonly what: string; readonly at: number } | null>(null);
  return {
    /** @param what is changed: the same again soon after belongs to the step before */
    change: (next: T, what: string): void => {
      const now = Date.now();
      const goesOn = last.current?.what === what && now - last.current.at < 1500;
      last.current = { what, at: now };
      if (!goesOn) past.current = [...past.current.slice(1 - MOST), state];
      future.current = [];
      set(next);
    },
    undo: (): boolean => {
      const before = past.current.pop();
      if (before === undefined) return false;
      future.current.push(state);
      last.current = null;
      set(before);
      return true;
    },
    redo: (): boolean => {
      const after = future.current.pop();
      if (after === undefined) return false;
      past.current.push(state);
      last.current = null;
      set(after);
      return true;
    },
    forget: (): void => {
      past.current = [];
      future.current = [];
    },
  };
}
