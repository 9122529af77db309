import { LabAdvice } from '../../ui/LabAdvice.tsx';
import { Box, Button, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { queries } from '../../api/queries.ts';
import type { StepProps } from '../../ui/stepProps.ts';
import { stepPath } from '../../ui/steps.ts';
import { colours } from '../../ui/theme.ts';
import { CoreStick } from '../../ui/CoreStick.tsx';
import { ReadingBar } from '../../ui/ReadingBar.tsx';
import { Words } from '../../ui/Words.tsx';
import { Empty, Trouble } from '../../ui/bits.tsx';
import { isCurrent, phText } from '../../ui/results.ts';
import { NoTest } from '../../ui/NoTest.tsx';
import { Limits } from './Limits.tsx';
import { Worth } from './Worth.tsx';
import { useUnits } from '../../ui/units.tsx';

/** What the newest test means for the zone's grass. */
export function Reading({ site, zone, results }: StepProps) {
  const { system, say } = useUnits();
  const { data, error } = useQuery({ ...queries.program(zone?.id ?? '', system), enabled: !!zone });
  if (!zone)
    return (
      <Empty title="No zones yet" to={stepPath(site.id, 'ground')} action="Add a zone">
        Readings belong to zones.
      </Empty>
    );
  if (error) return <Trouble error={error} />;
  if (!data) return <Typography sx={{ color: colours.faded }}>Reading the test…</Typography>;
  const { reading, result } = data;
  if (!result) return <NoTest siteId={site.id} zone={zone} />;
  const earlier = results.filter(
    (other) => isCurrent(other) && other.zoneIds.includes(zone.id) && other.id !== result.id,
  );
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', lg: '268px minmax(0, 1fr)' }, gap: 3 }}>
      <Box sx={{ display: { xs: 'none', lg: 'block' } }}>
        <CoreStick zone={zone} result={result} size="large" />
        <Typography sx={{ fontSize: '0.85rem', color: colours.faded, mt: 1 }}>
          Drawn to scale. What is dashed is still to measure.
        </Typography>
      </Box>
      <Box>
        <Box
          sx={{
            display: 'flex',
            justifyContent: 'space-between',
            gap: 2,
            alignItems: 'start',
            flexWrap: { xs: 'wrap', sm: 'nowrap' },
          }}
        >
          <Box>
            <Typography sx={{ color: colours.faded, fontSize: '0.93rem' }}>
              {zone.name}: bag {result.label}
              {result.sampledOn && `, sampled ${result.sampledOn}`}, {say('depth', result.depth)} deep
            </Typography>
            <Typography variant="h1" component="h2" sx={{ fontSize: '1.5rem' }}>
              <Words>{reading.headline}</Words>
            </Typography>
          </Box>
          <Button variant="contained" component={Link} to={stepPath(site.id, 'rates', zone.id)} sx={{ flex: 'none' }}>
            See the rates
          </Button>
        </Box>

        <Limits limits={reading.limitations} />
        <Worth zoneId={zone.id} />

        {reading.questions.map((question) => (
          <Typography
            key={question}
            sx={{ borderLeft: `3px solid ${colours.slate}`, background: colours.slateWash, px: 1.5, py: 0.5, my: 0.5 }}
          >
            <Words>{question}</Words>
          </Typography>
        ))}

        <Box sx={{ mt: 1 }}>
          {reading.bars.map((bar, index) => (
            <ReadingBar key={bar.key} bar={bar} first={index === 0} />
          ))}
        </Box>
        <LabAdvice result={result} />
        <Box
          sx={{
            borderTop: `1px solid ${colours.line}`,
            pt: 1,
            display: 'grid',
            gap: 0.75,
            maxWidth: 760,
            fontSize: '0.95rem',
          }}
        >
          {reading.notes.map((note) => (
            <div key={note}>{note}</div>
          ))}
          <div>{reading.buffer}</div>
          {reading.others.length > 0 && (
            <div>
              <strong>Also on this report. </strong>
              <Words>{reading.others.join(' ')}</Words>
            </div>
          )}
          {reading.open && <div>{reading.open}</div>}
          {reading.notMeasured.length > 0 && (
            <div>
              <strong>Not on this report. </strong>
              {reading.notMeasured.join('; ')}.
            </div>
          )}
          {earlier.length > 0 && (
            <div>
              <strong>Earlier tests. </strong>
              {earlier.map((test) => `${test.sampledOn ?? 'undated'}: pH ${phText(test)}`).join('; ')}.
            </div>
          )}
        </Box>
      </Box>
    </Box>
  );
}
