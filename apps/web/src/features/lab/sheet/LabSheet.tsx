import type { LabResultAnswer, LabResultInput, ZoneAnswer } from '@glenfold/contract';
import { Box, Button, Typography } from '@mui/material';
import { type KeyboardEvent, memo, useCallback, useMemo, useState } from 'react';

import { colours } from '../../../ui/theme.ts';
import { Words } from '../../../ui/Words.tsx';
import { Trouble } from '../../../ui/bits.tsx';
import { useSessionState } from '../../../ui/useSessionState.ts';
import { type GridLine, LabGrid } from './LabGrid.tsx';
import { MoreColumns } from './SheetColumns.tsx';
import { sheetLooks } from './sheetLooks.ts';
import { lineUnchanged, readUnchanged } from './unchanged.ts';
import { useUndoable } from './useUndoable.ts';
import { SheetHeadFields } from './SheetHeadFields.tsx';
import {
  type Cell,
  type ReadSheetRow,
  type SheetHead,
  type SheetRow,
  cellsOf,
  freshHead,
  isBlank,
  sheetOf,
} from './sheet.ts';
import { useSaveLabResult } from '../api.ts';

interface LabSheetProps {
  readonly siteId: string;
  readonly zones: readonly ZoneAnswer[];
  /** The zone that was chosen in the column; its row is marked. */
  readonly chosen: string | undefined;
  /** A recorded result to correct, instead of new ones. */
  readonly correcting?: LabResultAnswer | undefined;
  readonly onDone: () => void;
}

const NOTHING: SheetRow = {};

/** What a step changes, so that letters of one cell are one step: the cell, or a block. */
function stepOf(rows: Readonly<Record<string, SheetRow>>, changed: Readonly<Record<string, SheetRow>>): string {
  const cells = Object.entries(changed).flatMap(([zoneId, row]) =>
    Object.keys(row).flatMap((cell) =>
      row[cell as Cell] === rows[zoneId]?.[cell as Cell] ? [] : [`${zoneId} ${cell}`],
    ),
  );
  return cells.length === 1 ? cells[0]! : `a block of ${cells.length}, ${Date.now()}`;
}

/** What a correction keeps of the sample. */
const sampleOf = ({ label, labNumber, zoneIds, of, advice }: LabResultAnswer): Partial<LabResultInput> => ({
  ...{ label, labNumber, zoneIds, of, advice },
});

/** What there is to say of a row, under the sheet. @param wrong cells whose problems are shown by now */
const RowWords = memo(function RowWords({
  zone,
  outcome: { problems, questions, notes },
  wrong,
}: Pick<GridLine, 'zone' | 'wrong'> & { readonly outcome: ReadSheetRow }) {
  if (wrong.size + questions.length + notes.length === 0) return null;
  return (
    <Box id={`problems-${zone.id}`} sx={{ mt: 0.75, fontSize: '0.92rem', lineHeight: 1.35 }}>
      <strong>{zone.name}.</strong>
      {problems
        .filter(({ field }) => wrong.has(field))
        .map(({ field, message }) => (
          <Box key={field} sx={{ color: colours.ochre, fontWeight: 700 }}>
            <Words>{message}</Words>
          </Box>
        ))}
      {questions.map((question) => (
        <Box key={question} sx={{ color: colours.slate }}>
          <Words>{question}</Words>
        </Box>
      ))}
      {notes.map((note) => (
        <Box key={note} sx={{ color: colours.faded }}>
          {note}
        </Box>
      ))}
    </Box>
  );
});

/** A laboratory's report typed like a spreadsheet: arrows, Enter, and paste from one. */
export function LabSheet({ siteId, zones, chosen, correcting, onDone }: LabSheetProps) {
  const start = correcting ? sheetOf(correcting) : undefined;
  // What was typed over one version is not put over a later one.
  const key = `glenfold.sheet.${correcting ? `${correcting.id}.${correcting.version}` : siteId}`;
  const [head, setHead] = useSessionState<SheetHead>(`${key}.head`, start?.head ?? freshHead);
  const [rows, setRows] = useSessionState<Readonly<Record<string, SheetRow>>>(
    `${key}.rows`,
    start && correcting ? { [correcting.zoneIds[0]!]: start.row } : {},
  );
  const [tried, setTried] = useState(false);
  const [touched, setTouched] = useState<ReadonlySet<string>>(new Set());
  const save = useSaveLabResult();
  const [saving, setSaving] = useState(false);

  const cells = useMemo(() => cellsOf(head), [head]);
  const listed = correcting ? zones.filter(({ id }) => id === correcting.zoneIds[0]) : zones;
  // A correction is of the sample, for every zone that shares it.
  const keep = useMemo(() => (correcting ? sampleOf(correcting) : {}), [correcting]);
  const filled = listed.filter(({ id }) => !isBlank(rows[id] ?? {}));
  const read = new Map(filled.map((zone) => [zone.id, readUnchanged(rows[zone.id]!, head, zone, keep)]));
  const shownOf = (zoneId: string) =>
    (read.get(zoneId)?.problems ?? []).filter(
      ({ field }) =>
        field !== 'depth' && field !== 'sampledOn' && field !== 'cores' && (tried || touched.has(`${zoneId} ${field}`)),
    );
  const lines = listed.map((zone) =>
    lineUnchanged({
      zone,
      row: rows[zone.id] ?? NOTHING,
      wrong: new Set(shownOf(zone.id).map(({ field }) => field)),
      chosen: zone.id === chosen,
    }),
  );

  const undoable = useUndoable(rows, setRows);
  /** Typed, pasted or filled: one step, however many cells. */
  const onRows = (changed: Readonly<Record<string, SheetRow>>): void => {
    if (Object.keys(changed).length > 0) undoable.change({ ...rows, ...changed }, stepOf(rows, changed));
  };
  const onLeave = useCallback(
    (zoneId: string, cell: Cell): void => setTouched((last) => new Set(last).add(`${zoneId} ${cell}`)),
    [],
  );
  const onKeyDown = (event: KeyboardEvent): void => {
    if (!(event.ctrlKey || event.metaKey)) return;
    const key = event.key.toLowerCase();
    const back = key === 'z' && !event.shiftKey;
    const forth = key === 'y' || (key === 'z' && event.shiftKey);
    if ((back && undoable.undo()) || (forth && undoable.redo())) event.preventDefault();
  };

  const onSave = async (): Promise<void> => {
    setTried(true);
    if (filled.length === 0 || [...read.values()].some(({ problems }) => problems.length > 0)) return;
    setSaving(true);
    try {
      for (const zone of filled) {
        await save.mutateAsync(
          { seen: correcting, input: read.get(zone.id)!.input, opened: correcting, onTheirs: onDone },
          // What stands after all, over what somebody else saved first, ends here too.
          { onSuccess: () => correcting && onDone() },
        );
        setRows((last) => ({ ...last, [zone.id]: {} }));
      }
      undoable.forget();
      setTried(false);
      setTouched(new Set());
      if (!correcting) onDone();
    } catch {
      // The refusal is shown by `save.error`; the rows not yet saved stay as typed.
    } finally {
      setSaving(false);
    }
  };

  const headProblem = (of: string): string | undefined =>
    [...read.values()].flatMap(({ problems }) => problems).find(({ field }) => field === of)?.message;
  const showHead = tried || filled.length > 0;
  return (
    <Box>
      <SheetHeadFields
        head={head}
        onHead={setHead}
        depthProblem={showHead ? headProblem('depth') : undefined}
        dateProblem={headProblem('sampledOn')}
        coresProblem={headProblem('cores')}
      />
      <MoreColumns head={head} rows={rows} onChange={setHead} />
      <Box sx={sheetLooks} onKeyDownCapture={onKeyDown}>
        <LabGrid lines={lines} cells={cells} head={head} onHead={setHead} onRows={onRows} onLeave={onLeave} />
      </Box>
      {lines.map(({ zone, wrong }) => {
        const outcome = read.get(zone.id);
        return outcome && <RowWords key={zone.id} zone={zone} outcome={outcome} wrong={wrong} />;
      })}
      <Trouble error={save.error} />
      <Box sx={{ display: 'flex', gap: 2, alignItems: 'center', mt: 1.5, flexWrap: 'wrap' }}>
        <Button variant="contained" onClick={() => void onSave()} disabled={saving}>
          {correcting ? 'Save the correction' : filled.length > 1 ? `Save ${filled.length} results` : 'Save the result'}
        </Button>
        {correcting && <Button onClick={onDone}>Cancel</Button>}
        <Typography sx={{ color: colours.faded, fontSize: '0.9rem' }}>
          {tried && filled.length === 0
            ? 'Nothing is typed yet: begin with a soil pH.'
            : filled.length > 0
              ? `${filled.length} of ${listed.length} typed, kept on this device as you type. Ctrl+Z takes a step back.`
              : 'Type over a cell, Enter and arrows move, paste a block, drag a corner to fill; “<5”, “42 lb/ac”.'}
        </Typography>
      </Box>
    </Box>
  );
}
