import type { LabResultAnswer } from '@glenfold/contract';
import { Box, Typography } from '@mui/material';
import { colours } from './theme.ts';
import { Words } from './Words.tsx';

/** What the laboratory itself advises, in its own words, beside ours. */
export function LabAdvice({ result: { advice } }: { readonly result: Pick<LabResultAnswer, 'advice'> }) {
  if (!advice) return null;
  return (
    <Box
      component="aside"
      aria-label="The laboratory’s own advice"
      sx={{
        borderLeft: `3px solid ${colours.slate}`,
        background: colours.slateWash,
        px: 2,
        py: 1,
        my: 1,
        maxWidth: 760,
      }}
    >
      <Typography variant="h3">The laboratory’s own advice</Typography>
      <Typography sx={{ whiteSpace: 'pre-line' }}>
        <Words>{advice}</Words>
      </Typography>
    </Box>
  );
}
