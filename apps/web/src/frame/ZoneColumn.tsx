import { findGrass } from '@glenfold/agronomy';
import type { LabResultAnswer, Step, ZoneAnswer } from '@glenfold/contract';
import { Box } from '@mui/material';
import { Link } from 'react-router';
import { colours } from '../theme.ts';
import { CoreStick } from '../ui/CoreStick.tsx';
import { useUnits } from '../ui/units.tsx';
import { stepPath } from './steps.ts';

interface ZoneColumnProps {
  readonly siteId: string;
  readonly step: Step;
  readonly zones: readonly ZoneAnswer[];
  readonly chosen: string | undefined;
  readonly results: readonly LabResultAnswer[];
}

/** The zones as core sticks; the chosen one stays chosen from step to step. */
export function ZoneColumn({ siteId, step, zones, chosen, results }: ZoneColumnProps) {
  const { say } = useUnits();
  return (
    <Box
      component="nav"
      aria-label="Zones"
      sx={{
        display: 'flex',
        flexDirection: { xs: 'row', md: 'column' },
        overflowX: 'auto',
        borderRight: { md: `1px solid ${colours.line}` },
        borderBottom: { xs: `1px solid ${colours.line}`, md: 0 },
        minHeight: { md: '100%' },
      }}
    >
      {zones.map((zone) => {
        const result = results.find(({ zoneId }) => zoneId === zone.id);
        const current = zone.id === chosen;
        return (
          <Box
            key={zone.id}
            component={Link}
            to={stepPath(siteId, step, zone.id)}
            aria-current={current ? 'true' : undefined}
            sx={{
              display: 'flex',
              gap: 1.25,
              alignItems: 'center',
              flex: { xs: '0 0 190px', md: 'none' },
              px: 1.5,
              py: 1,
              color: colours.ink,
              textDecoration: 'none',
              background: current ? colours.sheet : 'none',
              borderLeft: `4px solid ${current ? colours.ink : 'transparent'}`,
              borderBottom: { md: `1px solid ${colours.line}` },
              '&:hover': { background: colours.sheet },
            }}
          >
            <CoreStick zone={zone} result={result} />
            <Box sx={{ minWidth: 0, lineHeight: 1.25 }}>
              <Box sx={{ fontWeight: 700 }}>{zone.name}</Box>
              <Box sx={{ fontSize: '0.85rem', color: colours.faded }}>{findGrass(zone.grass).label}</Box>
              <Box sx={{ fontSize: '0.85rem', color: colours.faded }}>
                {say('area', zone.area)}
                {result && `, pH ${result.soilPh.toFixed(1)}`}
              </Box>
            </Box>
          </Box>
        );
      })}
    </Box>
  );
}
