import { defineCalculator } from '../calculators/calculator.ts';
import { InputError, quantity } from '../calculators/fields.ts';
import { figure } from '../working/working.ts';
import { textureClass } from './texture.ts';

const SOURCE = 'Jar (sedimentation) test as extension services describe it; heights of the layers stand for shares';

/**
 * Texture by what settles in a jar of soil and water.
 *
 * @param sandHeight, siltHeight, clayHeight heights of the settled layers, cm.
 * @returns `sand`, `silt`, `clay` % and the USDA `class`; an estimate, since wet clay stands higher than it weighs.
 * @throws {InputError} when nothing settled.
 */
export const textureJar = defineCalculator({
  name: 'texture.jar',
  title: 'Texture by the jar test',
  source: SOURCE,
  inputs: {
    sandHeight: quantity('cm', { min: 0, max: 100 }),
    siltHeight: quantity('cm', { min: 0, max: 100 }),
    clayHeight: quantity('cm', { min: 0, max: 100 }),
  },
  outputs: { sand: '%', silt: '%', clay: '%', class: 'USDA name' },
  compute({ sandHeight, siltHeight, clayHeight }, book) {
    const total = sandHeight + siltHeight + clayHeight;
    if (total <= 0)
      throw new InputError(
        'sandHeight, siltHeight and clayHeight',
        'are all 0; measure the layers once they have settled',
      );
    const share = (name: string, height: number): number => {
      const result = (100 * height) / total;
      book.step({
        label: `Share of ${name}`,
        formula: 'height of the layer / height of all',
        numbers: `${figure(height)} cm / ${figure(total)} cm`,
        result,
        unit: '%',
        source: SOURCE,
      });
      return result;
    };
    const fractions = {
      sand: share('sand', sandHeight),
      silt: share('silt', siltHeight),
      clay: share('clay', clayHeight),
    };
    const { result, working } = textureClass(fractions);
    book.include(working);
    book.warn('An estimate: settled clay holds more water than sand, so its layer overstates it.', SOURCE);
    return { ...fractions, class: result.class };
  },
});
