import { type Bar, type UnitSystem, present, ratings } from '@glenfold/agronomy';
import { Box, Typography, useMediaQuery } from '@mui/material';
import { colours } from './theme.ts';
import { Words } from './Words.tsx';
import { placeOnBar } from './placeOnBar.ts';
import { Opens } from './working.tsx';
import { useUnits } from './units.tsx';

const fills = ['#D9A66B', '#EAD3B4', colours.sheet, '#C6D0D8', '#8FA2B1'] as const;
/** Drawing widths: the words under the bar keep their size on a phone. */
const widths = { desk: 500, phone: 345 } as const;

interface ReadingBarProps {
  readonly bar: Bar;
  readonly first?: boolean;
  /** Of a paper that is settled in its units; the person's own when absent. */
  readonly units?: UnitSystem;
  /** Stands in a narrow column: drawn as on a phone, so that its words keep their size. */
  readonly narrow?: boolean;
}

/** One analyte on a scale: five words, the wanted band hatched, the value as a pointer. Shape and place carry the meaning. */
export function ReadingBar({ bar, first = false, units, narrow = false }: ReadingBarProps) {
  const { system: chosen } = useUnits();
  const system = units ?? chosen;
  const { name, figure, sense, limits, rating, words, belowDetection } = bar;
  const told = `${belowDetection ? '<' : ''}${present(sense, figure.value, system).text}`;
  const phone = useMediaQuery('(max-width: 599px)');
  const width = phone || narrow ? widths.phone : widths.desk;
  const segment = width / 5;
  const at = limits ? placeOnBar(figure.value, limits) * segment : null;
  const needsAction = rating === 'very low' || rating === 'low' || (bar.key === 'soilPh' && rating !== 'medium');
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: '1fr', sm: '130px minmax(0, 1fr)' },
        columnGap: 2,
        borderTop: `1px solid ${colours.line}`,
        py: 1,
      }}
    >
      <Box>
        <Typography sx={{ lineHeight: 1.25 }}>{name}</Typography>
        <Opens title={name} told={told} working={figure.working} first={first} size="1.15rem" />
      </Box>
      <Box>
        {at !== null && (
          <svg
            viewBox={`0 0 ${width} 40`}
            width="100%"
            role="img"
            aria-label={`${name} ${told}: ${rating}`}
            style={{ display: 'block', maxHeight: 46 }}
          >
            <defs>
              <pattern id="wanted" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
                <path d="M0 0v6" stroke={colours.lichen} strokeWidth="1.6" opacity="0.55" />
              </pattern>
            </defs>
            {ratings.map((word, index) => (
              <g key={word}>
                <rect
                  x={index * segment}
                  y="14"
                  width={segment}
                  height="10"
                  fill={fills[index]}
                  stroke={colours.faded}
                  strokeWidth="0.7"
                />
                {word === 'medium' && (
                  <rect x={index * segment} y="14" width={segment} height="10" fill="url(#wanted)" />
                )}
                <text
                  x={index * segment + segment / 2}
                  y="37"
                  textAnchor="middle"
                  fontSize="11.5"
                  fontWeight={word === rating ? 700 : 400}
                  fill={word === rating ? colours.ink : colours.faded}
                >
                  {word}
                </text>
              </g>
            ))}
            {limits?.map((limit, index) => (
              <text
                key={limit}
                x={(index + 1) * segment}
                y="10"
                textAnchor="middle"
                fontSize="10.5"
                fill={colours.faded}
              >
                {present(sense, limit, system).number}
              </text>
            ))}
            <path
              d={`M${at} 27l-6 -11v-3h12v3z`}
              fill={needsAction ? colours.ochre : colours.ink}
              stroke={colours.sheet}
            />
          </svg>
        )}
        <Typography
          sx={{
            color: needsAction ? colours.ochre : colours.ink,
            fontWeight: needsAction ? 700 : 400,
            fontSize: '0.95rem',
          }}
        >
          <Words>{words}</Words>
        </Typography>
      </Box>
    </Box>
  );
}
