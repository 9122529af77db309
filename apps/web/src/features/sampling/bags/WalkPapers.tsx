import type { BagAnswer, SiteAnswer } from '@glenfold/contract';
import { Box, Button } from '@mui/material';
import { useUnits } from '../../../ui/units.tsx';

/** The planned cores to take along without Glenfold: on paper, or for a receiver. */
export function WalkPapers({ site, bags }: { readonly site: SiteAnswer; readonly bags: readonly BagAnswer[] }) {
  const { system } = useUnits();
  const planned = bags.filter(({ state }) => state === 'planned');
  if (planned.length === 0) return null;
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
    </Box>
  );
}
