import type { Fault } from '@glenfold/agronomy/geometry';
import { Box, Button, Typography } from '@mui/material';
import { type ReactNode, useEffect, useState } from 'react';
import { colours } from '../../../ui/theme.ts';
import { useUnits } from '../../../ui/units.tsx';
import type { Unsaved } from './useStrokes.ts';

function Notice({ children }: { readonly children: ReactNode }) {
  return (
    <Box
      role="alert"
      sx={{ borderLeft: `3px solid ${colours.ochre}`, background: colours.ochreWash, px: 1.5, py: 1, mt: 1 }}
    >
      {children}
    </Box>
  );
}

/** True once something has lasted that long, ms: what is over in a blink is not worth a word. */
function useAfter(lasting: boolean, wait: number): boolean {
  const [long, setLong] = useState(false);
  useEffect(() => {
    if (!lasting) return undefined;
    const timer = setTimeout(() => setLong(true), wait);
    return () => {
      clearTimeout(timer);
      setLong(false);
    };
  }, [lasting, wait]);
  return long;
}

interface SheetNoticesProps {
  readonly trouble: Error | null;
  readonly unsaved: Unsaved | null;
  readonly onLetGo: () => void;
  readonly faults: readonly Fault[];
  readonly nameOf: (place: number) => string;
  /** The search for overlaps is still going on. */
  readonly looking: boolean;
  /** Nothing for those who only look. */
  readonly onMend: ((fault: Fault) => void) | null;
}

/** What could not be cut, what could not be saved, and where zones overlap or leave a sliver. */
export function SheetNotices({ trouble, unsaved, onLetGo, faults, nameOf, looking, onMend }: SheetNoticesProps) {
  const { say } = useUnits();
  const slow = useAfter(looking, 1500);
  return (
    <>
      {trouble && <Notice>{trouble.message}</Notice>}
      {unsaved && (
        <Notice>
          <strong>Not saved: {unsaved.name}.</strong> {unsaved.error.message}
          <Box sx={{ display: 'flex', gap: 1, mt: 0.5 }}>
            {unsaved.again && (
              <Button size="small" variant="outlined" onClick={unsaved.again}>
                Try again on the plan as it is now
              </Button>
            )}
            <Button size="small" onClick={onLetGo}>
              Let it go
            </Button>
          </Box>
        </Notice>
      )}
      {faults.map((fault) => {
        const [first = '', second = ''] = fault.zones.map(nameOf);
        return (
          <Box
            key={`${fault.kind} ${fault.zones.join(' ')} ${fault.area}`}
            sx={{ display: 'flex', gap: 1.5, alignItems: 'center', flexWrap: 'wrap', mt: 1 }}
          >
            <Box sx={{ borderLeft: `3px solid ${colours.ochre}`, pl: 1.5 }}>
              {fault.kind === 'overlap'
                ? `${first} and ${second} both claim ${say('area', fault.area)}: it would be treated twice.`
                : `${say('area', fault.area)} between ${first} and ${second} belong to neither.`}
            </Box>
            {onMend && (
              <Button size="small" variant="outlined" onClick={() => onMend(fault)}>
                Give it to {first}
              </Button>
            )}
          </Box>
        );
      })}
      {slow && (
        <Typography sx={{ mt: 0.75, color: colours.faded, fontSize: '0.92rem' }}>
          Looking for overlaps and slivers between the zones…
        </Typography>
      )}
    </>
  );
}
