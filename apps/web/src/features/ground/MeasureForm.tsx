import { MeasurementsInput, type ZoneAnswer } from '@glenfold/contract';
import { classValidatorResolver } from '@hookform/resolvers/class-validator';
import { Typography } from '@mui/material';
import { useState } from 'react';
import { Controller, useForm } from 'react-hook-form';
import { useMeasure } from '../../api/changes.ts';
import { FormDialog } from '../../ui/FormDialog.tsx';
import { measuredDepths } from '../../ui/entryFields.ts';
import { QuantityField } from '../../ui/QuantityField.tsx';

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
  const { mutate } = saving;
  const save = handleSubmit((input) =>
    mutate({ seen: zone, input, opened: zone, onTheirs: onClose }, { onSuccess: onClose }),
  );
  return (
    <FormDialog
      small
      byField={false}
      title={`Measure ${zone.name}`}
      action="Save"
      onClose={onClose}
      onSave={() => void save()}
      saving={saving}
    >
      <Typography>Cut a slice a hand deep, lay a rule beside it, and put it back.</Typography>
      {measuredDepths.map(([name, label, help]) => (
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
    </FormDialog>
  );
}
