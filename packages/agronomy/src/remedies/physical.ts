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
    loosening: group({ depth: quantity('cm', { above: 0, max: 60 }) }),
    coring: group({
      tineDiameter: length(),
      depth: length(),
      spacingAlong: length(),
      spacingAcross: length(),
      passes: times(),
    }),
    /** cm of one topdressing, usual and at most, and of a year at most; peat in it up to, %. */
    sand: group({ pass: length(), mostPass: length(), mostYear: length(), times: times(), peatTo: share() }),
    /** Share of a mix, % by volume, and what it never passes. */
    clay: group({ share: band(share()), never: share() }),
    wetting: group({ times: times() }),
    iron: group({ spraying: iron(), most: iron(), times: times() }),
    /** cm lifted; m² up to which by hand; how much the spoil swells. */
    clear: group({
      depth: length(),
      byHandTo: quantity('m2', { above: 0, max: 1000 }),
      swells: quantity('', { min: 1, max: 2 }),
    }),
    /** Wanted grass, %, from which a lawn is overseeded, and from which slit or cored and seeded. */
    damage: group({ overseedFrom: share(), slitFrom: share() }),
    /** % cut away, on straight and on curved ground; mm of water at once. */
    sod: group({ waste: share(), wasteOnCurves: share(), waterAtOnce: quantity('mm', { above: 0, max: 100 }) }),
    /** g/m² of sprayed mulch up to a slope, %; binder as a share of it; L of a usual tank; g/m² of a feed that is mixed in. */
    mulch: group({
      slopes: listOf({ to: share(), mulch: quantity('g/m2', { above: 0, max: 1000 }) }, 'slopes', { min: 1, max: 6 }),
      binder: share(),
      binderSteep: share(),
      tank: quantity('L', { above: 0, max: 50_000 }),
      feed: quantity('g/m2', { above: 0, max: 200 }),
    }),
  },
  data,
);
mustRise(
  'physical.mulch.slopes',
  physical.mulch.slopes.map(({ to }) => to),
);
