import { type Treatment, type ZoneProgram, monthName, present } from '@glenfold/agronomy';
import { Box, useMediaQuery, useTheme } from '@mui/material';
import { colours } from '../../ui/theme.ts';
import { useUnits } from '../../ui/units.tsx';
import { monthOf } from '../../ui/treatments.ts';

interface YearLineProps {
  readonly year: NonNullable<ZoneProgram['year']>;
  readonly treatments: readonly Treatment[];
  /** Opens the row of a treatment. */
  readonly onOpen: (key: string) => void;
}

const LEFT = 8;
const BAND = 22;
const RULE = 40;
const LANE = 19;

/** °C from which the soil counts as warm, and as hot, for the band beneath the ruler. */
const WARM = [8, 14, 20] as const;

/** The days of a month as parts of it. */
const partOf = (day: string): number => (Number(day.slice(8)) - 1) / 30.5;

/**
 * The year’s line: one ruler of months with the soil’s warmth and the grass’s growth beneath; doses hang from it like
 * plumb marks, deeper in the order of work.
 */
export function YearLine({ year, treatments, onOpen }: YearLineProps) {
  const { system } = useUnits();
  const narrow = useMediaQuery(useTheme().breakpoints.down('sm'));
  const width = narrow ? 380 : 760;
  const month = (width - 2 * LEFT) / 12;
  const lanes = treatments.filter(({ status, doses }) => status === 'planned' && doses.some(({ from }) => from));
  const height = RULE + 14 + lanes.length * LANE + 6;
  const at = (day: string): number => {
    const index = year.months.findIndex((one) => day.startsWith(one.month));
    return LEFT + Math.max(0, index + partOf(day)) * month;
  };
  const firstOfYear = year.months.findIndex((one) => one.month.endsWith('-01'));
  return (
    <Box sx={{ mb: 1.5 }}>
      <svg
        viewBox={`0 0 ${width} ${height}`}
        width="100%"
        role="group"
        aria-label="The year of this zone"
        style={{ maxWidth: 940 }}
      >
        {year.months.map(({ month: name, mean, growth }, index) => {
          const warmth = WARM.filter((from) => mean >= from).length;
          return (
            <g key={name}>
              <rect
                x={LEFT + index * month}
                y={2}
                width={month}
                height={BAND}
                fill={colours.ochreWash}
                fillOpacity={warmth / 3}
              />
              <rect
                x={LEFT + index * month + 2}
                y={2 + BAND * (1 - growth)}
                width={month - 4}
                height={BAND * growth}
                fill={colours.lichen}
                fillOpacity={0.45}
              />
              <path
                d={`M${LEFT + index * month} ${RULE - 14}v${name.endsWith('-01') ? 18 : 11}`}
                stroke={colours.ink}
              />
              <text x={LEFT + (index + 0.5) * month} y={RULE - 3} textAnchor="middle" fontSize="12" fill={colours.ink}>
                {monthName(Number(name.slice(5))).slice(0, narrow ? 1 : 3)}
                {!narrow && (index === 0 || index === firstOfYear) ? ` ${name.slice(2, 4)}` : ''}
              </text>
            </g>
          );
        })}
        <path d={`M${LEFT} ${RULE - 14}H${width - LEFT}`} stroke={colours.ink} strokeWidth="1.6" />
        {lanes.flatMap(({ key, doses }, lane) =>
          doses.map(({ from, to }, index) =>
            from && to ? (
              <path
                key={`${key} ${index}`}
                d={`M${(at(from) + Math.max(at(to), at(from) + 6)) / 2} ${RULE + 2}V${RULE + 13 + lane * LANE}`}
                stroke={colours.line}
                strokeWidth="1.2"
              />
            ) : null,
          ),
        )}
        {lanes.map((treatment, lane) => {
          const y = RULE + 18 + lane * LANE;
          const dated = treatment.doses.filter(({ from, to }) => from && to);
          const last = Math.max(...dated.map(({ to }) => at(to!)));
          const start = Math.min(...dated.map(({ from }) => at(from!)));
          const each = dated[0]!;
          const amount =
            treatment.rate && !narrow
              ? `, ${present(treatment.sense, each.rate, system).text}${dated.length > 1 ? ' each' : ''}`
              : '';
          const label = `${treatment.name}${amount}`;
          // Beside its last mark, or before its first where the line ends.
          const room = width - last > label.length * 6.6 + 14;
          return (
            <g
              key={treatment.key}
              role="button"
              tabIndex={0}
              aria-label={`${treatment.name}: ${dated.map((dose) => monthOf(dose)).join(', ')}`}
              style={{ cursor: 'pointer' }}
              onClick={() => onOpen(treatment.key)}
              onKeyDown={(event) => (event.key === 'Enter' || event.key === ' ') && onOpen(treatment.key)}
            >
              <rect x={LEFT} y={y - LANE / 2} width={width - 2 * LEFT} height={LANE} fill="transparent" />
              {dated.map(({ from, to, own }, index) => {
                const [x1, x2] = [at(from!), Math.max(at(to!), at(from!) + 6)];
                const x = (x1 + x2) / 2;
                return (
                  <g key={index}>
                    <path
                      d={`M${x1 + 1} ${y - 3}v6M${x1 + 1} ${y}H${x2 - 1}M${x2 - 1} ${y - 3}v6`}
                      stroke={colours.slate}
                      fill="none"
                    />
                    <path
                      d={`M${x} ${y - 6}l5 6l-5 6l-5 -6z`}
                      fill={own ? colours.ochreWash : colours.paper}
                      stroke={colours.ink}
                      strokeWidth="1.4"
                    />
                  </g>
                );
              })}
              <text
                x={room ? last + 6 : start - 6}
                y={y + 4}
                textAnchor={room ? 'start' : 'end'}
                fontSize="12"
                fontWeight="700"
                fill={colours.ink}
                stroke={colours.paper}
                strokeWidth="3"
                paintOrder="stroke"
              >
                {label}
              </text>
            </g>
          );
        })}
      </svg>
      <Box sx={{ fontSize: '0.85rem', color: colours.faded }}>
        Green: how well the grass can grow; ochre: warm soil. {year.basis}.
      </Box>
    </Box>
  );
}
