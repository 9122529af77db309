import type { LabResultInput } from '@glenfold/contract';
import type { GridLine } from './LabGrid.tsx';
import { type ReadSheetRow, type SheetHead, type SheetRow, readSheetRow } from './sheet.ts';

/** Of a row, what it was read with and what came of it. */
const reads = new WeakMap<SheetRow, readonly [unknown, unknown, unknown, ReadSheetRow]>();

/** A row read once for as long as neither it nor its head changes: a sheet holds sixty of them, and one is typed in. */
export function readUnchanged(
  row: SheetRow,
  head: SheetHead,
  zone: { readonly id: string; readonly label: string },
  keep: Partial<LabResultInput>,
): ReadSheetRow {
  const last = reads.get(row);
  if (last?.[0] === head && last[1] === zone && last[2] === keep) return last[3];
  const outcome = readSheetRow(row, head, zone, keep);
  reads.set(row, [head, zone, keep, outcome]);
  return outcome;
}

const drawn = new WeakMap<GridLine['zone'], GridLine>();
const isSame = (one: ReadonlySet<string>, other: ReadonlySet<string>): boolean =>
  one.size === other.size && [...one].every((cell) => other.has(cell));

/** The very line drawn before where nothing of it changed: the grid draws again what is another only. */
export function lineUnchanged(next: GridLine): GridLine {
  const last = drawn.get(next.zone);
  if (last?.row === next.row && last.chosen === next.chosen && isSame(last.wrong, next.wrong)) return last;
  drawn.set(next.zone, next);
  return next;
}
