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
import { type NamesById, fieldName, fieldValue } from './recordWords.ts';
import { useUnits } from './units.tsx';

interface ConflictProps {
  /** The refusal of a save; nothing is shown for one that is no conflict. */
  readonly error: ApiProblem | null;
  /** What the person tried to save, by field. */
  readonly mine: object;
  readonly named?: NamesById;
  /** Save it after all, on top of that version. */
  readonly onMine: (version: number) => void;
  /** Go on with what the other saved. */
  readonly onTheirs: () => void;
}

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a ?? null) === JSON.stringify(b ?? null);

/** Somebody saved first: both versions side by side, and the choice. Nothing is overwritten unseen. */
export function ConflictDialog({ error, mine, named, onMine, onTheirs }: ConflictProps) {
  const { say } = useUnits();
  const client = useQueryClient();
  const [dismissed, setDismissed] = useState<ApiProblem | null>(null);
  const conflict = error?.conflict;
  if (!conflict || dismissed === error) return null;
  const theirs = conflict.current as Readonly<Record<string, unknown>>;
  const differing = Object.entries(mine).filter(([field, value]) => !same(value, theirs[field]));
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
        {differing.length === 0 ? (
          <Typography>Both say the same.</Typography>
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
              {differing.map(([field, value]) => (
                <TableRow key={field}>
                  <TableCell>{fieldName(field)}</TableCell>
                  <TableCell sx={{ fontWeight: 700 }}>
                    <Words>{told(field, value)}</Words>
                  </TableCell>
                  <TableCell sx={{ fontWeight: 700 }}>
                    <Words>{told(field, theirs[field])}</Words>
                  </TableCell>
                </TableRow>
              ))}
            </TableBody>
          </Table>
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
        <Button variant="contained" onClick={() => decide(() => onMine(conflict.current.version))}>
          Keep mine
        </Button>
      </DialogActions>
    </Dialog>
  );
}
