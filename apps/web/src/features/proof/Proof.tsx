import { dayOn } from '@glenfold/agronomy';
import type { ProofZoneAnswer } from '@glenfold/contract';
import { Box, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { Empty, Trouble } from '../../ui/bits.tsx';
import { dayWords, fromToday } from '../../ui/days.ts';
import type { StepProps } from '../../ui/stepProps.ts';
import { stepPath } from '../../ui/steps.ts';
import { colours } from '../../ui/theme.ts';
import { Opens } from '../../ui/working.tsx';
import { Hits } from './Hits.tsx';
import { PhChart } from './PhChart.tsx';
import { proofQueries } from './api.ts';

/** What is foretold for the last day, open to how it comes about. */
function Foretold({ zone: { under, working }, from }: { readonly zone: ProofZoneAnswer; readonly from: string }) {
  const last = under.at(-1)!;
  return (
    <Typography sx={{ mt: 1 }}>
      By {dayWords(dayOn(from, last.day))} under the program: pH{' '}
      <Opens title="pH foretold" told={last.ph.toFixed(1)} working={working} />, in eight of ten such soils{' '}
      {last.low.toFixed(1)} to {last.high.toFixed(1)}.
    </Typography>
  );
}

/** Whether it worked: the pH that is foretold beside what was measured, the retest, and what changed. */
export function Proof({ site, zone }: StepProps) {
  const { data, error } = useQuery(proofQueries.proof(site.id));
  if (!data)
    return error ? (
      <Trouble error={error} />
    ) : (
      <Typography sx={{ color: colours.faded }}>Opening the proof…</Typography>
    );
  const own = data.zones.find(({ zoneId }) => zoneId === zone?.id);
  if (!zone || !own)
    return (
      <Empty title="No zones yet" to={stepPath(site.id, 'ground')} action="Divide the ground">
        What is proved is proved of a zone.
      </Empty>
    );
  const judged = own.predictions.filter(({ proved }) => proved !== null);
  const waiting = own.predictions.filter(({ proved }) => proved === null);
  return (
    <Box sx={{ maxWidth: 980 }}>
      <Typography variant="h1" component="h2" sx={{ mb: 1 }}>
        {zone.name}: did it work?
      </Typography>
      {own.retestOn && own.from && (
        <Box
          sx={{
            borderLeft: `3px solid ${own.retestDue ? colours.ochre : colours.slate}`,
            pl: 1.5,
            mb: 1.5,
          }}
        >
          <strong>
            {own.retestDue ? 'Retest due' : 'Retest'} {dayWords(own.retestOn)}, {fromToday(own.retestOn, data.today)}.
          </strong>{' '}
          {own.retestWords}
        </Box>
      )}
      {judged.map(({ id, from, retestedOn, proved }) => (
        <Box
          key={id}
          sx={{ borderLeft: `3px solid ${proved!.inside ? colours.lichen : colours.ochre}`, pl: 1.5, mb: 1.5 }}
        >
          <strong>
            {from} to {retestedOn}.
          </strong>{' '}
          {proved!.words}
        </Box>
      ))}
      <PhChart zone={own} today={data.today} />
      {own.from && own.under.length > 0 && <Foretold zone={own} from={own.from} />}
      {own.words.map((words) => (
        <Typography key={words} sx={{ color: colours.faded, mt: 1 }}>
          {words}
        </Typography>
      ))}
      {own.tests.length === 0 && (
        <Empty title="No test yet" to={stepPath(site.id, 'lab', zone.id)} action="Enter a result">
          With a test and its day, the pH is foretold from there.
        </Empty>
      )}
      {waiting.length > 0 && judged.length === 0 && (
        <Typography sx={{ mt: 1 }}>
          What was foretold on {waiting[0]!.madeOn} is kept as it was, and laid beside the retest when it comes.
        </Typography>
      )}
      {own.changes.length > 0 && (
        <Box component="section" aria-label="The last two tests" sx={{ mt: 3 }}>
          <Typography variant="h2" sx={{ mb: 0.5 }}>
            The last two tests: changed, or noise
          </Typography>
          {own.changes.map(({ analyte, words, differs, uncertainty, unit, working }) => (
            <Box key={analyte} sx={{ borderTop: `1px solid ${colours.line}`, py: 0.75 }}>
              <Box component="span" sx={{ fontWeight: 700, color: differs ? colours.ink : colours.faded }}>
                {differs ? 'Changed. ' : 'Noise. '}
              </Box>
              {words}{' '}
              <Opens
                title={`${analyte}: what chance may do`}
                told={`± ${unit === 'pH' ? uncertainty.toFixed(1) : Math.round(uncertainty)} ${unit}`}
                working={working}
              />
            </Box>
          ))}
        </Box>
      )}
      <Box sx={{ mt: 3 }}>
        <Hits />
      </Box>
    </Box>
  );
}
