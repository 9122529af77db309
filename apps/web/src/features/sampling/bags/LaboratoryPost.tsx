import type { BagCount } from '@glenfold/contract';
import { Box, Button } from '@mui/material';
import { useQuery } from '@tanstack/react-query';

import { colours } from '../../../ui/theme.ts';
import { Trouble } from '../../../ui/bits.tsx';
import { useMay } from '../../../ui/session.tsx';
import { samplingQueries, useAskLaboratories, useHurryLaboratories } from '../api.ts';

/** What is on its way to simulated laboratories, whose calendar can be hurried. */
export function LaboratoryPost({ counts }: { readonly counts: readonly BagCount[] }) {
  const may = useMay();
  const { data: laboratories = [] } = useQuery(samplingQueries.laboratories());
  const ask = useAskLaboratories();
  const hurry = useHurryLaboratories();
  const simulated = new Set(laboratories.filter((laboratory) => laboratory.simulated).map(({ name }) => name));
  const out = counts
    .filter(
      ({ state, laboratory }) => ['sent', 'at the lab'].includes(state) && laboratory && simulated.has(laboratory),
    )
    .reduce((sum, { count }) => sum + count, 0);
  const answer = hurry.data ?? ask.data;
  if (!may('field.write') || (out === 0 && !answer)) return null;
  const nothing = answer?.words.length === 0;
  return (
    <Box sx={{ borderLeft: `3px solid ${colours.slate}`, pl: 1.25, mb: 2, maxWidth: 900 }}>
      <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap', alignItems: 'center' }}>
        <Box sx={{ flex: '1 1 320px' }}>
          {out === 0
            ? 'Nothing is out at the simulated laboratories.'
            : `${out === 1 ? 'One bag is' : `${out} bags are`} on the way to simulated laboratories, or there: they take a week or two, as real ones do.`}
        </Box>
        <Button size="small" variant="outlined" disabled={ask.isPending} onClick={() => ask.mutate(null)}>
          Ask for news
        </Button>
        {may('work.write') && (
          <Button size="small" variant="outlined" disabled={hurry.isPending} onClick={() => hurry.mutate(7)}>
            Hurry them by a week
          </Button>
        )}
      </Box>
      <Box role="status" aria-label="News of the laboratories">
        {nothing && 'No news yet.'}
        {answer?.words.map((words) => (
          <div key={words}>{words}</div>
        ))}
      </Box>
      <Trouble error={ask.error ?? hurry.error} />
    </Box>
  );
}
