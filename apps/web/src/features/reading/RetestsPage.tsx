import type { RetestAnswer } from '@glenfold/contract';
import { Box, Button, Typography } from '@mui/material';
import { useInfiniteQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { More } from '../../ui/More.tsx';
import { Words } from '../../ui/Words.tsx';
import { Empty, Trouble } from '../../ui/bits.tsx';
import { dayWords } from '../../ui/days.ts';
import { stepPath } from '../../ui/steps.ts';
import { colours } from '../../ui/theme.ts';
import { readingQueries } from './api.ts';

/** A zone that is to be tested again. */
function Retest({ retest: { siteId, siteName, zoneId, zone, on, words, due } }: { readonly retest: RetestAnswer }) {
  return (
    <Box
      component="li"
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: '1fr', sm: '170px minmax(0, 1fr) auto' },
        columnGap: 2,
        py: 1,
        borderTop: `1px solid ${colours.line}`,
        alignItems: 'center',
      }}
    >
      <Box sx={{ fontFamily: 'Bitter, serif', fontWeight: 700, color: due ? colours.ochre : colours.ink }}>
        {dayWords(on)}
      </Box>
      <Box>
        <strong>
          {siteName}, {zone}
        </strong>
        <Box sx={{ color: colours.faded }}>
          <Words>{words}</Words>
        </Box>
      </Box>
      <Button
        size="small"
        variant={due ? 'contained' : 'outlined'}
        component={Link}
        to={stepPath(siteId, 'sampling', zoneId)}
        aria-label={`Plan a bag: ${siteName}, ${zone}`}
      >
        Plan a bag
      </Button>
    </Box>
  );
}

function Listed({ head, retests }: { readonly head: string; readonly retests: readonly RetestAnswer[] }) {
  if (retests.length === 0) return null;
  return (
    <Box component="section" aria-label={head} sx={{ mb: 3 }}>
      <Typography variant="h2">{head}</Typography>
      <Box component="ul" sx={{ m: 0, p: 0, listStyle: 'none' }}>
        {retests.map((retest) => (
          <Retest key={retest.zoneId} retest={retest} />
        ))}
      </Box>
    </Box>
  );
}

/** When each zone of every site is to be tested again, the soonest first. */
export function RetestsPage() {
  const pages = useInfiniteQuery(readingQueries.retests());
  const { data, error } = pages;
  if (error) return <Trouble error={error} />;
  if (!data) return <Typography sx={{ px: 3, color: colours.faded }}>Counting the years…</Typography>;
  const [first] = data.pages;
  const retests = data.pages.flatMap((page) => page.retests);
  return (
    <Box component="main" sx={{ px: { xs: 2, sm: 3 }, pt: 2, pb: 4, maxWidth: 900 }}>
      <Typography variant="h1">Retests</Typography>
      <Typography sx={{ color: colours.faded, mb: 2 }}>
        A year after the last lime or sulfur, to see whether it worked; else about every three years. {first!.due} of{' '}
        {first!.count} zones are due.
      </Typography>
      {retests.length === 0 && (
        <Empty title="Nothing to test again yet" to="/" action="Back to the rounds">
          A zone stands here once it has a test with a day.
        </Empty>
      )}
      <Listed head="Due now" retests={retests.filter((one) => one.due)} />
      <Listed head="Later" retests={retests.filter((one) => !one.due)} />
      <More pages={pages}>More zones</More>
    </Box>
  );
}
