import { convert } from '@glenfold/agronomy';
import { MachineInput, type MachineAnswer, machineInput, machineKinds, withReadableDays } from '@glenfold/contract';
import { Box, Button, Checkbox, FormControlLabel, MenuItem, TextField, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';

import { queries } from '../../api/queries.ts';
import { Fields, FormDialog } from '../../ui/FormDialog.tsx';
import { MoneyField, NumberField } from '../../ui/NumberField.tsx';
import { QuantityField } from '../../ui/QuantityField.tsx';
import { Empty } from '../../ui/bits.tsx';
import { useMay } from '../../ui/session.tsx';
import { colours } from '../../ui/theme.ts';
import { useUndo } from '../../ui/undo.tsx';
import { useUnits } from '../../ui/units.tsx';
import { useTyped } from '../../ui/useTyped.ts';
import { capital } from './kinds.ts';
import { machinesQuery, useSaveMachine } from '../../api/machines.ts';
import { Calibration, isSprayer, isSpreader } from '../../ui/calibration/Calibration.tsx';

const sprays = (kind: string): boolean => kind.endsWith('sprayer');
const fresh: MachineInput = { name: '', kind: 'drop spreader', hired: false, settings: [] };

function MachineForm({
  machine: opened,
  onClose,
}: {
  readonly machine: MachineAnswer | undefined;
  readonly onClose: () => void;
}) {
  const [machine] = useState(opened);
  const { data: products = [] } = useQuery(queries.products());
  const saving = useSaveMachine();
  const { typed, set, problem, check } = useTyped(MachineInput, machine ? machineInput(machine) : fresh, saving.error);
  const send = (input: MachineInput): void =>
    saving.mutate(
      {
        seen: machine,
        input,
        opened: machine && machineInput(machine),
        named: new Map(products.map(({ id, name }) => [id, name])),
        onTheirs: onClose,
      },
      { onSuccess: onClose },
    );
  const settings = typed.settings;
  const setSetting = (at: number, change: object): void =>
    set({ settings: settings.map((one, index) => (index === at ? { ...one, ...change } : one)) });
  return (
    <>
      <FormDialog
        title={machine ? `Change ${machine.name}` : 'Add a machine'}
        action={machine ? 'Save' : 'Add the machine'}
        onClose={onClose}
        onSave={() => check(send)}
        saving={saving}
        wide
      >
        <Fields>
          <TextField
            label="Name"
            autoFocus
            value={typed.name}
            onChange={(event) => set({ name: event.target.value })}
            error={!!problem('name')}
            helperText={problem('name') ?? 'As you call it'}
          />
          <TextField
            select
            label="Kind"
            value={typed.kind}
            onChange={(event) => set({ kind: event.target.value as MachineInput['kind'] })}
          >
            {machineKinds.map((kind) => (
              <MenuItem key={kind} value={kind}>
                {capital(kind)}
              </MenuItem>
            ))}
          </TextField>
        </Fields>
        <Fields columns={3}>
          <QuantityField
            label="Covers in one pass"
            sense="length"
            value={typed.width}
            onChange={(width) => set({ width: width })}
            problem={problem('width')}
          />
          <NumberField
            label={sprays(typed.kind) ? 'Tank' : 'Hopper'}
            unit={sprays(typed.kind) ? 'L' : 'kg'}
            value={typed.holds}
            onChange={(holds) => set({ holds: holds })}
            problem={problem('holds')}
          />
          <QuantityField
            label="Weight, loaded"
            sense="mass"
            value={typed.weight}
            onChange={(weight) => set({ weight: weight })}
            problem={problem('weight')}
            helperText="What drives on the lawn"
          />
        </Fields>
        <FormControlLabel
          control={
            <Checkbox
              checked={typed.hired}
              onChange={(event) =>
                set({ hired: event.target.checked, ...(event.target.checked ? {} : { hireDay: null }) })
              }
            />
          }
          label="Hired by the day"
        />
        {typed.hired && (
          <Fields>
            <MoneyField
              label="Hire of a day"
              value={typed.hireDay}
              onChange={(hireDay) => set({ hireDay: hireDay })}
              problem={problem('hireDay')}
            />
            <TextField
              label="Hired from"
              value={typed.hiredFrom ?? ''}
              onChange={(event) => set({ hiredFrom: event.target.value })}
              helperText={problem('hiredFrom')}
            />
          </Fields>
        )}
        <Typography variant="h3">Settings by product</Typography>
        {settings.map((one, at) => (
          <Box
            key={at}
            sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', sm: '2fr 1fr 1.3fr 1.2fr auto' }, gap: 1.5 }}
          >
            <TextField
              select
              label="Product"
              value={products.some(({ id }) => id === one.productId) ? one.productId : ''}
              onChange={(event) => setSetting(at, { productId: event.target.value })}
              error={!!problem(`settings.${at}.productId`)}
              helperText={problem(`settings.${at}.productId`)}
            >
              {products.map(({ id, name }) => (
                <MenuItem key={id} value={id}>
                  {name}
                </MenuItem>
              ))}
            </TextField>
            <TextField
              label="Setting"
              value={one.setting}
              onChange={(event) => setSetting(at, { setting: event.target.value })}
              error={!!problem(`settings.${at}.setting`)}
              helperText={problem(`settings.${at}.setting`)}
            />
            {sprays(typed.kind) ? (
              <NumberField
                label="Lets out"
                unit="mL/m²"
                value={one.rate}
                onChange={(rate) => setSetting(at, { rate })}
                problem={problem(`settings.${at}.rate`)}
              />
            ) : (
              <QuantityField
                label="Lets through"
                sense="productRate"
                value={one.rate}
                onChange={(rate) => setSetting(at, { rate })}
                problem={problem(`settings.${at}.rate`)}
              />
            )}
            <TextField
              label="Tried on"
              type="date"
              value={one.checkedOn ?? ''}
              onChange={(event) => setSetting(at, { checkedOn: event.target.value || null })}
              error={!!problem(`settings.${at}.checkedOn`)}
              helperText={problem(`settings.${at}.checkedOn`)}
              slotProps={{ inputLabel: { shrink: true } }}
            />
            <Button
              onClick={() => set({ settings: settings.filter((_, index) => index !== at) })}
              aria-label={`Leave out setting ${at + 1}`}
            >
              Leave out
            </Button>
          </Box>
        ))}
        <Box>
          <Button
            variant="outlined"
            size="small"
            onClick={() => set({ settings: [...settings, { productId: '', setting: '', rate: '', checkedOn: null }] })}
          >
            Another setting
          </Button>
        </Box>
        <TextField
          label="Note"
          value={typed.note ?? ''}
          onChange={(event) => set({ note: event.target.value })}
          helperText={problem('note')}
          multiline
          maxRows={3}
        />
      </FormDialog>
    </>
  );
}

/** Spreaders, sprayers and what else is used, the practice's own and hired, with what they let through of each product. */
export function Machines() {
  const { data: machines } = useQuery(machinesQuery());
  const may = useMay();
  const { data: products = [] } = useQuery({ ...queries.products(), enabled: may('prices.read') });
  const { say, system } = useUnits();
  const { remove } = useUndo();
  const [open, setOpen] = useState<MachineAnswer | 'new' | null>(null);
  const [trying, setTrying] = useState<MachineAnswer | null>(null);
  const named = new Map(products.map(({ id, name }) => [id, name]));
  const rate = ({ kind }: MachineAnswer, value: number): string =>
    sprays(kind) ? `${value} mL/m²` : say('productRate', value);
  return (
    <>
      <Typography sx={{ mb: 1.5, maxWidth: 680 }}>
        What a machine lets through is found on a strip of known area: weigh before and after. A setting of another
        machine, or of another product, is none.
      </Typography>
      {may('work.write') && (
        <Button variant="contained" size="small" onClick={() => setOpen('new')} sx={{ mb: 1 }}>
          Add a machine
        </Button>
      )}
      {machines?.length === 0 && (
        <Empty title="No machines yet">
          Add the spreaders and sprayers you use, and what you hire: work cards then say how they are set.
        </Empty>
      )}
      <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {machines?.map((machine) => {
          const { id, name, kind, width, holds, weight, hired, hireDay, hiredFrom, settings, note } = machine;
          const told = [
            width != null && `${say('length', width)} wide`,
            holds != null &&
              (sprays(kind)
                ? `tank ${system === 'us' ? `${Math.round(convert(holds, 'L', 'gal') * 10) / 10} gal` : `${holds} L`}`
                : `hopper ${say('mass', holds)}`),
            weight != null && `${say('mass', weight)} loaded`,
          ].filter(Boolean);
          return (
            <Box
              component="li"
              key={id}
              aria-label={name}
              sx={{
                borderTop: `1px solid ${colours.line}`,
                py: 1.25,
                display: 'grid',
                gridTemplateColumns: { xs: '1fr', md: 'minmax(0, 260px) minmax(0, 1fr) auto' },
                columnGap: 3,
              }}
            >
              <Box>
                <strong>{name}</strong>
                <Box sx={{ color: colours.faded }}>
                  {kind}
                  {told.length > 0 && `, ${told.join(', ')}`}
                </Box>
                {hired && (
                  <Box>
                    hired{hireDay != null && ` at ${say('money', hireDay)} a day`}
                    {hiredFrom && ` from ${hiredFrom}`}
                  </Box>
                )}
              </Box>
              <Box>
                {settings.length === 0 && <Box sx={{ color: colours.faded }}>No settings tried yet.</Box>}
                {settings.map(({ productId, setting, rate: lets, checkedOn }) => (
                  <Box key={productId}>
                    <strong>{setting}</strong> for {named.get(productId) ?? 'a product'}: {rate(machine, lets)} in one
                    pass
                    {checkedOn && (
                      <span style={{ color: colours.faded }}>, tried on {withReadableDays(checkedOn)}</span>
                    )}
                  </Box>
                ))}
                {note && <Box sx={{ color: colours.faded }}>{note}</Box>}
              </Box>
              <Box sx={{ whiteSpace: 'nowrap' }}>
                {may('work.write') && (isSpreader(machine) || isSprayer(machine)) && (
                  <Button size="small" onClick={() => setTrying(machine)} aria-label={`Try ${name}`}>
                    Try it
                  </Button>
                )}
                {may('work.write') && (
                  <Button size="small" onClick={() => setOpen(machine)} aria-label={`Change ${name}`}>
                    Change
                  </Button>
                )}
                {may('work.delete') && (
                  <Button size="small" onClick={() => remove(`/machines/${id}`, name)} aria-label={`Delete ${name}`}>
                    Delete
                  </Button>
                )}
              </Box>
            </Box>
          );
        })}
      </Box>
      {trying && (
        <Calibration
          machines={[trying]}
          machineId={trying.id}
          goals={products
            .filter(({ packUnit }) => packUnit === (isSprayer(trying) ? 'L' : 'kg'))
            .map((product) => ({
              productId: product.id,
              product: product.name,
              rate: null,
              sprayed: isSprayer(trying),
            }))}
          onClose={() => setTrying(null)}
        />
      )}
      {open && <MachineForm machine={open === 'new' ? undefined : open} onClose={() => setOpen(null)} />}
    </>
  );
}
