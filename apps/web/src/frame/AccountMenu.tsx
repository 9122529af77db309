import { ChangePasswordInput } from '@glenfold/contract';
import { classValidatorResolver } from '@hookform/resolvers/class-validator';
import { Box, Button, Divider, ListSubheader, Menu, MenuItem, Typography } from '@mui/material';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { Link } from 'react-router';
import { startOver, useChangePassword, useChoosePractice, useSignOut } from '../api/entrance.ts';
import { PasswordField } from '../features/entrance/fields.tsx';
import { letDevice } from '../offline/holder.ts';
import { DialogFrame } from '../ui/DialogFrame.tsx';
import { colours } from '../ui/theme.ts';
import { Trouble } from '../ui/bits.tsx';
import { useSession } from '../ui/session.tsx';
import { BeforeLeaving, useUnsent } from './BeforeLeaving.tsx';
import { usePages } from './pages.ts';

function ChangePassword({ onClose }: { readonly onClose: () => void }) {
  const { register, handleSubmit, formState, setError } = useForm<ChangePasswordInput>({
    resolver: classValidatorResolver(ChangePasswordInput),
    defaultValues: { current: '', password: '' },
  });
  const change = useChangePassword();
  const { errors } = formState;
  const save = handleSubmit((input) =>
    change.mutate(input, {
      onError: ({ fields }) =>
        fields.forEach(({ field, message }) => setError(field as keyof ChangePasswordInput, { message })),
    }),
  );
  return (
    <DialogFrame
      title="Change the password"
      onClose={onClose}
      width="xs"
      onSubmit={() => void save()}
      actions={
        <>
          <Button onClick={onClose}>{change.isSuccess ? 'Close' : 'Cancel'}</Button>
          {!change.isSuccess && (
            <Button type="submit" variant="contained" disabled={change.isPending}>
              Change it
            </Button>
          )}
        </>
      }
    >
      <Box sx={{ display: 'grid', gap: 2 }}>
        {change.isSuccess ? (
          <Typography role="status">Changed. Every other browser of yours is signed out.</Typography>
        ) : (
          <>
            <Typography>Every other browser of yours is signed out by it.</Typography>
            <PasswordField
              {...register('current')}
              label="The password you use now"
              problem={errors.current?.message}
            />
            <PasswordField {...register('password')} label="A new password" fresh problem={errors.password?.message} />
            <Trouble error={change.error} />
          </>
        )}
      </Box>
    </DialogFrame>
  );
}

/** Who is signed in as what; the other practices, the password, and the way out. */
export function AccountMenu({ onKeys }: { readonly onKeys: () => void }) {
  const { person, practice, role, practices } = useSession();
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const [changing, setChanging] = useState(false);
  const signOut = useSignOut();
  const choose = useChoosePractice();
  const close = (): void => setAnchor(null);
  const unsent = useUnsent();
  const [leaving, setLeaving] = useState<Omit<Parameters<typeof BeforeLeaving>[0], 'onClose'> | null>(null);
  /** At once where all is sent; else asked. */
  const ask = (action: string, words: string, onLeave: () => void): void => {
    close();
    if (unsent === 0) onLeave();
    else setLeaving({ action, words, onLeave });
  };
  const leave = (everywhere: boolean): void =>
    ask(
      everywhere ? 'Sign out everywhere' : 'Sign out',
      'Signed out, it stays on this device, shown to nobody, and goes when you sign in here again.',
      () =>
        signOut.mutate(everywhere, {
          onSettled: () => {
            letDevice();
            startOver();
          },
        }),
    );
  const change = (practiceId: string, name: string): void =>
    ask(
      `Switch to ${name}`,
      `It is of ${practice?.name}: it stays on this device and goes when you come back to that practice here.`,
      () => choose.mutate(practiceId, { onSuccess: () => startOver() }),
    );
  // At the desk these stand in the bar.
  const pages = usePages();
  const others = practices.filter(({ practiceId }) => practiceId !== practice?.id);
  return (
    <>
      <Button
        onClick={(event) => setAnchor(event.currentTarget)}
        aria-haspopup="menu"
        aria-label={`${person?.name}, ${role}: account`}
        sx={{
          color: colours.paper,
          '&:hover': { background: '#34463F' },
          lineHeight: 1.1,
          textAlign: 'right',
          py: 0.25,
        }}
      >
        <Box component="span" sx={{ display: 'grid' }}>
          <span>{person?.name.split(' ')[0]}</span>
          <Box component="span" sx={{ fontWeight: 400, fontSize: '0.8rem', color: colours.line }}>
            {role}
          </Box>
        </Box>
      </Button>
      <Menu
        anchorEl={anchor}
        open={!!anchor}
        onClose={close}
        slotProps={{ paper: { sx: { border: `1px solid ${colours.ink}`, minWidth: 260 } } }}
      >
        <ListSubheader sx={{ lineHeight: 1.4, py: 1, background: 'none' }}>
          <strong>{person?.name}</strong>, {role} at {practice?.name}
          <br />
          {person?.email}
        </ListSubheader>
        {pages.length > 0 && <Divider sx={{ display: { sm: 'none' } }} />}
        {pages.map(([name, path]) => (
          <MenuItem key={path} component={Link} to={path} onClick={close} sx={{ display: { sm: 'none' } }}>
            {name}
          </MenuItem>
        ))}
        {others.length > 0 && <Divider />}
        {others.map(({ practiceId, practiceName, role: there }) => (
          <MenuItem key={practiceId} onClick={() => change(practiceId, practiceName)}>
            Switch to {practiceName} ({there})
          </MenuItem>
        ))}
        <Divider />
        <MenuItem
          onClick={() => {
            close();
            setChanging(true);
          }}
        >
          Change the password
        </MenuItem>
        <MenuItem
          onClick={() => {
            close();
            onKeys();
          }}
        >
          Keys
        </MenuItem>
        <MenuItem onClick={() => leave(true)}>Sign out everywhere</MenuItem>
        <MenuItem onClick={() => leave(false)}>Sign out</MenuItem>
      </Menu>
      {leaving && <BeforeLeaving {...leaving} onClose={() => setLeaving(null)} />}
      {changing && <ChangePassword onClose={() => setChanging(false)} />}
    </>
  );
}
