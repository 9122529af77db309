import type { ZoneLedgerAnswer } from '@glenfold/contract';
import { Box, Typography } from '@mui/material';
import { Opens } from '../../ui/working.tsx';
import { colours } from '../../ui/theme.ts';
import { useUnits } from '../../ui/units.tsx';

type Line = ZoneLedgerAnswer['lines'][number];

/** How much of a year’s cap is down, and how much more is planned. */
function Gauge({ line: { done, planned, most } }: { readonly line: Line }) {
  if (most === null || most <= 0) return null;
  const width = 150;
  const at = (value: number): number => Math.min(1.15, Math.max(0, value / most)) * (width / 1.15);
  return (
    <svg width={width} height={14} aria-hidden>
      <rect x={0.5} y={3.5} width={at(most)} height={7} fill={colours.paper} stroke={colours.line} />
      <rect x={0.5} y={3.5} width={at(done)} height={7} fill={done > most * 1.001 ? colours.ochre : colours.lichen} />
      <rect
        x={at(done) + 0.5}
        y={3.5}
        width={Math.max(0, at(done + planned) - at(done))}
        height={7}
        fill={colours.lichen}
        fillOpacity={0.3}
        stroke={colours.lichen}
        strokeDasharray="2 2"
      />
      <path d={`M${at(most)} 0v14`} stroke={colours.ink} strokeWidth="1.6" />
    </svg>
  );
}

const cells = {
  borderCollapse: 'collapse',
  width: '100%',
  '& th, & td': { textAlign: 'right', py: 0.6, pl: 1.5, borderTop: `1px solid ${colours.line}`, verticalAlign: 'top' },
  '& th:first-of-type, & td:first-of-type': { textAlign: 'left', pl: 0 },
} as const;

/** The book of a zone for a year: what is down, what is still planned, and what the year takes. */
export function Ledger({ zone, year }: { readonly zone: ZoneLedgerAnswer; readonly year: number }) {
  const { say } = useUnits();
  const { lines, warnings, unknown } = zone;
  return (
    <Box component="section" aria-label={`The ledger of ${zone.zone}`}>
      <Typography variant="h2" sx={{ mb: 0.5 }}>
        {zone.zone} in {year}
      </Typography>
      {warnings.map((words) => (
        <Box key={words} role="alert" sx={{ borderLeft: `3px solid ${colours.ochre}`, pl: 1.5, mb: 1 }}>
          {words}
        </Box>
      ))}
      <Box sx={{ overflowX: 'auto' }}>
        <Box component="table" sx={cells}>
          <thead>
            <tr>
              <th scope="col">Over the whole zone</th>
              <th scope="col">Down</th>
              <th scope="col">Planned</th>
              <th scope="col">Year’s most</th>
              <th scope="col">Still allowed</th>
              <Box component="td" sx={{ display: { xs: 'none', sm: 'table-cell' } }} />
            </tr>
          </thead>
          <tbody>
            {lines.map((line) => {
              const { key, label, sense, done, planned, most, by, allowed, working } = line;
              const inner = key === 'slowN' || key === 'limeOpen';
              return (
                <tr key={key}>
                  <Box
                    component="th"
                    scope="row"
                    sx={{ fontWeight: inner ? 400 : 700, pl: inner ? '14px !important' : 0 }}
                  >
                    {label}
                  </Box>
                  <td>
                    <Opens title={`${label}, ${zone.zone}`} told={say(sense, done)} working={working} />
                  </td>
                  <td>{planned > 0 ? say(sense, planned) : ''}</td>
                  <td title={by ?? undefined}>{most === null ? '' : say(sense, most)}</td>
                  <Box
                    component="td"
                    sx={{
                      fontWeight: 700,
                      color: allowed !== null && allowed < planned - 1e-6 ? colours.ochre : colours.ink,
                    }}
                  >
                    {allowed === null ? '' : allowed <= 0 ? 'nothing' : say(sense, allowed)}
                  </Box>
                  <Box component="td" sx={{ display: { xs: 'none', sm: 'table-cell' } }}>
                    <Gauge line={line} />
                  </Box>
                </tr>
              );
            })}
          </tbody>
        </Box>
      </Box>
      {unknown.length > 0 && (
        <Box sx={{ mt: 1, color: colours.faded }}>
          <strong>Not counted</strong>
          {unknown.map((words) => (
            <Box key={words}>{words}</Box>
          ))}
        </Box>
      )}
    </Box>
  );
}
