import { type Table, readTable } from '../calculators/table.ts';
import { quantity } from '../calculators/fields.ts';
import { series, text } from '../calculators/structures.ts';
import data from '../data/spreading.json' with { type: 'json' };

const steps = () => series(text(300), 'steps', { min: 1, max: 20 });
const fields = {
  /** Of the middle’s catch, at the edge of an effective swath. */
  edgeShare: quantity('', { above: 0, max: 1 }),
  /** %, coefficient of variation across overlapped passes. */
  unevenAbove: quantity('%', { min: 1, max: 100 }),
  /** % over a new nozzle. */
  wornAbove: quantity('%', { min: 1, max: 100 }),
  /** % that one nozzle may stand off the mean of all where a new one was not measured. */
  besideMean: quantity('%', { min: 1, max: 100 }),
  /** % within which a tried setting is taken as the wanted one. */
  sameWithin: quantity('%', { min: 0, max: 50 }),
  /** Times up or down. */
  stretch: quantity('', { min: 1, max: 5 }),
  /** Days. */
  oldAfter: quantity('', { min: 1, max: 5000, whole: true }),
  mixing: steps(),
  rinse: steps(),
};

/** What is judged of spreaders and sprayers, with its source. */
export const spreading: Table<typeof fields> = readTable('spreading', fields, data);
