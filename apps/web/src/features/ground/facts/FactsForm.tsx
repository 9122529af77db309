import { type Sense, grasses } from '@glenfold/agronomy';
import {
  type ZoneAnswer,
  ZoneFactsInput,
  airMovements,
  compassPoints,
  drySpellMarks,
  groundUses,
  irrigationWays,
} from '@glenfold/contract';
import { classValidatorResolver } from '@hookform/resolvers/class-validator';
import DeleteIcon from '@mui/icons-material/DeleteOutlined';
import { Box, Button, Checkbox, FormControlLabel, IconButton, MenuItem, TextField, Typography } from '@mui/material';
import { useState } from 'react';
import { Controller, useFieldArray, useForm } from 'react-hook-form';
import { FormDialog } from '../../../ui/FormDialog.tsx';
import { QuantityField } from '../../../ui/QuantityField.tsx';
import { colours } from '../../../ui/theme.ts';
import { useFacts } from './useFacts.ts';

const resolver = classValidatorResolver(ZoneFactsInput);
const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

const amounts: ReadonlyArray<
  readonly [name: 'sunHours' | 'slope' | 'elevation', label: string, sense: Sense, help: string]
> = [
  ['sunHours', 'Direct sun', 'hours', 'On a clear day in the growing season'],
  ['slope', 'Slope', 'percent', 'Fall on 100; the Levels tab finds it from spot heights'],
  ['elevation', 'Elevation', 'length', 'Above the sea'],
];

const choices: ReadonlyArray<
  readonly [name: 'aspect' | 'irrigation' | 'use' | 'air' | 'drySpell', label: string, options: readonly string[]]
> = [
  ['aspect', 'Falls toward', compassPoints],
  ['irrigation', 'Watered by', irrigationWays],
  ['use', 'Used for', groundUses],
  ['air', 'Air', airMovements],
  ['drySpell', 'In the last dry spell it', drySpellMarks],
];

/** The site's own climate of a zone: light, fall, water, air, use. */
export function FactsForm({ zone: opened, onClose }: { readonly zone: ZoneAnswer; readonly onClose: () => void }) {
  // What is saved rests on the version that was opened, whatever arrives meanwhile.
  const [zone] = useState(opened);
  const { send, saving } = useFacts(zone);
  const { control, register, handleSubmit, formState } = useForm<ZoneFactsInput>({
    resolver,
    defaultValues: zone.facts,
  });
  const { errors } = formState;
  const mix = useFieldArray({ control, name: 'mix' });
  const save = (input: ZoneFactsInput): void => send(input, onClose);
  const tick = (name: 'frostPocket' | 'seaside', label: string) => (
    <Controller
      name={name}
      control={control}
      render={({ field }) => (
        <FormControlLabel
          control={<Checkbox checked={field.value ?? false} onChange={(_event, on) => field.onChange(on || null)} />}
          label={label}
        />
      )}
    />
  );
  return (
    <FormDialog
      wide
      byField={false}
      title={`Light, fall, water and use of ${zone.name}`}
      action="Save"
      onClose={onClose}
      onSave={() => void handleSubmit((input) => save(input))()}
      saving={saving}
    >
      <div>
        <Typography sx={{ mb: 2 }}>Leave open what nobody has looked at: an unknown is better than a guess.</Typography>
        <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', sm: '1fr 1fr 1fr' }, gap: 2 }}>
          {amounts.map(([name, label, sense, help]) => (
            <Controller
              key={name}
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
          ))}
          {choices.map(([name, label, options]) => (
            <Controller
              key={name}
              name={name}
              control={control}
              render={({ field }) => (
                <TextField
                  {...field}
                  select
                  value={field.value ?? ''}
                  onChange={(event) => field.onChange(event.target.value || null)}
                  label={label}
                  error={!!errors[name]}
                  helperText={errors[name]?.message}
                >
                  <MenuItem value="">Not known</MenuItem>
                  {options.map((option) => (
                    <MenuItem key={option} value={option}>
                      {capital(option)}
                    </MenuItem>
                  ))}
                </TextField>
              )}
            />
          ))}
          <TextField
            {...register('drySpellOn', { setValueAs: (value: string) => value || null })}
            label="Dry spell of"
            error={!!errors.drySpellOn}
            helperText={errors.drySpellOn?.message ?? 'Such as 2026-08'}
          />
          {tick('frostPocket', 'Frost lies here longest')}
          {tick('seaside', 'Sea wind reaches it')}
        </Box>
        <Typography variant="h3" sx={{ mt: 3, mb: 1 }}>
          Grasses in the sward
        </Typography>
        {mix.fields.length === 0 && (
          <Typography sx={{ mb: 1 }}>One grass, as in the zone’s facts. Add the shares where it is a mix.</Typography>
        )}
        {mix.fields.map((entry, index) => (
          <Box key={entry.id} sx={{ display: 'flex', gap: 1, mb: 1, maxWidth: 480 }}>
            <Controller
              name={`mix.${index}.grass`}
              control={control}
              render={({ field }) => (
                <TextField {...field} select label="Grass" sx={{ flex: 1 }}>
                  {grasses.map(({ name, label }) => (
                    <MenuItem key={name} value={name}>
                      {capital(label)}
                    </MenuItem>
                  ))}
                </TextField>
              )}
            />
            <Controller
              name={`mix.${index}.share`}
              control={control}
              render={({ field }) => (
                <QuantityField
                  label="Share"
                  sense="percent"
                  value={field.value}
                  onChange={field.onChange}
                  problem={errors.mix?.[index]?.share?.message}
                  sx={{ width: 130 }}
                />
              )}
            />
            <IconButton aria-label="Take this grass out" onClick={() => mix.remove(index)}>
              <DeleteIcon />
            </IconButton>
          </Box>
        ))}
        {(errors.mix?.root ?? errors.mix)?.message && (
          <Typography role="alert" sx={{ color: colours.ochre }}>
            {(errors.mix?.root ?? errors.mix)?.message}
          </Typography>
        )}
        <Button
          variant="outlined"
          onClick={() => mix.append({ grass: zone.grass ?? 'tall fescue', share: mix.fields.length === 0 ? 100 : 10 })}
        >
          Add a grass
        </Button>
      </div>
    </FormDialog>
  );
}
