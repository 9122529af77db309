import { Box, Button, Typography } from '@mui/material';
import { withReadableDays } from '@glenfold/contract';
import { useQuery } from '@tanstack/react-query';
import { calendarLinks, useMakeCalendarLink, useRevokeCalendarLink } from '../api/calendar.ts';
import { DialogFrame } from './DialogFrame.tsx';
import { CopyLine, Trouble } from './bits.tsx';
import { useMay } from './session.tsx';
import { colours } from './theme.ts';
import { dayOf, localTime } from './today.ts';

/** One’s own jobs in a calendar of one’s own, by a secret address that can be taken back. */
export function CalendarDialog({ onClose }: { readonly onClose: () => void }) {
  const { data: links = [], error } = useQuery(calendarLinks());
  const may = useMay();
  const make = useMakeCalendarLink();
  const revoke = useRevokeCalendarLink();
  const open = links.filter(({ state }) => state === 'open');
  return (
    <DialogFrame
      title={may('work.read') ? 'Jobs in your calendar' : 'Visits in your calendar'}
      onClose={onClose}
      width="sm"
    >
      <Box sx={{ display: 'grid', gap: 1.5 }}>
        <Typography>
          An address that a calendar reads by itself:{' '}
          {may('work.read')
            ? 'your jobs, and those that nobody was given, of all sites'
            : 'every visit to your lawns, with its day'}
          . Whoever has it sees them, so keep it to yourself. It ends when you change your password or sign out
          everywhere.
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
        {open.map(({ id, madeAt, until }) => (
          <Box key={id} sx={{ display: 'flex', alignItems: 'center', borderTop: `1px solid ${colours.line}`, pt: 1 }}>
            <Box sx={{ flex: 1 }}>
              Made {localTime(madeAt)}, read until {withReadableDays(dayOf(new Date(until)))}
            </Box>
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
