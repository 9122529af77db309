import { coreErrors } from '@glenfold/agronomy';
import { Box, useMediaQuery } from '@mui/material';
import { Chart, Legend, LineElement, LinearScale, PointElement, Tooltip } from 'chart.js';
import { Line } from 'react-chartjs-2';
import { colours } from '../../../ui/theme.ts';

Chart.register(LineElement, PointElement, LinearScale, Legend, Tooltip);
Chart.defaults.font.family = '"Atkinson Hyperlegible", sans-serif';
Chart.defaults.color = colours.ink;

const MOST = 40;
/** At which the error of a pH is told. */
const USUAL_PH = 6.5;
/** Told apart by dash as well as by colour. */
const looks: Readonly<Record<string, readonly [colour: string, dash: number[]]>> = {
  pH: [colours.lichen, []],
  'organic matter': [colours.ochre, [8, 4]],
  phosphorus: [colours.slate, [3, 3]],
};

/** What more cores buy: the error that is left in a bag. */
export function ErrorChart({ cores }: { readonly cores: number }) {
  // Potassium varies as phosphorus does: one line tells both.
  const shown = coreErrors(1).filter(({ analyte }) => analyte in looks);
  const numbers = Array.from({ length: MOST - 4 }, (_, index) => index + 5);
  const margin = (analyte: string, count: number): number =>
    coreErrors(count).find((error) => error.analyte === analyte)?.margin ?? 0;
  const narrow = useMediaQuery('(max-width: 600px)');
  const words = shown
    .map(({ analyte }) =>
      // A pH is told in pH: a share of a logarithm says nothing.
      analyte === 'pH'
        ? `pH ±${((margin(analyte, cores) * USUAL_PH) / 100).toFixed(1)}`
        : `${analyte === 'phosphorus' ? 'P and K' : analyte} ±${margin(analyte, cores).toFixed(0)} %`,
    )
    .join(', ');
  return (
    <Box>
      <Box
        role="img"
        aria-label={`Error left by the number of cores; with ${cores}: ${words}`}
        sx={{ height: narrow ? 210 : 168 }}
      >
        <Line
          role="presentation"
          data={{
            datasets: shown.map(({ analyte }) => {
              const [colour, dash] = looks[analyte]!;
              return {
                label: analyte === 'phosphorus' ? 'P and K' : analyte,
                data: numbers.map((count) => ({ x: count, y: margin(analyte, count) })),
                borderColor: colour,
                backgroundColor: colour,
                borderDash: dash,
                borderWidth: 2,
                pointRadius: numbers.map((count) => (count === cores ? 5 : 0)),
              };
            }),
          }}
          options={{
            animation: false,
            maintainAspectRatio: false,
            parsing: false,
            scales: {
              x: {
                type: 'linear',
                min: 5,
                max: MOST,
                title: { display: true, text: 'cores in the bag' },
                grid: { color: colours.line },
              },
              y: { min: 0, title: { display: true, text: 'error, ± %' }, grid: { color: colours.line } },
            },
            plugins: { legend: { position: narrow ? 'bottom' : 'right', labels: { boxWidth: 26, boxHeight: 0 } } },
          }}
        />
      </Box>
      <Box sx={{ fontSize: '0.92rem' }}>
        {cores} cores: {words}, in nine bags of ten.
      </Box>
    </Box>
  );
}
