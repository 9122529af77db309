import { type AnalysisKey, type MaterialKind, analysisEntries, analysisOf, chelates, grasses, materialKinds, nitrogenSourceNames, packUnits, senseOfPack } from '@glenfold/agronomy'; // prettier-ignore
import { MaterialInput, type ProductAnswer, materialInput } from '@glenfold/contract';
import { Box, Button, Checkbox, FormControlLabel, MenuItem, TextField, Typography } from '@mui/material';
import { useState } from 'react';

import { Fields, FormDialog } from '../../ui/FormDialog.tsx';
import { MoneyField, NumberField } from '../../ui/NumberField.tsx';
import { QuantityField } from '../../ui/QuantityField.tsx';
import { useMay } from '../../ui/session.tsx';
import { useUndo } from '../../ui/undo.tsx';
import { useTyped } from '../../ui/useTyped.ts';
import { capital, unitOf } from './kinds.ts';
import { useSaveProduct } from './api.ts';

const first: ReadonlySet<AnalysisKey> = new Set(['n', 'p2o5', 'k2o', 'slowRelease'] as const);
const unitWords: Readonly<Record<(typeof packUnits)[number], string>> = {
  ...{ kg: 'by weight', L: 'as a liquid', m3: 'loose, by volume' },
};

/** A can of 10 L, a cubic metre, or a bag of 50 lb. */
function usualPack(kind: MaterialKind): Pick<MaterialInput, 'packSize' | 'packUnit'> {
  if (kind === 'wetting agent') return { packSize: 10, packUnit: 'L' };
  return ['compost', 'peat', 'sand', 'topsoil'].includes(kind)
    ? { packSize: 1, packUnit: 'm3' }
    : { packSize: 22.67962, packUnit: 'kg' };
}

/** What a new product of a kind begins as. */
const fresh = (kind: MaterialKind): MaterialInput => ({
  ...{ name: '', kind, analysis: {} },
  seeds: kind === 'seed' ? [{ grass: 'tall fescue', share: 100 }] : null,
  ...usualPack(kind),
  ...{ packPrice: null, stock: null },
});

/** A product by its label: its analysis, its pack, its price, and how many are there. */
export function MaterialForm({
  product: opened,
  kind,
  onClose,
  onAdded,
}: {
  readonly product?: ProductAnswer | undefined;
  readonly kind: MaterialKind;
  readonly onClose: () => void;
  /** What was added is told: it stands at the end of the list. */
  readonly onAdded: (name: string) => void;
}) {
  const [product] = useState(opened);
  const [more, setMore] = useState(false);
  const may = useMay();
  const { remove } = useUndo();
  const saving = useSaveProduct();
  const { mutate, error } = saving;
  const { typed, set, problem, check } = useTyped(MaterialInput, product ? materialInput(product) : fresh(kind), error);
  const send = (input: MaterialInput): void =>
    mutate(
      { seen: product, input, opened: product && materialInput(product), onTheirs: onClose },
      {
        onSuccess: ({ name }) => {
          if (!product) onAdded(name);
          onClose();
        },
      },
    );
  const own = analysisOf(typed.kind);
  const analysis = typed.analysis as Readonly<Record<string, number | string | null | undefined>>;
  const setKind = (next: MaterialKind): void =>
    set({
      kind: next,
      // What does not belong to the new kind is left behind.
      analysis: Object.fromEntries(analysisOf(next).map((key) => [key, analysis[key] ?? null])),
      seeds: next === 'seed' ? (typed.seeds ?? [{ grass: 'tall fescue', share: 100 }]) : null,
    });
  const seeds = (typed.seeds ?? []) as ReadonlyArray<{ readonly grass: string; readonly share: number | string }>;
  const setSeed = (at: number, change: object): void =>
    set({ seeds: seeds.map((one, index) => (index === at ? { ...one, ...change } : one)) });
  const flag = (name: 'natural' | 'dolomitic' | 'caustic', label: string) => (
    <FormControlLabel
      control={<Checkbox checked={typed[name] === true} onChange={(event) => set({ [name]: event.target.checked })} />}
      label={label}
    />
  );
  const choice = (name: 'nitrogenSource' | 'chelate', label: string, values: readonly string[], help: string) => (
    <TextField
      select
      label={label}
      value={typed[name] ?? ''}
      onChange={(event) => set({ [name]: event.target.value || null })}
      helperText={problem(name) ?? help}
      slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
    >
      <MenuItem value="">not told</MenuItem>
      {values.map((value) => (
        <MenuItem key={value} value={value}>
          {value}
        </MenuItem>
      ))}
    </TextField>
  );
  // Of a fertilizer its grade comes first; what few labels tell waits behind a button, unless it is told.
  const shown = (key: AnalysisKey): boolean =>
    more || typed.kind !== 'fertilizer' || first.has(key) || analysis[key] != null || !!problem(`analysis.${key}`);
  const field = (key: AnalysisKey) => (
    <NumberField
      key={key}
      label={analysisEntries[key].label}
      unit={unitOf(key).trim() || undefined}
      value={analysis[key]}
      onChange={(value) => set({ analysis: { ...analysis, [key]: value } })}
      problem={problem(`analysis.${key}`)}
    />
  );
  return (
    <>
      <FormDialog
        beside={
          product &&
          may('work.delete') && (
            <Button
              onClick={() => {
                remove(`/products/${product.id}`, product.name);
                onClose();
              }}
            >
              Delete the product
            </Button>
          )
        }
        title={product ? `Change ${product.name}` : 'Add a product'}
        action={product ? 'Save' : 'Add the product'}
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
            helperText={problem('name') ?? 'What it is, such as Blend 16-4-8'}
          />
          <TextField
            select
            label="Kind"
            value={typed.kind}
            onChange={(event) => setKind(event.target.value as MaterialKind)}
            error={!!problem('kind')}
            helperText={problem('kind')}
          >
            {materialKinds.map((name) => (
              <MenuItem key={name} value={name}>
                {capital(name)}
              </MenuItem>
            ))}
          </TextField>
        </Fields>
        {own.length > 0 && (
          <Typography variant="h3">
            {typed.kind === 'compost' ? 'Its analysis (N, P₂O₅ and K₂O of the dry matter)' : 'From the label'}
          </Typography>
        )}
        <Fields columns={4}>{own.filter((key) => shown(key)).map(field)}</Fields>
        {!more && own.some((key) => !shown(key)) && (
          <Box>
            <Button size="small" onClick={() => setMore(true)}>
              What else the label tells
            </Button>
          </Box>
        )}
        {typed.kind === 'seed' && (
          <>
            <Typography variant="h3">Species</Typography>
            {seeds.map((one, at) => (
              <Box key={at} sx={{ display: 'grid', gridTemplateColumns: '2fr 1fr auto', gap: 1.5 }}>
                <TextField
                  select
                  label="Species"
                  value={one.grass}
                  onChange={(event) => setSeed(at, { grass: event.target.value })}
                >
                  {grasses
                    .filter(({ seed }) => seed)
                    .map(({ name, label }) => (
                      <MenuItem key={name} value={name}>
                        {capital(label)}
                      </MenuItem>
                    ))}
                </TextField>
                <NumberField
                  label="Share"
                  unit="%"
                  value={one.share}
                  onChange={(share) => setSeed(at, { share })}
                  problem={problem(`seeds.${at}.share`)}
                />
                <Button
                  onClick={() => set({ seeds: seeds.filter((_, index) => index !== at) })}
                  disabled={seeds.length === 1}
                  aria-label={`Leave out ${one.grass}`}
                >
                  Leave out
                </Button>
              </Box>
            ))}
            {problem('seeds') && <Typography role="alert">{problem('seeds')}</Typography>}
            <Box>
              <Button
                variant="outlined"
                size="small"
                onClick={() => set({ seeds: [...seeds, { grass: 'fine fescue', share: 10 }] })}
              >
                Another species
              </Button>
            </Box>
          </>
        )}
        {typed.kind === 'fertilizer' && (
          <Fields>
            {choice(
              'nitrogenSource',
              'Nitrogen as',
              nitrogenSourceNames,
              'For the acidity that it makes; urea where not told',
            )}
            {flag('natural', 'Of natural origin')}
          </Fields>
        )}
        {typed.kind === 'iron' && choice('chelate', 'Chelate', chelates, 'None for a sulfate')}
        {typed.kind === 'lime' && (
          <Box>
            {flag('dolomitic', 'Dolomitic: brings magnesium')}
            {flag('caustic', 'Hydrated or burnt: caustic')}
          </Box>
        )}
        <Typography variant="h3">Pack, price and stock</Typography>
        <Fields columns={4}>
          <QuantityField
            key={typed.packUnit}
            label="One bag, can or load holds"
            sense={senseOfPack[typed.packUnit]}
            value={typed.packSize}
            onChange={(packSize) => set({ packSize: packSize as number })}
            problem={problem('packSize')}
          />
          <TextField
            select
            label="Sold"
            value={typed.packUnit}
            onChange={(event) => set({ packUnit: event.target.value as (typeof packUnits)[number] })}
            error={!!problem('packUnit')}
            helperText={problem('packUnit')}
          >
            {packUnits.map((unit) => (
              <MenuItem key={unit} value={unit}>
                {unitWords[unit]}
              </MenuItem>
            ))}
          </TextField>
          <MoneyField
            label="Its price"
            value={typed.packPrice}
            onChange={(packPrice) => set({ packPrice: packPrice })}
            problem={problem('packPrice')}
            helperText="Empty while it is not known"
          />
          <NumberField
            label="In stock"
            value={typed.stock}
            onChange={(stock) => set({ stock: stock })}
            problem={problem('stock')}
            helperText="Empty where nobody counted"
          />
        </Fields>
        <Fields columns={4}>
          <TextField
            label="Day of the price"
            type="date"
            value={typed.pricedOn ?? ''}
            onChange={(event) => set({ pricedOn: event.target.value || null })}
            error={!!problem('pricedOn')}
            helperText={problem('pricedOn') ?? 'Today, where the price is new'}
            slotProps={{ inputLabel: { shrink: true } }}
          />
          <MoneyField
            label="Delivery of a load"
            value={typed.deliveryPrice}
            onChange={(deliveryPrice) => set({ deliveryPrice })}
            problem={problem('deliveryPrice')}
            helperText="Empty where you fetch it"
          />
          <QuantityField
            key={`load ${typed.packUnit}`}
            label="A load brings"
            sense={senseOfPack[typed.packUnit]}
            value={typed.loadSize}
            onChange={(loadSize) => set({ loadSize })}
            problem={problem('loadSize')}
            helperText="Empty where one drive brings all"
          />
        </Fields>
        <TextField
          label="Caution"
          value={typed.caution ?? ''}
          onChange={(event) => set({ caution: event.target.value })}
          error={!!problem('caution')}
          helperText={problem('caution') ?? 'What the hand should know; the label in hand wins over all of this'}
          multiline
          maxRows={3}
        />
      </FormDialog>
    </>
  );
}
