import { InputError, optional, quantity } from '../calculators/fields.ts';
import { listOf, series, text } from '../calculators/structures.ts';
import { readTable } from '../calculators/table.ts';
import data from '../data/texture.json' with { type: 'json' };

export interface Fractions {
  readonly sand: number;
  readonly silt: number;
  readonly clay: number;
}

const weight = () => optional(quantity('', { min: -10, max: 10 }));
const limit = () => optional(quantity('%', { min: 0, max: 100 }));
const percent = () => quantity('%', { min: 0, max: 100 });

/** A weighted sum of the fractions against a limit. */
const conditionFields = {
  sand: weight(),
  silt: weight(),
  clay: weight(),
  below: limit(),
  from: limit(),
  above: limit(),
  upTo: limit(),
};

/** The triangle as the data file has it, with its source. */
export const textureTable = readTable(
  'texture',
  {
    classes: listOf(
      {
        name: text(),
        rule: text(),
        any: series(listOf(conditionFields, 'conditions', { min: 1, max: 6 }), 'lists', { min: 1, max: 6 }),
        /** Outline in the triangle, [sand, clay], for drawing it. */
        corners: series(series(percent(), 'shares', { min: 2, max: 2 }), 'corners', { min: 3, max: 12 }),
      },
      'classes',
      { min: 12, max: 12 },
    ),
  },
  data,
);

export type TextureClass = (typeof textureTable)['classes'][number];
export const textureClasses: readonly TextureClass[] = textureTable.classes;
export const textureSource = textureTable.source;

function holds(
  { sand = 0, silt = 0, clay = 0, below, from, above, upTo }: TextureClass['any'][number][number],
  given: Fractions,
): boolean {
  const sum = sand * given.sand + silt * given.silt + clay * given.clay;
  return (
    (below === undefined || sum < below) &&
    (from === undefined || sum >= from) &&
    (above === undefined || sum > above) &&
    (upTo === undefined || sum <= upTo)
  );
}

/** The class of fractions that add to 100: the first whose rule holds. Together they cover the triangle. */
export function findTextureClass(fractions: Fractions): TextureClass {
  const found = textureClasses.find(({ any }) =>
    any.some((conditions) => conditions.every((condition) => holds(condition, fractions))),
  );
  if (!found) throw new InputError('sand, silt and clay', 'lie outside the triangle; wanted shares that add to 100');
  return found;
}
