import { surfaces, type Surface } from '../ground/surfaces.ts';
import { defineCalculator } from '../calculators/calculator.ts';
import { choice, defaulted, quantity } from '../calculators/fields.ts';
import { group } from '../calculators/structures.ts';
import { convert } from '../units/unit.ts';
import { figure } from '../working/working.ts';
import { nitrogenLimits as limits, passesWithin } from './nitrogenLimits.ts';

const grams = (perThousand: number): number => convert(perThousand, 'lb/1000ft2', 'g/m2');

/** Most nitrogen in one pass, g/m²: all of it, and what is soluble. */
export function nitrogenCaps(surface: Surface, slow: number): { readonly total: number; readonly soluble: number } {
  const total = slow >= limits.slowFrom - 1e-9 ? limits.mostlySlow[surface] : limits.total[surface];
  return { total: grams(total), soluble: grams(limits.soluble[surface]) };
}

/**
 * In how many passes a year's nitrogen may go down, and how much in each.
 *
 * @param product `nitrogen` % N of the product and `slow` % of that nitrogen; `surface`; `annual` g/m² N of the year.
 * @returns `passes`, the least whole number within the caps; `perPass` g/m² N; `rate` g/m² of product in each.
 */
export const nitrogenPass = defineCalculator({
  name: 'nitrogen.pass',
  title: 'Passes of a year’s nitrogen',
  source: limits.source,
  inputs: {
    product: group({
      nitrogen: quantity('%', { above: 0, max: 100 }),
      slow: defaulted(quantity('%', { min: 0, max: 100 }), 0),
    }),
    surface: choice(surfaces),
    annual: quantity('g/m2', { min: 0, max: 200 }),
  },
  outputs: { perPass: 'g/m2 N', passes: 'number', rate: 'g/m2 of product' },
  compute({ product: { nitrogen, slow }, surface, annual }, book) {
    const caps = nitrogenCaps(surface, slow);
    const soluble = annual * (1 - slow / 100);
    const byYear = limits.leastPasses
      .filter(({ yearAbove }) => annual > grams(yearAbove) * (1 + limits.slackPercent / 100))
      .reduce((most, { passes }) => Math.max(most, passes), annual > 0 ? 1 : 0);
    const byTotal = passesWithin(annual, caps.total);
    const bySoluble = passesWithin(soluble, caps.soluble);
    const passes = Math.max(byYear, byTotal, bySoluble);
    const told = (rate: number): string => `${figure(rate)} g/m²`;
    book.step({
      label: `Passes on ${surface}`,
      formula: 'most of: all N / its cap, soluble N / its cap, least for such a year; each rounded up',
      numbers: `${told(annual)} / ${told(caps.total)} → ${byTotal}; ${told(soluble)} / ${told(caps.soluble)} → ${bySoluble}; least ${byYear}`,
      result: passes,
      unit: passes === 1 ? 'pass' : 'passes',
      source: limits.source,
    });
    const perPass = passes === 0 ? 0 : annual / passes;
    book.step({
      label: 'Nitrogen in each pass',
      formula: 'year / passes',
      numbers: `${told(annual)} / ${passes}`,
      result: perPass,
      unit: 'g/m2',
    });
    if (passes > 1)
      book.cap(
        `At most ${figure(convert(caps.total, 'g/m2', 'lb/1000ft2'))} lb N/1000 ft² in one pass on ${surface}, ${figure(convert(caps.soluble, 'g/m2', 'lb/1000ft2'))} of it soluble: ${passes} passes.`,
        limits.source,
      );
    return { perPass, passes, rate: (perPass / nitrogen) * 100 };
  },
});
