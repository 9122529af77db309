import { findGrass, isExclusion } from '@glenfold/agronomy';
import type { GroundFeatureAnswer, LabResultAnswer, ZoneAnswer } from '@glenfold/contract';
import { Box, Button, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { Suspense, lazy, useState } from 'react';
import { useNavigate } from 'react-router';
import { queries } from '../../api/queries.ts';
import type { StepProps } from '../../frame/stepProps.ts';
import { stepPath } from '../../frame/steps.ts';
import { colours } from '../../theme.ts';
import { CoreStick } from '../../ui/CoreStick.tsx';
import { Empty, Trouble } from '../../ui/bits.tsx';
import { useMay } from '../../ui/session.tsx';
import { useUnits } from '../../ui/units.tsx';
import { MeasureForm } from './MeasureForm.tsx';
import { ZoneForm } from './ZoneForm.tsx';
import type { PlanItem } from './plan/planMap.ts';

// Drawing brings a map and a geometry library: only this step waits for them.
const PlanEditor = lazy(async () => ({ default: (await import('./plan/PlanEditor.tsx')).PlanEditor }));

function Facts({ zone }: { readonly zone: ZoneAnswer }) {
  const { say } = useUnits();
  const grass = findGrass(zone.grass);
  const missing = 'not measured';
  const facts: ReadonlyArray<readonly [string, string]> = [
    ['Area', `${say('area', zone.area)}${zone.geometry ? ', from the plan' : ', as typed'}`],
    ['Bag label', zone.label],
    ['Grass', grass.label],
    [
      'pH wanted',
      `${grass.ph[0].toFixed(1)}–${grass.ph[1].toFixed(1)}, aim ${(zone.aimPh ?? grass.aim).toFixed(1)}${zone.aimPh == null ? '' : ' (your own)'}`,
    ],
    ['Surface', zone.surface],
    ['Soil', zone.soilGroup ?? 'not known'],
    ['Shade', zone.shade],
    ['Intensity', zone.intensity],
    ['Clippings', zone.clippings],
    ['Thatch', zone.thatch == null ? missing : say('depth', zone.thatch)],
    ['Roots', zone.rootDepth == null ? missing : `to ${say('depth', zone.rootDepth)}`],
  ];
  return (
    <Box
      component="dl"
      sx={{ display: 'grid', gridTemplateColumns: '110px 1fr', m: 0, rowGap: 0.75, alignContent: 'start' }}
    >
      {facts.map(([name, value]) => [
        <Box component="dt" key={name} sx={{ color: colours.faded }}>
          {name}
        </Box>,
        <Box component="dd" key={`${name} value`} sx={{ m: 0, fontWeight: 700 }}>
          {value}
        </Box>,
      ])}
    </Box>
  );
}

/** The chosen zone beside the plan: what is known of it, and what to do about it. */
function ZonePanel({
  zone,
  result,
  onForm,
}: {
  readonly zone: ZoneAnswer;
  readonly result: LabResultAnswer | undefined;
  readonly onForm: (form: 'change' | 'measure') => void;
}) {
  const may = useMay();
  return (
    <Box component="section" aria-label={`Facts of ${zone.name}`}>
      <Typography variant="h2" sx={{ mb: 1 }}>
        {zone.name}
      </Typography>
      <Facts zone={zone} />
      <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap', my: 1.5 }}>
        {may('work.write') && (
          <Button variant="outlined" onClick={() => onForm('change')}>
            Change the facts
          </Button>
        )}
        <Button variant="outlined" onClick={() => onForm('measure')}>
          Measure thatch and roots
        </Button>
      </Box>
      <CoreStick zone={zone} result={result} size="large" />
    </Box>
  );
}

/** A thing on the ground beside the plan. */
function ThingPanel({ thing }: { readonly thing: GroundFeatureAnswer }) {
  const { say } = useUnits();
  return (
    <Box component="section" aria-label="The chosen thing">
      <Typography variant="h2" sx={{ mb: 1 }}>
        {thing.name ?? thing.kind.charAt(0).toUpperCase() + thing.kind.slice(1)}
      </Typography>
      <Typography>
        {thing.canopyRadius != null && `Canopy ${say('length', thing.canopyRadius)} from the stem. `}
        {isExclusion(thing.kind)
          ? 'Not treated: what of a zone lies under it comes off the area.'
          : thing.kind === 'tree'
            ? 'The ground under its canopy can be parted off as a zone of its own.'
            : 'It takes nothing off the area.'}
      </Typography>
    </Box>
  );
}

/** The ground drawn to scale, divided into zones, and what is known of each. */
export function Ground({ site, zones, results, zone }: StepProps) {
  const [form, setForm] = useState<'closed' | 'add' | 'change' | 'measure'>('closed');
  const [thingId, setThingId] = useState<string | null>(null);
  const { data: plan, error } = useQuery(queries.groundPlan(site.id));
  const may = useMay();
  const navigate = useNavigate();
  const close = (): void => setForm('closed');
  const saved = (saved: ZoneAnswer): void => {
    close();
    void navigate(stepPath(site.id, 'ground', saved.id));
  };
  const choose = (item: PlanItem | null): void => {
    setThingId(item?.what === 'feature' ? item.id : null);
    if (item?.what === 'zone') void navigate(stepPath(site.id, 'ground', item.id));
  };
  const thing = plan?.features.find(({ id }) => id === thingId);
  const chosen: PlanItem | null = thing
    ? { what: 'feature', id: thing.id }
    : zone
      ? { what: 'zone', id: zone.id }
      : null;
  const result = results.find(({ zoneId }) => zoneId === zone?.id);
  return (
    <>
      <Box sx={{ display: 'flex', justifyContent: 'space-between', flexWrap: 'wrap', gap: 1, mb: 1.5 }}>
        <Typography variant="h1" component="h2">
          Plan of the ground
        </Typography>
        {may('work.write') && (
          <Button variant="contained" onClick={() => setForm('add')}>
            Add a zone by its area
          </Button>
        )}
      </Box>
      <Trouble error={error} />
      {zones.length === 0 && (
        <Empty title={may('work.write') ? 'Divide the ground into zones' : 'No zones yet'}>
          {may('work.write')
            ? 'Nothing can be sampled or treated before its area is known: every rate is multiplied by it. Draw one zone for each part that differs in grass, soil, shade or treatment, or add it by its area alone.'
            : 'An advisor divides the ground into zones first.'}
        </Empty>
      )}
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: 'minmax(0, 1fr)', lg: 'minmax(0, 1fr) 300px' },
          gap: 3,
          alignItems: 'start',
        }}
      >
        {plan && (
          <Suspense fallback={<Typography sx={{ color: colours.faded }}>Laying out the sheet…</Typography>}>
            <PlanEditor siteId={site.id} plan={plan} chosen={chosen} onChoose={choose} />
          </Suspense>
        )}
        {thing ? <ThingPanel thing={thing} /> : zone && <ZonePanel zone={zone} result={result} onForm={setForm} />}
      </Box>
      {form === 'measure' && zone && <MeasureForm zone={zone} onClose={close} />}
      {(form === 'add' || form === 'change') && (
        <ZoneForm siteId={site.id} zone={form === 'change' ? zone : undefined} onClose={close} onSaved={saved} />
      )}
    </>
  );
}
