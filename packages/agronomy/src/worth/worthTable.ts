import { choice, optional, quantity } from '../calculators/fields.ts';
import { group, listOf, text } from '../calculators/structures.ts';
import { readTable } from '../calculators/table.ts';
import data from '../data/measurement-worth.json' with { type: 'json' };
import { panelNames } from '../sampling/designTables.ts';

const share = () => quantity('%', { min: 0, max: 100 });
const above = (max: number) => quantity('', { above: 0, max });
const holes = () => group({ slow: share(), stands: share() });

/** Measurements that may be worth making, and how they may turn out. */
export const worthTable = readTable(
  'measurement-worth',
  {
    /** Of what is drawn, where the told range begins and ends, %. */
    low: share(),
    high: share(),
    /** % of draws in which something else comes first, from which that is said. */
    turnsFrom: share(),
    /** % of the upper end by which a rate moves, from which that is said. */
    moves: share(),
    /** Cores of a test that is made once more, and of one that nobody counted. */
    cores: quantity('', { min: 1, max: 500, whole: true }),
    usualCores: quantity('', { min: 1, max: 500, whole: true }),
    measurements: listOf(
      { key: text(30), name: text(60), fee: quantity('', { min: 0, max: 1000 }), minutes: quantity('', { min: 0, max: 600 }), panel: optional(choice(panelNames)) },
      'measurements',
      { min: 1, max: 30 },
    ),
    /** Chances by the pH from which they hold. */
    fizz: listOf({ from: quantity('pH', { min: 0, max: 12 }), none: share(), weak: share(), strong: share() }, 'steps', { min: 1, max: 10 }),
    /** And where calcium already tells of carbonate. */
    presumed: group({ none: share(), weak: share(), strong: share() }),
    /** mm/h that stand for a hole that drains, drains slowly and does not; chances by soil; odds where the ground looks wet. */
    holes: group({ good: above(500), slow: above(500), stands: above(500), sand: holes(), loam: holes(), clay: holes(), wetTimes: above(20) }),
    organicSpread: above(3),
    /** dS/m of the paste. */
    salt: group({ middle: above(50), spread: above(3) }),
    /** mg/kg by Mehlich-3, of Olsen by Olsen. */
    nutrients: listOf({ key: text(30), middle: above(2000), spread: above(3) }, 'nutrients', { min: 1, max: 20 }),
  },
  data,
); // prettier-ignore

export type WorthKey = string;
