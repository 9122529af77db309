import { convert } from '@glenfold/agronomy';
import { Box, Button } from '@mui/material';
import { useUnits } from '../../../ui/units.tsx';

interface DepthStepperProps {
  readonly label: string;
  /** cm */
  readonly value: number;
  readonly onChange: (value: number) => void;
}

/** A depth by two large buttons, in whole centimetres or half inches. */
export function DepthStepper({ label, value, onChange }: DepthStepperProps) {
  const { system, say } = useUnits();
  const step = system === 'us' ? convert(0.5, 'in', 'cm') : 1;
  const to = (steps: number): void => onChange(Math.max(0, Math.min(100, (Math.round(value / step) + steps) * step)));
  return (
    <Box
      role="group"
      aria-label={label}
      sx={{ display: 'grid', gridTemplateColumns: '1fr 64px 92px 64px', alignItems: 'center', gap: 1 }}
    >
      <Box sx={{ fontSize: '1.05rem' }}>{label}</Box>
      <Button
        variant="outlined"
        aria-label={`${label}: less`}
        sx={{ minHeight: 52, fontSize: '1.5rem' }}
        onClick={() => to(-1)}
      >
        −
      </Button>
      <Box aria-live="polite" sx={{ textAlign: 'center', fontWeight: 700, fontSize: '1.35rem' }}>
        {say('depth', value)}
      </Box>
      <Button
        variant="outlined"
        aria-label={`${label}: more`}
        sx={{ minHeight: 52, fontSize: '1.5rem' }}
        onClick={() => to(1)}
      >
        +
      </Button>
    </Box>
  );
}
