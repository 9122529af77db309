import type { ZoneAnswer } from '@glenfold/contract';
import { Box, Typography } from '@mui/material';
import { useNavigate } from 'react-router';
import { stepPath } from '../../frame/steps.ts';
import { colours } from '../../theme.ts';
import { useUnits } from '../../ui/units.tsx';

interface Point {
  readonly x: number;
  readonly y: number;
}

const SIZE = 320;
const MARGIN = 16;

/** Where a map's corners land on the paper: east to the right, north up, one scale. */
function projection(corners: readonly number[][]): {
  readonly at: (corner: number[]) => Point;
  readonly metres: number;
  readonly height: number;
} {
  const west = Math.min(...corners.map(([longitude = 0]) => longitude));
  const east = Math.max(...corners.map(([longitude = 0]) => longitude));
  const south = Math.min(...corners.map(([, latitude = 0]) => latitude));
  const north = Math.max(...corners.map(([, latitude = 0]) => latitude));
  const shrink = Math.cos((((north + south) / 2) * Math.PI) / 180);
  const scale = (SIZE - 2 * MARGIN) / Math.max((east - west) * shrink, north - south, 1e-9);
  return {
    at: ([longitude = 0, latitude = 0]) => ({
      x: MARGIN + (longitude - west) * shrink * scale,
      y: MARGIN + (north - latitude) * scale,
    }),
    metres: scale / 111_320,
    height: 2 * MARGIN + (north - south) * scale + 26,
  };
}

/** Hatchings that stay apart in print and for colour-blind readers. */
const hatches = ['M0 0l8 8', 'M8 0l-8 8', 'M0 4h8', 'M4 0v8', 'M0 0l8 8M8 0l-8 8'];

/** A sketch to scale of the zones that came from a map; drawing comes with the plan. */
export function ZoneOutline({
  zones,
  chosen,
  siteId,
}: {
  readonly zones: readonly ZoneAnswer[];
  readonly chosen: string;
  readonly siteId: string;
}) {
  const navigate = useNavigate();
  const { system } = useUnits();
  const drawn = zones.filter((zone) => zone.geometry);
  if (drawn.length === 0)
    return <Typography sx={{ color: colours.faded }}>No outline: these areas were typed.</Typography>;
  const { at, metres, height } = projection(drawn.flatMap((zone) => zone.geometry!.coordinates.flat()));
  const bar = system === 'us' ? { length: 50 * 0.3048, text: '50 ft' } : { length: 20, text: '20 m' };
  return (
    <Box>
      <svg
        viewBox={`0 0 ${SIZE} ${height}`}
        width="100%"
        style={{ maxWidth: 420, maxHeight: 420, border: `1px solid ${colours.line}`, background: colours.sheet }}
        role="img"
        aria-label={`Outline of ${drawn.map(({ name }) => name).join(', ')}, north up`}
      >
        <defs>
          {hatches.map((path, index) => (
            <pattern key={path} id={`hatch-${index}`} width="8" height="8" patternUnits="userSpaceOnUse">
              <path d={path} stroke={colours.faded} strokeWidth="0.7" />
            </pattern>
          ))}
        </defs>
        {drawn.map((zone, index) => {
          const path = zone
            .geometry!.coordinates.map(
              (ring) => `M${ring.map((corner) => `${at(corner).x.toFixed(1)} ${at(corner).y.toFixed(1)}`).join('L')}z`,
            )
            .join('');
          const [outer = []] = zone.geometry!.coordinates;
          const points = outer.slice(0, -1).map(at);
          const x = points.reduce((sum, point) => sum + point.x, 0) / points.length;
          const y = Math.min(...points.map((point) => point.y)) + 15;
          const current = zone.id === chosen;
          return (
            <g
              key={zone.id}
              onClick={() => void navigate(stepPath(siteId, 'ground', zone.id))}
              style={{ cursor: 'pointer' }}
            >
              <path d={path} fill={current ? colours.ochreWash : colours.lichenWash} fillRule="evenodd" />
              <path
                d={path}
                fill={`url(#hatch-${index % hatches.length})`}
                fillRule="evenodd"
                stroke={colours.ink}
                strokeWidth={current ? 2.2 : 1}
              />
              <text
                x={x}
                y={y}
                textAnchor="middle"
                fontSize="11"
                fontWeight="700"
                fill={colours.ink}
                stroke={colours.sheet}
                strokeWidth="3"
                paintOrder="stroke"
              >
                {zone.label}
              </text>
            </g>
          );
        })}
        <path
          d={`M${MARGIN} ${height - 16}v5h${bar.length * metres}v-5`}
          fill="none"
          stroke={colours.ink}
          strokeWidth="1.4"
        />
        <text x={MARGIN + bar.length * metres + 6} y={height - 9} fontSize="11" fill={colours.ink}>
          {bar.text}
        </text>
        <path d={`M${SIZE - 16} ${height - 8}v-16m-4 5l4 -6l4 6`} fill="none" stroke={colours.ink} strokeWidth="1.4" />
        <text x={SIZE - 30} y={height - 9} fontSize="11" fill={colours.ink}>
          N
        </text>
      </svg>
    </Box>
  );
}
