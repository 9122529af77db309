import { Box, ToggleButton, ToggleButtonGroup } from '@mui/material';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { colours, onDark } from '../../ui/theme.ts';
import { useUnits } from '../../ui/units.tsx';

/** The frame of the pocket: it needs no site, nobody signed in, and no connection. */
export function PocketFrame({ children }: { readonly children: ReactNode }) {
  const { system, choose } = useUnits();
  return (
    <Box sx={{ minHeight: '100dvh', display: 'flex', flexDirection: 'column' }}>
      <Box
        component="header"
        sx={{
          ...onDark,
          px: 2,
          minHeight: 46,
          display: 'flex',
          gap: 2,
          alignItems: 'center',
        }}
      >
        <Box
          component={Link}
          to="/"
          sx={{
            color: 'inherit',
            textDecoration: 'none',
            fontFamily: 'Bitter, serif',
            fontWeight: 700,
            fontSize: '1.15rem',
          }}
        >
          Glenfold
        </Box>
        <Box sx={{ flex: 1, color: colours.line, fontSize: '0.92rem', display: { xs: 'none', sm: 'block' } }}>
          Every calculation by itself, also without a connection
        </Box>
        <Box sx={{ flex: 1, display: { sm: 'none' } }} />
        <ToggleButtonGroup
          exclusive
          size="small"
          value={system}
          onChange={(_event, chosen: typeof system | null) => chosen && choose(chosen)}
          aria-label="Units"
          sx={{
            '& .MuiToggleButton-root': {
              color: colours.paper,
              borderColor: colours.faded,
              '&.Mui-selected': { background: colours.paper, color: colours.ink },
            },
          }}
        >
          <ToggleButton value="us">US</ToggleButton>
          <ToggleButton value="metric">Metric</ToggleButton>
        </ToggleButtonGroup>
      </Box>
      <Box component="main" sx={{ px: { xs: 2, md: 4 }, py: 2.5, width: '100%', maxWidth: 1240 }}>
        {children}
      </Box>
    </Box>
  );
}
