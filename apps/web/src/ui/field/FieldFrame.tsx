import { Box } from '@mui/material';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { colours, onDark } from '../theme.ts';

/** Pixels that can be hit on a walk, each way. */
const TARGET = 44;

interface FieldFrameProps {
  readonly back: string;
  readonly title: string | undefined;
  /** What was done and waits on the device. */
  readonly kept: number;
  /** The title is the heading of the page: nothing below is. */
  readonly heading?: boolean;
  readonly children: ReactNode;
}

/** The frame of a screen for one hand: where it is, and whether all is sent. */
export function FieldFrame({ back, title, kept, heading = false, children }: FieldFrameProps) {
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
        <Box
          component={Link}
          to={back}
          sx={{ color: colours.paper, fontWeight: 700, minHeight: TARGET, minWidth: TARGET, alignContent: 'center' }}
        >
          Back
        </Box>
        <Box
          component={heading ? 'h1' : 'div'}
          sx={{
            ...{ flex: 1, minWidth: 0, whiteSpace: 'nowrap', overflow: 'hidden', textOverflow: 'ellipsis' },
            ...{ m: 0, font: 'inherit' },
          }}
        >
          {title}
        </Box>
        <Box role="status" aria-label="Sending" sx={{ fontWeight: 700, whiteSpace: 'nowrap' }}>
          {kept === 0 ? 'all sent' : `${kept} kept here`}
        </Box>
      </Box>
      <Box component="main" sx={{ flex: 1, display: 'flex', flexDirection: 'column' }}>
        {children}
      </Box>
    </Box>
  );
}
