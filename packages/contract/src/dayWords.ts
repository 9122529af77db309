import { monthName } from '@glenfold/agronomy';

const DAY = /(?<![\w/-])((?:19|20)\d\d)-(0[1-9]|1[0-2])(?:-(0[1-9]|[12]\d|3[01]))?(?![\w-])/g;

/**
 * Sentences as people read them: every day in them in the one form for a reader, "1 Dec 2026" of `2026-12-01` and "Dec
 * 2026" of `2026-12`. Files keep the ISO form.
 */
export const withReadableDays = (text: string): string =>
  text.replace(DAY, (_day, year: string, month: string, day: string | undefined) =>
    [day === undefined ? '' : `${Number(day)} `, monthName(Number(month)).slice(0, 3), ` ${year}`].join(''),
  );
