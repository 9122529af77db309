import type { SessionAnswer } from '@glenfold/contract';
import { Box, Button, Typography } from '@mui/material';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { startOver, useChoosePractice } from '../api/entrance.ts';
import { queries } from '../api/queries.ts';
import { FirstRun } from '../features/entrance/FirstRun.tsx';
import { SignIn, SignInForm } from '../features/entrance/SignIn.tsx';
import { Threshold } from '../features/entrance/Threshold.tsx';
import { DialogFrame } from '../ui/DialogFrame.tsx';
import { colours } from '../ui/theme.ts';
import { Trouble } from '../ui/bits.tsx';
import { SessionProvider } from '../ui/session.tsx';
import { Shell } from './Shell.tsx';

/** Signed out under the hands: sign in over the page, so that nothing typed is lost. */
function SignInAgain({ email, personId }: { readonly email: string; readonly personId: string }) {
  const client = useQueryClient();
  const goOn = async (): Promise<void> => {
    const session = await client.query({ ...queries.session(), staleTime: 0 });
    // Somebody else's unsaved work is not theirs to see.
    if (session.person?.id !== personId) startOver();
    else void client.invalidateQueries();
  };
  return (
    <DialogFrame title="You were signed out">
      <Box sx={{ maxWidth: 440 }}>
        <Typography sx={{ mb: 2 }}>Sign in again to go on: what you typed is still on the page below.</Typography>
        <SignInForm email={email} onEntered={() => void goOn()} />
      </Box>
    </DialogFrame>
  );
}

/** Belongs to no practice, or not to the one that was open. */
function NoPractice({ session }: { readonly session: SessionAnswer }) {
  const choose = useChoosePractice();
  const { practices, person } = session;
  return (
    <Threshold title={practices.length > 0 ? 'Choose a practice' : 'No practice'}>
      <Typography sx={{ mb: 2 }}>
        {practices.length > 0
          ? 'You do not belong to the practice that was open here any more.'
          : `${person?.name ?? 'You'}, you do not belong to any practice any more. Ask an owner for an invitation.`}
      </Typography>
      <Box sx={{ display: 'grid', gap: 1, maxWidth: 420 }}>
        {practices.map(({ practiceId, practiceName, role }) => (
          <Button
            key={practiceId}
            variant="outlined"
            onClick={() => choose.mutate(practiceId, { onSuccess: () => startOver() })}
          >
            {practiceName}, as {role}
          </Button>
        ))}
      </Box>
      <Trouble error={choose.error} />
    </Threshold>
  );
}

/** Who is there decides what is shown: the first run, the way in, or the application. */
export function Entrance() {
  const { data: session, error } = useQuery(queries.session());
  const [last, setLast] = useState<SessionAnswer | undefined>();
  if (session?.state === 'signed in' && session !== last) setLast(session);

  if (!session)
    return error ? (
      <Threshold title="Glenfold does not answer">
        <Trouble error={error} />
      </Threshold>
    ) : (
      <Typography sx={{ p: 3, color: colours.faded }}>Opening Glenfold…</Typography>
    );
  if (session.state === 'first run') return <FirstRun />;
  const shown = session.state === 'signed in' ? session : last;
  if (!shown) return <SignIn demoPeople={session.demoPeople} />;
  if (!shown.practice) return <NoPractice session={shown} />;
  return (
    <SessionProvider value={shown}>
      <Shell key={`${shown.person?.id} ${shown.practice.id}`} />
      {session.state === 'signed out' && shown.person && (
        <SignInAgain email={shown.person.email} personId={shown.person.id} />
      )}
    </SessionProvider>
  );
}
