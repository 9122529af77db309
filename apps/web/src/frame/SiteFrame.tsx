import { Box, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { Suspense, useEffect, useMemo, useState } from 'react';
import { matchPath, useNavigate, useParams } from 'react-router';
import { type Step, steps } from '@glenfold/contract';
import { queries } from '../api/queries.ts';
import { ApiProblem } from '../api/client.ts';
import { colours } from '../ui/theme.ts';
import { Boundary } from '../ui/Boundary.tsx';
import { Empty, Opening, Trouble } from '../ui/bits.tsx';
import { type Deferred, deferred } from '../ui/deferred.tsx';
import { useMay } from '../ui/session.tsx';
import { useUndo } from '../ui/undo.tsx';
import { ShareForm } from '../features/report/ShareForm.tsx';
import { SiteForm } from '../ui/SiteForm.tsx';
import { SiteHead } from './SiteHead.tsx';
import { StepLine } from './StepLine.tsx';
import { ZoneColumn } from './ZoneColumn.tsx';
import { useKeys } from './keyboard.ts';
import type { StepProps } from '../ui/stepProps.ts';
import { isStep, stepNames, stepPath } from '../ui/steps.ts';

/** Code of a step comes when somebody goes to it, or when the page has nothing else to do. */
const screens: Readonly<Record<Step, Deferred<StepProps>>> = {
  ground: deferred(async () => (await import('../features/ground/Ground.tsx')).Ground),
  sampling: deferred(async () => (await import('../features/sampling/Sampling.tsx')).Sampling),
  lab: deferred(async () => (await import('../features/lab/Lab.tsx')).Lab),
  reading: deferred(async () => (await import('../features/reading/Reading.tsx')).Reading),
  rates: deferred(async () => (await import('../features/rates/Rates.tsx')).Rates),
  season: deferred(async () => (await import('../features/season/Season.tsx')).Season),
  logbook: deferred(async () => (await import('../features/logbook/Logbook.tsx')).Logbook),
  proof: deferred(async () => (await import('../features/proof/Proof.tsx')).Proof),
};

/** ms of quiet after which the code of the other steps is brought, one after the other. */
const QUIET = 1_500;

/** Who is on one step goes to another: its code is there by then. */
function useStepsAhead(): void {
  useEffect(() => {
    const timer = setTimeout(() => {
      void Object.values(screens).reduce(
        (before, { fetch }) => before.then(fetch).catch(() => undefined),
        Promise.resolve<unknown>(undefined),
      );
    }, QUIET);
    return () => clearTimeout(timer);
  }, []);
}

/** The address of a site's step, with the zone that stays chosen. */
const PATH = '/sites/:siteId/:step?/:zoneId?';

/** A site: the line of steps, the zones, and the work of one step. */
export function SiteFrame() {
  const { siteId = '', step: stepText, zoneId } = useParams();
  const navigate = useNavigate();
  const step: Step = isStep(stepText) ? stepText : 'ground';
  const [stateQuery, zonesQuery, resultsQuery] = [
    useQuery(queries.siteState(siteId)),
    useQuery(queries.zones(siteId)),
    useQuery(queries.labResults(siteId)),
  ];
  const [state, zones, results] = [stateQuery.data, zonesQuery.data, resultsQuery.data];
  // Asked for beside the zones, not after them.
  useQuery({ ...queries.groundThings(siteId), enabled: step === 'ground', notifyOnChangeProps: [] });
  const [changing, setChanging] = useState(false);
  useStepsAhead();
  const { remove } = useUndo();
  const may = useMay();
  const [sharing, setSharing] = useState(false);
  const zone = zones?.find(({ id }) => id === zoneId) ?? zones?.[0];

  useKeys(
    useMemo(() => {
      // The address is ahead of what is drawn while a page is being prepared: quick keys go on from there.
      const now = (): { readonly step?: string; readonly zoneId?: string } => ({
        ...matchPath(PATH, window.location.pathname)?.params,
      });
      const move = (by: number): void => {
        if (!zones || zones.length === 0) return;
        const at = now();
        const index = Math.max(
          0,
          zones.findIndex(({ id }) => id === at.zoneId),
        );
        const next = zones[(index + by + zones.length) % zones.length];
        if (next) void navigate(stepPath(siteId, isStep(at.step) ? at.step : 'ground', next.id));
      };
      const toStep = steps.map((name, index) => [
        `g ${index + 1}`,
        () => void navigate(stepPath(siteId, name, now().zoneId)),
      ]);
      return { ...(Object.fromEntries(toStep) as Record<string, () => void>), '[': () => move(-1), ']': () => move(1) };
    }, [zones, siteId, navigate]),
  );

  if (!state || !zones || !results) {
    const failed = [stateQuery, zonesQuery, resultsQuery].filter(({ error }) => error !== null);
    const [first] = failed;
    if (first?.error) {
      const gone = first.error instanceof ApiProblem && first.error.status === 404;
      return (
        <Box component="main" sx={{ px: 3 }}>
          <Trouble error={first.error} />
          {gone ? (
            <Empty whole title="This site cannot be shown" to="/" action="Back to the rounds">
              It may have been deleted.
            </Empty>
          ) : (
            <Empty
              title="The site could not be opened"
              action="Try again"
              onClick={() => failed.forEach(({ refetch }) => void refetch())}
            >
              Part of it did not come from the server. Nothing is lost.
            </Empty>
          )}
        </Box>
      );
    }
    return <Typography sx={{ p: 3, color: colours.faded }}>Opening the site…</Typography>;
  }
  const Screen = screens[step];
  return (
    <>
      <SiteHead
        site={state.site}
        onChange={may('work.write') ? () => setChanging(true) : undefined}
        onShare={may('report.share') ? () => setSharing(true) : undefined}
      />
      <StepLine siteId={siteId} zoneId={zone?.id} current={step} states={state.steps} />
      <Box
        sx={{
          flex: 1,
          display: 'grid',
          gridTemplateColumns: {
            xs: 'minmax(0, 1fr)',
            md: zones.length > 0 ? '228px minmax(0, 1fr)' : 'minmax(0, 1fr)',
          },
          gridTemplateRows: { xs: 'auto 1fr', md: '1fr' },
        }}
      >
        {zones.length > 0 && (
          <ZoneColumn siteId={siteId} step={step} zones={zones} chosen={zone?.id} results={results} />
        )}
        <Box
          component="main"
          aria-label={stepNames[step]}
          sx={{
            px: { xs: 2, md: 3 },
            py: 2,
            minWidth: 0,
            borderLeft: { md: zones.length > 0 ? `1px solid ${colours.line}` : 0 },
          }}
        >
          <Boundary key={step} what="this step">
            <Suspense fallback={<Opening />}>
              <Screen
                key={step === 'ground' || step === 'sampling' ? step : zone?.id}
                site={state.site}
                zones={zones}
                results={results}
                zone={zone}
              />
            </Suspense>
          </Boundary>
        </Box>
      </Box>
      {sharing && <ShareForm site={state.site} onClose={() => setSharing(false)} />}
      {changing && (
        <SiteForm
          site={state.site}
          onClose={() => setChanging(false)}
          onSaved={() => setChanging(false)}
          onDelete={() => {
            remove(`/sites/${siteId}`, state.site.name);
            void navigate('/');
          }}
        />
      )}
    </>
  );
}
