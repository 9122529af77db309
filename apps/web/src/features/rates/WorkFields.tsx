import type { ZoneProgramAnswer } from '@glenfold/contract';
import { Box, Button, Link as MuiLink, MenuItem, TextField, Typography } from '@mui/material';
import { Link } from 'react-router';
import { NumberField } from '../../ui/NumberField.tsx';
import { colours } from '../../ui/theme.ts';

/** Work as it is being typed. */
export interface WorkTyped {
  readonly name: string;
  readonly amount: number | string | null;
}

interface WorkFieldsProps {
  readonly prices: ZoneProgramAnswer['work'];
  readonly lines: readonly WorkTyped[];
  readonly onChange: (lines: readonly WorkTyped[]) => void;
  readonly problem: { readonly path: string; readonly words: string } | undefined;
}

/** Hours, days of hire, kilometres and tipping that a treatment takes, at the practice’s prices. */
export function WorkFields({ prices, lines, onChange, problem }: WorkFieldsProps) {
  const free = prices.filter(({ name }) => !lines.some((line) => line.name === name));
  const set = (at: number, change: Partial<WorkTyped>): void =>
    onChange(lines.map((line, index) => (index === at ? { ...line, ...change } : line)));
  return (
    <Box role="group" aria-label="Labour, hire and haulage">
      <Typography sx={{ fontSize: '0.93rem', mb: 1 }}>
        Labour, hire and haulage{' '}
        {prices.length === 0 && (
          <>
            (none has a price yet:{' '}
            <MuiLink component={Link} to="/settings/work">
              set prices of work
            </MuiLink>
            , or the hire of a machine)
          </>
        )}
      </Typography>
      {lines.map(({ name, amount }, at) => (
        <Box key={at} sx={{ display: 'grid', gridTemplateColumns: '1fr 150px auto', gap: 1, mb: 1.25 }}>
          <TextField select label="What" value={name} onChange={(event) => set(at, { name: event.target.value })}>
            {[...(prices.some((price) => price.name === name) ? [] : [{ name, per: 'no price any more' }]), ...prices]
              .filter((price) => price.name === name || free.includes(price))
              .map((price) => (
                <MenuItem key={price.name} value={price.name}>
                  {price.name} <span style={{ color: colours.faded, marginLeft: 6 }}>per {price.per}</span>
                </MenuItem>
              ))}
          </TextField>
          <NumberField
            label="How much"
            value={amount}
            unit={plural(prices.find((price) => price.name === name)?.per ?? '')}
            onChange={(next) => set(at, { amount: next })}
            problem={problem?.path.startsWith(`work.${at}`) ? problem.words : undefined}
          />
          <Button
            onClick={() => onChange(lines.filter((_, index) => index !== at))}
            aria-label={`Leave out ${name || 'this line'}`}
          >
            Leave out
          </Button>
        </Box>
      ))}
      {free.length > 0 && (
        <Button
          size="small"
          variant="outlined"
          onClick={() => onChange([...lines, { name: free[0]!.name, amount: null }])}
        >
          {lines.length === 0 ? 'Add work' : 'Add more work'}
        </Button>
      )}
    </Box>
  );
}

const plural = (per: string): string => (/^\d|^$|km$/.test(per) ? per : `${per}s`);
