import type { BagAnswer, SiteAnswer, ZoneAnswer } from '@glenfold/contract';
import { Box, Button } from '@mui/material';
import { useState } from 'react';
import { useMay } from '../../../ui/session.tsx';
import { useUnits } from '../../../ui/units.tsx';
import { PaperSheet } from './PaperSheet.tsx';

interface WalkPapersProps {
  readonly site: SiteAnswer;
  readonly bags: readonly BagAnswer[];
  readonly zones: readonly ZoneAnswer[];
}

/** The planned cores to take along without Glenfold: on paper, or for a receiver. */
export function WalkPapers({ site, bags, zones }: WalkPapersProps) {
  const { system } = useUnits();
  const may = useMay();
  const [booking, setBooking] = useState(false);
  const planned = bags.filter(({ state }) => state === 'planned');
  if (planned.length === 0 && !booking) return null;
  const save = async (format: 'gpx' | 'geojson'): Promise<void> => {
    const { savePoints } = await import('./writePoints.ts');
    savePoints(site.name, planned, format);
  };
  return (
    <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap', alignItems: 'center', mb: 1.5 }}>
      <Box sx={{ minWidth: 96 }}>Planned cores</Box>
      <Button
        variant="outlined"
        href={`/api/sites/${site.id}/field-sheet.pdf?units=${system}`}
        target="_blank"
        rel="noreferrer"
      >
        Field sheet
      </Button>
      <Button variant="outlined" onClick={() => void save('gpx')}>
        GPX, for a receiver
      </Button>
      <Button variant="outlined" onClick={() => void save('geojson')}>
        GeoJSON
      </Button>
      {may('field.write') && (
        <Button variant="contained" onClick={() => setBooking(true)}>
          A sheet came back
        </Button>
      )}
      {booking && <PaperSheet bags={planned} zones={zones} onClose={() => setBooking(false)} />}
    </Box>
  );
}
