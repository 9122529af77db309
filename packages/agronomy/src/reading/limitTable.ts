import { quantity } from '../calculators/fields.ts';
import { band, group, record, series } from '../calculators/structures.ts';
import { readTable } from '../calculators/table.ts';
import data from '../data/limits.json' with { type: 'json' };
import { shades } from '../nutrients/nitrogenTables.ts';

const ph = () => quantity('pH', { min: 0, max: 11 });
const four = () => series(quantity('%', { min: 0, max: 100 }), 'limits', { min: 4, max: 4 });

/** Where the words of a reading begin, which the rules of what limits a lawn go by. */
export const limitTable = readTable(
  'limits',
  {
    ph: group({
      small: ph(),
      clear: ph(),
      severeBelow: ph(),
      severeAbove: ph(),
    }),
    esp: band(quantity('%', { above: 0, max: 100 })),
    /** Hours of sun that stand for a class where none were counted. */
    shadeHours: record(shades, quantity('h', { min: 0, max: 24 })),
    /** Where low, wanted, high and very high begin, %, by what the ground is. */
    organicMatter: group({
      lawn: four(),
      sand: four(),
      'fine turf': four(),
      organicSoilFrom: quantity('%', { min: 0, max: 100 }),
    }),
    cec: band(quantity('cmol/kg', { above: 0, max: 100 })),
    freeCarbonate: group({
      measuredFrom: quantity('%', { min: 0, max: 100 }),
      phFrom: ph(),
      /** Below this a soil holds none; from here it is a question. */
      wonderFrom: ph(),
    }),
  },
  data,
);
