import { soilGroups } from '../soil/soilGroups.ts';
import { defineCalculator } from '../calculators/calculator.ts';
import { choice, optional, quantity, soilPhField } from '../calculators/fields.ts';
import { record } from '../calculators/structures.ts';
import { readTable } from '../calculators/table.ts';
import buffering from '../data/ph-buffering.json' with { type: 'json' };
import { convert } from '../units/unit.ts';
import { densityOf } from '../soil/bulkDensity.ts';
import { figure } from '../working/working.ts';
import { atTarget } from './apply.ts';

const capacity = () => quantity('', { above: 0, max: 50 });
/** cmol(+)/kg for each unit of pH. */
export const phBuffering = readTable(
  'ph-buffering',
  {
    mineral: record(soilGroups, capacity()),
    perOrganicMatter: capacity(),
    ordinaryOrganicMatter: record(soilGroups, quantity('%', { min: 0, max: 50 })),
    /** g/cm³ where the organic matter is not known. */
    bulkDensity: quantity('g/cm3', { above: 0, max: 2.2 }),
    low: quantity('', { above: 0, max: 1 }),
    high: quantity('', { min: 1, max: 10 }),
  },
  buffering,
);

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
  source: phBuffering.source,
  inputs: {
    soilPh: soilPhField(),
    targetPh: quantity('pH', { min: 4.5, max: 7 }),
    depth: quantity('cm', { above: 0, max: 60 }),
    soilGroup: choice(soilGroups),
    organicMatter: optional(quantity('%', { min: 0, max: 100 })),
  },
  outputs: { requirement: 'g/m2', low: 'g/m2', high: 'g/m2', assumedEffectiveness: '%' },
  compute({ soilPh, targetPh, depth, soilGroup, organicMatter }, book) {
    const assumedEffectiveness = 100;
    if (atTarget(book, soilPh, targetPh)) return { requirement: 0, low: 0, high: 0, assumedEffectiveness };
    const organic = organicMatter ?? phBuffering.ordinaryOrganicMatter[soilGroup];
    const buffer = phBuffering.mineral[soilGroup] + phBuffering.perOrganicMatter * organic;
    book.step({
      label: 'pH buffering',
      formula: `${phBuffering.mineral[soilGroup]} of ${soilGroup} + ${phBuffering.perOrganicMatter} × organic matter`,
      numbers: `${phBuffering.mineral[soilGroup]} + ${phBuffering.perOrganicMatter} × ${figure(organic)} %`,
      result: buffer,
      unit: 'cmol/kg',
      source: phBuffering.source,
    });
    const density = organicMatter === undefined ? phBuffering.bulkDensity : densityOf(organicMatter);
    const slice = convert(depth * density, 'g/cm2', 'kg/m2');
    const requirement = buffer * (targetPh - soilPh) * LIME_PER_CHARGE * slice;
    book.step({
      label: 'Lime, roughly',
      formula: 'buffering × (target − pH) × 0.5 g CaCO₃ for each cmol × soil of the slice',
      numbers: `${figure(buffer)} × (${figure(targetPh)} − ${figure(soilPh)}) × ${LIME_PER_CHARGE} × ${figure(slice)} kg/m² (${figure(depth)} cm at ${figure(density)} g/cm³)`,
      result: requirement,
      unit: 'g/m2',
      source: phBuffering.source,
    });
    book.warn(
      'An estimate: soils of one texture differ two- to threefold. A buffer test costs less than the lime it saves.',
      phBuffering.source,
    );
    return {
      requirement,
      low: requirement * phBuffering.low,
      high: requirement * phBuffering.high,
      assumedEffectiveness,
    };
  },
});
