import type { BegunAnswer, MemberAnswer } from '@glenfold/contract';
import { Box, Button, Link as MuiLink, MenuItem, TextField, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { DialogFrame } from '../../ui/DialogFrame.tsx';
import { colours } from '../../ui/theme.ts';
import { useUndo } from '../../ui/undo.tsx';
import { practiceQueries } from './api.ts';

/** What each is called, and where it is finished. */
const begunThings: Readonly<
  Record<BegunAnswer['what'], { readonly words: string; readonly to: (siteId: string) => string }>
> = {
  program: { words: 'rates decided, not handed over', to: (siteId) => `/sites/${siteId}/rates?whole=` },
  report: { words: 'an owner’s report, a draft', to: (siteId) => `/sites/${siteId}/owner-report` },
  test: { words: 'a test that goes on', to: (siteId) => `/tests/${siteId}` },
};

/** Asked before somebody is taken off: what they hold, and who goes on with it. */
export function RemoveMember({ member, onClose }: { readonly member: MemberAnswer; readonly onClose: () => void }) {
  const { remove } = useUndo();
  const { id, person, you } = member;
  const { name } = person;
  const { data } = useQuery(practiceQueries.holdings(id));
  const { data: members = [] } = useQuery(practiceQueries.members());
  const [to, setTo] = useState('');
  const { jobs = 0, begun = [] } = data ?? {};
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
          {you
            ? 'You read and write nothing here from then on. What you wrote stays, under your name; another owner can take you back.'
            : `${name} reads and writes nothing here from then on. What ${name} wrote stays, under their name; you can take them back.`}
        </Typography>
        {begun.length > 0 && (
          <Box>
            <Typography>Begun by {you ? 'you' : name}, for others to finish:</Typography>
            <Box component="ul" sx={{ m: 0, pl: 2.5 }}>
              {begun.map(({ what, siteId, siteName }) => (
                <li key={`${what} ${siteId}`}>
                  <MuiLink component={Link} to={begunThings[what].to(siteId)} onClick={onClose}>
                    {siteName}: {begunThings[what].words}
                  </MuiLink>
                </li>
              ))}
            </Box>
          </Box>
        )}
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
          {you
            ? 'Send first what waits on your phone. What is not sent stays there: '
            : 'What waits on their phone and is not sent stays there: '}
          whoever of the practice signs in on that phone hands it over, under “On this device”.
        </Typography>
      </Box>
    </DialogFrame>
  );
}
