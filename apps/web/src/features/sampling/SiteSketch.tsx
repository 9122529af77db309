import { isExclusion, present } from '@glenfold/agronomy';
import { type Outline, Plane, type PlanePoint, type Position, innerPlace } from '@glenfold/agronomy/geometry';
import { type GroundFeatureAnswer, type ZoneAnswer, evenStep } from '@glenfold/contract';
import { useMemo } from 'react';
import { colours } from '../../ui/theme.ts';
import { useUnits } from '../../ui/units.tsx';

export interface SketchCore {
  readonly id: string;
  readonly place: Position;
  readonly state: 'waiting' | 'cored' | 'skipped';
  /** Written beside it. */
  readonly text?: string | undefined;
  readonly next?: boolean;
}

interface SketchProps {
  readonly zones: readonly ZoneAnswer[];
  readonly features: readonly GroundFeatureAnswer[];
  readonly cores: readonly SketchCore[];
  /** Way of the walk. */
  readonly way?: readonly Position[];
  readonly me?: Position | null;
  /** Zones that are drawn strong. */
  readonly strong?: ReadonlySet<string>;
  readonly label: string;
  /** Drawn for a desk, or for the hand. */
  readonly size?: keyof typeof sizes;
  /** What is fitted into the sheet; otherwise the zones. */
  readonly about?: readonly Position[];
}

/** Of the desk and of the hand. */
const sizes = { desk: [640, 372], hand: [390, 220] } as const;
const ROOM = 26;

const positionsOf = (geometry: { readonly coordinates: unknown } | null): Position[] => {
  const flat = ((geometry?.coordinates ?? []) as unknown[]).flat(3) as number[];
  return Array.from({ length: flat.length / 2 }, (_, index) => [flat[2 * index]!, flat[2 * index + 1]!] as const);
};

/** The ground small and still: zones, what must not be cored, the cores and the way through them. */
export function SiteSketch({ zones, features, cores, way, me, strong, label, size = 'desk', about }: SketchProps) {
  const [wide, high] = sizes[size];
  const { system } = useUnits();
  const drawn = useMemo(() => zones.filter(({ geometry }) => geometry), [zones]);
  const sheet = useMemo(() => {
    const wanted = about && about.length > 0 ? about : drawn.flatMap(({ geometry }) => positionsOf(geometry));
    const [first] = wanted.length > 0 ? wanted : cores.map(({ place }) => place);
    if (!first) return null;
    const plane = new Plane(first);
    const points = (wanted.length > 0 ? wanted : [first]).map((position) => plane.toPlane(position));
    const ends = (axis: 0 | 1): readonly [number, number] => {
      const values = points.map((point) => point[axis]);
      return [Math.min(...values), Math.max(...values)];
    };
    const [[west, east], [south, north]] = [ends(0), ends(1)];
    const scale = Math.min(
      (wide - 2 * ROOM) / Math.max(4, east - west),
      (high - 2 * ROOM) / Math.max(4, north - south),
    );
    const at = (position: Position): PlanePoint => {
      const [x, y] = plane.toPlane(position);
      return [wide / 2 + (x - (west + east) / 2) * scale, high / 2 - (y - (south + north) / 2) * scale];
    };
    return { at, scale };
  }, [about, cores, drawn, wide, high]);
  if (!sheet) return null;
  const { at, scale } = sheet;
  const path = (rings: ReadonlyArray<ReadonlyArray<readonly number[]>>): string =>
    rings
      .map(
        (ring) =>
          `M${ring
            .map(([lon = 0, lat = 0]) =>
              at([lon, lat])
                .map((value) => value.toFixed(1))
                .join(' '),
            )
            .join('L')}Z`,
      )
      .join('');
  const shape = (geometry: { readonly type: string; readonly coordinates: unknown }): string =>
    geometry.type === 'Polygon'
      ? path(geometry.coordinates as number[][][])
      : geometry.type === 'MultiPolygon'
        ? (geometry.coordinates as number[][][][]).map(path).join('')
        : `M${(geometry.coordinates as number[][])
            .map(([lon = 0, lat = 0]) =>
              at([lon, lat])
                .map((value) => value.toFixed(1))
                .join(' '),
            )
            .join('L')}`;
  const unit = system === 'us' ? 0.3048 : 1;
  const bar = evenStep(70 / scale / unit) * unit;
  const looks = { waiting: colours.sheet, cored: colours.lichen, skipped: colours.line } as const;
  return (
    <svg
      viewBox={`0 0 ${wide} ${high}`}
      role="img"
      aria-label={label}
      style={{
        width: '100%',
        height: 'auto',
        background: colours.sheet,
        border: `1px solid ${colours.faded}`,
        display: 'block',
      }}
    >
      {drawn.map(({ id, geometry }) => {
        const bold = !strong || strong.has(id);
        return (
          <g key={id}>
            <path
              d={shape(geometry!)}
              fillRule="evenodd"
              fill={bold ? colours.lichenWash : colours.paper}
              stroke={bold ? colours.ink : colours.line}
              strokeWidth={bold ? 1.6 : 1}
            />
          </g>
        );
      })}
      {features
        .filter(({ kind }) => isExclusion(kind))
        .map(({ id, geometry }) => (
          <path
            key={id}
            d={shape(geometry)}
            fillRule="evenodd"
            fill={colours.line}
            stroke={colours.faded}
            strokeWidth="0.8"
          />
        ))}
      {features
        .filter(({ kind }) => kind === 'buried line' || kind === 'irrigation')
        .map(({ id, geometry, kind }) => (
          <path
            key={id}
            d={shape(geometry)}
            fill="none"
            stroke={kind === 'irrigation' ? colours.slate : colours.ochre}
            strokeWidth="2"
            strokeDasharray="7 4"
          />
        ))}
      {way && way.length > 1 && (
        <path
          d={`M${way
            .map((position) =>
              at(position)
                .map((value) => value.toFixed(1))
                .join(' '),
            )
            .join('L')}`}
          fill="none"
          stroke={colours.slate}
          strokeWidth="1.2"
          strokeDasharray="2 3"
        />
      )}
      {features
        .filter(({ kind }) => kind === 'gate')
        .map(({ id, geometry }) => {
          const [x, y] = at(geometry.coordinates as unknown as Position);
          return (
            <g key={id}>
              <rect
                x={x - 6}
                y={y - 6}
                width="12"
                height="12"
                fill={colours.sheet}
                stroke={colours.ink}
                strokeWidth="1.6"
              />
              <text x={x + 9} y={y + 5} fontSize="13" fill={colours.ink}>
                gate
              </text>
            </g>
          );
        })}
      {cores.map(({ id, place, state, text, next }) => {
        const [x, y] = at(place);
        return (
          <g key={id}>
            {next && <circle cx={x} cy={y} r="15" fill="none" stroke={colours.ochre} strokeWidth="3" />}
            {state === 'skipped' ? (
              <path d={`M${x - 5} ${y - 5}l10 10M${x + 5} ${y - 5}l-10 10`} stroke={colours.faded} strokeWidth="2" />
            ) : (
              <circle cx={x} cy={y} r={next ? 7 : 5} fill={looks[state]} stroke={colours.ink} strokeWidth="1.5" />
            )}
            {text && (
              <text
                x={x + 8}
                y={y - 5}
                fontSize="12"
                fontWeight={next ? 700 : 400}
                fill={colours.ink}
                stroke={colours.sheet}
                strokeWidth="3"
                paintOrder="stroke"
              >
                {text}
              </text>
            )}
          </g>
        );
      })}
      {!about &&
        drawn.map(({ id, geometry, label: name }) => {
          const [x, y] = at(innerPlace(geometry as Outline).at);
          return (
            <text
              key={id}
              x={x}
              y={y + 4}
              fontSize="13"
              fontWeight="700"
              textAnchor="middle"
              fill={colours.ink}
              stroke={colours.sheet}
              strokeWidth="5"
              paintOrder="stroke"
            >
              {name}
            </text>
          );
        })}
      {me && (
        <g aria-label="You are here">
          <circle cx={at(me)[0]} cy={at(me)[1]} r="8" fill={colours.slate} stroke={colours.sheet} strokeWidth="3" />
        </g>
      )}
      <path
        d={`M14 ${high - 14}v-6M14 ${high - 14}h${bar * scale}v-6`}
        fill="none"
        stroke={colours.ink}
        strokeWidth="1.4"
      />
      <text x={14 + bar * scale + 6} y={high - 12} fontSize="12" fill={colours.ink}>
        {present('length', bar, system).text}
      </text>
      <path d={`M${wide - 20} 34V10M${wide - 20} 6l-5 10 5-3 5 3z`} fill={colours.ink} stroke={colours.ink} />
      <text x={wide - 25} y="48" fontSize="12" fontWeight="700" fill={colours.ink}>
        N
      </text>
    </svg>
  );
}
