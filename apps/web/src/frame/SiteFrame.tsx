import { Box, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { matchPath, useNavigate, useParams } from 'react-router';
import { type Step, steps } from '@glenfold/contract';
import { queries } from '../api/queries.ts';
import { Ground } from '../features/ground/Ground.tsx';
import { Lab } from '../features/lab/Lab.tsx';
import { Rates } from '../features/rates/Rates.tsx';
import { Reading } from '../features/reading/Reading.tsx';
import { Logbook } from '../features/logbook/Logbook.tsx';
import { Proof } from '../features/proof/Proof.tsx';
import { Season } from '../features/season/Season.tsx';
import { Sampling } from '../features/sampling/Sampling.tsx';
import { ApiProblem } from '../api/client.ts';
import { colours } from '../ui/theme.ts';
import { Boundary } from '../ui/Boundary.tsx';
import { Empty, Trouble } from '../ui/bits.tsx';
import { useMay } from '../ui/session.tsx';
import { useUndo } from '../ui/undo.tsx';
import { ShareForm } from './ShareForm.tsx';
import { SiteForm } from '../ui/SiteForm.tsx';
import { SiteHead } from './SiteHead.tsx';
import { StepLine } from './StepLine.tsx';
import { ZoneColumn } from './ZoneColumn.tsx';
import { useKeys } from './keyboard.ts';
import type { StepProps } from '../ui/stepProps.ts';
import { isStep, stepNames, stepPath } from '../ui/steps.ts';

const screens: Readonly<Record<Step, (props: StepProps) => React.ReactNode>> = {
  ground: Ground,
  sampling: Sampling,
  lab: Lab,
  reading: Reading,
  rates: Rates,
  season: Season,
  logbook: Logbook,
  proof: Proof,
};

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
        String(index + 1),
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
            <Empty title="This site cannot be shown" to="/" action="Back to the rounds">
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
            <Screen
              key={step === 'ground' || step === 'sampling' ? step : zone?.id}
              site={state.site}
              zones={zones}
              results={results}
              zone={zone}
            />
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
