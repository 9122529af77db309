import type { Behind } from './stepReporter.ts';

/** Condition of a page that begins behind a row, by name of site and id; of `$2` and `$3`, which `placeOf` gives. */
export const isBehind = (name: string, id: string): string => `($2::text IS NULL OR (${name}, ${id}) > ($2, $3::uuid))`;

export const placeOf = (behind: Behind | undefined): [string | null, string | null] => [
  behind?.siteName ?? null,
  behind?.id ?? null,
];
