import { dayOn } from '@glenfold/agronomy';
import { type MessageAnswer, type SiteReportAnswer, withReadableDays } from '@glenfold/contract';
import { Box, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { messagesOf } from '../../api/messages.ts';
import { dayWords } from '../../ui/days.ts';
import { colours } from '../../ui/theme.ts';
import { dayOf, deviceToday } from '../../ui/today.ts';
import { useDeviceState } from '../../ui/useSessionState.ts';

/** Lines of what waits for her and of what is new since she was here last. */
export function newsOf(
  { quote, owner, zones, year }: SiteReportAnswer,
  messages: readonly MessageAnswer[],
  last: string | null,
  today: string,
): { readonly waits: readonly string[]; readonly fresh: readonly string[] } {
  const since = (at: string | null | undefined): boolean => !!at && (last === null || at > last);
  const soon = year.next.filter(({ when }) => when !== null && /^\d{4}-\d\d-\d\d$/.test(when) && when >= today && when <= dayOn(today, 7)); // prettier-ignore
  const papers = zones.filter(({ plan }) => since(plan?.issuedAt)).map(({ name }) => name);
  return {
    waits: [
      ...(quote?.open ? [`A quote waits for your answer, until ${withReadableDays(quote.validUntil)}.`] : []),
      ...year.next.filter(({ words }) => words.includes(': waits since')).map(({ zone, words }) => `${zone}: ${withReadableDays(words.replace(': waits', ' waits'))}.`), // prettier-ignore
      ...soon
        .filter(({ words }) => !words.includes(': waits since'))
        .map(({ zone, when, part, words }) => `${when === today ? 'Today' : dayWords(when!)}${part ? `, ${part}` : ''}: ${words}, ${zone}.`), // prettier-ignore
    ],
    fresh: [
      ...messages
        .filter(({ side, at }) => side === 'office' && since(at))
        .map(({ author, at }) => `${author} has written to you on ${withReadableDays(dayOf(new Date(at)))}.`),
      ...(since(owner?.handedOverAt) ? ['The report for you is there.'] : []),
      ...(papers.length > 0 ? [`The program is handed over: ${papers.join(', ')}.`] : []),
    ],
  };
}

function List({ title, lines }: { readonly title: string; readonly lines: readonly string[] }) {
  if (lines.length === 0) return null;
  return (
    <Box>
      <strong>{title}</strong>
      <Box component="ul" sx={{ m: 0, pl: 2.5 }}>
        {lines.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </Box>
    </Box>
  );
}

/** What her page begins with: what waits for her, and what is new since she was here. */
export function News({ report }: { readonly report: SiteReportAnswer }) {
  const { data } = useQuery(messagesOf(report.siteId));
  const [read, setRead] = useDeviceState<string | null>(`glenfold read ${report.siteId}`, null);
  // What was new when the page was opened stays so while it is open.
  const [last] = useState(read);
  useEffect(() => setRead(new Date().toISOString()), [setRead]);
  const { waits, fresh } = newsOf(report, data?.messages ?? [], last, deviceToday());
  return (
    <Box
      component="section"
      aria-label="New and waiting"
      sx={{
        borderLeft: `4px solid ${waits.length > 0 ? colours.ochre : colours.lichen}`,
        pl: 1.5,
        mb: 3,
        maxWidth: 720,
        display: 'grid',
        gap: 1,
      }}
    >
      <List title="Waits, or comes within the week" lines={waits} />
      <List title="New since you were here" lines={fresh} />
      {waits.length + fresh.length === 0 && (
        <Typography>Nothing new since you were here, and nothing waits for you.</Typography>
      )}
    </Box>
  );
}
