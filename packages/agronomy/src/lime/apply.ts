import { quantity, soilPhField } from '../calculators/fields.ts';
import { convert } from '../units/unit.ts';
import { type WorkingBook, figure } from '../working/working.ts';

/**
 * The inputs that every buffer method shares.
 *
 * @param bufferRange readings that the method can give
 * @param target aims that it gives rates for
 */
export function limeInputs(
  method: string,
  [bufferMin = 0, bufferMax = 14]: readonly number[],
  target: { readonly min: number; readonly max: number; readonly why?: string },
) {
  const why = `the span of the ${method} buffer; check the reading and the method`;
  return {
    soilPh: soilPhField(),
    bufferPh: quantity('pH', { min: bufferMin, max: bufferMax, why }),
    targetPh: quantity('pH', target),
    depth: quantity('cm', { above: 0, max: 60 }),
  };
}

export interface LimeRequirement {
  /** g/m² of lime of the strength that the method assumed, for the sampled depth. */
  readonly requirement: number;
  /** %; the product's amount = requirement × assumedEffectiveness ÷ its own effectiveness. */
  readonly assumedEffectiveness: number;
}

const perAcre = { 'ton/acre': 'short ton/acre', 'lb/acre': 'lb/acre' } as const;

/** From a published rate per acre at the method's depth to g/m² of the sampled depth. */
export function scaleToDepth(
  book: WorkingBook,
  published: { readonly rate: number; readonly unit: keyof typeof perAcre; readonly depthIn: number },
  depthCm: number,
): number {
  const depthIn = convert(depthCm, 'cm', 'in');
  const requirement = convert(published.rate, published.unit, 'g/m2') * (depthIn / published.depthIn);
  book.step({
    label: 'For the sampled depth',
    formula: 'requirement × sampled depth / depth of the method',
    numbers: `${figure(published.rate)} ${perAcre[published.unit]} × ${figure(depthIn)} in / ${figure(published.depthIn)} in`,
    result: requirement,
    unit: 'g/m2',
    source: 'Depth scales linearly; 1 short ton/acre = 224.17 g/m²',
  });
  return requirement;
}

/** The answer of every method for a soil that is already at its target. */
export function atTarget(book: WorkingBook, soilPh: number, targetPh: number): boolean {
  if (soilPh < targetPh) return false;
  book.step({
    label: 'Already at the target',
    formula: 'soil pH ≥ target pH',
    numbers: `${figure(soilPh)} ≥ ${figure(targetPh)}`,
    result: 0,
    unit: 'g/m2',
  });
  return true;
}
