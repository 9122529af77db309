import { Box } from '@mui/material';
import { Empty } from '../../ui/bits.tsx';

export function NotFound() {
  return (
    <Box component="main" sx={{ px: 3 }}>
      <Empty whole title="There is nothing at this address" to="/" action="Back to the rounds">
        The link may be old, or mistyped.
      </Empty>
    </Box>
  );
}
