import { optional, quantity } from '../calculators/fields.ts';
import { listOf, text } from '../calculators/structures.ts';
import { readTable } from '../calculators/table.ts';
import data from '../data/known-straights.json' with { type: 'json' };

const percent = () => quantity('%', { min: 0, max: 100 });

/** Common straights with all that they hold; a product whose label tells only N-P-K is completed from here. */
export const knownStraights = readTable(
  'known-straights',
  {
    materials: listOf(
      {
        name: text(),
        n: percent(),
        p2o5: percent(),
        k2o: percent(),
        ca: optional(percent()),
        mg: optional(percent()),
        s: optional(percent()),
        fe: optional(percent()),
        chloride: optional(percent()),
        saltIndex: optional(quantity('', { min: 0, max: 200 })),
        nitrogenSource: optional(text()),
      },
      'materials',
      { min: 1, max: 100 },
    ),
  },
  data,
);

export type Straight = (typeof knownStraights)['materials'][number];

/** The straight of that grade; nothing for a blend, and for a slow product, which is another material of the grade. */
export function straightOf(grade: {
  readonly n: number;
  readonly p2o5: number;
  readonly k2o: number;
}): Straight | undefined {
  return knownStraights.materials.find(({ n, p2o5, k2o }) => n === grade.n && p2o5 === grade.p2o5 && k2o === grade.k2o);
}
