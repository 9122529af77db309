import { corePush } from '@glenfold/agronomy';
import { type CoreTapInput, soilMoistures } from '@glenfold/contract';
import { Box, Button } from '@mui/material';
import { useState } from 'react';
import type { Entry } from '../../../offline/outbox.ts';
import type { KeptPhoto } from '../../../offline/photos.ts';
import { Trouble } from '../../../ui/bits.tsx';
import { WaitingPhotos } from '../../../ui/field/WaitingPhotos.tsx';
import { colours } from '../../../ui/theme.ts';
import { DepthStepper } from './DepthStepper.tsx';
import { NoteDialog, SkipDialog } from './WalkDialogs.tsx';
import type { OnTheWay } from './onTheWay.ts';

interface CoreFormProps {
  /** Depth that the bag wants, cm. */
  readonly wanted: number;
  readonly core: OnTheWay['core'];
  readonly moisture: string | null;
  readonly onCore: (more: Partial<Omit<OnTheWay['core'], 'photos'>>) => void;
  readonly onMoisture: (moisture: string | null) => void;
  readonly onTap: (made: Omit<CoreTapInput, 'id' | 'at' | 'coreId'>) => void;
  readonly onPhoto: (file: File) => Promise<void>;
  /** Takes back the last touch; nothing where none is. */
  readonly onUndo: (() => void) | undefined;
  readonly onTakenBack: (id: string) => void;
  /** Photos of this core that have not arrived. */
  readonly waiting: ReadonlyArray<Entry<KeptPhoto>>;
}

/** What is done at one core: how deep, how much came up, how moist, then cored or skipped. */
export function CoreForm({
  wanted,
  core: { pushed, recovered, note, photos },
  moisture,
  onCore,
  onMoisture,
  onTap,
  onPhoto,
  onUndo,
  onTakenBack,
  waiting,
}: CoreFormProps) {
  const [asking, setAsking] = useState<'skip' | 'note' | null>(null);
  const [trouble, setTrouble] = useState<Error | null>(null);
  const deep = pushed ?? wanted;
  const long = recovered ?? deep;
  const reading = corePush(wanted, deep, long);
  const photograph = (file: File | undefined): void => {
    setTrouble(null);
    if (file) onPhoto(file).catch((failure: unknown) => setTrouble(failure as Error));
  };
  return (
    <>
      <DepthStepper label="Pushed to" value={deep} onChange={(value) => onCore({ pushed: value })} />
      <DepthStepper label="Core came up" value={long} onChange={(value) => onCore({ recovered: value })} />
      {reading.finding !== 'whole' && (
        <Box sx={{ borderLeft: `3px solid ${colours.ochre}`, pl: 1, fontSize: '0.95rem' }}>{reading.words}</Box>
      )}
      <Box
        role="group"
        aria-label="Moisture by feel"
        sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 0.75 }}
      >
        {soilMoistures.map((name) => (
          <Button
            key={name}
            variant={moisture === name ? 'contained' : 'outlined'}
            aria-pressed={moisture === name}
            sx={{ minHeight: 44 }}
            onClick={() => onMoisture(moisture === name ? null : name)}
          >
            {name}
          </Button>
        ))}
      </Box>
      <Box sx={{ flex: 1 }} />
      <Button
        variant="contained"
        sx={{ minHeight: 84, fontSize: '1.6rem' }}
        onClick={() => onTap({ state: 'cored', pushed: deep, recovered: long, moisture, note: note || null })}
      >
        Cored
      </Button>
      <Trouble error={trouble} />
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(4, 1fr)', gap: 1 }}>
        <Button variant="outlined" sx={{ minHeight: 52 }} onClick={() => setAsking('skip')}>
          Skip
        </Button>
        <Button variant="outlined" sx={{ minHeight: 52 }} onClick={() => setAsking('note')}>
          {note ? 'Note ✓' : 'Note'}
        </Button>
        <Button variant="outlined" component="label" sx={{ minHeight: 52 }}>
          {photos.length > 0 ? `Photo ${photos.length}` : 'Photo'}
          <input
            type="file"
            accept="image/*"
            capture="environment"
            hidden
            aria-label="Photo of this place"
            onChange={(event) => {
              const file = event.target.files?.[0];
              event.target.value = '';
              photograph(file);
            }}
          />
        </Button>
        <Button variant="outlined" sx={{ minHeight: 52 }} disabled={!onUndo} onClick={onUndo}>
          Undo
        </Button>
      </Box>
      <WaitingPhotos photos={waiting} onTakenBack={onTakenBack} />
      <SkipDialog
        open={asking === 'skip'}
        onClose={() => setAsking(null)}
        onSkip={(reason) => {
          setAsking(null);
          onTap({ state: 'skipped', reason, note: note || null });
        }}
      />
      <NoteDialog
        open={asking === 'note'}
        note={note}
        onNote={(words) => onCore({ note: words })}
        onClose={() => setAsking(null)}
      />
    </>
  );
}
