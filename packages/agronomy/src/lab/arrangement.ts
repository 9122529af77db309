import type { Extractant } from '../nutrients/sufficiencyTables.ts';
import type { BufferMethod } from './buffers.ts';
import type { DateOrder } from './cells.ts';
import type { ColumnMatch, LabField } from './columns.ts';

/** What a column of one laboratory's files holds, as a person has put it right. */
export type ArrangedColumn = ColumnMatch;

/** A laboratory's way, learned once and applied to its next file. */
export interface Arrangement {
  readonly columns: readonly ArrangedColumn[];
  readonly extractant: Extractant | null;
  readonly bufferMethod: BufferMethod | null;
  readonly limeFactor: number | null;
  /** cm, of files that do not give it. */
  readonly depth: number | null;
  readonly dateOrder: DateOrder | null;
}

/** Headers are the same whatever their spaces, case and signs. */
export const headerKey = (header: string): string =>
  header
    .normalize('NFKC')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}%<>/]+/gu, ' ')
    .trim();

/** Share of the headers of a file and of an arrangement that both have: 1 for the same, 0 for strangers. */
export function likeness(headers: readonly string[], { columns }: Pick<Arrangement, 'columns'>): number {
  const [file, known] = [new Set(headers.map(headerKey)), new Set(columns.map(({ header }) => headerKey(header)))];
  file.delete('');
  known.delete('');
  const both = [...file].filter((key) => known.has(key)).length;
  const all = new Set([...file, ...known]).size;
  return all === 0 ? 0 : both / all;
}

/** From here on a file is taken for one of that laboratory. */
export const ALIKE = 0.6;

/** The arrangement that fits a file best; nothing where none does. */
export function arrangementFor<T extends Pick<Arrangement, 'columns'>>(
  headers: readonly string[],
  known: readonly T[],
): T | undefined {
  const [best] = known
    .map((one) => ({ one, like: likeness(headers, one) }))
    .filter(({ like }) => like >= ALIKE)
    .sort((a, b) => b.like - a.like);
  return best?.one;
}

export interface Arranged {
  readonly columns: readonly ColumnMatch[];
  /** Headers of the file that the arrangement did not know, as they stand. */
  readonly fresh: readonly string[];
  /** Headers that the arrangement knows and the file has not. */
  readonly missing: readonly string[];
}

/** Lay a learned arrangement over the columns of a file: what it knows is as it was learned, the rest as it was read. */
export function arrange(columns: readonly ColumnMatch[], { columns: known }: Pick<Arrangement, 'columns'>): Arranged {
  const left = [...known];
  const fresh: string[] = [];
  const taken = new Set<LabField>();
  const laid = columns.map((column): ColumnMatch | undefined => {
    const at = left.findIndex(({ header }) => headerKey(header) === headerKey(column.header));
    const [found] = at < 0 ? [] : left.splice(at, 1);
    if (!found) return undefined;
    const { header: _header, advised, ...learned } = found;
    if (learned.field) taken.add(learned.field);
    return { header: column.header, ...learned, ...(advised ? { advised } : {}) };
  });
  return {
    columns: columns.map((column, index) => {
      const known = laid[index];
      if (known) return known;
      if (column.header.trim() !== '') fresh.push(column.header);
      // A field that was learned for another column is not taken twice.
      return column.field !== null && taken.has(column.field) ? { ...column, field: null } : column;
    }),
    fresh,
    missing: left.map(({ header }) => header).filter((header) => header.trim() !== ''),
  };
}
