import {
  InputError,
  refusalWords,
  type LengthName,
  type ShapeName,
  areaShape,
  paceLength,
  shapeLengths,
  shapeNames,
} from '@glenfold/agronomy';
import type { TapedShape } from '@glenfold/contract';
import { Box, Button, MenuItem, TextField, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material';
import { useState } from 'react';
import { colours } from '../../../ui/theme.ts';

import { QuantityField } from '../../../ui/QuantityField.tsx';
import { useSession } from '../../../ui/session.tsx';
import { useDeviceState } from '../../../ui/useSessionState.ts';
import { useUnits } from '../../../ui/units.tsx';
import { Opens } from '../../../ui/working.tsx';
import { ShapeSketch } from './ShapeSketch.tsx';

export const shapeLabels: Readonly<Record<ShapeName, string>> = {
  rectangle: 'Rectangle',
  triangle: 'Triangle, by its three sides',
  l: 'L, a rectangle with a corner missing',
  circle: 'Circle',
  trapezium: 'Trapezium, two sides parallel',
  'four sides': 'Four sides and a diagonal',
};

type Typed = number | string | null;
export type TypedLengths = Readonly<Partial<Record<LengthName, Typed>>>;

/** Lengths as they are typed, before they make a shape. */
export interface TypedShape {
  readonly shape: ShapeName;
  readonly by: 'tape' | 'paces';
  readonly lengths: TypedLengths;
  /** m of one pace, and % by which a paced length is off. */
  readonly pace: { readonly pace: number; readonly spread: number } | null;
}

export const freshShape: TypedShape = { shape: 'rectangle', by: 'tape', lengths: {}, pace: null };

/** The shape as it is kept, its area with its working; or what is wrong with it, by the field. */
export function readShape({ shape, by, lengths, pace }: TypedShape) {
  const own = shapeLengths[shape].map(({ name }) => name);
  const missing = own.find((name) => typeof lengths[name] !== 'number');
  if (missing) {
    const told = lengths[missing];
    const words = told ? `“${told}” is no length: write 12 m or 40 ft.` : 'Measure this too.';
    return { fault: { field: missing, message: words } } as const;
  }
  if (by === 'paces' && !pace)
    return { fault: { field: 'pace', message: 'Find the length of your pace first.' } } as const;
  const read = Object.fromEntries(own.map((name) => [name, lengths[name]])) as TapedShape['lengths'];
  const taped: TapedShape = { shape, lengths: read, ...(by === 'paces' ? pace : {}) };
  try {
    const { result, working } = areaShape({ ...read, shape, ...(by === 'paces' && pace ? pace : {}) });
    return { taped, result, working } as const;
  } catch (error) {
    if (!(error instanceof InputError)) throw error;
    return { fault: { field: error.field, message: refusalWords(error) } } as const;
  }
}

/** What was taped, as it is typed again. */
export function typedOf({ shape, lengths, pace, spread }: TapedShape): TypedShape {
  return {
    shape,
    by: pace === undefined ? 'tape' : 'paces',
    lengths,
    pace: pace === undefined ? null : { pace, spread: spread ?? 5 },
  };
}

interface ShapeFieldsProps {
  readonly value: TypedShape;
  readonly onChange: (value: TypedShape) => void;
  /** Told what is wrong once it was asked for. */
  readonly asked: boolean;
}

/** A simple shape by lengths that were taped or paced, with its area as it is typed. */
export function ShapeFields({ value, onChange, asked }: ShapeFieldsProps) {
  const { say } = useUnits();
  const { shape, by, lengths } = value;
  const read = readShape(value);
  const set = (part: Partial<TypedShape>): void => onChange({ ...value, ...part });
  return (
    <Box sx={{ display: 'grid', gap: 2 }}>
      <TextField
        select
        label="Shape"
        value={shape}
        onChange={(event) => set({ shape: event.target.value as ShapeName })}
      >
        {shapeNames.map((name) => (
          <MenuItem key={name} value={name}>
            {shapeLabels[name]}
          </MenuItem>
        ))}
      </TextField>
      <Box sx={{ display: 'flex', gap: 2, alignItems: 'flex-start' }}>
        <ShapeSketch shape={shape} />
        <Box sx={{ display: 'grid', gap: 1.5, flex: 1 }}>
          <ToggleButtonGroup
            exclusive
            size="small"
            value={by}
            aria-label="Measured by"
            onChange={(_event, next: TypedShape['by'] | null) => next && set({ by: next })}
          >
            <ToggleButton value="tape">By tape</ToggleButton>
            <ToggleButton value="paces">By paces</ToggleButton>
          </ToggleButtonGroup>
          {by === 'paces' && <PaceField value={value.pace} onChange={(pace) => set({ pace })} asked={asked} />}
        </Box>
      </Box>
      {shapeLengths[shape].map(({ name, label }) => {
        const problem = asked && read.fault?.field === name ? read.fault.message : undefined;
        const change = (next: Typed): void => set({ lengths: { ...lengths, [name]: next } });
        return by === 'tape' ? (
          <QuantityField
            key={name}
            label={label}
            sense="length"
            value={lengths[name]}
            onChange={change}
            problem={problem}
          />
        ) : (
          <QuantityField
            key={name}
            label={`${label}, paces`}
            sense="count"
            value={lengths[name]}
            onChange={change}
            problem={problem}
          />
        );
      })}
      {asked && read.fault && !['pace', ...shapeLengths[shape].map(({ name }) => name)].includes(read.fault.field) && (
        <Typography role="alert" sx={{ color: colours.ochre }}>
          {read.fault.message}
        </Typography>
      )}
      {read.result && (
        <Typography aria-live="polite">
          <Opens title="Area" told={say('area', read.result.area)} working={read.working} />, give or take{' '}
          {say('area', read.result.uncertainty)}
        </Typography>
      )}
    </Box>
  );
}

interface PaceFieldProps {
  readonly value: TypedShape['pace'];
  readonly onChange: (pace: TypedShape['pace']) => void;
  readonly asked: boolean;
}

interface Walk {
  readonly distance: Typed;
  readonly paces: Typed;
}

const noWalks: readonly Walk[] = Array.from({ length: 3 }, () => ({ distance: null, paces: null }));

/** One's own pace, found once by walking along a tape and kept on this device. */
function PaceField({ value, onChange, asked }: PaceFieldProps) {
  const { say } = useUnits();
  const { person } = useSession();
  const [walks, setWalks] = useDeviceState<readonly Walk[]>(`glenfold.walks.${person?.id ?? ''}`, noWalks);
  const [open, setOpen] = useState(value === null);
  const [fault, setFault] = useState<string | null>(null);
  const find = (): void => {
    const walked = walks.filter((walk) => walk.distance !== null || walk.paces !== null);
    try {
      const { result } = paceLength({ walks: walked });
      onChange(result);
      setFault(null);
      setOpen(false);
    } catch (error) {
      if (!(error instanceof InputError)) throw error;
      setFault(refusalWords(error));
    }
  };
  const set = (index: number, part: Partial<Walk>): void =>
    setWalks(walks.map((walk, place) => (place === index ? { ...walk, ...part } : walk)));
  if (!open && value)
    return (
      <Box>
        <Typography>
          One pace is {say('spotHeight', value.pace)}, give or take {value.spread.toFixed(0)} %.
        </Typography>
        <Button size="small" onClick={() => setOpen(true)}>
          Find it again
        </Button>
      </Box>
    );
  return (
    <Box sx={{ display: 'grid', gap: 1 }}>
      <Typography>Walk along a tape three times as you always do, and count every step.</Typography>
      {walks.map((walk, index) => (
        <Box key={index} sx={{ display: 'flex', gap: 1 }}>
          <QuantityField
            label={`Walk ${index + 1}`}
            sense="length"
            value={walk.distance}
            onChange={(distance) => set(index, { distance })}
          />
          <QuantityField label="Paces" sense="count" value={walk.paces} onChange={(paces) => set(index, { paces })} />
        </Box>
      ))}
      {(fault ?? (asked && !value)) && (
        <Typography role="alert" sx={{ color: colours.ochre }}>
          {fault ?? 'Find the length of your pace first.'}
        </Typography>
      )}
      <Button variant="outlined" onClick={find}>
        This is my pace
      </Button>
    </Box>
  );
}
