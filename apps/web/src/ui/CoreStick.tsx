import { type UnitSystem, findGrass, present } from '@glenfold/agronomy';
import type { LabResultAnswer, ZoneAnswer } from '@glenfold/contract';
import { colours } from '../theme.ts';
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

const sizes = {
  small: { width: 26, height: 58, top: 11, stick: 22, left: 2 },
  large: { width: 268, height: 430, top: 46, stick: 92, left: 52 },
} as const;

function grain(soilGroup: ZoneAnswer['soilGroup']): string | undefined {
  return soilGroup ? `url(#soil-${soilGroup})` : undefined;
}

/** Textures as patterns: dots for sand, short strokes for loam, lines for clay. */
function Patterns() {
  return (
    <defs>
      <pattern id="soil-sand" width="6" height="6" patternUnits="userSpaceOnUse">
        <circle cx="1.5" cy="1.5" r="0.8" fill={colours.faded} />
        <circle cx="4.5" cy="4.5" r="0.8" fill={colours.faded} />
      </pattern>
      <pattern id="soil-loam" width="9" height="8" patternUnits="userSpaceOnUse">
        <path d="M1 2h4M5 6h3" stroke={colours.faded} strokeWidth="0.9" />
      </pattern>
      <pattern id="soil-clay" width="8" height="5" patternUnits="userSpaceOnUse">
        <path d="M0 2.5h8" stroke={colours.faded} strokeWidth="0.8" />
      </pattern>
    </defs>
  );
}

function describe(zone: ZoneAnswer, result: LabResultAnswer | undefined, system: UnitSystem): string {
  const depth = (value: number): string => present('depth', value, system).text;
  return [
    `Core of ${zone.name}`,
    zone.thatch == null ? 'thatch not measured' : `thatch ${depth(zone.thatch)}`,
    zone.rootDepth == null ? 'roots not measured' : `roots to ${depth(zone.rootDepth)}`,
    zone.soilGroup ?? 'soil not known',
    result ? `pH ${result.soilPh.toFixed(1)} over ${depth(result.depth)}` : 'pH not tested',
  ].join(', ');
}

/**
 * A zone as a narrow upright drawing of its soil, to scale from the surface:
 * thatch, roots, the sampled slice and the pH in it. What is not known yet is
 * drawn open.
 */
export function CoreStick({ zone, result, size = 'small' }: StickProps) {
  const { system } = useUnits();
  const { width, height, top, stick, left } = sizes[size];
  const large = size === 'large';
  const bottom = height - (large ? 22 : 3);
  const y = (depth: number): number => top + (Math.min(depth, DRAWN_DEPTH) / DRAWN_DEPTH) * (bottom - top);
  const right = left + stick;
  const [low, high] = findGrass(zone.grass).ph;
  const across = (ph: number): number =>
    left + ((Math.min(PH_SPAN[1], Math.max(PH_SPAN[0], ph)) - PH_SPAN[0]) / (PH_SPAN[1] - PH_SPAN[0])) * stick;
  const markY = result ? (y(zone.thatch ?? 0) + y(result.depth)) / 2 + (large ? 30 : 0) : 0;
  const outside = result !== undefined && (result.soilPh < low || result.soilPh > high);
  const markColour = outside ? colours.ochre : colours.lichen;
  const open = { fill: 'none', stroke: colours.faded, strokeDasharray: '3 3' } as const;
  const blades = large ? [8, 20, 34, 47, 60, 74, 85] : [3, 8, 13, 18];
  const depth = (value: number): string => present('depth', value, system).text;
  const label = (text: string, at: number, colour: string = colours.ink) =>
    large && (
      <text x={right + 10} y={at + 4} fontSize="13" fill={colour}>
        {text}
      </text>
    );

  return (
    <svg
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      role="img"
      aria-label={describe(zone, result, system)}
      style={{ flex: 'none', display: 'block' }}
    >
      <Patterns />
      {blades.map((x, index) => (
        <path
          key={x}
          d={`M${left + x} ${top} q${index % 2 ? 2 : -2} ${large ? -14 : -5} ${index % 2 ? 4 : -3} ${large ? -24 - (index % 3) * 5 : -8 - (index % 2) * 2}`}
          stroke={colours.lichen}
          strokeWidth={large ? 2.4 : 1.5}
          fill="none"
        />
      ))}

      <rect x={left} y={top} width={stick} height={bottom - top} fill={zone.soilGroup ? '#E6DFCF' : colours.sheet} />
      {zone.soilGroup && <rect x={left} y={top} width={stick} height={bottom - top} fill={grain(zone.soilGroup)} />}
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
        strokeDasharray={zone.soilGroup ? undefined : '3 3'}
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
        large && <rect x={left + 1} y={top + 1} width={stick - 2} height={y(1) - top} {...open} />
      )}
      {label(
        zone.thatch == null ? 'thatch: not measured' : `thatch ${depth(zone.thatch)}`,
        y((zone.thatch ?? 1) / 2),
        zone.thatch == null ? colours.faded : colours.ink,
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
      {label(
        zone.rootDepth == null ? 'roots: not measured' : `roots to ${depth(zone.rootDepth)}`,
        zone.rootDepth == null ? y(4) : y(zone.rootDepth),
        zone.rootDepth == null ? colours.faded : colours.ink,
      )}
      {large && zone.rootDepth != null && <path d={`M${right} ${y(zone.rootDepth)}h7`} stroke={colours.ink} />}

      {result && (
        <>
          {large && (
            <>
              <path d={`M${left} ${y(result.depth)}H${right + 7}`} stroke={colours.slate} strokeWidth="1.5" />
              {label(`sampled to ${depth(result.depth)}`, y(result.depth), colours.slate)}
              <rect
                x={across(low)}
                y={markY - 7}
                width={across(high) - across(low)}
                height="14"
                fill={colours.paper}
                stroke={colours.ink}
                strokeWidth="0.8"
              />
              {label(`pH ${result.soilPh.toFixed(1)}`, markY - 7, markColour)}
              {label(`wanted ${low.toFixed(1)}–${high.toFixed(1)}`, markY + 10, colours.faded)}
            </>
          )}
          <path
            d={`M${across(result.soilPh)} ${markY - (large ? 12 : 6)}l${large ? 8 : 4.5} ${large ? 12 : 6}l${large ? -8 : -4.5} ${large ? 12 : 6}l${large ? -8 : -4.5} ${large ? -12 : -6}z`}
            fill={markColour}
            stroke={colours.paper}
            strokeWidth="1"
          />
        </>
      )}
      {large && !result && label('pH: not tested', y(9), colours.faded)}
      {large && !zone.soilGroup && label('soil: not known', y(18), colours.faded)}
      {large && zone.soilGroup && label(zone.soilGroup, y(25))}

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
}
