import { type Working, type WorkingElsewhere, presentStep } from '@glenfold/agronomy';
import CloseIcon from '@mui/icons-material/Close';
import { Box, CircularProgress, Drawer, IconButton, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { type ReactNode, createContext, useCallback, useContext, useState } from 'react';
import { api } from '../api/client.ts';
import { colours } from './theme.ts';
import { Words } from './Words.tsx';
import { useCurrency } from './session.tsx';
import { useUnits } from './units.tsx';

interface OpenWorking {
  readonly title: string;
  /** The number as it stands on screen. */
  readonly told: string;
  readonly working: Working;
}

const WorkingContext = createContext<((opened: OpenWorking) => void) | null>(null);

/**
 * Open a working by the key w: of the number that has the focus, else of the page's main number, else of the first that
 * is underlined.
 */
export function openWorkingByKey(): void {
  const marked = (which: string): HTMLElement | undefined =>
    // What is folded away is not on the page.
    [...document.querySelectorAll<HTMLElement>(which)].find((number) => !number.closest('details:not([open])'));
  const focused = document.activeElement?.closest<HTMLElement>('[data-working]');
  (focused ?? marked('[data-working="main"]') ?? marked('[data-working]'))?.click();
}

const noteColours = { cap: colours.ochre, rounding: colours.faded, warning: colours.ochre } as const;
const noteNames = { cap: 'Cap', rounding: 'Rounding', warning: 'Mind' } as const;

/** A working that is fetched now that somebody opens it: its address changes with the answer it belongs to. */
function Fetched({ at }: WorkingElsewhere) {
  const { data, error } = useQuery({
    queryKey: ['working', at],
    queryFn: () => api<Working>('GET', at),
    staleTime: Infinity,
    retry: false,
  });
  if (error) return <Typography role="alert">{error.message}</Typography>;
  return data ? <Entries working={data} /> : <CircularProgress aria-label="The working is being fetched" size={24} />;
}

/** A working, step by step; fetched first where the answer left it behind. */
export function Entries({ working }: { readonly working: Working }) {
  const [first] = working;
  return first?.kind === 'elsewhere' ? <Fetched {...first} /> : <Steps working={working} />;
}

const sourceOf = (entry: Working[number] | undefined): string | undefined =>
  entry && 'source' in entry ? entry.source : undefined;

function Steps({ working }: { readonly working: Working }) {
  const { system } = useUnits();
  const currency = useCurrency();
  return (
    <Box component="ol" sx={{ listStyle: 'none', p: 0, m: 0 }}>
      {working.map((entry, index) => (
        <Box component="li" key={index} sx={{ borderTop: `1px solid ${colours.line}`, py: 1.25 }}>
          {entry.kind === 'step' ? (
            <>
              <Box sx={{ display: 'flex', justifyContent: 'space-between', gap: 2 }}>
                <Typography component="span" sx={{ fontWeight: 700 }}>
                  <Words>{entry.label}</Words>
                </Typography>
                <Typography component="span" sx={{ textAlign: 'right', fontWeight: 700 }}>
                  {presentStep(entry.result, entry.unit, system, currency)}
                </Typography>
              </Box>
              <Typography sx={{ color: colours.faded }}>
                <Words>{entry.formula}</Words>
              </Typography>
              <Typography>
                <Words>{entry.numbers}</Words>
              </Typography>
            </>
          ) : entry.kind === 'elsewhere' ? (
            <Fetched {...entry} />
          ) : (
            <Typography sx={{ borderLeft: `3px solid ${noteColours[entry.kind]}`, pl: 1 }}>
              <strong>{noteNames[entry.kind]}. </strong>
              <Words>{entry.text}</Words>
            </Typography>
          )}
          {sourceOf(entry) && sourceOf(entry) !== sourceOf(working[index - 1]) && (
            <Typography sx={{ fontSize: '0.8rem', color: colours.faded, mt: 0.25 }}>
              <Words>{sourceOf(entry)!}</Words>
            </Typography>
          )}
        </Box>
      ))}
    </Box>
  );
}

/** Holds the side sheet in which every number shows how it came about. */
export function WorkingProvider({ children }: { readonly children: ReactNode }) {
  const [opened, setOpened] = useState<OpenWorking | null>(null);
  const [shown, setShown] = useState(false);

  const open = useCallback((next: OpenWorking) => {
    setOpened(next);
    setShown(true);
  }, []);
  return (
    <WorkingContext value={open}>
      {children}
      <Drawer
        anchor="right"
        open={shown}
        onClose={() => setShown(false)}
        slotProps={{ paper: { 'aria-label': 'Working', role: 'dialog' } as object }}
      >
        <Box sx={{ width: 'min(92vw, 460px)', p: 2.5 }}>
          {opened && (
            <>
              <Box sx={{ display: 'flex', justifyContent: 'space-between', alignItems: 'start', mb: 1.5 }}>
                <Box>
                  <Typography sx={{ color: colours.faded }}>
                    <Words>{opened.title}</Words>
                  </Typography>
                  <Typography variant="h1" component="h2">
                    {opened.told}
                  </Typography>
                </Box>
                <IconButton aria-label="Close the working" onClick={() => setShown(false)}>
                  <CloseIcon />
                </IconButton>
              </Box>
              <Entries working={opened.working} />
            </>
          )}
        </Box>
      </Drawer>
    </WorkingContext>
  );
}

interface OpensProps {
  readonly title: string;
  readonly told: string;
  readonly working: Working;
  /** The main number of its page, which the key w opens first. */
  readonly first?: boolean;
  readonly size?: string;
}

/** A number that opens to its working; the dots under it say so. */
export function Opens({ title, told, working, first = false, size }: OpensProps) {
  const open = useContext(WorkingContext);
  if (!open) throw new Error('WorkingProvider is missing.');
  return (
    <Box
      component="button"
      type="button"
      data-working={first ? 'main' : ''}
      title="Open the working"
      aria-label={`${title}: ${told}. Open the working`}
      onClick={() => open({ title, told, working })}
      sx={{
        font: 'inherit',
        fontWeight: 700,
        fontSize: size,
        fontFamily: size ? 'Bitter, serif' : undefined,
        color: 'inherit',
        background: 'none',
        border: 0,
        p: 0,
        // As large as a finger that trembles needs it.
        ...{ minHeight: '24px', minWidth: '24px' },
        cursor: 'pointer',
        textAlign: 'inherit',
        textDecoration: 'underline dotted',
        textDecorationThickness: '2px',
        textUnderlineOffset: '4px',
        '&:hover': { color: colours.slate },
      }}
    >
      {told}
    </Box>
  );
}
