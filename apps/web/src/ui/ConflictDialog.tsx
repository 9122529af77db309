import {
  Button,
  Dialog,
  DialogActions,
  DialogContent,
  DialogTitle,
  Table,
  TableBody,
  TableCell,
  TableHead,
  TableRow,
  Typography,
} from '@mui/material';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { ApiProblem } from '../api/client.ts';
import { Words } from './Words.tsx';
import { apart, together } from './apart.ts';
import { merge } from './merge.ts';
import { type NamesById, fieldName, fieldValue } from './recordWords.ts';
import { useUnits } from './units.tsx';

interface ConflictProps<I extends object> {
  /** The save that was tried; nothing is shown unless somebody else's came first. */
  readonly save: { readonly error: ApiProblem | null; readonly variables: { readonly input: I } | undefined };
  /** The record as it was opened: what the person did not touch is not theirs to overwrite. */
  readonly base?: object | undefined;
  readonly named?: NamesById;
  /** Saves after all, on top of that version. */
  readonly send: (input: I, version: number) => void;
  /** Go on with what the other saved. */
  readonly onTheirs: () => void;
}

/** Somebody saved first: both versions side by side, and the choice. Nothing is overwritten unseen. */
export function ConflictDialog<I extends object>({ save, base, named, send, onTheirs }: ConflictProps<I>) {
  const { say } = useUnits();
  const client = useQueryClient();
  const [dismissed, setDismissed] = useState<ApiProblem | null>(null);
  const { error } = save;
  const mine = save.variables?.input;
  const conflict = error?.conflict;
  if (!conflict || !mine || dismissed === error) return null;
  const theirs = apart(conflict.current);
  const own = apart(mine, theirs);
  const { kept, contested, theirsOnly } = merge(own, theirs, base && apart(base));
  const time = new Date(conflict.changedAt).toLocaleTimeString([], { hour: '2-digit', minute: '2-digit' });
  const told = (field: string, value: unknown): string => fieldValue(field, value, say, named);
  const decide = (act: () => void): void => {
    setDismissed(error);
    act();
  };
  return (
    <Dialog open onClose={() => setDismissed(error)} fullWidth maxWidth="sm">
      <DialogTitle>{conflict.changedBy} saved this first</DialogTitle>
      <DialogContent>
        <Typography sx={{ mb: 2 }}>
          At {time}, after you opened it. Your save was not taken, and nothing is overwritten. Which of the two is to
          stand?
        </Typography>
        {contested.length === 0 ? (
          <Typography>Nothing of yours stands against it: both can be kept.</Typography>
        ) : (
          <Table size="small">
            <TableHead>
              <TableRow>
                <TableCell />
                <TableCell>Yours</TableCell>
                <TableCell>{conflict.changedBy}’s</TableCell>
              </TableRow>
            </TableHead>
            <TableBody>
              {contested.map((field) => (
                <TableRow key={field}>
                  <TableCell>{fieldName(field)}</TableCell>
                  <TableCell sx={{ fontWeight: 700 }}>
                    <Words>{told(field, own[field])}</Words>
                  </TableCell>
                  <TableCell sx={{ fontWeight: 700 }}>
                    <Words>{told(field, theirs[field])}</Words>
                  </TableCell>
                </TableRow>
              ))}
            </TableBody>
          </Table>
        )}
        {theirsOnly.length > 0 && (
          <Typography sx={{ mt: 2 }}>
            Kept either way, since you did not touch it:{' '}
            <Words>{theirsOnly.map((field) => `${fieldName(field)} ${told(field, theirs[field])}`).join(', ')}</Words>.
          </Typography>
        )}
      </DialogContent>
      <DialogActions>
        <Button onClick={() => setDismissed(error)}>Back to the form</Button>
        <Button
          variant="outlined"
          onClick={() =>
            decide(() => {
              void client.invalidateQueries();
              onTheirs();
            })
          }
        >
          Keep {conflict.changedBy}’s
        </Button>
        <Button variant="contained" onClick={() => decide(() => send(together(kept) as I, conflict.current.version))}>
          Keep mine
        </Button>
      </DialogActions>
    </Dialog>
  );
}
