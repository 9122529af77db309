import type { SessionAnswer } from '@glenfold/contract';
import { ReachPractice } from '../ui/ReachPractice.tsx';
import { Box, Button, Typography } from '@mui/material';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import { startOver, useChoosePractice } from '../api/entrance.ts';
import { ApiProblem } from '../api/client.ts';
import { queries } from '../api/queries.ts';
import { SignIn, SignInForm } from '../features/entrance/SignIn.tsx';
import { Threshold } from '../features/entrance/Threshold.tsx';
import { followHolder, noteHolder } from '../offline/holder.ts';
import { useCarried } from '../offline/useOutbox.ts';
import { DialogFrame } from '../ui/DialogFrame.tsx';
import { colours } from '../ui/theme.ts';
import { Trouble } from '../ui/bits.tsx';
import { SessionProvider } from '../ui/session.tsx';
import { deferred } from '../ui/deferred.tsx';
import { Shell } from './Shell.tsx';
import { WaitingLine } from './today/WaitingLine.tsx';

const FirstRun = deferred(async () => (await import('../features/entrance/FirstRun.tsx')).FirstRun);

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

/** What somebody who belongs to nothing any more has still on this device, and how it gets where it belongs. */
function Stranded({ personId }: { readonly personId: string | undefined }) {
  const count = useCarried().entries.filter(({ person }) => person?.id === personId).length;
  if (count === 0) return null;
  return (
    <Typography sx={{ mb: 2, borderLeft: `4px solid ${colours.ochre}`, pl: 1.5 }}>
      {count === 1 ? '1 thing that you wrote down is' : `${count} things that you wrote down are`} still on this device.
      Nothing of it is lost: somebody of the practice signs in here and hands it to the practice, under “On this
      device”.
    </Typography>
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
          : `${person?.name ?? 'You'}, you do not belong to any practice any more.`}
      </Typography>
      {practices.length === 0 && (
        <Typography sx={{ mb: 2 }}>
          {session.former ? (
            <>
              You belonged to{' '}
              <ReachPractice name={session.former.name} phone={session.former.phone} email={session.former.email} />.
              Ask {session.former.owners.join(' or ') || 'its owner'} if that is not right; an invitation lets you in
              again.
            </>
          ) : (
            'Ask an owner for an invitation.'
          )}
        </Typography>
      )}
      <Stranded personId={person?.id} />
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

/** Without a connection: what was taken along opens from here. */
function TakenAlong() {
  const ways = [
    ['Today', '/today', 'cards, walks and tests that were taken along, with gate codes and drawings'],
    ['On this device', '/sent', 'what was written down here and is not sent yet'],
    ['Pocket', '/pocket', 'every calculation, with nobody signed in'],
  ] as const;
  return (
    <Box component="nav" aria-label="On this device" sx={{ mt: 3 }}>
      <Typography sx={{ mb: 1 }}>What is on this device opens all the same:</Typography>
      {ways.map(([name, to, what]) => (
        <Box key={to} sx={{ borderTop: `1px solid ${colours.line}`, py: 1.25 }}>
          <Typography component={Link} to={to} sx={{ fontWeight: 700, color: colours.ink, fontSize: '1.1rem' }}>
            {name}
          </Typography>
          <Typography sx={{ color: colours.faded }}>{what}</Typography>
        </Box>
      ))}
    </Box>
  );
}

/** Who is there decides what is shown: the first run, the way in, or the application. */
export function Entrance() {
  const { data: session, error } = useQuery(queries.session());
  const client = useQueryClient();
  const [last, setLast] = useState<SessionAnswer | undefined>();
  // The device is held by who is signed in; what another tab changes of that, this one follows.
  useEffect(() => {
    if (session) noteHolder(session);
  }, [session]);
  useEffect(() => followHolder(() => void client.invalidateQueries({ queryKey: ['session'] })), [client]);
  if (session?.state === 'signed in' && session !== last) setLast(session);

  if (!session)
    return error ? (
      <Threshold title="Glenfold does not answer">
        {error instanceof ApiProblem && error.status === 0 ? (
          <Typography role="alert">
            There is no connection, or Glenfold is not running where it is served from.
          </Typography>
        ) : (
          <Trouble error={error} />
        )}
        <TakenAlong />
      </Threshold>
    ) : (
      <Typography sx={{ p: 3, color: colours.faded }}>Opening Glenfold…</Typography>
    );
  if (session.state === 'first run') return <FirstRun />;
  const shown = session.state === 'signed in' ? session : last;
  if (!shown)
    return (
      <>
        <Box sx={{ maxWidth: 560, mx: 'auto' }}>
          <WaitingLine />
        </Box>
        <SignIn demoPeople={session.demoPeople} />
      </>
    );
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
