import { Box, Button, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { colours } from '../../ui/theme.ts';
import { Words } from '../../ui/Words.tsx';
import { useUnits } from '../../ui/units.tsx';
import { Opens } from '../../ui/working.tsx';
import { readingQueries } from './api.ts';

/** What one more measurement would settle in a zone: the best one at once, the others when they are asked for. */
export function Worth({ zoneId }: { readonly zoneId: string }) {
  const { system, say } = useUnits();
  const { data, error } = useQuery(readingQueries.worth(zoneId, system));
  const [open, setOpen] = useState(false);
  // It is beside the reading, and not missed where it does not come.
  if (error) return null;
  if (!data)
    return (
      <Typography role="status" sx={{ color: colours.faded, fontSize: '0.95rem' }}>
        What one more measurement would settle is being worked out…
      </Typography>
    );
  const [best, ...others] = data;
  if (!best) return null;
  return (
    <Box
      component="section"
      aria-label="What one more measurement is worth"
      sx={{ borderLeft: `3px solid ${colours.lichen}`, pl: 1.5, py: 0.5, my: 1, maxWidth: 760 }}
    >
      {[best, ...(open ? others : [])].map(({ key, name, words, stake, working }, index) => (
        <Box key={key} sx={{ py: 0.25, fontWeight: index === 0 ? 700 : 400 }}>
          <Words>{words}</Words>{' '}
          <Box component="span" sx={{ fontWeight: 400 }}>
            <Opens
              title={name}
              told={
                stake === null || stake < 1
                  ? 'How it was found'
                  : `about ${say('money', Math.round(stake)).replace(/\.00$/, '')} at stake`
              }
              working={working}
            />
          </Box>
        </Box>
      ))}
      {others.length > 0 && (
        <Button size="small" onClick={() => setOpen(!open)} aria-expanded={open} sx={{ ml: -0.75 }}>
          {open ? 'Fold the others' : `${others.length} more ${others.length === 1 ? 'measurement' : 'measurements'}`}
        </Button>
      )}
    </Box>
  );
}
