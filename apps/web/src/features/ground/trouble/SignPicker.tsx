import { signs } from '@glenfold/agronomy';
import { Box, Button, ButtonBase, Typography } from '@mui/material';
import { useState } from 'react';
import { DialogFrame } from '../../../ui/DialogFrame.tsx';
import { colours } from '../../../ui/theme.ts';
import { SignDrawing } from './SignDrawing.tsx';

interface SignPickerProps {
  readonly zoneName: string;
  /** Signs that are marked already. */
  readonly seen: ReadonlySet<string>;
  readonly onClose: () => void;
  readonly onPick: (sign: string, where: 'all over' | 'on the plan') => void;
  /** Whether there is a plan to point at. */
  readonly drawn: boolean;
}

/** The signs of trouble, as they look: pick one, and say where it is. */
export function SignPicker({ zoneName, seen, onClose, onPick, drawn }: SignPickerProps) {
  const [picked, setPicked] = useState<string | null>(null);
  return (
    <DialogFrame
      title={`What do you see in ${zoneName}?`}
      onClose={onClose}
      width="md"
      actions={
        <>
          <Button onClick={onClose}>Cancel</Button>
          <Button
            variant="outlined"
            disabled={!picked || !drawn}
            onClick={() => picked && onPick(picked, 'on the plan')}
          >
            Point at it on the plan
          </Button>
          <Button variant="contained" disabled={!picked} onClick={() => picked && onPick(picked, 'all over')}>
            It is all over
          </Button>
        </>
      }
    >
      <Box
        role="radiogroup"
        aria-label="Signs of trouble"
        sx={{ display: 'grid', gap: 1, gridTemplateColumns: 'repeat(auto-fill, minmax(232px, 1fr))' }}
      >
        {signs.map(({ name, label, look }) => (
          <ButtonBase
            key={name}
            role="radio"
            aria-checked={picked === name}
            onClick={() => setPicked(name)}
            sx={{
              display: 'flex',
              gap: 1.25,
              p: 1,
              justifyContent: 'flex-start',
              textAlign: 'left',
              alignItems: 'flex-start',
              border: `${picked === name ? 2 : 1}px solid ${picked === name ? colours.ink : colours.line}`,
              background: picked === name ? colours.ochreWash : colours.sheet,
            }}
          >
            <SignDrawing sign={name} />
            <Box>
              <Typography sx={{ fontWeight: 700, lineHeight: 1.2 }}>
                {label}
                {seen.has(name) && <span style={{ color: colours.ochre }}> (marked)</span>}
              </Typography>
              <Typography sx={{ fontSize: '0.88rem', lineHeight: 1.25 }}>{look}</Typography>
            </Box>
          </ButtonBase>
        ))}
      </Box>
    </DialogFrame>
  );
}
