import {
  type Analyte,
  analyteKindNames,
  analytes,
  isNutrient,
  reportedAs,
  unitWord,
  unitsFor,
} from '@glenfold/agronomy';
import { ListSubheader, MenuItem, TextField } from '@mui/material';
import { fieldName } from '../fieldNames.ts';
import { OwnMethodField, ReportedAsField } from '../MethodFields.tsx';
import { type SheetHead, type SheetRow, columnOf, moreAnalytes } from './sheet.ts';

/** What stands over a column: its name with the unit, to be chosen where reports differ. */
export function ColumnHead({
  analyte,
  head,
  onChange,
}: {
  readonly analyte: Analyte;
  readonly head: SheetHead;
  readonly onChange: (head: SheetHead) => void;
}) {
  const column = columnOf(head, analyte);
  const name = fieldName(analyte);
  const set = (change: Partial<typeof column>): void =>
    onChange({ ...head, columns: { ...head.columns, [analyte]: { ...column, ...change } } });
  const unit = unitWord(unitsFor(analyte)[0]!);
  if (reportedAs(analyte).length === 1) return unit === '' ? name : `${name}, ${unit}`;
  return (
    <>
      {!isNutrient(analyte) && !analytes[analyte].oxide && <div>{name}</div>}
      <ReportedAsField analyte={analyte} label={`Unit of ${name}`} value={column} onChange={set} />
      {head.more?.includes(analyte) && isNutrient(analyte) && (
        <OwnMethodField label={`${name}, extracted by`} value={column.method} onChange={(method) => set({ method })} />
      )}
    </>
  );
}

/** A long list opens under its field and scrolls, so that the sheet stays in sight. */
const BELOW = {
  slotProps: { paper: { sx: { maxHeight: 340 } } },
  anchorOrigin: { vertical: 'bottom', horizontal: 'left' },
  transformOrigin: { vertical: 'top', horizontal: 'left' },
} as const;

/** Columns for what a report holds beside the routine: added when wanted, kept while they hold something. */
export function MoreColumns({
  head,
  rows,
  onChange,
}: {
  readonly head: SheetHead;
  readonly rows: Readonly<Record<string, SheetRow>>;
  readonly onChange: (head: SheetHead) => void;
}) {
  const more = head.more ?? [];
  const isFilled = (analyte: Analyte): boolean => Object.values(rows).some((row) => (row[analyte] ?? '').trim() !== '');
  return (
    <TextField
      select
      variant="standard"
      value={[...more]}
      onChange={(event) => {
        const chosen = event.target.value as unknown as readonly Analyte[];
        onChange({
          ...head,
          more: moreAnalytes.filter((one) => chosen.includes(one) || (more.includes(one) && isFilled(one))),
        });
      }}
      slotProps={{
        select: {
          multiple: true,
          displayEmpty: true,
          MenuProps: BELOW,
          renderValue: () =>
            more.length === 0 ? 'Add columns: sulfur, iron, salts, CEC …' : `${more.length} more columns`,
        },
        htmlInput: { 'aria-label': 'More columns' },
      }}
      sx={{ mb: 1, width: { xs: '100%', sm: 'auto' }, minWidth: { sm: 300 } }}
    >
      {moreAnalytes.flatMap((analyte, index) => {
        const { kind, name } = analytes[analyte];
        const opens = index === 0 || analytes[moreAnalytes[index - 1]!].kind !== kind;
        return [
          ...(opens ? [<ListSubheader key={kind}>{analyteKindNames[kind]}</ListSubheader>] : []),
          <MenuItem key={analyte} value={analyte} dense>
            {more.includes(analyte) ? '✓ ' : ''}
            {name}
          </MenuItem>,
        ];
      })}
    </TextField>
  );
}
