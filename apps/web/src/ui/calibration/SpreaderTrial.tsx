import { nextSetting, spreadCalibrate, spreadSwath, spreading } from '@glenfold/agronomy';
import { Box, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material';
import { useState } from 'react';
import { Fields } from '../FormDialog.tsx';
import { NumberField } from '../NumberField.tsx';
import { QuantityField } from '../QuantityField.tsx';
import { ResultOf } from '../ResultOf.tsx';
import type { Calculated } from '../calculation.ts';
import { useUnits } from '../units.tsx';
import { Opens } from '../working.tsx';
import { type Trial, TrialFields, TrialWarnings, useTrial } from './TrialFields.tsx';

interface SpreaderTrialProps {
  /** g/m² in one pass; nothing while it is not known. */
  readonly wanted: number | null;
  readonly setting: string;
  /** m, of one pass. */
  readonly width: number | null;
  readonly rotary: boolean;
  readonly onTrial: (trial: Trial | null) => void;
}

/** What was put down against what is wanted, and how to go on. */
function Found({ trial, wanted, setting }: Pick<SpreaderTrialProps, 'wanted' | 'setting'> & { readonly trial: Trial }) {
  const { say } = useUnits();
  const { rate } = trial;
  const correction = wanted === null ? undefined : wanted / rate.value;
  const near = correction !== undefined && Math.abs(correction - 1) * 100 <= spreading.sameWithin;
  const next = correction === undefined ? undefined : nextSetting(setting, correction);
  return (
    <Typography component="div" role="status">
      <Opens title="Put down in one pass" told={say('productRate', rate.value)} working={rate.working} size="1.5rem" />{' '}
      in one pass
      {trial.width !== undefined && `, passes ${say('length', trial.width)} apart`}
      {wanted !== null && `; ${say('productRate', wanted)} is wanted`}. {near && <strong>Near enough: keep it.</strong>}
      {!near && next !== undefined && <strong>Set it to about {next} and try again.</strong>}
      {!near && correction !== undefined && next === undefined && (
        <strong>
          {setting.trim() === ''
            ? `Let through ${Number(correction.toPrecision(2))} times as much, and try again.`
            : `Too far off to reckon: ${correction > 1 ? 'open' : 'close'} it, and try again.`}
        </strong>
      )}
    </Typography>
  );
}

/** A strip of known area, weighed before and after; or what falls into a box under a drop spreader over the same strip. */
function Strip({ wanted, setting, width, onTrial }: SpreaderTrialProps) {
  const [typed, setTyped] = useState<{
    readonly length: number | string | null;
    readonly width: number | string | null;
    readonly times: number | string | null;
    readonly used: number | string | null;
  }>({ length: null, width, times: 1, used: null });
  const amounts = Object.values(typed);
  const known = amounts.every((one): one is number => typeof one === 'number' && one > 0);
  const work = (next: typeof typed): Trial | null => {
    if (Object.values(next).some((one) => typeof one !== 'number' || one <= 0)) return null;
    const { result, working } = spreadCalibrate({
      testArea: (next.length as number) * (next.width as number) * (next.times as number),
      massUsed: (next.used as number) * 1000,
      target: wanted ?? 1,
    });
    // Without a wanted rate there is nothing to correct.
    return { rate: { value: result.actual, working: wanted === null ? working.slice(0, 1) : working } };
  };
  const set = (change: Partial<typeof typed>): void => {
    const next = { ...typed, ...change };
    setTyped(next);
    onTrial(work(next));
  };
  const trial = known ? work(typed) : null;
  const odd = (value: number | string | null): string | undefined =>
    typeof value === 'string' || (typeof value === 'number' && value <= 0) ? 'Give a number above 0.' : undefined;
  return (
    <>
      <Fields>
        <QuantityField
          label="Strip length"
          sense="length"
          value={typed.length}
          onChange={(length) => set({ length })}
          problem={odd(typed.length)}
        />
        <QuantityField
          label="Width of one pass"
          sense="length"
          value={typed.width}
          onChange={(next) => set({ width: next })}
          problem={odd(typed.width)}
          helperText="Between the middles of two passes"
        />
        <NumberField
          label="Times along it"
          value={typed.times}
          onChange={(times) => set({ times })}
          problem={odd(typed.times)}
        />
        <QuantityField
          label="Gone from the hopper"
          sense="mass"
          value={typed.used}
          onChange={(used) => set({ used })}
          problem={odd(typed.used)}
          helperText="Weighed before and after, or caught in a box"
        />
      </Fields>
      {trial && <Found trial={trial} wanted={wanted} setting={setting} />}
    </>
  );
}

const swathOf = ({ outcome }: Calculated): Trial | null => {
  const { rate, width } = (outcome?.result ?? {}) as Readonly<Record<string, number | undefined>>;
  return outcome && rate !== undefined && width !== undefined
    ? { rate: { value: rate, working: outcome.working }, width }
    : null;
};

/** Trays across the path of a broadcast spreader: how far apart its passes stand, and what they put down together. */
function Trays({ wanted, setting, onTrial }: SpreaderTrialProps) {
  const tried = useTrial(spreadSwath, { catches: Array<string>(7).fill('') }, swathOf, onTrial);
  const { trial, found } = tried;
  return (
    <>
      <Typography>
        Trays in a line across the path, the middle one under the machine. Drive over them once, weigh each, and type
        them from left to right.
      </Typography>
      <TrialFields {...tried} />
      {trial && <Found trial={trial} wanted={wanted} setting={setting} />}
      {found.outcome && <ResultOf outputs={spreadSwath.outputs} result={found.outcome.result} />}
      <TrialWarnings found={tried.found} />
    </>
  );
}

/** Try a spreader at a setting. */
export function SpreaderTrial(props: SpreaderTrialProps) {
  const [by, setBy] = useState<'strip' | 'trays'>('strip');
  return (
    <Box sx={{ display: 'grid', gap: 2 }}>
      {props.rotary && (
        <ToggleButtonGroup
          size="small"
          exclusive
          value={by}
          aria-label="How it is tried"
          onChange={(_event, next: 'strip' | 'trays' | null) => {
            if (!next) return;
            props.onTrial(null);
            setBy(next);
          }}
        >
          <ToggleButton value="strip">Over a strip</ToggleButton>
          <ToggleButton value="trays">Trays across the path</ToggleButton>
        </ToggleButtonGroup>
      )}
      {by === 'trays' && props.rotary ? <Trays {...props} /> : <Strip {...props} />}
    </Box>
  );
}
