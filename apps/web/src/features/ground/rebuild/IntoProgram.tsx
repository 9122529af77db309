import { fillMaterials } from '@glenfold/agronomy';
import type { TreatmentChangeAnswer, TreatmentInput, ZoneAnswer } from '@glenfold/contract';
import { Box, Button, Link as MuiLink, TextField, Typography } from '@mui/material';
import { useState } from 'react';
import { Link } from 'react-router';
import { useChange, saveOver } from '../../../api/changes.ts';
import { treatmentPath } from '../../../api/treatments.ts';
import { Trouble } from '../../../ui/bits.tsx';
import { useMay } from '../../../ui/session.tsx';
import { stepPath } from '../../../ui/steps.ts';
import { colours } from '../../../ui/theme.ts';
import type { Wanted } from './wanted.ts';

const known = new Set<string>(fillMaterials.materials.map(({ name }) => name));

/** A layer as a treatment of a zone, by the fields of its remedy. */
function inputOf({ truck, payload, haul }: Wanted, layer: Wanted['layers'][number], reason: string): TreatmentInput {
  const { material, depth, price } = layer;
  const values = {
    soil: known.has(material) ? material : undefined,
    depth,
    load: truck,
    payload,
    pricePerVolume: price,
    haul,
  };
  return {
    remedy: 'fill',
    added: true,
    reason,
    values: Object.fromEntries(Object.entries(values).filter(([, value]) => value !== null && value !== undefined)),
  };
}

/** Put what is reckoned here into the program of each chosen zone, a treatment a layer. */
export function IntoProgram({ wanted, zones }: { readonly wanted: Wanted; readonly zones: readonly ZoneAnswer[] }) {
  const may = useMay();
  const [reason, setReason] = useState('');
  const put = useChange('program', async (why: string) => {
    for (const { id } of zones)
      for (const layer of wanted.layers)
        await saveOver<TreatmentChangeAnswer>(
          treatmentPath(id, `added-${crypto.randomUUID()}`),
          inputOf(wanted, layer, why),
          0,
        );
    return zones[0]!;
  });
  if (!may('work.write')) return null;
  return (
    <Box sx={{ borderTop: `1px solid ${colours.line}`, mt: 2, pt: 1.5, mb: 1 }}>
      <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap', alignItems: 'start' }}>
        <TextField
          label="Why"
          size="small"
          value={reason}
          onChange={(event) => setReason(event.target.value)}
          helperText="Kept with it, and on paper"
          sx={{ flex: '1 1 240px', maxWidth: 420 }}
        />
        <Button
          variant="contained"
          disabled={put.isPending || reason.trim().length < 3}
          onClick={() => put.mutate(reason)}
        >
          Put it into the program
        </Button>
      </Box>
      <Trouble error={put.error} />
      {put.data && (
        <Typography role="status" sx={{ mt: 0.5 }}>
          In the program of {zones.map(({ name }) => name).join(', ')}: add labour, hire and tipping there.{' '}
          <MuiLink component={Link} to={stepPath(put.data.siteId, 'rates', put.data.id)}>
            Open it
          </MuiLink>
        </Typography>
      )}
    </Box>
  );
}
