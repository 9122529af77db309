import { Button, Dialog, DialogActions, DialogContent, DialogTitle } from '@mui/material';
import type { ReactNode } from 'react';
import { Trouble } from '../../ui/bits.tsx';

interface AskProps {
  readonly title: string;
  readonly action: string;
  readonly onClose: () => void;
  readonly onDone: () => void;
  readonly error?: Error | null;
  readonly children: ReactNode;
}

/** A short question in the middle of a stroke. */
export function Ask({ title, action, onClose, onDone, error = null, children }: AskProps) {
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="xs">
      <form
        noValidate
        onSubmit={(event) => {
          event.preventDefault();
          // A question may stand in a form of its own.
          event.stopPropagation();
          onDone();
        }}
      >
        <DialogTitle>{title}</DialogTitle>
        <DialogContent sx={{ display: 'grid', gap: 2, '&&': { pt: 1 } }}>
          {children}
          <Trouble error={error} />
        </DialogContent>
        <DialogActions>
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" variant="contained">
            {action}
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  );
}
