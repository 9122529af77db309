import { dayOn, daysBetween } from '@glenfold/agronomy';
import type { ProofZoneAnswer } from '@glenfold/contract';
import { Box, useMediaQuery } from '@mui/material';
import { Chart, Filler, Legend, LineElement, LinearScale, PointElement, Tooltip } from 'chart.js';
import { Line } from 'react-chartjs-2';
import { colours } from '../../ui/theme.ts';

Chart.register(LineElement, PointElement, LinearScale, Legend, Tooltip, Filler);
Chart.defaults.font.family = '"Atkinson Hyperlegible", sans-serif';
Chart.defaults.color = colours.ink;

const LICHEN_WASH = `${colours.lichen}33`;
const WANTED_WASH = `${colours.slate}1f`;

/** A zone’s pH: what was measured, what is foretold under the program with its band, and under nothing more. */
export function PhChart({ zone, today }: { readonly zone: ProofZoneAnswer; readonly today: string }) {
  const narrow = useMediaQuery('(max-width: 600px)');
  const { tests, from, under, nothing, band, marks, predictions } = zone;
  // Each that was judged, as far as its retest.
  const judged = predictions.filter(({ proved }) => proved !== null);
  const first = [tests[0]?.sampledOn, from].filter((day): day is string => !!day).sort()[0];
  if (!first) return null;
  const x = (day: string): number => daysBetween(first, day);
  const line = (days: typeof under, start: string, key: 'ph' | 'low' | 'high') =>
    days.map((one) => ({ x: x(dayOn(start, one.day)), y: one[key] }));
  const end = Math.max(x(today) + 30, ...(from ? under.map(({ day }) => x(dayOn(from, day))) : [0]));
  const inTime = marks.filter(({ on }) => on >= first && x(on) <= end);
  const values = [
    ...tests.map(({ ph }) => ph),
    ...under.flatMap(({ low, high }) => [low, high]),
    ...judged.flatMap(({ days }) => days.slice(0, 14).flatMap(({ low, high }) => [low, high])),
    ...(band ?? []),
  ];
  const [low, high] = [Math.floor(Math.min(...values) * 2) / 2, Math.ceil(Math.max(...values) * 2) / 2];
  const plain = { pointRadius: 0, borderWidth: 0, fill: false as const };
  return (
    <Box
      role="img"
      aria-label={`pH over time: ${tests.map(({ sampledOn, ph }) => `${ph.toFixed(1)} on ${sampledOn}`).join(', ')}${under.length > 0 ? `; foretold ${under.at(-1)!.ph.toFixed(1)}, ${under.at(-1)!.low.toFixed(1)} to ${under.at(-1)!.high.toFixed(1)}` : ''}`}
      sx={{ height: narrow ? 260 : 330 }}
    >
      <Line
        role="presentation"
        data={{
          datasets: [
            {
              label: 'tests',
              data: tests.map(({ sampledOn, ph }) => ({ x: x(sampledOn), y: ph })),
              showLine: false,
              pointRadius: 6,
              pointStyle: 'rect',
              backgroundColor: colours.ink,
              borderColor: colours.ink,
            },
            ...(from
              ? [
                  {
                    label: 'under the program',
                    data: line(under, from, 'ph'),
                    borderColor: colours.lichen,
                    backgroundColor: colours.lichen,
                    borderWidth: 2.5,
                    pointRadius: 0,
                  },
                  { label: 'low', data: line(under, from, 'low'), ...plain },
                  {
                    label: '8 in 10 such soils',
                    data: line(under, from, 'high'),
                    ...plain,
                    fill: '-1',
                    backgroundColor: LICHEN_WASH,
                  },
                  {
                    label: 'nothing more put down',
                    data: line(nothing, from, 'ph'),
                    borderColor: colours.faded,
                    backgroundColor: colours.faded,
                    borderDash: [6, 4],
                    borderWidth: 1.8,
                    pointRadius: 0,
                  },
                ]
              : []),
            ...judged.flatMap(({ days, from: start, madeOn, retestedOn }) => {
              const told = days.filter(({ day }) => dayOn(start, day) <= dayOn(retestedOn!, 30));
              return [
                { label: `low ${madeOn}`, data: line(told, start, 'low'), ...plain },
                {
                  label: `foretold ${madeOn.slice(0, 7)}`,
                  data: line(told, start, 'high'),
                  ...plain,
                  fill: '-1',
                  backgroundColor: `${colours.slate}3d`,
                },
              ];
            }),
            ...(band
              ? [
                  {
                    label: 'band low',
                    data: [
                      { x: -40, y: band[0]! },
                      { x: end, y: band[0]! },
                    ],
                    ...plain,
                  },
                  {
                    label: 'wanted',
                    data: [
                      { x: -40, y: band[1]! },
                      { x: end, y: band[1]! },
                    ],
                    ...plain,
                    fill: '-1',
                    backgroundColor: WANTED_WASH,
                  },
                ]
              : []),
            {
              label: 'put down',
              data: inTime.filter(({ done }) => done).map(({ on }) => ({ x: x(on), y: low + 0.04 })),
              showLine: false,
              pointStyle: 'triangle',
              pointRadius: 6,
              backgroundColor: colours.lichen,
              borderColor: colours.ink,
            },
            {
              label: 'planned',
              data: inTime.filter(({ done }) => !done).map(({ on }) => ({ x: x(on), y: low + 0.04 })),
              showLine: false,
              pointStyle: 'triangle',
              pointRadius: 6,
              backgroundColor: colours.paper,
              borderColor: colours.ink,
            },
          ],
        }}
        options={{
          animation: false,
          maintainAspectRatio: false,
          parsing: false,
          scales: {
            x: {
              type: 'linear',
              min: -40,
              max: end,
              grid: { color: colours.line },
              ticks: { stepSize: 182.6, callback: (value) => dayOn(first, Math.round(Number(value))).slice(0, 7) },
            },
            y: {
              min: low,
              max: high,
              grid: { color: colours.line },
              title: { display: true, text: 'pH' },
              ticks: { stepSize: 0.5 },
            },
          },
          plugins: {
            legend: {
              position: 'bottom',
              labels: { usePointStyle: true, boxHeight: 7, filter: ({ text }) => !text.includes('low') },
            },
            tooltip: {
              callbacks: {
                title: ([item]) => (item ? dayOn(first, Math.round(Number(item.parsed.x))) : ''),
                label: (item) => {
                  const mark = inTime.find(({ on }) => x(on) === item.parsed.x);
                  return item.dataset.label === 'put down' || item.dataset.label === 'planned'
                    ? (mark?.words ?? '')
                    : `${item.dataset.label}: ${Number(item.parsed.y).toFixed(1)}`;
                },
              },
            },
          },
        }}
      />
    </Box>
  );
}
