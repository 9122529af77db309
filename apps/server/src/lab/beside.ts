import type { ColumnMatch } from '@glenfold/agronomy';
import type { FilledBag } from '../sampling/sampling.service.ts';

/** What stands in the columns that no field takes: `Salts dS/m: 0.4; Lime advised ton/acre: 1.5`, and what else the bag was taken for than the zone as it is. */
export function besideOf(
  columns: readonly ColumnMatch[],
  cells: readonly string[],
  bag: FilledBag | undefined,
): string | null {
  const told = columns.flatMap(({ field, header }, index) => {
    const cell = cells[index]?.trim() ?? '';
    return field === null && header.trim() !== '' && !/^(-*|not tested)$/i.test(cell)
      ? `${header.trim()}: ${cell}`
      : [];
  });
  const purpose = bag && bag.purpose !== 'routine' ? [`Taken for: ${bag.purpose}`] : [];
  return [...purpose, ...told].join('; ') || null;
}
