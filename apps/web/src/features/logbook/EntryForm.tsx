import { type EntryKind, capital, entryKinds, rateUnitOf, senseOfPack } from '@glenfold/agronomy';
import type { EntryAnswer, EntryInput, ZoneAnswer } from '@glenfold/contract';
import { MenuItem, TextField, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { ApiProblem } from '../../api/client.ts';
import { queries } from '../../api/queries.ts';
import { Fields, FormDialog } from '../../ui/FormDialog.tsx';
import { senseOfRate } from '../../ui/entryFields.ts';
import { QuantityField } from '../../ui/QuantityField.tsx';
import { colours } from '../../ui/theme.ts';
import { useUnits } from '../../ui/units.tsx';
import { useWriteEntry } from './api.ts';

interface EntryFormProps {
  readonly zones: readonly ZoneAnswer[];
  readonly zone: ZoneAnswer;
  readonly today: string;
  /** The entry in whose place this one stands. */
  readonly mends?: EntryAnswer;
  readonly onClose: () => void;
  readonly onWritten: (notes: readonly string[]) => void;
}

/** What was put down without a card, or long ago; or an entry that stands in the place of another. */
export function EntryForm({ zones, zone, today, mends, onClose, onWritten }: EntryFormProps) {
  const { say } = useUnits();
  const { data: products = [] } = useQuery(queries.productNames());
  const write = useWriteEntry();
  const [zoneId, setZoneId] = useState(mends?.zoneId ?? zone.id);
  const [kind, setKind] = useState<EntryKind>(mends?.kind ?? 'fertilizer');
  const [on, setOn] = useState(mends?.on ?? today);
  const [productId, setProductId] = useState(mends?.productId ?? '');
  const [words, setWords] = useState(mends?.productId ? '' : (mends?.words ?? ''));
  const [quantity, setQuantity] = useState<number | string | null>(mends?.quantity ?? null);
  const [rate, setRate] = useState<number | string | null>(mends?.quantity == null ? (mends?.rate ?? null) : null);
  const [area, setArea] = useState<number | string | null>(mends?.area ?? null);
  const [cce, setCce] = useState<number | string | null>(mends?.cce ?? null);
  const [reason, setReason] = useState('');
  const [doneBy, setDoneBy] = useState(mends?.doneBy ?? '');
  const [by, setBy] = useState<'amount' | 'rate'>(mends?.quantity === null && mends.rate !== null ? 'rate' : 'amount');
  const [parts, setParts] = useState<ReadonlyArray<number | string | null>>(
    () => mends?.mixed.map((part) => part.quantity) ?? [],
  );
  const [id] = useState(() => crypto.randomUUID());
  const product = products.find((one) => one.id === productId);
  const chosen = zones.find((one) => one.id === zoneId) ?? zone;
  const unit = rateUnitOf(kind);
  const fault = (field: string): string | undefined =>
    write.error instanceof ApiProblem ? write.error.fields.find((one) => one.field === field)?.message : undefined;
  const amount = (value: number | string | null): number | null => value as number | null;
  const save = (): void => {
    const input: EntryInput = {
      ...{ id, zoneId, on: on.trim(), kind, state: mends?.state === 'partly done' ? 'partly done' : 'done' },
      ...{
        jobId: mends?.jobId ?? null,
        productId: productId || null,
        words: words.trim() || (product ? null : capital(kind)),
      },
      quantity: by === 'amount' ? amount(quantity) : null,
      ...(by === 'rate' && rate !== null ? { rate: amount(rate), unit } : {}),
      ...{ area: amount(area), cce: amount(cce), doneBy: doneBy.trim() || null, reason: reason.trim() || null },
      ...(mends && mends.mixed.length > 0
        ? {
            mixed: mends.mixed.flatMap(({ productId: part }, index) =>
              part === null ? [] : [{ productId: part, quantity: amount(parts[index] ?? null) ?? 0 }],
            ),
          }
        : {}),
      correctsId: mends?.id ?? null,
    };
    write.mutate(input, {
      onSuccess: ({ notes }) => {
        onWritten(notes);
        onClose();
      },
    });
  };
  return (
    <FormDialog
      title={mends ? 'Mend an entry' : 'Write down what was done'}
      action="Write it down"
      onClose={onClose}
      saving={write}
      onSave={save}
    >
      {mends && (
        <Typography sx={{ color: colours.faded }}>
          The entry of {mends.on} stays as it was written; this one stands in its place.
        </Typography>
      )}
      <Fields>
        <TextField
          select
          label="Zone"
          value={zoneId}
          disabled={!!mends}
          onChange={(event) => setZoneId(event.target.value)}
        >
          {zones.map((one) => (
            <MenuItem key={one.id} value={one.id}>
              {one.name}
            </MenuItem>
          ))}
        </TextField>
        <TextField select label="What" value={kind} onChange={(event) => setKind(event.target.value as EntryKind)}>
          {entryKinds.map((one) => (
            <MenuItem key={one} value={one}>
              {capital(one)}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          label="When"
          value={on}
          onChange={(event) => setOn(event.target.value)}
          error={!!fault('on')}
          helperText={fault('on') ?? 'A day, or 2026-05 or 2026 where no more is remembered'}
        />
        <TextField select label="Product" value={productId} onChange={(event) => setProductId(event.target.value)}>
          <MenuItem value="">none of the list</MenuItem>
          {products.map((one) => (
            <MenuItem key={one.id} value={one.id}>
              {one.name}
            </MenuItem>
          ))}
        </TextField>
      </Fields>
      {!product && (
        <TextField
          label="In words"
          value={words}
          onChange={(event) => setWords(event.target.value)}
          error={!!fault('words')}
          helperText={
            fault('words') ??
            'As it is remembered: 16-4-8 by the bag. What it holds is counted for products of the list only'
          }
        />
      )}
      <ToggleButtonGroup
        exclusive
        size="small"
        value={by}
        onChange={(_event, value: 'amount' | 'rate' | null) => value && setBy(value)}
      >
        <ToggleButton value="amount">What was used</ToggleButton>
        <ToggleButton value="rate">By the area</ToggleButton>
      </ToggleButtonGroup>
      <Fields>
        {by === 'amount' ? (
          <QuantityField
            label="Used"
            sense={senseOfPack[product?.packUnit ?? 'kg']}
            density={product?.bulkDensity ?? undefined}
            value={quantity}
            onChange={setQuantity}
            problem={fault('quantity')}
            helperText="Empty where nobody knows: told, not counted"
          />
        ) : (
          <QuantityField
            label="Rate"
            sense={senseOfRate[unit]}
            value={rate}
            onChange={setRate}
            problem={fault('rate')}
            helperText="Empty where nobody knows: told, not counted"
          />
        )}
        {mends?.mixed.map((part, index) => (
          <QuantityField
            key={part.words}
            label={`With ${part.words}`}
            sense={senseOfPack[part.quantityUnit ?? 'kg']}
            value={parts[index] ?? null}
            onChange={(value) => setParts(parts.with(index, value))}
            problem={fault('mixed')}
          />
        ))}
        <QuantityField
          label="On"
          sense="area"
          value={area}
          onChange={setArea}
          problem={fault('area')}
          helperText={`The whole zone, ${say('area', chosen.area)}, where it is left empty`}
        />
        {kind === 'lime' && !product && (
          <QuantityField
            label="Strength (CCE)"
            sense="percent"
            value={cce}
            onChange={setCce}
            problem={fault('cce')}
            helperText="From the bag; 90 % where it is not known"
          />
        )}
        <TextField label="By" value={doneBy} onChange={(event) => setDoneBy(event.target.value)} />
      </Fields>
      {mends && (
        <TextField
          label="What was wrong"
          value={reason}
          onChange={(event) => setReason(event.target.value)}
          error={!!fault('reason')}
          helperText={fault('reason')}
        />
      )}
    </FormDialog>
  );
}
