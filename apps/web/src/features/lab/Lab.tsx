import type { LabResultAnswer } from '@glenfold/contract';
import { Box, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { StepProps } from '../../ui/stepProps.ts';
import { stepPath } from '../../ui/steps.ts';
import { Empty } from '../../ui/bits.tsx';
import { useMay } from '../../ui/session.tsx';
import { LabFileReview } from './review/LabFileReview.tsx';
import { ReportIn } from './ReportIn.tsx';
import { LabRecord } from './LabRecord.tsx';
import { LabSheet } from './sheet/LabSheet.tsx';
import { labQueries } from './api.ts';

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
      {!correcting && <ReportIn siteId={site.id} files={files} />}
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
