import { TextField, type TextFieldProps } from '@mui/material';
import { useState } from 'react';
import { useCurrency } from './session.tsx';

type NumberFieldProps = Omit<TextFieldProps, 'value' | 'onChange' | 'error'> & {
  /** Nothing when empty; the text itself when it is no number, so that it is refused and kept. */
  readonly value: number | string | null | undefined;
  readonly onChange: (value: number | string | null) => void;
  readonly problem?: string | undefined;
  readonly unit?: string | undefined;
  readonly sign?: string | undefined;
  /** The label stays small above the field, where it would not fit into it. */
  readonly narrow?: boolean;
};

/** A text as a number where it is one, with a decimal comma too; its own sign may stand before it, and no other. */
export function readNumber(text: string, sign: string | undefined): number | string | null {
  if (text.trim() === '') return null;
  const trimmed = text.trim();
  const plain = (sign && trimmed.startsWith(sign) ? trimmed.slice(sign.length) : trimmed).trim();
  const value = Number(plain.replace(',', '.'));
  // Words are no nought.
  return plain === '' || Number.isNaN(value) ? text : value;
}

/** A plain number, with its unit or its sign beside it. */
export function NumberField({
  value,
  onChange,
  problem,
  helperText,
  unit,
  sign,
  narrow = false,
  ...rest
}: NumberFieldProps) {
  const [typed, setTyped] = useState<{ readonly text: string; readonly value: number | string | null } | null>(null);
  const text =
    typed !== null && Object.is(typed.value, value ?? null)
      ? typed.text
      : value === null || value === undefined
        ? ''
        : String(value);
  return (
    <TextField
      {...rest}
      value={text}
      onChange={(event) => {
        const next = readNumber(event.target.value, sign);
        setTyped({ text: event.target.value, value: next });
        onChange(next);
      }}
      error={problem !== undefined}
      helperText={problem ?? helperText}
      slotProps={{
        ...rest.slotProps,
        input: {
          ...(sign ? { startAdornment: <span style={{ marginRight: 4 }}>{sign}</span> } : {}),
          ...(unit ? { endAdornment: <span style={{ whiteSpace: 'nowrap', marginLeft: 6 }}>{unit}</span> } : {}),
        },
        htmlInput: { inputMode: 'decimal', autoComplete: 'off', ...(rest.slotProps?.htmlInput as object | undefined) },
        ...(sign || unit || narrow ? { inputLabel: { shrink: true } } : {}),
      }}
    />
  );
}

/** An amount of the practice's money. */
export function MoneyField(props: Omit<NumberFieldProps, 'sign'>) {
  return <NumberField {...props} sign={useCurrency()} />;
}
