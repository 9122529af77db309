import { Box, Button, TextField } from '@mui/material';
import { memo } from 'react';
import { BufferMethodField, ExtractantField, LimeFactorField } from '../MethodFields.tsx';
import type { SheetHead } from './sheet.ts';

/** What all samples of a typed report have in common; drawn again only where it changes, and not with every letter. */
export const SheetHeadFields = memo(function SheetHeadFields({
  head,
  onHead,
  depthProblem,
  dateProblem,
  coresProblem,
}: {
  readonly head: SheetHead;
  readonly onHead: (head: SheetHead) => void;
  readonly depthProblem: string | undefined;
  readonly dateProblem: string | undefined;
  readonly coresProblem: string | undefined;
}) {
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: '1fr 1fr', lg: 'repeat(5, minmax(0, 190px))' },
        gap: 2,
        mb: 2,
        mt: 1,
      }}
    >
      <ExtractantField value={head.extractant} onChange={(extractant) => onHead({ ...head, extractant })} />
      <BufferMethodField value={head.bufferMethod} onChange={(bufferMethod) => onHead({ ...head, bufferMethod })} />
      {head.bufferMethod === 'adams-evans' && (
        <LimeFactorField value={head.limeFactor ?? null} onChange={(limeFactor) => onHead({ ...head, limeFactor })} />
      )}
      <TextField
        label="Sampled depth"
        value={head.depth}
        onChange={(event) => onHead({ ...head, depth: event.target.value })}
        error={!!depthProblem}
        helperText={depthProblem ?? 'As on the report: it scales the lime'}
        placeholder={head.depthUnit === 'in' ? '6' : '15'}
        slotProps={{
          input: {
            endAdornment: (
              <Button
                size="small"
                sx={{ minWidth: 28, px: 0.5, minHeight: 24 }}
                aria-label={`Depth in ${head.depthUnit}: change`}
                onClick={() => onHead({ ...head, depthUnit: head.depthUnit === 'in' ? 'cm' : 'in' })}
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
        onChange={(event) => onHead({ ...head, sampledOn: event.target.value })}
        error={!!dateProblem}
        helperText={dateProblem ?? 'Empty when not known'}
        slotProps={{ inputLabel: { shrink: true } }}
      />
      <TextField
        label="Cores in each bag"
        value={head.cores ?? ''}
        onChange={(event) => onHead({ ...head, cores: event.target.value })}
        error={!!coresProblem}
        helperText={coresProblem ?? 'The more, the surer; empty when not known'}
        placeholder="15"
        slotProps={{ htmlInput: { inputMode: 'numeric' } }}
      />
    </Box>
  );
});
