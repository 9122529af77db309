import { findGrass } from '@glenfold/agronomy';
import type { ZoneAnswer } from '@glenfold/contract';
import { Box, Button, Typography } from '@mui/material';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { StepProps } from '../../frame/stepProps.ts';
import { stepPath } from '../../frame/steps.ts';
import { colours } from '../../theme.ts';
import { CoreStick } from '../../ui/CoreStick.tsx';
import { Empty } from '../../ui/bits.tsx';
import { useMay } from '../../ui/session.tsx';
import { useUndo } from '../../ui/undo.tsx';
import { useUnits } from '../../ui/units.tsx';
import { MeasureForm } from './MeasureForm.tsx';
import { ZoneForm } from './ZoneForm.tsx';
import { ZoneOutline } from './ZoneOutline.tsx';

function Facts({ zone }: { readonly zone: ZoneAnswer }) {
  const { say } = useUnits();
  const grass = findGrass(zone.grass);
  const missing = 'not measured';
  const facts: ReadonlyArray<readonly [string, string]> = [
    ['Area', `${say('area', zone.area)}${zone.geometry ? ', measured on the map' : ', as typed'}`],
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

/** The zones of a site and what is known of each. */
export function Ground({ site, zones, results, zone }: StepProps) {
  const [form, setForm] = useState<'closed' | 'add' | 'change' | 'measure'>('closed');
  const { remove } = useUndo();
  const may = useMay();
  const navigate = useNavigate();
  const close = (): void => setForm('closed');
  const saved = (saved: ZoneAnswer): void => {
    close();
    void navigate(stepPath(site.id, 'ground', saved.id));
  };
  const result = results.find(({ zoneId }) => zoneId === zone?.id);
  return (
    <>
      {zone ? (
        <>
          <Box sx={{ display: 'flex', justifyContent: 'space-between', flexWrap: 'wrap', gap: 1, mb: 2 }}>
            <Typography variant="h1" component="h2">
              {zone.name}
            </Typography>
            <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
              {may('work.delete') && (
                <Button variant="outlined" onClick={() => remove(`/zones/${zone.id}`, zone.name)}>
                  Delete
                </Button>
              )}
              {may('work.write') && (
                <Button variant="outlined" onClick={() => setForm('change')}>
                  Change the facts
                </Button>
              )}
              <Button variant={may('work.write') ? 'outlined' : 'contained'} onClick={() => setForm('measure')}>
                Measure thatch and roots
              </Button>
              {may('work.write') && (
                <Button variant="contained" onClick={() => setForm('add')}>
                  Add a zone
                </Button>
              )}
            </Box>
          </Box>
          <Box
            sx={{
              display: 'grid',
              gridTemplateColumns: {
                xs: '1fr',
                sm: '268px minmax(240px, 1fr)',
                lg: '268px minmax(260px, 340px) minmax(0, 1fr)',
              },
              gap: 4,
              alignItems: 'start',
            }}
          >
            <CoreStick zone={zone} result={result} size="large" />
            <Facts zone={zone} />
            <ZoneOutline zones={zones} chosen={zone.id} siteId={site.id} />
          </Box>
        </>
      ) : !may('work.write') ? (
        <Empty title="No zones yet">An advisor divides the ground into zones first.</Empty>
      ) : (
        <Empty title="Divide the ground into zones" action="Add a zone" onClick={() => setForm('add')}>
          Nothing can be sampled or treated before its area is known: every rate is multiplied by it. Add one zone for
          each part that differs in grass, soil, shade or treatment.
        </Empty>
      )}
      {form === 'measure' && zone && <MeasureForm zone={zone} onClose={close} />}
      {(form === 'add' || form === 'change') && (
        <ZoneForm siteId={site.id} zone={form === 'change' ? zone : undefined} onClose={close} onSaved={saved} />
      )}
    </>
  );
}
