import { grasses } from '@glenfold/agronomy';
import { areaOf } from '@glenfold/agronomy/geometry';
import type { NewZone, ZoneAnswer, ZoneGeometry } from '@glenfold/contract';
import { MenuItem, TextField, Typography } from '@mui/material';
import { useState } from 'react';
import { Ask } from '../Ask.tsx';
import { QuantityField } from '../../../ui/QuantityField.tsx';
import { useUnits } from '../../../ui/units.tsx';

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

interface LengthFieldProps {
  readonly label: string;
  readonly value: number | string | null;
  readonly onChange: (value: number | string | null) => void;
  readonly help?: string;
  readonly asked: boolean;
  readonly least?: number;
  readonly autoFocus?: boolean;
}

export const isLength = (value: number | string | null, least = 0.05): value is number =>
  typeof value === 'number' && Number.isFinite(value) && value >= least && value <= 2000;

/** A length in the person's unit; told what is wrong once it was asked for. */
export function LengthField({ label, value, onChange, help, asked, least, autoFocus = false }: LengthFieldProps) {
  return (
    <QuantityField
      label={label}
      sense="length"
      value={value}
      onChange={onChange}
      autoFocus={autoFocus}
      problem={asked && !isLength(value, least) ? 'Give a length, such as 12 m or 40 ft.' : undefined}
      helperText={help}
    />
  );
}

const fresh = {
  grass: 'tall fescue',
  surface: 'turf',
  intensity: 'medium',
  shade: 'full sun',
  clippings: 'returned',
} as const;

/** A label that no zone has yet: "GR-1b" after "GR-1", or the first number that is free. */
function freeLabel(zones: readonly ZoneAnswer[], like: ZoneAnswer | undefined): string {
  const taken = new Set(zones.map(({ label }) => label.toLowerCase()));
  const free = (candidates: readonly string[]): string =>
    candidates.find((candidate) => !taken.has(candidate.toLowerCase())) ?? '';
  if (like) return free([...'bcdefghijklmnopqrstuvwxyz'].map((letter) => `${like.label}${letter}`));
  return free(Array.from({ length: 500 }, (_, index) => `Z-${index + 1}`));
}

interface NewZoneFormProps {
  readonly title: string;
  readonly zones: readonly ZoneAnswer[];
  /** The zone it was part of: its facts are taken over. */
  readonly like?: ZoneAnswer | undefined;
  readonly suggestion?: string;
  readonly geometry: ZoneGeometry;
  readonly onClose: () => void;
  readonly onDone: (zone: NewZone) => void;
  /** Where zones are there without an outline, it may be one of theirs. */
  readonly onOutlineOf?: (zone: ZoneAnswer) => void;
}

/** What a zone needs to be one: a name, a bag label, a grass. The other facts come after. */
export function NewZoneForm({
  title,
  zones,
  like,
  suggestion = '',
  geometry,
  onClose,
  onDone,
  onOutlineOf,
}: NewZoneFormProps) {
  const { say } = useUnits();
  const [name, setName] = useState(suggestion);
  const [label, setLabel] = useState(() => freeLabel(zones, like));
  const [grass, setGrass] = useState<string>(like?.grass ?? fresh.grass);
  const [asked, setAsked] = useState(false);
  const [ofId, setOfId] = useState('');
  const undrawn = onOutlineOf ? zones.filter((zone) => !zone.geometry) : [];
  const of = undrawn.find(({ id }) => id === ofId);
  const twin = zones.find((zone) => zone.label.toLowerCase() === label.trim().toLowerCase());
  const area = areaOf(geometry);
  const labelFault =
    label.trim() === '' ? 'Give a bag label.' : twin ? `${twin.name} has this label already.` : undefined;
  const done = (): void => {
    setAsked(true);
    if (of) {
      onOutlineOf?.(of);
      return;
    }
    if (name.trim() === '' || labelFault) return;
    const { surface, intensity, shade, clippings } = like ?? fresh;
    const soilGroup = like?.soilGroup ?? null;
    onDone({
      name: name.trim(),
      label: label.trim(),
      grass,
      surface,
      intensity,
      shade,
      clippings,
      soilGroup,
      area,
      geometry,
    });
  };
  return (
    <Ask title={title} action={of ? 'Give it this outline' : 'Add the zone'} onClose={onClose} onDone={done}>
      {undrawn.length > 0 && (
        <TextField
          select
          label="It is"
          value={ofId}
          onChange={(event) => setOfId(event.target.value)}
          slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}
        >
          <MenuItem value="">a new zone</MenuItem>
          {undrawn.map((zone) => (
            <MenuItem key={zone.id} value={zone.id}>
              {zone.name}, typed with {say('area', zone.area)}
            </MenuItem>
          ))}
        </TextField>
      )}
      <Typography>
        {say('area', area)} inside the outline{like ? `; soil, shade and care as in ${like.name}` : ''}. What lies on it
        untreated comes off.
      </Typography>
      {!of && (
        <>
          <TextField
            label="Name"
            value={name}
            autoFocus
            onChange={(event) => setName(event.target.value)}
            error={asked && name.trim() === ''}
            helperText={asked && name.trim() === '' ? 'Give the zone a name.' : 'As people on site call it'}
          />
          <TextField
            label="Bag label"
            value={label}
            onChange={(event) => setLabel(event.target.value)}
            error={asked && labelFault !== undefined}
            helperText={(asked && labelFault) || 'Results are matched by it'}
          />
          <TextField select label="Grass" value={grass} onChange={(event) => setGrass(event.target.value)}>
            {grasses.map((entry) => (
              <MenuItem key={entry.name} value={entry.name}>
                {capital(entry.label)}
              </MenuItem>
            ))}
          </TextField>
        </>
      )}
    </Ask>
  );
}

interface LengthQuestionProps {
  readonly title: string;
  readonly action: string;
  readonly label: string;
  readonly help: string;
  readonly first: number;
  readonly error: Error | null;
  readonly onClose: () => void;
  readonly onDone: (length: number) => void;
}

/** One length: the width of a strip, the radius of a canopy. */
export function LengthQuestion({ title, action, label, help, first, error, onClose, onDone }: LengthQuestionProps) {
  const [value, setValue] = useState<number | string | null>(first);
  const [asked, setAsked] = useState(false);
  return (
    <Ask
      title={title}
      action={action}
      onClose={onClose}
      error={error}
      onDone={() => {
        setAsked(true);
        if (isLength(value, 0.2)) onDone(value);
      }}
    >
      <LengthField label={label} value={value} onChange={setValue} help={help} asked={asked} least={0.2} autoFocus />
    </Ask>
  );
}
