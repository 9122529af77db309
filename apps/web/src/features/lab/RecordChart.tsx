import type { RecordSeriesAnswer } from '@glenfold/contract';
import { Box } from '@mui/material';
import { Chart, Legend, LineElement, LinearScale, PointElement, Tooltip } from 'chart.js';
import { Line } from 'react-chartjs-2';
import { colours } from '../../ui/theme.ts';

Chart.register(LineElement, PointElement, LinearScale, Legend, Tooltip);

const runColours = [colours.ink, colours.ochre, colours.slate, colours.lichen];
const runPoints = ['circle', 'rect', 'triangle', 'crossRot'] as const;

const year = (on: string): number =>
  Number(on.slice(0, 4)) + (Number(on.slice(5, 7)) - 1 + Number(on.slice(8, 10)) / 31) / 12;

/** One analyte over the years: what can be compared is joined, what cannot stands apart. */
export function RecordChart({ series }: { readonly series: RecordSeriesAnswer }) {
  const dated = series.points.filter((point): point is typeof point & { on: string } => point.on !== null && !point.superseded);
  const runs = [...new Set(dated.map(({ run }) => run))];
  return (
    <Box role="img" aria-label={`${series.name} over time: ${dated.map(({ told, on }) => `${told} on ${on}`).join(', ')}`} sx={{ height: 240 }}>
      <Line
        role="presentation"
        data={{
          datasets: runs.map((run, index) => {
            const own = dated.filter((point) => point.run === run);
            const colour = runColours[index % runColours.length]!;
            return {
              label: own[0]!.apart ?? own[0]!.method ?? series.name,
              data: own.map(({ on, value }) => ({ x: year(on), y: value })),
              borderColor: colour,
              backgroundColor: colour,
              pointRadius: 5,
              pointStyle: runPoints[index % runPoints.length]!,
              borderDash: index === 0 ? [] : [5, 4],
              tension: 0,
            };
          }),
        }}
        options={{
          animation: false,
          maintainAspectRatio: false,
          parsing: false,
          scales: {
            x: { type: 'linear', ticks: { callback: (value) => (Number.isInteger(value) ? String(value) : '') }, grid: { color: colours.line } },
            y: { title: { display: series.unit !== '' && series.unit !== 'pH', text: series.unit }, grid: { color: colours.line } },
          },
          plugins: { legend: { display: runs.length > 1 } },
        }}
      />
    </Box>
  );
} // prettier-ignore
