import { Box, Button, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { CopyLine, Trouble } from '../../ui/bits.tsx';
import { DialogFrame } from '../../ui/DialogFrame.tsx';
import { localTime } from '../../ui/today.ts';
import { colours } from '../../ui/theme.ts';
import { seasonQueries, useMakeCalendarLink, useRevokeCalendarLink } from './api.ts';

/** One’s own jobs in a calendar of one’s own, by a secret address that can be taken back. */
export function CalendarDialog({ onClose }: { readonly onClose: () => void }) {
  const { data: links = [], error } = useQuery(seasonQueries.calendarLinks());
  const make = useMakeCalendarLink();
  const revoke = useRevokeCalendarLink();
  const open = links.filter(({ state }) => state === 'open');
  return (
    <DialogFrame title="Jobs in your calendar" onClose={onClose} width="sm">
      <Box sx={{ display: 'grid', gap: 1.5 }}>
        <Typography>
          An address that a calendar reads by itself: your jobs, and those that nobody was given, of all sites. Whoever
          has it sees them, so keep it to yourself.
        </Typography>
        {make.data?.address ? (
          <>
            <CopyLine text={make.data.address} label="Address of the calendar" />
            <Typography sx={{ color: colours.faded }}>
              It is shown this once: paste it into your calendar now.
            </Typography>
          </>
        ) : (
          <Box>
            <Button variant="contained" onClick={() => make.mutate()} disabled={make.isPending}>
              Make an address
            </Button>
          </Box>
        )}
        {open.map(({ id, madeAt }) => (
          <Box key={id} sx={{ display: 'flex', alignItems: 'center', borderTop: `1px solid ${colours.line}`, pt: 1 }}>
            <Box sx={{ flex: 1 }}>Made {localTime(madeAt)}</Box>
            <Button size="small" onClick={() => revoke.mutate(id)}>
              Take it back
            </Button>
          </Box>
        ))}
        <Trouble error={error ?? make.error ?? revoke.error} />
      </Box>
    </DialogFrame>
  );
}
