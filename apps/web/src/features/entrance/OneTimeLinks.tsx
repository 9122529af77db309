import { AcceptInput, ResetInput, roleMeanings } from '@glenfold/contract';
import { classValidatorResolver } from '@hookform/resolvers/class-validator';
import { Box, Button, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useForm } from 'react-hook-form';
import { Link, useParams } from 'react-router';
import { startOver, useAccept, useReset } from '../../api/entrance.ts';
import { Trouble } from '../../ui/bits.tsx';
import { Threshold } from './Threshold.tsx';
import { Field, PasswordField } from './fields.tsx';
import { entranceQueries } from './api.ts';

const form = { display: 'grid', gap: 2, maxWidth: 420, mt: 2 };

function Refused({ title, error }: { readonly title: string; readonly error: Error }) {
  return (
    <Threshold title={title}>
      <Trouble error={error} />
      <Button component={Link} to="/" variant="outlined" sx={{ mt: 1 }}>
        To the sign-in page
      </Button>
    </Threshold>
  );
}

/** Taking up an invitation. */
export function Invitation() {
  const { token = '' } = useParams();
  const { data: offer, error } = useQuery(entranceQueries.invitation(token));
  const accept = useAccept(token);
  const { register, handleSubmit, formState, setError } = useForm<AcceptInput>({
    resolver: classValidatorResolver(AcceptInput),
    defaultValues: { password: '' },
  });
  const { errors } = formState;
  if (error) return <Refused title="Invitation" error={error} />;
  if (!offer) return <Threshold title="Invitation">Looking it up…</Threshold>;
  const { practiceName, email, role, invitedBy, known } = offer;
  const send = handleSubmit((input) =>
    accept.mutate(input, {
      onSuccess: () => startOver(),
      onError: ({ fields }) =>
        fields.forEach(({ field, message }) => setError(field as keyof AcceptInput, { message })),
    }),
  );
  return (
    <Threshold title={`Join ${practiceName}`}>
      <Typography>
        {invitedBy} invites {email} as <strong>{role}</strong>: {roleMeanings[role]}.
      </Typography>
      <Box component="form" onSubmit={(event) => void send(event)} noValidate sx={form}>
        {!known && (
          <Field {...register('name')} label="Your name" autoComplete="name" autoFocus problem={errors.name?.message} />
        )}
        <PasswordField
          {...register('password')}
          label={known ? 'The password you use here already' : 'A password'}
          fresh={!known}
          problem={errors.password?.message}
        />
        <Trouble error={accept.error} />
        <Box>
          <Button type="submit" variant="contained" disabled={accept.isPending}>
            Join
          </Button>
        </Box>
      </Box>
    </Threshold>
  );
}

/** Choosing a new password by a link. */
export function Reset() {
  const { token = '' } = useParams();
  const { data: offer, error } = useQuery(entranceQueries.reset(token));
  const reset = useReset(token);
  const { register, handleSubmit, formState, setError } = useForm<ResetInput>({
    resolver: classValidatorResolver(ResetInput),
    defaultValues: { password: '' },
  });
  if (error) return <Refused title="New password" error={error} />;
  if (!offer) return <Threshold title="New password">Looking it up…</Threshold>;
  const send = handleSubmit(({ password }) =>
    reset.mutate(password, {
      onSuccess: () => startOver(),
      onError: ({ fields }) => fields.forEach(({ field, message }) => setError(field as keyof ResetInput, { message })),
    }),
  );
  return (
    <Threshold title="New password">
      <Typography>For {offer.email}. You are signed out everywhere else, and signed in here.</Typography>
      <Box component="form" onSubmit={(event) => void send(event)} noValidate sx={form}>
        <PasswordField
          {...register('password')}
          label="A new password"
          fresh
          autoFocus
          problem={formState.errors.password?.message}
        />
        <Trouble error={reset.error} />
        <Box>
          <Button type="submit" variant="contained" disabled={reset.isPending}>
            Set it and sign in
          </Button>
        </Box>
      </Box>
    </Threshold>
  );
}
