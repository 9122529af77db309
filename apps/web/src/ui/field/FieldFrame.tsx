import { Box } from '@mui/material';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { useCarried, useHolder } from '../../offline/useOutbox.ts';
import { colours, onDark } from '../theme.ts';

/** Pixels that can be hit on a walk, each way. */
const TARGET = 44;

interface FieldFrameProps {
  /** Nothing where there is no way back without a connection. */
  readonly back?: string | undefined;
  readonly title: string | undefined;
  /** The title is the heading of the page: nothing below is. */
  readonly heading?: boolean;
  readonly children: ReactNode;
}

const line = { display: 'block', whiteSpace: 'nowrap', overflow: 'hidden', textOverflow: 'ellipsis' } as const;

/** How many things wait here or were refused: "all sent" only where that is known and true. */
export function useSending(): string {
  const { known, entries } = useCarried();
  const refused = entries.filter((entry) => entry.refused !== undefined).length;
  const waiting = entries.length - refused;
  if (!known) return '';
  if (waiting > 0) return `${waiting} kept here`;
  return refused > 0 ? `${refused} not taken` : 'all sent';
}

/** The frame of a screen for one hand: where it is, and whether all is sent. */
export function FieldFrame({ back, title, heading = false, children }: FieldFrameProps) {
  const holder = useHolder();
  return (
    <Box
      sx={{
        minHeight: '100dvh',
        display: 'flex',
        flexDirection: 'column',
        background: colours.paper,
        // A thumb in a glove, in the rain.
        '& .MuiButton-root, & .MuiIconButton-root, & .MuiToggleButton-root, & .MuiCheckbox-root, & .MuiRadio-root, & .MuiInputBase-root':
          { minHeight: TARGET },
        '& .MuiIconButton-root, & .MuiCheckbox-root, & .MuiRadio-root': { minWidth: TARGET },
        '&& .MuiSelect-select.MuiInputBase-input.MuiInputBase-input': {
          minHeight: TARGET,
          boxSizing: 'border-box',
          alignContent: 'center',
        },
        maxWidth: 560,
        mx: 'auto',
      }}
    >
      <Box
        component="header"
        sx={{
          ...onDark,
          px: 2,
          display: 'flex',
          gap: 1.5,
          alignItems: 'center',
        }}
      >
        {back !== undefined && (
          <Box
            component={Link}
            to={back}
            sx={{ color: colours.paper, fontWeight: 700, minHeight: TARGET, minWidth: TARGET, alignContent: 'center' }}
          >
            Back
          </Box>
        )}
        <Box
          component={heading ? 'h1' : 'div'}
          sx={{
            ...{ flex: 1, minWidth: 0, lineHeight: 1.2, m: 0, font: 'inherit' },
          }}
        >
          {holder && (
            <Box component="span" sx={{ ...line, fontSize: '0.8rem', fontWeight: 400, color: colours.line }}>
              {holder.practiceName}
            </Box>
          )}
          <Box component="span" sx={line}>
            {title}
          </Box>
        </Box>
        <Box role="status" aria-label="Sending" sx={{ fontWeight: 700, whiteSpace: 'nowrap' }}>
          <Link to="/sent" style={{ color: colours.paper }}>
            {useSending()}
          </Link>
        </Box>
      </Box>
      <Box component="main" sx={{ flex: 1, display: 'flex', flexDirection: 'column' }}>
        {children}
      </Box>
    </Box>
  );
}
