import { type BagLineAnswer, feeOf } from '@glenfold/contract';
import { Autocomplete, Box, Button, TextField } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';

import { DialogFrame } from '../../../ui/DialogFrame.tsx';
import { colours } from '../../../ui/theme.ts';
import { Trouble } from '../../../ui/bits.tsx';
import { useUnits } from '../../../ui/units.tsx';
import { samplingQueries, useMoveBags } from '../api.ts';

/** What goes to one laboratory by one post. */
export function Parcel({ bags, onClose }: { readonly bags: readonly BagLineAnswer[]; readonly onClose: () => void }) {
  const move = useMoveBags();
  const { say } = useUnits();
  const { data: laboratories = [] } = useQuery(samplingQueries.laboratories());
  const planned = [...new Set(bags.map((bag) => bag.laboratory))];
  const [laboratory, setLaboratory] = useState((planned.length === 1 ? planned[0] : null) ?? '');
  const known = laboratories.find(({ name }) => name === laboratory);
  const fees = bags.map(({ panels }) => feeOf(known, panels));
  const total = fees.reduce<number>((sum, fee) => sum + (fee ?? 0), 0);
  const elsewhere = planned.filter((name) => name !== null && name !== laboratory);
  const [parcel, setParcel] = useState('');
  const send = (): void =>
    move.mutate(
      { bagIds: bags.map(({ id }) => id), state: 'sent', ...(laboratory ? { laboratory } : {}), parcel },
      { onSuccess: onClose },
    );
  return (
    <DialogFrame
      title={`Post ${bags.length === 1 ? 'one bag' : `${bags.length} bags together`}`}
      onClose={onClose}
      width="xs"
      actions={
        <>
          <Button onClick={onClose}>Not now</Button>
          <Button variant="contained" disabled={move.isPending} onClick={send}>
            Sent
          </Button>
        </>
      }
    >
      <Box sx={{ display: 'grid', gap: 1.5 }}>
        <Box>
          Dry, labelled, and the form inside? Sealed plastic keeps wet soil wet: paper or the laboratory’s lined bags.
        </Box>
        <Autocomplete
          freeSolo
          options={laboratories.map(({ name }) => name)}
          inputValue={laboratory}
          onInputChange={(_event, name) => setLaboratory(name)}
          renderInput={(params) => <TextField {...params} label="Laboratory" autoFocus />}
        />
        {elsewhere.length > 0 && laboratory !== '' && (
          <Box sx={{ color: colours.ochre, fontWeight: 700 }}>
            Planned for {elsewhere.join(' and ')}: another laboratory’s depth and units may not fit.
          </Box>
        )}
        {known && fees.every((fee) => fee !== null) && (
          <Box>
            {known.name} asks {say('money', total)} for {bags.length === 1 ? 'this bag' : `these ${bags.length} bags`}.
          </Box>
        )}
        <TextField
          label="Parcel, such as its number"
          value={parcel}
          onChange={(event) => setParcel(event.target.value)}
        />
        <Trouble error={move.error} />
      </Box>
    </DialogFrame>
  );
}
