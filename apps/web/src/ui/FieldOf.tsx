import { type Field, type Typed, plainLabel, printedUnit, readIn } from '@glenfold/agronomy';
import { Box, Button, MenuItem, TextField, Typography } from '@mui/material';
import { colours } from './theme.ts';
import { useUnits } from './units.tsx';

interface FieldOfProps {
  readonly name: string;
  /** Where it stands in the input, as a refusal names it. */
  readonly path: string;
  readonly field: Field<unknown>;
  readonly value: Typed | undefined;
  readonly onChange: (value: Typed) => void;
  /** What is wrong, and where. */
  readonly problem: { readonly path: string; readonly words: string } | undefined;
  /** Everything may be left out, and nothing says so by itself. */
  readonly bare?: boolean;
}

const isGroup = (value: Typed | undefined): value is Readonly<Record<string, Typed>> =>
  typeof value === 'object' && !Array.isArray(value);

/** Whatever an input is, asked for by what it says of itself. */
export function FieldOf(props: FieldOfProps) {
  const { name, path, field, value, onChange, problem, bare = false } = props;
  const { system } = useUnits();
  const { shape } = field;
  const label = plainLabel(name);
  const here = problem?.path === path ? problem.words : undefined;
  if (shape.kind === 'list') {
    const items: readonly Typed[] = Array.isArray(value) ? value : [];
    const single = shape.item.shape.kind !== 'group';
    return (
      <Box role="group" aria-label={label} sx={{ borderLeft: `3px solid ${colours.line}`, pl: 1.5 }}>
        <Typography sx={{ fontWeight: 700, mb: 0.5 }}>{label}</Typography>
        {items.map((item, index) => (
          <Box key={index} sx={{ display: 'flex', gap: 1, alignItems: 'start', mb: 1.25 }}>
            <Box sx={{ flex: 1, minWidth: 0 }}>
              <FieldOf
                name={single ? `${name} ${index + 1}` : String(index + 1)}
                path={`${path}.${index}`}
                field={shape.item}
                value={item}
                onChange={(next) => onChange(items.map((one, at) => (at === index ? next : one)))}
                problem={problem}
              />
            </Box>
            <Button
              size="small"
              aria-label={`Leave out ${label.toLowerCase()} ${index + 1}`}
              onClick={() => onChange(items.filter((_one, at) => at !== index))}
            >
              Leave out
            </Button>
          </Box>
        ))}
        {here && <Typography sx={{ color: colours.ochre, fontWeight: 700 }}>{here}</Typography>}
        {items.length < shape.max && (
          <Button size="small" variant="outlined" onClick={() => onChange([...items, single ? '' : {}])}>
            {items.length === 0 ? 'Add one' : 'Add another'}
          </Button>
        )}
      </Box>
    );
  }
  if (shape.kind === 'group') {
    const given = isGroup(value) ? value : {};
    // What only a program would hand over is not asked for.
    const fields = Object.entries(shape.fields).filter(([, inner]) => inner.shape.kind !== 'json');
    return (
      <Box
        role="group"
        aria-label={label}
        sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fill, minmax(150px, 1fr))', gap: 1.25, mt: 0.5 }}
      >
        {!/^\d+$/.test(name) && <Typography sx={{ gridColumn: '1 / -1', fontWeight: 700 }}>{label}</Typography>}
        {fields.map(([inner, innerField]) => (
          <FieldOf
            key={inner}
            name={inner}
            path={`${path}.${inner}`}
            field={innerField}
            value={given[inner]}
            onChange={(next) => onChange({ ...given, [inner]: next })}
            problem={problem}
          />
        ))}
      </Box>
    );
  }
  const text = typeof value === 'string' ? value : '';
  const usual =
    field.whenLeftOut === undefined
      ? undefined
      : bare
        ? String(field.whenLeftOut)
        : `${String(field.whenLeftOut)} when left out`;
  const common = {
    label: field.optional && !bare ? `${label} (optional)` : label,
    value: text,
    onChange: (event: { readonly target: { readonly value: string } }) => onChange(event.target.value),
    error: here !== undefined,
    helperText: here ?? usual,
    fullWidth: true,
  };
  if (shape.kind === 'choice' || shape.kind === 'flag') {
    const names = shape.kind === 'flag' ? ['true', 'false'] : shape.names;
    const words = shape.kind === 'flag' ? { true: 'yes', false: 'no' } : {};
    return (
      <TextField {...common} select slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}>
        <MenuItem value="">{field.optional ? 'not said' : 'choose'}</MenuItem>
        {names.map((one) => (
          <MenuItem key={one} value={one}>
            {(words as Readonly<Record<string, string>>)[one] ?? (one === '' ? 'a plain number' : one)}
          </MenuItem>
        ))}
      </TextField>
    );
  }
  const unit = shape.kind === 'quantity' ? printedUnit(readIn(shape.unit, system)) : '';
  return (
    <TextField
      {...common}
      multiline={shape.kind === 'json'}
      minRows={shape.kind === 'json' ? 3 : undefined}
      slotProps={{
        inputLabel: { shrink: true },
        htmlInput: { autoComplete: 'off', spellCheck: false },
        // An amount that was typed with a unit of its own has it before it already.
        ...(unit === '' || unit === 'pH' || /[A-Za-z%]/.test(text)
          ? {}
          : { input: { endAdornment: <span style={{ whiteSpace: 'nowrap', marginLeft: 6 }}>{unit}</span> } }),
      }}
    />
  );
}
