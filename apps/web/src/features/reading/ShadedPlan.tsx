import type { BesideRow } from '@glenfold/agronomy';
import { SHADE, type ZoneAnswer, planShades, shadeOf, shadedPlan } from '@glenfold/contract';
import { Box, Typography } from '@mui/material';
import { useId } from 'react';
import { colours } from '../../ui/theme.ts';

const BOX = { width: 360, height: 190 } as const;

const legend = [
  ['farBelow', 'asks for most'],
  ['below', 'asks for some'],
  ['wanted', 'as wanted'],
  ['above', 'more than wanted'],
  ['unknown', 'not measured'],
] as const;

interface ShadedPlanProps {
  readonly zones: readonly ZoneAnswer[];
  readonly row: BesideRow;
  readonly chosen: string | undefined;
  readonly onChoose: (zoneId: string) => void;
}

/** The drawing shaded by one measure, hatched as well as coloured; zones are numbered as their columns. */
export function ShadedPlan({ zones, row, chosen, onChoose }: ShadedPlanProps) {
  const own = useId();
  const shapes = shadedPlan(
    zones.map(({ id: zoneId, geometry }) => ({ zoneId, geometry })),
    BOX,
  );
  if (shapes.length === 0) return null;
  const cellOf = (zoneId: string) => row.cells.find((cell) => cell?.zoneId === zoneId);
  const nameOf = (zoneId: string): string => zones.find(({ id }) => id === zoneId)?.name ?? '';
  const numberOf = (zoneId: string): number => zones.findIndex(({ id }) => id === zoneId) + 1;
  return (
    <Box component="figure" sx={{ m: 0, maxWidth: 420 }}>
      <svg
        viewBox={`0 0 ${BOX.width} ${BOX.height}`}
        width="100%"
        role="group"
        aria-label={`The ground by ${row.name}`}
      >
        <defs>
          {Object.values(planShades).map(({ name, strokes, ink }) => (
            <pattern key={name} id={`${own}${name}`} width={SHADE} height={SHADE} patternUnits="userSpaceOnUse">
              <path d={strokes} stroke={ink} strokeWidth="1" fill="none" />
            </pattern>
          ))}
        </defs>
        <rect width={BOX.width} height={BOX.height} fill={colours.sheet} stroke={colours.line} />
        {shapes.map(({ zoneId, path, at: [x, y] }) => {
          const cell = cellOf(zoneId);
          const shade = shadeOf(cell?.bar);
          return (
            <g key={zoneId} onClick={() => onChoose(zoneId)} style={{ cursor: 'pointer' }}>
              <title>{`${numberOf(zoneId)} ${nameOf(zoneId)}: ${cell ? `${cell.told}${cell.word ? `, ${cell.word}` : ''}` : 'not measured'}`}</title>
              <path d={path} fill={shade.ground} fillRule="evenodd" />
              <path
                d={path}
                fill={shade.strokes === '' ? 'none' : `url(#${own}${shade.name})`}
                fillRule="evenodd"
                stroke={colours.ink}
                strokeWidth={zoneId === chosen ? 2.6 : 1}
              />
              <rect x={x - 8} y={y - 8} width="16" height="16" fill={colours.sheet} fillOpacity="0.9" />
              <text x={x} y={y + 4.5} textAnchor="middle" fontSize="12" fontWeight="700" fill={colours.ink}>
                {numberOf(zoneId)}
              </text>
            </g>
          );
        })}
      </svg>
      <Box component="figcaption" sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 1.5, fontSize: '0.82rem' }}>
        {legend.map(([key, words]) => {
          const { ground, name, strokes } = planShades[key];
          return (
            <Box key={key} component="span" sx={{ display: 'inline-flex', alignItems: 'center', gap: 0.5 }}>
              <svg width="18" height="12" aria-hidden="true">
                <rect width="18" height="12" fill={ground} />
                <rect
                  width="18"
                  height="12"
                  fill={strokes === '' ? 'none' : `url(#${own}${name})`}
                  stroke={colours.ink}
                  strokeWidth="0.8"
                />
              </svg>
              {words}
            </Box>
          );
        })}
        <Typography component="span" sx={{ fontSize: 'inherit', color: colours.faded }}>
          {row.name}
        </Typography>
      </Box>
    </Box>
  );
}
