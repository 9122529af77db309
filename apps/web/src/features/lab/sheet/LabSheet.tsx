import type { LabResultAnswer, ZoneAnswer } from '@glenfold/contract';
import { Box, Button, TextField, Typography } from '@mui/material';
import { type KeyboardEvent, useCallback, useState } from 'react';

import { colours } from '../../../ui/theme.ts';
import { Words } from '../../../ui/Words.tsx';
import { Trouble } from '../../../ui/bits.tsx';
import { useSessionState } from '../../../ui/useSessionState.ts';
import { type GridLine, LabGrid } from './LabGrid.tsx';
import { MoreColumns } from './SheetColumns.tsx';
import { sheetLooks } from './sheetLooks.ts';
import { useUndoable } from './useUndoable.ts';
import { BufferMethodField, ExtractantField, LimeFactorField } from '../MethodFields.tsx';
import {
  type Cell,
  type SheetHead,
  type SheetRow,
  cellsOf,
  freshHead,
  isBlank,
  readSheetRow,
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

  const cells = cellsOf(head);
  const listed = correcting ? zones.filter(({ id }) => id === correcting.zoneIds[0]) : zones;
  // A correction is of the sample, for every zone that shares it.
  const keep = correcting
    ? {
        label: correcting.label,
        labNumber: correcting.labNumber,
        zoneIds: correcting.zoneIds,
        of: correcting.of,
        advice: correcting.advice,
      }
    : {};
  const filled = listed.filter(({ id }) => !isBlank(rows[id] ?? {}));
  const read = new Map(filled.map((zone) => [zone.id, readSheetRow(rows[zone.id] ?? {}, head, zone, keep)]));
  const shownOf = (zoneId: string) =>
    (read.get(zoneId)?.problems ?? []).filter(
      ({ field }) => field !== 'depth' && field !== 'sampledOn' && (tried || touched.has(`${zoneId} ${field}`)),
    );
  const lines = listed.map((zone): GridLine => ({
    zone,
    row: rows[zone.id] ?? NOTHING,
    wrong: new Set(shownOf(zone.id).map(({ field }) => field)),
    chosen: zone.id === chosen,
  }));

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

  const depthProblem = [...read.values()]
    .flatMap(({ problems }) => problems)
    .find(({ field }) => field === 'depth')?.message;
  const dateProblem = [...read.values()]
    .flatMap(({ problems }) => problems)
    .find(({ field }) => field === 'sampledOn')?.message;
  const showHead = tried || filled.length > 0;
  return (
    <Box>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: '1fr 1fr', lg: 'repeat(4, minmax(0, 190px))' },
          gap: 2,
          mb: 2,
          mt: 1,
        }}
      >
        <ExtractantField value={head.extractant} onChange={(extractant) => setHead({ ...head, extractant })} />
        <BufferMethodField value={head.bufferMethod} onChange={(bufferMethod) => setHead({ ...head, bufferMethod })} />
        {head.bufferMethod === 'adams-evans' && (
          <LimeFactorField
            value={head.limeFactor ?? null}
            onChange={(limeFactor) => setHead({ ...head, limeFactor })}
          />
        )}
        <TextField
          label="Sampled depth"
          value={head.depth}
          onChange={(event) => setHead({ ...head, depth: event.target.value })}
          error={showHead && !!depthProblem}
          helperText={showHead && depthProblem ? depthProblem : 'As on the report: it scales the lime'}
          placeholder={head.depthUnit === 'in' ? '6' : '15'}
          slotProps={{
            input: {
              endAdornment: (
                <Button
                  size="small"
                  sx={{ minWidth: 0, px: 0.5, minHeight: 24 }}
                  aria-label={`Depth in ${head.depthUnit}: change`}
                  onClick={() => setHead({ ...head, depthUnit: head.depthUnit === 'in' ? 'cm' : 'in' })}
                >
                  {head.depthUnit}
                </Button>
              ),
            },
          }}
        />
        <TextField
          label="Sampled on"
          type="date"
          value={head.sampledOn}
          onChange={(event) => setHead({ ...head, sampledOn: event.target.value })}
          error={!!dateProblem}
          helperText={dateProblem ?? 'Empty when not known'}
          slotProps={{ inputLabel: { shrink: true } }}
        />
      </Box>
      <MoreColumns head={head} rows={rows} onChange={setHead} />
      <Box sx={sheetLooks} onKeyDownCapture={onKeyDown}>
        <LabGrid lines={lines} cells={cells} head={head} onHead={setHead} onRows={onRows} onLeave={onLeave} />
      </Box>
      {lines.map(({ zone }) => {
        const outcome = read.get(zone.id);
        const shown = shownOf(zone.id);
        if (!outcome || shown.length + outcome.questions.length + outcome.notes.length === 0) return null;
        return (
          <Box key={zone.id} id={`problems-${zone.id}`} sx={{ mt: 0.75, fontSize: '0.92rem', lineHeight: 1.35 }}>
            <strong>{zone.name}.</strong>
            {shown.map(({ field, message }) => (
              <Box key={field} sx={{ color: colours.ochre, fontWeight: 700 }}>
                <Words>{message}</Words>
              </Box>
            ))}
            {outcome.questions.map((question) => (
              <Box key={question} sx={{ color: colours.slate }}>
                <Words>{question}</Words>
              </Box>
            ))}
            {outcome.notes.map((note) => (
              <Box key={note} sx={{ color: colours.faded }}>
                {note}
              </Box>
            ))}
          </Box>
        );
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
