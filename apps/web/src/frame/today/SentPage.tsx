import { Box, Button, Typography } from '@mui/material';
import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import { noteToSend } from '../../features/field/fieldStore.ts';
import { type Sent, add, drop, letGo, sendAll, takeOver } from '../../offline/sender.ts';
import type { Entry } from '../../offline/outbox.ts';
import { isOf } from '../../offline/holder.ts';
import { useCarried, useHolder } from '../../offline/useOutbox.ts';
import { DialogFrame } from '../../ui/DialogFrame.tsx';
import { dayWords } from '../../ui/days.ts';
import { FieldFrame } from '../../ui/field/FieldFrame.tsx';
import { keepPages } from '../../ui/keepPages.ts';
import { colours } from '../../ui/theme.ts';
import { deviceToday, localTime } from '../../ui/today.ts';
import { carryAll } from './carriers.ts';
import { counted, mendedAt, ofOthers, saidOf, things } from './carriedWords.ts';

const line = { borderTop: `1px solid ${colours.line}`, py: 1 } as const;

/** "09:47" of today, "Tue 1 Dec, 17:20" of before. */
function timeWords(at: string): string {
  const [day = '', time = ''] = localTime(at).split(' ');
  return day === deviceToday() ? time : `${dayWords(day, false)}, ${time}`;
}

/** What has arrived, with what was said of it. */
export function SentList({ sent }: { readonly sent: readonly Sent[] }) {
  const lines = counted([...sent].reverse(), ({ words, notes }) => [words, ...notes].join('\n'));
  return (
    <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
      {lines.map(([key, of]) => (
        <Box component="li" key={key} sx={line}>
          {of[0]!.words}
          {of.length > 1 && `, ${of.length} times`}{' '}
          <Box component="span" sx={{ color: colours.faded }}>
            {timeWords(of[0]!.at)}
          </Box>
          {of[0]!.notes.map((note) => (
            <Box key={note} sx={{ color: colours.ochre }}>
              {note}
            </Box>
          ))}
        </Box>
      ))}
    </Box>
  );
}

/** Something that the server will never take: why, and what can be done with it. */
function Refused({ entry }: { readonly entry: Entry }) {
  const holder = useHolder();
  const mend = mendedAt(entry);
  const [asking, setAsking] = useState(false);
  const note = async (): Promise<void> => {
    await add(noteToSend({ practiceId: entry.practiceId, person: entry.person ?? (holder && { id: holder.personId, name: holder.name }) }, entry, saidOf(entry))); // prettier-ignore
    await letGo([entry.id]);
  };
  return (
    <Box component="li" sx={{ ...line, borderLeft: `4px solid ${colours.ochre}`, pl: 1.5 }}>
      <strong>{saidOf(entry)}</strong>
      <Box>{entry.refused}</Box>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mt: 0.5 }}>
        {mend && (
          <Button variant="outlined" component={Link} to={mend}>
            Mend it
          </Button>
        )}
        <Button variant="outlined" onClick={() => void note()}>
          Send to the office as a note
        </Button>
        <Button onClick={() => setAsking(true)}>Take it back</Button>
      </Box>
      {asking && (
        <DialogFrame
          title="Take it back?"
          width="xs"
          onClose={() => setAsking(false)}
          actions={
            <>
              <Button onClick={() => setAsking(false)}>Keep it</Button>
              <Button variant="contained" onClick={() => void letGo([entry.id])}>
                Take it back
              </Button>
            </>
          }
        >
          <Typography>“{saidOf(entry)}” leaves this device and goes nowhere.</Typography>
        </DialogFrame>
      )}
    </Box>
  );
}

/** All that this device keeps, has sent, and was refused. */
export function SentPage() {
  const holder = useHolder();
  const { entries, sent, trouble, known } = useCarried();
  useEffect(() => {
    carryAll();
    void keepPages(['/sent']);
  }, []);
  const own = entries.filter((one) => isOf(holder, one));
  const waiting = own.filter(({ refused }) => refused === undefined);
  const refused = own.filter((one) => one.refused !== undefined);
  const others = ofOthers(holder, entries);
  const arrived = sent.filter((one) => isOf(holder, one));
  return (
    <FieldFrame back="/today" title="On this device" heading>
      <Box sx={{ p: 2, display: 'flex', flexDirection: 'column', gap: 2, flex: 1 }}>
        {known && entries.length === 0 && <Typography>Everything that was done here is sent.</Typography>}
        {waiting.length > 0 && (
          <Box component="section" aria-label="Waits to be sent">
            <Typography variant="h2">Waits to be sent</Typography>
            {trouble && <Typography role="alert">{trouble}</Typography>}
            <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
              {counted(waiting, saidOf).map(([words, of]) => (
                <Box
                  component="li"
                  key={words}
                  sx={{ ...line, display: 'flex', justifyContent: 'space-between', gap: 1 }}
                >
                  <span>
                    {words}
                    {of.length > 1 && `, ${of.length} times`}
                  </span>
                  <Button
                    onClick={() => void drop(of.map(({ id }) => id))}
                    aria-label={`Take back: ${words}`}
                    sx={{ whiteSpace: 'nowrap', flex: 'none' }}
                  >
                    Take back
                  </Button>
                </Box>
              ))}
            </Box>
            <Button variant="contained" onClick={() => void sendAll()} sx={{ minHeight: 56, width: '100%' }}>
              Send now
            </Button>
          </Box>
        )}
        {refused.length > 0 && (
          <Box component="section" aria-label="Not taken">
            <Typography variant="h2">Not taken</Typography>
            <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
              {refused.map((entry) => (
                <Refused key={entry.id} entry={entry} />
              ))}
            </Box>
          </Box>
        )}
        {others.map(([name, ids]) => (
          <Box key={name} component="section" aria-label={`Of ${name}`}>
            <Typography>
              {things(ids.length)} of {name} wait to be sent. They go when {name} signs in on this device.
            </Typography>
            {holder ? (
              <>
                <Typography sx={{ color: colours.faded }}>
                  If {name} works here no more: hand it to the practice. It is sent by you; who did it stays in what was
                  written.
                </Typography>
                <Button
                  variant="outlined"
                  onClick={() => void takeOver(ids, { id: holder.personId, name: holder.name })}
                >
                  Hand it to the practice
                </Button>
              </>
            ) : (
              <Button variant="contained" component={Link} to="/">
                Sign in
              </Button>
            )}
          </Box>
        ))}
        {arrived.length > 0 && (
          <Box component="section" aria-label="Sent">
            <Typography variant="h2">Sent in the last two days</Typography>
            <SentList sent={arrived} />
          </Box>
        )}
      </Box>
    </FieldFrame>
  );
}
