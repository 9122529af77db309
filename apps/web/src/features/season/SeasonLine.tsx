import { daysBetween, monthName, dayOn } from '@glenfold/agronomy';
import type { JobAnswer, SeasonAnswer, SeasonZoneAnswer } from '@glenfold/contract';
import { Box, useMediaQuery, useTheme } from '@mui/material';
import { dayWords } from '../../ui/days.ts';
import { jobDay } from '../../ui/JobWords.tsx';
import { colours } from '../../ui/theme.ts';

interface SeasonLineProps {
  readonly season: SeasonAnswer;
  readonly zone: SeasonZoneAnswer;
  readonly jobs: readonly JobAnswer[];
  readonly onOpen: (job: JobAnswer) => void;
}

const LEFT = 10;
const BAND = 26;
const RULE = 46;
const LANE = 22;
/** Days before today that the line still shows. */
const BEHIND = 45;
const AHEAD = 366;
/** °C of the soil from which it counts as warm, and as hot. */
const WARM = [8, 14, 20] as const;

/**
 * The year of a zone: the soil’s warmth and the grass’s growth on a ruler of months; windows are brackets, what is to be
 * done hangs open, what is done is filled, a hold is a knot, tests stand as sticks.
 */
export function SeasonLine({ season, zone, jobs, onOpen }: SeasonLineProps) {
  const narrow = useMediaQuery(useTheme().breakpoints.down('sm'));
  const width = narrow ? 400 : 900;
  const from = dayOn(season.today, -BEHIND);
  const at = (day: string): number =>
    LEFT + (Math.max(0, Math.min(BEHIND + AHEAD, daysBetween(from, day))) / (BEHIND + AHEAD)) * (width - 2 * LEFT);
  const keys = [...new Set(jobs.map(({ key }) => key))];
  const doneKinds = zone.done.filter(({ on }) => on.length === 10 && on >= from);
  const height = RULE + 20 + keys.length * LANE + (doneKinds.length > 0 ? LANE : 0) + 6;
  const months = Array.from({ length: 14 }, (_, index) => {
    const [year = 0, month = 1] = from.split('-').map(Number);
    const number = year * 12 + month - 1 + index;
    return `${Math.floor(number / 12)}-${String((number % 12) + 1).padStart(2, '0')}-01`;
  }).filter((day) => daysBetween(from, day) <= BEHIND + AHEAD);
  const weekWidth = ((width - 2 * LEFT) / (BEHIND + AHEAD)) * 7;
  const today = at(season.today);
  return (
    <Box sx={{ mb: 1 }}>
      <svg viewBox={`0 0 ${width} ${height}`} width="100%" role="group" aria-label={`The year of ${zone.zone}`}>
        {season.weeks.map(({ day, soil, growth }) => (
          <g key={day}>
            <rect
              x={at(day)}
              y={4}
              width={weekWidth + 0.5}
              height={BAND}
              fill={colours.ochreWash}
              fillOpacity={WARM.filter((warm) => soil >= warm).length / 3}
            />
            <rect
              x={at(day)}
              y={4 + BAND * (1 - growth)}
              width={weekWidth + 0.3}
              height={BAND * growth}
              fill={colours.lichen}
              fillOpacity={0.45}
            />
          </g>
        ))}
        <path d={`M${LEFT} ${RULE - 12}H${width - LEFT}`} stroke={colours.ink} strokeWidth="1.6" />
        {months.map((day) => (
          <g key={day}>
            {day >= from && (
              <path d={`M${at(day)} ${RULE - 12}v${day.slice(5, 7) === '01' ? 16 : 9}`} stroke={colours.ink} />
            )}
            <text x={at(day < from ? from : day) + 4} y={RULE + 1} fontSize="12" fill={colours.ink}>
              {day < from && Number(from.slice(8)) > 12
                ? ''
                : `${monthName(Number(day.slice(5, 7))).slice(0, narrow ? 1 : 3)}${!narrow && (day.slice(5, 7) === '01' || day < from) ? ` ${day.slice(2, 4)}` : ''}`}
            </text>
          </g>
        ))}
        {zone.tested
          .filter((day) => day >= from)
          .map((day) => (
            <g key={day}>
              <title>{`Sampled ${dayWords(day)}`}</title>
              <rect x={at(day) - 3} y={RULE - 40} width={6} height={28} fill={colours.paper} stroke={colours.slate} />
              <rect x={at(day) - 3} y={RULE - 30} width={6} height={12} fill={colours.slate} />
            </g>
          ))}
        {season.dates
          .filter(({ day }) => day >= from && daysBetween(from, day) <= BEHIND + AHEAD)
          .map(({ id, day, name }) => (
            <g key={id}>
              <path d={`M${at(day)} 2V${height - 4}`} stroke={colours.ochre} strokeDasharray="4 3" />
              <text x={at(day) + 4} y={13} fontSize="12" fontWeight="700" fill={colours.ochre}>
                {name}
              </text>
            </g>
          ))}
        <path d={`M${today} 0V${height - 2}`} stroke={colours.slate} strokeWidth="1.4" />
        <text x={today + 4} y={height - 3} fontSize="11" fill={colours.slate}>
          today
        </text>
        {keys.map((key, lane) => {
          const own = jobs.filter((job) => job.key === key);
          const y = RULE + 20 + lane * LANE;
          const spans = zone.windows.find((one) => one.key === key)?.spans ?? [];
          const marks = own.map((job) => job.day ?? job.earliest).filter((day): day is string => day !== null);
          const last = Math.max(LEFT, ...marks.map(at));
          const label = own[0]!.name;
          const room = width - last > label.length * 7 + 16;
          const first = Math.min(width, ...marks.map(at));
          return (
            <g key={key}>
              {spans.map((span) => (
                <path
                  key={span.from}
                  d={`M${at(span.from)} ${y + 4}v-5M${at(span.from)} ${y + 4}H${at(span.to)}M${at(span.to)} ${y + 4}v-5`}
                  stroke={colours.line}
                  strokeWidth="1.6"
                  fill="none"
                >
                  <title>{`${label}: may be done ${span.from} to ${span.to} in an ordinary year`}</title>
                </path>
              ))}
              {own.map((job) => {
                const day = job.day ?? job.earliest;
                if (day === null) return null;
                const x = at(day);
                const open = (): void => onOpen(job);
                return (
                  <g
                    key={job.id}
                    role="button"
                    tabIndex={0}
                    aria-label={`${job.name}, ${job.dose}: ${jobDay(job, season.today)}${job.hold ? ', on hold' : ''}, ${job.state}`}
                    style={{ cursor: 'pointer' }}
                    onClick={open}
                    onKeyDown={(event) => (event.key === 'Enter' || event.key === ' ') && open()}
                  >
                    <rect x={x - 10} y={y - 10} width={20} height={20} fill="transparent" />
                    <path d={`M${x} ${RULE - 12}V${y - 6}`} stroke={colours.line} />
                    {job.hold ? (
                      <path
                        d={`M${x - 8} ${y}c6 -12 10 12 16 0M${x - 8} ${y}c6 12 10 -12 16 0`}
                        stroke={colours.ochre}
                        strokeWidth="2"
                        fill="none"
                      />
                    ) : (
                      <path
                        d={`M${x} ${y - 7}l6 7l-6 7l-6 -7z`}
                        fill={job.state === 'done' ? colours.lichen : job.day === null ? 'none' : colours.paper}
                        stroke={job.late || job.breaks.length > 0 ? colours.ochre : colours.ink}
                        strokeWidth="1.6"
                        strokeDasharray={job.day === null ? '3 2' : undefined}
                      />
                    )}
                  </g>
                );
              })}
              {marks.length > 0 && (
                <text
                  x={room ? last + 11 : first - 11}
                  y={y + 4}
                  textAnchor={room ? 'start' : 'end'}
                  fontSize="12.5"
                  fontWeight="700"
                  fill={colours.ink}
                  stroke={colours.paper}
                  strokeWidth="3"
                  paintOrder="stroke"
                >
                  {label}
                </text>
              )}
            </g>
          );
        })}
        {doneKinds.map(({ id, on, words }) => (
          <g key={id}>
            <title>{`${words}, ${dayWords(on)}`}</title>
            <path
              d={`M${at(on)} ${height - LANE + 3}l6 7l-6 7l-6 -7z`}
              fill={colours.lichen}
              stroke={colours.ink}
              strokeWidth="1.4"
            />
          </g>
        ))}
      </svg>
    </Box>
  );
}
