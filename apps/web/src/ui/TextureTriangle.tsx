import { type JarShares, textureClasses } from '@glenfold/agronomy';
import { colours } from './theme.ts';

const SIDE = 420;
const HEIGHT = SIDE * Math.sin(Math.PI / 3);

/** Where a soil stands: sand at the lower left, silt at the lower right, clay at the top. */
function place([sand = 0, clay = 0]: readonly number[]): readonly [number, number] {
  return [((100 - sand - clay + clay / 2) / 100) * SIDE, (1 - clay / 100) * HEIGHT];
}

/** A name set in the middle of its outline, in as many lines as it has words when the outline is narrow. */
function ClassName({ name, corners }: { readonly name: string; readonly corners: ReadonlyArray<readonly number[]> }) {
  const points = corners.map(place);
  const xs = points.map(([x]) => x);
  const middle = (values: readonly number[]): number => values.reduce((sum, value) => sum + value, 0) / values.length;
  const [x, y] = [middle(xs), middle(points.map(([, top]) => top))];
  const lines = Math.max(...xs) - Math.min(...xs) < name.length * 10.7 ? name.split(' ') : [name];
  return (
    <text x={x} y={y - (lines.length - 1) * 6 + 4} textAnchor="middle" fontSize="12" fill={colours.ink}>
      {lines.map((line, index) => (
        <tspan key={line} x={x} dy={index === 0 ? 0 : 12}>
          {line}
        </tspan>
      ))}
    </text>
  );
}

/**
 * The twelve texture classes in their triangle.
 *
 * @param spread where a soil may stand, %; its likeliest place is the middle of all.
 */
export function TextureTriangle({ spread = [] }: { readonly spread?: readonly JarShares[] }) {
  const spots = spread.map(({ sand, clay }) => place([sand, clay]));
  const mean = (axis: 0 | 1): number => spots.reduce((sum, spot) => sum + spot[axis], 0) / spots.length;
  const tenths = [10, 20, 30, 40, 50, 60, 70, 80, 90];
  const line = (from: readonly number[], to: readonly number[]): string => `M${place(from).join()}L${place(to).join()}`;
  const mark = { fontSize: 11, fill: colours.faded };
  return (
    <svg
      viewBox={`-46 -14 ${SIDE + 92} ${HEIGHT + 48}`}
      width="100%"
      role="img"
      aria-label="The texture triangle: sand at the lower left, silt at the lower right, clay at the top"
      style={{ display: 'block', maxWidth: 560 }}
    >
      {tenths.map((at) => (
        <path
          key={at}
          d={line([at, 0], [at, 100 - at]) + line([0, at], [100 - at, at]) + line([100 - at, 0], [0, 100 - at])}
          stroke={colours.line}
          strokeWidth="0.6"
        />
      ))}
      {textureClasses.map(({ name, corners }) => (
        <polygon
          key={name}
          points={corners.map((corner) => place(corner).join()).join(' ')}
          fill="none"
          stroke={colours.ink}
          strokeWidth="1.2"
        />
      ))}
      {spots.map(([x, y], index) => (
        <circle key={index} cx={x} cy={y} r="9" fill={colours.ochre} opacity="0.1" />
      ))}
      {spots.length > 0 && (
        <circle cx={mean(0)} cy={mean(1)} r="5" fill={colours.ochre} stroke={colours.ink} strokeWidth="1.5" />
      )}
      {textureClasses.map(({ name, corners }) => (
        <ClassName key={name} name={name} corners={corners} />
      ))}
      {[20, 40, 60, 80].map((at) => (
        <g key={at} {...mark}>
          <text x={place([100 - at, at])[0] - 8} y={place([100 - at, at])[1] + 4} textAnchor="end">
            {at}
          </text>
          <text x={place([0, 100 - at])[0] + 8} y={place([0, 100 - at])[1] + 4}>
            {at}
          </text>
          <text x={place([at, 0])[0]} y={HEIGHT + 14} textAnchor="middle">
            {at}
          </text>
        </g>
      ))}
      <g fontSize="13" fontWeight="700" fill={colours.ink} textAnchor="middle">
        <text x={SIDE / 2} y={HEIGHT + 31}>
          ← sand, %
        </text>
        <text transform={`translate(${SIDE / 4 - 36} ${HEIGHT / 2}) rotate(-60)`}>clay, % →</text>
        <text transform={`translate(${(SIDE * 3) / 4 + 36} ${HEIGHT / 2}) rotate(60)`}>silt, % →</text>
      </g>
    </svg>
  );
}
