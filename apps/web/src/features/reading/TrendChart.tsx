import type { Trend } from '@glenfold/agronomy';
import { lastDayOf } from '@glenfold/agronomy';
import { Box, useMediaQuery } from '@mui/material';
import { colours } from '../../ui/theme.ts';

const HEIGHT = 128;
const TOP = 16;
const BOTTOM = 30;
const SIDE = 40;
const widths = { desk: 620, phone: 330 } as const;

const yearOf = (day: string): number => Date.parse(day) / (365.25 * 86_400_000) + 1970;

/** Tests of a measure over the years; those that can be laid side by side are joined, what was spread stands as plumb marks. */
export function TrendChart({
  trend: { name, points, marks },
  today,
}: {
  readonly trend: Trend;
  readonly today: string;
}) {
  const phone = useMediaQuery('(max-width: 599px)');
  const width = phone ? widths.phone : widths.desk;
  const days = [...points.map(({ on }) => on), ...marks.map(({ on }) => lastDayOf(on)), today];
  const [from, to] = [Math.min(...days.map(yearOf)) - 0.1, Math.max(...days.map(yearOf)) + 0.1];
  const values = points.map(({ value }) => value);
  const [low, high] = [Math.min(...values), Math.max(...values)];
  const pad = high > low ? (high - low) * 0.25 : Math.max(0.5, Math.abs(high) * 0.1);
  const x = (day: string): number => SIDE + ((yearOf(day) - from) / (to - from)) * (width - SIDE - 24);
  const y = (value: number): number =>
    TOP + (1 - (value - low + pad) / (high - low + 2 * pad)) * (HEIGHT - TOP - BOTTOM);
  const years = Array.from({ length: Math.floor(to) - Math.ceil(from) + 1 }, (_, index) => Math.ceil(from) + index);
  const runs = [...new Set(points.map(({ run }) => run))];
  return (
    <Box sx={{ maxWidth: width }}>
      <svg
        viewBox={`0 0 ${width} ${HEIGHT}`}
        width="100%"
        role="img"
        aria-label={`${name}: ${points.map(({ told, on }) => `${told} on ${on}`).join(', ')}${marks.length > 0 ? `; ${marks.map(({ words, on }) => `${words} ${on}`).join(', ')}` : ''}`}
        style={{ display: 'block' }}
      >
        <path d={`M${SIDE - 6} ${HEIGHT - BOTTOM}H${width - 12}`} stroke={colours.ink} strokeWidth="1" />
        {years.map((year) => (
          <g key={year}>
            <path d={`M${x(`${year}-01-01`)} ${HEIGHT - BOTTOM}v5`} stroke={colours.ink} strokeWidth="1" />
            <text
              x={x(`${year}-01-01`)}
              y={HEIGHT - BOTTOM + 17}
              textAnchor="middle"
              fontSize="11"
              fill={colours.faded}
            >
              {year}
            </text>
          </g>
        ))}
        {marks.map(({ on, words }, index) => {
          const at = x(lastDayOf(on));
          return (
            <g key={`${on} ${words}`}>
              <path
                d={`M${at} ${TOP - 4}V${HEIGHT - BOTTOM}`}
                stroke={colours.lichen}
                strokeWidth="1"
                strokeDasharray="3 3"
              />
              <path d={`M${at} ${HEIGHT - BOTTOM}l-3.5 -8h7z`} fill={colours.lichen} />
              {(index === 0 || at - x(lastDayOf(marks[index - 1]!.on)) > 58) && (
                <text x={at + 4} y={TOP + 4} fontSize="10.5" fill={colours.lichen}>
                  {words}
                </text>
              )}
            </g>
          );
        })}
        {runs.map((run) => {
          const own = points.filter((point) => point.run === run);
          return (
            <path
              key={run}
              d={`M${own.map(({ on, value }) => `${x(on)} ${y(value)}`).join('L')}`}
              fill="none"
              stroke={colours.slate}
              strokeWidth="1.6"
            />
          );
        })}
        {points.map(({ on, value, told, run }, index) => {
          const last = run === points.at(-1)!.run;
          return (
            <g key={`${on} ${index}`}>
              <rect
                x={x(on) - 4}
                y={y(value) - 4}
                width="8"
                height="8"
                fill={last ? colours.ink : colours.sheet}
                stroke={colours.ink}
              />
              <text x={x(on)} y={y(value) - 9} textAnchor="middle" fontSize="11.5" fontWeight="700" fill={colours.ink}>
                {told}
              </text>
            </g>
          );
        })}
      </svg>
    </Box>
  );
}
