import { type Bar, type UnitSystem, type Working, monthOf, present, ratings, tellBar } from '@glenfold/agronomy';
import { Box, Typography, useMediaQuery } from '@mui/material';
import type { ReactNode } from 'react';
import { colours } from './theme.ts';
import { Words } from './Words.tsx';
import { placeOnBar } from './placeOnBar.ts';
import { Opens } from './working.tsx';
import { useUnits } from './units.tsx';

const fills = ['#D9A66B', '#EAD3B4', colours.sheet, '#C6D0D8', '#8FA2B1'] as const;
/** From ochre below through paper to slate above; where less is wanted alone, what lies above it is what asks for care. */
function fillOf(index: number, wanted: number, steps: number): string {
  if (steps === fills.length) return fills[index]!;
  if (index === wanted) return colours.sheet;
  const far = Math.abs(index - wanted);
  return far === 1 ? fills[1] : fills[0];
}

/** Values of before that a bar shows. */
const MOST_EARLIER = 3;

/** Drawing widths: the words under the bar keep their size on a phone. */
const widths = { desk: 500, phone: 345 } as const;

interface ReadingBarProps {
  readonly bar: Bar;
  readonly first?: boolean;
  /** Of a paper that is settled in its units; the person's own when absent. */
  readonly units?: UnitSystem;
  /** Stands in a narrow column: drawn as on a phone, so that its words keep their size. */
  readonly narrow?: boolean;
  /** Nine of ten such tests lie within. */
  readonly spread?: {
    readonly low: number;
    readonly high: number;
    readonly told: string;
    readonly working: Working;
  } | null;
  /** What it was before, where it can be laid beside. */
  readonly earlier?: ReadonlyArray<{ readonly value: number; readonly told: string; readonly on: string | null }>;
  /** What is said of it; the words of the bar when absent. */
  readonly children?: ReactNode;
}

/** One analyte on a scale: five words, the wanted band hatched, the value as a pointer. Shape and place carry the meaning. */
export function ReadingBar({
  bar,
  first = false,
  units,
  narrow = false,
  spread,
  earlier = [],
  children,
}: ReadingBarProps) {
  const { system: chosen } = useUnits();
  const system = units ?? chosen;
  const { name, figure, limits, rating, words, scale } = bar;
  // A paper that was handed over before this was told goes by the rating.
  const steps = scale?.words ?? ratings;
  const wanted = scale?.wanted ?? ratings.indexOf('medium');
  const word = scale ? scale.words[scale.at] : rating;
  const told = tellBar(bar, system);
  const phone = useMediaQuery('(max-width: 599px)');
  const width = phone || narrow ? widths.phone : widths.desk;
  const segment = width / steps.length;
  const at = limits ? placeOnBar(figure.value, limits) * segment : null;
  const needsAction =
    (bar as Partial<Bar>).acts ??
    (rating === 'very low' || rating === 'low' || (bar.key === 'soilPh' && rating !== 'medium'));
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
        {spread && (
          <Box sx={{ fontSize: '0.88rem', color: colours.faded, '& button': { fontWeight: 400 } }}>
            <Opens title={`${name}: how sure`} told={spread.told} working={spread.working} />
          </Box>
        )}
      </Box>
      <Box>
        {at !== null && (
          <svg
            viewBox={`0 0 ${width} 40`}
            width="100%"
            role="img"
            aria-label={[
              `${name} ${told}: ${word}`,
              ...(spread ? [spread.told] : []),
              ...earlier.slice(0, MOST_EARLIER).map((one) => `${one.told} in ${monthOf(one.on)}`),
            ].join(', ')}
            style={{ display: 'block', maxHeight: 46 }}
          >
            <defs>
              <pattern id="wanted" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
                <path d="M0 0v6" stroke={colours.lichen} strokeWidth="1.6" opacity="0.55" />
              </pattern>
            </defs>
            {steps.map((step, index) => (
              <g key={step}>
                <rect
                  x={index * segment}
                  y="14"
                  width={segment}
                  height="10"
                  fill={fillOf(index, wanted, steps.length)}
                  stroke={colours.faded}
                  strokeWidth="0.7"
                />
                {index === wanted && (
                  <rect x={index * segment} y="14" width={segment} height="10" fill="url(#wanted)" />
                )}
                <text
                  x={index * segment + segment / 2}
                  y="37"
                  textAnchor="middle"
                  fontSize="11.5"
                  fontWeight={step === word ? 700 : 400}
                  fill={step === word ? colours.ink : colours.faded}
                >
                  {step}
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
                {present(bar.sense, limit, system).number}
              </text>
            ))}
            {limits && spread && (
              <rect
                x={placeOnBar(spread.low, limits) * segment}
                y="11"
                width={Math.max(2, (placeOnBar(spread.high, limits) - placeOnBar(spread.low, limits)) * segment)}
                height="16"
                fill={colours.ink}
                opacity="0.16"
              />
            )}
            {limits &&
              earlier
                .slice(0, MOST_EARLIER)
                .map((one, index) => (
                  <circle
                    key={`${one.on ?? ''} ${index}`}
                    cx={placeOnBar(one.value, limits) * segment}
                    cy="19"
                    r="3.6"
                    fill={colours.sheet}
                    stroke={colours.ink}
                    strokeWidth="1.3"
                    opacity={1 - 0.25 * index}
                  />
                ))}
            <path
              d={`M${at} 27l-6 -11v-3h12v3z`}
              fill={needsAction ? colours.ochre : colours.ink}
              stroke={colours.sheet}
            />
          </svg>
        )}
        {children ?? (
          <Typography
            sx={{
              color: needsAction ? colours.ochre : colours.ink,
              fontWeight: needsAction ? 700 : 400,
              fontSize: '0.95rem',
            }}
          >
            <Words>{words}</Words>
          </Typography>
        )}
      </Box>
    </Box>
  );
}
