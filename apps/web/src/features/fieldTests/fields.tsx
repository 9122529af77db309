import { Box, Button, TextField, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material';
import type { ReactNode } from 'react';
import { NumberField } from '../../ui/NumberField.tsx';
import { QuantityField } from '../../ui/QuantityField.tsx';
import { colours } from '../../ui/theme.ts';
import { usePending } from './pending.ts';

/** The record of a test as a form sees it. */
export type Draft = Readonly<Record<string, unknown>>;

export interface FormProps {
  readonly record: Draft;
  /** Change some of it; what is nothing is taken out. */
  readonly onChange: (change: Draft) => void;
}

/** A length in the reader's units; kept as it is typed, cm. */
export function LengthField({
  name,
  label,
  record,
  onChange,
  helperText,
}: FormProps & { readonly name: string; readonly label: string; readonly helperText?: string }) {
  return (
    <QuantityField
      label={label}
      sense="depth"
      value={(record[name] as number | string | undefined) ?? null}
      onChange={(value) => onChange({ [name]: value ?? undefined })}
      helperText={helperText}
      fullWidth
    />
  );
}

/** A plain number with its unit. */
export function PlainField({
  name,
  label,
  unit,
  record,
  onChange,
  helperText,
}: FormProps & { readonly name: string; readonly label: string; readonly unit?: string; readonly helperText?: string }) {
  return (
    <NumberField
      label={label}
      unit={unit}
      value={(record[name] as number | string | undefined) ?? null}
      onChange={(value) => onChange({ [name]: value ?? undefined })}
      helperText={helperText}
      fullWidth
    />
  );
} // prettier-ignore

/** One of a few words, large enough for a thumb. */
export function WordField({
  name,
  label,
  words,
  record,
  onChange,
}: FormProps & { readonly name: string; readonly label: string; readonly words: readonly string[] }) {
  return (
    <Box>
      <Typography sx={{ fontSize: '0.92rem', color: colours.faded, mb: 0.5 }}>{label}</Typography>
      <ToggleButtonGroup
        exclusive
        value={record[name] ?? null}
        onChange={(_event, value: string | null) => onChange({ [name]: value ?? undefined })}
        aria-label={label}
        sx={{ flexWrap: 'wrap', gap: 0.5 }}
      >
        {words.map((word) => (
          <ToggleButton key={word} value={word} sx={{ minHeight: 44, border: `1px solid ${colours.faded} !important` }}>
            {word}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
    </Box>
  );
}

interface ListProps<T> {
  readonly label: string;
  readonly list: readonly T[];
  readonly tell: (item: T, index: number) => ReactNode;
  readonly onRemove: (index: number) => void;
  readonly children: ReactNode;
}

/** What was read so far, each with a way to take it back, and the field for the next. */
export function ReadList<T>({ label, list, tell, onRemove, children }: ListProps<T>) {
  return (
    <Box component="section" aria-label={label}>
      {list.map((item, index) => (
        <Box
          key={index}
          sx={{
            display: 'flex',
            justifyContent: 'space-between',
            alignItems: 'center',
            borderTop: `1px solid ${colours.line}`,
            py: 0.25,
            fontSize: '1.05rem',
          }}
        >
          <span>{tell(item, index)}</span>
          <Button
            size="small"
            onClick={() => onRemove(index)}
            aria-label={`Take back ${label} ${index + 1}`}
            sx={{ minHeight: 40 }}
          >
            Take back
          </Button>
        </Box>
      ))}
      {children}
    </Box>
  );
}

/** A number typed and added to a list: Enter or the button. */
export function AddNumber({
  label,
  sense,
  unit,
  action = 'Add',
  onAdd,
}: {
  readonly label: string;
  readonly sense?: 'depth' | 'temperature' | 'watering';
  readonly unit?: string;
  readonly action?: string;
  readonly onAdd: (value: number) => void;
}) {
  const [value, setValue] = usePending<number | string | null>(label.replace(/\d+/g, ''), null);
  const add = (): void => {
    if (typeof value !== 'number') return;
    onAdd(value);
    setValue(null);
  };
  const onKeyDown = (event: React.KeyboardEvent): void => {
    if (event.key === 'Enter') add();
  };
  return (
    <Box sx={{ display: 'flex', gap: 1, alignItems: 'start', mt: 1 }}>
      <Box sx={{ flex: 1 }}>
        {sense ? (
          <QuantityField label={label} sense={sense} value={value} onChange={setValue} onKeyDown={onKeyDown} fullWidth />
        ) : (
          <NumberField label={label} unit={unit} value={value} onChange={setValue} onKeyDown={onKeyDown} fullWidth />
        )}
      </Box>
      <Button variant="contained" onClick={add} disabled={typeof value !== 'number'} sx={{ minHeight: 56 }}>
        {action}
      </Button>
    </Box>
  );
} // prettier-ignore

/** What else there is to say. */
export function NoteField({ record, onChange }: FormProps) {
  return (
    <TextField
      label="Note"
      value={record.note ?? ''}
      onChange={(event) => onChange({ note: event.target.value || undefined })}
      multiline
      minRows={1}
      fullWidth
    />
  );
}
