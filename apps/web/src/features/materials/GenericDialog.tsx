import { Box, Checkbox, FormControlLabel, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';

import { FormDialog } from '../../ui/FormDialog.tsx';
import { colours } from '../../ui/theme.ts';
import { groups } from './kinds.ts';
import { materialsQueries, useTakeGeneric } from './api.ts';

/** What of the generic catalogue is to come into the practice's own list. */
export function GenericDialog({ onClose }: { readonly onClose: () => void }) {
  const { data: all = [] } = useQuery(materialsQueries.generic());
  const take = useTakeGeneric();
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const open = all.filter(({ here }) => !here);
  const turn = (names: readonly string[], on: boolean): void =>
    setChosen((last) => new Set(on ? [...last, ...names] : [...last].filter((name) => !names.includes(name))));
  return (
    <FormDialog
      title="From the generic catalogue"
      action={chosen.size === 0 ? 'Take over' : `Take over ${chosen.size}`}
      onClose={onClose}
      onSave={() => (chosen.size === 0 ? onClose() : take.mutate([...chosen], { onSuccess: onClose }))}
      saving={take}
      wide
    >
      <Typography>
        {open.length === 0
          ? 'All of it is in your list already.'
          : 'What is in your list stays as it is. Prices are yours to set; analyses are typical ones, to be checked against the label.'}
      </Typography>
      {groups.map(({ title, kinds }) => {
        const own = open.filter(({ kind }) => kinds.includes(kind));
        if (own.length === 0) return null;
        const names = own.map(({ name }) => name);
        const every = names.every((name) => chosen.has(name));
        return (
          <Box
            key={title}
            component="fieldset"
            sx={{ border: 0, borderTop: `1px solid ${colours.line}`, p: 0, pt: 1, m: 0 }}
          >
            <FormControlLabel
              control={
                <Checkbox
                  checked={every}
                  indeterminate={!every && names.some((name) => chosen.has(name))}
                  onChange={(event) => turn(names, event.target.checked)}
                />
              }
              label={<strong>{title}</strong>}
            />
            <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', sm: '1fr 1fr' }, pl: 3 }}>
              {names.map((name) => (
                <FormControlLabel
                  key={name}
                  control={
                    <Checkbox
                      size="small"
                      checked={chosen.has(name)}
                      onChange={(event) => turn([name], event.target.checked)}
                    />
                  }
                  label={name}
                />
              ))}
            </Box>
          </Box>
        );
      })}
    </FormDialog>
  );
}
