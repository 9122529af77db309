import { defineCalculator } from '../calculators/calculator.ts';
import { InputError, choice, defaulted, optional, quantity } from '../calculators/fields.ts';
import { type WorkingBook, figure } from '../working/working.ts';
import { finenessRules, limeMaterialField, limeSources } from './materials.ts';

/**
 * How much of a liming product acts, against pure fine calcium carbonate:
 * neutralising value × fineness × dryness.
 *
 * @param cce calcium carbonate equivalent, %; `passing8`, `passing20`, `passing60`
 *   share through each mesh, %; `moisture` %; `rule` the fineness rule by state; `material`, which says whether the
 *   value on the label is likely, and stands in for it (the middle of its range) when there is none.
 * @returns effectiveness, %.
 * @throws {InputError} when a finer mesh passes more than a coarser one.
 */
export const limeEffectiveness = defineCalculator({
  name: 'lime.effectiveness',
  title: 'Effectiveness of a liming product',
  source: `${finenessRules.ohio.source}; ${finenessRules.kansas.source}`,
  inputs: {
    material: optional(limeMaterialField()),
    cce: optional(quantity('%', { above: 0, max: 180 })),
    passing8: quantity('%', { min: 0, max: 100 }),
    passing20: optional(quantity('%', { min: 0, max: 100 })),
    passing60: quantity('%', { min: 0, max: 100 }),
    moisture: defaulted(quantity('%', { min: 0, max: 60 }), 0),
    rule: choice(['ohio', 'kansas']),
  },
  outputs: { effectiveness: '%', fineness: '%' },
  compute({ material: name, cce: label, passing8, passing20, passing60, moisture, rule }, book) {
    const cce = neutralisingValue(label, name, book);
    const factors = finenessRules[rule];
    if (passing60 > passing8)
      throw new InputError(
        'passing60',
        `was given ${figure(passing60)}; no more can pass 60 mesh than the ${figure(passing8)} % that pass 8 mesh`,
      );
    if (passing20 !== undefined && (passing20 > passing8 || passing20 < passing60)) {
      throw new InputError(
        'passing20',
        `was given ${figure(passing20)}; it lies between what passes 60 mesh (${figure(passing60)} %) and 8 mesh (${figure(passing8)} %)`,
      );
    }
    let fineness: number;
    if (rule === 'ohio') {
      if (passing20 === undefined)
        throw new InputError('passing20', 'was given nothing; the ohio rule needs the share through 20 mesh, in %');
      fineness =
        factors.from8to20 * (passing8 - passing20) +
        factors.from20to60 * (passing20 - passing60) +
        factors.under60 * passing60;
      book.step({
        label: 'Fineness, Ohio rule',
        formula: '0.2 × (8–20 mesh) + 0.6 × (20–60 mesh) + 1.0 × (under 60 mesh)',
        numbers: `0.2 × ${figure(passing8 - passing20)} + 0.6 × ${figure(passing20 - passing60)} + 1.0 × ${figure(passing60)}`,
        result: fineness,
        unit: '%',
        source: factors.source,
      });
    } else {
      fineness = factors.from8to20 * (passing8 - passing60) + factors.under60 * passing60;
      book.step({
        label: 'Fineness, Kansas rule',
        formula: '0.5 × (8–60 mesh) + 1.0 × (under 60 mesh)',
        numbers: `0.5 × ${figure(passing8 - passing60)} + 1.0 × ${figure(passing60)}`,
        result: fineness,
        unit: '%',
        source: factors.source,
      });
    }
    const effectiveness = (cce * fineness * (1 - moisture / 100)) / 100;
    book.step({
      label: 'Effectiveness',
      formula: 'neutralising value × fineness × (1 − moisture)',
      numbers: `${figure(cce)} % × ${figure(fineness)} % × (1 − ${figure(moisture)} %)`,
      result: effectiveness,
      unit: '%',
      source: factors.source,
    });
    return { effectiveness, fineness };
  },
});

/** The label's value, or the middle of the material's range; with what is to be said of the material. */
function neutralisingValue(label: number | undefined, name: string | undefined, book: WorkingBook): number {
  const material = limeSources.materials.find((entry) => entry.name === name);
  if (!material) {
    if (label === undefined)
      throw new InputError('cce', 'was given nothing; wanted the value of the label in %, or the material');
    return label;
  }
  const [low, high] = material.cce;
  if (material.note) book.warn(`${material.name}: ${material.note}`, limeSources.source);
  if (label !== undefined) {
    if (label < low || label > high)
      book.warn(
        `${material.name} usually has ${low} to ${high} %, the label says ${figure(label)} %: check it.`,
        limeSources.source,
      );
    return label;
  }
  book.step({
    label: `Neutralising value of ${material.name}`,
    formula: 'middle of its usual range; the label is better',
    numbers: `${low} to ${high} %`,
    result: (low + high) / 2,
    unit: '%',
    source: limeSources.source,
  });
  return (low + high) / 2;
}
