import { type Material, type RemedyName, monthName, remedyTable, suitsRemedy } from '@glenfold/agronomy';
import type { ProductAnswer } from '@glenfold/contract';
import { Box, TextField, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { queries } from '../../api/queries.ts';
import { QuantityField } from '../../ui/QuantityField.tsx';
import { Words } from '../../ui/Words.tsx';
import { useMay } from '../../ui/session.tsx';
import { useUnits } from '../../ui/units.tsx';
import { Choice } from './Choice.tsx';
import { Decided, Rows } from './Decided.tsx';
import type { Scope } from './scope.ts';

const labels = Object.fromEntries(remedyTable.remedies.map(({ name, label }) => [name, label]));
const months = Object.fromEntries(Array.from({ length: 12 }, (_, index) => [String(index + 1), monthName(index + 1)]));
const fits = (product: ProductAnswer, remedy: string): boolean =>
  suitsRemedy({ ...product } as unknown as Material, remedy as RemedyName);
const fresh = { month: 4, remedy: 'nitrogen', material: null, rate: null };

/** What the practice sells to everybody: where a program begins, until a test changes it. */
export function UsualYear({ scope }: { readonly scope: Scope }) {
  const { say } = useUnits();
  const may = useMay();
  const { data: products = [] } = useQuery({ ...queries.products(), enabled: may('prices.read') });
  const names = Object.fromEntries(products.map(({ id, name }) => [id, name]));
  return (
    <Decided
      kind="usualYear"
      scope={scope}
      name="The usual year"
      general="None: a program begins from what the test asks for."
      start={{ name: 'Four visits', visits: [fresh] }}
      tell={({ name, visits }) => (
        <>
          <Typography sx={{ fontWeight: 700 }}>{name}</Typography>
          <Box component="ul" sx={{ m: 0, pl: 2.5 }}>
            {visits.map(({ month, remedy, material, rate }, at) => (
              <li key={at}>
                {monthName(month)}: <Words>{labels[remedy] ?? remedy}</Words>
                {rate ? `, ${say('productRate', rate)}` : ''}
                {material && names[material] ? ` of ${names[material]}` : ''}
              </li>
            ))}
          </Box>
        </>
      )}
    >
      {({ typed, set, problem }) => (
        <>
          <Typography>
            A site’s program takes its products and months where the test asks for the same. Care that no soil test
            decides, such as coring or a wetting agent, is put in as it stands here. What a test changes stands beside
            it on the Rates step, with its reason; nothing is put down that a test speaks against.
          </Typography>
          <TextField
            label="Name"
            value={typed.name}
            onChange={(event) => set({ name: event.target.value })}
            error={!!problem('name')}
            helperText={problem('name')}
          />
          <Rows
            rows={typed.visits}
            onRows={(visits) => set({ visits })}
            fresh={fresh}
            another="Another treatment"
            columns="1fr 1.3fr 1.6fr 1.1fr"
            label={({ month, remedy }) => `${labels[remedy] ?? remedy} in ${monthName(Number(month))}`}
          >
            {(row, at, change) => (
              <>
                <Choice
                  label="Month"
                  value={String(row.month)}
                  values={Object.keys(months)}
                  names={months}
                  onChange={(month) => change({ month: Number(month) })}
                />
                <Choice
                  label="What"
                  value={row.remedy}
                  values={remedyTable.remedies.map(({ name }) => name)}
                  names={labels}
                  onChange={(remedy) => change({ remedy: remedy ?? row.remedy, material: null })}
                />
                <Choice
                  label="Product"
                  value={row.material}
                  values={products.filter((product) => fits(product, row.remedy)).map(({ id }) => id)}
                  names={names}
                  none="as proposed"
                  onChange={(material) => change({ material })}
                />
                <QuantityField
                  label="Rate"
                  sense="productRate"
                  value={row.rate}
                  onChange={(rate) => change({ rate: rate })}
                  problem={problem(`visits.${at}.rate`)}
                />
              </>
            )}
          </Rows>
        </>
      )}
    </Decided>
  );
}
