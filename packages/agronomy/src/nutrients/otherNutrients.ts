import { quantity } from '../calculators/fields.ts';
import { group, text } from '../calculators/structures.ts';
import { readTable } from '../calculators/table.ts';
import data from '../data/other-nutrients.json' with { type: 'json' };

const yearly = () => quantity('lb/1000ft2', { min: 0, max: 10 });

/** Magnesium on turf, lb/1000 ft² a year, and what carries it. */
export const otherNutrients = readTable(
  'other-nutrients',
  {
    magnesium: group({
      'very low': yearly(),
      low: yearly(),
      carrier: text(),
      content: quantity('%', { above: 0, max: 100 }),
    }),
  },
  data,
);
