import { Box, MenuItem, TextField, Typography } from '@mui/material';
import { useParams } from 'react-router';
import { PartsPage } from '../../ui/PartsPage.tsx';
import { SitePicker } from '../../ui/SitePicker.tsx';
import { useMay } from '../../ui/session.tsx';
import { Bands, YearlyRates } from './OwnTables.tsx';
import { PlaceRules } from './PlaceRules.tsx';
import { School } from './School.tsx';
import { UsualYear, UsualYears } from './UsualYear.tsx';
import { Caps, Targets } from './Wishes.tsx';
import { WorkPrices } from './WorkPrices.tsx';
import { useScope } from './scope.ts';

const parts = [
  {
    name: 'advice',
    title: 'How we advise',
    about: 'school, when to correct, targets, caps',
    screens: [School, Targets, Caps],
    costs: false,
  },
  {
    name: 'tables',
    title: 'Tables of our own',
    about: 'bands, yearly rates',
    screens: [Bands, YearlyRates],
    costs: false,
  },
  {
    name: 'rules',
    title: 'Rules of the place',
    about: 'phosphorus, blackouts, water',
    screens: [PlaceRules],
    costs: false,
  },
  {
    name: 'usual-year',
    title: 'The usual year',
    about: 'visits that a test changes',
    screens: [UsualYear, UsualYears],
    costs: false,
  },
  { name: 'work', title: 'Prices of work', about: 'labour, visits, haulage', screens: [WorkPrices], costs: true },
] as const;

/** What has been decided: for the practice, and otherwise for a site or a zone. */
export function SettingsPage() {
  const { part } = useParams();
  const may = useMay();
  const { scope, go, zones, search, ready } = useScope();
  const open = parts.filter(({ costs }) => !costs || may('costs.read'));
  const chosen = open.find(({ name }) => name === part) ?? open[0]!;
  return (
    <PartsPage of="Settings" label="Settings" base="/settings" search={search} parts={open} chosen={chosen}>
      <Box sx={{ display: 'flex', gap: 1.5, flexWrap: 'wrap', mb: 2.5 }}>
        <SitePicker
          label="For"
          none="The whole practice"
          value={scope.siteId ? [scope.siteId] : []}
          onChange={([site]) => go(site ?? '')}
        />
        {scope.siteId && (
          <TextField
            select
            label="Zone"
            value={zones.some(({ id }) => id === scope.zoneId) ? scope.zoneId : ''}
            onChange={(event) => go(scope.siteId!, event.target.value)}
            slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
            sx={{ minWidth: 220 }}
          >
            <MenuItem value="">All its zones</MenuItem>
            {zones.map(({ id, name }) => (
              <MenuItem key={id} value={id}>
                {name}
              </MenuItem>
            ))}
          </TextField>
        )}
        <Typography sx={{ alignSelf: 'center', maxWidth: 420, fontSize: '0.92rem' }}>
          What is decided for a zone comes before its site, and that before the practice.
        </Typography>
      </Box>
      {ready &&
        chosen.screens.map((Screen, at) => (
          <Screen key={`${at} ${scope.siteId ?? ''} ${scope.zoneId ?? ''}`} scope={scope} />
        ))}
    </PartsPage>
  );
}
