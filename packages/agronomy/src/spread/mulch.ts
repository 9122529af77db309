import { wholes } from '../units/wholes.ts';
import { defineCalculator } from '../calculators/calculator.ts';
import { InputError, defaulted, optional, quantity } from '../calculators/fields.ts';
import { listOf, text } from '../calculators/structures.ts';
import { figure } from '../working/working.ts';

const MOST_LOADS = 200;

/**
 * Tanks of sprayed mulch with what goes in each.
 *
 * @param area m²; `tank` L of water that it holds; `mulch` g/m²; `mulchPerLitre` g that a litre of water carries;
 *   `others` what else is mixed in, such as seed, fertilizer and binder, g/m².
 * @returns `loads`, full ones first: `area` m², `water` L, `mulch` kg and `others` kg of each.
 * @throws {InputError} where the tank is far too small.
 */
export const sprayMulch = defineCalculator({
  name: 'spray.mulch',
  title: 'Tanks of sprayed mulch',
  source: 'Mass over area; a litre of water carries about 60 g of wood-fibre mulch, as compiled for this application',
  inputs: {
    area: quantity('m2', { above: 0, max: 1_000_000 }),
    tank: quantity('L', { above: 0, max: 50_000 }),
    mulch: quantity('g/m2', { above: 0, max: 2000 }),
    mulchPerLitre: defaulted(quantity('g', { above: 0, max: 500 }), 60),
    others: optional(
      listOf({ name: text(60), rate: quantity('g/m2', { min: 0, max: 2000 }) }, 'things mixed in', { min: 0, max: 12 }),
    ),
  },
  outputs: { loads: '[{area m2, water L, mulch kg, others [{name, mass kg}]}]' },
  compute({ area, tank, mulch, mulchPerLitre, others = [] }, book) {
    const full = (tank * mulchPerLitre) / mulch;
    book.step({
      label: 'One full tank covers',
      formula: 'tank × mulch a litre / mulch rate',
      numbers: `${figure(tank)} L × ${figure(mulchPerLitre)} g / ${figure(mulch)} g/m²`,
      result: full,
      unit: 'm2',
    });
    const count = wholes(area / full);
    book.step({
      label: 'Tanks',
      formula: 'area / a full tank, rounded up',
      numbers: `${figure(area)} m² / ${figure(full)} m²`,
      result: count,
      unit: 'loads',
    });
    if (count > MOST_LOADS)
      throw new InputError(
        'tank',
        `was given ${figure(tank)} L; ${count} loads of it would be needed: take a larger one, or spray in parts`,
      );
    const loads = Array.from({ length: count }, (_, index) => {
      const covered = index < count - 1 ? full : area - full * (count - 1);
      return {
        area: covered,
        water: (covered * mulch) / mulchPerLitre,
        mulch: (covered * mulch) / 1000,
        others: others.map(({ name, rate }) => ({ name, mass: (covered * rate) / 1000 })),
      };
    });
    for (const { name, rate } of others)
      book.step({
        label: name,
        formula: 'rate × area of a tank',
        numbers: `${figure(rate)} g/m² × ${figure(loads[0]!.area)} m²`,
        result: (loads[0]!.area * rate) / 1000,
        unit: 'kg',
      });
    book.warn(
      'On banks in two passes: seed and feed with about 50 g/m² of mulch to see by, then the rest. Reach of the hose first; steep ground wants a lookout for stones.',
    );
    return { loads };
  },
});
