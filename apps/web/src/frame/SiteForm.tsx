import { type SiteAnswer, SiteInput } from '@glenfold/contract';
import { classValidatorResolver } from '@hookform/resolvers/class-validator';
import { Box, Button, Dialog, DialogActions, DialogContent, DialogTitle, TextField } from '@mui/material';
import { useForm } from 'react-hook-form';
import { useSaveSite } from '../api/queries.ts';
import { Trouble } from '../ui/bits.tsx';

interface SiteFormProps {
  /** The site to change; a new one when absent. */
  readonly site?: SiteAnswer;
  readonly onClose: () => void;
  readonly onSaved: (site: SiteAnswer) => void;
  readonly onDelete?: () => void;
}

/** Name and place of a site. */
export function SiteForm({ site, onClose, onSaved, onDelete }: SiteFormProps) {
  const { register, handleSubmit, formState } = useForm<SiteInput>({
    resolver: classValidatorResolver(SiteInput),
    defaultValues: { name: site?.name ?? '', place: site?.place ?? '' },
  });
  const { mutate, error, isPending } = useSaveSite();
  const { name, place } = formState.errors;
  const save = handleSubmit((input) => mutate({ id: site?.id, input }, { onSuccess: onSaved }));
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
    </Dialog>
  );
}
