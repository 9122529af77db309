import type { Mutation } from '@tanstack/react-query';
import type { Saved } from '../api/changes.ts';
import type { ApiProblem } from '../api/client.ts';
import { apart, together } from '../ui/apart.ts';
import { type Merge, merge } from '../ui/merge.ts';

type Fields = Readonly<Record<string, unknown>>;

/** A save that came too late, and what stands there now. */
export interface Late {
  readonly mutation: Mutation<unknown, Error, Saved<object>>;
  readonly error: ApiProblem;
  readonly conflict: NonNullable<ApiProblem['conflict']>;
}

/** What of a save that came too late stands against what the other saved. */
export function mergeOf({ mutation, conflict }: Late): Merge & { readonly own: Fields; readonly theirs: Fields } {
  const { input, opened } = mutation.state.variables!;
  const theirs = apart(conflict.current);
  const own = apart(input, theirs);
  return { own, theirs, ...merge(own, theirs, opened && apart(opened)) };
}

/** Send it once more, on top of what the other saved: the form that waits for it hears how it went. */
export function saveMerged({ mutation, conflict }: Late, kept: Fields): void {
  const saved = mutation.state.variables!;
  const seen = { id: saved.seen?.id ?? '', version: conflict.current.version };
  void mutation.execute({ ...saved, seen, input: together(kept) }).catch(() => undefined);
}
