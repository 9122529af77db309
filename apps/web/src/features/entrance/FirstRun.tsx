import { FirstRunInput, LoadExportInput } from '@glenfold/contract';
import { classValidatorResolver } from '@hookform/resolvers/class-validator';
import { Box, Button, LinearProgress, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { startOver, useFirstRun, useLoadExport } from '../../api/entrance.ts';
import { deviceZone } from '../../ui/today.ts';
import { colours } from '../../ui/theme.ts';
import { Trouble } from '../../ui/bits.tsx';
import { Threshold } from './Threshold.tsx';
import { Field, PasswordField } from './fields.tsx';

const form = { display: 'grid', gap: 2, maxWidth: 420 };

function NewPractice() {
  const { register, handleSubmit, formState, setError } = useForm<FirstRunInput>({
    resolver: classValidatorResolver(FirstRunInput),
    defaultValues: { practice: '', name: '', email: '', password: '' },
  });
  const begin = useFirstRun();
  const { errors } = formState;
  const send = handleSubmit((input) =>
    begin.mutate(
      { ...input, timeZone: deviceZone() },
      {
        onSuccess: () => startOver(),
        onError: ({ fields }) =>
          fields.forEach(({ field, message }) => setError(field as keyof FirstRunInput, { message })),
      },
    ),
  );
  return (
    <Box component="form" onSubmit={(event) => void send(event)} noValidate sx={form}>
      <Typography>
        The practice owns every site, result and price. You are its first owner, and invite the others.
      </Typography>
      <Field {...register('practice')} label="Name of the practice" autoFocus problem={errors.practice?.message} />
      <Field {...register('name')} label="Your name" autoComplete="name" problem={errors.name?.message} />
      <Field
        {...register('email')}
        label="Your e-mail"
        type="email"
        autoComplete="username"
        problem={errors.email?.message}
      />
      <PasswordField {...register('password')} label="A password" fresh problem={errors.password?.message} />
      <Trouble error={begin.error} />
      <Box>
        <Button type="submit" variant="contained" disabled={begin.isPending}>
          Begin
        </Button>
      </Box>
    </Box>
  );
}

function LoadExport() {
  const [file, setFile] = useState<File | null>(null);
  const { register, handleSubmit, formState, setError } = useForm<LoadExportInput>({
    resolver: classValidatorResolver(LoadExportInput),
    defaultValues: { email: '', password: '' },
  });
  const [gone, setGone] = useState(0);
  const load = useLoadExport(setGone);
  const { errors } = formState;
  const send = handleSubmit((input) =>
    load.mutate(
      { ...input, file: file! },
      {
        onSuccess: () => startOver(),
        onError: ({ fields }) =>
          fields.forEach(({ field, message }) => setError(field as keyof LoadExportInput, { message })),
      },
    ),
  );
  return (
    <Box component="form" onSubmit={(event) => void send(event)} noValidate sx={form}>
      <Typography>
        The ZIP that an owner downloaded under Practice, Data. Everything comes back as it was: sites, results, plans,
        people and the record of changes. Passwords are not in it, so choose yours anew.
      </Typography>
      <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'center', flexWrap: 'wrap' }}>
        <Button component="label" variant="outlined">
          Choose the ZIP
          <input
            type="file"
            accept=".zip,application/zip"
            hidden
            aria-label="ZIP of the export"
            onChange={(event) => setFile(event.target.files?.[0] ?? null)}
          />
        </Button>
        <Typography sx={{ color: file ? colours.ink : colours.faded }}>{file?.name ?? 'no file chosen'}</Typography>
      </Box>
      <Field
        {...register('email')}
        label="Your e-mail, as an owner of it"
        type="email"
        autoComplete="username"
        problem={errors.email?.message}
      />
      <PasswordField {...register('password')} label="A new password" fresh problem={errors.password?.message} />
      <Trouble error={load.error} />
      {load.isPending && (
        <Box role="status">
          <LinearProgress variant={gone < 1 ? 'determinate' : 'indeterminate'} value={100 * gone} aria-hidden />
          {gone < 1
            ? `Sending the file: ${Math.floor(100 * gone)} % of ${(file!.size / 1e6).toFixed(1)} MB.`
            : 'The file is here. Each part of it is looked through and taken in; many photos take some minutes.'}
        </Box>
      )}
      <Box>
        <Button type="submit" variant="contained" disabled={load.isPending || !file}>
          {load.isPending ? 'Loading…' : 'Load it and sign in'}
        </Button>
      </Box>
    </Box>
  );
}

/** The first screen of an empty installation. */
export function FirstRun() {
  const [way, setWay] = useState<'new' | 'load'>('new');
  return (
    <Threshold title="Set up your practice">
      <ToggleButtonGroup
        exclusive
        value={way}
        onChange={(_event, chosen: typeof way | null) => chosen && setWay(chosen)}
        aria-label="How to begin"
        sx={{ mb: 3 }}
      >
        <ToggleButton value="new">A new practice</ToggleButton>
        <ToggleButton value="load">One from an export</ToggleButton>
      </ToggleButtonGroup>
      {way === 'new' ? <NewPractice /> : <LoadExport />}
    </Threshold>
  );
}
