import { choice, quantity } from '../calculators/fields.ts';
import { listOf, series, text } from '../calculators/structures.ts';
import { readTable } from '../calculators/table.ts';
import data from '../data/retest.json' with { type: 'json' };
import { isAnalyte } from '../analytes/analytes.ts';
import type { Applied } from '../ground/applied.ts';
import { entryKinds, lastDayOf } from '../ledger/entries.ts';
import { monthOf } from '../units/monthOf.ts';

const years = () => quantity('', { min: 1, max: 20, whole: true });
const kinds = () => series(choice(entryKinds), 'kinds', { min: 1, max: 8 });

/** When to test again, and what of the logbook bears on which analyte. */
export const retestTable = readTable(
  'retest',
  {
    afterCorrection: years(),
    routine: years(),
    corrections: kinds(),
    bears: listOf({ analyte: text(40), kinds: kinds() }, 'analytes', { min: 1, max: 60 }),
  },
  data,
);
for (const { analyte } of retestTable.bears)
  if (!isAnalyte(analyte)) throw new Error(`retest names no analyte: ${analyte}`);

export interface RetestDue {
  /** `2027-10-14` */
  readonly on: string;
  readonly words: string;
}

/** The same day so many years on; 29 February falls on the 28th. */
export function yearsOn(day: string, count: number): string {
  const year = String(Number(day.slice(0, 4)) + count);
  return `${year}${day.slice(4) === '-02-29' ? '-02-28' : day.slice(4)}`;
}

/** Whether what is spread corrects a soil, so that a test a year later tells whether it worked. */
export const corrects = (kind: string): boolean => (retestTable.corrections as readonly string[]).includes(kind);

/**
 * When a zone is to be tested again: a year after the last correction that came after its test, else about every three
 * years.
 *
 * @param sampledOn of the newest test; nothing where its day is not known
 * @param correcting what is to be spread yet to correct it: lime, sulfur, gypsum
 * @returns nothing without a day to count from
 */
export function retestDue(
  sampledOn: string | null,
  applied: readonly Applied[],
  correcting: readonly string[] = [],
): RetestDue | null {
  if (sampledOn === null) return null;
  const last = applied
    .filter(({ kind, on }) => corrects(kind) && lastDayOf(on) > sampledOn)
    .sort((one, other) => lastDayOf(one.on).localeCompare(lastDayOf(other.on)))
    .at(-1);
  if (last)
    return {
      on: yearsOn(lastDayOf(last.on), retestTable.afterCorrection),
      words: `A year after the ${last.kind} of ${monthOf(last.on)}, to see whether it worked.`,
    };
  return {
    on: yearsOn(sampledOn, retestTable.routine),
    words:
      correcting.length > 0
        ? `${retestTable.routine} years after the test of ${monthOf(sampledOn)} at the latest; once ${correcting.join(' or ')} is down, a year after it.`
        : `${retestTable.routine} years after the test of ${monthOf(sampledOn)}: nothing has corrected it since.`,
  };
}
