import type { Treatment } from '../remedies/treatment.ts';
import { planned } from './balance.ts';
import type { Change } from './changes.ts';

/**
 * A change as the year sees that is worked on: what was put off before it began is due in it.
 *
 * @param putOffOn day on which it was put off; `began` first day of the year, nothing while none was begun.
 */
export function inYear({ out, ...change }: Change, putOffOn: string, began: string | null): Change {
  return out === 'next year' && began !== null && putOffOn < began ? change : { ...change, ...(out ? { out } : {}) };
}

/** What of a year that is over waited for this one: what was put off, and what waits for the retest; a sentence each. */
export function waitedOf(treatments: readonly Treatment[]): string[] {
  const off = treatments.filter(({ status }) => status === 'next year');
  return [
    ...planned(treatments).flatMap(({ waits }) => (waits ? [waits] : [])),
    ...off.map(({ name, byHand }) => `${name} was put off${byHand ? `: ${byHand.reason}` : ''}.`),
  ];
}

/** Months after which a year’s program is over. */
const YEAR = 12;

/** Whether a year that began on a day is over on another. */
export function isOver(began: string, day: string): boolean {
  const [year = 0, month = 1] = began.split('-').map(Number);
  const end = year * 12 + month - 1 + YEAR;
  return day >= `${Math.floor(end / 12)}-${String((end % 12) + 1).padStart(2, '0')}-${began.slice(8)}`;
}

/** Months after which a program that is looked at is the next year’s: what went down in this one does not count in it. */
const NEXT_FROM = 10;

/** Whether what went down since a day still counts against the program that is worked out on another. */
export function countsToward(began: string, day: string): boolean {
  const months =
    (Number(day.slice(0, 4)) - Number(began.slice(0, 4))) * 12 + Number(day.slice(5, 7)) - Number(began.slice(5, 7));
  return months < NEXT_FROM || (months === NEXT_FROM && day.slice(8) < began.slice(8));
}
