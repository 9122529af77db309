import { Box, Typography } from '@mui/material';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { colours } from './theme.ts';

export interface Part {
  readonly name: string;
  readonly title: string;
  readonly about: string;
}

interface PartsPageProps {
  /** What the parts are of; stands over their list. */
  readonly of: string;
  readonly label: string;
  /** The path that a part's name is put behind. */
  readonly base: string;
  /** What the address asks beside, kept from part to part. */
  readonly search?: string;
  readonly parts: readonly Part[];
  readonly chosen: Part;
  readonly children: ReactNode;
}

/** A page of several parts: their list at the side (on a phone above), the chosen one beside it. */
export function PartsPage({ of, label, base, search = '', parts, chosen, children }: PartsPageProps) {
  return (
    <Box
      sx={{
        flex: 1,
        display: 'grid',
        gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: '228px minmax(0, 1fr)' },
        gridTemplateRows: { xs: 'auto 1fr', md: '1fr' },
      }}
    >
      <Box
        component="nav"
        aria-label={label}
        sx={{
          background: colours.sheet,
          borderRight: { md: `1px solid ${colours.line}` },
          borderBottom: { xs: `1px solid ${colours.line}`, md: 0 },
          pt: { md: 2 },
          display: { xs: 'flex', md: 'block' },
          overflowX: 'auto',
        }}
      >
        <Typography
          sx={{ px: 2, pb: 1.5, fontFamily: 'Bitter, serif', fontWeight: 700, display: { xs: 'none', md: 'block' } }}
        >
          {of}
        </Typography>
        {parts.map((part) => {
          const here = part.name === chosen.name;
          return (
            <Box
              key={part.name}
              component={Link}
              to={`${base}/${part.name}${search}`}
              aria-current={here ? 'page' : undefined}
              sx={{
                display: 'block',
                px: 2,
                py: 1,
                color: colours.ink,
                textDecoration: 'none',
                whiteSpace: { xs: 'nowrap', md: 'normal' },
                borderLeft: { md: `4px solid ${here ? colours.ink : 'transparent'}` },
                borderBottom: { xs: `4px solid ${here ? colours.ink : 'transparent'}`, md: 0 },
                background: here ? colours.paper : 'none',
                '&:hover': { textDecoration: 'underline' },
              }}
            >
              <Box sx={{ fontWeight: 700 }}>{part.title}</Box>
              <Box sx={{ fontSize: '0.85rem', color: colours.faded, display: { xs: 'none', md: 'block' } }}>
                {part.about}
              </Box>
            </Box>
          );
        })}
      </Box>
      <Box component="main" sx={{ px: { xs: 2, md: 4 }, py: 2.5, minWidth: 0, maxWidth: 1040 }}>
        <Typography variant="h1" sx={{ mb: 1.5 }}>
          {chosen.title}
        </Typography>
        {children}
      </Box>
    </Box>
  );
}
