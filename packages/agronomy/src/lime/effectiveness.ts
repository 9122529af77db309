import { defineCalculator } from '../calculators/calculator.ts';
import { InputError, choice, defaulted, optional, quantity } from '../calculators/fields.ts';
import { figure } from '../working/working.ts';

const sources = {
  ohio: 'Ohio Department of Agriculture, effective neutralizing power fineness factors (20–8 mesh 0.2, 60–20 mesh 0.6, under 60 mesh 1.0)',
  kansas: 'Kansas and Oklahoma effective calcium carbonate equivalent (8–60 mesh 0.5, under 60 mesh 1.0)',
};

/**
 * How much of a liming product acts, against pure fine calcium carbonate:
 * neutralising value × fineness × dryness.
 *
 * @param cce calcium carbonate equivalent, %; `passing8`, `passing20`, `passing60`
 *   share through each mesh, %; `moisture` %; `rule` the fineness rule by state.
 * @returns effectiveness, %.
 * @throws {InputError} when a finer mesh passes more than a coarser one.
 */
export const limeEffectiveness = defineCalculator({
  name: 'lime.effectiveness',
  title: 'Effectiveness of a liming product',
  source: `${sources.ohio}; ${sources.kansas}`,
  inputs: {
    cce: quantity('%', { above: 0, max: 180 }),
    passing8: quantity('%', { min: 0, max: 100 }),
    passing20: optional(quantity('%', { min: 0, max: 100 })),
    passing60: quantity('%', { min: 0, max: 100 }),
    moisture: defaulted(quantity('%', { min: 0, max: 60 }), 0),
    rule: choice(['ohio', 'kansas']),
  },
  outputs: { effectiveness: '%', fineness: '%' },
  compute({ cce, passing8, passing20, passing60, moisture, rule }, book) {
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
      fineness = 0.2 * (passing8 - passing20) + 0.6 * (passing20 - passing60) + passing60;
      book.step({
        label: 'Fineness, Ohio rule',
        formula: '0.2 × (8–20 mesh) + 0.6 × (20–60 mesh) + 1.0 × (under 60 mesh)',
        numbers: `0.2 × ${figure(passing8 - passing20)} + 0.6 × ${figure(passing20 - passing60)} + 1.0 × ${figure(passing60)}`,
        result: fineness,
        unit: '%',
        source: sources.ohio,
      });
    } else {
      fineness = 0.5 * (passing8 - passing60) + passing60;
      book.step({
        label: 'Fineness, Kansas rule',
        formula: '0.5 × (8–60 mesh) + 1.0 × (under 60 mesh)',
        numbers: `0.5 × ${figure(passing8 - passing60)} + 1.0 × ${figure(passing60)}`,
        result: fineness,
        unit: '%',
        source: sources.kansas,
      });
    }
    const effectiveness = (cce * fineness * (1 - moisture / 100)) / 100;
    book.step({
      label: 'Effectiveness',
      formula: 'neutralising value × fineness × (1 − moisture)',
      numbers: `${figure(cce)} % × ${figure(fineness)} % × (1 − ${figure(moisture)} %)`,
      result: effectiveness,
      unit: '%',
      source: sources[rule],
    });
    return { effectiveness, fineness };
  },
});
