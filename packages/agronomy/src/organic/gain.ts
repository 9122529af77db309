import { defineCalculator } from '../calculators/calculator.ts';
import { quantity } from '../calculators/fields.ts';
import { figure } from '../working/working.ts';

const density = () => quantity('g/cm3', { min: 0.05, max: 2.2 });
const share = () => quantity('%', { min: 0, max: 100 });

/**
 * Organic matter that a layer of compost leaves in the slice it is worked into.
 *
 * @param thickness cm of compost; its `bulkDensity` g/cm³ moist, `dryFraction` %, `organicFraction` % of the dry matter,
 *   `retained` % after the time looked at; `soilDepth` cm and `soilBulkDensity` g/cm³ of the slice.
 * @returns `gain`, percentage points of organic matter.
 */
export const organicGain = defineCalculator({
  name: 'organic.gain',
  title: 'Organic matter gained from compost',
  source: 'Mass balance of the slice; of mature compost about 50 to 70 % remains after a year, of manure about 40 %',
  inputs: {
    thickness: quantity('cm', { min: 0, max: 100 }),
    bulkDensity: density(),
    dryFraction: share(),
    organicFraction: share(),
    retained: share(),
    soilDepth: quantity('cm', { above: 0, max: 100 }),
    soilBulkDensity: density(),
  },
  outputs: { gain: '%' },
  compute({ thickness, bulkDensity, dryFraction, organicFraction, retained, soilDepth, soilBulkDensity }, book) {
    const organic = (thickness * bulkDensity * dryFraction * organicFraction * retained) / 1e6;
    book.step({
      label: 'Organic matter that stays',
      formula: 'thickness × bulk density × dry × organic × retained',
      numbers: `${figure(thickness)} cm × ${figure(bulkDensity)} × ${figure(dryFraction)} % × ${figure(organicFraction)} % × ${figure(retained)} %`,
      result: organic,
      unit: 'g/cm2',
    });
    const soil = soilDepth * soilBulkDensity;
    const gain = (100 * organic) / soil;
    book.step({
      label: 'Gain in the slice',
      formula: 'organic matter / (soil depth × bulk density)',
      numbers: `${figure(organic)} / (${figure(soilDepth)} cm × ${figure(soilBulkDensity)})`,
      result: gain,
      unit: '%',
    });
    if (gain > 8)
      book.warn('More than a soil keeps: the layer stands on it rather than in it. Work it deeper, or spread less.');
    return { gain };
  },
});
