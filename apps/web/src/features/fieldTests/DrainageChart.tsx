import { type DrainageRecord, convert } from '@glenfold/agronomy';
import { Box } from '@mui/material';
import { BarController, BarElement, Chart, Legend, LineElement, LinearScale, PointElement, Tooltip } from 'chart.js';
import { Line } from 'react-chartjs-2';
import { colours } from '../../ui/theme.ts';
import { useUnits } from '../../ui/units.tsx';

Chart.register(LineElement, PointElement, LinearScale, Legend, Tooltip, BarController, BarElement);

/** The water going down, and how fast, as it goes. */
export function DrainageChart({ hole }: { readonly hole: DrainageRecord }) {
  const { system } = useUnits();
  const { readings, holeDepth, stickHeight = 0 } = hole;
  const first = Date.parse(readings[0]!.at);
  const [length, rate] = system === 'us' ? (['in', 'in/h'] as const) : (['cm', 'mm/h'] as const);
  const x = (at: string): number => (Date.parse(at) - first) / 3_600_000;
  const depths = readings.map(({ at, depthBelowStick }) => ({
    x: x(at),
    y: convert(depthBelowStick - stickHeight, 'cm', length),
  }));
  // Each interval is one step of the rate.
  const rates = readings.slice(1).flatMap(({ at, depthBelowStick }, index) => {
    const before = readings[index]!;
    const hours = x(at) - x(before.at);
    if (hours <= 0) return [];
    const y = convert(((depthBelowStick - before.depthBelowStick) * 10) / hours, 'mm/h', rate);
    return [
      { x: x(before.at), y },
      { x: x(at), y },
    ];
  });
  return (
    <Box
      role="img"
      aria-label={`Depth of the water over time: ${depths.map((point) => `${Number(point.y.toFixed(1))} ${length} after ${Number(point.x.toFixed(1))} h`).join(', ')}`}
      sx={{ height: 220 }}
    >
      <Line
        role="presentation"
        data={{
          datasets: [
            { label: `water, ${length} down`, data: depths, borderColor: colours.slate, backgroundColor: colours.slate, pointRadius: 4, tension: 0 },
            { label: `drop, ${rate}`, data: rates, borderColor: colours.ochre, backgroundColor: colours.ochre, borderDash: [5, 4], pointRadius: 0, yAxisID: 'rate' },
          ],
        }}
        options={{
          animation: false,
          maintainAspectRatio: false,
          parsing: false,
          scales: {
            x: { type: 'linear', title: { display: true, text: 'hours since filled' }, grid: { color: colours.line } },
            y: { reverse: true, min: 0, max: convert(holeDepth, 'cm', length), title: { display: true, text: `${length} below the rim` }, grid: { color: colours.line } },
            rate: { position: 'right', min: 0, title: { display: true, text: rate }, grid: { display: false } },
          },
          plugins: { legend: { labels: { boxWidth: 18 } } },
        }}
      />
    </Box>
  );
} // prettier-ignore
