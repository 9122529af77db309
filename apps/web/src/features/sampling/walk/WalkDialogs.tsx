import { skipReasons } from '@glenfold/contract';
import { Box, Button, MenuItem, TextField } from '@mui/material';
import { DialogFrame } from '../../../ui/DialogFrame.tsx';

/** What is seen at a core often enough to be one touch. */
const seen = ['thatch over 1 cm', 'roots shallow', 'worms', 'rubble', 'smells sour', 'grey, wet below'] as const;

interface SkipDialogProps {
  readonly open: boolean;
  readonly onClose: () => void;
  readonly onSkip: (reason: string) => void;
}

/** A core is left out for a reason, or not at all. */
export function SkipDialog({ open, onClose, onSkip }: SkipDialogProps) {
  return (
    <DialogFrame title="Why is it left out?" open={open} onClose={onClose}>
      <Box sx={{ display: 'grid', gap: 1 }}>
        {skipReasons.map((reason) => (
          <Button key={reason} variant="outlined" sx={{ minHeight: 52 }} onClick={() => onSkip(reason)}>
            {reason}
          </Button>
        ))}
      </Box>
    </DialogFrame>
  );
}

interface NoteDialogProps {
  readonly open: boolean;
  readonly note: string;
  readonly onNote: (note: string) => void;
  readonly onClose: () => void;
}

/** A note on a core, written or chosen. */
export function NoteDialog({ open, note, onNote, onClose }: NoteDialogProps) {
  return (
    <DialogFrame title="Note" open={open} onClose={onClose}>
      <Box sx={{ display: 'grid', gap: 1 }}>
        <TextField
          multiline
          minRows={2}
          value={note}
          onChange={(event) => onNote(event.target.value)}
          slotProps={{ htmlInput: { 'aria-label': 'Note', maxLength: 400 } }}
        />
        <TextField
          select
          label="Or choose"
          value=""
          onChange={(event) => onNote([note, event.target.value].filter(Boolean).join(', ').slice(0, 400))}
        >
          {seen.map((words) => (
            <MenuItem key={words} value={words}>
              {words}
            </MenuItem>
          ))}
        </TextField>
        <Button variant="contained" sx={{ minHeight: 52 }} onClick={onClose}>
          Keep
        </Button>
      </Box>
    </DialogFrame>
  );
}
