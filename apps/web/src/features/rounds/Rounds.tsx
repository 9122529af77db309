import type { RoundsTask, SiteStateAnswer } from '@glenfold/contract';
import { Box, Button, TextField, Typography } from '@mui/material';
import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { Suspense, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { More } from '../../ui/More.tsx';
import { stepNames, stepPath } from '../../ui/steps.ts';
import { colours } from '../../ui/theme.ts';
import { Empty, Trouble } from '../../ui/bits.tsx';
import { deferred } from '../../ui/deferred.tsx';
import { useMay } from '../../ui/session.tsx';
import { useSettled } from '../../ui/useSettled.ts';
import { useUnits } from '../../ui/units.tsx';
import { Words } from '../../ui/Words.tsx';
import { Beginning } from './Beginning.tsx';
import { roundsQueries } from './api.ts';

const SiteForm = deferred(async () => (await import('../../ui/SiteForm.tsx')).SiteForm);

function Task({ task }: { readonly task: RoundsTask }) {
  return (
    <Box
      component="li"
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: '1fr', sm: '84px minmax(0, 1fr) auto' },
        gap: { xs: 0.5, sm: 2 },
        py: 1.5,
        borderTop: `1px solid ${colours.line}`,
        alignItems: 'center',
      }}
    >
      <Box sx={{ fontFamily: 'Bitter, serif', fontWeight: 700, color: colours.ochre }}>{stepNames[task.step]}</Box>
      <Box>
        <Typography sx={{ fontWeight: 700 }}>{task.words}</Typography>
        <Typography sx={{ color: colours.faded, fontSize: '0.93rem' }}>
          {task.siteName}. <Words>{task.why}</Words>
        </Typography>
      </Box>
      <Button
        variant="outlined"
        component={Link}
        // What is done for a whole site stands on the page of the whole site.
        to={`${stepPath(task.siteId, task.step, task.zoneId)}${task.step === 'rates' && task.zoneId === null ? '?whole=' : ''}`}
        aria-label={`${task.words}, ${task.siteName}`}
        sx={{ justifySelf: 'start' }}
      >
        Go there
      </Button>
    </Box>
  );
}

const stateColours = { done: colours.lichen, act: colours.ochre, waiting: colours.faded, later: colours.line } as const;

function SiteCard({ state }: { readonly state: SiteStateAnswer }) {
  const { say } = useUnits();
  const { site, zones, area, steps } = state;
  return (
    <Box component="li" sx={{ borderTop: `1px solid ${colours.line}`, py: 1.5 }}>
      <Box sx={{ display: 'flex', justifyContent: 'space-between', gap: 2, alignItems: 'baseline' }}>
        <Box
          component={Link}
          to={stepPath(site.id, 'ground')}
          sx={{ color: colours.ink, fontFamily: 'Bitter, serif', fontWeight: 700, fontSize: '1.08rem' }}
        >
          {site.name}
        </Box>
        <Typography sx={{ whiteSpace: 'nowrap', fontSize: '0.92rem' }}>
          {zones === 0 ? 'no zones' : say('area', area)}
        </Typography>
      </Box>
      <Typography sx={{ color: colours.faded, fontSize: '0.92rem' }}>{site.place}</Typography>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 2, rowGap: 0.25, mt: 0.75, fontSize: '0.88rem' }}>
        {steps
          .filter((step) => step.state !== 'later')
          .map(({ step, words, state: stepState }) => (
            <Box key={step} component="span" sx={{ display: 'inline-flex', alignItems: 'center', gap: 0.75 }}>
              <Box
                component="span"
                aria-hidden
                sx={{
                  width: 9,
                  height: 9,
                  borderRadius: '50%',
                  border: `2px solid ${stateColours[stepState]}`,
                  background: stepState === 'waiting' ? 'none' : stateColours[stepState],
                }}
              />
              {stepNames[step]}: {words}
            </Box>
          ))}
      </Box>
    </Box>
  );
}

/** The sites by name, a page at a time; a few letters find one among very many. */
function Sites({ onAdd }: { readonly onAdd: (() => void) | undefined }) {
  const [text, setText] = useState('');
  const pages = useInfiniteQuery(roundsQueries.siteStates(useSettled(text.trim())));
  const sites = pages.data?.pages.flatMap((page) => page.sites) ?? [];
  const count = pages.data?.pages[0]?.count ?? 0;
  return (
    <section aria-labelledby="sites">
      <Box sx={{ display: 'flex', justifyContent: 'space-between', alignItems: 'center', mb: 1.5 }}>
        <Typography variant="h2" id="sites">
          Sites
        </Typography>
        {onAdd && (
          <Button variant="outlined" onClick={onAdd}>
            Add a site
          </Button>
        )}
      </Box>
      {(text !== '' || pages.hasNextPage) && (
        <TextField
          label={text === '' ? `One of ${count} sites` : 'A site'}
          placeholder="Part of its name or place"
          value={text}
          onChange={(event) => setText(event.target.value)}
          fullWidth
          sx={{ mb: 1.5 }}
        />
      )}
      <Trouble error={pages.error} />
      <Box component="ul" sx={list}>
        {sites.map((state) => (
          <SiteCard key={state.site.id} state={state} />
        ))}
      </Box>
      {pages.data && sites.length === 0 && <Typography>No site has “{text.trim()}” in its name or place.</Typography>}
      <More pages={pages}>{`More of the ${count} sites`}</More>
    </section>
  );
}

const list = { listStyle: 'none', m: 0, p: 0 };

/** What wants doing across all sites, most pressing first, and the state of each. */
export function Rounds() {
  const pages = useInfiniteQuery(roundsQueries.tasks());
  // Whether there is any site at all; the list itself asks for what is typed.
  const { data: all, error } = useInfiniteQuery(roundsQueries.siteStates(''));
  const [adding, setAdding] = useState(false);
  const may = useMay();
  // Known before the page is drawn, so that nothing on it moves.
  const { isLoading } = useQuery({ ...roundsQueries.beginning(), enabled: may('practice.manage') });
  const navigate = useNavigate();
  const tasks = pages.data?.pages.flatMap((page) => page.tasks) ?? [];
  const empty = all?.pages[0]?.count === 0;
  const beginning = may('practice.manage') && <Beginning onSite={() => setAdding(true)} />;
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 4 }, py: 3, maxWidth: 1240, width: '100%' }}>
      <Trouble error={pages.error ?? error} />
      {pages.data && all && !isLoading && (
        <Box
          sx={{
            display: 'grid',
            gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: 'minmax(0, 1.45fr) minmax(0, 1fr)' },
            gap: { xs: 4, md: 6 },
          }}
        >
          <section aria-labelledby="todo">
            <Typography variant="h1" id="todo" sx={{ mb: 1.5 }}>
              {empty ? 'Welcome' : tasks.length === 0 ? 'Nothing is waiting' : 'What wants doing'}
            </Typography>
            {empty && beginning}
            {empty && !may('work.write') ? (
              <Typography>No site is there yet: an advisor adds them.</Typography>
            ) : empty ? (
              <Empty title="Begin with a site" action="Add a site" onClick={() => setAdding(true)}>
                A site is a property that you look after. You divide it into zones, enter a laboratory’s result for
                each, and get its rates.
              </Empty>
            ) : (
              <Box component="ol" sx={list}>
                {tasks.map((task) => (
                  <Task key={`${task.siteId} ${task.words}`} task={task} />
                ))}
              </Box>
            )}
            <More pages={pages}>More that wants doing</More>
            {!empty && tasks.length === 0 && (
              <Typography>
                {may('work.write')
                  ? 'Every zone is tested, and its plan is handed over.'
                  : 'Nothing for you to do today.'}
              </Typography>
            )}
            {!empty && may('work.read') && (
              <Button component={Link} to="/retests" sx={{ mt: 2, ml: -1 }}>
                Retests of all sites
              </Button>
            )}
            {!empty && beginning}
          </section>
          {!empty && <Sites onAdd={may('work.write') ? () => setAdding(true) : undefined} />}
        </Box>
      )}
      {adding && (
        <Suspense>
          <SiteForm onClose={() => setAdding(false)} onSaved={({ id }) => void navigate(stepPath(id, 'ground'))} />
        </Suspense>
      )}
    </Box>
  );
}
