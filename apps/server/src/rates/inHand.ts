import { type UnitSystem, type ZoneProgram, differencesOf, isOver, waitedOf } from '@glenfold/agronomy';
import { type HandedOverAnswer, type YearBeforeAnswer, dayIn } from '@glenfold/contract';
import type { Program } from './program.entity.ts';
import { type ProgramZone, paperOf } from './programZone.entity.ts';
import { dueNow } from './programs.service.ts';
import type { TreatmentRecord } from './treatment.entity.ts';

/** What an owner has in hand of a zone, and what is another now. */
export function handedOverAnswer(
  { id, issuedAt, issued }: ProgramZone,
  now: ZoneProgram,
  units: UnitSystem,
): HandedOverAnswer {
  return {
    at: issuedAt.toISOString(),
    pdf: `/api/program-zones/${id}/program.pdf`,
    differences: differencesOf(paperOf(issued).answer.program, now, units),
  };
}

/** Where in the years a site stands. */
interface Year {
  /** First day of the year that is worked on; nothing while none was begun. */
  readonly began: string | null;
  /** Today, where the site lies. */
  readonly day: string;
  readonly timeZone: string;
}

/** Day on which the year of a program began; that of its handing over before days were kept. */
export const dayBegun = ({ startsOn, handedOverAt }: Program, timeZone: string): string =>
  startsOn ?? dayIn(handedOverAt!, timeZone);

/** Whether a year that began then is over, and no other was begun since. */
export const overSince = (then: string, { began, day }: Pick<Year, 'began' | 'day'>): boolean =>
  isOver(then, day) && (began === null || began <= then);

interface ZoneNow {
  readonly changes: readonly TreatmentRecord[];
  /** Of the result that it is read by now. */
  readonly resultId: string | undefined;
}

/** What a zone brings over from the year before; nothing in the first. @param papers newest first */
export function yearBefore(
  papers: readonly ProgramZone[],
  year: Year,
  { changes, resultId }: ZoneNow,
): YearBeforeAnswer | null {
  const { began, timeZone } = year;
  const dayOf = ({ issuedAt }: ProgramZone): string => dayIn(issuedAt, timeZone);
  const [newest] = papers;
  const over = newest !== undefined && overSince(dayOf(newest), year);
  if (!over && began === null) return null;
  const old = over ? newest : papers.find((paper) => dayOf(paper) < began!);
  const waited = old ? waitedOf(paperOf(old.issued).answer.program.treatments) : [];
  const put = dueNow(changes, began);
  return {
    began,
    over,
    waits: [...waited, ...put.filter((words) => !waited.some((known) => known.startsWith(words.split(':')[0]!)))],
    retested: old !== undefined && resultId !== old.labResultId,
  };
}
