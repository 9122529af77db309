import { fizzes, layerSoils, present, smells } from '@glenfold/agronomy';
import { Box, Button, MenuItem, TextField, Typography } from '@mui/material';
import { useMemo, useRef, useState } from 'react';
import { QuantityField } from '../../ui/QuantityField.tsx';
import { colours } from '../../ui/theme.ts';
import { useUnits } from '../../ui/units.tsx';
import { AddNumber, type FormProps, LengthField, PlainField, ReadList, WordField } from './fields.tsx';
import { simulatedProbe } from './probe.ts';
import { usePending } from './pending.ts';

interface Layer {
  readonly from: number;
  readonly to: number;
  readonly soil: string;
}

const thatchLooks = [
  ['none', 0, 'soil shows between the shoots'],
  ['thin', 0.7, 'a mat as thick as a pencil'],
  ['thick', 1.9, 'a thumb sinks in'],
  ['a mattress', 3.2, 'it bounces'],
] as const;

/** Pictures of thatch to choose from, where no ruler is at hand. */
function ThatchPictures({ value, onPick }: { readonly value: unknown; readonly onPick: (thatch: number) => void }) {
  return (
    <Box role="group" aria-label="Thatch, by its picture" sx={{ display: 'grid', gridTemplateColumns: 'repeat(4, 1fr)', gap: 0.5 }}>
      {thatchLooks.map(([name, thatch, about]) => (
        <Box
          component="button"
          type="button"
          key={name}
          aria-pressed={value === thatch}
          onClick={() => onPick(thatch)}
          sx={{ font: 'inherit', color: colours.ink, background: value === thatch ? colours.slateWash : 'none', border: `1px solid ${value === thatch ? colours.ink : colours.line}`, p: 0.5, minHeight: 44, cursor: 'pointer' }}
        >
          <svg viewBox="0 0 60 60" width="100%" aria-hidden="true">
            <path d="M6 20l4-16M18 20l2-14M30 20l3-17M42 20l2-13M54 20l1-15" stroke={colours.lichen} strokeWidth="2" />
            <rect x="2" y="20" width="56" height={Math.max(1, thatch * 8)} fill="#D6C48C" />
            <rect x="2" y={20 + thatch * 8} width="56" height={38 - thatch * 8} fill="#A88F6A" />
          </svg>
          <div style={{ fontWeight: 700, fontSize: '0.9rem' }}>{name}</div>
          <div style={{ fontSize: '0.78rem', lineHeight: 1.15 }}>{about}</div>
        </Box>
      ))}
    </Box>
  );
} // prettier-ignore

/** A core or a spade's block, from the top down. */
export function CoreForm({ record, onChange }: FormProps) {
  const { system } = useUnits();
  const layers = (record.layers as readonly Layer[] | undefined) ?? [];
  const [to, setTo] = usePending<number | string | null>('layer to', null);
  const [soil, setSoil] = usePending<string>('layer of', 'loam');
  const from = layers.at(-1)?.to ?? 0;
  return (
    <>
      <ThatchPictures value={record.thatch} onPick={(thatch) => onChange({ thatch })} />
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1 }}>
        <LengthField name="thatch" label="Thatch" record={record} onChange={onChange} />
        <LengthField name="rootDepth" label="Most roots to" record={record} onChange={onChange} />
        <LengthField name="mottlesFrom" label="Rust spots from" record={record} onChange={onChange} />
        <PlainField name="worms" label="Worms in the block" record={record} onChange={onChange} />
      </Box>
      <WordField name="smell" label="It smells of" words={smells} record={record} onChange={onChange} />
      <ReadList
        label="Layer"
        list={layers}
        onRemove={(index) => onChange({ layers: layers.filter((_, other) => other !== index) })}
        tell={(layer) => `${present('depth', layer.from, system).text} to ${present('depth', layer.to, system).text}: ${layer.soil}`}
      >
        <Box sx={{ display: 'flex', gap: 1, mt: 1, alignItems: 'start' }}>
          <TextField select label="Layer of" value={soil} onChange={(event) => setSoil(event.target.value)} sx={{ minWidth: 110 }}>
            {layerSoils.map((one) => (
              <MenuItem key={one} value={one}>
                {one}
              </MenuItem>
            ))}
          </TextField>
          <QuantityField label={`Down to, from ${present('depth', from, system).text}`} sense="depth" value={to} onChange={setTo} fullWidth />
          <Button
            variant="outlined"
            disabled={typeof to !== 'number' || to <= from}
            onClick={() => {
              onChange({ layers: [...layers, { from, to: to as number, soil }] });
              setTo(null);
            }}
            sx={{ minHeight: 56 }}
          >
            Add
          </Button>
        </Box>
      </ReadList>
    </>
  );
} // prettier-ignore

/** A probe pushed in several places. */
export function ProbeForm({ record, onChange }: FormProps) {
  const { system } = useUnits();
  const stops = (record.stops as readonly number[] | undefined) ?? [];
  return (
    <>
      <LengthField name="length" label="Length of the probe" record={record} onChange={onChange} helperText="A push to its end did not stop" />
      <ReadList label="Push" list={stops} onRemove={(index) => onChange({ stops: stops.filter((_, other) => other !== index) })} tell={(stop) => `stopped at ${present('depth', stop, system).text}`}>
        <AddNumber label="It stops at" sense="depth" onAdd={(stop) => onChange({ stops: [...stops, stop] })} />
      </ReadList>
    </>
  );
} // prettier-ignore

interface RingReading {
  readonly time: number;
  readonly infiltrated: number;
}

/** A ring that takes in water. */
export function RingForm({ record, onChange }: FormProps) {
  const readings = (record.readings as readonly RingReading[] | undefined) ?? [];
  const { say } = useUnits();
  const began = useRef<number | null>(null);
  const [time, setTime] = usePending<string>('minutes', '');
  const last = readings.at(-1);
  return (
    <>
      <LengthField name="diameter" label="Ring, across" record={record} onChange={onChange} />
      <Button variant="outlined" onClick={() => (began.current = Date.now())} sx={{ minHeight: 48 }}>
        Start the watch: water is at the mark
      </Button>
      <ReadList label="Reading" list={readings} onRemove={(index) => onChange({ readings: readings.filter((_, other) => other !== index) })} tell={(one) => `${Number(one.time.toFixed(1))} min: ${say('watering', one.infiltrated)} in all`}>
        <TextField
          label="Minutes since the start"
          value={time}
          onChange={(event) => setTime(event.target.value)}
          helperText="Empty: by the watch"
          sx={{ mt: 1 }}
          fullWidth
          slotProps={{ htmlInput: { inputMode: 'decimal' } }}
        />
        <AddNumber
          label="Water gone in, in all"
          sense="watering"
          onAdd={(infiltrated) => {
            const typed = Number(time.replace(',', '.'));
            const minutes = time.trim() !== '' && Number.isFinite(typed) ? typed : began.current === null ? (last?.time ?? 0) + 10 : (Date.now() - began.current) / 60_000;
            onChange({ readings: [...readings, { time: Math.round(minutes * 10) / 10, infiltrated }] });
            setTime('');
          }}
        />
      </ReadList>
    </>
  );
} // prettier-ignore

/** Drops of water, timed by a thumb. */
export function WaterDropForm({ record, onChange }: FormProps) {
  const seconds = (record.seconds as readonly number[] | undefined) ?? [];
  const began = useRef<number | null>(null);
  const [running, setRunning] = useState(false);
  const add = (time: number): void => onChange({ seconds: [...seconds, time] });
  return (
    <>
      <Button
        variant="contained"
        size="large"
        sx={{ minHeight: 56 }}
        onClick={() => {
          if (running && began.current !== null) add(Math.max(1, Math.round((Date.now() - began.current) / 1000)));
          began.current = running ? null : Date.now();
          setRunning(!running);
        }}
      >
        {running ? 'It went in' : 'The drop is down'}
      </Button>
      <ReadList label="Drop" list={seconds} onRemove={(index) => onChange({ seconds: seconds.filter((_, other) => other !== index) })} tell={(one) => `stood ${one} s`}>
        <AddNumber label="Or seconds, by a watch" unit="s" onAdd={add} />
      </ReadList>
    </>
  );
} // prettier-ignore

export function FizzForm({ record, onChange }: FormProps) {
  return (
    <>
      <WordField
        name="fizz"
        label="Under vinegar or acid it fizzes"
        words={fizzes}
        record={record}
        onChange={onChange}
      />
      <WordField
        name="shells"
        label="Shell or stone picked out before"
        words={['yes', 'no']}
        record={record}
        onChange={onChange}
      />
    </>
  );
}

/** Numbers of a thermometer or a probe; the probe sends them by itself. */
export function SensorForm({ record, onChange, what }: FormProps & { readonly what: 'temperature' | 'moisture' }) {
  const readings = (record.readings as readonly number[] | undefined) ?? [];
  const { say } = useUnits();
  const warmth = what === 'temperature';
  const probe = useMemo(() => simulatedProbe({ temperature: 11.5, moisture: 22 }), []);
  const [listening, setListening] = useState(false);
  const [lost, setLost] = useState(0);
  const listen = async (): Promise<void> => {
    setListening(true);
    setLost(0);
    const heard: number[] = [];
    for (let count = 0; count < 12; count += 1) {
      const value = await probe.read(what);
      if (value === null) setLost((before) => before + 1);
      else heard.push(value);
    }
    // The first ones are of a probe that is still warm of the hand.
    const settled = heard.slice(-5).sort((a, b) => a - b);
    if (settled.length > 0) onChange({ readings: [...readings, settled[settled.length >> 1]!] });
    setListening(false);
  };
  return (
    <>
      <LengthField name="depth" label="Depth" record={record} onChange={onChange} />
      <Button variant="outlined" onClick={() => void listen()} disabled={listening} sx={{ minHeight: 52 }}>
        {listening ? 'Listening…' : `Read from the probe (${probe.name.toLowerCase()})`}
      </Button>
      {lost > 0 && <Typography sx={{ color: colours.faded }}>{`${lost} ${lost === 1 ? 'reading was' : 'readings were'} lost on the way; the middle of the last that came counts.`}</Typography>}
      <ReadList label="Reading" list={readings} onRemove={(index) => onChange({ readings: readings.filter((_, other) => other !== index) })} tell={(one) => (warmth ? say('temperature', one) : `${one} %`)}>
        <AddNumber label="Or as you read it" {...(warmth ? { sense: 'temperature' as const } : { unit: '%' })} onAdd={(value) => onChange({ readings: [...readings, value] })} />
      </ReadList>
    </>
  );
} // prettier-ignore
