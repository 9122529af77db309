import { quantity } from '../calculators/fields.ts';
import { listOf, record } from '../calculators/structures.ts';
import { mustRise, readTable } from '../calculators/table.ts';
import data from '../data/forecast.json' with { type: 'json' };

export const meshes = ['fine', 'medium', 'coarse'] as const;
export type Mesh = (typeof meshes)[number];

const positive = (max: number) => quantity('', { above: 0, max });

/** How fast what is put down works, and how sure that is. */
export const forecastTable = readTable(
  'forecast',
  {
    halfMonths: record(meshes, positive(600)),
    limeEndsAtPh: quantity('pH', { min: 6, max: 9 }),
    limeRatePh: quantity('pH', { min: 4, max: 8 }),
    limeRateTemperature: quantity('C', { min: 0, max: 40 }),
    limeQ10: positive(5),
    sulfurDensity: positive(5),
    /** µg/cm² a day. */
    sulfurRate: listOf({ temperature: quantity('C', { min: 0, max: 50 }), rate: positive(1000) }, 'temperatures', {
      min: 2,
      max: 10,
    }),
    sulfurStopsBelow: quantity('C', { min: -10, max: 20 }),
    nitrogenDays: quantity('', { min: 1, max: 365, whole: true }),
    nitrogenFrom: quantity('C', { min: 0, max: 30 }),
    /** g CaCO₃/m² with each mm. */
    baseLoss: listOf({ ph: quantity('pH', { min: 3, max: 9 }), loss: positive(10) }, 'losses', { min: 2, max: 10 }),
    monthDays: quantity('', { min: 28, max: 31 }),
    reactivitySpread: positive(1),
    startError: positive(1),
    spreadByBuffer: positive(1),
    spreadByTexture: positive(1),
    bandDeviations: positive(4),
  },
  data,
);
mustRise(
  'forecast.sulfurRate',
  forecastTable.sulfurRate.map(({ temperature }) => temperature),
);
mustRise(
  'forecast.baseLoss',
  forecastTable.baseLoss.map(({ ph }) => ph),
);
