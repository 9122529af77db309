import { type ProductAmount, present } from '@glenfold/agronomy';
import { Box } from '@mui/material';
import { colours } from '../../ui/theme.ts';
import { useUnits } from '../../ui/units.tsx';

const W = 420;
const H = 118;
const BASE = 92;

/** The lime applications on a line of months, as high as they are heavy. */
export function LimeSplit({ amount }: { readonly amount: ProductAmount }) {
  const { system } = useUnits();
  const { applications } = amount;
  const most = Math.max(...applications.map(({ rate }) => rate));
  const last = applications.at(-1)?.monthsFromStart ?? 0;
  const span = Math.max(6, last + 2);
  const x = (months: number): number => 44 + (months / span) * (W - 96);
  const say = (rate: number): string => present('limeRate', rate, system).text;
  return (
    <Box sx={{ maxWidth: 520 }}>
      <svg
        viewBox={`0 0 ${W} ${H}`}
        width="100%"
        role="img"
        aria-label={`Applications: ${applications.map(({ rate, monthsFromStart }) => `${say(rate)} at month ${monthsFromStart}`).join(', ')}`}
      >
        <path d={`M10 ${BASE}H${W - 6}`} stroke={colours.ink} strokeWidth="1.5" />
        {Array.from({ length: span + 1 }, (_, month) => (
          <path key={month} d={`M${x(month)} ${BASE}v${month % 3 === 0 ? 7 : 4}`} stroke={colours.faded} />
        ))}
        {applications.map(({ rate, mass, monthsFromStart }, index) => {
          const months = monthsFromStart ?? 0;
          const height = 8 + (rate / most) * 44;
          return (
            <g key={index}>
              <rect
                x={x(months) - 17}
                y={BASE - height}
                width="34"
                height={height}
                fill={colours.slateWash}
                stroke={colours.ink}
                strokeWidth="1.2"
              />
              <text
                x={x(months)}
                y={BASE - height - 17}
                textAnchor="middle"
                fontSize="11.5"
                fontWeight="700"
                fill={colours.ink}
              >
                {say(rate)}
              </text>
              <text x={x(months)} y={BASE - height - 5} textAnchor="middle" fontSize="11" fill={colours.faded}>
                {present('mass', mass, system).text}
              </text>
              <text x={x(months)} y={BASE + 20} textAnchor="middle" fontSize="11.5" fill={colours.ink}>
                {months === 0 ? 'first' : `+${months} months`}
              </text>
            </g>
          );
        })}
      </svg>
    </Box>
  );
}
