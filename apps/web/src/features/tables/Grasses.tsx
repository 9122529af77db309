import {
  type Grass,
  type ReferenceTable,
  convert,
  grasses,
  present,
  saltTolerance,
  seedingWindows,
  unitFor,
} from '@glenfold/agronomy';
import { Box, TextField, Typography } from '@mui/material';
import { useState } from 'react';
import { colours } from '../../ui/theme.ts';
import { useUnits } from '../../ui/units.tsx';
import { Provenance } from './PublishedTable.tsx';

const PH = { from: 4.5, to: 8.5, width: 230, ticks: [5, 6, 7, 8] };
/** lb/1000 ft² */
const NITROGEN = { from: 0, to: 6, width: 120, ticks: [0, 2, 4, 6] };
interface Scale {
  readonly ticks: readonly number[];
  readonly from: number;
  readonly to: number;
  readonly width: number;
}
const at = (value: number, { from, to, width }: Scale): number =>
  ((Math.min(to, Math.max(from, value)) - from) / (to - from)) * width;

const shadeSteps = ['very poor', 'poor', 'fair', 'good'];
const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** A band on a scale, with a notch where a correction aims and a line at the soil that is asked about. */
function Band({
  scale,
  band,
  aim,
  soil,
  label,
}: {
  readonly scale: Scale;
  readonly band: readonly [number, number];
  readonly aim?: number;
  readonly soil?: number | undefined;
  readonly label: string;
}) {
  const [left, right] = band.map((end) => at(end, scale)) as [number, number];
  return (
    <svg viewBox={`-2 0 ${scale.width + 4} 22`} width="100%" role="img" aria-label={label} style={{ display: 'block' }}>
      <path d={`M0 16h${scale.width}`} stroke={colours.line} strokeWidth="1" />
      {scale.ticks.map((tick) => (
        <path key={tick} d={`M${at(tick, scale)} 4v14`} stroke={colours.line} strokeWidth="0.8" />
      ))}
      <rect
        x={left}
        y="7"
        width={Math.max(2, right - left)}
        height="9"
        fill={colours.lichenWash}
        stroke={colours.lichen}
      />
      {aim !== undefined && (
        <path d={`M${at(aim, scale)} 5v13`} stroke={colours.lichen} strokeWidth="3" strokeLinecap="butt" />
      )}
      {soil !== undefined && <path d={`M${at(soil, scale)} 0v22`} stroke={colours.ochre} strokeWidth="1.6" />}
    </svg>
  );
}

function Ticks({ scale, told }: { readonly scale: Scale; readonly told?: (tick: number) => string }) {
  return (
    <svg
      viewBox={`-2 0 ${scale.width + 4} 14`}
      width="100%"
      aria-hidden
      style={{ display: 'block', overflow: 'visible' }}
    >
      {scale.ticks.map((tick) => (
        <text key={tick} x={at(tick, scale)} y="11" textAnchor="middle" fontSize="12" fill={colours.faded}>
          {told ? told(tick) : tick}
        </text>
      ))}
    </svg>
  );
}

/** What a soil of this pH would need for the grass. */
function suits({ ph: [low, high] }: Grass, soil: number | undefined): 'suits' | 'lime' | 'lower' | undefined {
  if (soil === undefined) return undefined;
  return soil < low ? 'lime' : soil > high ? 'lower' : 'suits';
}

const verdicts = { suits: 'suits', lime: 'wants lime', lower: 'wants it lower' } as const;

/** The grasses drawn on one pH scale, so that a soil can be held against all of them. */
export function Grasses({ tables }: { readonly tables: readonly ReferenceTable[] }) {
  const { system } = useUnits();
  const [typed, setTyped] = useState('');
  const soil = typed.trim() === '' || !Number.isFinite(Number(typed)) ? undefined : Number(typed);
  const wrong = typed.trim() !== '' && (soil === undefined || soil < 3 || soil > 10);
  const asked = wrong ? undefined : soil;
  const perArea = (perThousand: number, sense: 'nutrientRate' | 'productRate'): string =>
    system === 'us' ? `${perThousand}` : present(sense, convert(perThousand, 'lb/1000ft2', 'g/m2'), system).number;
  const range = ([low, high]: readonly [number, number], sense: 'nutrientRate' | 'productRate'): string =>
    low === high ? perArea(low, sense) : `${perArea(low, sense)}–${perArea(high, sense)}`;
  const depth = ([low, high]: readonly [number, number]): string =>
    high <= 0.3
      ? 'barely covered'
      : `to ${system === 'us' ? '¼ in' : `${present('percent', high * 10, 'metric').number} mm`}${low === 0 ? ', or barely covered' : ''}`;
  const rate = unitFor('nutrientRate', system).label;
  const heads = ['Grass', 'Soil pH, and the aim', `Nitrogen, ${rate} a year`, 'Shade', 'Salt', 'From seed'];
  return (
    <>
      <Box sx={{ display: 'flex', gap: 2, alignItems: 'center', flexWrap: 'wrap', mb: 2 }}>
        <TextField
          label="A soil pH to compare"
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          error={wrong}
          helperText={wrong ? 'A pH from 3 to 10, such as 6.2.' : undefined}
          slotProps={{ htmlInput: { inputMode: 'decimal' } }}
          sx={{ width: 230 }}
        />
        {asked !== undefined && (
          <Typography role="status">
            pH {asked.toFixed(1)} suits {grasses.filter((grass) => suits(grass, asked) === 'suits').length} of{' '}
            {grasses.length} grasses as it is.
          </Typography>
        )}
      </Box>
      {/* What goes sideways goes so by the keyboard too. */}
      <Box tabIndex={0} role="region" aria-label="Grasses, side by side" sx={{ overflowX: 'auto' }}>
        <Box
          role="table"
          aria-label="Grasses"
          sx={{
            display: 'grid',
            gridTemplateColumns: '150px minmax(180px, 1.4fr) minmax(110px, 0.8fr) 122px 140px minmax(176px, 1.4fr)',
            minWidth: 900,
            columnGap: 2,
          }}
        >
          <Box role="row" sx={{ display: 'contents', color: colours.faded, fontSize: '0.85rem' }}>
            {heads.map((head, index) => (
              <Box
                role="columnheader"
                key={head}
                sx={{ alignSelf: 'end', borderBottom: `1px solid ${colours.ink}`, pb: 0.5, mr: -2, pr: 2 }}
              >
                {head}
                {index === 1 && <Ticks scale={PH} />}
                {index === 2 && <Ticks scale={NITROGEN} told={(tick) => perArea(tick, 'nutrientRate')} />}
              </Box>
            ))}
          </Box>
          {grasses.map((grass) => {
            const verdict = suits(grass, asked);
            const cell = { borderBottom: `1px solid ${colours.line}`, py: 0.75, mr: -2, pr: 2, fontSize: '0.92rem' };
            return (
              <Box role="row" key={grass.name} sx={{ display: 'contents' }}>
                <Box role="rowheader" sx={cell}>
                  <strong>{capital(grass.label)}</strong>
                  <Box
                    sx={{
                      color: verdict === 'suits' ? colours.lichen : verdict ? colours.ochre : colours.faded,
                      fontWeight: verdict === 'suits' ? 700 : 400,
                    }}
                  >
                    {verdict ? verdicts[verdict] : `${grass.season} season`}
                  </Box>
                </Box>
                <Box role="cell" sx={cell}>
                  <Band
                    scale={PH}
                    band={grass.ph}
                    aim={grass.aim}
                    soil={asked}
                    label={`pH ${grass.ph.map((end) => end.toFixed(1)).join(' to ')}, aim ${grass.aim.toFixed(1)}`}
                  />
                  <Box sx={{ color: colours.faded }}>
                    {grass.ph.map((end) => end.toFixed(1)).join('–')}, aim {grass.aim.toFixed(1)}
                  </Box>
                </Box>
                <Box role="cell" sx={cell}>
                  <Band
                    scale={NITROGEN}
                    band={grass.nitrogen}
                    label={`Nitrogen ${range(grass.nitrogen, 'nutrientRate')}`}
                  />
                  <Box sx={{ color: colours.faded }}>{range(grass.nitrogen, 'nutrientRate')}</Box>
                </Box>
                <Box role="cell" sx={cell}>
                  <span aria-hidden style={{ letterSpacing: '0.12em' }}>
                    {'●'.repeat(shadeSteps.indexOf(grass.shade) + 1)}
                    {'○'.repeat(3 - shadeSteps.indexOf(grass.shade))}
                  </span>
                  <Box sx={{ color: colours.faded }}>
                    {grass.shade}, {grass.leastSun} h sun
                  </Box>
                </Box>
                <Box role="cell" sx={cell}>
                  {capital(saltTolerance(grass))}
                  <Box sx={{ color: colours.faded }}>
                    {grass.salt[0] === 0 ? 'below' : 'from'} {grass.salt[0] === 0 ? grass.salt[1] : grass.salt[0]} dS/m
                  </Box>
                </Box>
                <Box role="cell" sx={cell}>
                  {grass.seed ? (
                    <>
                      {range(grass.seed.new, 'productRate')} {unitFor('productRate', system).label},{' '}
                      {depth(grass.seed.depth)}
                      <Box sx={{ color: colours.faded }}>up in {grass.seed.emerge.join('–')} days</Box>
                    </>
                  ) : (
                    <>
                      Not seeded<Box sx={{ color: colours.faded }}>from {grass.establish.join(', ')}</Box>
                    </>
                  )}
                </Box>
              </Box>
            );
          })}
        </Box>
      </Box>
      <Typography sx={{ mt: 1.5, maxWidth: 820 }}>
        {(['cool', 'warm'] as const).map((season) => {
          const { range: ends, trend, window } = seedingWindows[season];
          const degrees = (value: number): number => Math.round(system === 'us' ? convert(value, 'C', 'F') : value);
          return (
            <span key={season}>
              <strong>{capital(season)}-season seed</strong>: {window}, in soil of {degrees(ends[0])}–{degrees(ends[1])}{' '}
              {system === 'us' ? '°F' : '°C'} and {trend}.{' '}
            </span>
          );
        })}
      </Typography>
      {tables[0] && <Provenance table={tables[0]} />}
      <Box sx={{ mb: 3 }} />
    </>
  );
}
