import { defineCalculator } from '../calculators/calculator.ts';
import { InputError, quantity } from '../calculators/fields.ts';
import { listOf } from '../calculators/structures.ts';
import { figure } from '../working/working.ts';

/**
 * How long one's pace is, by walking known distances.
 *
 * @param walks `distance` m along a tape and the `paces` it took, three or more.
 * @returns `pace` m; `spread` % by which a walk differs from it, one standard deviation.
 */
export const paceLength = defineCalculator({
  name: 'pace.length',
  title: 'Length of a pace',
  source: 'Mean of the walks, weighted by their length; spread is the sample standard deviation',
  inputs: {
    walks: listOf(
      {
        distance: quantity('m', { min: 5, max: 500, why: 'shorter says little' }),
        paces: quantity('', { min: 4, max: 2000 }),
      },
      'walks',
      { min: 1, max: 20 },
    ),
  },
  outputs: { pace: 'm', spread: '%' },
  compute({ walks }, book) {
    const distance = walks.reduce((sum, walk) => sum + walk.distance, 0);
    const paces = walks.reduce((sum, walk) => sum + walk.paces, 0);
    const pace = distance / paces;
    if (pace < 0.3 || pace > 2)
      throw new InputError('walks', `make a pace of ${figure(pace)} m; wanted 0.3 to 2 m: count each foot as one pace`);
    book.step({
      label: 'One pace',
      formula: 'distance of all walks / paces of all walks',
      numbers: `${figure(distance)} m / ${figure(paces)}`,
      result: pace,
      unit: 'm',
    });
    const off = walks.map((walk) => walk.distance / walk.paces / pace - 1);
    const known = walks.length >= 3;
    const spread = known ? 100 * Math.sqrt(off.reduce((sum, share) => sum + share ** 2, 0) / (walks.length - 1)) : 5;
    book.step({
      label: 'Spread of a paced length',
      formula: known ? '√(Σ (walk / mean − 1)² / (n − 1))' : 'taken as 5 %',
      numbers: `${walks.length} ${walks.length === 1 ? 'walk' : 'walks'}`,
      result: spread,
      unit: '%',
    });
    if (!known) book.warn('Fewer than three walks say nothing of the spread: it is taken as 5 %. Walk it three times.');
    return { pace, spread };
  },
});
