import { InputError, readBagCode, writeBagCode } from '@glenfold/agronomy';
import SearchIcon from '@mui/icons-material/Search';
import {
  Autocomplete,
  Box,
  Button,
  Checkbox,
  FormControlLabel,
  TextField,
  ToggleButton,
  ToggleButtonGroup,
  Typography,
} from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { Suspense, useEffect, useMemo, useState } from 'react';
import { Link, Outlet, useNavigate } from 'react-router';
import { queries } from '../api/queries.ts';
import { DialogFrame } from '../ui/DialogFrame.tsx';
import { colours, onDark } from '../ui/theme.ts';
import { deferred } from '../ui/deferred.tsx';
import { useDeviceState } from '../ui/useSessionState.ts';
import { useSettled } from '../ui/useSettled.ts';
import { useFollowOwnUnits, useOwnUnits } from '../ui/ownUnits.ts';
import { useUnits } from '../ui/units.tsx';
import { openWorkingByKey } from '../ui/working.tsx';
import { useMay, useSession } from '../ui/session.tsx';
import { useUnsent } from './BeforeLeaving.tsx';
import { AccountMenu } from './AccountMenu.tsx';
import { Tray } from './Tray.tsx';
import { usePages } from './pages.ts';
import { KEYS_ACT, keyList, useKeys } from './keyboard.ts';
import { stepPath } from '../ui/steps.ts';

const ScanDialog = deferred(async () => (await import('../features/sampling/scan/ScanDialog.tsx')).ScanDialog);

interface Findable {
  readonly label: string;
  readonly path: string;
}

/** Words for a text that could be a bag's code and is none; what else it may be is no matter of codes. */
function codeTrouble(text: string): string | null {
  const plain = text.replace(/[\s-]/g, '');
  if (!/^[0-9a-z]{6}$/i.test(plain)) return null;
  try {
    readBagCode(plain, 'The code');
    return 'No bag of this practice has this code. It may belong to another practice, or its bag was deleted.';
  } catch (error) {
    return error instanceof InputError ? `${error.message}.` : null;
  }
}

function Find({ open, onClose }: { readonly open: boolean; readonly onClose: () => void }) {
  const navigate = useNavigate();
  const [text, setText] = useState('');
  const [scanning, setScanning] = useState(false);
  const settled = useSettled(text.trim());
  const { data: found, isPlaceholderData } = useQuery({ ...queries.find(settled), enabled: open });
  // What is shown until the answer comes is of other letters: only what has these too stays.
  const stale = isPlaceholderData || settled !== text.trim();
  // The calculations come with their own code, once somebody looks for something.
  const { data: pocket } = useQuery({
    queryKey: ['pocket'],
    queryFn: () => import('../features/pocket/subjects.ts'),
    enabled: open,
    staleTime: Infinity,
  });
  const calculations = pocket
    ? pocket.subjects.flatMap(({ title: heading, calculators }) =>
        calculators
          .filter((one) => settled.length > 1 && pocket.found(settled, one, heading))
          .map((one) => ({ label: `${one.title} (pocket, ${heading.toLowerCase()})`, path: pocket.pathOf(one) })),
      )
    : [];
  const options: Findable[] = found
    ? [
        ...found.sites.map(({ id, name }) => ({ label: name, path: stepPath(id, 'ground') })),
        ...found.zones.map(({ id, name, label, siteId, siteName }) => ({
          label: `${name} (${label}), ${siteName}`,
          path: stepPath(siteId, 'reading', id),
        })),
        ...found.bags.map(({ code, siteName, zoneNames, state }) => ({
          label: `Bag ${writeBagCode(code)}: ${siteName}, ${zoneNames.join(', ')} (${state})`,
          path: `/bags?code=${code}`,
        })),
        ...calculations,
      ]
    : calculations;
  const close = (): void => {
    setScanning(false);
    setText('');
    onClose();
  };
  const go = (path: string): void => {
    void navigate(path);
    close();
  };
  if (open && scanning)
    return (
      <Suspense fallback={null}>
        <ScanDialog onCode={(scanned) => go(`/bags?code=${encodeURIComponent(scanned)}`)} onClose={close} />
      </Suspense>
    );
  return (
    <DialogFrame title="Find a site, a zone, a bag or a calculation" open={open} onClose={close}>
      <Button variant="outlined" onClick={() => setScanning(true)} sx={{ mb: 1 }}>
        Scan a bag’s label
      </Button>
      <Autocomplete
        open
        openOnFocus
        autoHighlight
        options={options}
        filterOptions={(all) =>
          stale ? all.filter((one) => one.label.toLowerCase().includes(text.trim().toLowerCase())) : all
        }
        loading={stale}
        getOptionKey={(option) => option.path}
        inputValue={text}
        onInputChange={(_event, value) => setText(value)}
        onChange={(_event, option) => {
          if (option) go(option.path);
        }}
        noOptionsText={codeTrouble(text) ?? 'Nothing of this name, label or code'}
        renderInput={(params) => (
          <TextField {...params} autoFocus placeholder="Name, bag label or code, or what to work out" />
        )}
        slotProps={{ listbox: { sx: { maxHeight: 232 } } }}
        sx={{ mt: 1, mb: 31 }}
      />
    </DialogFrame>
  );
}

function Keys({ open, onClose }: { readonly open: boolean; readonly onClose: () => void }) {
  const [act, setAct] = useDeviceState(KEYS_ACT, true);
  return (
    <DialogFrame title="Keys" width="xs" open={open} onClose={onClose}>
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
      <FormControlLabel
        sx={{ mt: 2, display: 'flex' }}
        control={<Checkbox checked={act} onChange={(_event, chosen) => setAct(chosen)} />}
        label="Single keys act, on this device"
      />
      <Button onClick={onClose} sx={{ mt: 2 }} variant="outlined">
        Close
      </Button>
    </DialogFrame>
  );
}

/** Whether the person has told the browser to fetch little. */
const savesData = (): boolean =>
  (navigator as { readonly connection?: { readonly saveData?: boolean } }).connection?.saveData === true;

/** The bar over every page: name, way home, find, units. */
export function Shell() {
  const { system } = useUnits();
  const { practice } = useSession();
  const choose = useOwnUnits();
  useFollowOwnUnits();
  const may = useMay();
  const [finding, setFinding] = useState(false);
  const [keys, setKeys] = useState(false);
  const works = may('work.read');
  useEffect(() => {
    // Who pays by the byte fetches nothing ahead.
    if (!works || savesData()) return undefined;
    const idle = requestIdleCallback(() => {
      void import('../features/ground/Ground.tsx').then(({ fetchGround }) => fetchGround()).catch(() => undefined);
    });
    return () => cancelIdleCallback(idle);
  }, [works]);
  useKeys(useMemo(() => ({ '/': () => setFinding(true), '?': () => setKeys(true), w: openWorkingByKey }), []));
  const unsent = useUnsent();
  const pages = [[may('work.read') ? 'Rounds' : 'Reports', '/'] as const, ...usePages()];
  const bar = { color: colours.paper, '&:hover': { background: '#34463F' }, minWidth: 0 };
  return (
    <Box sx={{ minHeight: '100vh', display: 'flex', flexDirection: 'column' }}>
      <Box
        component="header"
        sx={{
          ...onDark,
          display: 'flex',
          alignItems: 'center',
          gap: { xs: 0.5, sm: 1 },
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
        <Typography
          noWrap
          sx={{ color: colours.line, flex: 1, minWidth: 0, display: { xs: 'none', md: 'block' }, fontSize: '0.92rem' }}
        >
          {practice?.name}
          {practice?.demo && ' (made up)'}
        </Typography>
        <Box sx={{ flex: { xs: 1, md: 'none' } }} />
        {pages.map(([name, path]) => (
          <Button key={path} component={Link} to={path} sx={{ ...bar, display: { xs: 'none', sm: 'inline-flex' } }}>
            {name}
          </Button>
        ))}
        {unsent > 0 && (
          <Button component={Link} to="/sent" sx={bar}>
            {unsent} not sent
          </Button>
        )}
        {may('work.read') && <Tray />}
        {may('work.read') && (
          <Button
            onClick={() => setFinding(true)}
            sx={bar}
            startIcon={<SearchIcon />}
            aria-label="Find a site, a zone, a bag or a calculation"
          >
            <Box component="span" sx={{ display: { xs: 'none', sm: 'inline' } }}>
              Find
            </Box>
          </Button>
        )}
        <ToggleButtonGroup
          exclusive
          size="small"
          value={system}
          onChange={(_event, chosen: typeof system | null) => {
            if (chosen) choose(chosen);
          }}
          aria-label="Units"
          sx={{
            '& .MuiToggleButton-root': {
              color: colours.paper,
              borderColor: colours.line,
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
        <AccountMenu onKeys={() => setKeys(true)} />
      </Box>
      <Outlet />
      <Find open={finding} onClose={() => setFinding(false)} />
      <Keys open={keys} onClose={() => setKeys(false)} />
    </Box>
  );
}
