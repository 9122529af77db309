import type { LabResultAnswer, ZoneAnswer } from '@glenfold/contract';
import { Box, Button, TextField, Typography } from '@mui/material';
import { type ClipboardEvent, type KeyboardEvent, useRef, useState } from 'react';

import { colours } from '../../../ui/theme.ts';
import { Words } from '../../../ui/Words.tsx';
import { Trouble } from '../../../ui/bits.tsx';
import { useSessionState } from '../../../ui/useSessionState.ts';
import { fieldName } from '../fieldNames.ts';
import { ColumnHead, MoreColumns } from './SheetColumns.tsx';
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
  const grid = useRef<HTMLTableElement>(null);
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

  const put = (zoneId: string, cell: Cell, text: string): void =>
    setRows((last) => ({ ...last, [zoneId]: { ...last[zoneId], [cell]: text } }));
  const focus = (row: number, column: number): void =>
    grid.current?.querySelector<HTMLInputElement>(`[data-cell="${row} ${column}"]`)?.focus();

  const onKey = (event: KeyboardEvent<HTMLInputElement>, row: number, column: number): void => {
    const { selectionStart, selectionEnd, value } = event.currentTarget;
    const collapsed = selectionStart === selectionEnd;
    const moves: Partial<Record<string, readonly [number, number]>> = {
      ArrowUp: [row - 1, column],
      ArrowDown: [row + 1, column],
      Enter: [row + 1, column],
      ...(collapsed && selectionStart === 0 ? { ArrowLeft: [row, column - 1] as const } : {}),
      ...(collapsed && selectionEnd === value.length ? { ArrowRight: [row, column + 1] as const } : {}),
    };
    const move = moves[event.key];
    if (!move) return;
    event.preventDefault();
    focus(...move);
  };

  const onPaste = (event: ClipboardEvent<HTMLInputElement>, row: number, column: number): void => {
    const text = event.clipboardData.getData('text/plain');
    if (!/[\t\n]/.test(text.trimEnd())) return;
    event.preventDefault();
    text
      .trimEnd()
      .split(/\r?\n/)
      .forEach((line, down) =>
        line.split('\t').forEach((value, across) => {
          const zone = listed[row + down];
          const cell = cells[column + across];
          if (zone && cell) put(zone.id, cell, value.trim());
        }),
      );
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
      <Box sx={{ overflowX: 'auto' }}>
        <Box
          component="table"
          ref={grid}
          sx={{
            borderCollapse: 'collapse',
            width: '100%',
            minWidth: 128 + (cells.length > 7 ? 102 : 90) * cells.length,
            // The zone stays in sight while the columns scroll.
            '& tr > th:first-of-type': { position: 'sticky', left: 0, zIndex: 1, background: colours.paper },
            tableLayout: 'fixed',
            '& th': {
              textAlign: 'left',
              fontWeight: 400,
              verticalAlign: 'bottom',
              pr: 1,
              pb: 0.5,
              color: colours.faded,
              fontSize: '0.88rem',
            },
          }}
        >
          <thead>
            <tr>
              <Box component="th" sx={{ width: 128 }}>
                Zone and bag
              </Box>
              {cells.map((cell) => (
                <th key={cell}>
                  <ColumnHead analyte={cell} head={head} onChange={setHead} />
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {listed.map((zone, row) => {
              const outcome = read.get(zone.id);
              const shown = (outcome?.problems ?? []).filter(
                ({ field }) =>
                  field !== 'depth' && field !== 'sampledOn' && (tried || touched.has(`${zone.id} ${field}`)),
              );
              return [
                <tr key={zone.id}>
                  <Box
                    component="th"
                    scope="row"
                    sx={{
                      color: `${colours.ink} !important`,
                      verticalAlign: 'middle !important',
                      pb: '0 !important',
                      borderLeft: zone.id === chosen ? `3px solid ${colours.ink}` : '3px solid transparent',
                      pl: 1,
                      lineHeight: 1.2,
                    }}
                  >
                    <strong>{zone.name}</strong>
                    <div style={{ color: colours.faded }}>{zone.label}</div>
                  </Box>
                  {cells.map((cell, column) => {
                    const wrong = shown.some(({ field }) => field === cell);
                    return (
                      <Box
                        component="td"
                        key={cell}
                        sx={{
                          p: 0,
                          border: `1px solid ${wrong ? colours.ochre : colours.faded}`,
                          background: wrong ? colours.ochreWash : colours.sheet,
                        }}
                      >
                        <Box
                          component="input"
                          data-cell={`${row} ${column}`}
                          aria-label={`${fieldName(cell)} of ${zone.name}`}
                          aria-invalid={wrong}
                          aria-describedby={wrong ? `problems-${zone.id}` : undefined}
                          value={rows[zone.id]?.[cell] ?? ''}
                          onChange={(event: React.ChangeEvent<HTMLInputElement>) =>
                            put(zone.id, cell, event.target.value)
                          }
                          onBlur={() => setTouched((last) => new Set(last).add(`${zone.id} ${cell}`))}
                          onKeyDown={(event: KeyboardEvent<HTMLInputElement>) => onKey(event, row, column)}
                          onPaste={(event: ClipboardEvent<HTMLInputElement>) => onPaste(event, row, column)}
                          autoComplete="off"
                          inputMode="decimal"
                          sx={{
                            font: 'inherit',
                            width: '100%',
                            height: 36,
                            border: 0,
                            background: 'none',
                            px: 1,
                            color: colours.ink,
                            '&:focus': { outline: `2px solid ${colours.slate}` },
                          }}
                        />
                      </Box>
                    );
                  })}
                </tr>,
                (shown.length > 0 || (outcome && outcome.questions.length + outcome.notes.length > 0)) && (
                  <tr key={`${zone.id} words`}>
                    <td />
                    <td colSpan={cells.length} id={`problems-${zone.id}`}>
                      {shown.map(({ field, message }) => (
                        <Typography key={field} sx={{ color: colours.ochre, fontWeight: 700, fontSize: '0.92rem' }}>
                          <Words>{message}</Words>
                        </Typography>
                      ))}
                      {outcome?.questions.map((question) => (
                        <Typography key={question} sx={{ color: colours.slate, fontSize: '0.92rem' }}>
                          <Words>{question}</Words>
                        </Typography>
                      ))}
                      {outcome?.notes.map((note) => (
                        <Typography key={note} sx={{ color: colours.faded, fontSize: '0.92rem' }}>
                          {note}
                        </Typography>
                      ))}
                    </td>
                  </tr>
                ),
              ];
            })}
          </tbody>
        </Box>
      </Box>
      <Trouble error={save.error} />
      <Box sx={{ display: 'flex', gap: 2, alignItems: 'center', mt: 1.5, flexWrap: 'wrap' }}>
        <Button variant="contained" onClick={() => void onSave()} disabled={saving}>
          {correcting ? 'Save the correction' : filled.length > 1 ? `Save ${filled.length} results` : 'Save the result'}
        </Button>
        {correcting && <Button onClick={onDone}>Cancel</Button>}
        <Typography sx={{ color: colours.faded, fontSize: '0.9rem' }}>
          {tried && filled.length === 0
            ? 'Nothing is typed yet: begin with a soil pH.'
            : 'Arrows and Enter move; paste from a spreadsheet; “<5” for below detection; “42 lb/ac” converts.'}
        </Typography>
      </Box>
    </Box>
  );
}
