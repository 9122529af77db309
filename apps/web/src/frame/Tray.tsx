import type { RunAnswer } from '@glenfold/contract';
import { Box, Button, CircularProgress, LinearProgress, Popover, Typography } from '@mui/material';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';

import { isUnderWay, queries } from '../api/queries.ts';
import { type RecordKind, touch } from '../api/touches.ts';
import { Trouble } from '../ui/bits.tsx';
import { useMay } from '../ui/session.tsx';
import { colours } from '../ui/theme.ts';
import { useDismissRun, useRunAgain, useStopRun } from './api.ts';

/** What each kind of long work changes, to be read anew once it has ended. */
const changedBy: Readonly<Record<string, readonly RecordKind[]>> = {
  reread: ['result'],
  'owner reports': ['ownerReport'],
};

/** How far it is, in words. */
export function farWords({ state, stopping, done, total, words }: RunAnswer): string {
  if (state === 'waiting') return 'Waits for its turn';
  if (state !== 'running') return words ?? (state === 'stopped' ? 'Stopped before it began' : 'Ended');
  const far = total === null ? 'Begun' : `${done} of ${total}`;
  return stopping ? `${far}; stops after this part` : far;
}

const shareOf = ({ done, total }: RunAnswer): number | undefined => (total ? (100 * done) / total : undefined);

function Line({ run }: { readonly run: RunAnswer }) {
  const [stop, again, dismiss] = [useStopRun(), useRunAgain(), useDismissRun()];
  const may = useMay();
  const share = shareOf(run);
  const failed = run.state === 'failed';
  return (
    <Box component="li" sx={{ borderTop: `1px solid ${colours.line}`, py: 1.25 }}>
      <Typography sx={{ fontWeight: 700 }}>{run.title}</Typography>
      {isUnderWay(run) && (
        <LinearProgress
          aria-label={run.title}
          variant={share === undefined ? 'indeterminate' : 'determinate'}
          value={share ?? 0}
          sx={{ my: 0.75, height: 6 }}
        />
      )}
      <Typography sx={failed ? { borderLeft: `3px solid ${colours.ochre}`, pl: 1 } : { color: colours.faded }}>
        {failed && <strong>Failed. </strong>}
        {farWords(run)}
      </Typography>
      {run.askedBy && <Typography sx={{ color: colours.faded }}>Asked for by {run.askedBy}</Typography>}
      {may('work.write') && (
        <Box sx={{ display: 'flex', gap: 1, mt: 1 }}>
          {isUnderWay(run) ? (
            <Button
              size="small"
              variant="outlined"
              disabled={run.stopping || stop.isPending}
              onClick={() => stop.mutate(run.id)}
            >
              Stop
            </Button>
          ) : (
            <>
              {run.state !== 'done' && (
                <Button size="small" variant="outlined" disabled={again.isPending} onClick={() => again.mutate(run.id)}>
                  Begin again
                </Button>
              )}
              <Button
                size="small"
                variant="outlined"
                disabled={dismiss.isPending}
                onClick={() => dismiss.mutate(run.id)}
              >
                Put away
              </Button>
            </>
          )}
        </Box>
      )}
      <Trouble error={stop.error ?? again.error ?? dismiss.error} />
    </Box>
  );
}

/** Long work of the practice: what runs, how far it is, what came of it. Nothing while there is none. */
export function Tray() {
  const client = useQueryClient();
  const { data: runs } = useQuery(queries.runs());
  const [at, setAt] = useState<HTMLElement | null>(null);

  const before = useRef<readonly RunAnswer[]>([]);
  useEffect(() => {
    const now = (runs ?? []).filter(isUnderWay);
    const ended = before.current.filter(({ id }) => !now.some((run) => run.id === id));
    before.current = now;
    const kinds = ended.flatMap(({ kind }) => changedBy[kind] ?? []);
    if (kinds.length > 0) void touch(client, ...kinds);
  }, [client, runs]);

  if (!runs?.length) return null;
  const under = runs.filter(isUnderWay);
  const failed = runs.some(({ state }) => state === 'failed');
  const says = under.length > 0 ? `${under.length} under way` : failed ? 'Work failed' : 'Work done';
  return (
    <>
      <Button
        onClick={(event) => setAt(event.currentTarget)}
        aria-label={`Long work: ${says}`}
        aria-haspopup="dialog"
        sx={{ color: colours.paper, '&:hover': { background: '#34463F' }, minWidth: 0 }}
        startIcon={
          under[0] ? (
            <CircularProgress
              size={18}
              color="inherit"
              aria-hidden
              variant={shareOf(under[0]) === undefined ? 'indeterminate' : 'determinate'}
              value={shareOf(under[0]) ?? 0}
            />
          ) : undefined
        }
      >
        <Box component="span" sx={{ display: { xs: under[0] ? 'none' : 'inline', sm: 'inline' } }}>
          {says}
        </Box>
      </Button>
      <Popover
        open={at !== null}
        anchorEl={at}
        onClose={() => setAt(null)}
        anchorOrigin={{ vertical: 'bottom', horizontal: 'right' }}
        transformOrigin={{ vertical: 'top', horizontal: 'right' }}
        slotProps={{
          paper: {
            role: 'dialog',
            'aria-label': 'Long work',
            sx: { width: 'min(92vw, 380px)', px: 2, pb: 1, border: `1px solid ${colours.faded}` },
          },
        }}
      >
        <Typography variant="h2" sx={{ my: 1.5, fontSize: '1.1rem' }}>
          Long work
        </Typography>
        <Box component="ul" sx={{ listStyle: 'none', p: 0, m: 0 }}>
          {runs.map((run) => (
            <Line key={run.id} run={run} />
          ))}
        </Box>
        <Typography sx={{ color: colours.faded, fontSize: '0.85rem', mt: 0.5, mb: 1 }}>
          It goes on when you leave this page.
        </Typography>
      </Popover>
    </>
  );
}
