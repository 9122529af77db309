import { type DateKind, dateKindOf, fixedDateTable, inLine } from '@glenfold/agronomy';
import type { JobAnswer, SeasonAnswer, SiteDateAnswer } from '@glenfold/contract';
import { Box, Button, MenuItem, TextField, Typography } from '@mui/material';
import { useState } from 'react';
import { ApiProblem } from '../../api/client.ts';
import { FormDialog } from '../../ui/FormDialog.tsx';
import { dayWords } from '../../ui/days.ts';
import { useMay } from '../../ui/session.tsx';
import { colours } from '../../ui/theme.ts';
import { Words } from '../../ui/Words.tsx';
import { useUndo } from '../../ui/undo.tsx';
import { useAddDate } from './api.ts';

function AddDate({ siteId, onClose }: { readonly siteId: string; readonly onClose: () => void }) {
  const [name, setName] = useState('');
  const [kind, setKind] = useState<DateKind | ''>('');
  const [day, setDay] = useState('');
  const add = useAddDate(siteId);
  const fault = (field: string) =>
    add.error instanceof ApiProblem ? add.error.fields.find((one) => one.field === field)?.message : undefined;
  return (
    <FormDialog
      title="A date to be ready for"
      action="Add it"
      small
      onClose={onClose}
      saving={add}
      onSave={() => add.mutate({ name, kind: kind as DateKind, day }, { onSuccess: onClose })}
    >
      <TextField
        select
        label="Kind"
        value={kind}
        onChange={(event) => setKind(event.target.value as DateKind)}
        error={!!fault('kind')}
        helperText={fault('kind') ?? (kind ? dateKindOf(kind).about : 'What has to be finished by then depends on it')}
      >
        {fixedDateTable.kinds.map(({ name: one, label }) => (
          <MenuItem key={one} value={one}>
            {label}
          </MenuItem>
        ))}
      </TextField>
      <TextField
        label="What it is"
        value={name}
        onChange={(event) => setName(event.target.value)}
        error={!!fault('name')}
        helperText={fault('name') ?? 'As you call it: cup match, wedding, viewing, autumn rains'}
      />
      <TextField
        type="date"
        label="Day"
        value={day}
        onChange={(event) => setDay(event.target.value)}
        error={!!fault('day')}
        helperText={fault('day')}
        slotProps={{ inputLabel: { shrink: true } }}
      />
    </FormDialog>
  );
}

/** "9 days to spare", "12 days too late". */
function slackWords(slack: number | null): string {
  if (slack === null) return 'no day set';
  if (slack < 0) return `${-slack} ${slack === -1 ? 'day' : 'days'} too late`;
  return slack === 0 ? 'no day to spare' : `${slack} ${slack === 1 ? 'day' : 'days'} to spare`;
}

function OneDate({
  date,
  jobs,
  zoneId,
}: {
  readonly date: SiteDateAnswer;
  readonly jobs: readonly JobAnswer[];
  readonly zoneId: string;
}) {
  const { remove } = useUndo();
  const may = useMay();
  const rows = date.jobs.flatMap((one) => {
    const job = jobs.find(({ id }) => id === one.id);
    return job?.zoneId === zoneId ? [{ ...one, job }] : [];
  });
  // What is late is told, whatever decides it.
  const bound = rows.filter((row) => row.bound || row.slack === null || row.slack < 0);
  return (
    <Box sx={{ borderTop: `1px solid ${colours.line}`, py: 1 }}>
      <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 1 }}>
        <Typography variant="h3" sx={{ flex: 1 }}>
          {date.name}, {dayWords(date.day)}
        </Typography>
        <Typography sx={{ color: colours.faded }}>{dateKindOf(date.kind).label}</Typography>
        {may('work.write') && (
          <Button size="small" onClick={() => remove(`/site-dates/${date.id}`, date.name)}>
            Take it out
          </Button>
        )}
      </Box>
      {rows.length === 0 && (
        <Typography sx={{ color: colours.faded }}>Nothing of this zone has to be ready by then.</Typography>
      )}
      {rows.length > bound.length && (
        <Typography sx={{ color: colours.faded }}>
          {rows.length - bound.length === 1
            ? 'One more job has its day well before it.'
            : `${rows.length - bound.length} more jobs have their days well before it.`}
        </Typography>
      )}
      {bound.map(({ id, job, latestStart, slack, words, risk }) => (
        <Box key={id} sx={{ py: 0.5 }}>
          <strong>{job.name}</strong>, {inLine(job.dose)}: latest start {dayWords(latestStart)},{' '}
          <Box
            component="span"
            sx={{ fontWeight: 700, color: slack !== null && slack < 0 ? colours.ochre : colours.lichen }}
          >
            {slackWords(slack)}
          </Box>
          . <Words>{words}</Words>{' '}
          <Box component="span" sx={{ color: colours.faded }}>
            A shortcut risks this: {risk}
          </Box>
        </Box>
      ))}
    </Box>
  );
}

/** Fixed dates, and backward from them the latest start of each job. */
export function Dates({ season, zoneId }: { readonly season: SeasonAnswer; readonly zoneId: string }) {
  const [adding, setAdding] = useState(false);
  const may = useMay();
  return (
    <Box component="section" aria-label="Dates to be ready for">
      <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 1.5 }}>
        <Typography variant="h2" sx={{ mb: 0.5, flex: 1 }}>
          Dates to be ready for
        </Typography>
        {may('work.write') && (
          <Button size="small" variant="outlined" onClick={() => setAdding(true)}>
            Add a date
          </Button>
        )}
      </Box>
      {season.dates.length === 0 && (
        <Typography sx={{ color: colours.faded }}>
          A match, the start or the end of the rains, a sale: the latest start of each job is counted back from it.
        </Typography>
      )}
      {season.dates.map((date) => (
        <OneDate key={date.id} date={date} jobs={season.jobs} zoneId={zoneId} />
      ))}
      {adding && <AddDate siteId={season.siteId} onClose={() => setAdding(false)} />}
    </Box>
  );
}
