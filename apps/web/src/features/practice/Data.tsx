import { type PracticeAnswer, PracticeInput } from '@glenfold/contract';
import { classValidatorResolver } from '@hookform/resolvers/class-validator';
import { Autocomplete, Box, Button, Checkbox, FormControlLabel, TextField, Typography } from '@mui/material';
import { useState } from 'react';
import { Controller, useForm } from 'react-hook-form';

import { Trouble } from '../../ui/bits.tsx';
import { useSession } from '../../ui/session.tsx';
import { Histories } from './Histories.tsx';
import { useSavePractice } from './api.ts';

const given = ({ name, timeZone, currency, phone, email, clientsShare }: PracticeAnswer): PracticeInput => ({
  ...{ name, timeZone, currency, phone, email, clientsShare },
});

function Name({ practice }: { readonly practice: PracticeAnswer }) {
  const [seen, setSeen] = useState(practice);
  const { register, handleSubmit, reset, control, formState } = useForm<PracticeInput>({
    resolver: classValidatorResolver(PracticeInput),
    defaultValues: given(practice),
  });
  const save = useSavePractice();
  const show = (answer: PracticeAnswer): void => {
    setSeen(answer);
    reset(given(answer));
  };
  const submit = handleSubmit((input) =>
    save.mutate({ seen, input, onTheirs: (theirs) => show(theirs as PracticeAnswer) }, { onSuccess: show }),
  );
  return (
    <Box component="form" onSubmit={(event) => void submit(event)} noValidate>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: '1fr', sm: '2fr 1.6fr 0.9fr auto' },
          gap: 2,
          alignItems: 'start',
          maxWidth: 980,
        }}
      >
        <TextField
          {...register('name')}
          label="Name of the practice"
          fullWidth
          error={!!formState.errors.name}
          helperText={formState.errors.name?.message ?? 'Stands on plans, reports and invitations'}
        />
        <Controller
          name="timeZone"
          control={control}
          render={({ field }) => (
            <Autocomplete
              options={Intl.supportedValuesOf('timeZone')}
              value={field.value}
              disableClearable
              onChange={(_event, chosen) => field.onChange(chosen)}
              renderInput={(params) => (
                <TextField
                  {...params}
                  label="Time zone"
                  error={!!formState.errors.timeZone}
                  helperText={formState.errors.timeZone?.message ?? 'Of its days; a site may have its own'}
                />
              )}
            />
          )}
        />
        <TextField
          {...register('currency')}
          label="Currency"
          error={!!formState.errors.currency}
          helperText={formState.errors.currency?.message ?? 'Sign of the money'}
        />
        <TextField
          {...register('phone')}
          label="Phone"
          error={!!formState.errors.phone}
          helperText={formState.errors.phone?.message ?? 'Stands on every page that a client reads'}
        />
        <TextField
          {...register('email')}
          label="Mail"
          error={!!formState.errors.email}
          helperText={formState.errors.email?.message ?? 'So does this'}
        />
        <Controller
          name="clientsShare"
          control={control}
          render={({ field: { value, onChange } }) => (
            <FormControlLabel
              control={<Checkbox checked={value ?? false} onChange={(_event, checked) => onChange(checked)} />}
              label="Clients may share their report by a link"
            />
          )}
        />
        <Button type="submit" variant="outlined" disabled={save.isPending || !formState.isDirty} sx={{ minHeight: 40 }}>
          Save
        </Button>
      </Box>
      <Trouble error={save.error} />
    </Box>
  );
}

/** The practice's name, and leaving with everything. */
export function Data() {
  const { practice } = useSession();
  return (
    <>
      {practice && <Name practice={practice} />}
      <Typography variant="h2" sx={{ mt: 4 }}>
        Take everything along
      </Typography>
      <Typography sx={{ my: 1, maxWidth: 680 }}>
        One ZIP of open files: sites, products, samples and results as CSV, zones as GeoJSON, plans, people and the
        record of changes as JSON, with a list and a checksum of each. It can be loaded on the first screen of an empty
        Glenfold and gives the same practice back. Passwords, open invitations and share links stay behind.
      </Typography>
      <Button variant="contained" href="/api/practice/export" download>
        Download the practice (ZIP)
      </Button>
      <Typography sx={{ mt: 1.5, maxWidth: 680 }}>
        It holds addresses, results and prices of your clients: keep it where you would keep their keys.
      </Typography>
      <Histories />
    </>
  );
}
