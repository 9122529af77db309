import {
  type Analyte,
  type ColumnMatch,
  type LabField,
  type LabUnit,
  analyteKindNames,
  analytes,
  isAnalyte,
  isNutrient,
  labFields,
  present,
  reportedAs,
  routineAnalytes,
  sheetOrder,
  writeBagCode,
} from '@glenfold/agronomy';
import type { LabReportAnswer, LabReportChoices, ZoneAnswer } from '@glenfold/contract';
import {
  Box,
  Button,
  ListSubheader,
  MenuItem,
  Table,
  TableBody,
  TableCell,
  TableHead,
  TableRow,
  TextField,
  Typography,
} from '@mui/material';
import { useEffect, useRef, useState } from 'react';

import { colours } from '../../ui/theme.ts';
import { QuantityField } from '../../ui/QuantityField.tsx';
import { Words } from '../../ui/Words.tsx';
import { Trouble } from '../../ui/bits.tsx';
import { useUndo } from '../../ui/undo.tsx';
import { useUnits } from '../../ui/units.tsx';
import { amountText, fieldName, headName, unitText } from './fieldNames.ts';
import {
  BufferMethodField,
  ExtractantField,
  LimeFactorField,
  OwnMethodField,
  ReportedAsField,
} from './MethodFields.tsx';
import { useConfirmLabFile, useCorrectLabFile } from './api.ts';

/** Columns of a file may hold a unit that is to be chosen. */
const isChosen = (field: LabField | null): field is Analyte =>
  field !== null && isAnalyte(field) && reportedAs(field).length > 1;

/** Trace elements and the like often have an extract of their own. */
const asksMethod = ({ field, method }: ColumnMatch): boolean =>
  field !== null && isNutrient(field) && (method != null || !routineAnalytes.some((one) => one === field));

/** What the samples of a file are shown by: the routine, and whatever else it holds. */
function shownAnalytes({ rows }: LabReportAnswer): readonly Analyte[] {
  return sheetOrder.filter(
    (analyte) => routineAnalytes.some((one) => one === analyte) || rows.some(({ row }) => row.values[analyte]),
  );
}

function choicesOf(file: LabReportAnswer): LabReportChoices {
  return {
    columns: file.columns.map(({ field, unit, basis, method }) => ({ field, unit, basis, method: method ?? null })),
    // Only what the person set stays fixed; the rest is matched by label again.
    rows: file.rows.filter(({ zoneChosen }) => zoneChosen).map(({ line, zoneId, bagId }) => ({ line, zoneId, bagId })),
    extractant: file.extractant,
    bufferMethod: file.bufferMethod,
    limeFactor: file.limeFactor,
    depth: file.depth,
  };
}

function ColumnCard({
  column,
  onChange,
}: {
  readonly column: ColumnMatch;
  readonly onChange: (column: ColumnMatch) => void;
}) {
  const { header, field, unit, basis } = column;
  const setField = (text: string): void => onChange({ ...column, field: text === '' ? null : (text as LabField) });
  const small = { '& .MuiInput-root': { fontSize: '0.92rem' }, width: '100%' };
  return (
    <Box
      sx={{
        border: `1px solid ${field === null ? colours.line : colours.faded}`,
        background: field === null ? 'none' : colours.sheet,
        px: 1,
        py: 0.5,
        minWidth: 0,
      }}
    >
      <Typography sx={{ fontSize: '0.85rem', color: colours.faded, overflowWrap: 'anywhere', lineHeight: 1.25 }}>
        “{header}”
      </Typography>
      <TextField
        select
        variant="standard"
        value={field ?? ''}
        onChange={(event) => setField(event.target.value)}
        slotProps={{ select: { displayEmpty: true }, htmlInput: { 'aria-label': `Column ${header}` } }}
        sx={small}
      >
        <MenuItem value="">
          <em>not read</em>
        </MenuItem>
        {labFields.flatMap((name, index) => {
          const kindOf = (one: LabField | undefined) => (one && isAnalyte(one) ? analytes[one].kind : undefined);
          const kind = kindOf(name);
          return [
            ...(kind && kind !== kindOf(labFields[index - 1])
              ? [<ListSubheader key={kind}>{analyteKindNames[kind]}</ListSubheader>]
              : []),
            <MenuItem key={name} value={name}>
              {fieldName(name)}
            </MenuItem>,
          ];
        })}
      </TextField>
      {isChosen(field) && (
        <ReportedAsField
          analyte={field}
          label={`Unit of ${header}`}
          value={unit === null ? null : { unit: unit as LabUnit, basis }}
          onChange={(chosen) => onChange({ ...column, ...chosen })}
        />
      )}
      {asksMethod(column) && (
        <OwnMethodField
          label={`${header}, extracted by`}
          value={column.method ?? undefined}
          onChange={(method) => onChange({ ...column, method: method ?? null })}
        />
      )}
    </Box>
  );
}

interface ReviewProps {
  readonly file: LabReportAnswer;
  readonly zones: readonly ZoneAnswer[];
}

/** Shows what of a laboratory's file goes where, before any of it is imported. */
export function LabFileReview({ file, zones }: ReviewProps) {
  const { system } = useUnits();
  const correct = useCorrectLabFile();
  const confirm = useConfirmLabFile();
  const { remove } = useUndo();
  // Each correction goes on from the one before, whether or not its answer is here yet.
  const latest = useRef({ version: file.version, choices: choicesOf(file) });
  useEffect(() => {
    if (file.version > latest.current.version) latest.current = { version: file.version, choices: choicesOf(file) };
  }, [file]);
  const send = (change: Partial<LabReportChoices>): void => {
    const choices = { ...latest.current.choices, ...change };
    latest.current = { ...latest.current, choices };
    // A correction that is refused is not part of the next one.
    const onError = (): void => void (latest.current = { version: file.version, choices: choicesOf(file) });
    const onTheirs = (): void => void (latest.current = { ...latest.current, version: 0 });
    correct.mutate({ seen: file, input: choices, onTheirs }, { onError });
  };
  /** @param goal `zone ID` or `bag ID`; nowhere when empty. */
  const choose = (line: number, goal: string): void => {
    const [kind, id = null] = goal.split(' ');
    const choice = { line, zoneId: kind === 'zone' ? id : null, bagId: kind === 'bag' ? id : null };
    send({ rows: [...latest.current.choices.rows.filter((other) => other.line !== line), choice] });
  };
  const namesOf = (ids: readonly string[]): string =>
    ids.map((id) => zones.find((zone) => zone.id === id)?.name ?? 'a deleted zone').join(', ');
  const ready = file.rows.filter(
    ({ faults, zoneId, bagId, resultId }) => faults.length === 0 && (zoneId ?? bagId) !== null && resultId === null,
  );
  const held = file.rows.filter(({ resultId, faults }) => resultId === null && faults.length > 0);
  const needsDepth = file.rows.some(({ row }) => row.depth === undefined) || file.depth !== null;
  const shown = shownAnalytes(file);
  const hasBuffer = file.columns.some(({ field }) => field === 'bufferPh');
  return (
    <Box
      component="section"
      aria-label={`File ${file.fileName}`}
      sx={{ border: `1px solid ${colours.ink}`, p: 2, mb: 3 }}
    >
      <Box sx={{ display: 'flex', justifyContent: 'space-between', gap: 2, flexWrap: 'wrap', alignItems: 'start' }}>
        <Box>
          <Typography variant="h2">{file.fileName}</Typography>
          <Typography sx={{ color: colours.faded }}>
            {file.status === 'open'
              ? 'Nothing is imported yet. Check what goes where.'
              : `${file.rows.length - held.length} of ${file.rows.length} rows imported; the rest is kept here with its reason.`}
          </Typography>
        </Box>
        <Box sx={{ display: 'flex', gap: 1 }}>
          <Button variant="outlined" onClick={() => remove(`/lab-reports/${file.id}`, file.fileName)}>
            Set aside
          </Button>
          <Button
            variant="contained"
            disabled={ready.length === 0 || confirm.isPending || correct.isPending}
            onClick={() => confirm.mutate(file.id)}
          >
            {ready.length === 0
              ? 'No row is ready'
              : `Import ${ready.length} ${ready.length === 1 ? 'result' : 'results'}`}
          </Button>
        </Box>
      </Box>
      <Trouble error={correct.error ?? confirm.error} />

      <Box
        sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', sm: 'repeat(3, minmax(0, 230px))' }, gap: 2, my: 2 }}
      >
        <ExtractantField value={file.extractant} onChange={(extractant) => send({ extractant })} />
        {hasBuffer && (
          <BufferMethodField value={file.bufferMethod} onChange={(bufferMethod) => send({ bufferMethod })} />
        )}
        {hasBuffer && file.bufferMethod === 'adams-evans' && (
          <LimeFactorField value={file.limeFactor} onChange={(limeFactor) => send({ limeFactor })} />
        )}
        {needsDepth && <DepthForAll file={file} onSet={(depth) => send({ depth })} />}
      </Box>

      <Typography variant="h3" gutterBottom>
        Columns
      </Typography>
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fill, minmax(132px, 1fr))', gap: 1, mb: 2 }}>
        {file.columns.map((column, index) => (
          <ColumnCard
            key={`${index} ${column.header}`}
            column={column}
            onChange={(changed) =>
              send({
                columns: latest.current.choices.columns.map((entry, other) =>
                  other === index
                    ? { field: changed.field, unit: changed.unit, basis: changed.basis, method: changed.method ?? null }
                    : entry,
                ),
              })
            }
          />
        ))}
      </Box>

      <Typography variant="h3">Samples</Typography>
      {held.length > 0 && (
        <Typography sx={{ color: colours.faded, fontSize: '0.92rem' }}>
          A row that cannot be read stays here with its reason; its numbers can be typed into the sheet below.
        </Typography>
      )}
      <Box sx={{ overflowX: 'auto' }}>
        <Table size="small">
          <TableHead>
            <TableRow>
              {['Line', 'Label', 'Goes to', 'Depth', ...shown.map(headName)].map((heading) => (
                <TableCell key={heading}>{heading}</TableCell>
              ))}
            </TableRow>
          </TableHead>
          <TableBody>
            {file.rows.map(({ line, row, zoneId, bagId, faults, questions, resultId }) => (
              <TableRow key={line} sx={{ opacity: resultId ? 0.7 : 1 }}>
                <TableCell>{line}</TableCell>
                <TableCell sx={{ fontWeight: 700, whiteSpace: 'nowrap' }}>{row.label || '–'}</TableCell>
                <TableCell sx={{ minWidth: 240 }}>
                  {resultId ? (
                    `${namesOf(zoneId ? [zoneId] : (file.bags.find(({ id }) => id === bagId)?.zoneIds ?? []))}, imported`
                  ) : (
                    <TextField
                      select
                      variant="standard"
                      value={bagId ? `bag ${bagId}` : zoneId ? `zone ${zoneId}` : ''}
                      onChange={(event) => choose(line, event.target.value)}
                      slotProps={{
                        select: { displayEmpty: true },
                        htmlInput: { 'aria-label': `Zone of line ${line}` },
                      }}
                      sx={{ minWidth: 150 }}
                    >
                      <MenuItem value="">
                        <em>nowhere</em>
                      </MenuItem>
                      {zones.map(({ id, name, label }) => (
                        <MenuItem key={id} value={`zone ${id}`}>
                          {name} ({label})
                        </MenuItem>
                      ))}
                      {file.bags.map(({ id, code, zoneIds }) => (
                        <MenuItem key={id} value={`bag ${id}`}>
                          Bag {writeBagCode(code)}: {namesOf(zoneIds)}
                        </MenuItem>
                      ))}
                    </TextField>
                  )}
                  {!resultId &&
                    faults.map(({ field, message }) => (
                      <Typography
                        key={field + message}
                        sx={{ color: colours.ochre, fontWeight: 700, fontSize: '0.88rem', lineHeight: 1.3 }}
                      >
                        {message}
                      </Typography>
                    ))}
                  {!resultId &&
                    questions.map((question) => (
                      <Typography key={question} sx={{ color: colours.slate, fontSize: '0.88rem', lineHeight: 1.3 }}>
                        <Words>{question}</Words>
                      </Typography>
                    ))}
                </TableCell>
                <TableCell sx={{ whiteSpace: 'nowrap' }}>
                  {row.depth === undefined ? '–' : present('depth', row.depth, system).text}
                </TableCell>
                {shown.map((analyte) => {
                  const value = row.values[analyte];
                  return (
                    <TableCell key={analyte} sx={{ whiteSpace: 'nowrap' }}>
                      {value ? `${amountText(analyte, value)} ${unitText(analyte, value)}` : '–'}
                    </TableCell>
                  );
                })}
              </TableRow>
            ))}
          </TableBody>
        </Table>
      </Box>
    </Box>
  );
}

function DepthForAll({
  file,
  onSet,
}: {
  readonly file: LabReportAnswer;
  readonly onSet: (depth: number | null) => void;
}) {
  const [depth, setDepth] = useState<number | string | null>(file.depth);
  const missing = file.rows.filter(({ row }) => row.depth === undefined).length;
  return (
    <QuantityField
      label="Depth, if not given"
      sense="depth"
      value={depth}
      onChange={setDepth}
      onBlur={() => typeof depth !== 'string' && depth !== file.depth && onSet(depth)}
      onKeyDown={(event) => event.key === 'Enter' && typeof depth !== 'string' && onSet(depth)}
      problem={
        typeof depth === 'string'
          ? `"${depth}" is not a depth: type 6 in or 15 cm.`
          : missing > 0 && depth === null
            ? `${missing} rows give no depth: it scales the lime`
            : undefined
      }
    />
  );
}
