import { LARGEST_LAB_FILE, type LabReportAnswer } from '@glenfold/contract';
import { Box, Button, TextField, Typography } from '@mui/material';
import { useState } from 'react';
import { useDropzone } from 'react-dropzone';
import { Link } from 'react-router';
import { DialogFrame } from '../../ui/DialogFrame.tsx';
import { base64 } from '../../ui/base64.ts';
import { Trouble } from '../../ui/bits.tsx';
import { colours } from '../../ui/theme.ts';
import { usePreviewLabFile } from './api.ts';

/** Text of a page or a mail, where there is no file. */
function PasteText({ siteId, onClose }: { readonly siteId: string; readonly onClose: () => void }) {
  const preview = usePreviewLabFile(siteId);
  const [text, setText] = useState('');
  return (
    <DialogFrame
      title="Paste the report"
      onClose={onClose}
      width="md"
      held
      onSubmit={() => preview.mutate({ fileName: 'pasted text', content: text }, { onSuccess: onClose })}
      actions={
        <>
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" variant="contained" disabled={text.trim() === '' || preview.isPending}>
            Read it
          </Button>
        </>
      }
    >
      <TextField
        multiline
        minRows={10}
        maxRows={18}
        fullWidth
        autoFocus
        label="Text of the report"
        value={text}
        onChange={(event) => setText(event.target.value)}
        helperText="A table, or names with their values one under the other: “Soil pH: 5.8”, “Phosphorus (P) 27 ppm”"
        sx={{ mt: 1, '& textarea': { fontFamily: 'monospace', fontSize: '0.9rem' } }}
      />
      <Trouble error={preview.error} />
    </DialogFrame>
  );
}

/** How reports come in: a file of any kind dropped or chosen, or the text of a page. */
export function ReportIn({ siteId, files }: { readonly siteId: string; readonly files: readonly LabReportAnswer[] }) {
  const preview = usePreviewLabFile(siteId);
  const [refusal, setRefusal] = useState<Error | null>(null);
  const [pasting, setPasting] = useState(false);
  const [again, setAgain] = useState<string | null>(null);
  const take = async (file: File): Promise<void> => {
    setRefusal(null);
    setAgain(null);
    const bytes = await base64(file);
    const known = new Set(files.map(({ id }) => id));
    preview.mutate(
      { fileName: file.name, bytes },
      {
        onSuccess: (answer) =>
          setAgain(
            known.has(answer.id)
              ? `This very file is here already, as ${answer.fileName}${answer.rows.every(({ resultId }) => resultId) ? ', and all of it is imported' : ''}. Nothing is done twice.`
              : null,
          ),
      },
    );
  };
  const { getRootProps, getInputProps, open, isDragActive } = useDropzone({
    noClick: true,
    multiple: false,
    maxSize: LARGEST_LAB_FILE,
    onDropAccepted: ([file]) => void (file && take(file).catch(setRefusal)),
    onDropRejected: ([rejection]) =>
      setRefusal(
        new Error(
          `${rejection?.file.name ?? 'The file'} cannot be taken: drop one file of at most ${LARGEST_LAB_FILE / 1e6} MB.`,
        ),
      ),
  });
  return (
    <Box
      {...getRootProps()}
      sx={{
        border: `1px dashed ${isDragActive ? colours.ink : colours.faded}`,
        background: isDragActive ? colours.slateWash : 'none',
        px: 2,
        py: 1.25,
        mb: 3,
      }}
    >
      <input {...getInputProps()} aria-label="Laboratory’s file" />
      <Box sx={{ display: 'flex', gap: 2, alignItems: 'center', flexWrap: 'wrap' }}>
        <Button variant="outlined" onClick={open} disabled={preview.isPending}>
          Choose the laboratory’s file
        </Button>
        <Button onClick={() => setPasting(true)}>Paste its text…</Button>
        <Typography sx={{ flex: '1 1 320px' }}>
          {preview.isPending
            ? 'Reading…'
            : 'or drop it here: PDF, Excel, CSV, JSON, text. You see every value before it counts.'}
        </Typography>
      </Box>
      <Typography sx={{ fontSize: '0.92rem', mt: 0.5 }}>
        <Link to="/ways" style={{ color: colours.slate }}>
          Laboratories’ ways
        </Link>{' '}
        that are known are applied by themselves.
      </Typography>
      {again && (
        <Typography role="status" sx={{ color: colours.slate, mt: 0.5 }}>
          {again}
        </Typography>
      )}
      <Trouble error={refusal ?? preview.error} />
      {pasting && <PasteText siteId={siteId} onClose={() => setPasting(false)} />}
    </Box>
  );
}
