import type { ReactNode } from 'react';
import { FormDialog } from '../../ui/FormDialog.tsx';

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
  const saving = { isPending: false, error };
  return (
    <FormDialog small byField={false} title={title} action={action} onClose={onClose} onSave={onDone} saving={saving}>
      {children}
    </FormDialog>
  );
}
