import { type BalanceLine, present } from '@glenfold/agronomy';
import { Box } from '@mui/material';
import { colours } from '../../ui/theme.ts';
import { useUnits } from '../../ui/units.tsx';

const W = 62;
const TOP = 12;
const TUBE = 84;
const X = 12;
const BORE = 24;
/** Layers of one tube are told apart by their hatching, not by colour alone. */
const fills = [colours.slate, colours.lichen, colours.ochre];

function Gauge({ line, index }: { readonly line: BalanceLine; readonly index: number }) {
  const { say, system } = useUnits();
  const { symbol, need, most, layers, total, verdict } = line;
  const top = Math.max(need ?? 0, most ?? 0, total) * 1.12 || 1;
  const y = (value: number): number => TOP + TUBE * (1 - value / top);
  const bounds = layers.map((_, place) => layers.slice(0, place).reduce((sum, { value }) => sum + value, 0));
  const told = [
    `${say('nutrientRate', total)} of ${symbol}`,
    need === null ? 'need not known' : `${say('nutrientRate', need)} wanted`,
    ...(most === null ? [] : [`${say('nutrientRate', most)} at most`]),
    ...layers.map(({ name, value }) => `${name} ${say('nutrientRate', value)}`),
  ].join('; ');
  return (
    <Box component="figure" sx={{ m: 0, width: W, textAlign: 'center' }} title={told}>
      <svg viewBox={`0 0 ${W} ${TOP + TUBE + 4}`} width={W} role="img" aria-label={told}>
        <defs>
          <pattern
            id={`need-${index}`}
            width="5"
            height="5"
            patternUnits="userSpaceOnUse"
            patternTransform="rotate(45)"
          >
            <path d="M0 0V5" stroke={colours.faded} strokeWidth="1.4" />
          </pattern>
        </defs>
        {need !== null && need > 0 && (
          <rect
            x={X + BORE + 3}
            y={y(need)}
            width="7"
            height={TOP + TUBE - y(need)}
            fill={`url(#need-${index})`}
            stroke={colours.faded}
            strokeWidth="0.8"
          />
        )}
        {layers.map(({ key, value }, place) => (
          <rect
            key={`${key} ${place}`}
            x={X + 1}
            y={y(bounds[place]! + value)}
            width={BORE - 2}
            height={Math.max(1, (TUBE * value) / top)}
            fill={fills[place % fills.length]}
            fillOpacity={0.75}
            stroke={colours.paper}
          />
        ))}
        <path
          d={`M${X} ${TOP - 6}V${TOP + TUBE}H${X + BORE}V${TOP - 6}`}
          fill="none"
          stroke={colours.ink}
          strokeWidth="1.6"
        />
        {most !== null && <path d={`M${X - 7} ${y(most)}H${X + BORE + 12}`} stroke={colours.ochre} strokeWidth="2" />}
      </svg>
      <Box component="figcaption" sx={{ fontSize: '0.85rem', lineHeight: 1.2 }}>
        <strong>{symbol}</strong> {present('nutrientRate', total, system).number}
        <Box sx={{ color: verdict === 'over' || verdict === 'short' ? colours.ochre : colours.faded }}>
          {verdict === 'not asked' ? 'comes along' : verdict}
        </Box>
      </Box>
    </Box>
  );
}

/** The balance of a zone, upright like a rain gauge: need hatched, cap as a line, what each treatment brings as layers. */
export function Balance({ balance }: { readonly balance: readonly BalanceLine[] }) {
  // Calcium comes with every lime and is asked for by nobody here.
  const told = balance.filter(
    ({ nutrient, need }) => (nutrient !== 'ca' && nutrient !== 's' && nutrient !== 'fe') || !!need,
  );
  if (told.length === 0) return null;
  return (
    <Box
      component="section"
      aria-label="Balance of the year"
      sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.5, alignItems: 'start' }}
    >
      {told.map((line, index) => (
        <Gauge key={line.nutrient} line={line} index={index} />
      ))}
    </Box>
  );
}
