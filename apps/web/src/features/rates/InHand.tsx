import { withReadableDays } from '@glenfold/contract';
import type { ZoneProgramAnswer } from '@glenfold/contract';
import { Box, Button, Link as MuiLink, Typography } from '@mui/material';
import { Words } from '../../ui/Words.tsx';
import { Trouble } from '../../ui/bits.tsx';
import { useMay } from '../../ui/session.tsx';
import { colours } from '../../ui/theme.ts';
import { dayOf } from '../../ui/today.ts';
import { useBeginYear } from './api.ts';

/** What its owner has in hand, and what the program says now that it did not then. */
export function InHand({ handedOver }: Pick<ZoneProgramAnswer, 'handedOver'>) {
  if (!handedOver) return null;
  const { at, pdf, differences } = handedOver;
  return (
    <Box
      sx={{
        borderLeft: `3px solid ${differences.length > 0 ? colours.ochre : colours.lichen}`,
        px: 1.5,
        py: 0.25,
        mb: 1.5,
      }}
    >
      <MuiLink href={pdf} target="_blank">
        Handed over on {withReadableDays(dayOf(new Date(at)))}
      </MuiLink>
      {differences.length === 0 ? (
        ', and nothing has changed since.'
      ) : (
        <>
          . Changed since, until a new version is handed over:
          <Box component="ul" sx={{ m: 0, pl: 2.25 }}>
            {differences.map((text) => (
              <li key={text}>
                <Words>{text}</Words>
              </li>
            ))}
          </Box>
        </>
      )}
    </Box>
  );
}

/** The button that begins the next year: what was put off is due in it. */
export function BeginYear({ siteId }: { readonly siteId: string }) {
  const begin = useBeginYear(siteId);
  const may = useMay();
  if (!may('work.write')) return null;
  return (
    <>
      <Button variant="outlined" size="small" disabled={begin.isPending} onClick={() => begin.mutate(undefined)}>
        Begin the next year
      </Button>
      <Trouble error={begin.error} />
    </>
  );
}

interface YearBeforeProps {
  readonly siteId: string;
  readonly yearBefore: ZoneProgramAnswer['yearBefore'];
}

/** What waited for this year comes first; and the year that is over is said to be. */
export function YearBefore({ siteId, yearBefore }: YearBeforeProps) {
  if (!yearBefore) return null;
  const { over, waits, retested, began } = yearBefore;
  if (!over && waits.length === 0) return null;
  return (
    <Box
      component="section"
      aria-label="From the year before"
      sx={{ borderLeft: `3px solid ${colours.ochre}`, background: colours.ochreWash, px: 1.5, py: 0.75, mb: 1.5 }}
    >
      {over && (
        <Box sx={{ display: 'flex', gap: 2, flexWrap: 'wrap', alignItems: 'baseline' }}>
          <Box sx={{ flex: '1 1 320px' }}>
            <strong>The year that was handed over is over.</strong> The next takes over what was put off, and what waits
            for the retest.
          </Box>
          <BeginYear siteId={siteId} />
        </Box>
      )}
      {waits.length > 0 && (
        <>
          <Typography sx={{ fontWeight: 700 }}>
            {over && began === null ? 'It would take over' : 'From the year before'}
            {retested ? ', and the ground was tested again since' : ': test the ground first'}
          </Typography>
          <Box component="ul" sx={{ m: 0, pl: 2.25 }}>
            {waits.map((text) => (
              <li key={text}>
                <Words>{text}</Words>
              </li>
            ))}
          </Box>
        </>
      )}
    </Box>
  );
}
