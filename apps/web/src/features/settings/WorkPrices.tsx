import { remedyTable, workUnits, worksFor, inLine } from '@glenfold/agronomy';
import { Box, MenuItem, TextField, Typography } from '@mui/material';
import { MoneyField } from '../../ui/NumberField.tsx';
import { useUnits } from '../../ui/units.tsx';
import { Choice } from './Choice.tsx';
import { Decided, Rows } from './Decided.tsx';
import type { Scope } from './scope.ts';

const worksForNames: Readonly<Record<string, string>> = {
  all: 'everything',
  ...Object.fromEntries(remedyTable.remedies.map(({ name, label }) => [name, inLine(label)])),
};

/** What work is charged at. */
export function WorkPrices({ scope }: { readonly scope: Scope }) {
  const { say } = useUnits();
  return (
    <Decided
      kind="work"
      scope={scope}
      name="Prices of work"
      general="None yet: labour, visits, haulage and disposal cannot be told in an offer. The hire of a machine stands with the machines, and counts from there."
      start={{ prices: [{ name: 'Labour', price: '', per: 'hour' }] }}
      tell={({ prices }) =>
        prices.length === 0 ? (
          <Typography>None here.</Typography>
        ) : (
          <Box component="ul" sx={{ m: 0, pl: 2.5 }}>
            {prices.map(({ name, price, per, for: of }) => (
              <li key={`${name} ${per}`}>
                <strong>{name}</strong>: {say('money', price)} per {per}
                {of && of.length > 0
                  ? `, counts with ${of.map((one) => worksForNames[one] ?? one).join(', ')}`
                  : per === 'hour' || per === 'day' || per === 'km'
                    ? ', set with a treatment'
                    : ''}
              </li>
            ))}
          </Box>
        )
      }
    >
      {({ typed, set, problem }) => (
        <Rows
          rows={typed.prices}
          onRows={(prices) => set({ prices })}
          fresh={{ name: '', price: '', per: 'hour' as const, for: null }}
          another="Another price"
          columns="1.6fr 1fr 1fr 1.6fr"
          label={({ name }) => name || 'this price'}
        >
          {(row, at, change) => (
            <>
              <TextField
                label="For"
                value={row.name}
                onChange={(event) => change({ name: event.target.value })}
                error={!!problem(`prices.${at}.name`)}
                helperText={problem(`prices.${at}.name`)}
              />
              <MoneyField
                label="Price"
                value={row.price}
                onChange={(price) => change({ price: price as number })}
                problem={problem(`prices.${at}.price`)}
              />
              <Choice
                label="Per"
                value={row.per}
                values={workUnits}
                names={Object.fromEntries(workUnits.map((unit) => [unit, unit]))}
                onChange={(per) => change({ per: per as 'hour' })}
              />
              <TextField
                select
                label="Counts by itself with"
                value={[...(row.for ?? [])]}
                onChange={(event) => change({ for: event.target.value as unknown as string[] })}
                error={!!problem(`prices.${at}.for`)}
                helperText={problem(`prices.${at}.for`)}
                slotProps={{ select: { multiple: true, displayEmpty: true }, inputLabel: { shrink: true } }}
              >
                {worksFor.map((one) => (
                  <MenuItem key={one} value={one}>
                    {worksForNames[one]}
                  </MenuItem>
                ))}
              </TextField>
            </>
          )}
        </Rows>
      )}
    </Decided>
  );
}
