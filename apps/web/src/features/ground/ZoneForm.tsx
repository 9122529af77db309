import { grasses, soilGroups } from '@glenfold/agronomy';
import {
  type TapedShape,
  ZoneInput,
  type ZoneAnswer,
  clippingsHabits,
  intensities,
  shades,
  surfaces,
  zoneInput,
} from '@glenfold/contract';
import { classValidatorResolver } from '@hookform/resolvers/class-validator';
import { Box, Button, MenuItem, TextField, Typography } from '@mui/material';
import { Controller, type DefaultValues, useForm, useWatch } from 'react-hook-form';
import { useEffect, useState } from 'react';

import { FormDialog } from '../../ui/FormDialog.tsx';
import { QuantityField } from '../../ui/QuantityField.tsx';
import { useUnits } from '../../ui/units.tsx';
import { Ask } from './Ask.tsx';
import { ShapeFields, type TypedShape, freshShape, readShape, shapeLabels, typedOf } from './shapes/ShapeFields.tsx';
import { useSaveZone } from './api.ts';

const resolver = classValidatorResolver(ZoneInput);

const fresh: DefaultValues<ZoneInput> = {
  name: '',
  label: '',
  grass: 'tall fescue',
  surface: 'turf',
  intensity: 'medium',
  shade: 'full sun',
  clippings: 'returned',
};

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** Typed as it is known, or found by taping or pacing a simple shape. */
function AreaBy({ value, onChange, problem, drawn }: AreaByProps) {
  const { say } = useUnits();
  const [shape, setShape] = useState<TypedShape>(() => (value.taped ? typedOf(value.taped) : freshShape));
  const [open, setOpen] = useState(false);
  const [asked, setAsked] = useState(false);
  if (drawn)
    return (
      <QuantityField
        label="Area"
        sense="area"
        value={value.area}
        onChange={() => undefined}
        disabled
        helperText="Measured on the plan"
      />
    );
  const take = (): void => {
    setAsked(true);
    const { taped, result } = readShape(shape);
    if (!taped) return;
    onChange({ area: result.area, taped });
    setOpen(false);
  };
  return (
    <Box>
      <QuantityField
        label="Area"
        sense="area"
        value={value.area}
        onChange={(area) => onChange({ area, taped: null })}
        problem={problem}
        helperText={
          value.taped
            ? `${shapeLabels[value.taped.shape]}, ${say('area', value.area as number)}`
            : 'Less beds, drives and ponds; any unit, such as 0.1 ac'
        }
        fullWidth
      />
      <Button size="small" onClick={() => setOpen(true)}>
        {value.taped ? 'Change the lengths' : 'By taped or paced lengths'}
      </Button>
      {open && (
        <Ask title="A simple shape by its lengths" action="Take this area" onClose={() => setOpen(false)} onDone={take}>
          <ShapeFields value={shape} onChange={setShape} asked={asked} />
        </Ask>
      )}
    </Box>
  );
}

interface AreaByProps {
  readonly value: { readonly area: number | string | null | undefined; readonly taped: TapedShape | null | undefined };
  readonly onChange: (value: { readonly area: number | string | null; readonly taped: TapedShape | null }) => void;
  readonly problem: string | undefined;
  readonly drawn: boolean;
}

type ChoiceField = 'grass' | 'surface' | 'intensity' | 'shade' | 'clippings' | 'soilGroup';

interface ZoneFormProps {
  readonly siteId: string;
  readonly zone?: ZoneAnswer | undefined;
  readonly onClose: () => void;
  readonly onSaved: (zone: ZoneAnswer) => void;
}

/** The facts of a zone that reading and rates rest on. */
export function ZoneForm({ siteId, zone: opened, onClose, onSaved }: ZoneFormProps) {
  // What is saved rests on the version that was opened, whatever arrives meanwhile.
  const [zone] = useState(opened);
  const { control, register, handleSubmit, setError, setValue, getValues, formState } = useForm<ZoneInput>({
    resolver,
    defaultValues: zone ? zoneInput(zone) : fresh,
  });
  const [area, taped, surface] = useWatch({ control, name: ['area', 'taped', 'surface'] });
  const garden = surface === 'garden bed';
  const saving = useSaveZone(siteId);
  const { mutate } = saving;
  const { errors } = formState;
  const save = handleSubmit((input) =>
    mutate(
      { seen: zone, input, opened: zone, onTheirs: onClose },
      {
        onSuccess: onSaved,
        onError: ({ fields }) => fields.forEach(({ field, message }) => setError(field as 'name', { message })),
      },
    ),
  );
  // A bed has no grass, and a lawn has one.
  useEffect(() => {
    if (garden) setValue('grass', null);
    else if (!getValues('grass')) setValue('grass', 'tall fescue');
  }, [garden, setValue, getValues]);
  const choice = (
    name: ChoiceField,
    label: string,
    options: ReadonlyArray<readonly [value: string, text: string]>,
    help?: string,
  ) => (
    <Controller
      name={name}
      control={control}
      render={({ field }) => (
        <TextField
          {...field}
          value={field.value ?? ''}
          onChange={(event) => field.onChange(event.target.value || null)}
          select
          label={label}
          error={!!errors[name]}
          helperText={errors[name]?.message ?? help}
        >
          {options.map(([value, text]) => (
            <MenuItem key={value} value={value}>
              {text}
            </MenuItem>
          ))}
        </TextField>
      )}
    />
  );
  const amount = (
    name: 'aimPh' | 'thatch' | 'rootDepth' | 'probeStop',
    label: string,
    sense: 'ph' | 'depth',
    help: string,
  ) => (
    <Controller
      name={name}
      control={control}
      render={({ field }) => (
        <QuantityField
          label={label}
          sense={sense}
          value={field.value}
          onChange={field.onChange}
          onBlur={field.onBlur}
          inputRef={field.ref}
          problem={errors[name]?.message}
          helperText={help}
        />
      )}
    />
  );
  const words = (values: readonly string[]): ReadonlyArray<readonly [string, string]> =>
    values.map((value) => [value, capital(value)]);
  return (
    <FormDialog
      wide
      byField={false}
      title={zone ? `Change ${zone.name}` : 'Add a zone'}
      action={zone ? 'Save the zone' : 'Add the zone'}
      onClose={onClose}
      onSave={() => void save()}
      saving={saving}
    >
      <Typography>
        A zone is ground of one grass, one soil and one treatment. Ground fed differently, a bank, or shade under a tree
        is a zone of its own.
      </Typography>
      <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', sm: '1fr 1fr 1fr' }, gap: 2 }}>
        <TextField
          {...register('name')}
          label="Name"
          autoFocus
          error={!!errors.name}
          helperText={errors.name?.message ?? 'As people on site call it'}
        />
        <TextField
          {...register('label')}
          label="Bag label"
          error={!!errors.label}
          helperText={errors.label?.message ?? 'Results are matched by it'}
        />
        <AreaBy
          value={{ area, taped }}
          onChange={(next) => {
            setValue('area', next.area as number, { shouldDirty: true, shouldValidate: formState.isSubmitted });
            setValue('taped', next.taped, { shouldDirty: true });
          }}
          problem={errors.area?.message ?? errors.taped?.message}
          drawn={!!zone?.geometry}
        />
        {choice(
          'surface',
          'Surface',
          words(surfaces),
          garden ? 'Read by a general garden band; no lawn feed' : 'Caps what may go down at once',
        )}
        {!garden &&
          choice(
            'grass',
            'Grass',
            grasses.map(({ name, label }) => [name, capital(label)]),
          )}
        {choice('soilGroup', 'Soil', [['', 'Not known'], ...words(soilGroups)], 'Bands for K and Mg differ on sand')}
        {choice('shade', 'Shade', words(shades))}
        {!garden && choice('intensity', 'Intensity', words(intensities), 'Which end of the grass’s nitrogen range')}
        {!garden && choice('clippings', 'Clippings', words(clippingsHabits), 'Left, they save about 30 % of nitrogen')}
        {amount('aimPh', 'Aim for pH', 'ph', 'Where to, not whether; empty: the grass’s own')}
        <TextField
          {...register('aimReason')}
          label="Why this aim"
          error={!!errors.aimReason}
          helperText={errors.aimReason?.message ?? 'Wanted for an aim outside the grass’s band'}
        />
        {!garden && amount('thatch', 'Thatch', 'depth', 'Thickness; empty when not measured')}
        {amount('rootDepth', 'Root depth', 'depth', 'Empty when not measured')}
        {amount('probeStop', 'Probe stops at', 'depth', 'Empty when not tried')}
      </Box>
    </FormDialog>
  );
}
