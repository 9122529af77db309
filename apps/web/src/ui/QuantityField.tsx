import {
  QuantityError,
  type Sense,
  convert,
  coreUnit,
  parseQuantity,
  inField,
  present,
  unitFor,
} from '@glenfold/agronomy';
import { TextField, type TextFieldProps } from '@mui/material';
import { useState } from 'react';
import { inUnits } from './inUnits.ts';
import { useCurrency } from './session.tsx';
import { useUnits } from './units.tsx';

type QuantityFieldProps = Omit<TextFieldProps, 'value' | 'onChange' | 'error'> & {
  readonly sense: Sense;
  /** In the core's unit for the sense; nothing when empty; the text itself when it cannot be read, so that it is refused and kept. */
  readonly value: number | string | null | undefined;
  readonly onChange: (value: number | string | null) => void;
  readonly problem?: string | undefined;
  /** g/cm³: a weight may be typed where a volume is asked for, and a volume for a weight. */
  readonly density?: number | null | undefined;
};

const WEIGHED: ReadonlySet<string> = new Set(['kg', 'L', 'm3']);

/** What was typed, in the core's unit; by its density where it is the weight of a volume, or the volume of a weight. @throws {QuantityError} */
function readTyped(text: string, own: string, inner: string, density: number | null | undefined): number {
  try {
    return convert(parseQuantity(text, own), own, inner);
  } catch (error) {
    if (!(error instanceof QuantityError) || !density || !WEIGHED.has(inner)) throw error;
    // One litre of it weighs as many kilograms.
    if (inner === 'kg') return parseQuantity(text, 'L') * density;
    return convert(parseQuantity(text, 'kg') / density, 'L', inner);
  }
}

/** Amounts that are told in steps of a tape, a scale or a spreader. */
const stepped: ReadonlySet<Sense> = new Set(['depth', 'limeRate', 'productRate', 'nutrientRate']);

/** Told to the hundredth however large: levels are compared, and money has cents. */
const toHundredths: ReadonlySet<Sense> = new Set(['spotHeight', 'money', 'volumePrice']);

/** A number as it stands in a field: no more figures than somebody would type, and the tape's own step where that is as good. */
function written(value: number, sense: Sense, stepValue: number): string {
  if (stepped.has(sense) && Math.abs(stepValue - value) <= 0.02 * Math.abs(value)) return String(stepValue);
  const size = Math.abs(value);
  if (toHundredths.has(sense)) return String(Number(value.toFixed(2)));
  if (size >= 1000) return String(Math.round(value));
  if (size >= 1 || sense === 'depth') return String(Number(value.toFixed(size < 100 ? 2 : 1)));
  return String(Number(value.toPrecision(3)));
}

/** A number field that knows its unit: `40 ft2` typed where m² stands is converted, and both are shown. */
export function QuantityField({
  sense,
  value,
  onChange,
  problem,
  helperText,
  density,
  'aria-label': named,
  ...rest
}: QuantityFieldProps) {
  const { system } = useUnits();
  const currency = useCurrency();
  const { label: general, unit } = unitFor(sense, system);
  const label = general.replace('$', currency);
  const inner = coreUnit(sense);
  const own = unit === '' ? inner : unit;
  const [typed, setTyped] = useState<{ readonly text: string; readonly value: number | string | null } | null>(null);

  const shown =
    typeof value === 'number'
      ? written(convert(value, inner, own), sense, inField(sense, value, system))
      : (value ?? '');
  const text = typed && typed.value === value ? typed.text : shown;
  const other = present(sense, typeof value === 'number' ? value : 0, system === 'us' ? 'metric' : 'us').text;
  const both =
    typeof value === 'number' && label !== '' && unit !== '' && typed
      ? `${present(sense, value, system).text} = ${other}`
      : helperText;

  const read = (next: string): void => {
    let parsed: number | string | null = null;
    if (next.trim() !== '') {
      try {
        parsed = readTyped(next, own, inner, density);
      } catch (error) {
        if (!(error instanceof QuantityError)) throw error;
        parsed = next;
      }
    }
    setTyped({ text: next, value: parsed });
    onChange(parsed);
  };

  return (
    <TextField
      {...rest}
      value={text}
      onChange={(event) => read(event.target.value)}
      onBlur={(event) => {
        if (typeof value === 'number') setTyped((last) => last && { ...last, text: shown });
        rest.onBlur?.(event);
      }}
      error={problem !== undefined}
      helperText={problem === undefined ? both : inUnits(problem, system)}
      slotProps={{
        input: { endAdornment: <span style={{ whiteSpace: 'nowrap', marginLeft: 6 }}>{label}</span> },
        htmlInput: { inputMode: 'text', autoComplete: 'off', ...(named ? { 'aria-label': named } : {}) },
        // A unit stands where an empty field would have its label.
        ...(label === '' ? {} : { inputLabel: { shrink: true } }),
      }}
    />
  );
}
