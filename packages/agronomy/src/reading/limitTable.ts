import { quantity } from '../calculators/fields.ts';
import { band, group, record, series } from '../calculators/structures.ts';
import { readTable } from '../calculators/table.ts';
import data from '../data/limits.json' with { type: 'json' };
import { shades } from '../nutrients/nitrogenTables.ts';

const ph = () => quantity('pH', { min: 0, max: 11 });
const depths = () => band(quantity('cm', { min: 0, max: 100 }));
const four = () => series(quantity('%', { min: 0, max: 100 }), 'limits', { min: 4, max: 4 });

/** From where something limits a lawn a little, clearly and severely. */
export const limitTable = readTable(
  'limits',
  {
    ph: group({
      small: ph(),
      clear: ph(),
      severeBelow: ph(),
      severeAbove: ph(),
      aluminiumBelow: ph(),
      aluminiumBandFrom: ph(),
      ironFrom: ph(),
      carbonateFrom: ph(),
    }),
    drainage: group({
      clearBelow: quantity('in/h', { above: 0, max: 10 }),
      severeBelow: quantity('in/h', { above: 0, max: 10 }),
      /** % of slope above which water leaves sideways. */
      slopeLetsOut: quantity('%', { min: 0, max: 100 }),
    }),
    probeStop: group({
      clearAbove: quantity('cm', { above: 0, max: 100 }),
      severeAbove: quantity('cm', { above: 0, max: 100 }),
    }),
    thatch: record(['turf', 'fine turf'], depths()),
    waterDrop: band(quantity('s', { above: 0, max: 10_000 })),
    esp: band(quantity('%', { above: 0, max: 100 })),
    sunShort: group({
      severeAbove: quantity('h', { above: 0, max: 12 }),
      /** Hours that stand for a class where none were counted. */
      classHours: record(shades, quantity('h', { min: 0, max: 24 })),
    }),
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
