import { defineCalculator } from '../calculators/calculator.ts';
import { choice, defaulted, quantity } from '../calculators/fields.ts';
import { record } from '../calculators/structures.ts';
import { readTable } from '../calculators/table.ts';
import levels from '../data/minimum-levels.json' with { type: 'json' };
import { figure } from '../working/working.ts';

const kept = ['k', 'p', 'ca', 'mg', 's'] as const;
/** mg/kg kept in the soil, and what leaves hold, %. */
export const minimumLevels = readTable(
  'minimum-levels',
  {
    floor: record(kept, quantity('mg/kg', { above: 0, max: 10_000 })),
    leaf: record(['n', ...kept], quantity('%', { above: 0, max: 20 })),
  },
  levels,
);

/**
 * What keeps a nutrient above its minimum level over a period: expected use + floor − test.
 *
 * @param nutrient k, p, ca, mg or s; `test` mg/kg by Mehlich-3; `nitrogen` g/m² for the period, which sets the use;
 *   `depth` cm and `bulkDensity` g/cm³ of the root zone.
 * @returns `requirement` g/m² of the element, never negative; `use` g/m².
 */
export const requirementMinimumLevel = defineCalculator({
  name: 'requirement.minimumLevel',
  title: 'Requirement by minimum levels',
  source: minimumLevels.source,
  inputs: {
    nutrient: choice(kept),
    test: quantity('mg/kg', { min: 0, max: 100_000 }),
    nitrogen: quantity('g/m2', { min: 0, max: 200 }),
    depth: defaulted(quantity('cm', { above: 0, max: 60 }), 10),
    bulkDensity: defaulted(quantity('g/cm3', { min: 0.05, max: 2.2 }), 1.5),
  },
  outputs: { requirement: 'g/m2', use: 'g/m2', reserve: 'g/m2' },
  compute({ nutrient, test, nitrogen, depth, bulkDensity }, book) {
    const { leaf, floor } = minimumLevels;
    const use = (nitrogen * leaf[nutrient]) / leaf.n;
    book.step({
      label: 'Expected use',
      formula: 'nitrogen × leaf content / leaf nitrogen',
      numbers: `${figure(nitrogen)} g/m² × ${leaf[nutrient]} % / ${leaf.n} %`,
      result: use,
      unit: 'g/m2',
      source: minimumLevels.source,
    });
    const perUnit = depth * bulkDensity * 0.01;
    const reserve = (test - floor[nutrient]) * perUnit;
    book.step({
      label: 'In the root zone above the floor',
      formula: '(test − floor) × depth × bulk density × 0.01',
      numbers: `(${figure(test)} − ${floor[nutrient]}) × ${figure(depth)} × ${figure(bulkDensity)} × 0.01`,
      result: reserve,
      unit: 'g/m2',
      source: minimumLevels.source,
    });
    const requirement = Math.max(0, use - reserve);
    book.step({
      label: 'Requirement of the period',
      formula: 'use − what lies above the floor, never below 0',
      numbers: `${figure(use)} − ${figure(reserve)}`,
      result: requirement,
      unit: 'g/m2',
    });
    book.warn(
      'The floors were made for Mehlich-3 at pH 5.5 and above; another extractant needs its own.',
      minimumLevels.source,
    );
    return { requirement, use, reserve };
  },
});
