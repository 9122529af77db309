import { drawnOf } from './results.ts';
import { type UnitSystem, convert, dropOf, percolationClasses, present, soilOf, swardOf } from '@glenfold/agronomy';
import { type LabResultAnswer, type SoilLayer, type ZoneAnswer, newestFirst } from '@glenfold/contract';
import { memo } from 'react';
import { colours } from './theme.ts';
import { apartBy } from './apartBy.ts';
import { useUnits } from './units.tsx';

interface StickProps {
  readonly zone: ZoneAnswer;
  /** The newest test, when there is one. */
  readonly result?: LabResultAnswer | undefined;
  /** Small beside a name, or large with a depth scale and labels. */
  readonly size?: 'small' | 'large';
}

/** Depth that every stick is drawn to, cm, so that sticks compare. */
const DRAWN_DEPTH = 30;
const PH_SPAN = [4, 9] as const;
/** mm/h that a slow hole drops less than. */
const SLOW = convert(percolationClasses.slowBelow, 'in/h', 'mm/h');
/** Between the lines of two labels, pixels. */
const LINE = 17;

const sizes = {
  small: { width: 26, height: 58, top: 11, stick: 22, left: 2 },
  large: { width: 300, height: 430, top: 46, stick: 92, left: 52 },
} as const;

/** Grounds and grains of what was laid over the soil. */
const layerLooks: Readonly<Record<string, readonly [ground: string, grain: string]>> = {
  topsoil: ['#CDBB97', 'soil-loam'],
  'fill soil': ['#D9C3A6', 'soil-rubble'],
  subsoil: ['#D9B68C', 'soil-clay'],
  sand: ['#F0E7CD', 'soil-sand'],
  'sand and compost rootzone': ['#DCD0AE', 'soil-sand'],
  compost: ['#A08C66', 'soil-loam'],
  gravel: ['#DAD6CC', 'soil-rubble'],
};

interface Placed extends SoilLayer {
  /** cm below the surface. */
  readonly from: number;
  readonly to: number;
}

/** Layers from the surface down: the last one laid lies on top. */
function placed(zone: ZoneAnswer): Placed[] {
  let from = zone.thatch ?? 0;
  return newestFirst(zone.facts.layers ?? []).map((layer) => {
    const to = from + layer.depth;
    const entry = { ...layer, from, to };
    from = to;
    return entry;
  });
}

/** Where a test hole says that water stops, cm; nothing where it leaves. */
function waterStops({ measured: { percolationSlowest: slowest } }: ZoneAnswer): number | undefined {
  return slowest && slowest.depthFrom !== null && dropOf(slowest.value) < SLOW ? slowest.depthFrom : undefined;
}

function describe(zone: ZoneAnswer, result: LabResultAnswer | undefined, system: UnitSystem): string {
  const depth = (value: number): string => present('depth', value, system).text;
  const tested = result && drawnOf(result);
  const layers = placed(zone).map((layer) => `${depth(layer.depth)} ${layer.material}`);
  return [
    `Core of ${zone.name}`,
    ...(zone.grass
      ? [
          zone.thatch == null ? 'thatch not measured' : `thatch ${depth(zone.thatch)}`,
          zone.rootDepth == null ? 'roots not measured' : `roots to ${depth(zone.rootDepth)}`,
        ]
      : ['a garden bed']),
    ...layers,
    soilOf(zone)?.group ?? 'soil not known',
    ...(zone.probeStop == null ? [] : [`probe stops at ${depth(zone.probeStop)}`]),
    ...(waterStops(zone) === undefined ? [] : [`water stops at ${depth(waterStops(zone)!)}`]),
    ...(zone.measured.mottlesFrom ? [`rust spots from ${depth(zone.measured.mottlesFrom.value)}`] : []),
    tested?.ph === undefined ? 'pH not tested' : `pH ${tested.ph.toFixed(1)} over ${depth(tested.depth)}`,
  ].join(', ');
}

interface Label {
  readonly text: string;
  readonly y: number;
  readonly colour?: string;
}

/**
 * A zone as a narrow upright drawing of its soil, to scale from the surface: thatch, roots, what was laid over the soil,
 * where a probe stops, the sampled slice and the pH in it. What is not known yet is drawn open.
 */
export const CoreStick = memo(function CoreStick({ zone, result, size = 'small' }: StickProps) {
  const { system } = useUnits();
  const { width, height, top, stick, left } = sizes[size];
  const large = size === 'large';
  const bottom = height - (large ? 22 : 3);
  const y = (depth: number): number => top + (Math.min(depth, DRAWN_DEPTH) / DRAWN_DEPTH) * (bottom - top);
  const right = left + stick;
  const soil = soilOf(zone)?.group;
  const tested = result && drawnOf(result);
  const ph = tested?.ph;
  const [low, high] = swardOf({ grass: zone.grass, mix: zone.facts.mix ?? undefined }, tested?.organicMatter).ph;
  const across = (ph: number): number =>
    left + ((Math.min(PH_SPAN[1], Math.max(PH_SPAN[0], ph)) - PH_SPAN[0]) / (PH_SPAN[1] - PH_SPAN[0])) * stick;
  const markY = result ? (y(zone.thatch ?? 0) + y(result.depth)) / 2 + (large ? 30 : 0) : 0;
  const outside = ph !== undefined && (ph < low || ph > high);
  const markColour = outside ? colours.ochre : colours.lichen;
  const open = { fill: 'none', stroke: colours.faded, strokeDasharray: '3 3' } as const;
  // A bed is bare.
  const blades = !zone.grass ? [] : large ? [8, 20, 34, 47, 60, 74, 85] : [3, 8, 13, 18];
  const depth = (value: number): string => present('depth', value, system).text;
  const layers = placed(zone).filter(({ from }) => from < DRAWN_DEPTH);
  const soilFrom = layers.at(-1)?.to ?? 0;
  const unknown = colours.faded;
  const stops = waterStops(zone);
  const mottles = zone.measured.mottlesFrom?.value;
  const labels: readonly Label[] = [
    ...(zone.grass
      ? [
          zone.thatch == null
            ? { text: 'thatch: not measured', y: y(0.5), colour: unknown }
            : { text: `thatch ${depth(zone.thatch)}`, y: y(zone.thatch / 2) },
          zone.rootDepth == null
            ? { text: 'roots: not measured', y: y(4), colour: unknown }
            : { text: `roots to ${depth(zone.rootDepth)}`, y: y(zone.rootDepth) },
        ]
      : []),
    ...layers.map(({ material, depth: thick, from, to, on }) => ({
      text: `${depth(thick)} ${material}${on ? `, ${on}` : ''}`,
      y: (y(from) + y(to)) / 2,
    })),
    ...(zone.probeStop == null
      ? []
      : [{ text: `probe stops at ${depth(zone.probeStop)}`, y: y(zone.probeStop), colour: colours.ochre }]),
    ...(stops === undefined ? [] : [{ text: `water stops at ${depth(stops)}`, y: y(stops), colour: colours.slate }]),
    ...(mottles === undefined
      ? []
      : [{ text: `rust spots from ${depth(mottles)}`, y: y(mottles), colour: colours.ochre }]),
    ...(result && ph !== undefined
      ? [
          {
            text: `pH ${ph.toFixed(1)}, wanted ${low.toFixed(1)}–${high.toFixed(1)}`,
            y: markY,
            colour: markColour,
          },
          { text: `sampled to ${depth(result.depth)}`, y: y(result.depth), colour: colours.slate },
        ]
      : [{ text: 'pH: not tested', y: y(9), colour: unknown }]),
    ...(soilFrom >= DRAWN_DEPTH
      ? []
      : soil
        ? [{ text: soil, y: y(Math.max(25, (soilFrom + DRAWN_DEPTH) / 2)) }]
        : [{ text: 'soil: not known', y: y(Math.max(18, soilFrom + 4)), colour: unknown }]),
  ];

  return (
    <svg
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      role="img"
      aria-label={describe(zone, result, system)}
      style={{ flex: 'none', display: 'block', maxWidth: '100%' }}
    >
      {blades.map((x, index) => (
        <path
          key={x}
          d={`M${left + x} ${top} q${index % 2 ? 2 : -2} ${large ? -14 : -5} ${index % 2 ? 4 : -3} ${large ? -24 - (index % 3) * 5 : -8 - (index % 2) * 2}`}
          stroke={colours.lichen}
          strokeWidth={large ? 2.4 : 1.5}
          fill="none"
        />
      ))}

      <rect x={left} y={top} width={stick} height={bottom - top} fill={soil ? '#E6DFCF' : colours.sheet} />
      {soil && <rect x={left} y={top} width={stick} height={bottom - top} fill={`url(#soil-${soil})`} />}
      {layers.map(({ material, from, to }) => {
        const [ground = colours.sheet, grain = 'soil-loam'] = layerLooks[material] ?? [];
        const box = { x: left, y: y(from), width: stick, height: y(to) - y(from) };
        return (
          <g key={`${material} ${from}`}>
            <rect {...box} fill={ground} />
            <rect {...box} fill={`url(#${grain})`} stroke={colours.ink} strokeWidth="0.8" />
          </g>
        );
      })}
      {result && (
        <rect x={left} y={top} width={stick} height={y(result.depth) - top} fill={colours.slate} opacity="0.16" />
      )}
      <rect
        x={left}
        y={top}
        width={stick}
        height={bottom - top}
        fill="none"
        stroke={colours.ink}
        strokeWidth={large ? 1.5 : 1.2}
        strokeDasharray={soil ? undefined : '3 3'}
      />

      {zone.thatch != null ? (
        <rect
          x={left}
          y={top}
          width={stick}
          height={Math.max(1.5, y(zone.thatch) - top)}
          fill="#8C7B4F"
          stroke={colours.ink}
          strokeWidth="0.8"
        />
      ) : (
        large && zone.grass && <rect x={left + 1} y={top + 1} width={stick - 2} height={y(1) - top} {...open} />
      )}

      {zone.rootDepth != null &&
        [0.2, 0.42, 0.62, 0.84]
          .slice(0, large ? 4 : 3)
          .map((share, index) => (
            <path
              key={share}
              d={`M${left + stick * share} ${y(zone.thatch ?? 0)} q${index % 2 ? 5 : -5} ${(y(zone.rootDepth!) - top) / 2} 0 ${(y(zone.rootDepth!) - y(zone.thatch ?? 0)) * (1 - (index % 3) * 0.12)}`}
              stroke={colours.ink}
              strokeWidth={large ? 1.3 : 0.8}
              fill="none"
              opacity="0.75"
            />
          ))}
      {large && zone.rootDepth != null && <path d={`M${right} ${y(zone.rootDepth)}h7`} stroke={colours.ink} />}
      {stops !== undefined && (
        <path
          d={`M${left} ${y(stops) - 1.5}h${stick}M${left} ${y(stops) + 1.5}h${stick}`}
          stroke={colours.slate}
          strokeWidth={large ? 2 : 1.2}
        />
      )}
      {mottles !== undefined &&
        mottles < DRAWN_DEPTH &&
        [0.2, 0.5, 0.8].map((at) => (
          <circle
            key={at}
            cx={left + at * stick}
            cy={Math.min(bottom - 2, y(mottles) + (at === 0.5 ? 6 : 3))}
            r={large ? 3 : 1.2}
            fill={colours.ochre}
          />
        ))}
      {zone.probeStop != null && (
        <path
          d={`M${left} ${y(zone.probeStop)}h${stick}`}
          stroke={colours.ochre}
          strokeWidth={large ? 4 : 2.4}
          strokeDasharray={large ? '10 3' : undefined}
        />
      )}

      {result && ph !== undefined && (
        <>
          {large && (
            <>
              <path d={`M${left} ${y(result.depth)}H${right + 7}`} stroke={colours.slate} strokeWidth="1.5" />
              <rect
                x={across(low)}
                y={markY - 7}
                width={across(high) - across(low)}
                height="14"
                fill={colours.paper}
                stroke={colours.ink}
                strokeWidth="0.8"
              />
            </>
          )}
          <path
            d={`M${across(ph)} ${markY - (large ? 12 : 6)}l${large ? 8 : 4.5} ${large ? 12 : 6}l${large ? -8 : -4.5} ${large ? 12 : 6}l${large ? -8 : -4.5} ${large ? -12 : -6}z`}
            fill={markColour}
            stroke={colours.paper}
            strokeWidth="1"
          />
        </>
      )}
      {large &&
        apartBy(LINE, labels).map(({ text, y: at, colour = colours.ink }) => (
          <text key={text} x={right + 10} y={at + 4} fontSize="13" fill={colour}>
            {text}
          </text>
        ))}

      {large &&
        (system === 'us' ? [0, 2, 4, 6, 8, 10] : [0, 5, 10, 15, 20, 25, 30]).map((mark) => {
          const at = y(system === 'us' ? mark * 2.54 : mark);
          return (
            <g key={mark}>
              <path d={`M${left - 9} ${at}h9`} stroke={colours.ink} />
              <text x={left - 14} y={at + 4} textAnchor="end" fontSize="12" fill={colours.faded}>
                {mark}
                {mark === 0 ? (system === 'us' ? ' in' : ' cm') : ''}
              </text>
            </g>
          );
        })}
    </svg>
  );
});
