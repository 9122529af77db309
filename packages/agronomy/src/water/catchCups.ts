import { defineCalculator } from '../calculators/calculator.ts';
import { InputError, quantity } from '../calculators/fields.ts';
import { series } from '../calculators/structures.ts';
import { testLimits } from './testLimits.ts';
import { figure } from '../working/working.ts';

const SOURCE =
  'Catch-can audit: distribution uniformity of the low quarter (Irrigation Association); coefficient of uniformity after Christiansen (1942)';

/**
 * How fast and how evenly sprinklers water, by cups that stood on the lawn.
 *
 * @param cups mL caught in each; `throatArea` of a cup, cm²; `minutes` of the run.
 * @returns `rate` mm/h; `uniformity` of the lowest quarter and `christiansen`, %; `rating` by the uniformity.
 * @throws {InputError} for fewer than four cups, and where all of them stayed dry.
 */
export const waterCatchCups = defineCalculator({
  name: 'water.catchCups',
  title: 'Catch cups',
  source: SOURCE,
  inputs: {
    cups: series(quantity('mL', { min: 0, max: 5000 }), 'cups', { min: testLimits.catchCups.least, max: 400 }),
    throatArea: quantity('cm2', { above: 0, max: 5000 }),
    minutes: quantity('min', { above: 0, max: 1440 }),
  },
  outputs: { rate: 'mm/h', uniformity: '%', christiansen: '%', rating: 'poor, fair or good' },
  compute({ cups, throatArea, minutes }, book) {
    const total = cups.reduce((sum, cup) => sum + cup, 0);
    if (total <= 0) throw new InputError('cups', 'are all dry; put them where the sprinklers reach, and run again');
    const mean = total / cups.length;
    const rate = ((mean * 10) / throatArea) * (60 / minutes);
    book.step({
      label: 'Precipitation rate',
      formula: 'mean × 10 / throat area × 60 / minutes',
      numbers: `${figure(mean)} mL × 10 / ${figure(throatArea)} cm² × 60 / ${figure(minutes)} min`,
      result: rate,
      unit: 'mm/h',
      source: SOURCE,
    });
    const low = [...cups].sort((a, b) => a - b).slice(0, Math.ceil(cups.length / 4));
    const lowMean = low.reduce((sum, cup) => sum + cup, 0) / low.length;
    const uniformity = (100 * lowMean) / mean;
    book.step({
      label: 'Distribution uniformity',
      formula: 'mean of the lowest quarter / mean',
      numbers: `${figure(lowMean)} mL of ${low.length === 1 ? 'one cup' : `${low.length} cups`} / ${figure(mean)} mL`,
      result: uniformity,
      unit: '%',
      source: SOURCE,
    });
    const deviation = cups.reduce((sum, cup) => sum + Math.abs(cup - mean), 0);
    const christiansen = 100 * (1 - deviation / (cups.length * mean));
    book.step({
      label: 'Uniformity by Christiansen',
      formula: '1 − Σ|cup − mean| / (n × mean)',
      numbers: `1 − ${figure(deviation)} / (${cups.length} × ${figure(mean)})`,
      result: christiansen,
      unit: '%',
      source: SOURCE,
    });
    const { poorBelow, goodFrom } = testLimits.catchCups;
    const rating = uniformity < poorBelow ? 'poor' : uniformity >= goodFrom ? 'good' : 'fair';
    book.step({
      label: 'Rating',
      formula: `below ${poorBelow} % poor, from ${goodFrom} % good, between fair`,
      numbers: `${figure(uniformity)} %`,
      result: rating,
      unit: '',
      source: testLimits.source,
    });
    return { rate, uniformity, christiansen, rating };
  },
});
