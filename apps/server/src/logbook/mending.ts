import type { EntryInput, ProblemField } from '@glenfold/contract';
import type { EntryRecord } from '../entries/entry.entity.ts';
import type { Worker } from '../platform/work.ts';

/**
 * What is wrong with an entry that stands in the place of another.
 *
 * @param corrected that other one; `today` whether it was written on this day, where the site lies
 */
export function mendingFaults(
  { state, correctsId = null, reason = null, zoneId }: EntryInput,
  corrected: EntryRecord | undefined,
  { role, person }: Pick<Worker, 'role' | 'person'>,
  today: boolean,
): ProblemField[] {
  if (correctsId === null)
    return state === 'withdrawn'
      ? [{ field: 'state', message: 'Only an entry that is there can be withdrawn: name it.' }]
      : [];
  const own = corrected !== undefined && corrected.writtenBy === person?.name && today;
  return [
    ...(corrected?.zoneId === zoneId
      ? []
      : [{ field: 'correctsId', message: 'The entry that this mends is of another zone, or not there.' }]),
    ...(reason ? [] : [{ field: 'reason', message: 'Say what was wrong.' }]),
    // A technician mends what they wrote themselves, on the day, and deletes nothing.
    ...(role === 'technician' && (!own || state === 'withdrawn')
      ? [
          {
            field: 'correctsId',
            message:
              'A technician mends their own entries of the day, and withdraws none: ask the office, or write a note to it.',
          },
        ]
      : []),
  ];
}
