import { senseOfPack } from '@glenfold/agronomy';
import { type EntryAnswer, withReadableDays } from '@glenfold/contract';
import { Box, Button, TextField, Typography } from '@mui/material';
import { useState } from 'react';
import { senseOfRate } from '../../ui/entryFields.ts';
import { FormDialog } from '../../ui/FormDialog.tsx';
import { useMay, useSession } from '../../ui/session.tsx';
import { colours } from '../../ui/theme.ts';
import { dayOf, deviceToday } from '../../ui/today.ts';
import { useUnits } from '../../ui/units.tsx';
import { Words } from '../../ui/Words.tsx';
import { useWriteEntry } from './api.ts';

/** An entry is never struck out: another that withdraws it stands in its place. */
function Withdraw({ entry, onClose }: { readonly entry: EntryAnswer; readonly onClose: () => void }) {
  const write = useWriteEntry();
  const [reason, setReason] = useState('');
  const [id] = useState(() => crypto.randomUUID());
  return (
    <FormDialog
      title={`Withdraw: ${entry.words}, ${entry.on}`}
      action="Withdraw it"
      small
      byField={false}
      onClose={onClose}
      saving={write}
      onSave={() =>
        write.mutate(
          {
            ...{ id, zoneId: entry.zoneId, on: entry.on, kind: entry.kind, state: 'withdrawn', words: entry.words },
            ...{ jobId: entry.jobId, correctsId: entry.id, reason },
          },
          { onSuccess: onClose },
        )
      }
    >
      <Typography>
        It stays in the book, is not counted any more, and what it took from the store comes back.
      </Typography>
      <TextField label="Why" value={reason} onChange={(event) => setReason(event.target.value)} />
    </FormDialog>
  );
}

interface EntryListProps {
  readonly entries: readonly EntryAnswer[];
  readonly onMend: (entry: EntryAnswer) => void;
  /** Names the zone of each. */
  readonly zones?: boolean;
}

/** What was written, the newest first; what was mended stands struck through. */
export function EntryList({ entries, onMend, zones = false }: EntryListProps) {
  const { say } = useUnits();
  const may = useMay();
  const { person } = useSession();
  // Who works in the field mends what they wrote themselves on the day, and withdraws nothing.
  const office = may('work.write');
  const isOwnOfToday = ({ writtenBy, recordedAt }: EntryAnswer): boolean =>
    may('field.write') && writtenBy === person?.name && dayOf(new Date(recordedAt)) === deviceToday();
  const [withdrawing, setWithdrawing] = useState<EntryAnswer | null>(null);
  const sorted = [...entries].sort(
    (one, other) => other.on.localeCompare(one.on) || other.recordedAt.localeCompare(one.recordedAt),
  );
  return (
    <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
      {sorted.map((entry) => {
        const {
          id,
          on,
          zone,
          words,
          state,
          quantity,
          quantityUnit,
          rate,
          unit,
          mixed,
          area,
          doneBy,
          writtenBy,
          reason,
        } = entry;
        const amount = [
          quantity !== null && quantityUnit ? say(senseOfPack[quantityUnit], quantity) : '',
          rate !== null && unit ? say(senseOfRate[unit], rate) : '',
          ...mixed.map((part) =>
            part.quantity !== null && part.quantityUnit
              ? `with ${say(senseOfPack[part.quantityUnit], part.quantity)} of ${part.words}`
              : `with ${part.words}`,
          ),
          area === null ? '' : `on ${say('area', area)}`,
        ].filter(Boolean);
        return (
          <Box
            component="li"
            key={id}
            sx={{
              display: 'grid',
              gridTemplateColumns: { xs: '1fr auto', sm: '116px minmax(0, 1fr) auto' },
              gap: { xs: 0.5, sm: 2 },
              borderTop: `1px solid ${colours.line}`,
              py: 0.9,
            }}
          >
            <Box sx={{ fontWeight: 700, gridColumn: { xs: '1 / -1', sm: 'auto' }, whiteSpace: 'nowrap' }}>
              {withReadableDays(on)}
            </Box>
            <Box sx={{ minWidth: 0 }}>
              <Box
                sx={{
                  textDecoration: entry.stands ? 'none' : 'line-through',
                  color: entry.stands ? colours.ink : colours.faded,
                }}
              >
                <strong>{words}</strong>
                {zones ? `, ${zone}` : ''}
                {state === 'done' ? '' : `: ${state}`}
                {amount.length > 0 ? `; ${amount.join(', ')}` : state === 'done' ? '; no amount that counts' : ''}
              </Box>
              <Box sx={{ color: colours.faded, fontSize: '0.92rem' }}>
                {[doneBy ? `by ${doneBy}` : writtenBy ? `written by ${writtenBy}` : 'of before the logbook', reason]
                  .filter(Boolean)
                  .join('; ')}
              </Box>
              {entry.notes.map((note) => (
                <Box key={note} sx={{ color: colours.ochre, fontSize: '0.92rem' }}>
                  <Words>{note}</Words>
                </Box>
              ))}
              {entry.photos.length > 0 && (
                <Box sx={{ display: 'flex', gap: 1, mt: 0.5 }}>
                  {entry.photos.map((photo) => (
                    <a key={photo.id} href={photo.url} target="_blank" rel="noreferrer">
                      <Box
                        component="img"
                        src={photo.url}
                        alt={photo.caption ?? `Photo of ${words}`}
                        sx={{ height: 56, border: `1px solid ${colours.line}` }}
                      />
                    </a>
                  ))}
                </Box>
              )}
            </Box>
            {entry.stands && (office || isOwnOfToday(entry)) && (
              <Box sx={{ display: 'flex', gap: 0.5, alignItems: 'start' }}>
                <Button size="small" onClick={() => onMend(entry)} aria-label={`Mend ${words}, ${on}, ${zone}`}>
                  Mend
                </Button>
                {office && (
                  <Button
                    size="small"
                    onClick={() => setWithdrawing(entry)}
                    aria-label={`Withdraw ${words}, ${on}, ${zone}`}
                  >
                    Withdraw
                  </Button>
                )}
              </Box>
            )}
          </Box>
        );
      })}
      {withdrawing && <Withdraw entry={withdrawing} onClose={() => setWithdrawing(null)} />}
    </Box>
  );
}
