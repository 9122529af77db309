import { defineCalculator } from '../calculators/calculator.ts';
import { InputError } from '../calculators/fields.ts';
import buffers from '../data/lime-buffers.json' with { type: 'json' };
import { figure } from '../working/working.ts';
import { type LimeRequirement, atTarget, limeInputs, scaleToDepth } from './apply.ts';

const table = buffers.mehlich;
/** pH of the fresh buffer, and of a soil without exchangeable acidity. */
const NEUTRAL = 6.6;

/**
 * Lime from a Mehlich buffer reading by North Carolina's field-lime rule.
 *
 * @param soilPh pH in water, below 6.6 when lime is asked for; `bufferPh` Mehlich
 *   buffer; `targetPh` 4.5–7.0; `depth` sampled, cm.
 * @returns g/m² of field lime, assumed 68 % effective.
 * @throws {InputError} for readings outside the method.
 * @see Mehlich (1976), Commun. Soil Sci. Plant Anal. 7:637–652
 */
export const limeMehlich = defineCalculator({
  name: 'lime.mehlich',
  title: 'Lime requirement, Mehlich buffer',
  source: table.source,
  inputs: limeInputs('Mehlich', table.bufferRange, { min: 4.5, max: 7 }),
  outputs: { requirement: 'g/m2', assumedEffectiveness: '%', acidity: 'cmol/dm3' },
  compute({ soilPh, bufferPh, targetPh, depth }, book): LimeRequirement & { readonly acidity: number } {
    const assumedEffectiveness = table.assumedEffectiveness;
    const acidity = Math.max(0, (NEUTRAL - bufferPh) / 0.25);
    book.step({
      label: 'Acidity',
      formula: 'AC = (6.6 − buffer pH) / 0.25, not below 0',
      numbers: `(6.6 − ${figure(bufferPh)}) / 0.25`,
      result: acidity,
      unit: 'cmol/dm3',
      source: table.source,
    });
    if (atTarget(book, soilPh, targetPh)) return { requirement: 0, assumedEffectiveness, acidity };
    if (soilPh >= NEUTRAL) {
      throw new InputError(
        'soilPh',
        `was given ${figure(soilPh)}; the Mehlich rule covers soils below pH ${NEUTRAL}, so no rate to ${figure(targetPh)} can be given`,
      );
    }
    const rate = (acidity * (targetPh - soilPh)) / (NEUTRAL - soilPh);
    book.step({
      label: `Lime to pH ${figure(targetPh)}, ${table.depthIn} in deep`,
      formula: 'AC × (target − pH) / (6.6 − pH)',
      numbers: `${figure(acidity)} × (${figure(targetPh)} − ${figure(soilPh)}) / (6.6 − ${figure(soilPh)})`,
      result: rate,
      unit: 'ton/acre',
      source: table.source,
    });
    if (targetPh > NEUTRAL)
      book.warn(
        'The target is above the pH of the buffer (6.6): the rule is stretched beyond what it was made for.',
        table.source,
      );
    const requirement = scaleToDepth(book, { rate, unit: 'ton/acre', depthIn: table.depthIn }, depth);
    book.warn(
      `The rule assumed ${table.assumption}. A product’s own strength is counted once, from there.`,
      table.source,
    );
    return { requirement, assumedEffectiveness, acidity };
  },
});
