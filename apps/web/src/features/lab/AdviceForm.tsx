import {
  type Advised,
  type AdvisedKind,
  QuantityError,
  advisedKinds,
  advisedUnitWords,
  readAdvisedRate,
} from '@glenfold/agronomy';
import { type LabResultAnswer, LabResultInput, labResultInput } from '@glenfold/contract';
import { Box, Button, MenuItem, TextField, Typography } from '@mui/material';
import { useState } from 'react';
import { FormDialog } from '../../ui/FormDialog.tsx';
import { useTyped } from '../../ui/useTyped.ts';
import { useSaveLabResult } from './api.ts';

interface Line {
  readonly what: AdvisedKind;
  /** As typed, with its unit. */
  readonly rate: string;
  readonly product: string;
  readonly target: string;
}

const lineOf = ({ what, amount, unit, product, target, words }: Advised): Line => ({
  what,
  rate: amount === null || unit === null ? (words ?? '') : `${amount} ${advisedUnitWords[unit]}`,
  product: product ?? '',
  target: target ?? '',
});

/** The line as it is kept, or what is wrong with it. */
function readLine({ what, rate, product, target }: Line): Advised | string {
  const more = { product: product.trim() || null, target: target.trim() || null };
  if (!/\d/.test(rate)) return { what, amount: null, unit: null, words: rate.trim() || null, ...more };
  try {
    return { what, ...readAdvisedRate(rate), ...more };
  } catch (error) {
    if (error instanceof QuantityError) return error.message;
    throw error;
  }
}

/** What the laboratory advises of a sample: amounts that can be laid beside ours, and its own words. */
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
  const [lines, setLines] = useState<readonly Line[]>(
    result.advised.length > 0 ? result.advised.map(lineOf) : [{ what: 'lime', rate: '', product: '', target: '' }],
  );
  const [tried, setTried] = useState(false);
  const filled = lines.filter(({ rate }) => rate.trim() !== '');
  const read = filled.map(readLine);
  const change = (index: number, more: Partial<Line>): void =>
    setLines(lines.map((line, other) => (other === index ? { ...line, ...more } : line)));
  const send = (input: LabResultInput): void =>
    saving.mutate(
      { seen: result, input, opened: labResultInput(result), onTheirs: onClose },
      { onSuccess: onClose },
    );
  const save = (): void => {
    setTried(true);
    if (read.some((line) => typeof line === 'string')) return;
    const advised = read.filter((line): line is Advised => typeof line !== 'string');
    check((input) => send({ ...input, advised: advised.map((line) => ({ ...line })) }));
  };
  const faultOf = (line: Line): string | undefined => {
    const found = tried && line.rate.trim() !== '' ? readLine(line) : undefined;
    return typeof found === 'string' ? found : undefined;
  };
  return (
    <FormDialog
      title={`The laboratory’s own advice for ${name}`}
      action="Save"
      onClose={onClose}
      onSave={save}
      saving={saving}
      wide
    >
      <Typography>As the report says it. It stands beside our rates, difference by difference.</Typography>
      {lines.map((line, index) => (
        <Box
          key={index}
          sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr 1fr', sm: '130px 1fr 1fr 110px' }, gap: 1.5 }}
        >
          <TextField
            select
            label="Of"
            value={line.what}
            onChange={(event) => change(index, { what: event.target.value as AdvisedKind })}
          >
            {advisedKinds.map((kind) => (
              <MenuItem key={kind} value={kind}>
                {kind}
              </MenuItem>
            ))}
          </TextField>
          <TextField
            label="How much"
            value={line.rate}
            onChange={(event) => change(index, { rate: event.target.value })}
            error={!!faultOf(line)}
            helperText={faultOf(line) ?? (index === 0 ? 'Such as 58 lb/1000 ft2, 1.5 ton/acre' : undefined)}
            slotProps={{ htmlInput: { 'aria-label': `How much ${line.what}` } }}
            autoFocus={index === 0}
          />
          <TextField
            label="Of which product"
            value={line.product}
            onChange={(event) => change(index, { product: event.target.value })}
          />
          <TextField
            label="Up to"
            value={line.target}
            onChange={(event) => change(index, { target: event.target.value })}
            helperText={index === 0 ? 'Its target, such as pH 6.5' : undefined}
          />
        </Box>
      ))}
      <Box>
        <Button size="small" onClick={() => setLines([...lines, { what: 'nitrogen', rate: '', product: '', target: '' }])}>
          Another line
        </Button>
      </Box>
      <TextField
        label="In its words"
        value={typed.advice ?? ''}
        onChange={(event) => set({ advice: event.target.value })}
        error={!!problem('advice')}
        helperText={problem('advice') ?? 'What else it says, such as “split in two, spring and autumn”'}
        multiline
        minRows={2}
        maxRows={10}
      />
    </FormDialog>
  );
} // prettier-ignore
