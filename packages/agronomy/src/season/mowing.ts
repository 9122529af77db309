import { quantity } from '../calculators/fields.ts';
import { band, listOf } from '../calculators/structures.ts';
import { readTable } from '../calculators/table.ts';
import data from '../data/mowing.json' with { type: 'json' };
import { grassField, grassNames } from '../nutrients/grasses.ts';

/** How high each grass is kept, in, and how much higher its seedlings are first cut, %. */
export const mowing = readTable(
  'mowing',
  {
    seedlingsAbove: quantity('%', { min: 0, max: 100 }),
    /** A sward of fine turf, in; a new one comes down by so much a week. */
    greensDownFrom: quantity('in', { above: 0, max: 2 }),
    greensDownByWeek: quantity('in', { above: 0, max: 1 }),
    greens: listOf({ grass: grassField(), height: band(quantity('in', { above: 0, max: 1 })) }, 'greens', {
      min: 1,
      max: grassNames.length,
    }),
    heights: listOf({ grass: grassField(), height: band(quantity('in', { above: 0, max: 12 })) }, 'grasses', {
      min: grassNames.length,
      max: grassNames.length,
    }),
  },
  data,
);

/** cm at which seedlings of a sward are first cut: a third above the middle of its height. */
export function firstCut(grass: string): number {
  const [low, high] = mowing.heights.find((entry) => entry.grass === grass)!.height;
  return ((low + high) / 2) * 2.54 * (1 + mowing.seedlingsAbove / 100);
}
