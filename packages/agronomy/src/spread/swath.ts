import { defineCalculator } from '../calculators/calculator.ts';
import { InputError, quantity } from '../calculators/fields.ts';
import { series } from '../calculators/structures.ts';
import { figure } from '../working/working.ts';
import { spreading } from './spreading.ts';

/** Places across one swath at which the overlapped passes are summed. */
const PLACES = 60;

const mean = (values: readonly number[]): number => values.reduce((sum, value) => sum + value, 0) / values.length;

/** Catch at `x` trays from the middle, in a straight line from tray to tray; nothing beyond the last. */
function catchAt(catches: readonly number[], x: number): number {
  const place = x + (catches.length - 1) / 2;
  const left = Math.floor(place);
  const share = place - left;
  return (catches[left] ?? 0) * (1 - share) + (catches[left + 1] ?? 0) * share;
}

/** Trays from the middle outwards until the catch has fallen to `edge`. */
function reach(outwards: readonly number[], edge: number): number | undefined {
  const at = outwards.findIndex((caught) => caught < edge);
  if (at < 1) return undefined;
  const [inner, outer] = [outwards[at - 1]!, outwards[at]!];
  return at - 1 + (inner - edge) / (inner - outer);
}

/**
 * How far apart the passes of a broadcast spreader stand, and what they put down together.
 *
 * @param catches g in trays across the path, left to right, an odd number with the middle one under the machine;
 *   `trayArea` m²; `traySpacing` m from tray to tray.
 * @returns `width` m between passes, `rate` g/m² where they overlap, `unevenness` %, the coefficient of variation
 *   across the swath, passes driven to and fro.
 * @throws {InputError} when the middle catches nothing, or the catch does not fall to half within the trays.
 */
export const spreadSwath = defineCalculator({
  name: 'spread.swath',
  title: 'Swath of a broadcast spreader',
  source:
    'Half-rate points and overlapped passes as in ASABE S341; the middle is the mean of the three trays under the machine',
  inputs: {
    catches: series(quantity('g', { min: 0, max: 100_000 }), 'trays', { min: 5, max: 41 }),
    trayArea: quantity('m2', { above: 0, max: 10 }),
    traySpacing: quantity('m', { above: 0, max: 5 }),
  },
  outputs: { width: 'm', rate: 'g/m2', unevenness: '%' },
  compute({ catches, trayArea, traySpacing }, book) {
    if (catches.length % 2 === 0)
      throw new InputError(
        'catches',
        `was given ${catches.length} trays; wanted an odd number, with the middle one under the machine`,
      );
    const centre = (catches.length - 1) / 2;
    const middle = mean(catches.slice(centre - 1, centre + 2));
    if (middle <= 0)
      throw new InputError('catches', 'was given nothing under the machine; wanted the middle tray to catch something');
    const edge = middle * spreading.edgeShare;
    const reaches = [catches.slice(0, centre + 1).reverse(), catches.slice(centre)].map((side) =>
      reach([middle, ...side.slice(1)], edge),
    );
    const [left, right] = reaches;
    if (left === undefined || right === undefined)
      throw new InputError(
        'catches',
        `was given trays of which the outer ones still catch more than half of the middle’s ${figure(middle)} g; set more trays out on both sides`,
      );
    const trays = left + right;
    const width = trays * traySpacing;
    book.step({
      label: 'Width between passes',
      formula: 'from half of the middle’s catch on the left to half of it on the right',
      numbers: `(${figure(left)} + ${figure(right)}) trays × ${figure(traySpacing)} m, half of ${figure(middle)} g`,
      result: width,
      unit: 'm',
    });
    const passes = Math.ceil(catches.length / trays) + 1;
    const sums = Array.from({ length: PLACES }, (_, place) => {
      const x = ((place + 0.5) / PLACES - 0.5) * trays;
      let sum = 0;
      // To and fro: every second pass lies the other way round.
      for (let pass = -passes; pass <= passes; pass += 1)
        sum += catchAt(catches, (x - pass * trays) * (pass % 2 === 0 ? 1 : -1));
      return sum;
    });
    const together = mean(sums);
    const rate = together / trayArea;
    book.step({
      label: 'Put down where passes overlap',
      formula: 'mean of the catches of all passes across one swath / tray area',
      numbers: `${figure(together)} g / ${figure(trayArea)} m²`,
      result: rate,
      unit: 'g/m2',
    });
    const unevenness = (Math.sqrt(mean(sums.map((sum) => (sum - together) ** 2))) / together) * 100;
    book.step({
      label: 'Unevenness',
      formula: 'standard deviation / mean, across the swath',
      numbers: `of ${PLACES} places`,
      result: unevenness,
      unit: '%',
    });
    if (unevenness > spreading.unevenAbove)
      book.warn(
        `It would stripe: above ${spreading.unevenAbove} % a lawn shows it. Drive closer and calibrate again, or go over it twice at half the rate, crosswise.`,
      );
    const [one, other] = [left, right].sort((a, b) => a - b) as [number, number];
    if (other > 1.25 * one)
      book.warn('It throws further to one side: look at the deflector and at what sticks to the disc.');
    return { width, rate, unevenness };
  },
});
