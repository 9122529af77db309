import { Box, Button } from '@mui/material';
import type { ReactNode } from 'react';
import { ApiProblem } from '../api/client.ts';
import { DialogFrame } from './DialogFrame.tsx';
import { Trouble } from './bits.tsx';
import { useCloseGuard } from './useCloseGuard.tsx';

interface FormDialogProps {
  readonly title: string;
  readonly action: string;
  readonly onClose: () => void;
  readonly onSave: () => void;
  readonly saving: { readonly isPending: boolean; readonly error: Error | null };
  /** A way out beside, such as deleting, at the left. */
  readonly beside?: ReactNode;
  readonly wide?: boolean;
  /** Asks little. */
  readonly small?: boolean;
  /** What is wrong with a field stands by the field, and is not said again. */
  readonly byField?: boolean;
  readonly children: ReactNode;
}

/** The frame of a form: what is asked, what went wrong, cancel and save. */
export function FormDialog({
  title,
  action,
  onClose,
  onSave,
  saving,
  beside,
  wide = false,
  small = false,
  byField = true,
  children,
}: FormDialogProps) {
  const { error, isPending } = saving;
  const { hears, close, question } = useCloseGuard(onClose);
  return (
    <DialogFrame
      title={title}
      onClose={close}
      width={wide ? 'md' : small ? 'xs' : 'sm'}
      onSubmit={onSave}
      actions={
        <>
          {question}
          {beside}
          <Box sx={{ flex: 1 }} />
          <Button onClick={close}>Cancel</Button>
          <Button type="submit" variant="contained" disabled={isPending}>
            {action}
          </Button>
        </>
      }
    >
      <Box {...hears} sx={{ display: 'grid', gridAutoRows: 'max-content', gap: 2, pt: 1 }}>
        {children}
        <Trouble error={byField && error instanceof ApiProblem && error.fields.length > 0 ? null : error} />
      </Box>
    </DialogFrame>
  );
}

/** Fields beside one another, below one another on a phone. */
export function Fields({ columns = 2, children }: { readonly columns?: number; readonly children: ReactNode }) {
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', sm: `repeat(${columns}, 1fr)` }, gap: 2 }}>
      {children}
    </Box>
  );
}
