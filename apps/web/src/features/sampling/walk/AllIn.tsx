import { writeBagCode } from '@glenfold/agronomy';
import { Box, Button, Typography } from '@mui/material';
import { colours } from '../../../ui/theme.ts';

/** After the last core: what is done with the bucket, and the codes that go on the bags. */
export function AllIn({
  codes,
  onUndo,
}: {
  readonly codes: readonly string[];
  readonly onUndo: (() => void) | undefined;
}) {
  return (
    <Box sx={{ p: 2, display: 'grid', gap: 1.5 }}>
      <Typography variant="h1">All cores are in</Typography>
      <Typography>
        Break up and mix each bucket by itself, take out stones and roots, fill the bag, and write its code on it:
      </Typography>
      {codes.map((code) => (
        <Box
          key={code}
          sx={{
            fontFamily: 'Bitter, serif',
            fontWeight: 700,
            fontSize: '1.8rem',
            border: `2px solid ${colours.ink}`,
            px: 1.5,
            background: colours.sheet,
          }}
        >
          {writeBagCode(code)}
        </Box>
      ))}
      <Typography>Dry it in the air, in the shade. Never in an oven.</Typography>
      <Button variant="outlined" sx={{ minHeight: 52 }} disabled={!onUndo} onClick={onUndo}>
        Undo last
      </Button>
    </Box>
  );
}
