import { type SiteAnswer, SiteInput, accessKeys, accessWords, contactRoles, siteInput } from '@glenfold/contract';
import { Box, Button, MenuItem, TextField, Typography } from '@mui/material';
import { useState } from 'react';
import { useSaveSite } from '../../api/changes.ts';
import { Fields, FormDialog } from '../../ui/FormDialog.tsx';
import { useTyped } from '../../ui/useTyped.ts';

type Contact = NonNullable<SiteAnswer['contacts']>[number];
const helps: Readonly<Partial<Record<string, string>>> = {
  gate: 'Code, key, who opens',
  dog: 'Name and temper, and where it is kept',
  tip: 'Where a lorry may unload, and where not',
  caution: 'What is told before anybody gets out of the van',
};

/** Whom to ask at a site, and how to get in. */
export function PeopleForm({ site: opened, onClose }: { readonly site: SiteAnswer; readonly onClose: () => void }) {
  const [site] = useState(opened);
  const saving = useSaveSite();
  const { typed, set, problem, check } = useTyped(SiteInput, siteInput(site), saving.error);
  const send = (input: SiteInput): void =>
    saving.mutate({ seen: site, input, opened: siteInput(site), onTheirs: onClose }, { onSuccess: onClose });
  const contacts = (typed.contacts ?? []) as readonly Contact[];
  const setContact = (at: number, change: Partial<Contact>): void =>
    set({ contacts: contacts.map((one, index) => (index === at ? { ...one, ...change } : one)) });
  const access = (typed.access ?? {}) as Readonly<Record<string, string | null | undefined>>;
  const field = (at: number, key: 'name' | 'phone' | 'email' | 'note', label: string) => (
    <TextField
      label={label}
      value={contacts[at]![key] ?? ''}
      onChange={(event) => setContact(at, { [key]: event.target.value })}
      error={!!problem(`contacts.${at}.${key}`)}
      helperText={problem(`contacts.${at}.${key}`)}
      {...(key === 'phone' ? { type: 'tel' } : key === 'email' ? { type: 'email' } : {})}
    />
  );
  return (
    <>
      <FormDialog
        title={`People and access of ${site.name}`}
        action="Save"
        onClose={onClose}
        onSave={() => check(send)}
        saving={saving}
        wide
      >
        <Typography variant="h3">People</Typography>
        {contacts.map((contact, at) => (
          <Box
            key={at}
            sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', sm: '1.4fr 1fr 1.2fr 1.6fr 1.6fr auto' }, gap: 1 }}
          >
            {field(at, 'name', 'Name')}
            <TextField
              select
              label="Is the"
              value={contact.role}
              onChange={(event) => setContact(at, { role: event.target.value as Contact['role'] })}
            >
              {contactRoles.map((role) => (
                <MenuItem key={role} value={role}>
                  {role}
                </MenuItem>
              ))}
            </TextField>
            {field(at, 'phone', 'Phone')}
            {field(at, 'email', 'E-mail')}
            {field(at, 'note', 'Note')}
            <Button
              onClick={() => set({ contacts: contacts.filter((_, index) => index !== at) })}
              aria-label={`Leave out ${contact.name || 'this person'}`}
            >
              Leave out
            </Button>
          </Box>
        ))}
        <Box>
          <Button
            variant="outlined"
            size="small"
            onClick={() =>
              set({ contacts: [...contacts, { name: '', role: contacts.length === 0 ? 'owner' : 'keeper' }] })
            }
          >
            Another person
          </Button>
        </Box>
        <Typography variant="h3">Getting in</Typography>
        <Fields>
          {accessKeys.map((key) => (
            <TextField
              key={key}
              label={accessWords[key]}
              value={access[key] ?? ''}
              onChange={(event) => set({ access: { ...access, [key]: event.target.value } })}
              error={!!problem(`access.${key}`)}
              helperText={problem(`access.${key}`) ?? helps[key]}
              multiline={key === 'address'}
              maxRows={4}
            />
          ))}
        </Fields>
      </FormDialog>
    </>
  );
}
