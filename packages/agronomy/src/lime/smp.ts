import { defineCalculator } from '../calculators/calculator.ts';
import { figure } from '../working/working.ts';
import { smpTable as table } from './buffers.ts';
import { type LimeRequirement, atTarget, limeInputs, scaleToDepth } from './apply.ts';

const lines = table.lines;
const first = lines[0]!;
const last = lines.at(-1)!;

/**
 * Lime from an SMP buffer reading, or a Sikora reading on the SMP scale.
 *
 * @param soilPh pH in water; `bufferPh` 4.8–7.2; `targetPh` 6.0–6.8 (the table
 *   ends there); `depth` sampled, cm.
 * @returns g/m² of the ag lime that the publication assumed (65 % effective).
 * @throws {InputError} for a reading or target outside the table.
 * @see Vitosh, Johnson & Mengel (1995), Tri-State bulletin E-2567
 */
export const limeSmp = defineCalculator({
  name: 'lime.smp',
  title: 'Lime requirement, SMP or Sikora buffer',
  source: table.source,
  inputs: limeInputs('SMP', table.bufferRange, {
    min: first.target,
    max: last.target,
    why: 'the SMP table has no other target; for a lower aim another method is wanted, such as the estimate from texture and organic matter',
  }),
  outputs: { requirement: 'g/m2', assumedEffectiveness: '%' },
  compute({ soilPh, bufferPh, targetPh, depth }, book): LimeRequirement {
    const assumedEffectiveness = table.assumedEffectiveness;
    if (atTarget(book, soilPh, targetPh)) return { requirement: 0, assumedEffectiveness };

    const index = bufferPh * 10;
    book.step({
      label: 'Lime test index',
      formula: 'LTI = 10 × buffer pH',
      numbers: `10 × ${figure(bufferPh)}`,
      result: index,
      unit: '',
      source: table.source,
    });

    const upper = lines.find((line) => targetPh <= line.target + 1e-9) ?? last;
    const lower = lines[Math.max(0, lines.indexOf(upper) - 1)] ?? upper;
    const share = upper === lower ? 0 : (upper.target - targetPh) / (upper.target - lower.target);
    const rateAt = (line: typeof first): number => Math.max(0, line.intercept - line.slope * index);
    const used = share < 1e-9 ? [upper] : share > 1 - 1e-9 ? [lower] : [lower, upper];
    for (const line of used) {
      book.step({
        label: `Lime to pH ${line.target.toFixed(1)}, ${table.depthIn} in deep`,
        formula: `${line.intercept} − ${line.slope} × LTI, not below 0`,
        numbers: `${line.intercept} − ${line.slope} × ${figure(index)}`,
        result: rateAt(line),
        unit: 'ton/acre',
        source: table.source,
      });
    }
    const rate = share * rateAt(lower) + (1 - share) * rateAt(upper);
    if (used.length === 2) {
      book.step({
        label: `Between the two targets, to pH ${figure(targetPh)}`,
        formula: 'linear between the table’s targets',
        numbers: `${figure(share)} × ${figure(rateAt(lower))} + ${figure(1 - share)} × ${figure(rateAt(upper))}`,
        result: rate,
        unit: 'ton/acre',
      });
    }
    if (rate === 0)
      book.warn(
        'The buffer shows almost no reserve acidity: the table asks for no lime. Retest before liming on soil pH alone.',
      );
    const requirement = scaleToDepth(book, { rate, unit: 'ton/acre', depthIn: table.depthIn }, depth);
    book.warn(
      `The table assumed ${table.assumption} (${assumedEffectiveness} % effective). A product’s own strength is counted once, from there.`,
      table.source,
    );
    return { requirement, assumedEffectiveness };
  },
});
