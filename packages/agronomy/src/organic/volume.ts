import { defineCalculator } from '../calculators/calculator.ts';
import { quantity } from '../calculators/fields.ts';
import { figure } from '../working/working.ts';

/** Volume of a layer. @param area m²; `thickness` cm. @returns `volume` m³. */
export const organicVolume = defineCalculator({
  name: 'organic.volume',
  title: 'Volume of a layer of compost or topsoil',
  source: 'Geometry; 1 in over 1000 ft² is 3.086 yd³',
  inputs: { area: quantity('m2', { min: 0 }), thickness: quantity('cm', { min: 0, max: 200 }) },
  outputs: { volume: 'm3' },
  compute({ area, thickness }, book) {
    const volume = (area * thickness) / 100;
    book.step({
      label: 'Volume',
      formula: 'area × thickness',
      numbers: `${figure(area)} m² × ${figure(thickness)} cm / 100`,
      result: volume,
      unit: 'm3',
    });
    return { volume };
  },
});
