import { defineCalculator } from '../calculators/calculator.ts';
import { InputError, quantity } from '../calculators/fields.ts';
import { figure } from '../working/working.ts';
import { findTextureClass, textureSource } from './textureClasses.ts';

/**
 * USDA texture class.
 *
 * @param sand, silt, clay % of the fine earth (under 2 mm); they add to 100 ± 1
 *   and are scaled to 100.
 * @throws {InputError} when they do not.
 * @see Soil Survey Manual, USDA Handbook 18
 */
export const textureClass = defineCalculator({
  name: 'texture.class',
  title: 'USDA texture class',
  source: textureSource,
  inputs: {
    sand: quantity('%', { min: 0, max: 100 }),
    silt: quantity('%', { min: 0, max: 100 }),
    clay: quantity('%', { min: 0, max: 100 }),
  },
  outputs: { class: 'USDA name' },
  compute({ sand, silt, clay }, book) {
    const sum = sand + silt + clay;
    if (Math.abs(sum - 100) > 1 + 1e-9)
      throw new InputError(
        'sand, silt and clay',
        `were given ${figure(sand)}, ${figure(silt)} and ${figure(clay)}, which add to ${figure(sum)}; wanted 100 ± 1`,
      );
    const scaled = { sand: (sand * 100) / sum, silt: (silt * 100) / sum, clay: (clay * 100) / sum };
    const { name, rule } = findTextureClass(scaled);
    book.step({
      label: 'Texture class',
      formula: rule,
      numbers: `sand ${figure(scaled.sand)}, silt ${figure(scaled.silt)}, clay ${figure(scaled.clay)} %`,
      result: name,
      unit: '',
      source: textureSource,
    });
    return { class: name };
  },
});
