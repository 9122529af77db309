import { Dialog, DialogActions, DialogContent, DialogTitle } from '@mui/material';
import type { ReactNode, SyntheticEvent } from 'react';

interface DialogFrameProps {
  readonly title: string;
  readonly open?: boolean;
  /** Nothing where there is no way out but the one it offers. */
  readonly onClose?: (() => void) | undefined;
  readonly width?: 'xs' | 'sm' | 'md';
  /** The ways on and out, at the foot; they stay in sight while the rest scrolls. */
  readonly actions?: ReactNode;
  /** Makes a form of it: what Enter and a button of type `submit` do. */
  readonly onSubmit?: (() => void) | undefined;
  /** A click beside it does not close it: what was begun here is not typed again in a moment. */
  readonly held?: boolean;
  readonly children: ReactNode;
}

/** The frame of everything that is asked in front of a page. */
export function DialogFrame({
  title,
  open = true,
  onClose,
  width = 'sm',
  actions,
  onSubmit,
  held = false,
  children,
}: DialogFrameProps) {
  const form = {
    component: 'form',
    noValidate: true,
    onSubmit: (event: SyntheticEvent) => {
      event.preventDefault();
      // It may be asked from within another form.
      event.stopPropagation();
      onSubmit?.();
    },
  };
  return (
    <Dialog
      open={open}
      {...(onClose ? { onClose: (_event, why) => (held && why === 'backdropClick' ? undefined : onClose()) } : {})}
      fullWidth
      maxWidth={width}
      slotProps={onSubmit ? { paper: form as object } : {}}
    >
      <DialogTitle>{title}</DialogTitle>
      <DialogContent>{children}</DialogContent>
      {actions !== undefined && (
        <DialogActions sx={{ px: 3, pb: 2, flexWrap: 'wrap', gap: 1 }}>{actions}</DialogActions>
      )}
    </Dialog>
  );
}
