import {
  type Analyte,
  type BufferMethod,
  type Extractant,
  type ReportedAs,
  analytes,
  basisName,
  bufferMethods,
  bufferNames,
  extractantNames,
  extractants,
  isNutrient,
  reportedAs,
  unitWord,
} from '@glenfold/agronomy';
import { MenuItem, TextField } from '@mui/material';
import { Words } from '../../ui/Words.tsx';

const MISSING = 'The file does not say: choose';

interface PickProps<T> {
  /** Nothing when the file does not say. */
  readonly value: T | null;
  readonly onChange: (value: T) => void;
}

interface PickFieldProps<T extends string> extends PickProps<T> {
  readonly label: string;
  readonly options: readonly T[];
  readonly names: Readonly<Record<T, string>>;
}

function PickField<T extends string>({ label, options, names, value, onChange }: PickFieldProps<T>) {
  return (
    <TextField
      select
      label={label}
      value={value ?? ''}
      onChange={(event) => onChange(event.target.value as T)}
      error={value === null}
      helperText={value === null ? MISSING : undefined}
    >
      {options.map((option) => (
        <MenuItem key={option} value={option}>
          {names[option]}
        </MenuItem>
      ))}
    </TextField>
  );
}

/** Hot water is for boron alone, which no routine panel carries. */
const routine = extractants.filter((name) => name !== 'hot water');

export function ExtractantField(props: PickProps<Extractant>) {
  return <PickField label="Extractant" options={routine} names={extractantNames} {...props} />;
}

export function BufferMethodField(props: PickProps<BufferMethod>) {
  return <PickField label="Buffer method" options={bufferMethods} names={bufferNames} {...props} />;
}

/** Asked with an Adams–Evans report: some laboratories give its lime as pure carbonate, others times 1.5. */
export function LimeFactorField({ value, onChange }: PickProps<number>) {
  return (
    <TextField
      select
      label="Its lime is given as"
      value={value ?? ''}
      onChange={(event) => onChange(Number(event.target.value))}
      helperText={value === null ? 'Not known: asked of the laboratory' : 'Not counted twice as strength'}
    >
      <MenuItem value={1}>pure carbonate</MenuItem>
      <MenuItem value={1.5}>field lime, times 1.5</MenuItem>
    </TextField>
  );
}

/** Asked of a nutrient that is often measured by another extract than the rest: zinc by DTPA, boron by hot water. */
export function OwnMethodField({
  label,
  value,
  onChange,
}: {
  readonly label: string;
  readonly value: string | undefined;
  readonly onChange: (method: Extractant | undefined) => void;
}) {
  return (
    <TextField
      select
      variant="standard"
      value={value ?? ''}
      onChange={(event) => onChange((event.target.value || undefined) as Extractant | undefined)}
      slotProps={{ select: { displayEmpty: true }, htmlInput: { 'aria-label': label } }}
      sx={{ '& .MuiInput-root': { fontSize: '0.82rem' }, width: '100%' }}
    >
      <MenuItem value="">as report</MenuItem>
      {extractants.map((name) => (
        <MenuItem key={name} value={name}>
          by {extractantNames[name]}
        </MenuItem>
      ))}
    </TextField>
  );
}

interface ReportedAsProps {
  readonly analyte: Analyte;
  readonly label: string;
  /** Nothing when the header names no unit. */
  readonly value: ReportedAs | null;
  readonly onChange: (column: ReportedAs) => void;
}

/** Unit and basis of a column in one choice: P in ppm, P₂O₅ in lb/acre, and so on. */
export function ReportedAsField({ analyte, label, value, onChange }: ReportedAsProps) {
  const options = reportedAs(analyte);
  // Where the name stands above, the unit is enough.
  const told = ({ basis, unit }: ReportedAs): string =>
    isNutrient(analyte) || analytes[analyte].oxide ? `${basisName(analyte, basis)}, ${unitWord(unit)}` : unitWord(unit);
  return (
    <TextField
      select
      variant="standard"
      value={value ? options.findIndex(({ unit, basis }) => unit === value.unit && basis === value.basis) : ''}
      onChange={(event) => onChange(options[Number(event.target.value)]!)}
      slotProps={{ select: { displayEmpty: true }, htmlInput: { 'aria-label': label } }}
      sx={{ '& .MuiInput-root': { fontSize: '0.9rem' }, width: '100%' }}
    >
      <MenuItem value="" disabled>
        <em>choose its unit</em>
      </MenuItem>
      {options.map(({ unit, basis }, index) => (
        <MenuItem key={`${basis} ${unit}`} value={index}>
          <Words>{told({ basis, unit })}</Words>
        </MenuItem>
      ))}
    </TextField>
  );
}
