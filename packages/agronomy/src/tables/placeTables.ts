import { analysisEntries, analysisKeys } from '../materials/analysis.ts';
import { genericMaterials, materialTable } from '../materials/material.ts';
import { garden } from '../nutrients/garden.ts';
import { climateTable } from '../season/climate.ts';
import { range, table } from './table.ts';
import { capital } from '../units/capital.ts';

/** The generic catalogue, the made-up climates, and what a garden bed is read against. */
export const ofPlaces = [
  table(
    'Materials',
    'Generic products by analysis',
    materialTable,
    ['Product', 'Kind', 'Analysis', 'Pack'],
    genericMaterials.map(({ name, kind, analysis, seeds, packSize, packUnit }) => [
      name,
      kind,
      [
        ...analysisKeys.flatMap((key) =>
          analysis[key] === undefined ? [] : [`${analysisEntries[key].label} ${analysis[key]}`],
        ),
        ...(seeds ?? []).map(({ grass, share }) => `${grass} ${share} %`),
      ].join('; '),
      `${packSize} ${packUnit}`,
    ]),
  ),
  table(
    'Soil and water',
    'Climate classes',
    climateTable,
    ['Class', 'Mean low to high, °C, January to December', 'Rain, mm', 'Last and first frost'],
    climateTable.climates.map(({ name, what, low, high, rain, lastFrost, firstFrost }) => [
      `${capital(name)}: ${what}`,
      low.map((value, month) => `${value} to ${high[month]}`).join(', '),
      rain.join(', '),
      `${lastFrost}, ${firstFrost}`,
    ]),
  ),
  table(
    'Judgement',
    'A garden bed, in general',
    garden,
    ['pH', 'Aim', 'Salt begins to harm, and harms most crops, dS/m'],
    [[range(garden.ph), garden.aim.toFixed(1), garden.salt.join(', ')]],
  ),
];
