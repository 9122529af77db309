import { MenuItem, TextField } from '@mui/material';
import type { ReactNode } from 'react';

export const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** One of a few words. */
export function Choice({
  label,
  value,
  values,
  names = {},
  help,
  none,
  problem,
  onChange,
}: {
  readonly label: string;
  readonly value: string | null | undefined;
  readonly values: readonly string[];
  readonly names?: Readonly<Record<string, string>>;
  readonly help?: ReactNode;
  /** What an empty choice is called, where it may be empty. */
  readonly none?: string;
  readonly problem?: string | undefined;
  readonly onChange: (value: string | null) => void;
}) {
  return (
    <TextField
      select
      label={label}
      value={value ?? ''}
      onChange={(event) => onChange(event.target.value || null)}
      error={!!problem}
      helperText={problem ?? help}
      {...(none === undefined ? {} : { slotProps: { select: { displayEmpty: true }, inputLabel: { shrink: true } } })}
    >
      {none !== undefined && <MenuItem value="">{none}</MenuItem>}
      {values.map((one) => (
        <MenuItem key={one} value={one}>
          {names[one] ?? capital(one)}
        </MenuItem>
      ))}
    </TextField>
  );
}
