import { phAvailability, shareAt } from '@glenfold/agronomy';
import { Box, Typography } from '@mui/material';
import { useId } from 'react';
import { colours } from '../../ui/theme.ts';

const LEFT = 118;
const WIDTH = 560;
const ROW = 30;
const TOP = 26;
const STEPS = 40;

/** How much of each nutrient is within reach at each pH, as ribbons that swell and thin; the zone’s pH as a plumb line. */
export function PhPicture({
  ph,
  band: [low, high],
}: {
  readonly ph: number;
  readonly band: readonly [number, number];
}) {
  const hatch = useId();
  const { from, step, nutrients, source } = phAvailability;
  const to = from + step * (nutrients[0]!.shares.length - 1);
  const x = (value: number): number => LEFT + ((value - from) / (to - from)) * WIDTH;
  const height = TOP + ROW * nutrients.length + 8;
  const at = x(Math.min(to, Math.max(from, ph)));
  const told = nutrients.map((one) => `${one.name} ${Math.round(shareAt(one, ph) / 10) * 10} %`).join(', ');
  return (
    <Box component="figure" sx={{ m: 0, mt: 1, maxWidth: 700, overflowX: 'auto' }}>
      <svg
        viewBox={`0 0 ${LEFT + WIDTH + 12} ${height + 18}`}
        width="100%"
        role="img"
        aria-label={`Within reach at pH ${ph.toFixed(1)}, of the most there is: ${told}`}
        style={{ display: 'block', minWidth: 420 }}
      >
        <defs>
          <pattern id={hatch} width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <path d="M0 0v7" stroke={colours.lichen} strokeWidth="1.5" opacity="0.5" />
          </pattern>
        </defs>
        <rect x={x(low)} y={TOP - 6} width={x(high) - x(low)} height={height - TOP + 4} fill={`url(#${hatch})`} />
        <text x={x(low)} y={TOP - 11} fontSize="11.5" fill={colours.lichen} fontWeight="700">
          {`wanted ${low.toFixed(1)}–${high.toFixed(1)}`}
        </text>
        {nutrients.map((nutrient, index) => {
          const middle = TOP + ROW * index + ROW / 2;
          const half = (value: number): number => (shareAt(nutrient, value) / 100) * (ROW / 2 - 2);
          const points = Array.from({ length: STEPS + 1 }, (_, at) => from + ((to - from) * at) / STEPS);
          const edge = (side: 1 | -1, along: readonly number[]): string =>
            along.map((value) => `${x(value).toFixed(1)} ${(middle - side * half(value)).toFixed(1)}`).join('L');
          return (
            <g key={nutrient.key}>
              <text x={LEFT - 8} y={middle + 4} textAnchor="end" fontSize="12.5" fill={colours.ink}>
                {nutrient.name}
              </text>
              <path
                d={`M${edge(1, points)}L${edge(-1, [...points].reverse())}Z`}
                fill={index % 2 === 0 ? colours.slate : colours.ochre}
                opacity="0.55"
              />
            </g>
          );
        })}
        {Array.from({ length: Math.round(to - from) + 1 }, (_, index) => from + index).map((mark) => (
          <text key={mark} x={x(mark)} y={height + 12} textAnchor="middle" fontSize="11.5" fill={colours.faded}>
            {`pH ${mark}`}
          </text>
        ))}
        <path d={`M${at} ${TOP - 8}V${height - 4}`} stroke={colours.ink} strokeWidth="2" />
        <path d={`M${at} ${TOP - 4}l-6 -11h12z`} fill={colours.ink} />
      </svg>
      <Typography component="figcaption" sx={{ fontSize: '0.82rem', color: colours.faded }}>
        The thicker a ribbon, the more of it is within reach; the upright line is this zone, the hatching what its grass
        wants. {source}.
      </Typography>
    </Box>
  );
}
