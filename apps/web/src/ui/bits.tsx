import { Box, Button, TextField, Typography } from '@mui/material';
import { type ReactNode, useState } from 'react';
import { Link } from 'react-router';
import { ApiProblem } from '../api/client.ts';
import { colours } from './theme.ts';
import { Words } from './Words.tsx';
import { inUnits } from './inUnits.ts';
import { useUnits } from './units.tsx';

/** Stands where something comes whose code is on its way. */
export const Opening = () => <Typography sx={{ p: 2, color: colours.faded }}>Opening…</Typography>;

/** A caution, standing where the hand is about to do the thing. */
export function Cautions({ texts }: { readonly texts: readonly string[] }) {
  if (texts.length === 0) return null;
  return (
    <Box
      component="ul"
      aria-label="Cautions"
      sx={{
        m: 0,
        mt: 1,
        p: 0,
        pl: 1.5,
        borderLeft: `3px solid ${colours.ochre}`,
        listStyle: 'none',
        fontSize: '0.92rem',
      }}
    >
      {texts.map((text) => (
        <li key={text}>
          <Words>{text}</Words>
        </li>
      ))}
    </Box>
  );
}

/** What went wrong and what to do; what was typed stays on screen. A conflict has its own dialog. */
export function Trouble({ error }: { readonly error: Error | null }) {
  const { system } = useUnits();
  if (!error || (error instanceof ApiProblem && error.conflict)) return null;
  return (
    <Box
      role="alert"
      sx={{ borderLeft: `3px solid ${colours.ochre}`, background: colours.ochreWash, px: 1.5, py: 1, my: 1 }}
    >
      <Words>{inUnits(error.message, system)}</Words>
    </Box>
  );
}

interface EmptyProps {
  readonly title: string;
  readonly children?: ReactNode;
  readonly to?: string;
  readonly action?: string;
  readonly onClick?: () => void;
  /** There is nothing else on the page: it is its heading. */
  readonly whole?: boolean;
}

/** An empty screen says what to do next and offers it. */
export function Empty({ title, children, to, action, onClick, whole = false }: EmptyProps) {
  return (
    <Box sx={{ maxWidth: 560, py: 4 }}>
      <Typography variant="h2" component={whole ? 'h1' : 'h2'} gutterBottom>
        {title}
      </Typography>
      <Typography sx={{ mb: 2 }}>{children}</Typography>
      {action && to && (
        <Button variant="contained" component={Link} to={to}>
          {action}
        </Button>
      )}
      {action && onClick && (
        <Button variant="contained" onClick={onClick}>
          {action}
        </Button>
      )}
    </Box>
  );
}

/** A text to be taken along whole. */
export function CopyLine({ text, label }: { readonly text: string; readonly label: string }) {
  const [copied, setCopied] = useState(false);
  return (
    <Box sx={{ display: 'flex', gap: 1 }}>
      <TextField
        fullWidth
        value={text}
        onFocus={(event) => event.target.select()}
        slotProps={{ input: { readOnly: true }, htmlInput: { 'aria-label': label } }}
      />
      <Button
        variant="outlined"
        onClick={() =>
          void navigator.clipboard.writeText(text).then(
            () => setCopied(true),
            () => setCopied(false),
          )
        }
      >
        {copied ? 'Copied' : 'Copy'}
      </Button>
    </Box>
  );
}
