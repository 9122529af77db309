import type { JobAnswer } from '@glenfold/contract';
import { Box, Button, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { JobLine, jobDay } from '../../ui/JobWords.tsx';
import { Empty, Trouble } from '../../ui/bits.tsx';
import { useMay } from '../../ui/session.tsx';
import type { StepProps } from '../../ui/stepProps.ts';
import { stepPath } from '../../ui/steps.ts';
import { colours } from '../../ui/theme.ts';
import { useUnits } from '../../ui/units.tsx';
import { CalendarDialog } from '../../ui/CalendarDialog.tsx';
import { Care } from './Care.tsx';
import { Dates } from './Dates.tsx';
import { JobDialog } from './JobDialog.tsx';
import { SeasonLine } from './SeasonLine.tsx';
import { seasonQueries, useDateJobs } from './api.ts';

interface JobListProps {
  readonly jobs: readonly JobAnswer[];
  readonly today: string;
  readonly onOpen: (job: JobAnswer) => void;
  readonly where?: 'zone' | 'here';
  readonly dated?: boolean;
}

/** Days that are shown at first. */
const FIRST_DAYS = 4;

/** Jobs under their days, the next ones first; each opens. */
function Days({ jobs, today, onOpen }: JobListProps) {
  const [all, setAll] = useState(false);
  const days = [...new Set(jobs.map((job) => jobDay(job, today)))];
  const shown = all ? days : days.slice(0, FIRST_DAYS);
  return (
    <>
      {shown.map((day) => (
        <Box
          key={day}
          sx={{
            display: 'grid',
            gridTemplateColumns: { xs: '1fr', md: '168px minmax(0, 1fr)' },
            columnGap: 2,
            borderTop: `1px solid ${colours.line}`,
          }}
        >
          <Box sx={{ pt: 1, lineHeight: 1.3, fontFamily: 'Bitter, serif', fontWeight: 700 }}>{day}</Box>
          <JobList
            jobs={jobs.filter((job) => jobDay(job, today) === day)}
            today={today}
            onOpen={onOpen}
            dated={false}
          />
        </Box>
      ))}
      {days.length > FIRST_DAYS && (
        <Button size="small" onClick={() => setAll(!all)}>
          {all ? 'The next days only' : `All ${jobs.length} jobs of the year`}
        </Button>
      )}
    </>
  );
}

/** Jobs in the order of their days; each opens. */
function JobList({ jobs, today, onOpen, where = 'here', dated = true }: JobListProps) {
  return (
    <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
      {jobs.map((job, index) => (
        <Box
          component="li"
          key={job.id}
          sx={{
            display: 'flex',
            justifyContent: 'space-between',
            gap: 2,
            alignItems: 'center',
            borderTop: dated || index > 0 ? `1px solid ${colours.line}` : 0,
            py: 0.75,
          }}
        >
          <JobLine job={job} today={today} where={where} dated={dated} />
          <Button
            size="small"
            variant="outlined"
            onClick={() => onOpen(job)}
            aria-label={`Open ${job.name}, ${job.dose}, ${job.zone}`}
            sx={{ flex: 'none' }}
          >
            Open
          </Button>
        </Box>
      ))}
    </Box>
  );
}

const order = (job: JobAnswer): string => job.day ?? job.earliest ?? '9999';

/** The year’s work of a zone inside its windows, what comes next, water and mowing, and dates to be ready for. */
export function Season({ site, zone }: StepProps) {
  const { system } = useUnits();
  const may = useMay();
  const { data, error } = useQuery(seasonQueries.season(site.id, system));
  const date = useDateJobs(site.id);
  const [openId, setOpenId] = useState<string | null>(null);
  const [calendar, setCalendar] = useState(false);
  if (!data)
    return error ? (
      <Trouble error={error} />
    ) : (
      <Typography sx={{ color: colours.faded }}>Opening the season…</Typography>
    );
  if (!zone)
    return (
      <Empty title="No zones yet" to={stepPath(site.id, 'ground')} action="Divide the ground">
        Jobs belong to zones.
      </Empty>
    );
  const own = data.zones.find(({ zoneId }) => zoneId === zone.id);
  const jobs = data.jobs.filter(({ zoneId }) => zoneId === zone.id);
  const isOpen = ({ state }: JobAnswer): boolean => state === 'open' || state === 'partly done';
  const next = jobs.filter(isOpen).sort((one, other) => order(one).localeCompare(order(other)));
  const elsewhere = data.jobs
    .filter((job) => isOpen(job) && job.zoneId !== zone.id)
    .sort((one, other) => order(one).localeCompare(order(other)))
    .slice(0, 6);
  const opened = data.jobs.find(({ id }) => id === openId);
  return (
    <Box sx={{ maxWidth: 1040 }}>
      <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'baseline', flexWrap: 'wrap', mb: 1 }}>
        <Typography variant="h1" component="h2" sx={{ flex: 1 }}>
          {zone.name}: the season
        </Typography>
        <Button size="small" component={Link} to="/week">
          The week of all sites
        </Button>
        <Button size="small" onClick={() => setCalendar(true)}>
          In your calendar
        </Button>
      </Box>
      {data.climate === null && (
        <Box sx={{ borderLeft: `3px solid ${colours.ochre}`, pl: 1.5, mb: 2 }}>
          This place has no climate, so no windows are known and no day is proposed.{' '}
          <Link to={`/sites/${site.id}/about`}>Choose its climate, or type its normals</Link>, then find the days. Until
          then set each day by hand: order and distances are still held.
        </Box>
      )}
      {data.undated > 0 && may('work.write') && (
        <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'center', mb: 2 }}>
          <Button variant="contained" onClick={() => date.mutate()} disabled={date.isPending}>
            Find the days
          </Button>
          <span>
            {data.undated} {data.undated === 1 ? 'job has' : 'jobs have'} no day yet. Days that you set and holds stay
            as they are.
          </span>
        </Box>
      )}
      <Trouble error={date.error} />
      {jobs.length === 0 ? (
        <Empty
          title={data.handedOver ? 'No jobs in this zone' : 'Jobs come with the program'}
          to={stepPath(site.id, 'rates', zone.id)}
          action="Open the rates"
        >
          {data.handedOver
            ? 'Nothing of this zone was handed over. Hand its program over on the Rates step, and its doses stand here on their days.'
            : 'Hand the program over on the Rates step: its doses become jobs, each inside its window, in the order of work.'}
        </Empty>
      ) : (
        <>
          {own && <SeasonLine season={data} zone={own} jobs={jobs} onOpen={({ id }) => setOpenId(id)} />}
          <Typography sx={{ color: colours.faded, fontSize: '0.92rem', mb: 1.5 }}>
            {data.climate ? `Windows by an ordinary year. ${data.climate}. ` : ''}Open marks are to be done, filled ones
            are; brackets show when the work may be done; a knot is on hold.
          </Typography>
          <Typography variant="h2" sx={{ mb: 0.5 }}>
            {next.length === 0 ? 'All worked off' : 'To be done'}
          </Typography>
          <Days jobs={next} today={data.today} onOpen={({ id }) => setOpenId(id)} />
        </>
      )}
      <Box sx={{ display: 'grid', gridTemplateColumns: { md: 'minmax(0, 1fr) minmax(0, 1fr)' }, gap: 4, mt: 3 }}>
        {own && <Care siteId={site.id} zone={own} />}
        <Box sx={{ display: 'grid', gap: 3, alignContent: 'start' }}>
          <Dates season={data} zoneId={zone.id} />
          {elsewhere.length > 0 && (
            <Box component="section" aria-label="Elsewhere on the site">
              <Typography variant="h2" sx={{ mb: 0.5 }}>
                Elsewhere on the site
              </Typography>
              <JobList jobs={elsewhere} where="zone" today={data.today} onOpen={({ id }) => setOpenId(id)} />
            </Box>
          )}
        </Box>
      </Box>
      {opened && <JobDialog key={opened.id} job={opened} today={data.today} onClose={() => setOpenId(null)} />}
      {calendar && <CalendarDialog onClose={() => setCalendar(false)} />}
    </Box>
  );
}
