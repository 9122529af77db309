import { type DateOrder, dateOrders } from '@glenfold/agronomy';
import type { LabReportAnswer, ZoneAnswer } from '@glenfold/contract';
import { Box, Button, MenuItem, TextField, Typography } from '@mui/material';
import { useState } from 'react';
import { FormDialog } from '../../../ui/FormDialog.tsx';
import { QuantityField } from '../../../ui/QuantityField.tsx';
import { Trouble } from '../../../ui/bits.tsx';
import { colours } from '../../../ui/theme.ts';
import { useUndo } from '../../../ui/undo.tsx';
import { useConfirmLabFile, useLearnLabFile } from '../api.ts';
import { BufferMethodField, ExtractantField, LimeFactorField } from '../MethodFields.tsx';
import { ReviewColumns } from './ReviewColumns.tsx';
import { ReviewRow } from './ReviewRow.tsx';
import { useChoices } from './useChoices.ts';

interface ReviewProps {
  readonly file: LabReportAnswer;
  readonly zones: readonly ZoneAnswer[];
  /** So many are being imported, the first of them of this zone. */
  readonly onImport?: (count: number, zoneId: string | null) => void;
}

/** Whose way the columns are: known and applied, or to be kept for the next file. */
function Way({ file }: Pick<ReviewProps, 'file'>) {
  const [asking, setAsking] = useState(false);
  const [name, setName] = useState(file.profile?.name ?? '');
  const learn = useLearnLabFile();
  const { profile } = file;
  return (
    <Box sx={{ display: 'flex', gap: 2, alignItems: 'baseline', flexWrap: 'wrap', mb: 1 }}>
      <Typography sx={{ flex: '1 1 320px' }}>
        {profile === null
          ? 'The columns were recognised by their names. Put right what is wrong, and keep this as the laboratory’s way: its next file is read so.'
          : [
              `Read as ${profile.name} arranges its files.`,
              profile.fresh.length > 0 ? `New here: ${profile.fresh.join(', ')}.` : 'Nothing in it is new.',
              profile.missing.length > 0 ? `Missing: ${profile.missing.join(', ')}.` : '',
            ].join(' ')}
      </Typography>
      <Button size="small" variant="outlined" onClick={() => setAsking(true)}>
        {profile === null ? 'Keep this way…' : 'Keep it as it is now…'}
      </Button>
      {asking && (
        <FormDialog
          title="Keep how this file is read"
          action="Keep it"
          small
          onClose={() => setAsking(false)}
          onSave={() => learn.mutate({ id: file.id, name }, { onSuccess: () => setAsking(false) })}
          saving={learn}
          byField={false}
        >
          <Typography>
            Columns, units, methods, depth and the order of dates are kept, with this file to test them by. You find and
            change it under Settings, Laboratories’ ways.
          </Typography>
          <TextField label="Laboratory" value={name} onChange={(event) => setName(event.target.value)} autoFocus />
        </FormDialog>
      )}
    </Box>
  );
}

/** Shows what of a laboratory's file goes where, before any of it is imported. */
export function LabFileReview({ file, zones, onImport }: ReviewProps) {
  const choices = useChoices(file);
  const confirm = useConfirmLabFile();
  const { remove } = useUndo();
  const open = file.rows.filter(({ resultId }) => resultId === null);
  const doubted = open.filter(({ state, doubts }) => state === null && doubts.some(({ grave }) => grave));
  const held = open.filter(({ state }) => state === 'held');
  const ready = open.filter(
    (one) =>
      one.faults.length === 0 && (one.zoneId ?? one.bagId) !== null && !doubted.includes(one) && !held.includes(one),
  );
  const needsDepth = file.rows.some(({ row }) => row.depth === undefined) || file.depth !== null;
  const hasBuffer = file.columns.some(({ field }) => field === 'bufferPh');
  const hasDates = file.columns.some(({ field }) => field === 'sampledOn');
  const standing = [
    `${file.rows.length} ${file.rows.length === 1 ? 'sample' : 'samples'}`,
    ready.length > 0 ? `${ready.length} ready` : '',
    doubted.length > 0 ? `${doubted.length} to be looked at` : '',
    held.length > 0 ? `${held.length} held` : '',
    file.rows.length > open.length ? `${file.rows.length - open.length} imported` : '',
  ].filter(Boolean);
  return (
    <Box component="section" aria-label={`File ${file.fileName}`} sx={{ border: `1px solid ${colours.ink}`, p: 2, mb: 3 }}>
      <Box sx={{ display: 'flex', justifyContent: 'space-between', gap: 2, flexWrap: 'wrap', alignItems: 'start' }}>
        <Box>
          <Typography variant="h2">{file.fileName}</Typography>
          <Typography sx={{ color: colours.faded }}>
            {standing.join(', ')}
            {file.readAs ? `; ${file.readAs}` : ''}.{' '}
            {file.status === 'open' ? 'Nothing is imported yet.' : 'What is not imported is kept here with its reason.'}{' '}
            {file.original && (
              <a href={file.original} download style={{ color: colours.slate }}>
                The file as it came
              </a>
            )}
          </Typography>
        </Box>
        <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
          <Button variant="outlined" onClick={() => remove(`/lab-reports/${file.id}`, file.fileName)}>
            Set aside
          </Button>
          {doubted.length > 1 && (
            <Button
              variant="outlined"
              onClick={() => choices.decide(doubted.map(({ line }) => line), (before) => ({ ...before, state: 'accepted' }))}
            >
              Accept all {doubted.length}
            </Button>
          )}
          <Button
            variant="contained"
            disabled={ready.length === 0 || confirm.isPending || choices.correct.isPending}
            onClick={() => {
              onImport?.(ready.length, ready.find(({ zoneId }) => zoneId !== null)?.zoneId ?? null);
              confirm.mutate(file.id);
            }}
          >
            {ready.length === 0
              ? 'No row is ready'
              : `Import ${ready.length} ${ready.length === 1 ? 'result' : 'results'}`}
          </Button>
        </Box>
      </Box>
      <Trouble error={choices.correct.error ?? confirm.error} />

      <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', sm: 'repeat(4, minmax(0, 210px))' }, gap: 2, my: 2 }}>
        <ExtractantField value={file.extractant} onChange={(extractant) => choices.send({ extractant })} />
        {hasBuffer && (
          <BufferMethodField value={file.bufferMethod} onChange={(bufferMethod) => choices.send({ bufferMethod })} />
        )}
        {hasBuffer && file.bufferMethod === 'adams-evans' && (
          <LimeFactorField value={file.limeFactor} onChange={(limeFactor) => choices.send({ limeFactor })} />
        )}
        {needsDepth && <DepthForAll file={file} onSet={(depth) => choices.send({ depth })} />}
        {hasDates && (
          <TextField
            select
            label="Dates like 03/04/2026"
            value={file.dateOrder ?? ''}
            onChange={(event) => choices.send({ dateOrder: event.target.value as DateOrder })}
          >
            {dateOrders.map((order) => (
              <MenuItem key={order} value={order}>
                {order}
              </MenuItem>
            ))}
          </TextField>
        )}
      </Box>

      <Typography variant="h3" gutterBottom>
        Columns
      </Typography>
      <Way file={file} />
      <ReviewColumns file={file} choices={choices} />

      <Typography variant="h3" sx={{ mb: 1 }}>
        Samples
      </Typography>
      {file.rows.map((row) => (
        <ReviewRow key={row.line} row={row} file={file} zones={zones} choices={choices} />
      ))}
    </Box>
  );
} // prettier-ignore

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
