import { defineCalculator } from '../calculators/calculator.ts';
import { InputError, quantity } from '../calculators/fields.ts';
import { listOf } from '../calculators/structures.ts';
import { figure } from '../working/working.ts';

const SOURCE = 'Philip (1957), I = S√t + A t, fitted by least squares through the readings without an intercept';

/**
 * How fast a soil takes in water, by a ring that is kept filled.
 *
 * @param readings `time` min since the ring was filled and `infiltrated` mm until then.
 * @returns `sorptivity` mm/√h, and the `steady` rate mm/h that is left once the soil is wet.
 * @throws {InputError} for readings that go back in time or in depth, and where nothing went in.
 */
export const waterRing = defineCalculator({
  name: 'water.ring',
  title: 'Ring infiltration',
  source: SOURCE,
  inputs: {
    readings: listOf(
      { time: quantity('min', { min: 0, max: 2880 }), infiltrated: quantity('mm', { min: 0, max: 5000 }) },
      'readings',
      { min: 2, max: 200 },
    ),
  },
  outputs: { sorptivity: 'mm/√h', steady: 'mm/h' },
  compute({ readings }, book) {
    readings.slice(1).forEach(({ time, infiltrated }, index) => {
      const before = readings[index]!;
      if (time <= before.time)
        throw new InputError(
          `readings.${index + 1}.time`,
          `was given ${figure(time)} min; wanted later than ${figure(before.time)} min, the reading before`,
        );
      if (infiltrated < before.infiltrated)
        throw new InputError(
          `readings.${index + 1}.infiltrated`,
          `was given ${figure(infiltrated)} mm; water does not come back: wanted ${figure(before.infiltrated)} mm or more`,
        );
    });
    const points = readings.map(({ time, infiltrated }) => ({ t: time / 60, i: infiltrated })).filter(({ t }) => t > 0);
    if (points.length < 2 || points.at(-1)!.i <= 0)
      throw new InputError('readings', 'show no water going in after the start; wanted two readings or more after it');
    const sum = (of: (point: { t: number; i: number }) => number): number =>
      points.reduce((total, point) => total + of(point), 0);
    // Normal equations of I on √t and t.
    const [aa, ab, bb] = [sum(({ t }) => t), sum(({ t }) => t ** 1.5), sum(({ t }) => t ** 2)];
    const [ai, bi] = [sum(({ t, i }) => Math.sqrt(t) * i), sum(({ t, i }) => t * i)];
    const determinant = aa * bb - ab * ab;
    let sorptivity = (ai * bb - bi * ab) / determinant;
    let steady = (bi * aa - ai * ab) / determinant;
    book.step({
      label: 'Fit through all readings',
      formula: 'least squares of I = S√t + A t',
      numbers: `${points.length} readings to ${figure(points.at(-1)!.i)} mm after ${figure(points.at(-1)!.t)} h`,
      result: `S ${figure(sorptivity)}, A ${figure(steady)}`,
      unit: '',
      source: SOURCE,
    });
    if (steady < 0) {
      [steady, sorptivity] = [0, ai / aa];
      book.warn(
        'The steady part came out below 0: it is 0, and the rest is fitted anew. The ring ran too short a time.',
      );
    } else if (sorptivity < 0) {
      [sorptivity, steady] = [0, bi / bb];
      book.warn('The first part came out below 0: it is 0, and the rest is fitted anew. The soil was wet already.');
    }
    book.step({ label: 'Sorptivity', formula: 'S', numbers: figure(sorptivity), result: sorptivity, unit: 'mm/√h' });
    book.step({ label: 'Steady infiltration', formula: 'A', numbers: figure(steady), result: steady, unit: 'mm/h' });
    return { sorptivity, steady };
  },
});
