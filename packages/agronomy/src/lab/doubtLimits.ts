import { quantity } from '../calculators/fields.ts';
import { group } from '../calculators/structures.ts';
import { readTable } from '../calculators/table.ts';
import data from '../data/lab-doubts.json' with { type: 'json' };

const above = (max: number) => quantity('', { above: 0, max });

/** When a value is doubted, and when two can be compared. */
export const doubtLimits = readTable(
  'lab-doubts',
  {
    /** This many times the last value, or this part of it. */
    times: above(20),
    /** Share by which a ratio may miss the one that a unit would make. */
    alike: above(0.5),
    phStep: above(5),
    /** Cations over the exchange capacity. */
    overCec: above(3),
    /** % by which shares of the exchange may miss 100. */
    shareGap: above(50),
    textureGap: above(50),
    /** sd of a pH; of the logarithm of any other value, from test to test of one ground. */
    spread: group({ ph: above(2), other: above(2) }),
    /** Analytes that two bags must share; how far apart they lie as told; how much better they fit exchanged. */
    exchanged: group({ analytes: above(20), apart: above(50), better: above(1) }),
    /** cm between the ends of two slices that are one depth. */
    depthApart: above(20),
    /** Between two days of the year that are one season. */
    monthsApart: above(6),
  },
  data,
);
