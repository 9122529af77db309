import { type Material, type Purpose, productOf, serves } from '@glenfold/agronomy';
import type { PlanChoicesInput, ProductAnswer } from '@glenfold/contract';
import { MenuItem, TextField, Typography } from '@mui/material';
import { useMay } from '../../ui/session.tsx';

interface ProductPickProps {
  readonly purpose: Purpose;
  readonly label: string;
  readonly products: readonly ProductAnswer[];
  readonly chosen: string | undefined;
  /** Its name, for those who do not choose. */
  readonly name: string | undefined;
  readonly onPick: (choices: PlanChoicesInput) => void;
}

/** Whether it can be chosen: it holds what is wanted. */
function fits(product: ProductAnswer, purpose: Purpose): boolean {
  const known = productOf(product.id, { ...product } as unknown as Material, product.packPrice ?? null);
  return known !== undefined && serves(known, purpose);
}

/** The product that a treatment is made with. */
export function ProductPick({ purpose, label, products, chosen, name, onPick }: ProductPickProps) {
  const may = useMay();
  if (!may('work.write')) return <Typography>{name}</Typography>;
  return (
    <TextField
      select
      fullWidth
      variant="standard"
      value={products.some(({ id }) => id === chosen) ? chosen : ''}
      onChange={(event) => onPick({ [purpose]: event.target.value })}
      slotProps={{ htmlInput: { 'aria-label': label } }}
      sx={{ minWidth: 210, '& .MuiSelect-select': { whiteSpace: 'normal' } }}
    >
      {products
        .filter((product) => fits(product, purpose))
        .map(({ id, name, effectiveness, stock }) => (
          <MenuItem key={id} value={id}>
            {name}
            {effectiveness !== null && `, ${Math.round(effectiveness)} % effective`}
            {!!stock && `, ${stock} in stock`}
          </MenuItem>
        ))}
    </TextField>
  );
}
