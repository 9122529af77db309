import { type SiteAnswer, SiteInput } from '@glenfold/contract';
import { classValidatorResolver } from '@hookform/resolvers/class-validator';
import { Box, Button, Dialog, DialogActions, DialogContent, DialogTitle, TextField } from '@mui/material';
import { useForm } from 'react-hook-form';
import { useState } from 'react';
import { useSaveSite } from '../api/changes.ts';
import { ConflictDialog } from './ConflictDialog.tsx';
import { Trouble } from './bits.tsx';

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
  const { mutate, error, isPending } = saving;
  const { name, place } = formState.errors;
  const send = (input: SiteInput, version = site?.version ?? 0): void =>
    mutate({ seen: site && { id: site.id, version }, input }, { onSuccess: onSaved });
  const save = handleSubmit((input) => send(input));
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="xs">
      <form onSubmit={(event) => void save(event)} noValidate>
        <DialogTitle>{site ? 'Change the site' : 'Add a site'}</DialogTitle>
        <DialogContent sx={{ display: 'grid', gap: 2 }}>
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
          <Trouble error={error} />
        </DialogContent>
        <DialogActions>
          {onDelete && <Button onClick={onDelete}>Delete the site</Button>}
          <Box sx={{ flex: 1 }} />
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" variant="contained" disabled={isPending}>
            {site ? 'Save' : 'Add the site'}
          </Button>
        </DialogActions>
      </form>
      <ConflictDialog save={saving} base={site} send={send} onTheirs={onClose} />
    </Dialog>
  );
}
