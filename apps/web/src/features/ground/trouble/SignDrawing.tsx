import { colours } from '../../../ui/theme.ts';

const { ink, lichen, ochre, slate, line, lichenWash, ochreWash, slateWash, sheet } = colours;
const GROUND = 'M2 40H62';
/** Blades of grass at these places, as one path. */
const grass = (xs: readonly number[], height = 12, y = 40): string =>
  xs.map((x, index) => `M${x} ${y}q${index % 2 ? 1 : -1} ${-height / 2} ${index % 2 ? 3 : -2} ${-height}`).join('');
const all = [5, 10, 15, 20, 25, 30, 35, 40, 45, 50, 55, 60];

interface Stroke {
  readonly d: string;
  readonly fill?: string;
  readonly stroke?: string;
  readonly width?: number;
  readonly dash?: string;
}

const blade = (xs: readonly number[], stroke: string = lichen, height?: number): Stroke => ({
  d: grass(xs, height),
  stroke,
  width: 1.6,
});
const soil: Stroke = { d: 'M2 40H62V52H2Z', fill: ochreWash };
const surface: Stroke = { d: GROUND, stroke: ink, width: 1.2 };

/** Each sign as a small cut through turf and soil, drawn by us. */
const drawings: Readonly<Record<string, readonly Stroke[]>> = {
  moss: [
    soil,
    blade([6, 28, 52]),
    { d: 'M10 40q5 -10 10 0M19 40q5 -8 10 0M31 40q6 -11 12 0M42 40q5 -7 9 0', fill: lichen, stroke: ink, width: 0.7 },
    surface,
  ],
  algae: [
    soil,
    blade([5, 58]),
    { d: 'M12 40h38v3q-4 3 -8 0t-8 0t-8 0t-8 0t-6 0z', fill: '#2E3B36', stroke: ink, width: 0.7 },
    surface,
  ],
  'thin under tree': [
    soil,
    { d: 'M31 40V24', stroke: ink, width: 3 },
    { d: 'M16 18a15 11 0 0 1 30 0a12 9 0 0 1 -30 0z', fill: lichen, stroke: ink, width: 0.8 },
    blade([4, 9, 54, 59]),
    blade([20, 42], ochre, 6),
    surface,
  ],
  'scorched edge': [
    soil,
    { d: 'M2 34H22V52H2Z', fill: line, stroke: ink, width: 1 },
    blade([25, 29, 33], ochre, 9),
    blade([40, 45, 50, 55, 60]),
    { d: 'M6 28v-8M12 28v-8M18 28v-8', stroke: ochre, width: 1.2, dash: '2 2' },
    surface,
  ],
  'wet low ground': [
    { d: 'M2 32Q20 32 26 42T62 44V52H2Z', fill: ochreWash },
    { d: 'M27 42Q44 37 62 42V46H30Z', fill: slateWash, stroke: slate, width: 1 },
    { d: grass([4, 8, 12, 16], 11, 33), stroke: lichen, width: 1.6 },
    { d: 'M2 32Q20 32 26 42T62 44', stroke: ink, width: 1.2 },
  ],
  puddles: [
    soil,
    { d: 'M14 39q4 -5 18 -5t18 5z', fill: slateWash, stroke: slate, width: 1.1 },
    { d: 'M20 12l-2 6M32 8l-2 6M44 12l-2 6M26 20l-2 6M40 22l-2 6', stroke: slate, width: 1.3 },
    blade([5, 9, 56, 60]),
    surface,
  ],
  'water beads': [
    soil,
    {
      d: 'M14 36a4 4 0 1 0 .1 0M31 33a5 5 0 1 0 .1 0M48 36a4 4 0 1 0 .1 0',
      fill: slateWash,
      stroke: slate,
      width: 1.2,
    },
    { d: 'M8 46h3M18 48h3M30 46h3M42 48h3M54 46h3', stroke: ochre, width: 1.2 },
    { d: GROUND, stroke: ink, width: 1.2 },
  ],
  spongy: [
    soil,
    { d: 'M2 31H62V40H2Z', fill: '#8C7B4F' },
    { d: 'M4 34l6 3M12 33l7 4M22 34l5 4M30 33l7 4M40 34l6 3M50 33l7 4', stroke: sheet, width: 0.9 },
    { d: grass(all, 9, 31), stroke: lichen, width: 1.5 },
    { d: 'M31 8v12m-4 -4l4 4l4 -4', stroke: ink, width: 1.4 },
    surface,
  ],
  'green veins': [
    { d: 'M32 50C10 40 14 12 32 4C50 12 54 40 32 50Z', fill: '#E9DDA0', stroke: ink, width: 1 },
    {
      d: 'M32 50V6M32 16l9 -5M32 16l-9 -5M32 27l13 -7M32 27l-13 -7M32 39l13 -8M32 39l-13 -8',
      stroke: lichen,
      width: 2,
    },
  ],
  'pale all over': [soil, { d: grass(all, 13), stroke: '#B7B873', width: 1.8 }, surface],
  'slope never greens': [
    { d: 'M2 18H16L48 44H62V52H2Z', fill: ochreWash },
    { d: grass([4, 8, 12], 10, 18), stroke: lichen, width: 1.6 },
    { d: 'M22 23l2 -5M30 30l2 -5M38 36l2 -5', stroke: ochre, width: 1.4 },
    { d: grass([51, 55, 59], 10, 44), stroke: lichen, width: 1.6 },
    { d: 'M24 15l14 11m-5 0h5v-5', stroke: slate, width: 1.3 },
    { d: 'M2 18H16L48 44H62', stroke: ink, width: 1.2 },
  ],
  'worn bare': [
    soil,
    blade([4, 8, 54, 58, 62]),
    { d: 'M18 30q4 -8 8 0l-1 8h-6zM34 26q4 -8 8 0l-1 8h-6z', fill: 'none', stroke: ink, width: 1.2 },
    { d: 'M14 40h36', stroke: ochre, width: 3 },
    surface,
  ],
  'hard ground': [
    soil,
    blade([6, 12, 50, 56]),
    { d: 'M31 6V43', stroke: ink, width: 2.4 },
    { d: 'M25 6H37', stroke: ink, width: 3 },
    { d: 'M20 45H42M16 49H46', stroke: ochre, width: 2.4 },
    surface,
  ],
  'dry patches': [
    soil,
    blade([4, 8, 12, 50, 54, 58]),
    { d: grass([19, 24, 29, 34, 39, 44], 7), stroke: ochre, width: 1.6 },
    { d: 'M31 6a6 6 0 1 0 .1 0M31 1v3M31 20v3M20 12h3M39 12h3', fill: 'none', stroke: ochre, width: 1.3 },
    surface,
  ],
  'white crust': [
    soil,
    { d: 'M8 40q3 -4 7 0q4 -5 8 0q3 -4 7 0q4 -5 8 0q3 -4 7 0q4 -4 8 0z', fill: sheet, stroke: ink, width: 0.9 },
    blade([5, 30, 58], ochre, 11),
    surface,
  ],
  'small straw spots': [
    { d: 'M2 10H62V50H2Z', fill: lichenWash },
    { d: 'M18 24a8 7 0 1 0 .1 0M44 30a7 6 0 1 0 .1 0', fill: '#D9C68B', stroke: lichen, width: 3 },
  ],
  'lifts like carpet': [
    soil,
    { d: 'M30 40H62V36H34Q44 30 38 22Q32 16 24 24', fill: 'none', stroke: lichen, width: 3 },
    { d: 'M12 46q3 -4 6 0t6 0', stroke: sheet, width: 3 },
    { d: 'M12 46q3 -4 6 0t6 0', stroke: ink, width: 1 },
    surface,
  ],
  'mushroom ring': [
    { d: 'M2 10H62V50H2Z', fill: lichenWash },
    { d: 'M32 16a20 14 0 1 0 .1 0', fill: 'none', stroke: lichen, width: 5 },
    { d: 'M12 24h6M15 24v5M46 22h6M49 22v5M31 46h6M34 46v5', stroke: ink, width: 1.5 },
  ],
};

/** A sign of trouble as it looks on the ground. */
export function SignDrawing({ sign, size = 64 }: { readonly sign: string; readonly size?: number }) {
  return (
    <svg
      width={size}
      height={(size * 54) / 64}
      viewBox="0 0 64 54"
      aria-hidden
      style={{ flex: 'none', display: 'block' }}
    >
      {drawings[sign]?.map(({ d, fill = 'none', stroke = 'none', width = 1, dash }, index) => (
        <path
          key={index}
          d={d}
          fill={fill}
          stroke={stroke}
          strokeWidth={width}
          strokeDasharray={dash}
          strokeLinecap="round"
          strokeLinejoin="round"
        />
      ))}
    </svg>
  );
}
