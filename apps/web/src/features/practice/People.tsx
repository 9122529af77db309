import {
  type InvitationAnswer,
  InvitationInput,
  type MemberAnswer,
  type MemberInput,
  type Role,
  roleMeanings,
  roles,
} from '@glenfold/contract';
import { classValidatorResolver } from '@hookform/resolvers/class-validator';
import { Box, Button, MenuItem, TextField, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Controller, useForm, useWatch } from 'react-hook-form';
import { Link } from 'react-router';

import { queries } from '../../api/queries.ts';
import { colours } from '../../ui/theme.ts';
import { SitePicker } from '../../ui/SitePicker.tsx';
import { Trouble } from '../../ui/bits.tsx';
import { dayOf } from '../../ui/today.ts';
import { RemoveMember } from './RemoveMember.tsx';
import {
  practiceQueries,
  useEndAddresses,
  useInvite,
  useRevokeInvitation,
  useSaveMember,
  useSendReset,
} from './api.ts';

function Member({ member }: { readonly member: MemberAnswer }) {
  const save = useSaveMember();
  const sendReset = useSendReset();
  const [removing, setRemoving] = useState(false);
  const endAddresses = useEndAddresses();
  const { id, person, role, siteIds, you, cannotSignIn, addresses } = member;
  // A client is saved once sites are chosen: until then the role is only wished for.
  const [wish, setWish] = useState<MemberInput | null>(null);
  const shown = wish ?? { role, siteIds };
  const { data: sites } = useQuery(queries.sitesNamed(shown.siteIds));
  const send = (input: MemberInput): void => {
    const named = new Map(sites?.sites.map((site) => [site.id, site.name]));
    const done = (): void => setWish(null);
    save.mutate({ seen: member, input, named, onTheirs: done }, { onSuccess: done });
  };
  const choose = (next: Role): void => {
    if (next === 'client') setWish({ role: next, siteIds });
    else send({ role: next, siteIds: [] });
  };
  const name = person.name;
  return (
    <Box
      component="li"
      aria-label={name}
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: '1fr', md: 'minmax(0, 300px) 150px minmax(0, 1fr)' },
        columnGap: 3,
        rowGap: 0.5,
        py: 1.25,
        borderTop: `1px solid ${colours.line}`,
        alignItems: 'start',
      }}
    >
      <Box>
        <Box sx={{ fontWeight: 700 }}>
          {name}
          {you && ' (you)'}
        </Box>
        <Box sx={{ color: colours.faded, fontSize: '0.92rem' }}>{person.email}</Box>
        {cannotSignIn && (
          <Box sx={{ color: colours.ochre, fontSize: '0.92rem' }}>Has no password here yet: send a link.</Box>
        )}
      </Box>
      <TextField
        select
        variant="standard"
        value={shown.role}
        onChange={(event) => choose(event.target.value as Role)}
        slotProps={{ htmlInput: { 'aria-label': `Role of ${name}` } }}
      >
        {roles.map((option) => (
          <MenuItem key={option} value={option}>
            {option}
          </MenuItem>
        ))}
      </TextField>
      <Box sx={{ display: 'flex', gap: 1, justifyContent: { md: 'end' }, whiteSpace: 'nowrap' }}>
        <Button
          size="small"
          onClick={() => sendReset.mutate(id)}
          disabled={sendReset.isPending}
          {...(sendReset.isSuccess ? {} : { 'aria-label': `Send a password link to ${name}` })}
        >
          {sendReset.data ? (sendReset.data.link ? 'Link made' : 'Link sent') : 'Send a password link'}
        </Button>
        {addresses > 0 && (
          <Button
            size="small"
            disabled={endAddresses.isPending}
            onClick={() => endAddresses.mutate(id)}
            aria-label={`End the secret addresses of ${name}`}
          >
            {addresses === 1 ? 'End their calendar or link' : `End their ${addresses} calendars and links`}
          </Button>
        )}
        <Button size="small" onClick={() => setRemoving(true)} aria-label={`Remove ${name}`}>
          Remove
        </Button>
        {removing && <RemoveMember member={member} onClose={() => setRemoving(false)} />}
      </Box>
      <Box sx={{ gridColumn: '1 / -1' }}>
        {shown.role === 'client' && (
          <Box sx={{ display: 'flex', gap: 2, alignItems: 'center', flexWrap: 'wrap' }}>
            <Typography sx={{ color: colours.faded }}>reads</Typography>
            <SitePicker
              several
              label="Sites whose reports they read"
              value={shown.siteIds}
              onChange={(chosen) => setWish({ role: 'client', siteIds: chosen })}
            />
            {wish && (
              <>
                <Button size="small" variant="contained" onClick={() => send(wish)} disabled={save.isPending}>
                  Save
                </Button>
                <Button size="small" onClick={() => setWish(null)}>
                  Cancel
                </Button>
              </>
            )}
          </Box>
        )}
        <Trouble error={save.error ?? sendReset.error ?? endAddresses.error} />
        {sendReset.data &&
          (sendReset.data.link ? (
            <Typography role="status" component="div">
              No mail leaves here: give this link to {name} yourself. It works once, within the hour, and only {name}{' '}
              chooses the password.
              <Box component="code" sx={{ display: 'block', userSelect: 'all', overflowWrap: 'anywhere', my: 0.5 }}>
                {sendReset.data.link}
              </Box>
            </Typography>
          ) : (
            <Typography role="status">The link is on its way to {person.email}; nobody else reads it.</Typography>
          ))}
      </Box>
    </Box>
  );
}

function Invited({ invitation }: { readonly invitation: InvitationAnswer }) {
  const revoke = useRevokeInvitation();
  const { id, email, role, invitedBy, expiresAt, expired } = invitation;
  return (
    <Box
      component="li"
      sx={{ display: 'flex', gap: 2, alignItems: 'center', py: 1, borderTop: `1px solid ${colours.line}` }}
    >
      <Box sx={{ flex: 1 }}>
        <strong>{email}</strong> as {role}, by {invitedBy};{' '}
        <Box component="span" sx={{ color: expired ? colours.ochre : undefined }}>
          {expired ? 'expired, invite again' : `open until ${dayOf(new Date(expiresAt))}`}
        </Box>
        <Trouble error={revoke.error} />
      </Box>
      <Button size="small" variant="outlined" onClick={() => revoke.mutate(id)} aria-label={`Take back ${email}`}>
        Take back
      </Button>
    </Box>
  );
}

function Invite() {
  const { control, register, handleSubmit, reset, setError, formState } = useForm<InvitationInput>({
    resolver: classValidatorResolver(InvitationInput),
    defaultValues: { email: '', role: 'advisor', siteIds: [] },
  });
  const invite = useInvite();
  const { errors } = formState;
  const role = useWatch({ control, name: 'role' });
  const send = handleSubmit((input) =>
    invite.mutate(
      { ...input, siteIds: input.role === 'client' ? input.siteIds : [] },
      {
        onSuccess: () => reset(),
        onError: ({ fields }) =>
          fields.forEach(({ field, message }) => setError(field as keyof InvitationInput, { message })),
      },
    ),
  );
  return (
    <Box
      component="form"
      aria-label="Invite"
      onSubmit={(event) => void send(event)}
      noValidate
      sx={{ mt: 1, maxWidth: 760 }}
    >
      <Box sx={{ display: 'flex', gap: 2, alignItems: 'start', flexWrap: 'wrap' }}>
        <TextField
          {...register('email')}
          label="E-mail"
          type="email"
          error={!!errors.email}
          helperText={errors.email?.message}
          sx={{ flex: 1, minWidth: 220 }}
        />
        <Controller
          name="role"
          control={control}
          render={({ field }) => (
            <TextField {...field} select label="Role" sx={{ width: 150 }}>
              {roles.map((option) => (
                <MenuItem key={option} value={option}>
                  {option}
                </MenuItem>
              ))}
            </TextField>
          )}
        />
        <Button type="submit" variant="contained" disabled={invite.isPending} sx={{ minHeight: 40 }}>
          Invite
        </Button>
      </Box>
      <Typography sx={{ color: colours.faded, mt: 0.5 }}>
        {role}: {roleMeanings[role]}
      </Typography>
      {role === 'client' && (
        <Controller
          name="siteIds"
          control={control}
          render={({ field }) => (
            <Box sx={{ mt: 1 }}>
              <SitePicker
                several
                label="Sites whose reports they read"
                value={field.value}
                onChange={field.onChange}
                problem={errors.siteIds?.message}
              />
              <Typography sx={{ color: colours.faded, fontSize: '0.93rem' }}>
                None is there yet? Invite them all the same, and choose the site here when it is.
              </Typography>
            </Box>
          )}
        />
      )}
      {invite.error?.fields.length === 0 && <Trouble error={invite.error} />}
      {invite.isSuccess && (
        <Box
          role="status"
          sx={{ borderLeft: `3px solid ${colours.lichen}`, background: colours.lichenWash, px: 1.5, py: 0.75, mt: 1 }}
        >
          Invited {invite.data.email}. The message is in the <Link to="/practice/outbox">outbox</Link>.
        </Box>
      )}
    </Box>
  );
}

/** Who belongs to the practice, as what; and who is invited. */
export function People() {
  const { data: members, error } = useQuery(practiceQueries.members());
  const { data: invitations = [] } = useQuery(practiceQueries.invitations());
  const list = { listStyle: 'none', m: 0, p: 0 };
  return (
    <>
      <Trouble error={error} />
      <Box component="ul" aria-label="Members" sx={{ ...list, borderBottom: `1px solid ${colours.line}` }}>
        {members?.map((member) => (
          <Member key={member.id} member={member} />
        ))}
      </Box>
      <Typography variant="h2" sx={{ mt: 4 }}>
        Invite somebody
      </Typography>
      <Invite />
      {invitations.length > 0 && (
        <>
          <Typography variant="h2" sx={{ mt: 4, mb: 1 }}>
            Invited, not here yet
          </Typography>
          <Box component="ul" aria-label="Invitations" sx={list}>
            {invitations.map((invitation) => (
              <Invited key={invitation.id} invitation={invitation} />
            ))}
          </Box>
        </>
      )}
    </>
  );
}
