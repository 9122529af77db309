import { surfaces } from '../ground/surfaces.ts';
import { defineCalculator } from '../calculators/calculator.ts';
import { InputError, choice, defaulted, optional, quantity } from '../calculators/fields.ts';
import { roundTo } from '../units/present.ts';
import { convert } from '../units/unit.ts';
import { figure } from '../working/working.ts';
import { limeLimits, readLimeLimits } from './materials.ts';

export interface Application {
  /** g/m² of product. */
  readonly rate: number;
  readonly monthsFromStart: number;
}

/**
 * From a lime requirement to product on the ground, split into what the
 * surface can take: full caps first, the rest last.
 *
 * @param requirement g/m² of lime at `assumedEffectiveness` %; `effectiveness` of
 *   the product, %; `surface`; `increment` g/m², what the rate is rounded up to; `table` caps of one's own, lb/1000 ft²
 *   unless they carry a unit.
 * @returns applications of product in g/m² and the months they start after the
 *   first; `total` is their sum.
 * @throws {InputError} when the increment is larger than the cap of the surface.
 */
export const limeProgram = defineCalculator({
  name: 'lime.program',
  title: 'Lime split into applications',
  source: limeLimits.source,
  inputs: {
    requirement: quantity('g/m2', { min: 0, max: 100_000 }),
    assumedEffectiveness: defaulted(quantity('%', { above: 0, max: 100 }), 100),
    effectiveness: quantity('%', { above: 0, max: 180 }),
    surface: choice(surfaces),
    increment: optional(quantity('g/m2', { above: 0 })),
    table: optional({
      description: 'own caps: source, basis, region, date, monthsBetween and capPerThousand as in lime-limits.json',
      optional: false,
      shape: { kind: 'json' },
      read: readLimeLimits,
    }),
  },
  outputs: { applications: '[{rate g/m2, monthsFromStart}]', total: 'g/m2' },
  compute({ requirement, assumedEffectiveness, effectiveness, surface, increment, table: limits = limeLimits }, book) {
    const cap = convert(limits.capPerThousand[surface], 'lb/1000ft2', 'g/m2');
    if (increment !== undefined && increment > cap * (1 + 1e-9)) {
      throw new InputError(
        'increment',
        `was given ${figure(increment)} g/m2; wanted at most the cap of one application on ${surface}, ${figure(cap)} g/m2`,
      );
    }
    const needed = (requirement * assumedEffectiveness) / effectiveness;
    book.step({
      label: 'Product for the requirement',
      formula: 'requirement × assumed effectiveness / product effectiveness',
      numbers: `${figure(requirement)} g/m² × ${figure(assumedEffectiveness)} % / ${figure(effectiveness)} %`,
      result: needed,
      unit: 'g/m2',
    });
    const total = increment === undefined ? needed : roundTo(needed, increment, 'up');
    if (increment !== undefined && total > needed * (1 + 1e-9))
      book.rounding(`Rounded up to the next step of the spreader, ${figure(total)} g/m² for ${figure(needed)}.`);

    // A capped application must be a multiple of the increment too.
    const full = increment === undefined ? cap : Math.floor(cap / increment + 1e-9) * increment;
    const count = Math.ceil(total / full - 1e-9);
    const applications: Application[] = Array.from({ length: count }, (_, index) => ({
      rate: index < count - 1 ? full : total - full * (count - 1),
      monthsFromStart: index * limits.monthsBetween,
    }));
    if (count > 1) {
      book.cap(
        `At most ${limits.capPerThousand[surface]} lb/1000 ft² (${figure(cap)} g/m²) at once on ${surface}: ${count} applications, at least ${limits.monthsBetween} months apart.`,
        limits.source,
      );
    }
    if (surface === 'seedbed' && count > 1) book.warn('Till in the first application and retest before the rest.');
    if (surface !== 'seedbed' && count > 0)
      book.warn('Lime spread on turf acts on the top 2 to 4 in first; core before spreading so that it gets down.');
    return { applications, total };
  },
});
