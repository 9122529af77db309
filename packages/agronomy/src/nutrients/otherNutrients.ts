import { choice, optional, quantity } from '../calculators/fields.ts';
import { group, listOf, series, text } from '../calculators/structures.ts';
import { readTable } from '../calculators/table.ts';
import data from '../data/other-nutrients.json' with { type: 'json' };

const yearly = () => quantity('lb/1000ft2', { min: 0, max: 10 });

/** What is short beside N, P and K: magnesium and sulfur in lb/1000 ft² a year, trace elements with the signs that they want. */
export const otherNutrients = readTable(
  'other-nutrients',
  {
    magnesium: group({
      'very low': yearly(),
      low: yearly(),
      carrier: text(),
      content: quantity('%', { above: 0, max: 100 }),
    }),
    sulfur: group({ 'very low': yearly(), low: yearly() }),
    trace: listOf(
      {
        nutrient: choice(['mn', 'zn', 'cu', 'b'] as const),
        name: choice(['manganese', 'zinc', 'copper', 'boron'] as const),
        signs: series(text(40), 'signs', { min: 1, max: 10 }),
        caution: optional(text(200)),
      },
      'trace elements',
      { min: 4, max: 4 },
    ),
  },
  data,
);
