import { defineCalculator } from '../calculators/calculator.ts';
import { InputError, defaulted, quantity } from '../calculators/fields.ts';
import { type WorkingBook, figure } from '../working/working.ts';
import { adamsEvansTable as table } from './buffers.ts';
import { type LimeRequirement, atTarget, limeInputs, scaleToDepth } from './apply.ts';

/** Base unsaturation H from pH = 7.79 − 5.55 H + 2.27 H²; at most 1. */
function unsaturation(field: string, ph: number, book: WorkingBook): number {
  const discriminant = 5.55 ** 2 - 4 * 2.27 * (7.79 - ph);
  const h = discriminant < 0 ? NaN : (5.55 - Math.sqrt(discriminant)) / (2 * 2.27);
  if (!(h <= 1)) {
    throw new InputError(
      field,
      `was given ${figure(ph)}; the Adams–Evans curve ends at about pH 4.5, where the soil holds nothing but acidity`,
    );
  }
  const used = Math.max(0, h);
  book.step({
    label: `Base unsaturation at pH ${figure(ph)}`,
    formula: 'pH = 7.79 − 5.55 H + 2.27 H²',
    numbers: `H = (5.55 − √(5.55² − 4 × 2.27 × (7.79 − ${figure(ph)}))) / (2 × 2.27)`,
    result: used,
    unit: '',
    source: table.source,
  });
  return used;
}

/**
 * Lime from an Adams–Evans buffer reading; for sandy soils of low exchange capacity.
 *
 * @param soilPh pH in water, above about 4.5; `bufferPh` 7.0–8.0; `targetPh`;
 *   `depth` sampled, cm; `limeFactor` the multiplier some laboratories use for
 *   field lime (1 or 1.5).
 * @returns g/m²; assumedEffectiveness is 100 % ÷ limeFactor, so that the factor
 *   is not counted again as product strength.
 * @throws {InputError} for readings outside the method.
 * @see Adams & Evans (1962), Soil Sci. Soc. Am. Proc. 26:355–357
 */
export const limeAdamsEvans = defineCalculator({
  name: 'lime.adamsEvans',
  title: 'Lime requirement, Adams–Evans buffer',
  source: table.source,
  inputs: {
    ...limeInputs('Adams–Evans', table.bufferRange, { min: 4.5, max: 7.5 }),
    limeFactor: defaulted(quantity('', { min: 1, max: 2 }), 1),
  },
  outputs: { requirement: 'g/m2', assumedEffectiveness: '%' },
  compute({ soilPh, bufferPh, targetPh, depth, limeFactor }, book): LimeRequirement {
    const assumedEffectiveness = 100 / limeFactor;
    if (atTarget(book, soilPh, targetPh)) return { requirement: 0, assumedEffectiveness };
    const now = unsaturation('soilPh', soilPh, book);
    const wanted = unsaturation('targetPh', targetPh, book);
    const rate = now === 0 ? 0 : ((8000 * (8 - bufferPh)) / now) * (now - wanted) * limeFactor;
    book.step({
      label: `Calcium carbonate to pH ${figure(targetPh)}, 6⅔ in deep`,
      formula: '8000 × (8.00 − buffer pH) / H now × (H now − H target) × lime factor',
      numbers: `8000 × (8.00 − ${figure(bufferPh)}) / ${figure(now)} × (${figure(now)} − ${figure(wanted)}) × ${figure(limeFactor)}`,
      result: rate,
      unit: 'lb/acre',
      source: table.source,
    });
    const requirement = scaleToDepth(book, { rate, unit: 'lb/acre', depthIn: table.depthIn }, depth);
    if (limeFactor !== 1)
      book.warn(
        `The factor ${figure(limeFactor)} already turns pure carbonate into field lime of ${figure(assumedEffectiveness)} % strength; it is not counted again.`,
        table.source,
      );
    return { requirement, assumedEffectiveness };
  },
});
