import type { EntryAnswer } from '@glenfold/contract';
import { Box, Button, MenuItem, TextField, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Conversation } from '../../ui/Conversation.tsx';
import { Empty, Trouble } from '../../ui/bits.tsx';
import { useMay } from '../../ui/session.tsx';
import type { StepProps } from '../../ui/stepProps.ts';
import { stepPath } from '../../ui/steps.ts';
import { colours } from '../../ui/theme.ts';
import { useUnits } from '../../ui/units.tsx';
import { EntryForm } from './EntryForm.tsx';
import { EntryList } from './EntryList.tsx';
import { Ledger } from './Ledger.tsx';
import { logbookQueries } from './api.ts';

/** What was done, and what it comes to: the ledger of the zone, its entries, and those of the site. */
export function Logbook({ site, zones, zone }: StepProps) {
  const { system } = useUnits();
  const may = useMay();
  const [year, setYear] = useState<number | null>(null);
  const { data, error } = useQuery(logbookQueries.book(site.id, year, system));
  const [writing, setWriting] = useState(false);
  const [mending, setMending] = useState<EntryAnswer | null>(null);
  const [notes, setNotes] = useState<readonly string[]>([]);
  if (!data)
    return error ? (
      <Trouble error={error} />
    ) : (
      <Typography sx={{ color: colours.faded }}>Opening the logbook…</Typography>
    );
  if (!zone)
    return (
      <Empty title="No zones yet" to={stepPath(site.id, 'ground')} action="Divide the ground">
        What is done is done in a zone.
      </Empty>
    );
  const ledger = data.zones.find(({ zoneId }) => zoneId === zone.id);
  const own = data.entries.filter(({ zoneId }) => zoneId === zone.id);
  const others = data.entries.filter(({ zoneId }) => zoneId !== zone.id);
  const period = `from=${data.year}-01-01&to=${data.year}-12-31`;
  return (
    <Box sx={{ maxWidth: 980 }}>
      <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'center', flexWrap: 'wrap', mb: 1.5 }}>
        <Typography variant="h1" component="h2" sx={{ flex: 1 }}>
          Logbook
        </Typography>
        <TextField
          select
          size="small"
          label="Year"
          value={data.year}
          onChange={(event) => setYear(Number(event.target.value))}
          sx={{ minWidth: 96 }}
        >
          {data.years.map((one) => (
            <MenuItem key={one} value={one}>
              {one}
            </MenuItem>
          ))}
        </TextField>
        <Button
          size="small"
          component="a"
          href={`/api/sites/${site.id}/logbook.pdf?units=${system}&${period}`}
          target="_blank"
        >
          On paper
        </Button>
        <Button size="small" component="a" href={`/api/sites/${site.id}/logbook.csv?${period}`}>
          As CSV
        </Button>
        {may('field.write') && (
          <Button variant="contained" onClick={() => setWriting(true)}>
            Write an entry
          </Button>
        )}
      </Box>
      {notes.map((words) => (
        <Box key={words} role="alert" sx={{ borderLeft: `3px solid ${colours.ochre}`, pl: 1.5, mb: 1 }}>
          {words}
        </Box>
      ))}
      {ledger && <Ledger zone={ledger} year={data.year} />}
      <Box component="section" aria-label="Entries of the zone" sx={{ mt: 3 }}>
        <Typography variant="h2" sx={{ mb: 0.5 }}>
          Entries, {zone.name}
        </Typography>
        {own.length === 0 ? (
          <Typography sx={{ color: colours.faded }}>
            Nothing was written down for {data.year}. Close a card on the Season step, or write an entry: also what is
            remembered from before, without an amount where nobody knows it.
          </Typography>
        ) : (
          <EntryList entries={own} onMend={setMending} />
        )}
      </Box>
      {others.length > 0 && (
        <Box component="section" aria-label="Entries elsewhere on the site" sx={{ mt: 3 }}>
          <Typography variant="h2" sx={{ mb: 0.5 }}>
            Elsewhere on the site
          </Typography>
          <EntryList entries={others} onMend={setMending} zones />
        </Box>
      )}
      {(writing || mending) && (
        <EntryForm
          key={mending?.id ?? 'new'}
          zones={zones}
          zone={zone}
          today={data.today}
          {...(mending ? { mends: mending } : {})}
          onClose={() => {
            setWriting(false);
            setMending(null);
          }}
          onWritten={setNotes}
        />
      )}
      <Conversation
        siteId={site.id}
        title="What was written about this site"
        ask={may('work.write') ? 'Write to the client' : 'Write to the office'}
      />
    </Box>
  );
}
