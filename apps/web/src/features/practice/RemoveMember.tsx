import type { MemberAnswer } from '@glenfold/contract';
import { Box, Button, MenuItem, TextField, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { DialogFrame } from '../../ui/DialogFrame.tsx';
import { colours } from '../../ui/theme.ts';
import { useUndo } from '../../ui/undo.tsx';
import { practiceQueries } from './api.ts';

/** Asked before somebody is taken off: what they hold, and who goes on with it. */
export function RemoveMember({ member, onClose }: { readonly member: MemberAnswer; readonly onClose: () => void }) {
  const { remove } = useUndo();
  const { id, person, you } = member;
  const { name } = person;
  const { data } = useQuery(practiceQueries.holdings(id));
  const { data: members = [] } = useQuery(practiceQueries.members());
  const [to, setTo] = useState('');
  const jobs = data?.jobs ?? 0;
  return (
    <DialogFrame
      title={you ? 'Leave this practice?' : `Remove ${name}?`}
      width="xs"
      onClose={onClose}
      actions={
        <>
          <Button onClick={onClose}>Keep</Button>
          <Button
            variant="contained"
            disabled={!data}
            onClick={() => {
              remove(`/members/${id}${to ? `?jobsTo=${to}` : ''}`, name);
              onClose();
            }}
          >
            {you ? 'Leave' : 'Remove'}
          </Button>
        </>
      }
    >
      <Box sx={{ display: 'grid', gap: 2 }}>
        <Typography>
          {name} reads and writes nothing here from then on. What {name} wrote stays, under their name; you can take
          them back.
        </Typography>
        {jobs > 0 && (
          <TextField
            select
            label={jobs === 1 ? '1 job ahead goes to' : `${jobs} jobs ahead go to`}
            value={to}
            onChange={(event) => setTo(event.target.value)}
            slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}
          >
            <MenuItem value="">nobody yet</MenuItem>
            {members
              .filter((one) => one.id !== id && one.role !== 'client')
              .map((one) => (
                <MenuItem key={one.id} value={one.person.id}>
                  {one.person.name}
                </MenuItem>
              ))}
          </TextField>
        )}
        <Typography sx={{ color: colours.faded }}>
          What waits on their phone and is not sent stays there: whoever of the practice signs in on that phone hands it
          over, under “On this device”.
        </Typography>
      </Box>
    </DialogFrame>
  );
}
