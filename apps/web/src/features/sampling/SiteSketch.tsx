import { isExclusion, present } from '@glenfold/agronomy';
import {
  type Outline,
  Plane,
  type Position,
  cornersOf,
  endsOf,
  innerPlace,
  pathOf,
  perMetreWithin,
  placedIn,
} from '@glenfold/agronomy/geometry';
import {
  type Described,
  type GroundFeatureAnswer,
  type ZoneAnswer,
  describeDrawing,
  evenStep,
} from '@glenfold/contract';
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

/** What must not be cored, what must not be cut, and the way in. */
const isMetOnTheWalk = (kind: Described['kind']): boolean =>
  kind !== 'zone' && (isExclusion(kind) || ['buried line', 'irrigation', 'gate'].includes(kind));

/** A thing of the ground, small: its ground without hatching, its line, or its letter. */
function SketchThing({
  thing: { kind, geometry, look },
  at,
}: {
  readonly thing: Described;
  readonly at: (position: Position) => readonly [x: number, y: number];
}) {
  const path = pathOf(geometry, at);
  if (look.as === 'ground')
    return <path d={path} fillRule="evenodd" fill={look.ground} stroke={colours.faded} strokeWidth="0.8" />;
  if (look.as === 'line')
    return <path d={path} fill="none" stroke={look.ink} strokeWidth="2" strokeDasharray={look.dash.join(' ')} />;
  const [x, y] = at(cornersOf(geometry)[0]!);
  return (
    <g>
      <rect x={x - 7} y={y - 7} width="14" height="14" fill={colours.sheet} stroke={colours.ink} strokeWidth="1.6" />
      <text x={x} y={y + 4} fontSize="11" fontWeight="700" textAnchor="middle" fill={colours.ink}>
        {look.as === 'mark' ? look.letter : ''}
      </text>
      <text x={x + 11} y={y + 5} fontSize="13" fill={colours.ink}>
        {kind}
      </text>
    </g>
  );
}

/** The ground small and still: zones, what must not be cored, the cores and the way through them. */
export function SiteSketch({ zones, features, cores, way, me, strong, label, size = 'desk', about }: SketchProps) {
  const [wide, high] = sizes[size];
  const { system } = useUnits();
  const described = useMemo(() => describeDrawing({ zones, features }, system), [zones, features, system]);
  const drawn = useMemo(() => described.filter(({ kind }) => kind === 'zone'), [described]);
  const sheet = useMemo(() => {
    const wanted = about && about.length > 0 ? about : drawn.flatMap(({ geometry }) => cornersOf(geometry));
    const places = wanted.length > 0 ? wanted : cores.slice(0, 1).map(({ place }) => place);
    const [first] = places;
    if (!first) return null;
    const plane = new Plane(first);
    const ends = endsOf(places.map((position) => plane.toPlane(position)));
    const box = { x: ROOM, y: ROOM, width: wide - 2 * ROOM, height: high - 2 * ROOM };
    const scale = perMetreWithin(ends, box, 4);
    const place = placedIn(ends, box, scale);
    return { at: (position: Position) => place(plane.toPlane(position)), scale };
  }, [about, cores, drawn, wide, high]);
  if (!sheet) return null;
  const { at, scale } = sheet;
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
      {drawn.map(({ id, geometry, look }) => {
        const bold = !strong || strong.has(id);
        return (
          <path
            key={id}
            d={pathOf(geometry, at)}
            fillRule="evenodd"
            fill={bold && look.as === 'ground' ? look.ground : colours.paper}
            stroke={bold ? colours.ink : colours.line}
            strokeWidth={bold ? 1.6 : 1}
          />
        );
      })}
      {described
        .filter(({ kind }) => isMetOnTheWalk(kind))
        .map((thing) => (
          <SketchThing key={thing.id} thing={thing} at={at} />
        ))}
      {way && way.length > 1 && (
        <path
          d={pathOf({ type: 'LineString', coordinates: way.map((position) => [...position]) }, at)}
          fill="none"
          stroke={colours.slate}
          strokeWidth="1.2"
          strokeDasharray="2 3"
        />
      )}
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
        drawn.map(({ id, geometry, position }) => {
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
              {zones[position]?.label}
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
