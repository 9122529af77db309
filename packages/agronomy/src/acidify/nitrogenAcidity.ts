import { defineCalculator } from '../calculators/calculator.ts';
import { InputError, choice, defaulted, quantity } from '../calculators/fields.ts';
import data from '../data/acidity.json' with { type: 'json' };
import { figure } from '../working/working.ts';

const bases = data.nitrogen;

/**
 * Lime that makes up for the acidity of a nitrogen source.
 *
 * @param nitrogen g/m² of N; `source`; `basis` pierre (measured, the default) or full nitrification (theory,
 *   given for ammonium sulfate and urea).
 * @returns `limeEquivalent` g/m² of pure CaCO₃; negative for a source that is basic.
 * @throws {InputError} for a source that the basis has no number for.
 */
export const acidityNitrogen = defineCalculator({
  name: 'acidity.nitrogen',
  title: 'Acidity of a nitrogen source',
  source: `${bases.pierre.source}; ${bases['full nitrification'].source}`,
  inputs: {
    nitrogen: quantity('g/m2', { min: 0, max: 500 }),
    source: choice(['ammonium sulfate', 'urea', 'ammonium nitrate', 'calcium nitrate']),
    basis: defaulted(choice(['pierre', 'full nitrification']), 'pierre'),
  },
  outputs: { limeEquivalent: 'g/m2' },
  compute({ nitrogen, source, basis }, book) {
    const table: Readonly<Partial<Record<string, number>>> = bases[basis].perNitrogen;
    const factor = table[source];
    if (factor === undefined)
      throw new InputError(
        'source',
        `was given "${source}"; ${basis} has numbers for ${Object.keys(table).join(' and ')} only`,
      );
    const limeEquivalent = nitrogen * factor;
    book.step({
      label: `Lime equal to the acidity of ${source}`,
      formula: 'nitrogen × CaCO₃ for each N',
      numbers: `${figure(nitrogen)} g/m² × ${figure(factor)}`,
      result: limeEquivalent,
      unit: 'g/m2',
      source: bases[basis].source,
    });
    if (limeEquivalent < 0) book.warn('This source is basic: it raises the pH a little.', bases[basis].source);
    return { limeEquivalent };
  },
});
