import type { FieldTestKind } from '@glenfold/agronomy';
import type { ReactNode } from 'react';
import { colours } from '../../ui/theme.ts';

const line = { stroke: colours.ink, strokeWidth: 1.6, fill: 'none' } as const;
const water = { fill: colours.slateWash, stroke: colours.slate, strokeWidth: 1.2 } as const;
const Ground = ({ y = 40 }: { readonly y?: number }) => (
  <>
    <path d={`M4 ${y}H156`} {...line} />
    <path d={`M8 ${y}l4-7M20 ${y}l3-9M34 ${y}l2-7M124 ${y}l3-8M138 ${y}l2-9M150 ${y}l3-7`} stroke={colours.lichen} strokeWidth="1.6" />
  </>
); // prettier-ignore

const drawings: Readonly<Record<FieldTestKind, ReactNode>> = {
  drainage: (
    <>
      <Ground />
      <path d="M52 40V100H108V40" {...line} />
      <rect x="53" y="66" width="54" height="33" {...water} />
      <path d="M40 36H120" stroke={colours.ochre} strokeWidth="4" />
      <path d="M80 38V64M76 60l4 5l4-5" {...line} />
    </>
  ),
  jar: (
    <>
      <path d="M58 10h44v8l4 6v80H54V24l4-6z" {...line} />
      <rect x="55" y="74" width="50" height="29" fill="#E6DAB8" stroke={colours.ink} />
      <rect x="55" y="58" width="50" height="16" fill="#CDBB97" stroke={colours.ink} />
      <rect x="55" y="50" width="50" height="8" fill="#A88F6A" stroke={colours.ink} />
      <rect x="55" y="28" width="50" height="22" {...water} />
    </>
  ),
  core: (
    <>
      <Ground y={24} />
      <path d="M56 24V104H104V24" {...line} />
      <rect x="57" y="25" width="46" height="9" fill="#D6C48C" stroke={colours.ink} />
      <path d="M64 34v24M74 34v34M84 34v20M94 34v30" stroke={colours.lichen} strokeWidth="1.4" />
      <path d="M57 76H103" {...line} strokeDasharray="4 3" />
      <circle cx="68" cy="90" r="2" fill={colours.ochre} />
      <circle cx="86" cy="86" r="2" fill={colours.ochre} />
      <circle cx="94" cy="96" r="2" fill={colours.ochre} />
    </>
  ),
  probe: (
    <>
      <Ground />
      <path d="M62 14H98M80 14V84l-3 6h6l-3-6" {...line} strokeWidth="3" />
      <path d="M40 90H120" stroke={colours.ochre} strokeWidth="3" strokeDasharray="6 4" />
    </>
  ),
  ring: (
    <>
      <Ground y={56} />
      <path d="M54 30V76M106 30V76" {...line} strokeWidth="3" />
      <rect x="55" y="38" width="50" height="18" {...water} />
      <path d="M66 60v22M80 60v28M94 60v22" stroke={colours.slate} strokeWidth="1.4" strokeDasharray="3 3" />
    </>
  ),
  waterDrop: (
    <>
      <rect x="30" y="62" width="100" height="30" fill="#CDBB97" stroke={colours.ink} />
      <path d="M50 62a8 7 0 0 1 16 0zM78 62a8 7 0 0 1 16 0z" {...water} />
      <path d="M112 22c6 9 6 14 0 14s-6-5 0-14z" {...water} />
    </>
  ),
  fizz: (
    <>
      <path d="M36 64c0 22 16 30 44 30s44-8 44-30z" {...line} />
      <path d="M46 66c8 16 60 16 68 0z" fill="#CDBB97" stroke={colours.ink} />
      <circle cx="66" cy="54" r="4" {...water} />
      <circle cx="80" cy="44" r="5" {...water} />
      <circle cx="92" cy="56" r="3" {...water} />
      <circle cx="84" cy="28" r="3" {...water} />
    </>
  ),
  soilTemperature: (
    <>
      <Ground y={56} />
      <path d="M76 12h8v66a8 8 0 1 1-8 0z" {...line} />
      <path d="M80 40V84" stroke={colours.ochre} strokeWidth="4" />
    </>
  ),
  soilMoisture: (
    <>
      <Ground y={50} />
      <rect x="62" y="22" width="36" height="20" {...line} />
      <path d="M72 42V92M88 42V92" {...line} strokeWidth="2.4" />
      <path d="M112 70c6 9 6 14 0 14s-6-5 0-14zM50 74c6 9 6 14 0 14s-6-5 0-14z" {...water} />
    </>
  ),
  catchCups: (
    <>
      <path d="M20 96H140" {...line} />
      {[24, 56, 88, 120].map((x, index) => (
        <g key={x}>
          <path d={`M${x} 70l3 26h14l3-26`} {...line} />
          <rect x={x + 2.5} y={[84, 78, 82, 90][index]} width="15" height={[12, 18, 14, 6][index]} {...water} />
        </g>
      ))}
      <path d="M80 20c-20 8-36 24-44 44M80 20c20 8 36 24 44 44M80 20v40" stroke={colours.slate} strokeWidth="1.4" strokeDasharray="3 4" fill="none" />
    </>
  ),
  wateringDepth: (
    <>
      <Ground y={30} />
      <path d="M4 30H156V78C120 92 100 60 80 72S30 96 4 74z" {...water} stroke="none" />
      <path d="M70 8h20v10h-20zM80 18V70" {...line} strokeWidth="2.6" />
      <path d="M4 74C30 96 60 84 80 72S120 92 156 78" stroke={colours.slate} strokeWidth="1.4" fill="none" />
    </>
  ),
  cover: (
    <>
      <rect x="40" y="14" width="84" height="84" {...line} />
      {[0, 1, 2, 3].flatMap((row) =>
        [0, 1, 2, 3].map((column) => (
          <circle
            key={`${row} ${column}`}
            cx={50 + column * 21}
            cy={24 + row * 21}
            r="5"
            fill={(row * 5 + column * 3) % 7 < 4 ? colours.lichen : (row + column) % 3 ? '#E6DAB8' : colours.ochre}
          />
        )),
      )}
    </>
  ),
}; // prettier-ignore

/** What the hands do, drawn. */
export function TestDrawing({ kind, size = 160 }: { readonly kind: FieldTestKind; readonly size?: number }) {
  return (
    <svg viewBox="0 0 160 112" width={size} height={(size * 112) / 160} aria-hidden="true">
      {drawings[kind]}
    </svg>
  );
}
