import { settingFor, type TriedSetting } from '@glenfold/agronomy';
import { type MachineAnswer, type MachineInput, machineInput, withReadableDays } from '@glenfold/contract';
import { Box, Checkbox, FormControlLabel, Link as MuiLink, MenuItem, TextField, Typography } from '@mui/material';
import { useState } from 'react';
import { Link } from 'react-router';
import { useSaveMachine } from '../../api/machines.ts';
import { Fields, FormDialog } from '../FormDialog.tsx';
import { QuantityField } from '../QuantityField.tsx';
import { Cautions } from '../bits.tsx';
import { useMay } from '../session.tsx';
import { colours } from '../theme.ts';
import { deviceToday } from '../today.ts';
import { useUnits } from '../units.tsx';
import { SprayerTrial, TankLoads } from './SprayerTrial.tsx';
import { SpreaderTrial } from './SpreaderTrial.tsx';
import type { Trial } from './TrialFields.tsx';

const SPREADS = ['drop spreader', 'rotary spreader', 'seeder', 'topdresser'];
export const isSprayer = ({ kind }: Pick<MachineAnswer, 'kind'>): boolean => kind.endsWith('sprayer');
export const isSpreader = ({ kind }: Pick<MachineAnswer, 'kind'>): boolean => SPREADS.includes(kind);

/** What a machine is to be set for. */
export interface Goal {
  readonly productId: string;
  readonly product: string;
  /** Of one going-over: g/m², or mL/m² of product for a sprayer; nothing while it is not known. */
  readonly rate: number | null;
  /** m² of the zone. */
  readonly area?: number;
  /** mL/m² of water that its label asks for. */
  readonly water?: number;
  readonly sprayed: boolean;
}

interface CalibrationProps {
  /** That may be set for it. */
  readonly machines: readonly MachineAnswer[];
  /** One of them, where the choice is made. */
  readonly machineId?: string;
  /** One, or several to choose from. */
  readonly goals: readonly Goal[];
  readonly onClose: () => void;
}

const tried = ({ settings }: MachineAnswer): readonly TriedSetting[] => settings;

/** How a machine stands from what was tried before, in a sentence. */
export function useSettingWords(): (machine: MachineAnswer, goal: Goal, each: number) => string | undefined {
  const { say } = useUnits();
  return (machine, { productId, sprayed }, each) => {
    const found = settingFor(tried(machine), productId, each, deviceToday());
    if (!found) return undefined;
    const rate = (value: number): string => say(sprayed ? 'liquidRate' : 'productRate', value);
    const { setting, by, from, old } = found;
    const when = from.checkedOn ? `tried on ${withReadableDays(from.checkedOn)}` : 'tried on no day that was noted';
    return [
      by === 'tried'
        ? `${setting} gives ${rate(from.rate)}, ${when}`
        : `about ${setting}, reckoned from ${from.setting} at ${rate(from.rate)}, ${when}: try it over a strip first`,
      old ? 'long ago, try it again' : '',
    ]
      .filter(Boolean)
      .join('; ');
  };
}

/** A machine with what a trial has found, in place of the same setting of before. */
function withTrial(
  machine: MachineAnswer,
  { productId, setting }: Pick<TriedSetting, 'productId' | 'setting'>,
  { rate, width }: Trial,
): MachineInput {
  const input = machineInput(machine);
  const others = input.settings.filter((one) => one.productId !== productId || one.setting !== setting);
  return {
    ...input,
    ...(width === undefined ? {} : { width: Number(width.toFixed(2)) }),
    settings: [...others, { productId, setting, rate: Number(rate.value.toPrecision(4)), checkedOn: deviceToday() }],
  };
}

/** Set a machine for a product: what was tried before, a trial now, and what is kept of it. */
export function Calibration({ machines, machineId, goals, onClose }: CalibrationProps) {
  const { say } = useUnits();
  const may = useMay();
  const saving = useSaveMachine();
  const words = useSettingWords();
  const [chosen, setChosen] = useState(machineId ?? machines[0]?.id ?? '');
  const [productId, setProductId] = useState(machineId === undefined ? (goals[0]?.productId ?? '') : '');
  const goal = goals.find((one) => one.productId === productId);
  const machine = machines.find(({ id }) => id === chosen);
  const [rate, setRate] = useState<number | string | null>(goal?.rate ?? null);
  const [halves, setHalves] = useState(true);
  const [setting, setSetting] = useState('');
  const [trial, setTrial] = useState<Trial | null>(null);
  const [missing, setMissing] = useState('');
  const sprays = machine ? isSprayer(machine) : (goal?.sprayed ?? false);
  const whole = typeof rate === 'number' && rate > 0 ? rate : null;
  const each = whole === null ? null : whole / (!sprays && halves ? 2 : 1);
  const known = machine?.settings.filter((one) => one.productId === productId).at(-1);
  const before =
    sprays && known
      ? `${known.setting} puts down ${say('liquidRate', known.rate)} of mix in one pass${known.checkedOn ? `, tried on ${withReadableDays(known.checkedOn)}` : ''}`
      : !sprays && machine && goal && each !== null
        ? words(machine, goal, each)
        : undefined;
  const output = trial?.rate.value ?? known?.rate ?? null;
  const keep = (): void => {
    const lacks = !goal
      ? 'Choose the product first.'
      : !machine
        ? 'Add the machine first.'
        : !trial
          ? 'Type the trial first.'
          : setting.trim() === ''
            ? 'Write the setting as it stood on the machine.'
            : '';
    setMissing(lacks);
    if (lacks || !machine || !goal || !trial) return;
    saving.mutate(
      {
        seen: machine,
        opened: machineInput(machine),
        input: withTrial(machine, { productId, setting: setting.trim() }, trial),
        named: new Map(goals.map((one) => [one.productId, one.product])),
      },
      { onSuccess: onClose },
    );
  };
  return (
    <FormDialog
      title={machineId === undefined ? `Set a machine for ${goal?.product ?? ''}` : `Try ${machine?.name ?? 'it'}`}
      action={may('work.write') ? 'Keep the trial' : 'Close'}
      onClose={onClose}
      onSave={may('work.write') ? keep : onClose}
      saving={saving}
    >
      {machines.length === 0 && (
        <Typography>
          No {sprays ? 'sprayer' : 'spreader'} is on record yet:{' '}
          <MuiLink component={Link} to="/products/machines">
            add one
          </MuiLink>{' '}
          to keep what is tried.
        </Typography>
      )}
      <Fields>
        {machineId === undefined && machines.length > 0 && (
          <TextField
            select
            label="Machine"
            value={chosen}
            onChange={(event) => {
              setChosen(event.target.value);
              setTrial(null);
            }}
          >
            {machines.map(({ id, name }) => (
              <MenuItem key={id} value={id}>
                {name}
              </MenuItem>
            ))}
          </TextField>
        )}
        {machineId !== undefined && (
          <TextField
            select
            label="Product"
            value={productId}
            onChange={(event) => {
              setProductId(event.target.value);
              setTrial(null);
            }}
          >
            {goals.map((one) => (
              <MenuItem key={one.productId} value={one.productId}>
                {one.product}
              </MenuItem>
            ))}
          </TextField>
        )}
        <QuantityField
          label={sprays ? 'Product, each time over' : 'Wanted, each time over'}
          sense={sprays ? 'liquidRate' : 'productRate'}
          value={rate}
          onChange={setRate}
          problem={typeof rate === 'string' ? 'Give a rate, such as 12 g/m2.' : undefined}
        />
      </Fields>
      {!sprays && (
        <FormControlLabel
          control={<Checkbox checked={halves} onChange={(event) => setHalves(event.target.checked)} />}
          label={`In two crossing directions, half each way${each !== null && halves ? `: ${say('productRate', each)} in one pass` : ''}`}
        />
      )}
      {before && <Typography sx={{ borderLeft: `3px solid ${colours.lichen}`, pl: 1.5 }}>{before}.</Typography>}
      {machine && goal && each !== null && !before && !sprays && (
        <Typography sx={{ color: colours.faded }}>
          {machine.name} was not tried with {goal.product} near that rate yet.
        </Typography>
      )}
      <Box sx={{ borderTop: `1px solid ${colours.line}`, pt: 1.5, display: 'grid', gap: 2 }}>
        <Typography variant="h3">A trial</Typography>
        <TextField
          label={sprays ? 'Nozzle and pressure' : 'Setting it is tried at'}
          value={setting}
          onChange={(event) => setSetting(event.target.value)}
          helperText={sprays ? 'Such as flat fan 03 at 2 bar' : 'As it stands on the machine, such as 12'}
        />
        {sprays ? (
          <SprayerTrial key={chosen} onTrial={setTrial} />
        ) : (
          <SpreaderTrial
            key={`${chosen} ${productId}`}
            wanted={each}
            setting={setting}
            width={machine?.width ?? null}
            rotary={machine?.kind === 'rotary spreader'}
            onTrial={setTrial}
          />
        )}
      </Box>
      {sprays && goal?.area !== undefined && whole !== null && (
        <TankLoads
          area={goal.area}
          tank={machine?.holds ?? null}
          output={output}
          water={goal.water ?? null}
          productRate={whole}
        />
      )}
      {missing && <Cautions texts={[missing]} />}
    </FormDialog>
  );
}
