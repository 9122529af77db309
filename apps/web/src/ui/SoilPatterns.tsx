import { colours } from './theme.ts';

/** Textures as patterns, once for all sticks: dots for sand, short strokes for loam, lines for clay, stones for fill. */
export function SoilPatterns() {
  return (
    <svg width="0" height="0" aria-hidden="true" style={{ position: 'absolute' }}>
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
      <pattern id="soil-rubble" width="12" height="10" patternUnits="userSpaceOnUse">
        <path d="M1 4l3 -2l3 2l-2 3h-3zM8 9l2 -2l2 1" fill="none" stroke={colours.faded} strokeWidth="0.9" />
      </pattern>
    </svg>
  );
}
