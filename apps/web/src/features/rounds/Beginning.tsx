import type { UnitSystem } from '@glenfold/agronomy';
import type { BeginningKey } from '@glenfold/contract';
import { Box, Button, Link as MuiLink, Typography } from '@mui/material';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Link } from 'react-router';
import { Trouble } from '../../ui/bits.tsx';
import { colours } from '../../ui/theme.ts';
import { useOwnUnits } from '../../ui/ownUnits.ts';
import { roundsQueries, useLeave } from './api.ts';

/** What each is called, what it is good for, and where it is done; nothing where it is done here. */
const steps: Readonly<Record<BeginningKey, readonly [name: string, why: string, to: string | null]>> = {
  reach: [
    'Phone, mail and place',
    'on every page that a client reads; the time zone says which day it is',
    '/practice/data',
  ],
  units: ['Units', 'the switch in the head changes them at any time', null],
  laboratory: ['Your laboratory', 'its fees, days and depths, for bags and shipping', '/bags'],
  prices: ['Prices of work', 'labour, visits, haulage: without them a quote has open lines', '/settings/work'],
  machines: ['Machines', 'what spreads what, so that a card can say how to set it', '/products/machines'],
  person: [
    'The first person',
    'a technician with a phone, an advisor, or a client, also before there is a site',
    '/practice/people',
  ],
  site: ['The first site', 'a property that you look after', null],
};

/** A new practice is led: what is to be set, one after the other; each can be left for later and stays in sight. */
export function Beginning({ onSite }: { readonly onSite: () => void }) {
  const { data, error } = useQuery(roundsQueries.beginning());
  const leave = useLeave();
  const choose = useOwnUnits();
  const client = useQueryClient();
  const units = (chosen: UnitSystem) => () =>
    choose(chosen, () => void client.invalidateQueries({ queryKey: ['rounds', 'beginning'] }));
  const of = (state: string) => (data?.steps ?? []).filter((step) => step.state === state);
  const [open, later, done] = [of('open'), of('later'), of('done')];
  if (error) return <Trouble error={error} />;
  if (!data || open.length + later.length === 0) return null;
  const way = (key: BeginningKey) => {
    const [name, , to] = steps[key];
    if (key === 'units')
      return (
        <>
          <Button size="small" variant="outlined" onClick={units('us')}>
            Pounds and feet
          </Button>
          <Button size="small" variant="outlined" onClick={units('metric')}>
            Kilograms and metres
          </Button>
        </>
      );
    return (
      <Button
        size="small"
        variant="outlined"
        aria-label={`${name}: set it`}
        {...(to === null ? { onClick: onSite } : { component: Link, to })}
      >
        {to === null ? 'Add a site' : 'Set it'}
      </Button>
    );
  };
  return (
    <Box component="section" aria-label="Setting up" sx={{ my: 4, maxWidth: 760 }}>
      {open.length > 0 && (
        <>
          <Typography variant="h2">Setting up</Typography>
          <Typography sx={{ color: colours.faded, mb: 1 }}>
            {done.length} of {data.steps.length} are there. In this order they help most; each can wait.
          </Typography>
          <Box component="ol" sx={{ listStyle: 'none', m: 0, p: 0 }}>
            {open.map(({ key }) => (
              <Box
                component="li"
                key={key}
                sx={{
                  display: 'flex',
                  gap: 1,
                  flexWrap: 'wrap',
                  alignItems: 'center',
                  py: 1,
                  borderTop: `1px solid ${colours.line}`,
                }}
              >
                <Box sx={{ flex: '1 1 280px' }}>
                  <strong>{steps[key][0]}</strong>
                  <Box sx={{ color: colours.faded, fontSize: '0.93rem' }}>{steps[key][1]}</Box>
                </Box>
                {way(key)}
                <Button
                  size="small"
                  aria-label={`${steps[key][0]}: leave it for later`}
                  onClick={() => leave.mutate({ key, later: true })}
                >
                  Later
                </Button>
              </Box>
            ))}
          </Box>
        </>
      )}
      {later.length > 0 && (
        <Typography sx={{ color: colours.faded, mt: 1 }}>
          Left for later:{' '}
          {later.map(({ key }, at) => (
            <span key={key}>
              {at > 0 && ', '}
              {steps[key][2] === null ? (
                <MuiLink
                  component="button"
                  onClick={() => (key === 'site' ? onSite() : leave.mutate({ key, later: false }))}
                >
                  {steps[key][0]}
                </MuiLink>
              ) : (
                <MuiLink component={Link} to={steps[key][2]}>
                  {steps[key][0]}
                </MuiLink>
              )}
            </span>
          ))}
        </Typography>
      )}
      <Trouble error={leave.error} />
    </Box>
  );
}
