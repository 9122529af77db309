import { withReadableDays } from '@glenfold/contract';
import type { JobAnswer } from '@glenfold/contract';
import { Box } from '@mui/material';
import { dayWords, fromToday, spanWords } from './days.ts';
import { colours } from './theme.ts';

/** How a job stands, in a mark and a word. */
export function JobMark({ job, size = 14 }: { readonly job: JobAnswer; readonly size?: number }) {
  const { state, hold, late } = job;
  const half = size / 2;
  const diamond = `M${half} 1l${half - 1} ${half - 1}l-${half - 1} ${half - 1}l-${half - 1} -${half - 1}z`;
  return (
    <svg width={size} height={size} aria-hidden style={{ flex: 'none' }}>
      {hold ? (
        // A knot.
        <path
          d={`M1 ${half}c${half} -${size} ${size - 2} ${size} ${size - 2} 0M1 ${half}c${half} ${size} ${size - 2} -${size} ${size - 2} 0`}
          fill="none"
          stroke={colours.ochre}
          strokeWidth="1.8"
        />
      ) : (
        <path
          d={diamond}
          fill={state === 'done' ? colours.lichen : state === 'partly done' ? colours.ochreWash : colours.paper}
          stroke={late ? colours.ochre : colours.ink}
          strokeWidth="1.6"
        />
      )}
    </svg>
  );
}

/** "Mon 12 Apr 2027, in 9 days"; or the span it may still have. */
export function jobDay({ day, part, earliest, latest }: JobAnswer, today: string): string {
  if (day !== null) return `${dayWords(day)}${part ? `, ${part}` : ''}, ${fromToday(day, today)}`;
  return earliest && latest ? `no day yet; ${spanWords(earliest, latest)}` : 'no day yet';
}

/** Of a job of which another thing is decided than its paper and its card say. */
export const CHANGED_SINCE = 'Changed on Rates since, and not yet handed over.';

/** A job on a line: what, where, how much, and how it stands. */
export function JobLine({
  job,
  today,
  where = 'zone',
  dated = true,
}: {
  readonly job: JobAnswer;
  readonly today: string;
  /** How much of its place is told. */
  readonly where?: 'site' | 'zone' | 'here';
  /** Whether its day is told: not where it stands under it already. */
  readonly dated?: boolean;
}) {
  const { name, dose, zone, siteName, amount, was, state, hold, late, machine, person, breaks, changedSince } = job;
  const stands = hold
    ? `on hold since ${withReadableDays(hold.since)}: ${hold.reason}${job.latest ? `; to be done by ${dayWords(job.latest)}` : ''}`
    : late
      ? 'late'
      : state === 'open'
        ? ''
        : state;
  return (
    <Box sx={{ display: 'flex', gap: 1.25, alignItems: 'baseline', minWidth: 0 }}>
      <Box sx={{ position: 'relative', top: 2 }}>
        <JobMark job={job} />
      </Box>
      <Box sx={{ minWidth: 0, lineHeight: 1.35 }}>
        <Box>
          <strong>{name}</strong>
          {where === 'here' ? '' : `, ${zone}`}
          {where === 'site' ? `, ${siteName}` : ''}
          {stands !== '' && (
            <Box component="span" sx={{ color: late || hold ? colours.ochre : colours.lichen, fontWeight: 700 }}>
              {' '}
              {stands}
            </Box>
          )}
        </Box>
        <Box sx={{ color: colours.faded, fontSize: '0.92rem' }}>
          {[
            dated ? jobDay(job, today) : '',
            dose === name || dose === 'Application' ? '' : dose,
            amount,
            machine,
            person,
          ]
            .filter(Boolean)
            .join('; ')}
        </Box>
        {was && (
          <Box sx={{ color: colours.ochre, fontSize: '0.92rem' }}>
            Another amount than in the program before: {was}.
          </Box>
        )}
        {changedSince && <Box sx={{ color: colours.ochre, fontSize: '0.92rem' }}>{CHANGED_SINCE}</Box>}
        {breaks.length > 0 && (
          <Box sx={{ color: colours.ochre, fontSize: '0.92rem' }}>
            {breaks[0]}
            {job.movedBecause ? ` All the same: ${job.movedBecause}.` : ''}
          </Box>
        )}
      </Box>
    </Box>
  );
}
