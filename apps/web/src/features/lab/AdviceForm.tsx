import { type LabResultAnswer, LabResultInput, labResultInput } from '@glenfold/contract';
import { TextField, Typography } from '@mui/material';
import { useState } from 'react';

import { FormDialog } from '../../ui/FormDialog.tsx';
import { useTyped } from '../../ui/useTyped.ts';
import { useSaveLabResult } from './api.ts';

/** What the laboratory advises of a sample, in its own words. */
export function AdviceForm({
  result: opened,
  name,
  onClose,
}: {
  readonly result: LabResultAnswer;
  readonly name: string;
  readonly onClose: () => void;
}) {
  const [result] = useState(opened);
  const saving = useSaveLabResult();
  const { typed, set, problem, check } = useTyped(LabResultInput, labResultInput(result), saving.error);
  const send = (input: LabResultInput): void =>
    saving.mutate({ seen: result, input, opened: labResultInput(result), onTheirs: onClose }, { onSuccess: onClose });
  return (
    <>
      <FormDialog
        title={`The laboratory’s own advice for ${name}`}
        action="Save"
        onClose={onClose}
        onSave={() => check(send)}
        saving={saving}
      >
        <Typography>
          As the report says it, with its units. It stands beside our reading and rates; nothing is reckoned from it.
        </Typography>
        <TextField
          label="In its words"
          value={typed.advice ?? ''}
          onChange={(event) => set({ advice: event.target.value })}
          error={!!problem('advice')}
          helperText={problem('advice') ?? 'Such as “58 lb lime per 1000 sq ft; nitrogen 3 lb”'}
          multiline
          minRows={3}
          maxRows={10}
          autoFocus
        />
      </FormDialog>
    </>
  );
}
