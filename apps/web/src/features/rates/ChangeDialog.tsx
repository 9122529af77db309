import {
  type Field,
  type RemedyName,
  type Treatment,
  type Typed,
  alsoMixedOf,
  fieldsOf,
  inputFrom,
  monthName,
  remedyOf,
  remedyTable,
  typedFrom,
  readIn,
  convert,
  inLine,
} from '@glenfold/agronomy';
import type { ProductAnswer, TreatmentChangeAnswer, TreatmentInput, ZoneProgramAnswer } from '@glenfold/contract';
import { Box, Button, MenuItem, TextField, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material';
import { useState } from 'react';
import { ApiProblem } from '../../api/client.ts';
import { FieldOf } from '../../ui/FieldOf.tsx';
import { FormDialog, Fields } from '../../ui/FormDialog.tsx';
import { colours } from '../../ui/theme.ts';
import { useUnits } from '../../ui/units.tsx';
import { fits, productWords } from './ProductPick.tsx';
import { WorkFields, type WorkTyped } from './WorkFields.tsx';
import { openedOf, useChangeTreatment, useUndoTreatment } from '../../api/treatments.ts';

const besideLabels: Readonly<Record<string, string>> = {
  ...{ fibre: 'Mulch', binder: 'Binder', feed: 'Feed in the tank', peatMaterial: 'Product mixed in' },
};

interface ChangeDialogProps {
  readonly zoneId: string;
  readonly products: readonly ProductAnswer[];
  /** Prices of work that may be set with it. */
  readonly work: ZoneProgramAnswer['work'];
  /** Nothing to add one. */
  readonly treatment?: Treatment | undefined;
  /** What was decided of it before. */
  readonly before?: TreatmentChangeAnswer | undefined;
  /** Remedies that the program holds already. */
  readonly there?: readonly RemedyName[];
  readonly onClose: () => void;
}

/** What stands there now, for a field that is left empty. */
function standing(value: unknown, field: Field<unknown>, system: 'us' | 'metric'): string | undefined {
  if (typeof value === 'string') return `${value} now`;
  if (typeof value !== 'number' || field.shape.kind !== 'quantity') return undefined;
  const unit = readIn(field.shape.unit, system);
  const told = unit === field.shape.unit ? value : convert(value, field.shape.unit, unit);
  return `${Number(told.toPrecision(3))} now`;
}

/** A rate, product, number or month of one’s own, with its reason; or that it is left out. */
export function ChangeDialog({ zoneId, products, work, treatment, before, there = [], onClose }: ChangeDialogProps) {
  const { system } = useUnits();
  const change = useChangeTreatment(zoneId);
  const undo = useUndoTreatment(zoneId);
  const [remedy, setRemedy] = useState<RemedyName>(treatment?.remedy ?? 'core');
  const [fresh] = useState(() => `added-${crypto.randomUUID()}`);
  // Lime and the feeding stand once, and are reckoned together.
  const once = remedyOf(remedy) === undefined;
  const key = treatment?.key ?? (once ? remedy : fresh);
  const fields = fieldsOf(remedy) as Readonly<Record<string, Field<unknown>>>;
  const own = before?.change.values ?? {};
  const [typed, setTyped] = useState<Readonly<Record<string, Typed>>>(() =>
    Object.fromEntries(
      Object.entries(fields).map(([name, field]) => [name, typedFrom(own[name], field.shape, system)]),
    ),
  );
  const [months, setMonths] = useState<readonly number[]>(before?.change.months ?? []);
  const [lines, setLines] = useState<readonly WorkTyped[]>(before?.change.work ?? []);
  const [reason, setReason] = useState(before?.change.reason ?? '');
  const added = treatment === undefined ? !once : before?.change.added === true;
  const save = (out: TreatmentInput['out']): void => {
    const values = Object.fromEntries(
      Object.entries(fields).flatMap(([name, field]) => {
        const value = inputFrom(typed[name], field.shape, system);
        return value === undefined ? [] : [[name, value]];
      }),
    );
    change.mutate(
      {
        seen: { id: key, version: before?.version ?? 0 },
        input: {
          ...{ remedy, added, values, reason },
          months: months.length > 0 ? [...months] : null,
          work: lines.length > 0 ? (lines as NonNullable<TreatmentInput['work']>) : null,
          out: out ?? null,
        },
        opened: openedOf(before),
      },
      { onSuccess: onClose },
    );
  };
  const refused = change.error instanceof ApiProblem ? change.error.fields : [];
  const problem = refused[0] && { path: refused[0].field.replace(/^values\./, ''), words: refused[0].message };
  const fitting = products.filter((product) => fits(product, remedy));
  const alsoMixed = alsoMixedOf(remedy);
  return (
    <FormDialog
      title={treatment ? `Change ${inLine(treatment.name)} by hand` : 'Add a treatment'}
      action={treatment ? 'Keep the change' : 'Add it'}
      onClose={onClose}
      onSave={() => save(null)}
      saving={{ isPending: change.isPending || undo.isPending, error: change.error ?? undo.error }}
      beside={
        treatment && (
          <Box sx={{ display: 'flex', gap: 0.5, flexWrap: 'wrap' }}>
            {treatment.status !== 'left out' && <Button onClick={() => save('left out')}>Leave it out</Button>}
            {treatment.status !== 'next year' && <Button onClick={() => save('next year')}>Next year</Button>}
            {before && (
              <Button onClick={() => undo.mutate(key, { onSuccess: onClose })}>
                {added ? 'Take it away' : 'Back to the rule'}
              </Button>
            )}
          </Box>
        )
      }
    >
      {!treatment && (
        <TextField
          select
          label="What"
          value={remedy}
          onChange={(event) => {
            setRemedy(event.target.value as RemedyName);
            setTyped({});
          }}
        >
          {remedyTable.remedies
            .filter(({ name }) => remedyOf(name) !== undefined || !there.includes(name))
            .map(({ name, label }) => (
              <MenuItem key={name} value={name}>
                {label}
              </MenuItem>
            ))}
        </TextField>
      )}
      {fitting.length > 0 && (
        <TextField
          select
          label="Product"
          value={typeof typed.material === 'string' ? typed.material : ''}
          onChange={(event) => setTyped({ ...typed, material: event.target.value })}
          slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}
          error={problem?.path === 'material'}
          helperText={problem?.path === 'material' ? problem.words : undefined}
        >
          <MenuItem value="">{treatment?.supply ? `${treatment.supply.name}, as proposed` : 'as proposed'}</MenuItem>
          {fitting.map((product) => (
            <MenuItem key={product.id} value={product.id}>
              {productWords(product)}
            </MenuItem>
          ))}
        </TextField>
      )}
      {Object.entries(alsoMixed).map(([name, kinds]) => (
        <TextField
          key={name}
          select
          label={besideLabels[name] ?? name}
          value={typeof typed[name] === 'string' ? typed[name] : ''}
          onChange={(event) => setTyped({ ...typed, [name]: event.target.value })}
          slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}
          error={problem?.path === name}
          helperText={problem?.path === name ? problem.words : undefined}
        >
          <MenuItem value="">{name === 'feed' ? 'none' : 'as proposed'}</MenuItem>
          {products
            .filter(({ kind }) => kinds.includes(kind))
            .map((product) => (
              <MenuItem key={product.id} value={product.id}>
                {productWords(product)}
              </MenuItem>
            ))}
        </TextField>
      ))}
      <Typography sx={{ fontSize: '0.93rem', color: colours.faded, mb: -1 }}>
        Rates are of the product, from today to the end of the year: what goes down after today comes off. What is left
        empty is taken as the test and the usual practice have it.
      </Typography>
      <Fields>
        {Object.entries(fields)
          .filter(([name]) => name !== 'material' && !(name in alsoMixed))
          .map(([name, field]) => {
            const now = standing(treatment?.values[name], field, system);
            return (
              <FieldOf
                key={name}
                name={name}
                path={name}
                field={now ? { ...field, whenLeftOut: now } : field}
                value={typed[name]}
                onChange={(value) => setTyped({ ...typed, [name]: value })}
                problem={problem}
                bare
              />
            );
          })}
      </Fields>
      <Box>
        <Typography id="months" sx={{ fontSize: '0.93rem' }}>
          Months of one’s own, one for each time{months.length === 0 && ' (as proposed while none is chosen)'}
        </Typography>
        <ToggleButtonGroup
          size="small"
          value={[...months]}
          aria-labelledby="months"
          onChange={(_event, next: number[]) => setMonths([...next].sort((a, b) => a - b))}
          sx={{ flexWrap: 'wrap' }}
        >
          {Array.from({ length: 12 }, (_, index) => (
            <ToggleButton
              key={index}
              value={index + 1}
              aria-label={monthName(index + 1)}
              sx={{ px: 1, textTransform: 'none' }}
            >
              {monthName(index + 1).slice(0, 3)}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
      </Box>
      <WorkFields prices={work} lines={lines} onChange={setLines} problem={problem} />
      <TextField
        label="Why"
        required
        value={reason}
        onChange={(event) => setReason(event.target.value)}
        error={problem?.path === 'reason'}
        helperText={
          problem?.path === 'reason'
            ? problem.words
            : 'Kept with it, on screen and on paper; a later test does not undo it.'
        }
        multiline
      />
      {problem && !(problem.path in fields) && problem.path !== 'reason' && !problem.path.startsWith('work.') && (
        <Typography role="alert" sx={{ color: colours.ochre, fontWeight: 700 }}>
          {problem.words}
        </Typography>
      )}
    </FormDialog>
  );
}
