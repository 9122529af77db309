import type { ShapeName } from '@glenfold/agronomy';
import { colours } from '../../../ui/theme.ts';

interface Sketch {
  readonly outline: string;
  /** Lines that are measured but are no side. */
  readonly inner?: string;
  readonly words: ReadonlyArray<readonly [text: string, x: number, y: number]>;
}

const sketches: Readonly<Record<ShapeName, Sketch>> = {
  rectangle: {
    outline: 'M12 24H108V76H12Z',
    words: [
      ['length', 60, 90],
      ['width', 114, 54],
    ],
  },
  triangle: {
    outline: 'M12 78H108L40 18Z',
    words: [
      ['A', 60, 92],
      ['B', 80, 44],
      ['C', 18, 46],
    ],
  },
  l: {
    outline: 'M12 18H66V46H108V80H12Z',
    inner: 'M66 18H108V46',
    words: [
      ['length', 60, 94],
      ['width', 2, 52],
      ['missing', 87, 35],
    ],
  },
  circle: { outline: 'M60 12A38 38 0 1 1 59.9 12Z', inner: 'M22 50H98', words: [['across', 60, 45]] },
  trapezium: {
    outline: 'M12 80H108L84 22H34Z',
    inner: 'M34 22V80',
    words: [
      ['one', 60, 94],
      ['other', 60, 16],
      ['between', 56, 54],
    ],
  },
  'four sides': {
    outline: 'M14 70L46 90L108 58L44 14Z',
    inner: 'M14 70L108 58',
    words: [
      ['A', 24, 90],
      ['B', 84, 86],
      ['C', 84, 32],
      ['D', 20, 38],
      ['diagonal', 58, 60],
    ],
  },
};

/** The shape with the names of what is measured on it. */
export function ShapeSketch({ shape }: { readonly shape: ShapeName }) {
  const { outline, inner, words } = sketches[shape];
  return (
    <svg
      width="140"
      height="104"
      viewBox="-8 0 140 104"
      role="img"
      aria-label={`Sketch of a ${shape}`}
      style={{ flex: 'none' }}
    >
      <path d={outline} fill={colours.lichenWash} stroke={colours.ink} strokeWidth="1.6" strokeLinejoin="round" />
      {inner && <path d={inner} fill="none" stroke={colours.ink} strokeWidth="1.1" strokeDasharray="4 3" />}
      {words.map(([text, x, y]) => (
        <text
          key={text}
          x={x}
          y={y}
          fontSize="11"
          textAnchor="middle"
          fill={colours.ink}
          stroke={colours.sheet}
          strokeWidth="3"
          paintOrder="stroke"
        >
          {text}
        </text>
      ))}
    </svg>
  );
}
