import { type PlaceClimate, growthByMonth, present } from '@glenfold/agronomy';
import { Box } from '@mui/material';
import { colours } from '../../ui/theme.ts';
import { useUnits } from '../../ui/units.tsx';

const W = 640;
const H = 250;
const LEFT = 44;
const RIGHT = 40;
const TOP = 14;
/** Foot of the temperatures, and of the rain below them. */
const WARM = 128;
const FLOOR = 182;
const LETTERS = ['J', 'F', 'M', 'A', 'M', 'J', 'J', 'A', 'S', 'O', 'N', 'D'];

const monthAt = (monthDay: string): number => {
  const [month = 1, day = 1] = monthDay.split('-').map(Number);
  return month - 1 + (day - 1) / 31;
};

/** A place's year on one ruler of months: warmth between mean low and high, rain, frost, and when its grasses can grow. */
export function YearOfPlace({
  climate,
  seasons,
}: {
  readonly climate: PlaceClimate;
  readonly seasons: ReadonlyArray<'cool' | 'warm'>;
}) {
  const { system, say } = useUnits();
  const { low, high, rain, lastFrost, firstFrost } = climate;
  const [coldest, warmest] = [Math.min(0, ...low) - 2, Math.max(...high) + 2];
  const wettest = Math.max(60, ...rain);
  const x = (month: number): number => LEFT + (month / 12) * (W - LEFT - RIGHT);
  const y = (temperature: number): number => WARM - ((temperature - coldest) / (warmest - coldest)) * (WARM - TOP);
  const middle = (month: number): number => x(month + 0.5);
  const band = [
    ...high.map((value, month) => `${middle(month)},${y(value)}`),
    ...[...low].reverse().map((value, index) => `${middle(11 - index)},${y(value)}`),
  ].join(' ');
  const ticks = [0, 10, 20, 30, 40].filter((value) => value > coldest && value < warmest);
  return (
    <Box sx={{ maxWidth: 700 }}>
      <svg
        viewBox={`0 0 ${W} ${H}`}
        width="100%"
        role="img"
        aria-label={`The year by month: ${low.map((value, month) => `${LETTERS[month]} ${say('temperature', value)} to ${say('temperature', high[month]!)}, rain ${say('rainfall', rain[month]!)}`).join('; ')}`}
      >
        {rain.map((value, month) => (
          <g key={month}>
            <rect
              x={x(month) + 9}
              width={x(1) - x(0) - 18}
              y={FLOOR - (value / wettest) * 30}
              height={(value / wettest) * 30}
              fill={colours.slateWash}
              stroke={colours.slate}
              strokeWidth="0.7"
            />
            <text
              x={middle(month)}
              y={FLOOR - (value / wettest) * 30 - 3}
              textAnchor="middle"
              fontSize="10.5"
              fill={colours.slate}
            >
              {present('rainfall', value, system).number}
            </text>
          </g>
        ))}
        {ticks.map((value) => (
          <g key={value}>
            <path
              d={`M${LEFT} ${y(value)}H${W - RIGHT}`}
              stroke={colours.line}
              strokeDasharray={value === 0 ? '' : '2 4'}
            />
            <text x={LEFT - 6} y={y(value) + 4} textAnchor="end" fontSize="11" fill={colours.faded}>
              {present('temperature', value, system).text}
            </text>
          </g>
        ))}
        <polygon points={band} fill={colours.ochreWash} fillOpacity="0.75" stroke={colours.ochre} strokeWidth="1.3" />
        {[high, low].map((values, which) =>
          values.map((value, month) =>
            month % 3 === 0 ? (
              <text
                key={`${which} ${month}`}
                x={middle(month)}
                y={y(value) + (which === 0 ? -5 : 13)}
                textAnchor="middle"
                fontSize="11"
                fontWeight="700"
                fill={colours.ink}
              >
                {present('temperature', value, system).number}
              </text>
            ) : null,
          ),
        )}
        {(
          [
            [lastFrost, 'last frost'],
            [firstFrost, 'first frost'],
          ] as const
        ).map(([day, words]) =>
          day ? (
            <g key={words}>
              <path d={`M${x(monthAt(day))} ${TOP}V${FLOOR}`} stroke={colours.ink} strokeDasharray="1 3" />
              <text x={x(monthAt(day)) + 4} y={TOP + 6} fontSize="11" fill={colours.ink}>
                {words}
              </text>
            </g>
          ) : null,
        )}
        <path d={`M${LEFT} ${FLOOR}H${W - RIGHT}`} stroke={colours.ink} strokeWidth="1.5" />
        {LETTERS.map((letter, month) => (
          <g key={month}>
            <path d={`M${x(month)} ${FLOOR}v6`} stroke={colours.ink} />
            <text x={middle(month)} y={FLOOR + 16} textAnchor="middle" fontSize="12" fill={colours.ink}>
              {letter}
            </text>
          </g>
        ))}
        {seasons.map((season, row) => {
          const growth = growthByMonth(climate, season);
          const top = FLOOR + 26 + row * 22;
          return (
            <g key={season}>
              <text x={LEFT - 6} y={top + 11} textAnchor="end" fontSize="11" fill={colours.faded}>
                {season}
              </text>
              {growth.map((potential, month) => (
                <rect
                  key={month}
                  x={x(month) + 1}
                  width={x(1) - x(0) - 2}
                  y={top + 14 - 14 * potential}
                  height={Math.max(0.5, 14 * potential)}
                  fill={colours.lichen}
                />
              ))}
            </g>
          );
        })}
      </svg>
      <Box sx={{ fontSize: '0.9rem', color: colours.faded }}>
        Between mean low and high of the day; bars are rain, {system === 'us' ? 'in' : 'mm'} a month; below, how well{' '}
        {seasons.join('- and ')}-season grass can grow (Gelernter &amp; Stowell 2005).
      </Box>
    </Box>
  );
}
