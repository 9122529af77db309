import { dayOn } from '@glenfold/agronomy';
import type { JobAnswer } from '@glenfold/contract';
import { Box, Button, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { dayWords, weekDays } from '../../ui/days.ts';
import { JobLine } from '../../ui/JobWords.tsx';
import { Trouble } from '../../ui/bits.tsx';
import { colours } from '../../ui/theme.ts';
import { deviceToday } from '../../ui/today.ts';
import { useUnits } from '../../ui/units.tsx';
import { seasonQueries } from './api.ts';

function Day({
  title,
  jobs,
  today,
  first,
}: {
  readonly title: string;
  readonly jobs: readonly JobAnswer[];
  readonly today: string;
  readonly first?: boolean;
}) {
  if (jobs.length === 0 && !first) return null;
  return (
    <Box
      component="section"
      aria-label={title}
      sx={{
        display: 'grid',
        gridTemplateColumns: { sm: '150px minmax(0, 1fr)' },
        gap: { sm: 2 },
        borderTop: `1px solid ${colours.line}`,
        py: 1,
      }}
    >
      <Typography variant="h3" component="h2" sx={{ color: first ? colours.ochre : colours.ink }}>
        {title}
      </Typography>
      <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {jobs.length === 0 && <li>Nothing stands on today.</li>}
        {jobs.map((job) => (
          <Box component="li" key={job.id} sx={{ display: 'flex', justifyContent: 'space-between', gap: 2, py: 0.5 }}>
            <JobLine job={job} today={today} where="site" />
            <Button
              size="small"
              variant="outlined"
              component={Link}
              to={`/cards/${job.id}`}
              aria-label={`Card: ${job.name}, ${job.zone}, ${job.siteName}`}
              sx={{ flex: 'none', alignSelf: 'start' }}
            >
              Card
            </Button>
          </Box>
        ))}
      </Box>
    </Box>
  );
}

/** The jobs of a week, across all sites, day by day; what is late first. */
export function WeekPage() {
  const { system } = useUnits();
  const [day, setDay] = useState<string | null>(null);
  const { data, error } = useQuery({ ...seasonQueries.week(day, system), placeholderData: (last) => last });
  const today = deviceToday();
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 4 }, py: 3, maxWidth: 980, width: '100%' }}>
      <Box sx={{ display: 'flex', gap: 1, alignItems: 'baseline', flexWrap: 'wrap', mb: 1.5 }}>
        <Typography variant="h1" sx={{ flex: 1 }}>
          {data ? `Week of ${dayWords(data.from).slice(4)}` : 'The week'}
        </Typography>
        <Button size="small" variant="outlined" onClick={() => data && setDay(dayOn(data.from, -7))}>
          The week before
        </Button>
        <Button size="small" variant="outlined" onClick={() => setDay(null)}>
          This week
        </Button>
        <Button size="small" variant="outlined" onClick={() => data && setDay(dayOn(data.from, 7))}>
          The next
        </Button>
        <Button size="small" variant="contained" component={Link} to="/today">
          Take the cards along
        </Button>
      </Box>
      <Trouble error={error} />
      {data && (
        <>
          <Day title="Late" jobs={data.late} today={today} />
          {weekDays(data.from).map((one) => (
            <Day
              key={one}
              title={one === today ? `Today, ${dayWords(one, false)}` : dayWords(one, false)}
              jobs={data.jobs.filter((job) => job.day === one)}
              today={today}
              first={one === today}
            />
          ))}
          <Day title="No day yet" jobs={data.jobs.filter((job) => job.day === null)} today={today} />
          {data.jobs.length + data.late.length === 0 && (
            <Typography sx={{ mt: 1 }}>
              Nothing stands in this week. Jobs come with programs that are handed over.
            </Typography>
          )}
        </>
      )}
    </Box>
  );
}
