import { withReadableDays } from '@glenfold/contract';
import type { Trend } from '@glenfold/agronomy';
import { Box, Button, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { Words } from '../../ui/Words.tsx';
import { Empty, Trouble } from '../../ui/bits.tsx';
import { stepPath } from '../../ui/steps.ts';
import { colours } from '../../ui/theme.ts';
import { useToday } from '../../ui/today.ts';
import { useUnits } from '../../ui/units.tsx';
import { Opens } from '../../ui/working.tsx';
import { TrendChart } from './TrendChart.tsx';
import type { ZoneStepProps } from './ZoneReading.tsx';
import { readingQueries } from './api.ts';

/** Measures that are shown at first. */
const FIRST = 4;

function OneTrend({ trend, today }: { readonly trend: Trend; readonly today: string }) {
  const { name, words, working } = trend;
  return (
    <Box component="section" aria-label={name} sx={{ borderTop: `1px solid ${colours.line}`, py: 1.5 }}>
      <Typography variant="h3">{name}</Typography>
      {words.map((sentence, index) => (
        <Typography key={sentence} sx={index === 0 ? { fontWeight: 700 } : { color: colours.faded }}>
          <Words>{sentence}</Words>{' '}
          {index === 0 && working.length > 0 && (
            <Box component="span" sx={{ fontWeight: 400, fontSize: '0.9rem' }}>
              <Opens title={`${name}: more than chance?`} told="how it was judged" working={working} />
            </Box>
          )}
        </Typography>
      ))}
      <TrendChart trend={trend} today={today} />
    </Box>
  );
}

/** How a zone went over the years: what changed by more than chance, and since what was spread. */
export function OverTime({ site, zone }: ZoneStepProps) {
  const { system } = useUnits();
  const today = useToday(site.id);
  const { data, error } = useQuery(readingQueries.zoneReading(zone.id, system));
  const [all, setAll] = useState(false);
  if (error) return <Trouble error={error} />;
  if (!data) return <Typography sx={{ color: colours.faded }}>Reading the years…</Typography>;
  const { trends, retest } = data.read;
  const shown = all ? trends : trends.slice(0, FIRST);
  return (
    <Box sx={{ maxWidth: 860 }}>
      <Typography variant="h1" component="h2" sx={{ fontSize: '1.5rem' }}>
        {zone.name} over the years
      </Typography>
      {retest && (
        <Typography sx={{ mb: 1 }}>
          <strong>Test again from {withReadableDays(retest.on)}. </strong>
          <Words>{retest.words}</Words> <Link to="/retests">Retests of all sites</Link>
        </Typography>
      )}
      {trends.length === 0 ? (
        <Empty title="Nothing was measured twice yet" to={stepPath(site.id, 'sampling', zone.id)} action="Plan a test">
          Two tests of the same depth, method and season show whether anything has changed.
        </Empty>
      ) : (
        shown.map((trend) => <OneTrend key={trend.analyte} trend={trend} today={today} />)
      )}
      {trends.length > FIRST && (
        <Button size="small" onClick={() => setAll(!all)} aria-expanded={all}>
          {all ? 'The first ones only' : `All ${trends.length} measures`}
        </Button>
      )}
      {trends.length > 0 && (
        <Typography sx={{ fontSize: '0.88rem', color: colours.faded, mt: 1 }}>
          Joined are tests of the same method, depth and season. A change counts where it is larger than two samples of
          one lawn differ one time in ten.
        </Typography>
      )}
    </Box>
  );
}
