import { quantity } from '../calculators/fields.ts';
import { band, group, series, text } from '../calculators/structures.ts';
import { readTable } from '../calculators/table.ts';
import data from '../data/when-to-correct.json' with { type: 'json' };

const ph = () => quantity('pH', { min: 3, max: 10 });

/** Schools of when a pH is corrected, and what an organic soil and a mix change of a grass's band. */
export const correction = readTable(
  'when-to-correct',
  {
    toTheAim: group({ least: quantity('', { min: 0, max: 2 }) }),
    leaveAlone: group({ between: band(ph()) }),
    towardNeutral: group({ below: ph(), onlyBelowBand: series(text(), 'grasses', { min: 0, max: 20 }) }),
    organicSoil: group({
      /** % organic matter from which band and aim are lower. */
      from: quantity('%', { min: 0, max: 100 }),
      lower: quantity('', { min: 0, max: 2 }),
      leastFoot: ph(),
      /** % from which it is an organic soil. */
      soilFrom: quantity('%', { min: 0, max: 100 }),
      highestAim: ph(),
    }),
    /** % of a mix from which a part has a say in the band. */
    mixPartFrom: quantity('%', { min: 0, max: 100 }),
  },
  data,
);

export const correctionRules = ['outside the band', 'to the aim', 'leave alone', 'toward neutral'] as const;
/** When a practice corrects a pH. */
export type CorrectionRule = (typeof correctionRules)[number];
