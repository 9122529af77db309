import { type Purpose, purposes } from '@glenfold/agronomy';
import type { ProductAnswer, ProductPriceInput } from '@glenfold/contract';
import { Box, Button, Table, TableBody, TableCell, TableHead, TableRow, TextField, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useSetPrice } from '../../api/changes.ts';
import { queries } from '../../api/queries.ts';
import { ConflictDialog } from '../../ui/ConflictDialog.tsx';
import { colours } from '../../ui/theme.ts';
import { QuantityField } from '../../ui/QuantityField.tsx';
import { Trouble } from '../../ui/bits.tsx';

const titles: Readonly<Record<Purpose, string>> = {
  lime: 'Lime',
  nitrogen: 'Nitrogen',
  phosphorus: 'Phosphorus',
  potassium: 'Potassium',
};

function strength({ grade, effectiveness, slowRelease, caustic }: ProductAnswer): string {
  if (effectiveness !== null)
    return `${Math.round(effectiveness)} % effective${caustic ? ', caustic: never on living turf' : ''}`;
  return `${grade.n}-${grade.p2o5}-${grade.k2o}${slowRelease > 0 ? `, ${slowRelease} % of the N slow` : ''}`;
}

const priceText = ({ bagPrice }: ProductAnswer): string => (bagPrice === null ? '' : bagPrice.toFixed(2));

function ProductRow({ product }: { readonly product: ProductAnswer }) {
  // What is saved rests on the version that was on screen when typing began.
  const [seen, setSeen] = useState(product);
  const [bagMass, setBagMass] = useState<number | string | null>(product.bagMass);
  const [price, setPrice] = useState(priceText(product));
  const saving = useSetPrice();
  const { mutate, error, isPending } = saving;
  const changed = bagMass !== product.bagMass || price.trim() !== priceText(product);
  const problem = (field: string): string | undefined => error?.fields.find((entry) => entry.field === field)?.message;
  const show = (answer: ProductAnswer): void => {
    setSeen(answer);
    setBagMass(answer.bagMass);
    setPrice(priceText(answer));
  };
  const send = (input: ProductPriceInput, version: number): void =>
    mutate({ seen: { id: product.id, version }, input }, { onSuccess: show });
  const save = (): void => {
    // Text that is no number goes as it is: the server refuses it with words, and it stays in the field.
    const number = Number(price.replace(/^\$/, ''));
    const bagPrice = price.trim() === '' ? null : Number.isNaN(number) ? (price as unknown as number) : number;
    send({ bagMass: bagMass as number, bagPrice }, seen.version);
  };
  return (
    <TableRow>
      <TableCell sx={{ fontWeight: 700 }}>{product.name}</TableCell>
      <TableCell sx={{ color: product.caustic ? colours.ochre : undefined }}>{strength(product)}</TableCell>
      <TableCell>
        <QuantityField
          variant="standard"
          sense="mass"
          value={bagMass}
          onChange={setBagMass}
          problem={problem('bagMass')}
          aria-label={`Bag of ${product.name}`}
          sx={{ width: 130 }}
        />
      </TableCell>
      <TableCell>
        <TextField
          variant="standard"
          value={price}
          onChange={(event) => setPrice(event.target.value)}
          error={!!problem('bagPrice')}
          helperText={problem('bagPrice')}
          slotProps={{
            input: { startAdornment: <span style={{ marginRight: 4 }}>$</span> },
            htmlInput: { 'aria-label': `Price of a bag of ${product.name}`, inputMode: 'decimal' },
          }}
          placeholder="not set"
          sx={{ width: 120 }}
        />
      </TableCell>
      <TableCell sx={{ minWidth: 90 }}>
        {changed && (
          <Button size="small" variant="contained" onClick={save} disabled={isPending}>
            Save
          </Button>
        )}
        {error?.fields.length === 0 && <Trouble error={error} />}
        <ConflictDialog
          save={saving}
          base={seen}
          send={send}
          onTheirs={() => error?.conflict && show(error.conflict.current as ProductAnswer)}
        />
      </TableCell>
    </TableRow>
  );
}

/** The generic products of the practice, with its own bags and prices. */
export function Catalogue() {
  const { data: products = [], error } = useQuery(queries.products());
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 4 }, py: 3, maxWidth: 980 }}>
      <Typography variant="h1" gutterBottom>
        Products
      </Typography>
      <Typography sx={{ mb: 2, maxWidth: 640 }}>
        Generic products by what they are. Set the bag you buy and what it costs you: plans count whole bags at these
        prices. The label on the bag in hand wins over any number here.
      </Typography>
      <Trouble error={error} />
      {products.length > 0 &&
        purposes.map((purpose) => (
          <Box component="section" key={purpose} sx={{ mb: 3, overflowX: 'auto' }}>
            <Typography variant="h2">{titles[purpose]}</Typography>
            <Table size="small">
              <TableHead>
                <TableRow>
                  <TableCell sx={{ width: '32%' }}>Product</TableCell>
                  <TableCell sx={{ width: '30%' }}>Strength</TableCell>
                  <TableCell>Bag</TableCell>
                  <TableCell>Price of a bag</TableCell>
                  <TableCell />
                </TableRow>
              </TableHead>
              <TableBody>
                {products
                  .filter((product) => product.purpose === purpose)
                  .map((product) => (
                    <ProductRow key={product.id} product={product} />
                  ))}
              </TableBody>
            </Table>
          </Box>
        ))}
    </Box>
  );
}
