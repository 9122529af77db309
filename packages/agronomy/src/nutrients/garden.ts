import { quantity } from '../calculators/fields.ts';
import { band, text } from '../calculators/structures.ts';
import { readTable } from '../calculators/table.ts';
import data from '../data/garden.json' with { type: 'json' };

/** What a bed of vegetables or shrubs is read against, in general: its crop may want another soil. */
export const garden = readTable(
  'garden',
  {
    label: text(),
    ph: band(quantity('pH', { min: 3, max: 10 })),
    aim: quantity('pH', { min: 3, max: 10 }),
    /** dS/m of the saturated paste. */
    salt: band(quantity('dS/m', { min: 0, max: 30 })),
  },
  data,
);
