import { quantity } from '../calculators/fields.ts';
import { group } from '../calculators/structures.ts';
import { readTable } from '../calculators/table.ts';
import data from '../data/field-tests.json' with { type: 'json' };

const share = () => quantity('%', { min: 0, max: 100 });
const held = () => group({ dry: share(), full: share() });
const plain = (max: number) => quantity('', { above: 0, max });

/** When a test of one's own is ready, and what its numbers mean. */
export const testLimits = readTable(
  'field-tests',
  {
    drainage: group({
      /** Hours that the walls soak at least, and after which they have dried again. */
      soakLeast: plain(48),
      soakMost: plain(96),
      /** Minutes from reading to reading. */
      readEvery: plain(600),
      /** cm of water that are as good as none. */
      emptyWithin: plain(5),
      /** Hours after which it is enough. */
      longest: plain(96),
      /** Permeability of a layer over that of the next, for a pan. */
      panRatio: plain(100),
      /** % of slope on which water leaves sideways. */
      slopeLeaves: share(),
    }),
    /** Minutes after which each has settled; cm that a layer can be read to; times its share that wet clay stands too high. */
    jar: group({
      sandAfter: plain(60),
      siltAfter: plain(1440),
      clayAfter: plain(10_000),
      readTo: plain(2),
      clayMay: plain(4),
    }),
    /** s from which a drop tells of each class. */
    waterDrop: group({ slight: plain(60), strong: plain(600), severe: plain(3600), extreme: plain(20_000) }),
    catchCups: group({ poorBelow: share(), goodFrom: share(), least: plain(20) }),
    /** Times the last run that the next may be; driest over mean depth below which heads are to be looked at. */
    watering: group({ least: plain(1), most: plain(10), uneven: plain(1) }),
    /** Normal deviate of the interval; % of living cover by which the method of renovation is chosen; excess green of a living point. */
    cover: group({
      deviate: plain(4),
      overseedAbove: share(),
      slitFrom: share(),
      greenAbove: plain(255),
      /** % by which a judgement by eye may be out, and of weeds from which they go first. */
      byEye: share(),
      weedsAbove: share(),
    }),
    /** Of a spade's block, from which they core the ground. */
    worms: group({ manyFrom: plain(300) }),
    /** Pushes that tell of a zone, and cm between them from which it is uneven. */
    probe: group({ least: plain(60), uneven: plain(120) }),
    /** mm/h below which a lawn takes in water slowly. */
    ring: group({ slowBelow: plain(500) }),
    /** % by volume at which grass of a general soil wilts, and that it holds; % left of what lies between, to water at. */
    moisture: group({ sand: held(), loam: held(), clay: held(), waterBelow: share() }),
    /** °C of the soil for seed. */
    warmth: group({ dormantBelow: plain(40), coolFrom: plain(40), coolTo: plain(40), warmFrom: plain(40) }),
    /** cm above which rust spots tell of water that stands. */
    mottles: group({ wetAbove: plain(200) }),
    /** °C, mm, ratio, dS/m, % and months by which loads and seed are taken or sent back. */
    loads: group({
      warmAbove: plain(100),
      hotAbove: plain(100),
      screenTopdress: plain(100),
      screenSeedbed: plain(100),
      cnTies: plain(200),
      ecTopdress: plain(50),
      ecMost: plain(50),
      purityLeast: share(),
      germinationLeast: share(),
      weedMost: share(),
      testMonths: plain(60),
    }),
  },
  data,
);
