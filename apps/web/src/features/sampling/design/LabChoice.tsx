import { extractantNames } from '@glenfold/agronomy';
import { type LaboratoryAnswer, feeOf } from '@glenfold/contract';
import { Box, Button, MenuItem, TextField } from '@mui/material';
import { colours } from '../../../ui/theme.ts';
import { Words } from '../../../ui/Words.tsx';
import { useUnits } from '../../../ui/units.tsx';

interface LabChoiceProps {
  readonly laboratories: readonly LaboratoryAnswer[];
  readonly chosen: string;
  readonly panels: readonly string[];
  readonly onChoose: (name: string) => void;
  /** cm */
  readonly onDepth: (depth: number) => void;
}

/** A usual depth of a probe within the span, else its middle, cm. */
function depthWithin({ from, to }: { readonly from: number; readonly to: number }): number {
  return [15.24, 10.16].find((usual) => from <= usual && usual <= to) ?? (from + to) / 2;
}

/** Where the bags are to go: how that laboratory tests, to which depths, and what it asks for. */
export function LabChoice({ laboratories, chosen, panels, onChoose, onDepth }: LabChoiceProps) {
  const { say } = useUnits();
  const laboratory = laboratories.find(({ name }) => name === chosen);
  const fee = feeOf(laboratory, panels);
  return (
    <Box sx={{ my: 1.5 }}>
      <TextField
        select
        fullWidth
        label="Laboratory"
        value={laboratory ? chosen : ''}
        onChange={(event) => onChoose(event.target.value)}
        slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
      >
        <MenuItem value="">another, or not decided yet</MenuItem>
        {laboratories.map(({ name }) => (
          <MenuItem key={name} value={name}>
            {name}
          </MenuItem>
        ))}
      </TextField>
      {laboratory && (
        <Box sx={{ borderLeft: `3px solid ${colours.slate}`, pl: 1, mt: 1, fontSize: '0.92rem' }}>
          {laboratory.simulated && <strong>Simulated: nothing is posted. </strong>}
          {laboratory.phone && `${laboratory.scientist ?? 'Its soil scientist'}: ${laboratory.phone}. `}
          {extractantNames[laboratory.extractant]}; <Words>{laboratory.units}</Words>. Its report is{' '}
          {laboratory.reports}, {laboratory.daysLeast} to {laboratory.daysMost} days after it has the bag.
          {fee !== null && ` ${say('money', fee)} a bag with these panels.`}
          <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.75, mt: 0.5 }}>
            {laboratory.depths.map(({ for: ground, ...span }) => (
              <Button key={ground} size="small" variant="outlined" onClick={() => onDepth(depthWithin(span))}>
                {say('depth', depthWithin(span))}, {ground}
              </Button>
            ))}
          </Box>
        </Box>
      )}
    </Box>
  );
}
