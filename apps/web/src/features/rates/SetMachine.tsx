import type { Treatment } from '@glenfold/agronomy';
import { Box, Button } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { machinesQuery } from '../../api/machines.ts';
import { Calibration, type Goal, isSprayer, isSpreader, useSettingWords } from '../../ui/calibration/Calibration.tsx';
import { colours } from '../../ui/theme.ts';

/** What a machine is to be set for, of a treatment that one puts down. */
function goalOf({ supply, sense, doses, status, values }: Treatment, area: number): Goal | undefined {
  const [dose] = doses;
  if (status !== 'planned' || !supply || !dose) return undefined;
  const sprayed = sense === 'liquidRate' && supply.unit === 'L';
  if (!sprayed && (supply.unit !== 'kg' || sense === 'layer')) return undefined;
  return {
    ...{ productId: supply.materialId, product: supply.name, rate: dose.rate, area, sprayed },
    ...(typeof values.water === 'number' ? { water: values.water } : {}),
  };
}

interface SetMachineProps {
  readonly treatment: Treatment;
  /** m² of the zone. */
  readonly area: number;
}

/** How the machine is set for a dose, from what was tried; and the trial itself. */
export function SetMachine({ treatment, area }: SetMachineProps) {
  const { data: machines = [] } = useQuery(machinesQuery());
  const words = useSettingWords();
  const [open, setOpen] = useState(false);
  const goal = goalOf(treatment, area);
  if (!goal) return null;
  const fitting = machines.filter(goal.sprayed ? isSprayer : isSpreader);
  const known = fitting.flatMap((machine) => {
    // Granules go down in two crossing directions, half each way; a spray is mixed to its rate.
    const told = goal.sprayed || goal.rate === null ? undefined : words(machine, goal, goal.rate / 2);
    return told ? [{ name: machine.name, told }] : [];
  });
  return (
    <Box sx={{ mt: 0.75, fontSize: '0.93rem' }}>
      {known.map(({ name, told }) => (
        <Box key={name} sx={{ color: colours.faded }}>
          {name}, half each way: {told}
        </Box>
      ))}
      <Button size="small" onClick={() => setOpen(true)} sx={{ px: 0, minHeight: 28 }}>
        {goal.sprayed ? 'Tanks and sprayer' : 'Set the spreader'}
      </Button>
      {open && <Calibration machines={fitting} goals={[goal]} onClose={() => setOpen(false)} />}
    </Box>
  );
}
