import { defineCalculator } from '../calculators/calculator.ts';
import { optional, quantity } from '../calculators/fields.ts';
import { series } from '../calculators/structures.ts';
import { figure } from '../working/working.ts';
import { spreading } from './spreading.ts';

/**
 * What a sprayer puts down, from what its nozzles give and how fast it is walked or driven.
 *
 * @param caught mL from each nozzle in `caughtIn` s; `nozzleSpacing` m, or the width that a single one covers;
 *   `distanceWalked` m covered in `walkedIn` s while spraying; `newNozzle` mL from a new one in the same seconds.
 * @returns `output` mL/m² of mix, `speed` km/h, `worn` the numbers of nozzles to be replaced, from 1.
 */
export const sprayNozzles = defineCalculator({
  name: 'spray.nozzles',
  title: 'Sprayer calibration',
  source:
    'Flow over the area covered in the same time; nozzles above 110 % of a new one are replaced (Ozkan, Ohio State University Extension FABE-520)',
  inputs: {
    caught: series(quantity('mL', { min: 0, max: 100_000 }), 'nozzles', { min: 1, max: 40 }),
    caughtIn: quantity('s', { above: 0, max: 3600 }),
    nozzleSpacing: quantity('m', { above: 0, max: 10 }),
    distanceWalked: quantity('m', { above: 0, max: 1000 }),
    walkedIn: quantity('s', { above: 0, max: 3600 }),
    newNozzle: optional(quantity('mL', { above: 0, max: 100_000 })),
  },
  outputs: { output: 'mL/m2', speed: 'km/h', worn: '[number]' },
  compute({ caught, caughtIn, nozzleSpacing, distanceWalked, walkedIn, newNozzle }, book) {
    const mean = caught.reduce((sum, one) => sum + one, 0) / caught.length;
    book.step({
      label: 'A nozzle gives',
      formula: 'mean of what was caught',
      numbers: `${caught.map(figure).join(' + ')}, ${caught.length === 1 ? 'one nozzle' : `${caught.length} nozzles`}`,
      result: mean,
      unit: 'mL',
    });
    const speed = distanceWalked / walkedIn;
    book.step({
      label: 'Speed',
      formula: 'distance / time',
      numbers: `${figure(distanceWalked)} m / ${figure(walkedIn)} s × 3.6`,
      result: speed * 3.6,
      unit: 'km/h',
    });
    const output = mean / caughtIn / (nozzleSpacing * speed);
    book.step({
      label: 'Put down',
      formula: 'flow / (spacing × speed)',
      numbers: `${figure(mean)} mL / ${figure(caughtIn)} s / (${figure(nozzleSpacing)} m × ${figure(speed)} m/s)`,
      result: output,
      unit: 'mL/m2',
    });
    const most = newNozzle === undefined ? undefined : newNozzle * (1 + spreading.wornAbove / 100);
    const worn = caught.flatMap((one, at) => (most !== undefined && one > most ? [at + 1] : []));
    if (worn.length > 0)
      book.warn(
        `Replace ${worn.length === 1 ? 'nozzle' : 'nozzles'} ${worn.join(', ')}: more than ${spreading.wornAbove} % over a new one.`,
      );
    const beside = caught.flatMap((one, at) =>
      Math.abs(one - mean) > (mean * spreading.besideMean) / 100 && !worn.includes(at + 1) ? [at + 1] : [],
    );
    if (beside.length > 0)
      book.warn(
        `${beside.length === 1 ? 'Nozzle' : 'Nozzles'} ${beside.join(', ')} ${beside.length === 1 ? 'stands' : 'stand'} more than ${spreading.besideMean} % off the mean: clean ${beside.length === 1 ? 'it' : 'them'} with a soft brush and catch again.`,
      );
    if (newNozzle === undefined)
      book.warn('Whether nozzles are worn shows only beside a new one: catch from one of the same kind and pressure.');
    return { output, speed: speed * 3.6, worn };
  },
});
