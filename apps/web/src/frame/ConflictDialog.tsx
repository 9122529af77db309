import { Button, Table, TableBody, TableCell, TableHead, TableRow, Typography } from '@mui/material';
import { type Mutation, useQueryClient } from '@tanstack/react-query';
import type { Saved } from '../api/changes.ts';
import type { ApiProblem } from '../api/client.ts';
import { DialogFrame } from '../ui/DialogFrame.tsx';
import { Words } from '../ui/Words.tsx';
import { apart, together } from '../ui/apart.ts';
import { merge } from '../ui/merge.ts';
import { fieldName, fieldValue } from '../ui/recordWords.ts';
import { useUnits } from '../ui/units.tsx';

/** A save that came too late, and what stands there now. */
export interface Late {
  readonly mutation: Mutation<unknown, Error, Saved<object>>;
  readonly error: ApiProblem;
  readonly conflict: NonNullable<ApiProblem['conflict']>;
}

/** Both versions of a record side by side, and the choice between them. */
export function ConflictDialog({ late, onDone }: { readonly late: Late; readonly onDone: () => void }) {
  const { mutation, conflict } = late;
  const { say } = useUnits();
  const client = useQueryClient();
  const saved = mutation.state.variables!;
  const { input, opened, named } = saved;
  const theirs = apart(conflict.current);
  const own = apart(input, theirs);
  const { kept, contested, theirsOnly } = merge(own, theirs, opened && apart(opened));
  const time = new Date(conflict.changedAt).toLocaleTimeString([], { hour: '2-digit', minute: '2-digit' });
  const told = (field: string, value: unknown): string => fieldValue(field, value, say, named);
  const keepTheirs = (): void => {
    onDone();
    void client.invalidateQueries();
    saved.onTheirs?.(conflict.current);
  };
  const keepMine = (): void => {
    onDone();
    const seen = { id: saved.seen?.id ?? '', version: conflict.current.version };
    // The same save again, on top of theirs: the form that waits for it hears how it went.
    void mutation.execute({ ...saved, seen, input: together(kept) }).catch(() => undefined);
  };
  return (
    <DialogFrame
      title={`${conflict.changedBy} saved this first`}
      onClose={onDone}
      actions={
        <>
          <Button onClick={onDone}>Back to the form</Button>
          <Button variant="outlined" onClick={keepTheirs}>
            Keep {conflict.changedBy}’s
          </Button>
          <Button variant="contained" onClick={keepMine}>
            Keep mine
          </Button>
        </>
      }
    >
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
              <TableCell component="td" />
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
    </DialogFrame>
  );
}
