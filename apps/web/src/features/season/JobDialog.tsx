import { remedyEntry } from '@glenfold/agronomy';
import { type DayPart, type JobAnswer, type JobCrewInput, dayParts } from '@glenfold/contract';
import { Box, Button, MenuItem, TextField, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { machinesQuery } from '../../api/machines.ts';
import { ApiProblem } from '../../api/client.ts';
import { DialogFrame } from '../../ui/DialogFrame.tsx';
import { jobDay } from '../../ui/JobWords.tsx';
import { spanWords } from '../../ui/days.ts';
import { Trouble } from '../../ui/bits.tsx';
import { useMay, useSession } from '../../ui/session.tsx';
import { colours } from '../../ui/theme.ts';
import { useUnits } from '../../ui/units.tsx';
import { seasonQueries, useJobChanges } from './api.ts';

interface JobDialogProps {
  readonly job: JobAnswer;
  readonly today: string;
  readonly onClose: () => void;
}

const faultAt = (error: Error | null, field: string): string | undefined =>
  error instanceof ApiProblem ? error.fields.find((one) => one.field === field)?.message : undefined;

/** The day of a job, with what another would break, said before it is set. */
function DayOfJob({ job, today, onClose }: JobDialogProps) {
  const { system } = useUnits();
  const { day: save } = useJobChanges();
  const [day, setDay] = useState(job.day ?? job.earliest ?? today);
  const [reason, setReason] = useState(job.movedBecause ?? '');
  const changed = day !== job.day;
  // What another day would break says nothing of this one: until it is known, the day cannot be set.
  const { data } = useQuery(seasonQueries.breaks(job.id, day, system));
  const breaks = changed ? (data?.breaks ?? []) : [];
  const never = breaks.some((one) => one.never);
  const set = (): void => save.mutate({ seen: job, input: { day, reason: reason || null } }, { onSuccess: onClose });
  return (
    <Box component="section" aria-label="Its day">
      <Typography variant="h3" sx={{ mb: 1 }}>
        Its day
      </Typography>
      <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'flex-start', flexWrap: 'wrap' }}>
        <TextField
          type="date"
          label="Day"
          value={day}
          onChange={(event) => setDay(event.target.value)}
          error={!!faultAt(save.error, 'day')}
          helperText={faultAt(save.error, 'day')}
          slotProps={{ inputLabel: { shrink: true } }}
        />
        {breaks.length > 0 && !never && (
          <TextField
            label="Why all the same"
            value={reason}
            onChange={(event) => setReason(event.target.value)}
            error={!!faultAt(save.error, 'reason')}
            helperText={faultAt(save.error, 'reason')}
            sx={{ flex: '1 1 220px' }}
          />
        )}
        <Button
          variant="contained"
          onClick={set}
          disabled={!changed || !data || never || save.isPending || (breaks.length > 0 && reason.trim() === '')}
          sx={{ mt: 0.75 }}
        >
          Set the day
        </Button>
      </Box>
      {changed && data && (
        <Box role="status" sx={{ mt: 1, color: breaks.length > 0 ? colours.ochre : colours.lichen }}>
          {breaks.length === 0
            ? 'Breaks nothing: in its window, in order, with its distances.'
            : breaks.map(({ words }) => <Box key={words}>{words}</Box>)}
        </Box>
      )}
      {save.error && !(save.error instanceof ApiProblem && save.error.fields.length > 0) && (
        <Trouble error={save.error} />
      )}
    </Box>
  );
}

/** Waiting is a decision, with its reason and what the client said. */
function HoldOfJob({ job, onClose }: JobDialogProps) {
  const { hold, letGo } = useJobChanges();
  const [reason, setReason] = useState('');
  const [words, setWords] = useState('');
  if (job.hold)
    return (
      <Box component="section" aria-label="On hold">
        <Typography variant="h3">On hold since {job.hold.since}</Typography>
        <Typography>
          {job.hold.reason}
          {job.hold.by ? `, ${job.hold.by}` : ''}
        </Typography>
        {job.hold.words && <Typography sx={{ fontStyle: 'italic' }}>“{job.hold.words}”</Typography>}
        <Button variant="outlined" sx={{ mt: 1 }} onClick={() => letGo.mutate({ seen: job }, { onSuccess: onClose })}>
          Go on with it
        </Button>
        <Trouble error={letGo.error} />
      </Box>
    );
  return (
    <Box component="section" aria-label="Hold it">
      <Typography variant="h3" sx={{ mb: 1 }}>
        Hold it
      </Typography>
      <Box sx={{ display: 'grid', gridTemplateColumns: { sm: '1fr 1fr auto' }, gap: 1.5, alignItems: 'start' }}>
        <TextField
          label="Why it waits"
          value={reason}
          onChange={(event) => setReason(event.target.value)}
          error={!!faultAt(hold.error, 'reason')}
          helperText={faultAt(hold.error, 'reason') ?? 'A storm, wet ground, a wedding'}
        />
        <TextField label="What the client said" value={words} onChange={(event) => setWords(event.target.value)} />
        <Button
          variant="outlined"
          sx={{ mt: 0.75 }}
          onClick={() => hold.mutate({ seen: job, input: { reason, words: words || null } }, { onSuccess: onClose })}
        >
          Hold
        </Button>
      </Box>
    </Box>
  );
}

/** Who does it, and with what. */
function CrewOfJob({ job }: Pick<JobDialogProps, 'job'>) {
  const { data: machines = [] } = useQuery(machinesQuery());
  const { person } = useSession();
  const { crew } = useJobChanges();
  const { personId, machineId, part } = job;
  const set = (input: JobCrewInput): void => crew.mutate({ seen: job, input: { personId, machineId, part, ...input } });
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: { sm: '1fr 1fr 1fr' }, gap: 1.5 }}>
      <TextField
        select
        label="Part of the day"
        value={part ?? ''}
        onChange={(event) => set({ part: (event.target.value || null) as DayPart | null })}
        helperText="Its client reads it"
      >
        <MenuItem value="">not said</MenuItem>
        {dayParts.map((one) => (
          <MenuItem key={one} value={one}>
            {one}
          </MenuItem>
        ))}
      </TextField>
      <TextField
        select
        label="With"
        value={job.machineId ?? ''}
        onChange={(event) => set({ machineId: event.target.value || null })}
      >
        <MenuItem value="">by hand, or not decided</MenuItem>
        {machines.map(({ id, name, hired }) => (
          <MenuItem key={id} value={id}>
            {name}
            {hired ? ' (hired)' : ''}
          </MenuItem>
        ))}
      </TextField>
      <Box sx={{ alignSelf: 'center' }}>
        {job.person ? `Given to ${job.person}. ` : 'Given to nobody. '}
        {person && job.personId !== person.id && (
          <Button size="small" onClick={() => set({ personId: person.id })}>
            I do it
          </Button>
        )}
        {job.personId !== null && (
          <Button size="small" onClick={() => set({ personId: null })}>
            To nobody
          </Button>
        )}
      </Box>
      <Trouble error={crew.error} />
    </Box>
  );
}

/** A job: its day, who does it, whether it waits; and the way to its card. */
export function JobDialog({ job, today, onClose }: JobDialogProps) {
  const may = useMay();
  const open = job.state === 'open' || job.state === 'partly done';
  return (
    <DialogFrame title={`${job.name}, ${job.zone}`} onClose={onClose} width="sm">
      <Box sx={{ display: 'grid', gap: 2.5 }}>
        <Box>
          <Typography>
            {[job.dose, job.amount || remedyEntry(job.remedy).label, jobDay(job, today)].join('; ')}.
          </Typography>
          {open && job.earliest && job.latest && (
            <Typography>Its window in an ordinary year: {spanWords(job.earliest, job.latest)}.</Typography>
          )}
          {job.words.map((words) => (
            <Typography key={words} sx={{ color: colours.ochre }}>
              {words}
            </Typography>
          ))}
          {job.breaks.map((words) => (
            <Typography key={words} sx={{ color: colours.ochre }}>
              {words}
            </Typography>
          ))}
          {job.movedBecause && <Typography>All the same: {job.movedBecause}.</Typography>}
          {!open && <Typography>{`It is ${job.state}: what became of it stands in the logbook.`}</Typography>}
        </Box>
        {open && may('work.write') && !job.hold && <DayOfJob job={job} today={today} onClose={onClose} />}
        {open && may('field.write') && <HoldOfJob job={job} today={today} onClose={onClose} />}
        {open && may('work.write') && <CrewOfJob job={job} />}
        <Box>
          <Button variant={open ? 'contained' : 'outlined'} component={Link} to={`/cards/${job.id}`}>
            {open ? 'Open the work card' : 'See the card'}
          </Button>
        </Box>
      </Box>
    </DialogFrame>
  );
}
