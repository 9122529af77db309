import { type Material, type RemedyName, type Treatment, suitsRemedy, inLine } from '@glenfold/agronomy';
import type { ProductAnswer } from '@glenfold/contract';
import { MenuItem, TextField, Typography } from '@mui/material';
import { useMay } from '../../ui/session.tsx';

/** Whether a remedy can be made with it. */
export const fits = (product: ProductAnswer, remedy: RemedyName): boolean =>
  suitsRemedy({ ...product } as unknown as Material, remedy);

/** What is said of a product beside its name. */
export function productWords({ name, effectiveness, stock }: ProductAnswer): string {
  return [
    name,
    ...(effectiveness === null ? [] : [`${Math.round(effectiveness)} % effective`]),
    ...(stock ? [`${stock} in stock`] : []),
  ].join(', ');
}

interface ProductPickProps {
  readonly treatment: Treatment;
  readonly products: readonly ProductAnswer[];
  readonly onPick: (material: string) => void;
}

/** The product that a treatment is made with. */
export function ProductPick({ treatment, products, onPick }: ProductPickProps) {
  const may = useMay();
  const { remedy, name, supply, others, values } = treatment;
  const fitting = products.filter((product) => fits(product, remedy));
  if (!may('work.write') || fitting.length === 0) return supply ? <Typography>{supply.name}</Typography> : null;
  // Of a mix, what the remedy is chosen by need not be what there is most of: the seed of sprayed mulch.
  const chosen =
    [supply, ...others].find((one) => fitting.some(({ id }) => id === one?.materialId))?.materialId ?? values.material;
  return (
    <TextField
      select
      fullWidth
      variant="standard"
      value={fitting.some(({ id }) => id === chosen) ? chosen : ''}
      onChange={(event) => onPick(event.target.value)}
      slotProps={{ htmlInput: { 'aria-label': `Product for ${inLine(name)}` } }}
      sx={{ minWidth: 210, '& .MuiSelect-select': { whiteSpace: 'normal' } }}
    >
      {fitting.map((product) => (
        <MenuItem key={product.id} value={product.id}>
          {productWords(product)}
        </MenuItem>
      ))}
    </TextField>
  );
}
