import { Box, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { stepPath } from '../../ui/steps.ts';
import { colours } from '../../ui/theme.ts';
import { proofQueries } from './api.ts';

const signed = (value: number): string => `${value < 0 ? '−' : '+'}${Math.abs(value).toFixed(1)}`;

/** Hits and misses of all predictions of the practice. */
export function Hits() {
  const { data } = useQuery(proofQueries.hits());
  if (!data) return null;
  return (
    <Box component="section" aria-label="Hits and misses">
      <Typography variant="h2" sx={{ mb: 0.5 }}>
        Hits and misses, all sites
      </Typography>
      <Typography sx={{ mb: 1 }}>
        {data.words}
        {data.waiting > 0 &&
          ` ${data.waiting} ${data.waiting === 1 ? 'waits' : 'wait'} for a retest, or gave way to a later program.`}
      </Typography>
      {data.hits.length > 0 && (
        <Box sx={{ overflowX: 'auto' }}>
          <Box
            component="table"
            sx={{
              borderCollapse: 'collapse',
              width: '100%',
              '& th, & td': { textAlign: 'left', py: 0.6, pr: 2, borderTop: `1px solid ${colours.line}` },
            }}
          >
            <thead>
              <tr>
                <th scope="col">Zone</th>
                <th scope="col">Foretold</th>
                <th scope="col">Retest</th>
                <th scope="col">Expected</th>
                <th scope="col">Moved</th>
                <th scope="col">Inside the band</th>
              </tr>
            </thead>
            <tbody>
              {data.hits.map(({ siteId, site, zoneId, zone, madeOn, retestedOn, expected, moved, inside }) => (
                <tr key={`${zoneId} ${madeOn}`}>
                  <td>
                    <Link to={stepPath(siteId, 'proof', zoneId)}>
                      {zone}, {site}
                    </Link>
                  </td>
                  <td>{madeOn}</td>
                  <td>{retestedOn}</td>
                  <td>{signed(expected)}</td>
                  <td>{signed(moved)}</td>
                  <Box component="td" sx={{ fontWeight: 700, color: inside ? colours.lichen : colours.ochre }}>
                    {inside ? 'yes' : 'no'}
                  </Box>
                </tr>
              ))}
            </tbody>
          </Box>
        </Box>
      )}
    </Box>
  );
}
