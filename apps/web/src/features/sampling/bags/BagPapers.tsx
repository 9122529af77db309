import { type BagLineAnswer, type LabelSheet, feeOf, labelSheetNames } from '@glenfold/contract';
import {
  Autocomplete,
  Box,
  Button,
  Dialog,
  DialogActions,
  DialogContent,
  DialogTitle,
  MenuItem,
  TextField,
} from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useMoveBags } from '../../../api/changes.ts';
import { queries } from '../../../api/queries.ts';
import { colours } from '../../../theme.ts';
import { Trouble } from '../../../ui/bits.tsx';
import { useMay } from '../../../ui/session.tsx';
import { useUnits } from '../../../ui/units.tsx';

/** What is done with several bags at once: labels, the laboratory's form, the parcel. */
export function BagPapers({ bags }: { readonly bags: readonly BagLineAnswer[] }) {
  const { system } = useUnits();
  const may = useMay();
  const [sheet, setSheet] = useState<LabelSheet>(labelSheetNames[system === 'us' ? 2 : 0]!);
  const [posting, setPosting] = useState(false);
  const ids = bags.map(({ id }) => id).join();
  const none = bags.length === 0;
  return (
    <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap', alignItems: 'center', mb: 1.5 }}>
      <Box sx={{ minWidth: 96 }}>
        {none ? 'No bag chosen' : bags.length === 1 ? '1 bag chosen' : `${bags.length} bags chosen`}
      </Box>
      <TextField
        select
        size="small"
        label="Label sheet"
        value={sheet}
        onChange={(event) => setSheet(event.target.value as LabelSheet)}
        sx={{ width: 250 }}
      >
        {labelSheetNames.map((name) => (
          <MenuItem key={name} value={name}>
            {name}
          </MenuItem>
        ))}
      </TextField>
      <Button
        variant="outlined"
        disabled={none}
        href={`/api/bags/labels.pdf?ids=${ids}&units=${system}&sheet=${encodeURIComponent(sheet)}`}
        target="_blank"
      >
        Print labels
      </Button>
      <Button
        variant="outlined"
        disabled={none}
        href={`/api/bags/submission.pdf?ids=${ids}&units=${system}`}
        target="_blank"
      >
        Lab form
      </Button>
      <Button variant="outlined" disabled={none} href={`/api/bags/submission.csv?ids=${ids}`}>
        As CSV
      </Button>
      <Button variant="outlined" disabled={none} href={`/api/bags/submission.json?ids=${ids}`}>
        As JSON
      </Button>
      {may('field.write') && (
        <Button variant="outlined" disabled={none} onClick={() => setPosting(true)}>
          Post together
        </Button>
      )}
      {posting && <Parcel bags={bags} onClose={() => setPosting(false)} />}
    </Box>
  );
}

function Parcel({ bags, onClose }: { readonly bags: readonly BagLineAnswer[]; readonly onClose: () => void }) {
  const move = useMoveBags();
  const { say } = useUnits();
  const { data: laboratories = [] } = useQuery(queries.laboratories());
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
    <Dialog open onClose={onClose} fullWidth maxWidth="xs">
      <DialogTitle>Post {bags.length === 1 ? 'one bag' : `${bags.length} bags together`}</DialogTitle>
      <DialogContent sx={{ display: 'grid', gap: 1.5 }}>
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
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Not now</Button>
        <Button variant="contained" disabled={move.isPending} onClick={send}>
          Sent
        </Button>
      </DialogActions>
    </Dialog>
  );
}
