import { defineCalculator } from '../calculators/calculator.ts';
import { InputError, choice, defaulted } from '../calculators/fields.ts';
import { convert } from '../units/unit.ts';
import { figure } from '../working/working.ts';
import { mehlichTable as table } from './buffers.ts';
import { type LimeRequirement, atTarget, limeInputs, scaleToDepth } from './apply.ts';

/** pH of the fresh buffer, and of a soil without exchangeable acidity. */
const NEUTRAL = 6.6;

const OWN_SOURCE =
  'Mehlich (1976), Commun. Soil Sci. Plant Anal. 7:637–652: LR = AC + 0.1 AC², t/ha of pure CaCO₃ for 20 cm';

/**
 * Lime from a Mehlich buffer reading, by North Carolina's field-lime rule or by Mehlich's own equation.
 *
 * @param soilPh pH in water, below 6.6 when lime is asked for; `bufferPh` Mehlich
 *   buffer; `targetPh` 4.5–7.0; `depth` sampled, cm; `rule` field lime (the default, to the target) or mehlich 1976
 *   (pure carbonate to near neutral, whatever the target).
 * @returns g/m² of field lime, assumed 68 % effective; of pure carbonate, 100 %, by Mehlich's own rule.
 * @throws {InputError} for readings outside the method.
 * @see Mehlich (1976), Commun. Soil Sci. Plant Anal. 7:637–652
 */
export const limeMehlich = defineCalculator({
  name: 'lime.mehlich',
  title: 'Lime requirement, Mehlich buffer',
  source: table.source,
  inputs: {
    ...limeInputs('Mehlich', table.bufferRange, { min: 4.5, max: 7 }),
    rule: defaulted(choice(['field lime', 'mehlich 1976']), 'field lime'),
  },
  outputs: { requirement: 'g/m2', assumedEffectiveness: '%', acidity: 'cmol/dm3' },
  compute({ soilPh, bufferPh, targetPh, depth, rule }, book): LimeRequirement & { readonly acidity: number } {
    const assumedEffectiveness = rule === 'field lime' ? table.assumedEffectiveness : 100;
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
    if (rule === 'mehlich 1976') {
      const perHectare = acidity + 0.1 * acidity ** 2;
      book.step({
        label: 'Pure carbonate to near neutral, 20 cm deep',
        formula: 'LR = AC + 0.1 AC²',
        numbers: `${figure(acidity)} + 0.1 × ${figure(acidity)}²`,
        result: perHectare,
        unit: 't/ha',
        source: OWN_SOURCE,
      });
      const requirement = (convert(perHectare, 't/ha', 'g/m2') * depth) / 20;
      book.step({
        label: 'For the sampled depth',
        formula: 'requirement × sampled depth / 20 cm; 1 t/ha = 100 g/m²',
        numbers: `${figure(perHectare)} t/ha × ${figure(depth)} cm / 20 cm`,
        result: requirement,
        unit: 'g/m2',
      });
      if (targetPh < 6)
        book.warn(
          `This rule goes to near neutral, past the wanted ${figure(targetPh)}: use the field-lime rule for a lower aim.`,
          OWN_SOURCE,
        );
      return { requirement, assumedEffectiveness, acidity };
    }
    const held = Math.min(targetPh, NEUTRAL);
    const rate = (acidity * (held - soilPh)) / (NEUTRAL - soilPh);
    book.step({
      label: `Lime to pH ${figure(held)}, ${table.depthIn} in deep`,
      formula: 'AC × (target − pH) / (6.6 − pH)',
      numbers: `${figure(acidity)} × (${figure(held)} − ${figure(soilPh)}) / (6.6 − ${figure(soilPh)})`,
      result: rate,
      unit: 'ton/acre',
      source: table.source,
    });
    if (targetPh > NEUTRAL)
      book.cap(
        `The rule ends at the pH of its buffer: the rate goes to ${NEUTRAL}, not to ${figure(targetPh)}. Retest there.`,
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
