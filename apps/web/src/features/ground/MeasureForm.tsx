import { MeasurementsInput, type ZoneAnswer } from '@glenfold/contract';
import { classValidatorResolver } from '@hookform/resolvers/class-validator';
import { Button, Dialog, DialogActions, DialogContent, DialogTitle, Typography } from '@mui/material';
import { useState } from 'react';
import { Controller, useForm } from 'react-hook-form';
import { useMeasure } from '../../api/changes.ts';
import { ConflictDialog } from '../../ui/ConflictDialog.tsx';
import { QuantityField } from '../../ui/QuantityField.tsx';
import { Trouble } from '../../ui/bits.tsx';

const fields = [
  ['thatch', 'Thatch', 'The spongy layer between grass and soil, on a cut slice'],
  ['rootDepth', 'Roots to', 'How far down the slice the roots still hold the soil'],
  ['probeStop', 'A probe stops at', 'Pushed with both hands, a day after rain; empty when it does not stop'],
] as const;

/** What a knife or a spade shows on the spot. */
export function MeasureForm({ zone: opened, onClose }: { readonly zone: ZoneAnswer; readonly onClose: () => void }) {
  // What is saved rests on the version that was opened, whatever arrives meanwhile.
  const [zone] = useState(opened);
  const { control, handleSubmit, formState } = useForm<MeasurementsInput>({
    resolver: classValidatorResolver(MeasurementsInput),
    defaultValues: {
      thatch: zone.thatch ?? null,
      rootDepth: zone.rootDepth ?? null,
      probeStop: zone.probeStop ?? null,
    },
  });
  const saving = useMeasure();
  const { mutate, error, isPending } = saving;
  const send = (input: MeasurementsInput, version = zone.version): void =>
    mutate({ seen: { id: zone.id, version }, input }, { onSuccess: onClose });
  const save = handleSubmit((input) => send(input));
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="xs">
      <form onSubmit={(event) => void save(event)} noValidate>
        <DialogTitle>Measure {zone.name}</DialogTitle>
        <DialogContent sx={{ display: 'grid', gap: 2 }}>
          <Typography>Cut a slice a hand deep, lay a rule beside it, and put it back.</Typography>
          {fields.map(([name, label, help]) => (
            <Controller
              key={name}
              name={name}
              control={control}
              render={({ field }) => (
                <QuantityField
                  label={label}
                  sense="depth"
                  value={field.value}
                  onChange={field.onChange}
                  onBlur={field.onBlur}
                  inputRef={field.ref}
                  problem={formState.errors[name]?.message}
                  helperText={help}
                />
              )}
            />
          ))}
          <Trouble error={error} />
        </DialogContent>
        <DialogActions>
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" variant="contained" disabled={isPending}>
            Save
          </Button>
        </DialogActions>
      </form>
      <ConflictDialog save={saving} base={zone} send={send} onTheirs={onClose} />
    </Dialog>
  );
}
