import {
  type Analyte,
  type ReportedValue,
  QuantityError,
  advisedUnitWords,
  analytes,
  inOwnUnit,
  present,
  readTypedValue,
  reportedAs,
  sheetOrder,
  unitWord,
  writeBagCode,
} from '@glenfold/agronomy';
import { type LabReportAnswer, type LabReportRowAnswer, type ZoneAnswer, withReadableDays } from '@glenfold/contract';
import { Box, Button, MenuItem, TextField, Typography } from '@mui/material';
import { useId, useState } from 'react';
import { colours } from '../../../ui/theme.ts';
import { Words } from '../../../ui/Words.tsx';
import { useUnits } from '../../../ui/units.tsx';
import { Opens } from '../../../ui/working.tsx';
import { amountText, fieldName, headName, unitText } from '../fieldNames.ts';
import type { Choices } from './useChoices.ts';

interface RowProps {
  readonly row: LabReportRowAnswer;
  readonly file: LabReportAnswer;
  readonly zones: readonly ZoneAnswer[];
  readonly choices: Choices;
}

/** A value as it comes to, opening to its working. */
function ComesTo({ analyte, value }: { readonly analyte: Analyte; readonly value: ReportedValue }) {
  const { value: own, working } = inOwnUnit(analyte, value);
  const unit = unitWord(analytes[analyte].units[0]!);
  const told =
    value.rated ??
    `${value.belowDetection ? '<' : value.aboveRange ? '>' : ''}${Number(own.toPrecision(3))} ${unit}`.trim();
  return <Opens title={fieldName(analyte)} told={told} working={working} />;
}

/** A cell put right by hand; what cannot be read stays with its reason. */
function Corrected({
  analyte,
  value,
  label,
  onSet,
}: {
  readonly analyte: Analyte;
  readonly value: ReportedValue | undefined;
  readonly label: string;
  readonly onSet: (value: ReportedValue) => void;
}) {
  const [typed, setTyped] = useState(value ? amountText(analyte, value) : '');
  const [fault, setFault] = useState<string | null>(null);
  const set = (): void => {
    if (typed.trim() === '' || (value && typed === amountText(analyte, value))) return;
    try {
      const column = value ?? reportedAs(analyte)[0]!;
      onSet(readTypedValue(typed, analyte, { unit: column.unit, basis: column.basis, method: value?.method }));
      setFault(null);
    } catch (error) {
      if (!(error instanceof QuantityError)) throw error;
      setFault(error.message);
    }
  };
  return (
    <TextField
      variant="standard"
      value={typed}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={set}
      onKeyDown={(event) => event.key === 'Enter' && set()}
      error={fault !== null}
      helperText={fault}
      slotProps={{ htmlInput: { 'aria-label': `${fieldName(analyte)} of ${label}, corrected` } }}
      sx={{ width: 120 }}
    />
  );
}

const cellSx = { borderTop: `1px solid ${colours.line}`, py: 0.5, pr: 2, verticalAlign: 'top', textAlign: 'left' };

/** Every value of a sample: as printed, as understood, what it comes to, the last comparable one, and what is doubted. */
function Values({ row: { row, cells, last, doubts, corrected, line }, file, choices, correcting }: RowProps & { readonly correcting: boolean }) {
  const { say } = useUnits();
  const printedOf = (analyte: Analyte): string => {
    const at = file.columns.findIndex(({ field }) => field === analyte);
    return at < 0 ? '' : (cells[at] ?? '').trim();
  };
  const shown = sheetOrder.filter((analyte) => row.values[analyte] || (correcting && printedOf(analyte) !== ''));
  const set = (analyte: Analyte, value: ReportedValue): void =>
    choices.decide([line], (before) => ({ ...before, values: { ...before.values, [analyte]: value } }));
  return (
    <Box sx={{ overflowX: 'auto' }}>
      <Box component="table" sx={{ borderCollapse: 'collapse', width: '100%', fontSize: '0.95rem', '& td, & th': cellSx }}>
        <thead>
          <tr>
            {['', 'As printed', 'Understood as', 'Comes to', 'Last test', ''].map((head, index) => (
              <Box component="th" key={index} sx={{ color: colours.faded, fontWeight: 400, borderTop: '0 !important' }}>
                {head}
              </Box>
            ))}
          </tr>
        </thead>
        <tbody>
          {shown.map((analyte) => {
            const value = row.values[analyte];
            const before = last[analyte];
            const own = doubts.filter((doubt) => doubt.analyte === analyte);
            return (
              <Box component="tr" key={analyte} sx={own.length > 0 ? { background: colours.ochreWash } : {}}>
                <Box component="th" scope="row" sx={{ fontWeight: 700, whiteSpace: 'nowrap' }}>
                  <Words>{fieldName(analyte)}</Words>
                </Box>
                <Box component="td" sx={{ whiteSpace: 'nowrap' }}>
                  {correcting ? (
                    <Corrected analyte={analyte} value={value} label={row.label} onSet={(to) => set(analyte, to)} />
                  ) : (
                    printedOf(analyte) || '–'
                  )}
                  {corrected.includes(analyte) && !correcting && (
                    <Box sx={{ color: colours.slate, fontSize: '0.85rem' }}>corrected</Box>
                  )}
                </Box>
                <Box component="td" sx={{ whiteSpace: 'nowrap' }}>
                  {value ? <Words>{`${amountText(analyte, value)} ${unitText(analyte, value)}`.trim()}</Words> : '–'}
                </Box>
                <Box component="td" sx={{ whiteSpace: 'nowrap' }}>
                  {value ? <ComesTo analyte={analyte} value={value} /> : '–'}
                </Box>
                <td>
                  {before ? (
                    <>
                      <Words>{`${amountText(analyte, before.value)} ${unitText(analyte, before.value)}`.trim()}</Words>
                      <Box sx={{ color: colours.faded, fontSize: '0.85rem' }}>
                        {before.on ?? 'no date'}
                        {before.apart ? `, not comparable: ${before.apart}` : ''}
                      </Box>
                    </>
                  ) : (
                    '–'
                  )}
                </td>
                <Box component="td" sx={{ color: colours.ochre, fontWeight: 700, fontSize: '0.9rem', maxWidth: 330 }}>
                  {own.map(({ words }) => (
                    <Box key={words}>
                      <Words>{words}</Words>
                    </Box>
                  ))}
                </Box>
              </Box>
            );
          })}
          {(row.advised ?? []).map((advised, index) => (
            <tr key={index}>
              <Box component="th" scope="row" sx={{ fontWeight: 700 }}>
                Its advice: {advised.what}
              </Box>
              <td colSpan={5}>
                {advised.amount === null || advised.unit === null
                  ? advised.words
                  : `${advised.amount} ${advisedUnitWords[advised.unit]}`}
              </td>
            </tr>
          ))}
          {row.depth !== undefined && (
            <tr>
              <Box component="th" scope="row" sx={{ fontWeight: 700 }}>
                Depth
              </Box>
              <td colSpan={5}>{say('depth', row.depth)}</td>
            </tr>
          )}
        </tbody>
      </Box>
    </Box>
  );
} // prettier-ignore

/** The sample at a glance, where nothing of it is doubted. */
function Glance({ row }: Pick<LabReportRowAnswer, 'row'>) {
  const { system } = useUnits();
  const told = sheetOrder.flatMap((analyte) => {
    const value = row.values[analyte];
    return value ? [`${headName(analyte)} ${amountText(analyte, value)}`] : [];
  });
  const depth = row.depth === undefined ? [] : [`${present('depth', row.depth, system).text} deep`];
  return <Words>{[...told.slice(0, 8), ...(told.length > 8 ? [`${told.length - 8} more`] : []), ...depth].join(', ')}</Words>;
} // prettier-ignore

/** One sample of a file, to be accepted, corrected or held. */
export function ReviewRow(props: RowProps) {
  const { row: answer, file, zones, choices } = props;
  const { line, row, zoneId, bagId, faults, questions, doubts, state, resultId } = answer;
  const grave = doubts.filter((doubt) => doubt.grave);
  const [open, setOpen] = useState(resultId === null && grave.length > 0 && state === null);
  const [correcting, setCorrecting] = useState(false);
  const titleId = useId();
  const namesOf = (ids: readonly string[]): string =>
    ids.map((id) => zones.find((zone) => zone.id === id)?.name ?? 'a deleted zone').join(', ');
  const decide = (to: typeof state): void => choices.decide([line], (before) => ({ ...before, state: to }));
  const waits = resultId === null && state !== 'held' && grave.length > 0 && state !== 'accepted';
  return (
    <Box
      component="section"
      aria-labelledby={titleId}
      sx={{
        borderTop: `1px solid ${colours.faded}`,
        borderLeft: `4px solid ${waits || faults.length > 0 ? colours.ochre : resultId ? colours.lichen : state === 'held' ? colours.slate : 'transparent'}`,
        pl: 1.5,
        py: 1,
        opacity: state === 'held' ? 0.75 : 1,
      }}
    >
      <Box sx={{ display: 'flex', gap: 2, alignItems: 'baseline', flexWrap: 'wrap' }}>
        <Typography id={titleId} component="h4" sx={{ fontWeight: 700, minWidth: 92 }}>
          {row.label || `Line ${line}`}
        </Typography>
        {resultId ? (
          <Typography>{`${namesOf(zoneId ? [zoneId] : (file.bags.find(({ id }) => id === bagId)?.zoneIds ?? []))}, imported`}</Typography>
        ) : (
          <TextField
            select
            variant="standard"
            value={bagId ? `bag ${bagId}` : zoneId ? `zone ${zoneId}` : ''}
            onChange={(event) => choices.place(line, event.target.value)}
            slotProps={{ select: { displayEmpty: true }, htmlInput: { 'aria-label': `Zone of line ${line}` } }}
            sx={{ minWidth: 190 }}
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
        <Box sx={{ flex: '1 1 260px', color: colours.faded, fontSize: '0.92rem' }}>
          {open ? `line ${line}${row.sampledOn ? `, sampled ${withReadableDays(row.sampledOn)}` : ''}` : <Glance row={row} />}
        </Box>
        <Box sx={{ display: 'flex', gap: 0.5 }}>
          <Button size="small" onClick={() => setOpen(!open)} aria-expanded={open} aria-label={`Values of ${row.label}`}>
            {open ? 'Fold' : 'Values'}
          </Button>
          {!resultId && (
            <>
              {grave.length > 0 && state !== 'accepted' && (
                <Button size="small" variant="outlined" onClick={() => decide('accepted')} aria-label={`Accept ${row.label}`}>
                  Accept
                </Button>
              )}
              <Button
                size="small"
                onClick={() => {
                  setOpen(true);
                  setCorrecting(!correcting);
                }}
                aria-label={`Correct ${row.label}`}
              >
                {correcting ? 'Done' : 'Correct'}
              </Button>
              <Button
                size="small"
                onClick={() => decide(state === 'held' ? null : 'held')}
                aria-label={`${state === 'held' ? 'Take up' : 'Hold'} ${row.label}`}
              >
                {state === 'held' ? 'Take up' : 'Hold'}
              </Button>
            </>
          )}
        </Box>
      </Box>
      {!resultId && (
        <Box sx={{ fontSize: '0.92rem', lineHeight: 1.35 }}>
          {state === 'held' && <Box>Held: it stays here and is not imported.</Box>}
          {state === 'accepted' && grave.length > 0 && <Box sx={{ color: colours.slate }}>Accepted with its doubts.</Box>}
          {faults.map(({ field, message }) => (
            <Box key={field + message} sx={{ color: colours.ochre, fontWeight: 700 }}>
              <Words>{message}</Words>
            </Box>
          ))}
          {doubts
            .filter(({ analyte }) => !open || analyte === null || !row.values[analyte])
            .map(({ words }) => (
              <Box key={words} sx={{ color: colours.ochre }}>
                <Words>{words}</Words>
              </Box>
            ))}
          {questions.map((question) => (
            <Box key={question} sx={{ color: colours.slate }}>
              <Words>{question}</Words>
            </Box>
          ))}
        </Box>
      )}
      {open && <Values {...props} correcting={correcting} />}
    </Box>
  );
} // prettier-ignore
