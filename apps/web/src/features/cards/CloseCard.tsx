import type { TakenPhoto } from '../../ui/field/TakePhoto.tsx';
import { type Day, type EntryKind, senseOfPack } from '@glenfold/agronomy';
import type { CardAnswer, EntryInput } from '@glenfold/contract';
import { Box, Button, TextField, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material';
import { useState } from 'react';
import { DialogFrame } from '../../ui/DialogFrame.tsx';
import { TakePhoto } from '../../ui/field/TakePhoto.tsx';
import { QuantityField } from '../../ui/QuantityField.tsx';
import { colours } from '../../ui/theme.ts';
import { useUnits } from '../../ui/units.tsx';
import { Trouble } from '../../ui/bits.tsx';
import type { CardDraft } from './cardDraft.ts';

const likeOf = { kg: 'like 20 lb or 9 kg', L: 'like 2 gal or 8 L', m3: 'like 2 yd³ or 1.5 m³' } as const;

interface CloseCardProps {
  readonly card: CardAnswer;
  readonly day: Day;
  readonly today: string;
  /** Who works with this device. */
  readonly by: string;
  /** What was typed before, on this device. */
  readonly draft: CardDraft;
  readonly photos: readonly TakenPhoto[];
  readonly onDraft: (more: CardDraft) => void;
  readonly onPhoto: (photo: TakenPhoto) => void;
  readonly onClose: () => void;
  readonly onWrite: (entry: EntryInput, photos: readonly TakenPhoto[]) => Promise<void>;
}

const states = ['done', 'partly done', 'not done'] as const;

/** What became of a job: done with what was really used, done in part, or not done and why. */
export function CloseCard({ card, day, today, by, draft, photos, onDraft, onPhoto, onClose, onWrite }: CloseCardProps) {
  const { say } = useUnits();
  const { job, unit, quantity, area, mixed = [] } = card;
  const { state = 'done', done = null, reason = '', on = today, parts = {} } = draft;
  const used = draft.used === undefined ? quantity : draft.used;
  const doneBy = draft.doneBy ?? job.person ?? by;
  // What else is in the mix goes in the shares of the card, until somebody says otherwise.
  const partUsed = ({ name, quantity: whole }: (typeof mixed)[number]): number | string | null =>
    name in parts ? parts[name]! : typeof used === 'number' && quantity ? (whole * used) / quantity : whole;
  const [error, setError] = useState<Error | null>(null);
  const [busy, setBusy] = useState(false);
  const partly = state === 'partly done';
  const fault =
    state === 'not done' && reason.trim() === ''
      ? 'Say why it was not done.'
      : partly && typeof done !== 'number'
        ? 'Say how much of the zone was done.'
        : partly && typeof done === 'number' && done >= area
          ? `The zone has ${say('area', area)}: if all of it is done, choose “done”.`
          : state !== 'not done' && unit !== null && typeof used !== 'number'
            ? typeof used === 'string'
              ? `“${used}” is no amount: write it ${likeOf[unit]}, or 0.`
              : 'Say what was used, or 0.'
            : state !== 'not done' && mixed.some((part) => typeof partUsed(part) !== 'number')
              ? 'Say how much of each thing in the mix was used, or 0.'
              : on > today
                ? 'That day has not come yet.'
                : null;
  const write = async (): Promise<void> => {
    if (fault) {
      setError(new Error(fault));
      return;
    }
    setBusy(true);
    try {
      await onWrite(
        {
          ...{
            id: crypto.randomUUID(),
            zoneId: job.zoneId,
            jobId: job.id,
            on,
            kind: card.entryKind as EntryKind,
            state,
          },
          ...{ productId: card.productId, doneBy: doneBy.trim() || null, reason: reason.trim() || null },
          ...{ words: card.productId ? null : job.name, day },
          quantity: state === 'not done' || unit === null ? null : (used as number),
          mixed:
            state === 'not done'
              ? null
              : mixed.flatMap((part) =>
                  part.productId === null ? [] : [{ productId: part.productId, quantity: partUsed(part) as number }],
                ),
          // Of a card for the rest, the whole of the rest was done.
          area: partly ? (done as number) : job.state === 'partly done' ? area : null,
        },
        photos,
      );
      onClose();
    } catch (problem) {
      setError(problem as Error);
    } finally {
      setBusy(false);
    }
  };
  return (
    <DialogFrame title="What became of it" onClose={onClose} width="xs">
      <Box sx={{ display: 'grid', gap: 1.75, pt: 0.5 }}>
        <ToggleButtonGroup
          exclusive
          fullWidth
          value={state}
          onChange={(_event, value: (typeof states)[number] | null) => value && onDraft({ state: value })}
          aria-label="How far"
        >
          {states.map((one) => (
            <ToggleButton key={one} value={one} sx={{ minHeight: 48 }}>
              {one}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
        {partly && (
          <QuantityField
            label={`Done, of ${say('area', area)}`}
            sense="area"
            value={done}
            onChange={(value) => onDraft({ done: value })}
          />
        )}
        {state !== 'not done' && unit !== null && (
          <QuantityField
            label={mixed.length > 0 && job.product ? `${job.product}, really used` : 'Really used'}
            sense={senseOfPack[unit]}
            density={card.density}
            value={used}
            onChange={(value) => onDraft({ used: value })}
          />
        )}
        {state !== 'not done' &&
          mixed.map((part) => (
            <QuantityField
              key={part.name}
              label={`${part.name}, really used`}
              sense={senseOfPack[part.unit]}
              density={part.density}
              value={partUsed(part)}
              onChange={(value) => onDraft({ parts: { ...parts, [part.name]: value } })}
            />
          ))}
        {(state !== 'done' || reason !== '') && (
          <TextField
            label={state === 'not done' ? 'Why not' : 'Why not all'}
            value={reason}
            onChange={(event) => onDraft({ reason: event.target.value })}
          />
        )}
        <Box sx={{ display: 'grid', gap: 1.75 }}>
          <TextField label="By" value={doneBy} onChange={(event) => onDraft({ doneBy: event.target.value })} />
          <TextField
            type="date"
            label="On"
            value={on}
            onChange={(event) => onDraft({ on: event.target.value })}
            slotProps={{ inputLabel: { shrink: true } }}
          />
        </Box>
        <Box sx={{ display: 'flex', alignItems: 'center', gap: 1.5 }}>
          <TakePhoto label="Photo of what was done" onPhoto={onPhoto}>
            Add a photo
          </TakePhoto>
          <Typography sx={{ color: colours.faded }}>
            {photos.length === 0 ? 'none yet' : `${photos.length} ${photos.length === 1 ? 'photo' : 'photos'}`}
          </Typography>
        </Box>
        <Trouble error={error} />
        <Button variant="contained" size="large" disabled={busy} onClick={() => void write()} sx={{ minHeight: 56 }}>
          Write it down
        </Button>
      </Box>
    </DialogFrame>
  );
}
