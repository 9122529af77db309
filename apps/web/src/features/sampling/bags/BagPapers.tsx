import { type BagLineAnswer, type LabelSheet, labelSheetNames } from '@glenfold/contract';
import { Box, Button, MenuItem, TextField } from '@mui/material';
import { useState } from 'react';
import { colours } from '../../../ui/theme.ts';
import { useMay } from '../../../ui/session.tsx';
import { useUnits } from '../../../ui/units.tsx';
import { Parcel } from './Parcel.tsx';

/** What is done with several bags at once: labels, the laboratory's form, the parcel. */
export function BagPapers({ bags }: { readonly bags: readonly BagLineAnswer[] }) {
  const { system } = useUnits();
  const may = useMay();
  const [sheet, setSheet] = useState<LabelSheet>(labelSheetNames[system === 'us' ? 2 : 0]!);
  const [posting, setPosting] = useState(false);
  const ids = bags.map(({ id }) => id).join();
  if (bags.length === 0)
    return (
      <Box sx={{ color: colours.faded, mb: 1.5 }}>
        Tick bags to print their labels, to fill in the laboratory’s form, or to post them together.
      </Box>
    );
  return (
    <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap', alignItems: 'center', mb: 1.5 }}>
      <Box sx={{ minWidth: 96 }}>{bags.length === 1 ? '1 bag chosen' : `${bags.length} bags chosen`}</Box>
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
        href={`/api/bags/labels.pdf?ids=${ids}&units=${system}&sheet=${encodeURIComponent(sheet)}`}
        target="_blank"
      >
        Print labels
      </Button>
      <Button variant="outlined" href={`/api/bags/submission.pdf?ids=${ids}&units=${system}`} target="_blank">
        Lab form
      </Button>
      <Button variant="outlined" href={`/api/bags/submission.csv?ids=${ids}`}>
        As CSV
      </Button>
      <Button variant="outlined" href={`/api/bags/submission.json?ids=${ids}`}>
        As JSON
      </Button>
      {may('field.write') && (
        <Button variant="outlined" onClick={() => setPosting(true)}>
          Post together
        </Button>
      )}
      {posting && <Parcel bags={bags} onClose={() => setPosting(false)} />}
    </Box>
  );
}
