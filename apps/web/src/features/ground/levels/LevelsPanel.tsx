import {
  type Earthwork,
  GeometryError,
  compassPoint,
  earthwork,
  fallOf,
  type Outline,
  spotHeightsOf,
} from '@glenfold/agronomy/geometry';
import type { DrawingAnswer, ZoneAnswer } from '@glenfold/contract';
import { Box, Button, MenuItem, TextField, Typography } from '@mui/material';
import { useMemo, useState } from 'react';
import { colours } from '../../../ui/theme.ts';
import { QuantityField } from '../../../ui/QuantityField.tsx';
import { useUnits } from '../../../ui/units.tsx';
import { useFacts } from '../facts/useFacts.ts';

const directions = Array.from({ length: 8 }, (_, index) => index * 45);

/** Run, or tell why it cannot be. */
function attempt<T>(work: () => T): { readonly value?: T; readonly trouble?: string } {
  try {
    return { value: work() };
  } catch (error) {
    if (error instanceof GeometryError) return { trouble: error.message };
    throw error;
  }
}

/** Fall, hollows, and the soil to move for an even grade, from spot heights on the plan. */
export function LevelsPanel({ zone, plan }: { readonly zone: ZoneAnswer; readonly plan: DrawingAnswer }) {
  const { say } = useUnits();
  const { change, facts } = useFacts(zone);
  const spots = useMemo(() => spotHeightsOf(zone.geometry as Outline | null, plan.features), [zone, plan]);
  const fall = useMemo(() => attempt(() => fallOf(spots)), [spots]);
  if (!zone.geometry) return <Typography>Draw the zone first: heights are taken at places on its plan.</Typography>;
  const { value } = fall;
  const toward = value && compassPoint(value.aspect);
  const kept = value && facts.slope === rounded(value.slope) && facts.aspect === toward;
  return (
    <>
      <Typography sx={{ mb: 1 }}>
        {spots.length === 0
          ? 'No spot heights yet. Choose Draw, Spot height, and set a few with a level or a hose: the corners, the middle, and wherever water stands.'
          : `${spots.length} spot ${spots.length === 1 ? 'height' : 'heights'} in this zone.`}
      </Typography>
      {spots.length > 0 && !value && <Typography>{fall.trouble}</Typography>}
      {value && (
        <>
          <Typography>
            It falls <strong>{rounded(value.slope)} %</strong> toward the <strong>{toward}</strong>, and strays{' '}
            {say('depth', value.unevenness)} from an even plane.
          </Typography>
          <Typography sx={{ mt: 1 }}>
            {!value.tellsHollows
              ? 'All heights are at the rim: take one or more inside to see whether it holds water.'
              : value.hollows.length === 0
                ? 'No spot holds water: every one has a way down to the rim.'
                : `Water stands ${say('depth', value.hollows[0]!.depth)} deep at the worst of ${value.hollows.length} low ${value.hollows.length === 1 ? 'spot' : 'spots'} before it runs off. They are flagged on the plan.`}
          </Typography>
          {!kept && toward && (
            <Button
              size="small"
              variant="outlined"
              sx={{ mt: 1 }}
              onClick={() => change({ slope: rounded(value.slope), aspect: toward })}
            >
              Keep {rounded(value.slope)} % to the {toward} as the zone’s slope
            </Button>
          )}
          <Grading key={`${value.slope} ${value.aspect}`} zone={zone} spots={spots} natural={value} />
        </>
      )}
    </>
  );
}

const rounded = (percent: number): number => Math.round(percent * 10) / 10;

interface GradingProps {
  readonly zone: ZoneAnswer;
  readonly spots: ReturnType<typeof spotHeightsOf>;
  /** How the ground falls as it lies: %, and degrees toward which. */
  readonly natural: { readonly slope: number; readonly aspect: number };
}

/** Cut and fill to a wanted grade. */
function Grading({ zone, spots, natural }: GradingProps) {
  const { say } = useUnits();
  // It begins at the field's own mean slope: the least soil to move, and no guess.
  const [grade, setGrade] = useState<number | string | null>(() => Math.round(natural.slope * 100) / 100);
  const [toward, setToward] = useState(natural.aspect);
  const [level, setLevel] = useState<number | string | null>(null);
  const fault = typeof grade !== 'number' || grade < 0 || grade > 30 ? 'Give a fall of 0 to 30 %.' : undefined;
  const levelFault = typeof level === 'string' ? 'Give a height, or leave it open.' : undefined;
  const { value, trouble } = useMemo(
    (): { readonly value?: Earthwork; readonly trouble?: string } =>
      typeof grade !== 'number' || fault || typeof level === 'string'
        ? {}
        : attempt(() => earthwork(zone.geometry as Outline, spots, { fall: grade, toward, level: level ?? undefined })),
    [zone.geometry, spots, grade, toward, level, fault],
  );
  return (
    <Box component="section" aria-label="Cut and fill" sx={{ mt: 2.5 }}>
      <Typography variant="h3" sx={{ mb: 1 }}>
        Cut and fill to an even grade
      </Typography>
      <Box sx={{ display: 'grid', gap: 1.25, gridTemplateColumns: '1fr 1fr' }}>
        <QuantityField
          label="Fall wanted"
          sense="percent"
          value={grade}
          onChange={setGrade}
          problem={fault}
          helperText={grade === Math.round(natural.slope * 100) / 100 ? 'Its own mean slope' : '1 to 2 % sheds water'}
        />
        <TextField select label="Toward" value={toward} onChange={(event) => setToward(Number(event.target.value))}>
          <MenuItem value={natural.aspect}>as it falls, {compassPoint(natural.aspect)}</MenuItem>
          {directions.map((degrees) => (
            <MenuItem key={degrees} value={degrees}>
              {compassPoint(degrees)}
            </MenuItem>
          ))}
        </TextField>
        <QuantityField
          label="Height at the middle"
          sx={{ gridColumn: '1 / -1' }}
          sense="spotHeight"
          value={level}
          onChange={setLevel}
          problem={levelFault}
          helperText={value ? `Open: ${say('spotHeight', value.level)}, where cut fills fill` : 'Open: cut fills fill'}
        />
      </Box>
      {trouble && <Typography role="alert">{trouble}</Typography>}
      {value && (
        <Box component="dl" sx={{ display: 'grid', gridTemplateColumns: '1fr auto auto', m: 0, mt: 1.5, columnGap: 2 }}>
          {(
            [
              ['Cut', value.cut, `to ${say('depth', value.deepestCut)} deep`],
              ['Fill', value.fill, `to ${say('depth', value.highestFill)} high`],
            ] as const
          ).map(([name, volume, extreme]) => [
            <Box component="dt" key={name}>
              {name}
            </Box>,
            <Box component="dd" key={`${name} volume`} sx={{ m: 0, fontWeight: 700, textAlign: 'right' }}>
              {say('volume', volume)}
            </Box>,
            <Box component="dd" key={`${name} most`} sx={{ m: 0, color: colours.faded }}>
              {extreme}
            </Box>,
          ])}
        </Box>
      )}
      {value && (
        <Typography sx={{ fontSize: '0.9rem', color: colours.faded, mt: 0.75 }}>
          In place, before loosening. {Math.round(100 * value.guessed)} % of the area lies outside the spots, where
          heights are carried on: take more at the rim if that is much. Mark buried lines before anything is cut.
        </Typography>
      )}
    </Box>
  );
}
