import { type FeatureKind, isExclusion } from '@glenfold/agronomy';
import { type GroundFeatureAnswer, GroundFeatureInput } from '@glenfold/contract';
import { classValidatorResolver } from '@hookform/resolvers/class-validator';
import { Box, Button, TextField, Typography } from '@mui/material';
import { Controller, useForm } from 'react-hook-form';
import { QuantityField } from '../../../ui/QuantityField.tsx';
import { useMay } from '../../../ui/session.tsx';
import type { Pen } from '../drawing/DrawingEditor.tsx';
import { inputOf } from '../drawing/strokes.ts';

const resolver = classValidatorResolver(GroundFeatureInput);
/** Things that cast shade. */
const TALL: readonly FeatureKind[] = ['building', 'fence', 'tree'];

function meaning(kind: FeatureKind): string {
  if (isExclusion(kind)) return 'Not treated: what of a zone lies under it comes off the area.';
  if (kind === 'tree') return 'The ground under its canopy can be parted off as a zone of its own.';
  if (kind === 'spot height') return 'Three or more in a zone give its fall; some inside tell where it holds water.';
  if (kind === 'buried line')
    return 'No core is taken near it. Have it marked before you dig: this line is only a reminder.';
  return 'It takes nothing off the area.';
}

interface ThingPanelProps {
  readonly thing: GroundFeatureAnswer;
  readonly pen: Pen | null;
}

/** A thing on the ground beside the plan: what it is, and what is written of it. */
export function ThingPanel({ thing, pen }: ThingPanelProps) {
  const may = useMay();
  const from = inputOf(thing);
  const { control, register, handleSubmit, formState } = useForm<GroundFeatureInput>({ resolver, values: from });
  const { errors, isDirty } = formState;
  const { kind } = thing;
  const amount = (name: 'canopyRadius' | 'height', label: string, sense: 'length' | 'spotHeight', help: string) => (
    <Controller
      name={name}
      control={control}
      render={({ field }) => (
        <QuantityField
          label={label}
          sense={sense}
          value={field.value}
          onChange={field.onChange}
          problem={errors[name]?.message}
          helperText={help}
        />
      )}
    />
  );
  const save = handleSubmit((to) => {
    void pen?.make({ name: `Change ${thing.name ?? kind}`, changed: [{ id: thing.id, from, to }] });
  });
  return (
    <Box component="section" aria-label="The chosen thing">
      <Typography variant="h2" sx={{ mb: 0.5 }}>
        {thing.name ?? kind.charAt(0).toUpperCase() + kind.slice(1)}
      </Typography>
      <Typography sx={{ mb: 2 }}>{meaning(kind)}</Typography>
      {may('work.write') && (
        <form onSubmit={(event) => void save(event)} noValidate>
          <Box sx={{ display: 'grid', gap: 1.5 }}>
            <TextField
              {...register('name', { setValueAs: (value: string | null) => value || null })}
              label="Name"
              error={!!errors.name}
              helperText={errors.name?.message ?? 'As it stands on the plan'}
              slotProps={{ inputLabel: { shrink: true } }}
            />
            {kind === 'tree' &&
              amount('canopyRadius', 'Radius of the canopy', 'length', 'From the stem to the drip line')}
            {TALL.includes(kind) && amount('height', 'Height', 'length', 'Walls and fences of known height cast shade')}
            {kind === 'spot height' && amount('height', 'Height', 'spotHeight', 'Above what all are counted from')}
            <Button type="submit" variant="contained" disabled={!isDirty || !pen}>
              Save
            </Button>
          </Box>
        </form>
      )}
    </Box>
  );
}
