import { defineCalculator } from '../calculators/calculator.ts';
import { choice, optional, quantity, soilPhField } from '../calculators/fields.ts';
import data from '../data/ph-buffering.json' with { type: 'json' };
import { convert } from '../units/unit.ts';
import { figure } from '../working/working.ts';
import { atTarget } from './apply.ts';

/** g CaCO₃ that neutralise 1 cmol(+). */
const LIME_PER_CHARGE = 0.50043;

/**
 * Lime without a buffer test: from the pH buffering of the texture and organic matter. A guess with a wide range.
 *
 * @param soilPh, targetPh; `depth` cm; `soilGroup`; `organicMatter` %, that of an ordinary soil of the group when left out.
 * @returns `requirement` g/m² of pure lime with `low` and `high`; `assumedEffectiveness` 100 %.
 */
export const limeEstimate = defineCalculator({
  name: 'lime.estimate',
  title: 'Lime without a buffer test',
  source: data.source,
  inputs: {
    soilPh: soilPhField(),
    targetPh: quantity('pH', { min: 4.5, max: 7 }),
    depth: quantity('cm', { above: 0, max: 60 }),
    soilGroup: choice(['sand', 'loam', 'clay']),
    organicMatter: optional(quantity('%', { min: 0, max: 100 })),
  },
  outputs: { requirement: 'g/m2', low: 'g/m2', high: 'g/m2', assumedEffectiveness: '%' },
  compute({ soilPh, targetPh, depth, soilGroup, organicMatter }, book) {
    const assumedEffectiveness = 100;
    if (atTarget(book, soilPh, targetPh)) return { requirement: 0, low: 0, high: 0, assumedEffectiveness };
    const organic = organicMatter ?? data.ordinaryOrganicMatter[soilGroup];
    const capacity = data.mineral[soilGroup] + data.perOrganicMatter * organic;
    book.step({
      label: 'pH buffering',
      formula: `${data.mineral[soilGroup]} of ${soilGroup} + ${data.perOrganicMatter} × organic matter`,
      numbers: `${data.mineral[soilGroup]} + ${data.perOrganicMatter} × ${figure(organic)} %`,
      result: capacity,
      unit: 'cmol/kg',
      source: data.source,
    });
    const slice = convert(depth * data.bulkDensity, 'g/cm2', 'kg/m2');
    const requirement = capacity * (targetPh - soilPh) * LIME_PER_CHARGE * slice;
    book.step({
      label: 'Lime, roughly',
      formula: 'buffering × (target − pH) × 0.5 g CaCO₃ for each cmol × soil of the slice',
      numbers: `${figure(capacity)} × (${figure(targetPh)} − ${figure(soilPh)}) × ${LIME_PER_CHARGE} × ${figure(slice)} kg/m²`,
      result: requirement,
      unit: 'g/m2',
      source: data.source,
    });
    book.warn(
      'An estimate: soils of one texture differ two- to threefold. A buffer test costs less than the lime it saves.',
      data.source,
    );
    return { requirement, low: requirement * data.low, high: requirement * data.high, assumedEffectiveness };
  },
});
