import { type Sense, rerate, tellTally, senseOfPack } from '@glenfold/agronomy';
import type { CardAnswer } from '@glenfold/contract';
import { Box, Typography } from '@mui/material';
import { useState } from 'react';
import { QuantityField } from '../../ui/QuantityField.tsx';
import { colours } from '../../ui/theme.ts';
import { useUnits } from '../../ui/units.tsx';

/** Bags against area, half-way: at which rate the rest goes, never over what one pass may carry. */
export function Tally({ card }: { readonly card: CardAnswer }) {
  const { system, say } = useUnits();
  const [used, setUsed] = useState<number | string | null>(null);
  const [done, setDone] = useState<number | string | null>(null);
  const { area, quantity, unit, rate, sense } = card;
  if (quantity === null || unit === null || rate === null || quantity <= 0) return null;
  const ready = typeof used === 'number' && typeof done === 'number' && done > 0;
  const tooMuch = typeof done === 'number' && done > area * 1.001;
  const tally = ready && !tooMuch ? { area, done, quantity, used } : undefined;
  const found = tally && rerate(tally);
  return (
    <Box component="details" sx={{ borderTop: `1px solid ${colours.line}`, mt: 1 }}>
      <Box component="summary" sx={{ cursor: 'pointer', fontWeight: 700, py: 1 }}>
        Half-way: bags against area
      </Box>
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.5, pt: 1 }}>
        <QuantityField
          label="Used so far"
          sense={senseOfPack[unit]}
          density={card.density}
          value={used}
          onChange={setUsed}
        />
        <QuantityField
          label="Done so far"
          sense="area"
          value={done}
          onChange={setDone}
          problem={tooMuch ? `The zone has ${say('area', area)}.` : undefined}
        />
      </Box>
      {tally && found && (
        <Typography
          role="status"
          sx={{ mt: 1, fontWeight: 700, color: Math.abs(found.soFar - 1) < 0.1 ? colours.lichen : colours.ochre }}
        >
          {tellTally(tally, found, { sense: sense as Sense, rate, unit, system })}
        </Typography>
      )}
    </Box>
  );
}
