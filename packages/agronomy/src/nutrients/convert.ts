import { OXIDE_SOURCE as SOURCE, analytes, isNutrient, nutrients } from '../analytes/analytes.ts';
import { defineCalculator } from '../calculators/calculator.ts';
import { InputError, type Field, choice, defaulted, optional, quantity } from '../calculators/fields.ts';
import { convert as convertUnit } from '../units/unit.ts';
import { figure } from '../working/working.ts';

/** Those that are traded as oxides, besides nitrogen, which is not. */
const traded = nutrients.filter((key) => analytes[key].oxide !== undefined);

/** A plain number keeps its unit; a text may come as mg/kg, mass per area or mass. */
const amount: Field<number, false> = {
  description: 'number in any unit; mg/kg when depth is given',
  optional: false,
  shape: { kind: 'quantity', unit: '', whole: false },
  read(raw, path) {
    const units = ['mg/kg', 'g/m2', 'kg'] as const;
    for (const unit of units) {
      try {
        return quantity(unit, { min: 0 }).read(raw, path);
      } catch (error) {
        if (unit === 'kg') throw error;
      }
    }
    throw new InputError(path, 'could not be read');
  },
};

/**
 * Between element and oxide, and from a soil test to mass per area of the
 * sampled slice.
 *
 * @param value any amount; mg/kg when `depth` (cm) is given, and the answer is
 *   then g/m². `from` and `to` may be left out only with a depth (element).
 * @throws {InputError} for a nutrient that is not traded as an oxide.
 */
export const nutrientConvert = defineCalculator({
  name: 'nutrient.convert',
  title: 'Element and oxide, soil test and mass per area',
  source: SOURCE,
  inputs: {
    value: amount,
    nutrient: choice(['n', ...traded]),
    from: optional(choice(['element', 'oxide'])),
    to: optional(choice(['element', 'oxide'])),
    depth: optional(quantity('cm', { above: 0, max: 100 })),
    bulkDensity: defaulted(quantity('g/cm3', { min: 0.05, max: 2.2 }), 1.33),
  },
  outputs: { value: 'g/m2|mg/kg|kg, as given; g/m2 with a depth' },
  compute({ value, nutrient, from, to, depth, bulkDensity }, book) {
    for (const [name, basis] of [
      ['from', from],
      ['to', to],
    ] as const) {
      if (basis === undefined && depth === undefined)
        throw new InputError(name, 'was given nothing; wanted one of element, oxide');
    }
    const source = from ?? 'element';
    const target = to ?? 'element';
    let result = value;
    if (source !== target) {
      const entry = isNutrient(nutrient) ? analytes[nutrient].oxide : undefined;
      if (!entry)
        throw new InputError(
          'nutrient',
          `was given "${nutrient}"; ${nutrient.toUpperCase()} is not reported as an oxide, only ${traded.join(', ')} are`,
        );
      const { factor, name: oxide } = entry;
      result = target === 'oxide' ? value * factor : value / factor;
      book.step({
        label: target === 'oxide' ? `As ${oxide}` : `As ${nutrient.toUpperCase()}`,
        formula:
          target === 'oxide'
            ? `${oxide} = ${nutrient.toUpperCase()} × ${factor}`
            : `${nutrient.toUpperCase()} = ${oxide} / ${factor}`,
        numbers: `${figure(value)} ${target === 'oxide' ? '×' : '/'} ${factor}`,
        result,
        unit: '',
        source: SOURCE,
      });
    }
    if (depth !== undefined) {
      const perArea = convertUnit(result * bulkDensity * depth * 0.1, 'kg/ha', 'g/m2');
      book.step({
        label: 'In the sampled slice',
        formula: 'kg/ha = mg/kg × bulk density (g/cm³) × depth (cm) × 0.1; 10 kg/ha = 1 g/m²',
        numbers: `${figure(result)} × ${figure(bulkDensity)} × ${figure(depth)} × 0.1 / 10`,
        result: perArea,
        unit: 'g/m2',
      });
      result = perArea;
    }
    return { value: result };
  },
});
