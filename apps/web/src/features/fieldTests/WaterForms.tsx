import { type UnitSystem, present } from '@glenfold/agronomy';
import { Box, TextField, Typography } from '@mui/material';
import { useState } from 'react';
import { colours } from '../../ui/theme.ts';
import { useUnits } from '../../ui/units.tsx';
import { AddNumber, type FormProps, LengthField, PlainField, ReadList } from './fields.tsx';
import { usePending } from './pending.ts';

interface Cup {
  readonly mL: number;
  readonly place?: string;
  readonly right?: number;
  readonly down?: number;
}

/** Where the cups stood: a plan of the patch, each cup as full as it was. */
function CupPlan({ cups, at, onPlace }: { readonly cups: readonly Cup[]; readonly at: readonly [number, number] | null; readonly onPlace: (right: number, down: number) => void }) {
  const most = Math.max(1, ...cups.map(({ mL }) => mL));
  const side = Math.ceil(Math.sqrt(Math.max(16, cups.length)));
  return (
    <Box
      component="svg"
      viewBox="0 0 320 200"
      role="img"
      aria-label={`Where the cups stood: ${cups.map(({ mL, place }, index) => `${place ?? index + 1}: ${mL} mL`).join(', ')}`}
      onClick={(event) => {
        const box = event.currentTarget.getBoundingClientRect();
        onPlace((event.clientX - box.left) / box.width, (event.clientY - box.top) / box.height);
      }}
      sx={{ width: '100%', border: `1px solid ${colours.ink}`, background: colours.sheet, touchAction: 'manipulation' }}
    >
      {cups.map(({ mL, right, down, place }, index) => {
        const x = 320 * (right ?? ((index % side) + 0.5) / side);
        const y = 200 * (down ?? (Math.floor(index / side) + 0.5) / side);
        return (
          <g key={index}>
            <circle cx={x} cy={y} r="15" fill="none" stroke={colours.ink} strokeDasharray={right === undefined ? '3 3' : 'none'} />
            <circle cx={x} cy={y} r={15 * Math.sqrt(mL / most)} fill={colours.slate} opacity="0.55" />
            <text x={x} y={y + 4} textAnchor="middle" fontSize="11" fontWeight="700" fill={colours.ink}>
              {place ?? index + 1}
            </text>
          </g>
        );
      })}
      {at && <path d={`M${at[0] * 320 - 8} ${at[1] * 200}h16M${at[0] * 320} ${at[1] * 200 - 8}v16`} stroke={colours.ochre} strokeWidth="3" />}
    </Box>
  );
} // prettier-ignore

/** Cups on the lawn. */
export function CupsForm({ record, onChange }: FormProps) {
  const cups = (record.cups as readonly Cup[] | undefined) ?? [];
  const [at, setAt] = useState<readonly [number, number] | null>(null);
  const [pasted, setPasted] = usePending('cups', '');
  const add = (list: readonly number[]): void => {
    const fresh = list.map((mL, index): Cup => ({
      mL,
      place: String(cups.length + index + 1),
      ...(at && index === 0 ? { right: Math.round(at[0] * 1000) / 1000, down: Math.round(at[1] * 1000) / 1000 } : {}),
    }));
    setAt(null);
    onChange({ cups: [...cups, ...fresh] });
  };
  const takeAll = (): void => {
    const found = pasted.split(/[\s;,]+/).filter(Boolean).map((one) => Number(one)).filter((one) => Number.isFinite(one) && one >= 0);
    if (found.length > 0) add(found);
    setPasted('');
  };
  return (
    <>
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1 }}>
        <PlainField name="minutes" label="The run" unit="min" record={record} onChange={onChange} />
        <PlainField name="throatArea" label="Throat of a cup" unit="cm²" record={record} onChange={onChange} helperText="9 cm across is 64 cm²" />
      </Box>
      <Typography sx={{ color: colours.faded, fontSize: '0.92rem' }}>
        Touch where the next cup stood, then type what was in it. Left alone they stand in rows.
      </Typography>
      <CupPlan cups={cups} at={at} onPlace={(right, down) => setAt([right, down])} />
      <AddNumber label={`Cup ${cups.length + 1}`} unit="mL" onAdd={(mL) => add([mL])} />
      <TextField
        label="Or all of them in one go, mL"
        value={pasted}
        onChange={(event) => setPasted(event.target.value)}
        onKeyDown={(event) => event.key === 'Enter' && takeAll()}
        onBlur={takeAll}
        helperText="28 31 25 33 …"
        fullWidth
      />
      <ReadList label="Cup" list={cups} onRemove={(index) => onChange({ cups: cups.filter((_, other) => other !== index) })} tell={(cup, index) => `${cup.place ?? index + 1}: ${cup.mL} mL`}>
        {null}
      </ReadList>
    </>
  );
} // prettier-ignore

interface WateredPlace {
  readonly depth: number;
  readonly place?: string;
}

const toldPlace = ({ depth, place }: WateredPlace, system: UnitSystem): string =>
  `${place ? `${place}: ` : ''}${present('depth', depth, system).text}`;

/** How deep the last watering went. */
export function WateringForm({ record, onChange }: FormProps) {
  const { system } = useUnits();
  const places = (record.places as readonly WateredPlace[] | undefined) ?? [];
  const [place, setPlace] = usePending('place', '');
  return (
    <>
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1 }}>
        <PlainField name="minutes" label="The last run" unit="min" record={record} onChange={onChange} />
        <LengthField name="wanted" label="Wanted depth" record={record} onChange={onChange} helperText="Empty: as deep as the roots" />
      </Box>
      <ReadList label="Place" list={places} onRemove={(index) => onChange({ places: places.filter((_, other) => other !== index) })} tell={(one) => toldPlace(one, system)}>
        <TextField label="Where" value={place} onChange={(event) => setPlace(event.target.value)} helperText="Such as by the shed" fullWidth sx={{ mt: 1 }} />
        <AddNumber
          label="Moist down to"
          sense="depth"
          onAdd={(depth) => {
            onChange({ places: [...places, { depth, ...(place.trim() ? { place: place.trim() } : {}) }] });
            setPlace('');
          }}
        />
      </ReadList>
    </>
  );
} // prettier-ignore
