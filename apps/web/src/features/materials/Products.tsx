import { present } from '@glenfold/agronomy';
import { type MaterialInput, type ProductAnswer, materialInput, withReadableDays } from '@glenfold/contract';
import { Box, Button, Table, TableBody, TableCell, TableHead, TableRow, TextField, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { type ChangeEvent, useRef, useState } from 'react';

import { queries } from '../../api/queries.ts';
import { readNumber } from '../../ui/NumberField.tsx';
import { Empty, Trouble } from '../../ui/bits.tsx';
import { useSessionState } from '../../ui/useSessionState.ts';
import { useCurrency, useMay } from '../../ui/session.tsx';
import { colours } from '../../ui/theme.ts';
import { useUnits } from '../../ui/units.tsx';
import { Words } from '../../ui/Words.tsx';
import { GenericDialog } from './GenericDialog.tsx';
import { MaterialForm } from './MaterialForm.tsx';
import { type Group, analysisWords, packWord } from './kinds.ts';
import { useLoadMaterials, useSaveProduct } from './api.ts';

const text = (value: number | null | undefined, places?: number): string =>
  value === null || value === undefined ? '' : places === undefined ? String(value) : value.toFixed(places);
/** Text that is no number goes as it is: the server refuses it with words, and it stays in the field. */
const number = (typed: string, sign?: string): number | null => readNumber(typed, sign) as number | null;

/** What one pack holds, in the person's units. */
function usePack(): (product: ProductAnswer) => string {
  const { system, say } = useUnits();
  return ({ packSize, packUnit }) =>
    packUnit === 'kg'
      ? say('mass', packSize)
      : packUnit === 'm3'
        ? packSize < 0.5
          ? `${Math.round(packSize * 1000)} L`
          : present('volume', packSize, system).text
        : `${packSize} L`;
}

/** The price of what it is bought for: "$2.31 a lb of N". */
function useUnitPrice(): (product: ProductAnswer) => string {
  const { system, say } = useUnits();
  return ({ unitPrice }) =>
    unitPrice
      ? `${say('money', system === 'us' ? unitPrice.perKg * 0.45359237 : unitPrice.perKg)} a ${system === 'us' ? 'lb' : 'kg'} of ${unitPrice.of}`
      : '';
}

/** A price or stock that was typed and is not saved yet. */
interface Draft {
  readonly seen: ProductAnswer;
  readonly price: string;
  readonly stock: string;
}

function ProductRow({ product, onChange }: { readonly product: ProductAnswer; readonly onChange: () => void }) {
  // What is typed stays until it is saved, whatever page is looked at between; what is saved rests on the version that
  // was on screen when typing began.
  const [draft, setDraft] = useSessionState<Draft | null>(`glenfold.product.${product.id}`, null);
  const { seen, price, stock } = draft ?? {
    ...{ seen: product, price: text(product.packPrice, 2), stock: text(product.stock) },
  };
  const setPrice = (next: string): void => setDraft({ seen, price: next, stock });
  const setStock = (next: string): void => setDraft({ seen, price, stock: next });
  const saving = useSaveProduct();
  const { mutate, error, isPending } = saving;
  const currency = useCurrency();
  const pack = usePack();
  const perUnit = useUnitPrice();
  const may = useMay();
  const changed = price.trim() !== text(seen.packPrice, 2) || stock.trim() !== text(seen.stock);
  const problem = (field: string): string | undefined => error?.fields.find((entry) => entry.field === field)?.message;
  const show = (answer: ProductAnswer): void =>
    setDraft({ seen: answer, price: text(answer.packPrice, 2), stock: text(answer.stock) });
  const save = (): void => {
    const opened = materialInput(seen);
    const input: MaterialInput = { ...opened, packPrice: number(price, currency), stock: number(stock) };
    mutate(
      { seen, input, opened, onTheirs: (theirs) => show(theirs as ProductAnswer) },
      { onSuccess: () => setDraft(null) },
    );
  };
  const word = packWord(product);
  const told = [perUnit(product), product.pricedOn && withReadableDays(product.pricedOn)].filter(Boolean).join(', ');
  return (
    <TableRow>
      <TableCell>
        <Box sx={{ fontWeight: 700 }}>{product.name}</Box>
        {product.caution && (
          <Box sx={{ color: product.caustic ? colours.ochre : colours.faded, fontSize: '0.87rem', maxWidth: 300 }}>
            {product.caution}
          </Box>
        )}
      </TableCell>
      <TableCell>
        <Words>{analysisWords(product)}</Words>
      </TableCell>
      <TableCell sx={{ whiteSpace: 'nowrap' }}>
        {word} of {pack(product)}
      </TableCell>
      <TableCell>
        <TextField
          variant="standard"
          value={price}
          onChange={(event) => setPrice(event.target.value)}
          error={!!problem('packPrice')}
          helperText={problem('packPrice') ?? told}
          slotProps={{
            input: { startAdornment: <span style={{ marginRight: 4 }}>{currency}</span> },
            htmlInput: { 'aria-label': `Price of a ${word} of ${product.name}`, inputMode: 'decimal' },
          }}
          placeholder="not set"
          sx={{ width: 196, '& .MuiFormHelperText-root': { whiteSpace: 'nowrap' } }}
        />
      </TableCell>
      <TableCell>
        <TextField
          variant="standard"
          value={stock}
          onChange={(event) => setStock(event.target.value)}
          error={!!problem('stock')}
          helperText={problem('stock')}
          slotProps={{ htmlInput: { 'aria-label': `In stock of ${product.name}`, inputMode: 'decimal' } }}
          placeholder="–"
          sx={{ width: 64 }}
        />
      </TableCell>
      <TableCell sx={{ minWidth: 84, whiteSpace: 'nowrap' }}>
        {changed ? (
          <Button size="small" variant="contained" onClick={save} disabled={isPending}>
            Save
          </Button>
        ) : (
          <>
            {may('prices.write') && (
              <Button size="small" onClick={onChange} aria-label={`Change ${product.name}`}>
                Change
              </Button>
            )}
          </>
        )}
        {error?.fields.length === 0 && <Trouble error={error} />}
      </TableCell>
    </TableRow>
  );
}

/** The products of one part of the list, with what they are, their packs, prices and stock. */
export function Products({ group }: { readonly group: Group }) {
  const { data: products, error } = useQuery(queries.products());
  const [open, setOpen] = useState<ProductAnswer | 'new' | 'generic' | null>(null);
  const [added, setAdded] = useState<string | null>(null);
  const file = useRef<HTMLInputElement>(null);
  const load = useLoadMaterials();
  const own = products?.filter(({ kind }) => group.kinds.includes(kind));
  const take = async (event: ChangeEvent<HTMLInputElement>): Promise<void> => {
    const [chosen] = event.target.files ?? [];
    event.target.value = '';
    if (chosen) load.mutate(await chosen.text());
  };
  const came = load.data;
  return (
    <>
      <Typography sx={{ mb: 1.5, maxWidth: 680 }}>
        Products by what they are, without brands. Set what you pay: rates count whole bags at these prices. The label
        on the bag in hand wins over any number here.
      </Typography>
      <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap', mb: 1 }}>
        <Button variant="contained" size="small" onClick={() => setOpen('new')}>
          Add a product
        </Button>
        <Button variant="outlined" size="small" onClick={() => setOpen('generic')}>
          From the generic catalogue
        </Button>
        <Button variant="outlined" size="small" onClick={() => file.current?.click()} disabled={load.isPending}>
          Load a list (CSV)
        </Button>
        <input
          ref={file}
          type="file"
          accept=".csv,text/csv"
          aria-label="A list of products (CSV)"
          hidden
          onChange={(event) => void take(event)}
        />
        <Button size="small" href="/api/products/file.csv" download>
          Save the list (CSV)
        </Button>
      </Box>
      <Trouble error={error ?? load.error} />
      {came && (
        <Typography role="status" sx={{ borderLeft: `3px solid ${colours.lichen}`, pl: 1.5, my: 1 }}>
          The list was taken: {came.added} added, {came.changed} changed, {came.unchanged} as they were.
        </Typography>
      )}
      {added && (
        <Typography role="status" sx={{ borderLeft: `3px solid ${colours.lichen}`, pl: 1.5, my: 1 }}>
          {added} is in your list, at the end of its part. It can be chosen on the Rates step now.
        </Typography>
      )}
      {own?.length === 0 && (
        <Empty title="None of these yet" action="From the generic catalogue" onClick={() => setOpen('generic')}>
          Take over what you use and set its price, or add what you buy by its label.
        </Empty>
      )}
      {own?.length ? (
        <Box sx={{ overflowX: 'auto' }}>
          <Table size="small">
            <TableHead>
              <TableRow>
                <TableCell sx={{ width: '31%' }}>Product</TableCell>
                <TableCell sx={{ width: '23%' }}>What it is</TableCell>
                <TableCell>Pack</TableCell>
                <TableCell>Price of a pack</TableCell>
                <TableCell>In stock</TableCell>
                <TableCell component="td" />
              </TableRow>
            </TableHead>
            <TableBody>
              {own.map((product) => (
                <ProductRow key={product.id} product={product} onChange={() => setOpen(product)} />
              ))}
            </TableBody>
          </Table>
        </Box>
      ) : null}
      {open === 'generic' && <GenericDialog onClose={() => setOpen(null)} />}
      {open !== null && open !== 'generic' && (
        <MaterialForm
          product={open === 'new' ? undefined : open}
          kind={open === 'new' ? group.kinds[0]! : open.kind}
          onClose={() => setOpen(null)}
          onAdded={setAdded}
        />
      )}
    </>
  );
}
