import { Box, Typography } from '@mui/material';
import type { ReactNode } from 'react';
import { colours, onDark } from '../../ui/theme.ts';

const layers = ['Ground', 'Sampling', 'Lab', 'Reading', 'Rates', 'Season', 'Logbook', 'Proof'] as const;
const STEP = 54;
const TOP = 34;

/** A probe pushed into the ground: the work of a site, from the turf downwards. */
function Probe() {
  const height = TOP + layers.length * STEP;
  return (
    <svg viewBox={`0 0 240 ${height}`} width="240" height={height} aria-hidden style={{ display: 'block' }}>
      <path
        d={`M0 ${TOP} ${Array.from({ length: 40 }, (_, index) => `L${index * 6 + 3} ${TOP - 5 - ((index * 7) % 9)} L${index * 6 + 6} ${TOP}`).join(' ')}`}
        fill="none"
        stroke={colours.lichenWash}
        strokeWidth="1.4"
      />
      <rect x="58" y="4" width="44" height={height - 4} fill={colours.ink} />
      {layers.map((name, index) => {
        const y = TOP + index * STEP;
        return (
          <g key={name}>
            <rect x="64" y={y + 1.5} width="32" height={STEP - 3} fill={colours.paper} opacity={0.96 - index * 0.095} />
            {[0.25, 0.5, 0.75].map((share) => (
              <line key={share} x1="102" x2="108" y1={y + share * STEP} y2={y + share * STEP} stroke={colours.line} />
            ))}
            <line x1="102" x2="116" y1={y} y2={y} stroke={colours.paper} strokeWidth="1.6" />
            <text
              x="124"
              y={y + STEP / 2 + 5}
              fill={colours.paper}
              fontFamily="Bitter, serif"
              fontWeight="700"
              fontSize="15"
            >
              {name}
            </text>
          </g>
        );
      })}
      <rect x="60" y="4" width="40" height={height - 4} fill="none" stroke={colours.paper} strokeWidth="2.5" />
    </svg>
  );
}

interface ThresholdProps {
  readonly title: string;
  readonly children: ReactNode;
}

/** Every page before somebody is signed in. */
export function Threshold({ title, children }: ThresholdProps) {
  return (
    <Box
      sx={{
        minHeight: '100vh',
        display: 'grid',
        gridTemplateColumns: { xs: '1fr', md: '372px minmax(0, 1fr)' },
        gridTemplateRows: { xs: 'auto 1fr', md: '1fr' },
      }}
    >
      <Box sx={{ ...onDark, px: { xs: 2, md: 5 }, py: { xs: 1.5, md: 5 } }}>
        <Typography
          sx={{ fontFamily: 'Bitter, serif', fontWeight: 700, fontSize: { xs: '1.2rem', md: '2rem' }, lineHeight: 1.1 }}
        >
          Glenfold
        </Typography>
        <Typography sx={{ color: colours.line, display: { xs: 'none', md: 'block' }, mb: 4 }}>
          From the core to what the lawn gets.
        </Typography>
        <Box sx={{ display: { xs: 'none', md: 'block' } }}>
          <Probe />
        </Box>
      </Box>
      <Box component="main" sx={{ px: { xs: 2, md: 7 }, py: { xs: 3, md: 6 }, maxWidth: 860 }}>
        <Typography variant="h1" sx={{ mb: 2 }}>
          {title}
        </Typography>
        {children}
      </Box>
    </Box>
  );
}
