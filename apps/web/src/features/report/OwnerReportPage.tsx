import type { OwnerReportAnswer, RunAnswer } from '@glenfold/contract';
import { Box, Button, LinearProgress, Link as MuiLink, TextField, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { isUnderWay, queries } from '../../api/queries.ts';
import { Trouble } from '../../ui/bits.tsx';
import { useMay } from '../../ui/session.tsx';
import { dayOf } from '../../ui/today.ts';
import { colours } from '../../ui/theme.ts';
import { useUnits } from '../../ui/units.tsx';
import { OwnerPages } from './OwnerPages.tsx';
import { reportQueries, useAskReport, useHandOverReport, useWriteLetter } from './api.ts';

const words = {
  asked: 'Being made',
  draft: 'Draft',
  'handed over': 'Handed over',
  superseded: 'Superseded',
} as const;

/** The covering letter, changed by hand while it is a draft. */
function Letter({ answer }: { readonly answer: OwnerReportAnswer }) {
  const [text, setText] = useState(answer.letter);
  const write = useWriteLetter();
  const changed = text.trim() !== answer.letter.trim();
  return (
    <Box sx={{ maxWidth: 720 }}>
      <TextField
        label="Covering letter"
        value={text}
        onChange={(event) => setText(event.target.value)}
        multiline
        minRows={8}
        fullWidth
        helperText={changed ? 'Not saved yet' : 'Plain words; an empty line begins a new paragraph'}
      />
      <Trouble error={write.error} />
      <Box sx={{ display: 'flex', gap: 1.5, mt: 1, flexWrap: 'wrap' }}>
        <Button
          variant="outlined"
          disabled={!changed || write.isPending}
          onClick={() => write.mutate({ id: answer.id, version: answer.version, letter: text })}
        >
          Save the letter
        </Button>
        {answer.report && text.trim() !== answer.report.letter.trim() && (
          <Button onClick={() => setText(answer.report!.letter)}>Back to the suggested one</Button>
        )}
      </Box>
    </Box>
  );
}

/** How far the making is, by the long work that makes it. */
function Making({ run }: { readonly run: RunAnswer | undefined }) {
  if (run && !isUnderWay(run))
    return (
      <Typography role="alert" sx={{ my: 2, color: colours.ochre, fontWeight: 700 }}>
        The report was not finished. {run.words} Make a new draft to begin again.
      </Typography>
    );
  const share = run?.total ? (100 * run.done) / run.total : undefined;
  return (
    <Box role="status" sx={{ maxWidth: 480, my: 2 }}>
      <Typography>
        {run?.total
          ? `Page ${Math.min(run.done + 1, run.total)} of ${run.total} is being made…`
          : 'The report is being made…'}
      </Typography>
      <LinearProgress
        aria-label="How far the report is"
        {...(share === undefined ? {} : { variant: 'determinate' as const, value: share })}
      />
      <Typography sx={{ fontSize: '0.9rem', color: colours.faded }}>
        You can go on with other work: it is made beside. It can be stopped in the tray.
      </Typography>
    </Box>
  );
}

/** The report in plain words for a site’s owner: made as a draft, its letter changed, handed over. */
export function OwnerReportPage() {
  const { siteId = '' } = useParams();
  const { system } = useUnits();
  const may = useMay();
  const site = useQuery(queries.siteState(siteId));
  const { data, error, isPending } = useQuery(reportQueries.ownerReport(siteId));
  const answer = data?.newest;
  const ask = useAskReport(siteId);
  const hand = useHandOverReport();
  const draft = answer?.state === 'draft';
  const asked = answer?.state === 'asked';
  // The newest first: of what was stopped or failed nothing comes by itself.
  const { data: runs } = useQuery({ ...queries.runs(), enabled: asked });
  const run = runs?.find(({ kind }) => kind === 'owner reports');
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 4 }, py: 2, maxWidth: 1000 }}>
      <Button component={Link} to={`/sites/${siteId}`} size="small" sx={{ px: 0 }}>
        Back to the site
      </Button>
      <Typography variant="h1">Report for the owner{site.data ? `: ${site.data.site.name}` : ''}</Typography>
      <Typography sx={{ color: colours.faded, maxWidth: 640 }}>
        A cover with the things to do first, a letter, and a page a zone, in plain words and without workings. Nothing
        leaves the house before it is handed over.
      </Typography>
      <Trouble error={error ?? ask.error ?? hand.error} />
      <Box sx={{ display: 'flex', gap: 1.5, my: 2, flexWrap: 'wrap', alignItems: 'center' }}>
        {answer && (
          <Box component="strong" sx={{ color: answer.state === 'handed over' ? colours.lichen : colours.ochre }}>
            {words[answer.state]}
            {answer.handedOverAt
              ? ` on ${dayOf(new Date(answer.handedOverAt))}`
              : answer.madeOn
                ? ` of ${answer.madeOn}`
                : ''}
          </Box>
        )}
        {may('work.write') && (
          <Button
            variant={answer ? 'outlined' : 'contained'}
            disabled={ask.isPending || isPending || (asked && (!run || isUnderWay(run)))}
            onClick={() => ask.mutate(system)}
          >
            {answer ? 'Make a new draft' : 'Make a draft'}
          </Button>
        )}
        {may('work.write') && draft && (
          <Button variant="contained" disabled={hand.isPending} onClick={() => hand.mutate(answer.id)}>
            Hand it over
          </Button>
        )}
        {answer?.report && (
          <>
            <Button href={answer.pdf} target="_blank">
              On paper (PDF)
            </Button>
            <MuiLink href={`${answer.pdf}?appendix=true`} target="_blank">
              with the workings as an appendix
            </MuiLink>
          </>
        )}
      </Box>
      {answer?.state === 'handed over' && (
        <Typography sx={{ mb: 2 }}>
          The owner reads it under <Link to={`/reports/${siteId}`}>Report</Link>, and whoever holds a link that shares
          it.
        </Typography>
      )}
      {asked && <Making run={run} />}
      {answer && (
        <OwnerPages answer={answer} {...(draft ? { letter: <Letter key={answer.id} answer={answer} /> } : {})} />
      )}
    </Box>
  );
}
