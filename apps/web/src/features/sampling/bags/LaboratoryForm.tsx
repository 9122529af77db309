import { bufferMethods, bufferNames, extractantNames, extractants, panelNames } from '@glenfold/agronomy';
import { type LaboratoryAnswer, LaboratoryInput, laboratoryInput, problemFields } from '@glenfold/contract';
import { Box, Button, MenuItem, TextField, Typography } from '@mui/material';
import { plainToInstance } from 'class-transformer';
import { validateSync } from 'class-validator';
import { useState } from 'react';

import { FormDialog } from '../../../ui/FormDialog.tsx';
import { QuantityField } from '../../../ui/QuantityField.tsx';
import { useSaveLaboratory } from '../api.ts';

/** What is typed: numbers may still be texts, which the contract refuses with words. */
type Typed = Omit<LaboratoryInput, 'depths' | 'fees' | 'volume' | 'daysLeast' | 'daysMost'> & {
  readonly depths: ReadonlyArray<{ readonly for: string; readonly from: unknown; readonly to: unknown }>;
  readonly fees: Readonly<Record<string, string>>;
  readonly volume: string;
  readonly daysLeast: string;
  readonly daysMost: string;
};

const fresh: Typed = {
  ...{ name: '', address: '', scientist: '', phone: '', extractant: 'mehlich-3', bufferMethod: null },
  depths: [{ for: 'established turf', from: 10.16, to: 10.16 }],
  fees: {},
  ...{ volume: '500', daysLeast: '7', daysMost: '14' },
};

function typedOf(laboratory: LaboratoryAnswer): Typed {
  const { fees, volume, daysLeast, daysMost, ...rest } = laboratoryInput(laboratory);
  return {
    ...rest,
    fees: Object.fromEntries(fees.map(({ panel, fee }) => [panel, String(fee)])),
    ...{ volume: String(volume), daysLeast: String(daysLeast), daysMost: String(daysMost) },
  };
}

/** A text as a number where it is one. */
const number = (text: string): number | string => {
  const value = Number(text.replace(/^\$/, '').replace(',', '.'));
  return text.trim() === '' || Number.isNaN(value) ? text : value;
};

function inputOf({ fees, volume, daysLeast, daysMost, depths, ...rest }: Typed): LaboratoryInput {
  return plainToInstance(LaboratoryInput, {
    ...rest,
    depths: depths.filter(({ for: ground, from, to }) => ground.trim() !== '' || from !== null || to !== null),
    fees: panelNames.flatMap((panel) =>
      (fees[panel] ?? '').trim() === '' ? [] : [{ panel, fee: number(fees[panel] ?? '') }],
    ),
    ...{ volume: number(volume), daysLeast: number(daysLeast), daysMost: number(daysMost) },
  });
}

/** A laboratory of the practice's own. */
export function LaboratoryForm({
  laboratory: opened,
  onClose,
}: {
  readonly laboratory: LaboratoryAnswer | undefined;
  readonly onClose: () => void;
}) {
  const [laboratory] = useState(opened);
  const [typed, setTyped] = useState<Typed>(laboratory ? typedOf(laboratory) : fresh);
  const [tried, setTried] = useState(false);
  const saving = useSaveLaboratory();
  const { mutate, error } = saving;
  const input = inputOf(typed);
  const refused = tried ? problemFields(validateSync(input)) : [];
  const problem = (field: string): string | undefined =>
    [...refused, ...(error?.fields ?? [])].find((one) => one.field === field)?.message;
  const set = (change: Partial<Typed>): void => setTyped((last) => ({ ...last, ...change }));
  const send = (sent: LaboratoryInput): void => {
    const seen = laboratory?.id ? { id: laboratory.id, version: laboratory.version } : undefined;
    const opened = laboratory && laboratoryInput(laboratory);
    mutate({ seen, input: sent, opened, onTheirs: onClose }, { onSuccess: onClose });
  };
  const save = (): void => {
    setTried(true);
    if (problemFields(validateSync(input)).length === 0) send(input);
  };
  const plain = (
    name: 'name' | 'address' | 'scientist' | 'phone' | 'volume' | 'daysLeast' | 'daysMost',
    label: string,
    more = {},
  ) => (
    <TextField
      label={label}
      value={typed[name] ?? ''}
      onChange={(event) => set({ [name]: event.target.value })}
      error={!!problem(name)}
      helperText={problem(name)}
      {...more}
    />
  );
  const setDepth = (at: number, change: object): void =>
    set({ depths: typed.depths.map((depth, index) => (index === at ? { ...depth, ...change } : depth)) });
  return (
    <FormDialog
      wide
      title={laboratory ? `Change ${laboratory.name}` : 'Add a laboratory'}
      action={laboratory ? 'Save' : 'Add the laboratory'}
      onClose={onClose}
      onSave={save}
      saving={saving}
    >
      <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', sm: '1fr 1fr' }, gap: 2, mt: 1 }}>
        {plain('name', 'Name', { autoFocus: true })}
        {plain('address', 'Address', { multiline: true, maxRows: 4 })}
        {plain('scientist', 'Its soil scientist')}
        {plain('phone', 'Phone', { type: 'tel' })}
        <TextField
          select
          label="Extractant"
          value={typed.extractant}
          onChange={(event) => set({ extractant: event.target.value as Typed['extractant'] })}
          helperText="Of its usual panel; a report may say another"
        >
          {extractants.map((name) => (
            <MenuItem key={name} value={name}>
              {extractantNames[name]}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          select
          label="Buffer method"
          value={typed.bufferMethod ?? ''}
          onChange={(event) => set({ bufferMethod: (event.target.value || null) as Typed['bufferMethod'] })}
          slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
        >
          <MenuItem value="">measures none, or not known</MenuItem>
          {bufferMethods.map((name) => (
            <MenuItem key={name} value={name}>
              {bufferNames[name]}
            </MenuItem>
          ))}
        </TextField>
      </Box>
      <Typography variant="h3">Depths that its ratings are for</Typography>
      {typed.depths.map((depth, at) => (
        <Box key={at} sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', sm: '2fr 1fr 1fr auto' }, gap: 1.5 }}>
          <TextField
            label="Ground"
            value={depth.for}
            onChange={(event) => setDepth(at, { for: event.target.value })}
            error={!!problem(`depths.${at}.for`)}
            helperText={problem(`depths.${at}.for`)}
          />
          <QuantityField
            label="From"
            sense="depth"
            value={depth.from as number | string | null}
            onChange={(from) => setDepth(at, { from })}
            problem={problem(`depths.${at}.from`)}
          />
          <QuantityField
            label="To"
            sense="depth"
            value={depth.to as number | string | null}
            onChange={(to) => setDepth(at, { to })}
            problem={problem(`depths.${at}.to`)}
          />
          <Button
            onClick={() => set({ depths: typed.depths.filter((_, index) => index !== at) })}
            aria-label={`Leave out the depth for ${depth.for || 'this ground'}`}
          >
            Leave out
          </Button>
        </Box>
      ))}
      <Box>
        <Button
          variant="outlined"
          size="small"
          onClick={() => set({ depths: [...typed.depths, { for: '', from: null, to: null }] })}
        >
          Another depth
        </Button>
      </Box>
      <Typography variant="h3">Bag, days and fees</Typography>
      <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', sm: 'repeat(3, 1fr)' }, gap: 2 }}>
        {plain('volume', 'Fills its bag, mL', { slotProps: { htmlInput: { inputMode: 'decimal' } } })}
        {plain('daysLeast', 'Days to the report, at least', { slotProps: { htmlInput: { inputMode: 'numeric' } } })}
        {plain('daysMost', 'Days to the report, at most', { slotProps: { htmlInput: { inputMode: 'numeric' } } })}
        {panelNames.map((panel) => (
          <TextField
            key={panel}
            label={`Fee, ${panel}`}
            value={typed.fees[panel] ?? ''}
            onChange={(event) => set({ fees: { ...typed.fees, [panel]: event.target.value } })}
            error={!!feeProblem(panel, input, problem)}
            helperText={feeProblem(panel, input, problem) ?? 'Empty where it has none'}
            slotProps={{
              input: { startAdornment: <span style={{ marginRight: 4 }}>$</span> },
              htmlInput: { inputMode: 'decimal' },
            }}
          />
        ))}
      </Box>
    </FormDialog>
  );
}

/** Fees go as a list of those that were given: the place in it tells the panel. */
function feeProblem(
  panel: string,
  { fees }: LaboratoryInput,
  problem: (field: string) => string | undefined,
): string | undefined {
  const at = fees.findIndex((fee) => fee.panel === panel);
  return at < 0 ? undefined : problem(`fees.${at}.fee`);
}
