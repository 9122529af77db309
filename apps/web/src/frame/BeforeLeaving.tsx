import { Button, Typography } from '@mui/material';
import { Link } from 'react-router';
import { isOf } from '../offline/holder.ts';
import { sendAll } from '../offline/sender.ts';
import { useCarried, useHolder } from '../offline/useOutbox.ts';
import { DialogFrame } from '../ui/DialogFrame.tsx';

/** How many things of who is there wait on this device, or were not taken. */
export function useUnsent(): number {
  const holder = useHolder();
  const { entries } = useCarried();
  return entries.filter((one) => isOf(holder, one)).length;
}

interface BeforeLeavingProps {
  /** "Sign out": what is about to be done. */
  readonly action: string;
  /** What becomes of what waits. */
  readonly words: string;
  readonly onClose: () => void;
  readonly onLeave: () => void;
}

/** Asked where something waits to be sent: nobody leaves it behind without knowing. */
export function BeforeLeaving({ action, words, onClose, onLeave }: BeforeLeavingProps) {
  const count = useUnsent();
  return (
    <DialogFrame
      title={count === 0 ? 'All is sent' : count === 1 ? '1 thing is not sent yet' : `${count} things are not sent yet`}
      width="xs"
      onClose={onClose}
      actions={
        <>
          <Button onClick={onClose}>Stay</Button>
          {count > 0 && (
            <Button variant="outlined" onClick={() => void sendAll()}>
              Send now
            </Button>
          )}
          <Button variant="contained" onClick={onLeave}>
            {count > 0 ? `${action} all the same` : action}
          </Button>
        </>
      }
    >
      {count > 0 && (
        <Typography>
          {words} <Link to="/sent">Look at it</Link>
        </Typography>
      )}
    </DialogFrame>
  );
}
