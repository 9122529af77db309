interface ChartProps {
  readonly data: {
    readonly datasets: ReadonlyArray<{
      readonly label: string;
      readonly data: ReadonlyArray<{ readonly x: number; readonly y: number }>;
    }>;
  };
}

/** A chart of lines as a list of what it would draw. */
export function Line({ data }: ChartProps) {
  return (
    <ul>
      {data.datasets.map(({ label, data: points }) => (
        <li key={label}>
          {label}: {points.map(({ x, y }) => `${x} ${y.toFixed(1)}`).join(', ')}
        </li>
      ))}
    </ul>
  );
}
