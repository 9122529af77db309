import { type SiteAnswer, SiteInput, siteInput } from '@glenfold/contract';
import { classValidatorResolver } from '@hookform/resolvers/class-validator';
import { Button, TextField } from '@mui/material';
import { useForm } from 'react-hook-form';
import { useState } from 'react';
import { useSaveSite } from '../api/changes.ts';
import { FormDialog } from './FormDialog.tsx';

interface SiteFormProps {
  /** The site to change; a new one when absent. */
  readonly site?: SiteAnswer;
  readonly onClose: () => void;
  readonly onSaved: (site: SiteAnswer) => void;
  readonly onDelete?: () => void;
}

/** Name and place of a site. */
export function SiteForm({ site: opened, onClose, onSaved, onDelete }: SiteFormProps) {
  // What is saved rests on the version that was opened, whatever arrives meanwhile.
  const [site] = useState(opened);
  const { register, handleSubmit, formState } = useForm<SiteInput>({
    resolver: classValidatorResolver(SiteInput),
    defaultValues: { name: site?.name ?? '', place: site?.place ?? '' },
  });
  const saving = useSaveSite();
  const { mutate } = saving;
  const { name, place } = formState.errors;
  const before = site && siteInput(site);
  // What this form does not show stays as it is.
  const save = handleSubmit((input) =>
    mutate({ seen: site, input: { ...before, ...input }, opened: before, onTheirs: onClose }, { onSuccess: onSaved }),
  );
  return (
    <FormDialog
      small
      byField={false}
      title={site ? 'Change the site' : 'Add a site'}
      action={site ? 'Save' : 'Add the site'}
      onClose={onClose}
      onSave={() => void save()}
      saving={saving}
      beside={onDelete && <Button onClick={onDelete}>Delete the site</Button>}
    >
      <TextField
        {...register('name')}
        label="Name"
        autoFocus
        sx={{ mt: 1 }}
        error={!!name}
        helperText={name?.message ?? 'A property that you look after'}
      />
      <TextField
        {...register('place')}
        label="Place"
        error={!!place}
        helperText={place?.message ?? 'Address or directions'}
      />
    </FormDialog>
  );
}
