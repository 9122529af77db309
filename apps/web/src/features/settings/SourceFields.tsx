import { Box, TextField } from '@mui/material';
import { NumberField } from '../../ui/NumberField.tsx';

import { todayIn } from '../../ui/today.ts';

/** The year in which a table is written down. */
export const thisYear = (): number => Number(todayIn('UTC').slice(0, 4));

/** Name, source and year: whose numbers these are. */
export function SourceFields({
  typed,
  set,
  problem,
  at = '',
}: {
  readonly typed: { readonly name: string; readonly source: string; readonly date?: number | string };
  readonly set: (change: { readonly name?: string; readonly source?: string; readonly date?: number | string }) => void;
  readonly problem: (field: string) => string | undefined;
  readonly at?: string;
}) {
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', sm: '1.2fr 2fr 0.7fr' }, gap: 2 }}>
      <TextField
        label="Name"
        value={typed.name}
        onChange={(event) => set({ name: event.target.value })}
        error={!!problem(`${at}name`)}
        helperText={problem(`${at}name`) ?? 'Laboratory, state or place'}
      />
      <TextField
        label="Where it is written"
        value={typed.source}
        onChange={(event) => set({ source: event.target.value })}
        error={!!problem(`${at}source`)}
        helperText={problem(`${at}source`) ?? 'Stands in every working'}
      />
      {'date' in typed && (
        <NumberField
          label="Year"
          value={typed.date}
          onChange={(date) => set({ date: date as number })}
          problem={problem(`${at}date`)}
        />
      )}
    </Box>
  );
}
