import { surfaces } from '../ground/surfaces.ts';
import { quantity } from '../calculators/fields.ts';
import { listOf, record } from '../calculators/structures.ts';
import { mustRise, readTable } from '../calculators/table.ts';
import data from '../data/nitrogen-limits.json' with { type: 'json' };

const pounds = () => quantity('lb/1000ft2', { above: 0, max: 10 });
const bySurface = () => record(surfaces, pounds());

/** What one pass of fertilizer may carry, lb/1000 ft², and the least passes of a year. */
export const nitrogenLimits = readTable(
  'nitrogen-limits',
  {
    soluble: bySurface(),
    total: bySurface(),
    /** Total where at least `slowFrom` % of the nitrogen is slow. */
    mostlySlow: bySurface(),
    slowFrom: quantity('%', { min: 0, max: 100 }),
    leastPasses: listOf(
      { yearAbove: pounds(), passes: quantity('', { min: 1, max: 12, whole: true }) },
      'least passes',
      { min: 1, max: 6 },
    ),
    slackPercent: quantity('%', { min: 0, max: 1 }),
    /** A seedbed's own year: the starter and one more; the rest is next year's. */
    seedbedPasses: quantity('', { min: 1, max: 6, whole: true }),
    potash: record(['turf', 'fine turf'], pounds()),
    phosphate: pounds(),
    magnesium: pounds(),
    mostPasses: quantity('', { min: 1, max: 52, whole: true }),
    /** Size guide number of granules, at most, on close-mown turf. */
    closeMownSgn: quantity('', { min: 20, max: 600 }),
  },
  data,
);
mustRise(
  'nitrogen-limits.leastPasses',
  nitrogenLimits.leastPasses.map(({ yearAbove }) => yearAbove),
);

/** The least whole number of passes that keep an amount within a cap, both in one unit. */
export function passesWithin(amount: number, cap: number): number {
  return Math.ceil(amount / (cap * (1 + nitrogenLimits.slackPercent / 100)) - 1e-9);
}
