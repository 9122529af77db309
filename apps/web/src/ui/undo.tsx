import { Button, Snackbar } from '@mui/material';
import { type ReactNode, createContext, useContext, useMemo, useState } from 'react';
import { useRemove, useRestore } from '../api/changes.ts';

interface Undo {
  /** Delete a resource and offer to bring it back. */
  readonly remove: (path: string, name: string) => void;
}

const UndoContext = createContext<Undo | null>(null);

export function useUndo(): Undo {
  const undo = useContext(UndoContext);
  if (!undo) throw new Error('UndoProvider is missing.');
  return undo;
}

/** Deleting can be undone. */
export function UndoProvider({ children }: { readonly children: ReactNode }) {
  const [removed, setRemoved] = useState<{ path: string; text: string } | null>(null);
  const [shown, setShown] = useState(false);
  const { mutate: remove } = useRemove();
  const { mutate: restore } = useRestore();
  const undo = useMemo<Undo>(
    () => ({
      remove: (path, name) =>
        remove(path, {
          onSuccess: () => {
            setRemoved({ path, text: `${name} deleted.` });
            setShown(true);
          },
        }),
    }),
    [remove],
  );
  return (
    <UndoContext value={undo}>
      {children}
      <Snackbar
        open={shown}
        autoHideDuration={12_000}
        onClose={(_event, reason) => reason !== 'clickaway' && setShown(false)}
        message={removed?.text}
        action={
          <Button
            color="inherit"
            onClick={() => {
              if (removed) restore(removed.path);
              setShown(false);
            }}
          >
            Undo
          </Button>
        }
      />
    </UndoContext>
  );
}
