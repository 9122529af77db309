import { isNutrient } from '@glenfold/agronomy';
import type { ZoneAnswer } from '@glenfold/contract';
import { memo, useCallback, useEffect, useMemo, useRef } from 'react';
import { type CellProps, type Column, DynamicDataSheetGrid } from 'react-datasheet-grid';
import 'react-datasheet-grid/dist/style.css';
import { fieldName } from '../fieldNames.ts';
import { typing } from '../../../ui/typing.ts';
import { ColumnHead } from './SheetColumns.tsx';
import type { Cell, SheetHead, SheetRow } from './sheet.ts';

/** A line of the grid: a zone, and what was typed of it. */
export interface GridLine {
  readonly zone: Pick<ZoneAnswer, 'id' | 'name' | 'label'>;
  readonly row: SheetRow;
  /** Cells that cannot be read. */
  readonly wrong: ReadonlySet<string>;
  readonly chosen: boolean;
}

interface LabGridProps {
  readonly lines: readonly GridLine[];
  readonly cells: readonly Cell[];
  readonly head: SheetHead;
  readonly onHead: (head: SheetHead) => void;
  /** What was typed, pasted or filled, by zone. */
  readonly onRows: (changed: Readonly<Record<string, SheetRow>>) => void;
  readonly onLeave: (zoneId: string, cell: Cell) => void;
}

interface CellData {
  readonly cell: Cell;
  readonly onLeave: (zoneId: string, cell: Cell) => void;
  /** A block pasted while one cell is being typed in. */
  readonly onBlock: (zoneId: string, cell: Cell, text: string) => void;
}

/** One value: typed where it stands, or over what stands there. */
const ValueCell = memo(function ValueCell({
  rowData,
  setRowData,
  focus,
  active,
  columnData: { cell, onLeave, onBlock },
}: CellProps<GridLine, CellData>) {
  const input = useRef<HTMLInputElement>(null);
  const { zone, row, wrong } = rowData;
  useEffect(() => {
    if (focus) {
      input.current?.focus();
      input.current?.select();
    } else input.current?.blur();
  }, [focus]);
  return (
    <input
      ref={input}
      aria-label={`${fieldName(cell)} of ${zone.name}`}
      aria-invalid={wrong.has(cell)}
      aria-describedby={wrong.has(cell) ? `problems-${zone.id}` : undefined}
      className={wrong.has(cell) ? 'sheet-cell wrong' : 'sheet-cell'}
      tabIndex={active ? 0 : -1}
      style={{ pointerEvents: focus ? 'auto' : 'none' }}
      value={row[cell] ?? ''}
      onChange={(event) => setRowData({ ...rowData, row: { ...row, [cell]: event.target.value } })}
      onBlur={() => onLeave(zone.id, cell)}
      onPaste={(event) => {
        const text = event.clipboardData.getData('text/plain').trimEnd();
        if (!/[\t\n]/.test(text)) return;
        event.preventDefault();
        event.stopPropagation();
        onBlock(zone.id, cell, text);
      }}
      autoComplete="off"
      inputMode="decimal"
    />
  );
});

const ZoneCell = memo(function ZoneCell({ rowData: { zone, chosen } }: CellProps<GridLine, never>) {
  return (
    <div className={chosen ? 'sheet-zone chosen' : 'sheet-zone'}>
      <strong>{zone.name}</strong>
      <span>{zone.label}</span>
    </div>
  );
});

const NARROW = { basis: 108, minWidth: 108, grow: 1, shrink: 0 };
const WIDE = { ...NARROW, basis: 136, minWidth: 136 };
/** The zones stay in sight, however far to the right the sheet is read. */
const ZONES = { component: ZoneCell as never, title: 'Zone and bag', basis: 150, minWidth: 150, grow: 0, shrink: 0 };

type AnyColumn = Partial<Column<GridLine, unknown>>;

/** The sheet as a grid: arrows, Enter, Tab, a block pasted, filled down by its corner. */
export function LabGrid({ lines, cells, head, onHead, onRows, onLeave }: LabGridProps) {
  const latest = useRef({ lines, cells, onRows });
  useEffect(() => {
    latest.current = { lines, cells, onRows };
  });
  const onBlock = useCallback((zoneId: string, cell: Cell, text: string): void => {
    const { lines: shown, cells: across, onRows: put } = latest.current;
    const [down, right] = [shown.findIndex(({ zone }) => zone.id === zoneId), across.indexOf(cell)];
    const block = text.split(/\r?\n/).map((line) => line.split('\t'));
    put(
      Object.fromEntries(
        block.flatMap((values, at) => {
          const line = shown[down + at];
          const typed = values.flatMap((value, index) => {
            const into = across[right + index];
            return into ? [[into, value.trim()] as const] : [];
          });
          return line ? [[line.zone.id, { ...line.row, ...Object.fromEntries(typed) }] as const] : [];
        }),
      ),
    );
  }, []);
  const columns = useMemo((): AnyColumn[] => {
    const values = cells.map((cell) => ({
      id: cell,
      component: ValueCell,
      columnData: { cell, onLeave, onBlock } satisfies CellData,
      title: <ColumnHead analyte={cell} head={head} onChange={onHead} />,
      // A head that asks for unit and method needs the room for both.
      ...(head.more?.includes(cell) && isNutrient(cell) ? WIDE : NARROW),
      // Typing over a cell begins anew, as in any spreadsheet.
      prePasteValues: (pasted: string[]) => pasted.map((text) => text.trim()),
      deleteValue: ({ rowData }: { rowData: GridLine }) => ({ ...rowData, row: { ...rowData.row, [cell]: '' } }),
      copyValue: ({ rowData }: { rowData: GridLine }) => rowData.row[cell] ?? '',
      pasteValue: ({ rowData, value }: { rowData: GridLine; value: string }) => ({
        ...rowData,
        row: { ...rowData.row, [cell]: value },
      }),
      isCellEmpty: ({ rowData }: { rowData: GridLine }) => !rowData.row[cell],
    }));
    return values as unknown as AnyColumn[];
  }, [cells, head, onHead, onLeave, onBlock]);
  useEffect(() => () => typing(false), []);
  return (
    <DynamicDataSheetGrid<GridLine>
      className="lab-sheet"
      value={lines as GridLine[]}
      onChange={(changed) =>
        onRows(
          Object.fromEntries(
            changed.flatMap((line, index) => (line.row === lines[index]?.row ? [] : [[line.zone.id, line.row]])),
          ),
        )
      }
      columns={columns as never}
      lockRows
      gutterColumn={ZONES}
      rowKey={({ rowData }) => rowData.zone.id}
      rowHeight={40}
      headerRowHeight={72}
      height={Math.min(634, 74 + 40 * lines.length)}
      // Keys belong to the grid while a cell is chosen: a 6 is a number there, and not the sixth step.
      onActiveCellChange={({ cell }) => typing(cell !== null)}
      disableContextMenu
    />
  );
}
