import { defineCalculator } from '../calculators/calculator.ts';
import { InputError, quantity } from '../calculators/fields.ts';
import { figure } from '../working/working.ts';

interface Fractions {
  readonly sand: number;
  readonly silt: number;
  readonly clay: number;
}

const SOURCE = 'Soil Science Division Staff (2017), Soil Survey Manual, USDA Handbook 18, chapter 3';

/** The twelve classes; the first whose rule holds is the class, and together they cover the triangle. */
const classes: ReadonlyArray<readonly [name: string, rule: string, holds: (f: Fractions) => boolean]> = [
  ['sand', 'silt + 1.5 clay < 15', ({ silt, clay }) => silt + 1.5 * clay < 15],
  ['loamy sand', 'silt + 1.5 clay ≥ 15 and silt + 2 clay < 30', ({ silt, clay }) => silt + 2 * clay < 30],
  ['silt', 'silt ≥ 80 and clay < 12', ({ silt, clay }) => silt >= 80 && clay < 12],
  ['silt loam', 'silt ≥ 50 and clay < 27', ({ silt, clay }) => silt >= 50 && clay < 27],
  [
    'sandy loam',
    'clay < 20 and sand > 52, or clay < 7 and silt < 50',
    ({ sand, clay }) => (clay < 20 && sand > 52) || clay < 7,
  ],
  ['loam', 'clay 7–27, silt 28–50, sand ≤ 52', ({ sand, silt, clay }) => clay < 27 && silt >= 28 && sand <= 52],
  [
    'sandy clay loam',
    'clay 20–35, silt < 28, sand > 45',
    ({ sand, silt, clay }) => clay < 35 && silt < 28 && sand > 45,
  ],
  ['sandy clay', 'clay ≥ 35 and sand > 45', ({ sand }) => sand > 45],
  ['silty clay loam', 'clay 27–40 and sand ≤ 20', ({ sand, clay }) => clay < 40 && sand <= 20],
  ['clay loam', 'clay 27–40 and sand 20–45', ({ clay }) => clay < 40],
  ['silty clay', 'clay ≥ 40 and silt ≥ 40', ({ silt }) => silt >= 40],
  ['clay', 'clay ≥ 40, sand ≤ 45, silt < 40', () => true],
];

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
  source: SOURCE,
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
    const [name, rule] = classes.find(([, , holds]) => holds(scaled))!;
    book.step({
      label: 'Texture class',
      formula: rule,
      numbers: `sand ${figure(scaled.sand)}, silt ${figure(scaled.silt)}, clay ${figure(scaled.clay)} %`,
      result: name,
      unit: '',
      source: SOURCE,
    });
    return { class: name };
  },
});
