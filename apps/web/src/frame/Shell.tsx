import SearchIcon from '@mui/icons-material/Search';
import {
  Autocomplete,
  Box,
  Button,
  Dialog,
  DialogContent,
  DialogTitle,
  TextField,
  ToggleButton,
  ToggleButtonGroup,
  Typography,
} from '@mui/material';
import { useQueries, useQuery } from '@tanstack/react-query';
import { useEffect, useMemo, useState } from 'react';
import { Link, Outlet, useNavigate } from 'react-router';
import { queries } from '../api/queries.ts';
import { fetchGround } from '../features/ground/Ground.tsx';
import { colours } from '../theme.ts';
import { useUnits } from '../ui/units.tsx';
import { useOpenOffered } from '../ui/working.tsx';
import { useMay, useSession } from '../ui/session.tsx';
import { AccountMenu } from './AccountMenu.tsx';
import { usePages } from './pages.ts';
import { keyList, useKeys } from './keyboard.ts';
import { stepPath } from './steps.ts';

function Find({ open, onClose }: { readonly open: boolean; readonly onClose: () => void }) {
  const navigate = useNavigate();
  const { data: rounds } = useQuery({ ...queries.rounds(), enabled: open });
  const sites = useMemo(() => rounds?.sites.map(({ site }) => site) ?? [], [rounds]);
  const zones = useQueries({ queries: sites.map((site) => ({ ...queries.zones(site.id), enabled: open })) });
  const options = sites.flatMap((site, index) => [
    { label: site.name, path: stepPath(site.id, 'ground') },
    ...(zones[index]?.data ?? []).map((zone) => ({
      label: `${zone.name} (${zone.label}), ${site.name}`,
      path: stepPath(site.id, 'reading', zone.id),
    })),
  ]);
  return (
    <Dialog open={open} onClose={onClose} fullWidth maxWidth="sm">
      <DialogTitle>Find a site or zone</DialogTitle>
      <DialogContent>
        <Autocomplete
          open
          openOnFocus
          options={options}
          getOptionKey={(option) => option.path}
          onChange={(_event, option) => {
            if (option) void navigate(option.path);
            onClose();
          }}
          renderInput={(params) => <TextField {...params} autoFocus placeholder="Name or bag label" />}
          sx={{ mt: 1, mb: 28 }}
        />
      </DialogContent>
    </Dialog>
  );
}

function Keys({ open, onClose }: { readonly open: boolean; readonly onClose: () => void }) {
  return (
    <Dialog open={open} onClose={onClose}>
      <DialogTitle>Keys</DialogTitle>
      <DialogContent>
        <Box component="dl" sx={{ display: 'grid', gridTemplateColumns: '80px 1fr', m: 0, rowGap: 1 }}>
          {keyList.map(([keys, what]) => [
            <Box component="dt" key={keys} sx={{ fontWeight: 700 }}>
              {keys}
            </Box>,
            <Box component="dd" key={what} sx={{ m: 0 }}>
              {what}
            </Box>,
          ])}
        </Box>
        <Button onClick={onClose} sx={{ mt: 2 }} variant="outlined">
          Close
        </Button>
      </DialogContent>
    </Dialog>
  );
}

/** The bar over every page: name, way home, find, units. */
export function Shell() {
  const { system, choose } = useUnits();
  const { practice } = useSession();
  const may = useMay();
  const [finding, setFinding] = useState(false);
  const [keys, setKeys] = useState(false);
  const openOffered = useOpenOffered();
  const works = may('work.read');
  useEffect(() => {
    if (!works) return undefined;
    const idle = requestIdleCallback(fetchGround);
    return () => cancelIdleCallback(idle);
  }, [works]);
  useKeys(useMemo(() => ({ '/': () => setFinding(true), '?': () => setKeys(true), w: openOffered }), [openOffered]));
  const pages = [[may('work.read') ? 'Rounds' : 'Reports', '/'] as const, ...usePages()];
  const bar = { color: colours.paper, '&:hover': { background: '#34463F' }, minWidth: 0 };
  return (
    <Box sx={{ minHeight: '100vh', display: 'flex', flexDirection: 'column' }}>
      <Box
        component="header"
        sx={{
          background: colours.ink,
          color: colours.paper,
          display: 'flex',
          alignItems: 'center',
          gap: { xs: 0.5, sm: 2 },
          px: { xs: 1.5, sm: 2 },
          minHeight: 46,
          flexWrap: 'wrap',
        }}
      >
        <Box
          component={Link}
          to="/"
          sx={{
            color: 'inherit',
            textDecoration: 'none',
            fontFamily: 'Bitter, serif',
            fontWeight: 700,
            fontSize: '1.15rem',
            letterSpacing: '0.02em',
          }}
        >
          Glenfold
        </Box>
        <Typography sx={{ color: colours.line, flex: 1, display: { xs: 'none', md: 'block' }, fontSize: '0.92rem' }}>
          {practice?.name}
          {practice?.demo && ' (made-up demo data)'}
        </Typography>
        <Box sx={{ flex: { xs: 1, md: 'none' } }} />
        {pages.map(([name, path]) => (
          <Button key={path} component={Link} to={path} sx={{ ...bar, display: { xs: 'none', sm: 'inline-flex' } }}>
            {name}
          </Button>
        ))}
        {may('work.read') && (
          <Button onClick={() => setFinding(true)} sx={bar} startIcon={<SearchIcon />} aria-label="Find a site or zone">
            <Box component="span" sx={{ display: { xs: 'none', sm: 'inline' } }}>
              Find
            </Box>
          </Button>
        )}
        <ToggleButtonGroup
          exclusive
          size="small"
          value={system}
          onChange={(_event, chosen: typeof system | null) => chosen && choose(chosen)}
          aria-label="Units"
          sx={{
            '& .MuiToggleButton-root': {
              color: colours.paper,
              borderColor: colours.faded,
              '&.Mui-selected': {
                background: colours.paper,
                color: colours.ink,
                '&:hover': { background: colours.paper },
              },
            },
          }}
        >
          <ToggleButton value="us">US</ToggleButton>
          <ToggleButton value="metric">Metric</ToggleButton>
        </ToggleButtonGroup>
        <AccountMenu />
      </Box>
      <Outlet />
      <Find open={finding} onClose={() => setFinding(false)} />
      <Keys open={keys} onClose={() => setKeys(false)} />
    </Box>
  );
}
