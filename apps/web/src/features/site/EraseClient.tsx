import { type ErasureAnswer, ErasureInput, type SiteAnswer } from '@glenfold/contract';
import { Box, Button, Link as MuiLink, TextField, Typography } from '@mui/material';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { Link } from 'react-router';
import { type ApiProblem, api } from '../../api/client.ts';
import { DialogFrame } from '../../ui/DialogFrame.tsx';
import { FormDialog } from '../../ui/FormDialog.tsx';
import { stepPath } from '../../ui/steps.ts';
import { colours } from '../../ui/theme.ts';
import { useTyped } from '../../ui/useTyped.ts';

const goes = [
  'the site’s name, place, people and ways in',
  'photos, the picture under the plan, and files as they came: of laboratories, and of many years in which it stands',
  'quotes’ words, letters, reports, and whatever was written freely: notes, reasons, captions, names of zones',
  'share links, invitations, and the account of a client who reads no other site',
  'where it lies: the drawing keeps its shape, and is moved by up to 8 km',
];
const stays = [
  'areas and outlines, grass, soil and facts that were ticked',
  'test values, rates, programs, jobs and what was put down, with days, amounts and who of yours did it',
  'in the record of changes: who of yours did what and when, with figures only',
];
const beyond = [
  'backups and exports that were made before: a restored backup is erased again by hand',
  'phones that took the site along, until they are next on line',
  'papers, messages that were received, and the laboratory’s own records',
];

function List({ title, items }: { readonly title: string; readonly items: readonly string[] }) {
  return (
    <Box>
      <Typography variant="h3">{title}</Typography>
      <Box component="ul" sx={{ m: 0, mt: 0.5, pl: 2.25, '& li': { mb: 0.5 } }}>
        {items.map((item) => (
          <li key={item}>{item}</li>
        ))}
      </Box>
    </Box>
  );
}

const counted = (count: number, one: string, many = `${one}s`): string => `${count} ${count === 1 ? one : many}`;

function Done({
  done: { site, files, accounts, changes },
  onClose,
}: {
  readonly done: ErasureAnswer;
  readonly onClose: () => void;
}) {
  return (
    <DialogFrame
      title="The client is erased"
      onClose={onClose}
      actions={
        <Button variant="contained" onClick={onClose}>
          Close
        </Button>
      }
    >
      <Typography>
        The site is called {site.name} from now on. Gone for good: {counted(files, 'file')} and{' '}
        {counted(accounts, 'account')}; {counted(changes, 'entry', 'entries')} of the record of changes keep figures
        only. That it was erased, and by whom, stands in the record of changes.
      </Typography>
      <Typography sx={{ mt: 1.5 }}>
        Backups and exports from before hold them still: throw those away when their time is up.
      </Typography>
    </DialogFrame>
  );
}

/** Ask for the site's name, say what goes and what does not, and erase whose it is. */
export function EraseClient({ site: opened, onClose }: { readonly site: SiteAnswer; readonly onClose: () => void }) {
  const [site] = useState(opened);
  const client = useQueryClient();
  const erasing = useMutation<ErasureAnswer, ApiProblem, ErasureInput>({
    mutationFn: (input) => api('POST', `/sites/${site.id}/erasure`, input),
    // Nothing that is kept in the browser is as it was.
    onSuccess: () => client.invalidateQueries(),
  });
  const { typed, set, problem, check } = useTyped(ErasureInput, { name: '' }, erasing.error);
  const field = useRef<HTMLInputElement>(null);
  const wrong = problem('name');
  // On a phone it stands below all that is to be read first.
  useEffect(() => {
    if (wrong) field.current?.focus();
  }, [wrong]);
  if (erasing.data) return <Done done={erasing.data} onClose={onClose} />;
  return (
    <FormDialog
      title={`Erase the client of ${site.name}`}
      action="Erase for good"
      onClose={onClose}
      onSave={() => check((input) => erasing.mutate(input))}
      saving={erasing}
      wide
    >
      <Typography sx={{ borderLeft: `3px solid ${colours.ochre}`, pl: 1.25 }}>
        This cannot be taken back. In many places whoever spreads fertilizer or sprays has to keep for some years what
        was put down, and where: ask your local rule, and{' '}
        <MuiLink component={Link} to={stepPath(site.id, 'logbook')}>
          print the logbook
        </MuiLink>{' '}
        first.
      </Typography>
      <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', md: '5fr 4fr 4fr' }, gap: 2.5 }}>
        <List title="Goes for good" items={goes} />
        <List title="Stays, without a name" items={stays} />
        <List title="Is not reached from here" items={beyond} />
      </Box>
      <TextField
        label={`Type “${site.name}”`}
        value={typed.name}
        onChange={({ target }) => set({ name: target.value })}
        inputRef={field}
        error={!!wrong}
        helperText={wrong}
        autoComplete="off"
      />
    </FormDialog>
  );
}
