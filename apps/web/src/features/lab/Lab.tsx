import { type LabResultAnswer } from '@glenfold/contract';
import { Box, Button, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { Empty } from '../../ui/bits.tsx';
import { useMay } from '../../ui/session.tsx';
import type { StepProps } from '../../ui/stepProps.ts';
import { stepPath } from '../../ui/steps.ts';
import { colours } from '../../ui/theme.ts';
import { LabRecord } from './LabRecord.tsx';
import { Loads } from './Loads.tsx';
import { OwnTests } from './OwnTests.tsx';
import { Questions } from './Questions.tsx';
import { ReportIn } from './ReportIn.tsx';
import { ZoneRecord } from './ZoneRecord.tsx';
import { labQueries } from './api.ts';
import { LabFileReview } from './review/LabFileReview.tsx';
import { LabSheet } from './sheet/LabSheet.tsx';

const parts = [
  ['reports', 'Reports'],
  ['tests', 'Our own tests'],
  ['record', 'The zone’s record'],
  ['loads', 'At the gate'],
  ['asked', 'Asked'],
] as const;
type Part = (typeof parts)[number][0];

/** Numbers in: laboratories' reports, tests of one's own, loads; and all of it over time. */
export function Lab(props: StepProps) {
  const { site, zones, results, zone } = props;
  const [search] = useSearchParams();
  const part = (parts.find(([name]) => name === search.get('part')) ?? parts[0])[0];
  if (zones.length === 0) {
    return (
      <Empty title="No zones yet" to={stepPath(site.id, 'ground')} action="Add a zone">
        Results belong to zones: add the zones with their bag labels first.
      </Empty>
    );
  }
  const shown: Readonly<Record<Part, () => React.ReactNode>> = {
    reports: () => <Reports {...props} />,
    tests: () => <OwnTests siteId={site.id} zones={zones} />,
    record: () => <ZoneRecord zone={zone ?? zones[0]!} />,
    loads: () => <Loads siteId={site.id} />,
    asked: () => <Questions siteId={site.id} zones={zones} results={results} chosen={zone?.id} />,
  };
  return (
    <>
      <Box
        component="nav"
        aria-label="Parts of the lab step"
        sx={{ display: 'flex', flexWrap: 'wrap', gap: 2.5, borderBottom: `1px solid ${colours.faded}`, mb: 2 }}
      >
        {parts.map(([name, title]) => {
          const to = new URLSearchParams(search);
          to.set('part', name);
          return (
            <Box
              component={Link}
              key={name}
              to={`?${to.toString()}`}
              replace
              aria-current={name === part ? 'page' : undefined}
              sx={{
                color: name === part ? colours.ink : colours.faded,
                fontWeight: 700,
                textDecoration: 'none',
                py: 0.75,
                borderBottom: `3px solid ${name === part ? colours.ochre : 'transparent'}`,
              }}
            >
              {title}
            </Box>
          );
        })}
      </Box>
      {shown[part]()}
    </>
  );
}

/** Results in: typed like a spreadsheet, or from the laboratory's file. */
function Reports({ site, zones, results, zone }: StepProps) {
  const may = useMay();
  const { data: files = [] } = useQuery(labQueries.labReports(site.id));
  const [imported, setImported] = useState<{ fileId: string; count: number; zoneId: string | null } | null>(null);
  const [correcting, setCorrecting] = useState<LabResultAnswer | undefined>();
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
      {imported && !pending.some(({ id }) => id === imported.fileId) && (
        <Box
          role="status"
          sx={{
            ...{ display: 'flex', gap: 2, flexWrap: 'wrap', alignItems: 'center', mb: 2, px: 1.5, py: 1 },
            ...{ borderLeft: `3px solid ${colours.lichen}`, background: colours.lichenWash },
          }}
        >
          <span>
            {imported.count === 1 ? 'One result is imported.' : `${imported.count} results are imported.`} Next: what
            they say.
          </span>
          <Button variant="contained" component={Link} to={stepPath(site.id, 'reading', imported.zoneId)}>
            {imported.count === 1 ? 'Read it' : 'Read them'}
          </Button>
        </Box>
      )}
      {pending.map((file) => (
        <LabFileReview
          key={file.id}
          file={file}
          zones={zones}
          onImport={(count, zoneId) => setImported({ fileId: file.id, count, zoneId })}
        />
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
