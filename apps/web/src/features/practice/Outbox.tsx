import type { MailAnswer } from '@glenfold/contract';
import { Box, Button, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';

import { colours } from '../../ui/theme.ts';
import { CopyLine, Trouble } from '../../ui/bits.tsx';
import { practiceQueries, useSendAgain } from './api.ts';

const when = (iso: string): string => new Date(iso).toLocaleString([], { dateStyle: 'medium', timeStyle: 'short' });

function Letter({ mail, carried }: { readonly mail: MailAnswer; readonly carried: boolean }) {
  const again = useSendAgain();
  const { id, to, subject, text, writtenAt, sentAt, failure } = mail;
  const link = text?.match(/https?:\/\/\S+/)?.[0];
  return (
    <Box component="li" aria-label={`To ${to}`} sx={{ py: 2, borderTop: `1px solid ${colours.line}` }}>
      <Box sx={{ display: 'flex', justifyContent: 'space-between', gap: 2, flexWrap: 'wrap' }}>
        <Box sx={{ fontWeight: 700 }}>{subject}</Box>
        <Box sx={{ color: failure ? colours.ochre : colours.faded }}>
          {sentAt ? `sent ${when(sentAt)}` : failure ? 'not sent' : `written ${when(writtenAt)}`}
        </Box>
      </Box>
      <Box sx={{ color: colours.faded, mb: 1 }}>to {to}</Box>
      {failure && <Trouble error={new Error(`The mail server did not take it: ${failure}`)} />}
      {text && (
        <Box
          component="pre"
          sx={{
            font: 'inherit',
            whiteSpace: 'pre-wrap',
            overflowWrap: 'anywhere',
            background: colours.sheet,
            border: `1px solid ${colours.line}`,
            m: 0,
            px: 2,
            py: 1.5,
            maxWidth: 720,
          }}
        >
          {text.trim()}
        </Box>
      )}
      {link && (
        <Box sx={{ mt: 1, maxWidth: 720 }}>
          <CopyLine text={link} label={`Link for ${to}`} />
        </Box>
      )}
      {failure && carried && (
        <Button variant="outlined" sx={{ mt: 1 }} onClick={() => again.mutate(id)} disabled={again.isPending}>
          Send again
        </Button>
      )}
      <Trouble error={again.error} />
    </Box>
  );
}

/** The application's messages: carried by a mail server, or to be handed over by the owner. */
export function Outbox() {
  const { data, error } = useQuery(practiceQueries.outbox());
  return (
    <>
      <Typography sx={{ mb: 2, maxWidth: 680 }}>
        {data?.carried
          ? 'Messages leave through the mail server; what they said is not kept, since it holds one-time links.'
          : 'No mail server is set up, so nothing leaves this machine. Hand each message over yourself: its link works once, for the one it is meant for.'}
      </Typography>
      <Trouble error={error} />
      {data?.mails.length === 0 && <Typography>Nothing is written yet. Inviting somebody writes a message.</Typography>}
      <Box component="ul" aria-label="Messages" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {data?.mails.map((mail) => (
          <Letter key={mail.id} mail={mail} carried={data.carried} />
        ))}
      </Box>
    </>
  );
}
