import { refuse } from './problem.ts';

/** Rows of a page, where nobody asks for another number. */
export const PAGE = 40;
const MOST = 200;

/** Where a page ends, as it stands in an address. */
export const writePlace = (parts: readonly string[]): string =>
  Buffer.from(JSON.stringify(parts)).toString('base64url');

/** @throws a refusal for what was never given out as the end of a page */
export function readPlace(text: string | undefined, parts: number): string[] | undefined {
  if (text === undefined || text === '') return undefined;
  try {
    const read: unknown = JSON.parse(Buffer.from(text, 'base64url').toString());
    if (Array.isArray(read) && read.length === parts && read.every((part) => typeof part === 'string')) return read;
  } catch {
    // Told below.
  }
  return refuse([{ field: 'after', message: 'This is not where a page ends: begin with the first.' }]);
}

/** @throws a refusal for what is no number of rows */
export function readLimit(text: string | undefined): number {
  if (text === undefined || text === '') return PAGE;
  const limit = Number(text);
  if (!Number.isInteger(limit) || limit < 1 || limit > MOST)
    refuse([{ field: 'limit', message: `A page has 1 to ${MOST} rows.` }]);
  return limit;
}

/** A text to look for anywhere in another, for ILIKE. */
export const anywhere = (text: string): string => `%${text.trim().replaceAll(/[\\%_]/g, String.raw`\$&`)}%`;

/** The rows that fit, and whether there are more; asked for with one more than fits. */
export function cut<T>(rows: readonly T[], limit: number, place: (last: T) => readonly string[]) {
  const shown = rows.slice(0, limit);
  const last = shown.at(-1);
  return { shown, next: rows.length > limit && last ? writePlace(place(last)) : null };
}
