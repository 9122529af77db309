import { Snackbar } from '@mui/material';
import { useMutationState } from '@tanstack/react-query';
import { Suspense, useState } from 'react';
import { ApiProblem } from '../api/client.ts';
import { deferred } from '../ui/deferred.tsx';
import { type Late, mergeOf } from './late.ts';

const Together = deferred(async () => (await import('./Together.tsx')).Together);
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
 * Somebody saved first. What only one of the two touched is kept without a question, and said; what both touched is
 * asked. Nothing is overwritten unseen. It stands once in the application and listens to all saves; what a save tells of
 * itself is in {@link Saved}.
 */
export function Conflicts() {
  const [decided, setDecided] = useState<ReadonlySet<Error>>(new Set());
  const done = ({ error }: Late): void => setDecided((before) => new Set([...before, error]));
  const late = useLate().find(({ error }) => !decided.has(error));
  const agreed = late && mergeOf(late).contested.length === 0;
  const [said, setSaid] = useState<string | null>(null);
  return (
    <>
      {agreed && (
        <Suspense>
          <Together key={late.error.message + late.conflict.changedAt} late={late} onDone={done} onSay={setSaid} />
        </Suspense>
      )}
      {late && !agreed && (
        <Suspense>
          <ConflictDialog late={late} onDone={() => done(late)} />
        </Suspense>
      )}
      <Snackbar open={said !== null} autoHideDuration={8000} onClose={() => setSaid(null)} message={said} />
    </>
  );
}
