import { useMutationState } from '@tanstack/react-query';
import { Suspense, useState } from 'react';
import { ApiProblem } from '../api/client.ts';
import { deferred } from '../ui/deferred.tsx';
import type { Late } from './ConflictDialog.tsx';

const ConflictDialog = deferred(async () => (await import('./ConflictDialog.tsx')).ConflictDialog);

/** Saves that came after somebody else's, of every form and page. */
const useLate = (): readonly Late[] =>
  useMutationState({
    filters: { status: 'error' },
    select: (mutation): Late | null => {
      const { error, variables } = mutation.state;
      const saved = typeof variables === 'object' && variables !== null && 'input' in variables;
      return saved && error instanceof ApiProblem && error.conflict
        ? { mutation: mutation as Late['mutation'], error, conflict: error.conflict }
        : null;
    },
  }).filter((late) => late !== null);

/**
 * Somebody saved first: both versions side by side, and the choice. Nothing is overwritten unseen. It stands once in the
 * application and listens to all saves; what a save tells of itself is in {@link Saved}.
 */
export function Conflicts() {
  const [decided, setDecided] = useState<ReadonlySet<Error>>(new Set());
  const late = useLate().find(({ error }) => !decided.has(error));
  return (
    late && (
      <Suspense>
        <ConflictDialog late={late} onDone={() => setDecided(new Set([...decided, late.error]))} />
      </Suspense>
    )
  );
}
