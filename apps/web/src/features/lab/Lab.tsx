import type { LabResultAnswer } from '@glenfold/contract';
import { Box, Button, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useDropzone } from 'react-dropzone';

import type { StepProps } from '../../ui/stepProps.ts';
import { stepPath } from '../../ui/steps.ts';
import { colours } from '../../ui/theme.ts';
import { Empty, Trouble } from '../../ui/bits.tsx';
import { useMay } from '../../ui/session.tsx';
import { LabFileReview } from './LabFileReview.tsx';
import { LabRecord } from './LabRecord.tsx';
import { LabSheet } from './LabSheet.tsx';
import { labQueries, usePreviewLabFile } from './api.ts';

/** Where a laboratory's file is dropped. */
function DropFile({ siteId }: { readonly siteId: string }) {
  const preview = usePreviewLabFile(siteId);
  const [refusal, setRefusal] = useState<Error | null>(null);
  const { getRootProps, getInputProps, open, isDragActive } = useDropzone({
    noClick: true,
    multiple: false,
    maxSize: 2_000_000,
    onDropAccepted: ([file]) => {
      setRefusal(null);
      void file?.text().then((content) => preview.mutate({ fileName: file.name, content }));
    },
    onDropRejected: ([rejection]) =>
      setRefusal(new Error(`${rejection?.file.name ?? 'The file'} cannot be taken: drop one file of at most 2 MB.`)),
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
        <Typography>or drop it here: CSV, JSON or text in columns. You see first what goes where.</Typography>
      </Box>
      <Trouble error={refusal ?? preview.error} />
    </Box>
  );
}

/** Results in: typed like a spreadsheet, or from the laboratory's file. */
export function Lab({ site, zones, results, zone }: StepProps) {
  const may = useMay();
  const { data: files = [] } = useQuery(labQueries.labReports(site.id));
  const [correcting, setCorrecting] = useState<LabResultAnswer | undefined>();
  if (zones.length === 0) {
    return (
      <Empty title="No zones yet" to={stepPath(site.id, 'ground')} action="Add a zone">
        Results belong to zones: add the zones with their bag labels first.
      </Empty>
    );
  }
  const pending = files.filter(
    ({ status, rows }) => status === 'open' || rows.some(({ resultId }) => resultId === null),
  );
  const hasResults = results.length > 0;
  if (!may('work.write')) {
    return hasResults ? (
      <>
        <Typography variant="h2" gutterBottom>
          On record
        </Typography>
        <LabRecord siteId={site.id} zones={zones} results={results} />
      </>
    ) : (
      <Empty title="No result yet">An advisor enters the laboratory’s report.</Empty>
    );
  }
  return (
    <>
      {pending.map((file) => (
        <LabFileReview key={file.id} file={file} zones={zones} />
      ))}
      <Typography variant="h2" gutterBottom>
        {correcting
          ? `Correct ${
              zones
                .filter(({ id }) => correcting.zoneIds.includes(id))
                .map(({ name }) => name)
                .join(', ') || 'the result'
            }`
          : 'Enter a report'}
      </Typography>
      {!correcting && <DropFile siteId={site.id} />}
      <LabSheet
        key={correcting?.id ?? 'new'}
        siteId={site.id}
        zones={zones}
        chosen={zone?.id}
        correcting={correcting}
        onDone={() => setCorrecting(undefined)}
      />
      {hasResults && !correcting && (
        <Box component="section" aria-labelledby="record" sx={{ mt: 4 }}>
          <Typography variant="h2" id="record" gutterBottom>
            On record
          </Typography>
          <LabRecord
            siteId={site.id}
            zones={zones}
            results={results}
            onCorrect={(result) => {
              setCorrecting(result);
              window.scrollTo({ top: 0 });
            }}
          />
        </Box>
      )}
    </>
  );
}
