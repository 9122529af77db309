import type { RecordSeriesAnswer, ZoneAnswer } from '@glenfold/contract';
import { Box, Button, Table, TableBody, TableCell, TableHead, TableRow, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Words } from '../../ui/Words.tsx';
import { colours } from '../../ui/theme.ts';
import { useUnits } from '../../ui/units.tsx';
import { labQueries } from './api.ts';
import { RecordChart } from './RecordChart.tsx';

/** A zone's measurements of one analyte, as a table. */
function Points({ series }: { readonly series: RecordSeriesAnswer }) {
  const { say } = useUnits();
  return (
    <Table size="small" aria-label={series.name}>
      <TableHead>
        <TableRow>
          {['On', 'Value', 'Method', 'Depth', 'Season', 'From', ''].map((head, index) => (
            <TableCell key={index} component={head === '' ? 'td' : 'th'}>
              {head}
            </TableCell>
          ))}
        </TableRow>
      </TableHead>
      <TableBody>
        {[...series.points].reverse().map((point, index) => (
          <TableRow key={index} sx={point.superseded ? { opacity: 0.65 } : {}}>
            <TableCell>{point.on ?? 'no date'}</TableCell>
            <TableCell sx={{ fontWeight: 700, whiteSpace: 'nowrap' }}>
              <Words>{point.told}</Words>
            </TableCell>
            <TableCell>{point.method ?? '–'}</TableCell>
            <TableCell>{point.depthTo === null ? '–' : `${point.depthFrom ? `${say('depth', point.depthFrom)} to ` : ''}${say('depth', point.depthTo)}`}</TableCell>
            <TableCell>{point.season ?? '–'}</TableCell>
            <TableCell>{point.source}</TableCell>
            <TableCell sx={{ maxWidth: 260 }}>
              {[point.superseded ? 'superseded' : '', point.apart ? `apart: ${point.apart}` : '', point.borrowed ? `borrowed: ${point.borrowed}` : ''].filter(Boolean).join('; ')}
            </TableCell>
          </TableRow>
        ))}
      </TableBody>
    </Table>
  );
} // prettier-ignore

/** Every measurement of one zone over time: by laboratories and by hand, comparable ones joined. */
export function ZoneRecord({ zone }: { readonly zone: ZoneAnswer }) {
  const { system } = useUnits();
  const { data } = useQuery(labQueries.zoneRecord(zone.id, system));
  const [shown, setShown] = useState<string | null>(null);
  if (!data) return null;
  const { series } = data;
  const chosen = series.find(({ analyte }) => analyte === shown) ?? series.find(({ analyte }) => analyte === 'soilPh') ?? series[0];
  return (
    <>
      <Box sx={{ display: 'flex', justifyContent: 'space-between', alignItems: 'baseline', gap: 2 }}>
        <Typography variant="h2">{zone.name}</Typography>
        {series.length > 0 && (
          <Button href={`/api/zones/${zone.id}/record.csv?units=${system}`} download>
            All of it as CSV
          </Button>
        )}
      </Box>
      {series.length === 0 && <Typography>Nothing is measured here yet.</Typography>}
      <Box sx={{ display: 'grid', gridTemplateColumns: { md: '210px minmax(0, 1fr)' }, gap: 3 }}>
        <Box component="nav" aria-label="What was measured" sx={{ display: 'flex', flexDirection: { xs: 'row', md: 'column' }, flexWrap: 'wrap' }}>
          {series.map(({ analyte, name, points }) => (
            <Box
              component="button"
              type="button"
              key={analyte}
              aria-current={analyte === chosen?.analyte}
              onClick={() => setShown(analyte)}
              sx={{ font: 'inherit', color: colours.ink, textAlign: 'left', background: analyte === chosen?.analyte ? colours.slateWash : 'none', border: 0, borderTop: `1px solid ${colours.line}`, py: 0.5, px: 1, cursor: 'pointer', display: 'flex', justifyContent: 'space-between', gap: 1 }}
            >
              <span>{name}</span>
              <span style={{ color: colours.faded, whiteSpace: 'nowrap' }}>
                <Words>{points.at(-1)!.told}</Words>
                {points.length > 1 ? ` (${points.length})` : ''}
              </span>
            </Box>
          ))}
        </Box>
        {chosen && (
          <Box>
            <Typography variant="h3">{chosen.name}</Typography>
            {!chosen.worded && chosen.points.filter(({ on }) => on !== null).length > 1 && <RecordChart series={chosen} />}
            <Box sx={{ overflowX: 'auto' }}>
              <Points series={chosen} />
            </Box>
            {chosen.points.length === 1 && (
              <Typography sx={{ mt: 1, color: colours.faded }}>
                One so far. The next by the same method, from the same depth and season, is drawn beside it.
              </Typography>
            )}
          </Box>
        )}
      </Box>
    </>
  );
} // prettier-ignore
