import { type DemoPersonAnswer, ForgotInput, SignInInput } from '@glenfold/contract';
import { classValidatorResolver } from '@hookform/resolvers/class-validator';
import { Box, Button, Typography } from '@mui/material';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { startOver, useEnterDemo, useForgot, useSignIn } from '../../api/entrance.ts';
import { colours } from '../../ui/theme.ts';
import { Trouble } from '../../ui/bits.tsx';
import { Threshold } from './Threshold.tsx';
import { Field, PasswordField } from './fields.tsx';

const here = (): string => window.location.pathname + window.location.search;

/** E-mail and password. @param onEntered instead of beginning anew at this page */
export function SignInForm({ email = '', onEntered }: { readonly email?: string; readonly onEntered?: () => void }) {
  const { register, handleSubmit, formState, getValues } = useForm<SignInInput>({
    resolver: classValidatorResolver(SignInInput),
    defaultValues: { email, password: '' },
  });
  const [forgot, setForgot] = useState(false);
  const signIn = useSignIn();
  const { errors } = formState;
  const enter = handleSubmit((input) => signIn.mutate(input, { onSuccess: onEntered ?? (() => startOver(here())) }));
  if (forgot) return <Forgot email={getValues('email')} onBack={() => setForgot(false)} />;
  return (
    <Box
      component="form"
      onSubmit={(event) => void enter(event)}
      noValidate
      sx={{ display: 'grid', gap: 2, maxWidth: 380 }}
    >
      <Field
        {...register('email')}
        label="E-mail"
        type="email"
        autoComplete="username"
        autoFocus={email === ''}
        problem={errors.email?.message}
      />
      <PasswordField
        {...register('password')}
        label="Password"
        autoFocus={email !== ''}
        problem={errors.password?.message}
      />
      <Trouble error={signIn.error} />
      <Box sx={{ display: 'flex', gap: 1, justifyContent: 'space-between' }}>
        <Button type="submit" variant="contained" disabled={signIn.isPending}>
          Sign in
        </Button>
        <Button onClick={() => setForgot(true)}>Password forgotten</Button>
      </Box>
    </Box>
  );
}

function Forgot({ email, onBack }: { readonly email: string; readonly onBack: () => void }) {
  const { register, handleSubmit, formState } = useForm<ForgotInput>({
    resolver: classValidatorResolver(ForgotInput),
    defaultValues: { email },
  });
  const ask = useForgot();
  const send = handleSubmit((input) => ask.mutate(input.email));
  return (
    <Box
      component="form"
      onSubmit={(event) => void send(event)}
      noValidate
      sx={{ display: 'grid', gap: 2, maxWidth: 380 }}
    >
      <Typography>A link to choose a new password goes to your address. It works once, within the hour.</Typography>
      <Field
        {...register('email')}
        label="E-mail"
        type="email"
        autoComplete="username"
        problem={formState.errors.email?.message}
      />
      <Trouble error={ask.error} />
      {ask.isSuccess && (
        <Box
          role="status"
          sx={{ borderLeft: `3px solid ${colours.lichen}`, background: colours.lichenWash, px: 1.5, py: 1 }}
        >
          If that address is known here, a message is on its way. Where no mail server is set up, none leaves: ask
          whoever runs the server, who makes a link with “npm run reset-link”.
        </Box>
      )}
      <Box sx={{ display: 'flex', gap: 1, justifyContent: 'space-between' }}>
        <Button type="submit" variant="contained" disabled={ask.isPending}>
          Send the link
        </Button>
        <Button onClick={onBack}>Back to signing in</Button>
      </Box>
    </Box>
  );
}

/** The made-up people of the demo, to enter with one click. */
function DemoPeople({ people }: { readonly people: readonly DemoPersonAnswer[] }) {
  const enter = useEnterDemo();
  return (
    <Box component="section" aria-labelledby="demo" sx={{ mt: 5 }}>
      <Typography variant="h2" id="demo">
        Or look around as one of the demo people
      </Typography>
      <Typography sx={{ color: colours.faded, mb: 1.5 }}>
        All made up, with made-up sites. Each sees what their role includes.
      </Typography>
      <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {people.map(({ personId, name, email, at }) => (
          <Box
            component="li"
            key={personId}
            sx={{
              display: 'grid',
              gridTemplateColumns: { xs: '1fr auto', sm: '150px minmax(0, 1fr) auto' },
              gap: 2,
              alignItems: 'center',
              py: 1,
              borderTop: `1px solid ${colours.line}`,
            }}
          >
            <Box sx={{ fontFamily: 'Bitter, serif', fontWeight: 700 }}>{name}</Box>
            <Box sx={{ gridRow: { xs: 2, sm: 'auto' }, gridColumn: { xs: '1 / -1', sm: 'auto' } }}>
              {at.map((place) => (
                <div key={place}>{place}</div>
              ))}
              <Box sx={{ color: colours.faded, fontSize: '0.9rem' }}>{email}</Box>
            </Box>
            <Button
              variant="outlined"
              disabled={enter.isPending}
              onClick={() => enter.mutate(personId, { onSuccess: () => startOver(here()) })}
              aria-label={`Enter as ${name}`}
            >
              Enter
            </Button>
          </Box>
        ))}
      </Box>
      <Trouble error={enter.error} />
    </Box>
  );
}

/** The way in. */
export function SignIn({ demoPeople }: { readonly demoPeople: readonly DemoPersonAnswer[] }) {
  return (
    <Threshold title="Sign in">
      <SignInForm />
      {demoPeople.length > 0 && <DemoPeople people={demoPeople} />}
    </Threshold>
  );
}
