import type { Fault } from '@glenfold/agronomy/plan';
import { Box, Button, Typography } from '@mui/material';
import type { ReactNode } from 'react';
import { colours } from '../../../theme.ts';
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

interface PlanNoticesProps {
  readonly trouble: Error | null;
  readonly unsaved: Unsaved | null;
  readonly onLetGo: () => void;
  readonly faults: readonly Fault[];
  readonly nameOf: (place: number) => string;
  /** Only the zones about the chosen one were looked through. */
  readonly partly: boolean;
  /** Nothing for those who only look. */
  readonly onMend: ((fault: Fault) => void) | null;
}

/** What could not be cut, what could not be saved, and where zones overlap or leave a sliver. */
export function PlanNotices({ trouble, unsaved, onLetGo, faults, nameOf, partly, onMend }: PlanNoticesProps) {
  const { say } = useUnits();
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
      {partly && (
        <Typography sx={{ mt: 0.75, color: colours.faded, fontSize: '0.92rem' }}>
          This is a large plan: overlaps and slivers are looked for about the chosen zone.
        </Typography>
      )}
    </>
  );
}
