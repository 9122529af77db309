import type { LoadCheckAnswer } from '@glenfold/contract';
import { Box, Button, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { LoadForm, verdictColour } from '../../ui/LoadForm.tsx';
import { colours } from '../../ui/theme.ts';
import { useToday } from '../../ui/today.ts';
import { useMay } from '../../ui/session.tsx';
import { useUndo } from '../../ui/undo.tsx';
import { labQueries, useKeepLoad } from './api.ts';

/** Loads and seed that came to a site: taken or sent back, and why. */
export function Loads({ siteId }: { readonly siteId: string }) {
  const { data: checks = [] } = useQuery(labQueries.loadChecks(siteId));
  const [opened, setOpened] = useState<LoadCheckAnswer | 'new' | null>(null);
  const may = useMay();
  const keep = useKeepLoad();
  const today = useToday(siteId);
  const { remove } = useUndo();
  return (
    <>
      <Box sx={{ display: 'flex', justifyContent: 'space-between', alignItems: 'baseline', gap: 2, mb: 1 }}>
        <Typography sx={{ maxWidth: 560 }}>Compost, topsoil, sand, fill and seed are looked over before they are tipped or opened.</Typography>
        {may('field.write') && <Button variant="outlined" onClick={() => setOpened('new')}>Look a load over</Button>}
      </Box>
      {checks.length === 0 && <Typography sx={{ color: colours.faded }}>None yet.</Typography>}
      {checks.map((one) => (
        <Box component="article" key={one.id} aria-label={one.name} sx={{ borderTop: `1px solid ${colours.line}`, borderLeft: `5px solid ${verdictColour[one.verdict]}`, pl: 1.5, py: 1 }}>
          <Typography sx={{ fontWeight: 700 }}>{`${one.name}, ${one.on}: ${one.decided ?? one.verdict}`}</Typography>
          <Typography>{one.reasons.slice(0, 2).join(' ')}</Typography>
          {one.goodFor.length > 0 && <Typography>Good for {one.goodFor.join('; ')}.</Typography>}
          {one.reason && <Typography sx={{ color: colours.faded }}>{one.reason}{one.by ? ` (${one.by})` : ''}</Typography>}
          {may('field.write') && <Button size="small" onClick={() => setOpened(one)} aria-label={`Open ${one.name}`}>Open</Button>}
          {may('work.delete') && <Button size="small" onClick={() => remove(`/load-checks/${one.id}`, one.name)} aria-label={`Delete ${one.name}`}>Delete</Button>}
        </Box>
      ))}
      {opened && <LoadForm key={opened === 'new' ? 'new' : opened.id} siteId={siteId} today={today} opened={opened === 'new' ? undefined : opened} keep={{ ...keep, mutate: (input, onKept) => keep.mutate(input, { onSuccess: onKept }) }} onClose={() => setOpened(null)} />}
    </>
  );
} // prettier-ignore
