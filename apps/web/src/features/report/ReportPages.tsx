import { Box, Button, Typography } from '@mui/material';
import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { colours, onDark } from '../../ui/theme.ts';
import { CalendarDialog } from '../../ui/CalendarDialog.tsx';
import { More } from '../../ui/More.tsx';
import { News } from './News.tsx';
import { Conversation } from '../../ui/Conversation.tsx';
import { ReachPractice } from '../../ui/ReachPractice.tsx';
import { Trouble } from '../../ui/bits.tsx';
import { useMay, useSession } from '../../ui/session.tsx';
import { ShareForm } from './ShareForm.tsx';
import { Offered } from './Offered.tsx';
import { SiteReport } from './SiteReport.tsx';
import { reportQueries } from './api.ts';

const page = { px: { xs: 2, md: 5 }, py: 3, maxWidth: 760 };

/** The sites whose reports a client reads: their whole Glenfold. */
export function Reports() {
  const { practice, role } = useSession();
  const [calendar, setCalendar] = useState(false);
  const pages = useInfiniteQuery(reportQueries.reports());
  const sites = pages.data?.pages.flatMap((page) => page.sites);
  return (
    <Box component="main" sx={page}>
      <Typography variant="h1" sx={{ mb: 2 }}>
        Your reports
      </Typography>
      {role === 'client' && (
        <Button size="small" onClick={() => setCalendar(true)} sx={{ px: 0, mb: 1 }}>
          Visits in your calendar…
        </Button>
      )}
      {calendar && <CalendarDialog onClose={() => setCalendar(false)} />}
      {practice && (
        <Typography sx={{ color: colours.faded, mt: -1, mb: 2 }}>
          By <ReachPractice {...practice} />.
        </Typography>
      )}
      <Trouble error={pages.error} />
      {sites?.length === 0 && <Typography>No report is shared with you yet. Ask the practice.</Typography>}
      <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {sites?.map(({ siteId, siteName, place }) => (
          <Box
            component="li"
            key={siteId}
            sx={{ display: 'flex', gap: 2, alignItems: 'center', py: 1.5, borderTop: `1px solid ${colours.line}` }}
          >
            <Box sx={{ flex: 1 }}>
              <Typography sx={{ fontFamily: 'Bitter, serif', fontWeight: 700, fontSize: '1.1rem' }}>
                {siteName}
              </Typography>
              <Typography sx={{ color: colours.faded }}>{place}</Typography>
            </Box>
            <Button variant="contained" component={Link} to={`/reports/${siteId}`} aria-label={`Read ${siteName}`}>
              Read
            </Button>
          </Box>
        ))}
      </Box>
      <More pages={pages}>More reports</More>
    </Box>
  );
}

/** One site's report, for somebody who is signed in. */
export function ReportPage() {
  const { siteId = '' } = useParams();
  const may = useMay();
  const { name = '' } = useSession().person ?? {};
  const { data: report, error } = useQuery(reportQueries.report(siteId));
  const [sharing, setSharing] = useState(false);
  return (
    <>
      <Box component="nav" aria-label="Back" sx={{ px: { xs: 2, md: 5 }, pt: 1.5 }}>
        <Button component={Link} to={may('work.read') ? `/sites/${siteId}` : '/'} size="small" sx={{ px: 0 }}>
          {may('work.read') ? 'Back to the site' : 'All reports'}
        </Button>
      </Box>
      {error && (
        <Box sx={page}>
          <Trouble error={error} />
        </Box>
      )}
      {report && (
        <SiteReport report={report}>
          {!may('work.read') && <News report={report} />}
          {report.mayShare && (
            <Box sx={{ mb: 3 }}>
              <Button variant="outlined" onClick={() => setSharing(true)}>
                Share this report…
              </Button>
            </Box>
          )}
          {sharing && <ShareForm site={{ id: siteId, name: report.siteName }} onClose={() => setSharing(false)} />}
          {report.quote && may('quote.answer') && (
            <Offered under={`/sites/${siteId}/report`} quote={report.quote} by={name} />
          )}
          <Conversation siteId={siteId} title="Questions and answers" ask="Write to your advisor" />
        </SiteReport>
      )}
    </>
  );
}

/** One site's report, for whoever holds a link: no way on from here. */
export function SharedReport() {
  const { token = '' } = useParams();
  const { data: report, error } = useQuery(reportQueries.shared(token));
  return (
    <Box sx={{ minHeight: '100vh' }}>
      <Box component="header" sx={{ ...onDark, px: { xs: 2, md: 5 }, py: 1.25 }}>
        <Box component="span" sx={{ fontFamily: 'Bitter, serif', fontWeight: 700, fontSize: '1.15rem' }}>
          Glenfold
        </Box>
        {report && (
          <Box component="span" sx={{ color: colours.line, ml: 2 }}>
            Report by {report.practiceName}
          </Box>
        )}
      </Box>
      {error && (
        <Box component="main" sx={page}>
          <Typography variant="h1" gutterBottom>
            This link does not open
          </Typography>
          <Trouble error={error} />
        </Box>
      )}
      {report && (
        <SiteReport report={report}>
          {report.quote && <Offered under={`/shared/${token}`} quote={report.quote} by="" />}
        </SiteReport>
      )}
    </Box>
  );
}
