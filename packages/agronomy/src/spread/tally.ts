import { type UnitSystem, type Sense, present } from '../units/present.ts';
import { type Working, WorkingBook, figure } from '../working/working.ts';

/** What is known half-way through a job. */
export interface Tally {
  /** m² of the whole, and of what is done. */
  readonly area: number;
  readonly done: number;
  /** kg, L or m³ for the whole, and what has gone out. */
  readonly quantity: number;
  readonly used: number;
  /** What is there in all, in the same unit; the quantity of the whole where nobody counted. */
  readonly stock?: number | undefined;
  /** Most of one pass over what it was planned at, as a factor; 1 where the plan is at its cap. */
  readonly capFactor?: number | undefined;
}

export interface Rerated {
  /** Share of the plan at which it has been put down so far. */
  readonly soFar: number;
  /** Share of the plan at which the rest is to go; held by the cap. */
  readonly rest: number;
  /** Quantity for the rest, and what is left over or missing after it at that. */
  readonly forRest: number;
  readonly leftOver: number;
  /** m² that what is there covers at the planned rate. */
  readonly covers: number;
  readonly held: boolean;
  readonly working: Working;
}

/**
 * Bags against area, half-way: at which rate the rest goes so that it comes out even, and no pass over its cap.
 *
 * @throws {RangeError} where more area is done than there is, or nothing yet
 */
export function rerate({ area, done, quantity, used, stock = quantity, capFactor = 1 }: Tally): Rerated {
  if (!(done > 0) || done > area * (1 + 1e-9) || used < 0)
    throw new RangeError('done is nothing yet, or more than there is');
  const book = new WorkingBook();
  const soFar = used / done / (quantity / area);
  book.step({
    label: 'So far, of the planned rate',
    formula: '(used / area done) / (planned / area)',
    numbers: `(${figure(used)} / ${figure(done)}) / (${figure(quantity)} / ${figure(area)})`,
    result: soFar,
    unit: '',
  });
  const open = Math.max(0, area - done);
  const there = Math.max(0, stock - used);
  const even = open > 0 ? there / open / (quantity / area) : 0;
  const rest = Math.min(even, capFactor);
  const held = even > capFactor + 1e-9;
  book.step({
    label: 'The rest, of the planned rate',
    formula: '(what is there / area left) / (planned / area)',
    numbers: `(${figure(there)} / ${figure(open)}) / (${figure(quantity)} / ${figure(area)})`,
    result: even,
    unit: '',
  });
  if (held)
    book.cap('Held at the planned rate: it is all that one pass may carry. What is left over stays in the bag.');
  const forRest = (rest * open * quantity) / area;
  return {
    soFar,
    rest,
    forRest,
    leftOver: there - forRest,
    covers: stock / (quantity / area),
    held,
    working: book.entries,
  };
}

/** What a tally tells the one who spreads, in a sentence or two. */
export function tellTally(
  tally: Tally,
  { soFar, rest, forRest, leftOver, held }: Rerated,
  { sense, rate, unit, system }: { sense: Sense; rate: number; unit: 'kg' | 'L' | 'm3'; system: UnitSystem },
): string {
  const say = (of: number): string => present(sense, of, system).text;
  const amount = (of: number): string =>
    present(unit === 'kg' ? 'mass' : unit === 'L' ? 'liquid' : 'volume', of, system).text;
  const pace =
    Math.abs(soFar - 1) < 0.03
      ? 'On the rate so far.'
      : `${say(rate * soFar)} so far, ${soFar > 1 ? 'over' : 'under'} the ${say(rate)} planned.`;
  if (tally.done >= tally.area * (1 - 1e-9))
    return `${pace} All of the zone is done${leftOver > 0 ? `; ${amount(leftOver)} is left over` : ''}.`;
  if (rest < 0.03) return `${pace} Nothing is left for the rest: fetch more, or stop here and write down what is done.`;
  const next = `The rest at ${say(rate * rest)}: ${amount(forRest)} for ${present('area', tally.area - tally.done, system).text}.`;
  const over = held && leftOver > 0 ? ` No more than planned in one pass: ${amount(leftOver)} stays over.` : '';
  return `${pace} ${next}${over}`;
}
