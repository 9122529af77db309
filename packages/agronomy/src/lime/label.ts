import { defineCalculator } from '../calculators/calculator.ts';
import { defaulted, quantity } from '../calculators/fields.ts';
import { figure } from '../working/working.ts';

/**
 * How long a bag's own yearly rate takes to bring the pH to the target.
 *
 * @param requirement g/m² of lime at `assumedEffectiveness` %; `labelRate` g/m² of product a year;
 *   `effectiveness` of the product, %; `yearlyAcidity` of the nitrogen program, g/m² CaCO₃ a year.
 * @returns `years`, left out when the rate never gets there; `reaches`.
 */
export const limeLabel = defineCalculator({
  name: 'lime.label',
  title: 'Years at the label’s rate',
  source: 'Balance of pure lime: requirement ÷ (lime of the label rate − yearly acidity)',
  inputs: {
    requirement: quantity('g/m2', { min: 0, max: 100_000 }),
    assumedEffectiveness: quantity('%', { above: 0, max: 100 }),
    labelRate: quantity('g/m2', { min: 0, max: 10_000 }),
    effectiveness: quantity('%', { above: 0, max: 180 }),
    yearlyAcidity: defaulted(quantity('g/m2', { min: -1000, max: 1000 }), 0),
  },
  outputs: { years: 'years', reaches: 'true or false' },
  compute(
    { requirement, assumedEffectiveness, labelRate, effectiveness, yearlyAcidity },
    book,
  ): { readonly reaches: boolean; readonly years?: number } {
    const pure = (requirement * assumedEffectiveness) / 100;
    book.step({
      label: 'Pure lime that is needed',
      formula: 'requirement × assumed effectiveness',
      numbers: `${figure(requirement)} g/m² × ${figure(assumedEffectiveness)} %`,
      result: pure,
      unit: 'g/m2',
    });
    const yearly = (labelRate * effectiveness) / 100 - yearlyAcidity;
    book.step({
      label: 'Pure lime gained in a year',
      formula: 'label rate × effectiveness − yearly acidity',
      numbers: `${figure(labelRate)} g/m² × ${figure(effectiveness)} % − ${figure(yearlyAcidity)}`,
      result: yearly,
      unit: 'g/m2',
    });
    if (pure === 0) return { years: 0, reaches: true };
    if (yearly <= 0) {
      book.warn('Never: the nitrogen makes at least as much acidity as the label’s rate of lime takes away.');
      return { reaches: false };
    }
    const years = pure / yearly;
    book.step({
      label: 'Years to the target',
      formula: 'needed / gained in a year',
      numbers: `${figure(pure)} / ${figure(yearly)}`,
      result: years,
      unit: 'years',
    });
    return { years, reaches: true };
  },
});
