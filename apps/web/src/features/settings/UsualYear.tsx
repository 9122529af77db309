import { type Material, type RemedyName, monthName, remedyTable, suitsRemedy } from '@glenfold/agronomy';
import type { ProductAnswer, UsualYearSetting, UsualYearsSetting } from '@glenfold/contract';
import { Box, Button, TextField, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { queries } from '../../api/queries.ts';
import { QuantityField } from '../../ui/QuantityField.tsx';
import { Words } from '../../ui/Words.tsx';
import { useMay } from '../../ui/session.tsx';
import { useUnits } from '../../ui/units.tsx';
import type { Typing } from '../../ui/useTyped.ts';
import { Choice } from './Choice.tsx';
import { Decided, Rows } from './Decided.tsx';
import type { Scope } from './scope.ts';

const labels = Object.fromEntries(remedyTable.remedies.map(({ name, label }) => [name, label]));
const months = Object.fromEntries(Array.from({ length: 12 }, (_, index) => [String(index + 1), monthName(index + 1)]));
const fits = (product: ProductAnswer, remedy: string): boolean =>
  suitsRemedy({ ...product } as unknown as Material, remedy as RemedyName);
const fresh = { month: 4, remedy: 'nitrogen', material: null, rate: null };

type Visit = UsualYearSetting['visits'][number];

/** The products that visits may name, with their names. */
function useProducts() {
  const may = useMay();
  const { data: products = [] } = useQuery({ ...queries.products(), enabled: may('prices.read') });
  return { products, names: Object.fromEntries(products.map(({ id, name }) => [id, name])) };
}

/** The visits of a year, told. */
function Told({ year: { name, visits } }: { readonly year: UsualYearSetting }) {
  const { say } = useUnits();
  const { names } = useProducts();
  return (
    <>
      <Typography sx={{ fontWeight: 700 }}>{name}</Typography>
      <Box component="ul" sx={{ m: 0, pl: 2.5, mb: 1 }}>
        {visits.map(({ month, remedy, material, rate }, at) => (
          <li key={at}>
            {monthName(month)}: <Words>{labels[remedy] ?? remedy}</Words>
            {rate ? `, ${say('productRate', rate)}` : ''}
            {material && names[material] ? ` of ${names[material]}` : ''}
          </li>
        ))}
      </Box>
    </>
  );
}

interface VisitsProps {
  readonly name: string;
  readonly visits: readonly Typing<Visit>[];
  readonly set: (change: { readonly name?: string; readonly visits?: Typing<Visit>[] }) => void;
  /** Of a field of the year. */
  readonly problem: (field: string) => string | undefined;
}

/** A year’s name and its visits, to be typed. */
function Visits({ name, visits, set, problem }: VisitsProps) {
  const { products, names } = useProducts();
  return (
    <>
      <TextField
        label="Name"
        value={name}
        onChange={(event) => set({ name: event.target.value })}
        error={!!problem('name')}
        helperText={problem('name')}
      />
      <Rows
        rows={visits}
        onRows={(next) => set({ visits: next })}
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
              values={remedyTable.remedies.map((remedy) => remedy.name)}
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
              onChange={(rate) => change({ rate })}
              problem={problem(`visits.${at}.rate`)}
            />
          </>
        )}
      </Rows>
    </>
  );
}

/** What the practice sells to everybody: where a program begins, until a test changes it. */
export function UsualYear({ scope }: { readonly scope: Scope }) {
  const { data: all = [] } = useQuery(queries.settings());
  const kept = all.find(({ kind }) => kind === 'usualYears')?.value as UsualYearsSetting | undefined;
  const years = kept?.years ?? [];
  return (
    <Decided
      kind="usualYear"
      scope={scope}
      name="The usual year"
      general="None: a program begins from what the test asks for."
      start={{ name: 'Four visits', visits: [fresh] }}
      tell={(year) => <Told year={year} />}
    >
      {({ typed, set, problem }) => (
        <>
          <Typography>
            A site’s program takes its products and months where the test asks for the same. Care that no soil test
            decides, such as coring or a wetting agent, is put in as it stands here. What a test changes stands beside
            it on the Rates step, with its reason; nothing is put down that a test speaks against. A year without visits
            begins from nothing.
          </Typography>
          {years.length > 0 && (
            <Choice
              label="Begin from"
              value={years.some(({ name }) => name === typed.name) ? typed.name : null}
              values={years.map(({ name }) => name)}
              names={Object.fromEntries(years.map(({ name }) => [name, name]))}
              none="a year of its own"
              onChange={(name) => {
                const year = years.find((one) => one.name === name);
                if (year) set({ name: year.name, visits: year.visits.map((visit) => ({ ...visit })) });
              }}
            />
          )}
          <Visits name={typed.name} visits={typed.visits} set={set} problem={problem} />
        </>
      )}
    </Decided>
  );
}

/** Years that a practice keeps beside, for sites that are kept another way. */
export function UsualYears({ scope }: { readonly scope: Scope }) {
  return (
    <Decided
      kind="usualYears"
      scope={scope}
      name="Years to begin from"
      general="None kept: each site begins from the usual year of the practice, or from one of its own."
      start={{ years: [{ name: 'Two visits', visits: [fresh] }] }}
      tell={({ years }) => years.map((year) => <Told key={year.name} year={year} />)}
    >
      {({ typed, set, problem }) => (
        <>
          {typed.years.map((year, at) => (
            <Box key={at} role="group" aria-label={year.name || 'A year'} sx={{ display: 'grid', gap: 2, mb: 2 }}>
              <Visits
                name={year.name}
                visits={year.visits}
                set={(change) =>
                  set({ years: typed.years.map((one, index) => (index === at ? { ...one, ...change } : one)) })
                }
                problem={(field) => problem(`years.${at}.${field}`)}
              />
              <Box>
                <Button onClick={() => set({ years: typed.years.filter((_, index) => index !== at) })}>
                  Leave out {year.name || 'this year'}
                </Button>
              </Box>
            </Box>
          ))}
          <Box>
            <Button
              variant="outlined"
              size="small"
              onClick={() => set({ years: [...typed.years, { name: '', visits: [fresh] }] })}
            >
              Another year
            </Button>
          </Box>
        </>
      )}
    </Decided>
  );
}
