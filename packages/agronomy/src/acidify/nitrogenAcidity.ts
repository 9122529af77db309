import { defineCalculator } from '../calculators/calculator.ts';
import { InputError, choice, defaulted, optional, quantity } from '../calculators/fields.ts';
import { figure } from '../working/working.ts';
import { acidityBases as bases, nitrogenSourceField, sulfurTable } from './tables.ts';

/**
 * Lime that makes up for the acidity of a nitrogen source.
 *
 * @param nitrogen g/m² of N; `source`; `sulfur` g/m² of S put down with sulfur-coated urea; `basis` pierre (measured, the default) or full nitrification (theory,
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
    source: nitrogenSourceField(),
    sulfur: optional(quantity('g/m2', { min: 0, max: 500 })),
    basis: defaulted(choice(['pierre', 'full nitrification']), 'pierre'),
  },
  outputs: { limeEquivalent: 'g/m2' },
  compute({ nitrogen, source, sulfur, basis }, book) {
    const table = bases[basis].perNitrogen;
    const entry = table.find(({ name }) => name === source);
    if (!entry)
      throw new InputError(
        'source',
        `was given "${source}"; ${basis} has numbers for ${table.map(({ name }) => name).join(' and ')} only`,
      );
    if (sulfur !== undefined && !entry.sulfurCounts)
      throw new InputError(
        'sulfur',
        `was given with ${source}, whose own acidity counts its sulfur already; wanted it with sulfur-coated urea only`,
      );
    if (sulfur === undefined && entry.sulfurCounts)
      throw new InputError('sulfur', 'was given nothing; wanted the sulfur of the coating in g/m2, from the label');
    const factor = entry.limeEquivalent;
    const fromNitrogen = nitrogen * factor;
    book.step({
      label: `Lime equal to the acidity of ${source}`,
      formula: 'nitrogen × CaCO₃ for each N',
      numbers: `${figure(nitrogen)} g/m² × ${figure(factor)}`,
      result: fromNitrogen,
      unit: 'g/m2',
      source: bases[basis].source,
    });
    const fromSulfur = (sulfur ?? 0) * sulfurTable.carbonatePerSulfur;
    if (fromSulfur > 0)
      book.step({
        label: 'And to the sulfur of the coating, in time',
        formula: `sulfur × ${sulfurTable.carbonatePerSulfur}`,
        numbers: `${figure(sulfur ?? 0)} g/m² × ${sulfurTable.carbonatePerSulfur}`,
        result: fromSulfur,
        unit: 'g/m2',
        source: sulfurTable.source,
      });
    const limeEquivalent = fromNitrogen + fromSulfur;
    if (limeEquivalent < 0) book.warn('This source is basic: it raises the pH a little.', bases[basis].source);
    return { limeEquivalent };
  },
});
