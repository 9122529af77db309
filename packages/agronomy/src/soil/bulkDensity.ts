import { defineCalculator } from '../calculators/calculator.ts';
import { quantity } from '../calculators/fields.ts';
import { figure } from '../working/working.ts';

const SOURCE = 'Adams (1973), Journal of Soil Science 24:10–17: organic matter 0.244 g/cm³, mineral matter 1.64 g/cm³';

/** Bulk density of a soil by its organic matter (%), g/cm³. */
export function densityOf(organicMatter: number): number {
  return 100 / (organicMatter / 0.244 + (100 - organicMatter) / 1.64);
}

/**
 * Bulk density where none was measured.
 *
 * @param organicMatter % of the dry soil.
 * @returns `bulkDensity` g/cm³.
 */
export const soilBulkDensity = defineCalculator({
  name: 'soil.bulkDensity',
  title: 'Bulk density from organic matter',
  source: SOURCE,
  inputs: { organicMatter: quantity('%', { min: 0, max: 100 }) },
  outputs: { bulkDensity: 'g/cm3' },
  compute({ organicMatter }, book) {
    const bulkDensity = densityOf(organicMatter);
    book.step({
      label: 'Bulk density',
      formula: '100 / (OM / 0.244 + (100 − OM) / 1.64)',
      numbers: `100 / (${figure(organicMatter)} / 0.244 + ${figure(100 - organicMatter)} / 1.64)`,
      result: bulkDensity,
      unit: 'g/cm3',
      source: SOURCE,
    });
    return { bulkDensity };
  },
});
