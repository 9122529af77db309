import { Box, Button, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { base64 } from '../../ui/base64.ts';
import { Trouble } from '../../ui/bits.tsx';
import { useMay } from '../../ui/session.tsx';
import { colours } from '../../ui/theme.ts';
import { practiceQueries, useAddHistory } from './api.ts';

const stands = { waiting: 'is being taken in', imported: 'is in the record', refused: 'was not taken in' } as const;

/** Many years' tests of many sites at once: all of a file, or nothing and why. */
export function Histories() {
  const { data: histories = [] } = useQuery(practiceQueries.histories());
  const add = useAddHistory();
  const may = useMay();
  const file = useRef<HTMLInputElement>(null);
  const [refusal, setRefusal] = useState<Error | null>(null);
  const take = async (picked: File | undefined): Promise<void> => {
    if (!picked) return;
    setRefusal(null);
    if (picked.size > 30_000_000) {
      setRefusal(new Error(`${picked.name} is larger than 30 MB: split it by years.`));
      return;
    }
    const bytes = await base64(picked);
    add.mutate({ fileName: picked.name, bytes });
  };
  return (
    <Box component="section" aria-labelledby="histories" sx={{ mt: 4, maxWidth: 760 }}>
      <Typography variant="h2" id="histories">
        Many years at once
      </Typography>
      <Typography sx={{ mb: 1 }}>
        Tests of before, of any of your sites: CSV or a workbook with the heads Site, Zone, Date, Depth and the values.
        It is taken in while you go on; the tray shows how far it is, and stops it.
      </Typography>
      {may('work.write') && (
        <Button variant="outlined" onClick={() => file.current?.click()} disabled={add.isPending}>
          Take in a history
        </Button>
      )}
      <input
        ref={file}
        type="file"
        accept=".csv,.xlsx,.txt"
        hidden
        aria-label="History of tests"
        onChange={(event) => {
          void take(event.target.files?.[0]).catch(setRefusal);
          event.target.value = '';
        }}
      />
      <Trouble error={refusal ?? add.error} />
      {histories.map(({ id, fileName, state, rows, words }) => (
        <Box
          key={id}
          component="article"
          aria-label={fileName}
          sx={{
            borderTop: `1px solid ${colours.line}`,
            borderLeft: `4px solid ${state === 'imported' ? colours.lichen : state === 'refused' ? colours.ochre : colours.slate}`,
            pl: 1.5,
            py: 0.75,
            mt: 1,
          }}
        >
          <strong>{fileName}</strong> {stands[state]}
          {rows === null ? '' : `: ${rows.toLocaleString('en-US')} tests`}.
          {words.map((one) => (
            <Box key={one} sx={{ color: colours.ochre }}>
              {one}
            </Box>
          ))}
        </Box>
      ))}
    </Box>
  );
}
