/** A table of coefficients as a person reads it. */
export interface ReferenceTable {
  readonly title: string;
  readonly subject:
    | 'Grasses'
    | 'Soil tests'
    | 'Lime'
    | 'Sulfur and acidity'
    | 'Nitrogen'
    | 'Materials'
    | 'Soil and water'
    | 'Judgement'
    | 'Program'
    | 'Season'
    | 'Spreaders and sprayers'
    | 'Trouble'
    | 'Sampling'
    | 'Own tests'
    | 'Reading'
    | 'Owner';
  readonly source: string;
  readonly basis: string;
  readonly region: string;
  readonly date: number;
  readonly columns: readonly string[];
  readonly rows: ReadonlyArray<readonly string[]>;
}

type Provenance = Pick<ReferenceTable, 'source' | 'basis' | 'region' | 'date'>;

export const range = (ends: readonly [number, number] | undefined, otherwise = '–'): string =>
  ends === undefined ? otherwise : ends[0] === ends[1] ? `${ends[0]}` : `${ends[0]}–${ends[1]}`;
export const known = (value: number | undefined): string => (value === undefined ? '–' : `${value}`);
export function table(
  subject: ReferenceTable['subject'],
  title: string,
  { source, basis, region, date }: Provenance,
  columns: readonly string[],
  rows: ReadonlyArray<readonly string[]>,
): ReferenceTable {
  return { title, subject, source, basis, region, date, columns, rows };
}
