import { defineCalculator } from '../calculators/calculator.ts';
import { optional, quantity } from '../calculators/fields.ts';
import { figure } from '../working/working.ts';
import { amendmentField, amendments, findAmendment, valueOr } from './amendments.ts';

const density = () => quantity('g/cm3', { min: 0.05, max: 2.2 });
const share = () => quantity('%', { min: 0, max: 100 });

/**
 * Organic matter that a layer of compost leaves in the slice it is worked into.
 *
 * @param thickness cm of compost; `material`, whose typical values stand in for what was not measured; `bulkDensity` g/cm³ moist, `dryFraction` %, `organicFraction` % of the dry matter,
 *   `retained` % after the time looked at; `soilDepth` cm and `soilBulkDensity` g/cm³ of the slice.
 * @returns `gain`, percentage points of organic matter.
 */
export const organicGain = defineCalculator({
  name: 'organic.gain',
  title: 'Organic matter gained from compost',
  source: 'Mass balance of the slice; of mature compost about 50 to 70 % remains after a year, of manure about 40 %',
  inputs: {
    thickness: quantity('cm', { min: 0, max: 100 }),
    material: optional(amendmentField()),
    bulkDensity: optional(density()),
    dryFraction: optional(share()),
    organicFraction: optional(share()),
    retained: optional(share()),
    soilDepth: quantity('cm', { above: 0, max: 100 }),
    soilBulkDensity: density(),
  },
  outputs: { gain: '%' },
  compute({ thickness, material, soilDepth, soilBulkDensity, ...measured }, book) {
    const typical = findAmendment(material);
    const bulkDensity = valueOr('bulkDensity', 'g/cm3', measured.bulkDensity, typical?.bulkDensity);
    const dryFraction = valueOr('dryFraction', '%', measured.dryFraction, typical?.dryFraction);
    const organicFraction = valueOr('organicFraction', '%', measured.organicFraction, typical?.organicFraction);
    const retained = valueOr('retained', '%', measured.retained, typical?.retained);
    if (Object.values(measured).includes(undefined))
      book.warn(
        `Typical values of ${material} stand in for what was not measured: batches differ by half.`,
        amendments.source,
      );
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
