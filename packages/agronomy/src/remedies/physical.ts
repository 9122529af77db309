import { quantity } from '../calculators/fields.ts';
import { band, group, listOf } from '../calculators/structures.ts';
import { mustRise, readTable } from '../calculators/table.ts';
import data from '../data/physical.json' with { type: 'json' };

const length = () => quantity('cm', { above: 0, max: 60 });
const times = () => quantity('', { min: 1, max: 20, whole: true });
const share = () => quantity('%', { min: 0, max: 100 });
const iron = () => quantity('lb/1000ft2', { above: 0, max: 1 });

/** What is usual of work on the ground itself, until somebody sets it otherwise. */
export const physical = readTable(
  'physical',
  {
    coring: group({
      tineDiameter: length(),
      depth: length(),
      spacingAlong: length(),
      spacingAcross: length(),
      passes: times(),
    }),
    /** cm of one topdressing, usual and at most; peat in it up to, %. */
    sand: group({ pass: length(), mostPass: length(), times: times(), peatTo: share() }),
    /** Share of a mix, % by volume, and what it never passes. */
    clay: group({ share: band(share()), never: share() }),
    wetting: group({ times: times() }),
    iron: group({ spraying: iron(), most: iron(), times: times() }),
    /** g/m² of sprayed mulch up to a slope, %; binder as a share of it; L of a usual tank. */
    mulch: group({
      slopes: listOf({ to: share(), mulch: quantity('g/m2', { above: 0, max: 1000 }) }, 'slopes', { min: 1, max: 6 }),
      binder: share(),
      binderSteep: share(),
      tank: quantity('L', { above: 0, max: 50_000 }),
    }),
  },
  data,
);
mustRise(
  'physical.mulch.slopes',
  physical.mulch.slopes.map(({ to }) => to),
);
