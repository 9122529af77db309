import { withReadableDays } from '@glenfold/contract';
import type { ReadingAnswer, ZoneAnswer } from '@glenfold/contract';
import { Box, Button, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { CoreStick } from '../../ui/CoreStick.tsx';
import { LabAdvice } from '../../ui/LabAdvice.tsx';
import { NoTest } from '../../ui/NoTest.tsx';
import { Words } from '../../ui/Words.tsx';
import { Trouble } from '../../ui/bits.tsx';
import type { StepProps } from '../../ui/stepProps.ts';
import { stepPath } from '../../ui/steps.ts';
import { colours } from '../../ui/theme.ts';
import { useUnits } from '../../ui/units.tsx';
import { Limits } from './Limits.tsx';
import { PairRead } from './PairRead.tsx';
import { ReadingGroups } from './ReadingGroups.tsx';
import { Worth } from './Worth.tsx';
import { readingQueries } from './api.ts';

export interface ZoneStepProps extends StepProps {
  readonly zone: ZoneAnswer;
}

/** Why the test weighs less than a fresh one of this ground alone, and how sure a value is. */
function HowSure({ answer: { read, cores } }: { readonly answer: ReadingAnswer }) {
  const { weight } = read;
  return (
    <Typography sx={{ fontSize: '0.92rem', color: colours.faded, maxWidth: 780 }}>
      {weight.why.length > 0 && (
        <Box component="strong" sx={{ color: colours.ochre }}>
          <Words>{`This test weighs less. ${weight.why.join(' ')} `}</Words>
        </Box>
      )}
      {cores === null
        ? 'The shadow on a bar is where nine of ten such tests would lie. How many cores the bag held was not told: it is counted as one, so the shadows are wide.'
        : `The shadow on a bar is where nine of ten such bags of ${cores} cores would lie; open circles are tests of before.`}
    </Typography>
  );
}

/** What the newest test means for the zone’s grass. */
export function ZoneReading({ site, zone }: ZoneStepProps) {
  const { system, say } = useUnits();
  const { data, error } = useQuery(readingQueries.zoneReading(zone.id, system));
  if (error) return <Trouble error={error} />;
  if (!data) return <Typography sx={{ color: colours.faded }}>Reading the test…</Typography>;
  const { result, read, borrowed } = data;
  const { reading, lines, ranked, retest, pair, band } = read;
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', lg: '268px minmax(0, 1fr)' }, gap: 3 }}>
      <Box sx={{ display: { xs: 'none', lg: 'block' } }}>
        <Box sx={{ position: 'sticky', top: 16 }}>
          <CoreStick zone={zone} result={result ?? undefined} size="large" />
          <Typography sx={{ fontSize: '0.85rem', color: colours.faded, mt: 1 }}>
            Drawn to scale. What is dashed is still to measure.
          </Typography>
        </Box>
      </Box>
      <Box sx={{ minWidth: 0 }}>
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
              {result
                ? `${zone.name}: bag ${result.label}${result.sampledOn ? `, sampled ${withReadableDays(result.sampledOn)}` : ''}, ${say('depth', result.depth)} deep`
                : zone.name}
            </Typography>
            <Typography variant="h1" component="h2" sx={{ fontSize: '1.5rem' }}>
              <Words>{ranked.limits[0]?.what ?? reading.headline}</Words>
            </Typography>
          </Box>
          {result && (
            <Button variant="contained" component={Link} to={stepPath(site.id, 'rates', zone.id)} sx={{ flex: 'none' }}>
              See the rates
            </Button>
          )}
        </Box>
        {borrowed && (
          <Typography sx={{ color: colours.ochre, fontWeight: 700 }}>
            <Words>{borrowed}</Words>
          </Typography>
        )}
        <Limits ranked={ranked} />
        {!result && <NoTest siteId={site.id} zone={zone} />}
        {result && <Worth zoneId={zone.id} />}
        {reading.questions.map((question) => (
          <Typography
            key={question}
            sx={{ borderLeft: `3px solid ${colours.slate}`, background: colours.slateWash, px: 1.5, py: 0.5, my: 0.5 }}
          >
            <Words>{question}</Words>
          </Typography>
        ))}
        {pair && <PairRead pair={pair} />}
        {result && <HowSure answer={data} />}
        <ReadingGroups lines={lines} band={band}>
          {lines.every(({ group }) => group !== 'structure and water') && (
            <Typography sx={{ py: 1, color: colours.faded }}>
              Nothing measured yet: a probe, a drainage hole and a look at the thatch tell what no laboratory does.{' '}
              <Link to={stepPath(site.id, 'sampling', zone.id)}>Measure on the ground</Link>
            </Typography>
          )}
        </ReadingGroups>
        {result && <LabAdvice result={result} />}
        <Box
          sx={{
            borderTop: `1px solid ${colours.line}`,
            mt: 2,
            pt: 1,
            display: 'grid',
            gap: 0.75,
            maxWidth: 780,
            fontSize: '0.95rem',
          }}
        >
          {reading.notes.map((note) => (
            <div key={note}>{note}</div>
          ))}
          {result && !result.values.bufferPh && <div>{reading.buffer}</div>}
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
          {retest && (
            <div>
              <strong>Test again from {withReadableDays(retest.on)}. </strong>
              <Words>{retest.words}</Words>
            </div>
          )}
        </Box>
      </Box>
    </Box>
  );
}
