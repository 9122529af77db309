import {
  type AdvisedKind,
  type Analyte,
  type ColumnMatch,
  type LabField,
  type LabUnit,
  advisedKinds,
  advisedUnitWords,
  advisedUnits,
  analyteKindNames,
  analytes,
  isAnalyte,
  isNutrient,
  labFields,
  reportedAs,
  routineAnalytes,
} from '@glenfold/agronomy';
import type { LabReportAnswer } from '@glenfold/contract';
import { Box, ListSubheader, MenuItem, TextField, Typography } from '@mui/material';
import { useState } from 'react';
import { colours } from '../../../ui/theme.ts';
import { fieldName } from '../fieldNames.ts';
import { OwnMethodField, ReportedAsField } from '../MethodFields.tsx';
import type { Choices } from './useChoices.ts';

/** Columns of a file may hold a unit that is to be chosen. */
const isChosen = (field: LabField | null): field is Analyte =>
  field !== null && isAnalyte(field) && reportedAs(field).length > 1;

/** Trace elements and the like often have an extract of their own. */
const asksMethod = ({ field, method }: ColumnMatch): boolean =>
  field !== null && isNutrient(field) && (method != null || !routineAnalytes.some((one) => one === field));

const ADVICE = 'advice ';
const small = { '& .MuiInput-root': { fontSize: '0.92rem' }, width: '100%' };
const kindOf = (one: LabField | undefined) => (one && isAnalyte(one) ? analytes[one].kind : undefined);

/** The least that a laboratory finds: asked where a cell says that nothing was found. */
function LimitField({ column, onChange }: ColumnProps) {
  const [typed, setTyped] = useState(column.limit == null ? '' : String(column.limit));
  const set = (): void => {
    const limit = typed.trim() === '' ? null : Number(typed);
    if (limit === null || (Number.isFinite(limit) && limit >= 0)) onChange({ ...column, limit });
  };
  return (
    <TextField
      variant="standard"
      placeholder="detection limit"
      value={typed}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={set}
      error={typed !== '' && !(Number(typed) >= 0)}
      slotProps={{ htmlInput: { 'aria-label': `Detection limit of ${column.header}`, inputMode: 'decimal' } }}
      sx={small}
    />
  );
}

interface ColumnProps {
  readonly column: ColumnMatch;
  readonly onChange: (column: ColumnMatch) => void;
}

/** What one column holds. @param isFresh the laboratory’s known way did not know it */
export function ColumnCard({
  column,
  onChange,
  isFresh,
  asksLimit,
}: ColumnProps & { readonly isFresh: boolean; readonly asksLimit: boolean }) {
  const { header, field, unit, basis, advised } = column;
  const set = (text: string): void =>
    text.startsWith(ADVICE)
      ? onChange({
          ...column,
          field: null,
          advised: { what: text.slice(ADVICE.length) as AdvisedKind, unit: advised?.unit ?? null },
        })
      : onChange({ ...column, advised: null, field: text === '' ? null : (text as LabField) });
  return (
    <Box
      sx={{
        border: `1px solid ${isFresh ? colours.ochre : field === null && !advised ? colours.line : colours.faded}`,
        background: field === null && !advised ? 'none' : colours.sheet,
        px: 1,
        py: 0.5,
        minWidth: 0,
      }}
    >
      <Typography sx={{ fontSize: '0.85rem', color: colours.faded, overflowWrap: 'anywhere', lineHeight: 1.25 }}>
        “{header}”{isFresh && <strong style={{ color: colours.ochre }}> new</strong>}
      </Typography>
      <TextField
        select
        variant="standard"
        value={advised ? `${ADVICE}${advised.what}` : (field ?? '')}
        onChange={(event) => set(event.target.value)}
        slotProps={{ select: { displayEmpty: true }, htmlInput: { 'aria-label': `Column ${header}` } }}
        sx={small}
      >
        <MenuItem value="">
          <em>not read</em>
        </MenuItem>
        {labFields.flatMap((name, index) => {
          const kind = kindOf(name);
          return [
            ...(kind && kind !== kindOf(labFields[index - 1])
              ? [<ListSubheader key={kind}>{analyteKindNames[kind]}</ListSubheader>]
              : []),
            <MenuItem key={name} value={name}>
              {fieldName(name)}
            </MenuItem>,
          ];
        })}
        <ListSubheader>Its own advice</ListSubheader>
        {advisedKinds.map((kind) => (
          <MenuItem key={kind} value={`${ADVICE}${kind}`}>
            its advice: {kind}
          </MenuItem>
        ))}
      </TextField>
      {advised && (
        <TextField
          select
          variant="standard"
          value={advised.unit ?? ''}
          onChange={(event) =>
            onChange({ ...column, advised: { ...advised, unit: (event.target.value || null) as typeof advised.unit } })
          }
          slotProps={{ select: { displayEmpty: true }, htmlInput: { 'aria-label': `Unit of ${header}` } }}
          sx={small}
        >
          <MenuItem value="">
            <em>in its words</em>
          </MenuItem>
          {advisedUnits.map((one) => (
            <MenuItem key={one} value={one}>
              {advisedUnitWords[one]}
            </MenuItem>
          ))}
        </TextField>
      )}
      {isChosen(field) && (
        <ReportedAsField
          analyte={field}
          label={`Unit of ${header}`}
          value={unit === null ? null : { unit: unit as LabUnit, basis }}
          onChange={(chosen) => onChange({ ...column, ...chosen })}
        />
      )}
      {asksMethod(column) && (
        <OwnMethodField
          label={`${header}, extracted by`}
          value={column.method ?? undefined}
          onChange={(method) => onChange({ ...column, method: method ?? null })}
        />
      )}
      {asksLimit && <LimitField column={column} onChange={onChange} />}
    </Box>
  );
}

const NOT_FOUND = /^(n\.?d\.?|not detected|bdl)$/i;

/** What each column of a file holds: recognised, known of its laboratory, or new. */
export function ReviewColumns({ file, choices }: { readonly file: LabReportAnswer; readonly choices: Choices }) {
  const { profile, columns, rows } = file;
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fill, minmax(136px, 1fr))', gap: 1, mb: 2 }}>
      {columns.map((column, index) => (
        <ColumnCard
          key={`${index} ${column.header}`}
          column={column}
          isFresh={profile?.fresh.includes(column.header) ?? false}
          asksLimit={
            column.field !== null &&
            isAnalyte(column.field) &&
            (column.limit != null || rows.some(({ cells }) => NOT_FOUND.test((cells[index] ?? '').trim())))
          }
          onChange={(changed) => choices.column(index, changed)}
        />
      ))}
    </Box>
  );
}
