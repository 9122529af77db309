import { Button, Radio, Table, TableBody, TableCell, TableHead, TableRow, Typography } from '@mui/material';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { DialogFrame } from '../ui/DialogFrame.tsx';
import { Words } from '../ui/Words.tsx';
import { fieldName, fieldValue } from '../ui/recordWords.ts';
import { useUnits } from '../ui/units.tsx';
import { type Late, mergeOf, saveMerged } from './late.ts';

/** Whose a contested field is to be. */
type Whose = 'mine' | 'theirs';

/** What both have changed of a record side by side, and the choice between them; what one alone touched is kept. */
export function ConflictDialog({ late, onDone }: { readonly late: Late; readonly onDone: () => void }) {
  const { mutation, conflict } = late;
  const { say } = useUnits();
  const client = useQueryClient();
  const { named, onTheirs } = mutation.state.variables!;
  const { own, theirs, kept, contested, theirsOnly, mineOnly } = mergeOf(late);
  const [chosen, setChosen] = useState<Readonly<Record<string, Whose>>>({});
  const time = new Date(conflict.changedAt).toLocaleTimeString([], { hour: '2-digit', minute: '2-digit' });
  const told = (field: string, value: unknown): string => fieldValue(field, value, say, named);
  const listed = (fields: readonly string[], of: Readonly<Record<string, unknown>>): string =>
    fields.map((field) => `${fieldName(field)} ${told(field, of[field])}`).join(', ');
  /** The same save again, on top of theirs: the form that waits for it hears how it went. */
  const save = (whose: (field: string) => Whose): void => {
    onDone();
    // Nothing of mine is left over: theirs stands as it is.
    if (mineOnly.length === 0 && contested.every((field) => whose(field) === 'theirs')) {
      void client.invalidateQueries();
      onTheirs?.(conflict.current);
      return;
    }
    const taken = contested.filter((field) => whose(field) === 'theirs');
    saveMerged(late, { ...kept, ...Object.fromEntries(taken.map((field) => [field, theirs[field]])) });
  };
  const several = contested.length > 1;
  return (
    <DialogFrame
      title={`${conflict.changedBy} saved this first`}
      onClose={onDone}
      actions={
        <>
          <Button onClick={onDone}>Back to the form</Button>
          <Button variant="outlined" onClick={() => save(() => 'theirs')}>
            Keep {conflict.changedBy}’s
          </Button>
          {Object.values(chosen).includes('theirs') ? (
            <Button variant="contained" onClick={() => save((field) => chosen[field] ?? 'mine')}>
              Keep what is marked
            </Button>
          ) : (
            <Button variant="contained" onClick={() => save(() => 'mine')}>
              Keep mine
            </Button>
          )}
        </>
      }
    >
      <Typography sx={{ mb: 2 }}>
        At {time}, after you opened it. Your save was not taken, and nothing is overwritten. Which of the two is to
        stand?
      </Typography>
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
              {(['mine', 'theirs'] as const).map((whose) => (
                <TableCell key={whose} sx={{ fontWeight: 700 }}>
                  {several && (
                    <Radio
                      size="small"
                      sx={{ p: 0.5, ml: -0.5 }}
                      checked={(chosen[field] ?? 'mine') === whose}
                      onChange={() => setChosen({ ...chosen, [field]: whose })}
                      slotProps={{
                        input: {
                          'aria-label': `${fieldName(field)}: ${whose === 'mine' ? 'yours' : `${conflict.changedBy}’s`}`,
                        },
                      }}
                    />
                  )}
                  <Words>{told(field, (whose === 'mine' ? own : theirs)[field])}</Words>
                </TableCell>
              ))}
            </TableRow>
          ))}
        </TableBody>
      </Table>
      {theirsOnly.length > 0 && (
        <Typography sx={{ mt: 2 }}>
          Kept either way, since you did not touch it: <Words>{listed(theirsOnly, theirs)}</Words>.
        </Typography>
      )}
      {mineOnly.length > 0 && (
        <Typography sx={{ mt: 2 }}>
          Kept either way, since only you touched it: <Words>{listed(mineOnly, own)}</Words>.
        </Typography>
      )}
    </DialogFrame>
  );
}
