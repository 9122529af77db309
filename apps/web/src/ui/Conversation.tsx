import type { MessageAnswer } from '@glenfold/contract';
import { Box, Button, TextField, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { messagesOf, useMessageDone, useWriteMessage } from '../api/messages.ts';
import { Trouble } from './bits.tsx';
import { useMay } from './session.tsx';
import { colours } from './theme.ts';
import { localTime } from './today.ts';
import { useDeviceState } from './useSessionState.ts';

const sides = { office: 'the practice', client: 'the client', field: 'from the field' } as const;

function Said({ message, onDone }: { readonly message: MessageAnswer; readonly onDone: (() => void) | undefined }) {
  const { author, side, words, at, done, own } = message;
  return (
    <Box
      component="li"
      sx={{
        borderLeft: `4px solid ${done ? colours.line : colours.ochre}`,
        pl: 1.5,
        py: 0.5,
        ml: own ? 3 : 0,
      }}
    >
      <Typography sx={{ color: colours.faded, fontSize: '0.92rem' }}>
        <strong>{own ? 'You' : author}</strong>
        {own ? '' : `, ${sides[side]}`}, {localTime(at)}
      </Typography>
      <Typography sx={{ whiteSpace: 'pre-wrap' }}>{words}</Typography>
      {onDone && (
        <Button size="small" onClick={onDone}>
          It is read, no answer wanted
        </Button>
      )}
    </Box>
  );
}

interface ConversationProps {
  readonly siteId: string;
  readonly title: string;
  /** What the box to write in is called. */
  readonly ask: string;
}

/** What was written about a site between its client, the practice and the field; and a place to write. */
export function Conversation({ siteId, title, ask }: ConversationProps) {
  const may = useMay();
  const { data, error } = useQuery(messagesOf(siteId));
  const write = useWriteMessage(siteId);
  const done = useMessageDone();
  // What is half written stays on the device until it is sent.
  const [draft, setDraft] = useDeviceState<string>(`glenfold message ${siteId}`, '');
  const [id, setId] = useState(() => crypto.randomUUID());
  const send = (): void =>
    write.mutate(
      { id, words: draft },
      {
        onSuccess: () => {
          setDraft('');
          setId(crypto.randomUUID());
        },
      },
    );
  const office = may('work.write');
  return (
    <Box component="section" aria-label={title} sx={{ maxWidth: 720, mb: 3 }}>
      <Typography variant="h2" sx={{ mb: 1 }}>
        {title}
      </Typography>
      <Trouble error={error ?? done.error} />
      <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0, display: 'grid', gap: 1, mb: 1 }}>
        {data?.messages.map((message) => (
          <Said
            key={message.id}
            message={message}
            onDone={office && !message.done ? () => done.mutate(message.id) : undefined}
          />
        ))}
      </Box>
      <TextField
        label={ask}
        value={draft}
        onChange={(event) => setDraft(event.target.value)}
        multiline
        minRows={2}
        fullWidth
      />
      <Trouble error={write.error} />
      <Button variant="outlined" disabled={draft.trim() === '' || write.isPending} onClick={send} sx={{ mt: 1 }}>
        Send
      </Button>
    </Box>
  );
}
