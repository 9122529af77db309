import type { EntryInput } from '@glenfold/contract';
import { Box, Button, Typography } from '@mui/material';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useState } from 'react';
import { Link } from 'react-router';
import { touch } from '../../api/touches.ts';
import { useOutbox } from '../../offline/useOutbox.ts';
import { Trouble } from '../../ui/bits.tsx';
import { FieldFrame } from '../../ui/field/FieldFrame.tsx';
import { JobMark, jobDay } from '../../ui/JobWords.tsx';
import { WHY_KEPT, askToKeep, keepPages } from '../../ui/keepPages.ts';
import { colours } from '../../ui/theme.ts';
import { deviceToday, localTime } from '../../ui/today.ts';
import { useUnits } from '../../ui/units.tsx';
import { type PackedCard, cardKinds, freshen, packWeek, packedCards } from './cardStore.ts';

const nothing: readonly PackedCard[] = [];

/** The cards of the week on this device: they open without a connection. */
export function CardsPage() {
  const { system } = useUnits();
  const client = useQueryClient();
  const { data: cards = nothing, refetch } = useQuery({
    queryKey: ['cards taken along'],
    queryFn: packedCards,
    networkMode: 'always',
    staleTime: 0,
  });
  const [notes, setNotes] = useState<readonly string[]>([]);
  // What was written on the cards goes on its way from here as well.
  const outbox = useOutbox(
    cardKinds,
    useCallback(
      (arrived) => {
        setNotes((last) => [...last, ...arrived.flatMap((one) => one.notes)]);
        void touch(client, 'entry', 'photo');
      },
      [client],
    ),
  );
  const [busy, setBusy] = useState(false);
  const [told, setTold] = useState('');
  const [error, setError] = useState<Error | null>(null);
  useEffect(() => void keepPages(['/cards']), []);
  const [superseded, setSuperseded] = useState<readonly PackedCard[]>([]);
  // Whenever there is a connection: nobody works a card that another program has changed.
  useEffect(() => {
    const look = (): void =>
      void freshen(system)
        .then(async (gone) => {
          if (gone.length > 0) setSuperseded((last) => [...last, ...gone]);
          await refetch();
        })
        .catch(() => undefined);
    look();
    window.addEventListener('online', look);
    return () => window.removeEventListener('online', look);
  }, [system, refetch]);
  const fetchAll = async (): Promise<void> => {
    setBusy(true);
    setError(null);
    try {
      const packed = await packWeek(system);
      await keepPages(['/cards', ...packed.map(({ card }) => `/cards/${card.job.id}`)]);
      setTold(
        packed.length === 0
          ? 'Nothing stands in this week.'
          : `The cards of this week are on this device. ${await askToKeep()}`,
      );
      await refetch();
    } catch (problem) {
      setError(problem as Error);
    } finally {
      setBusy(false);
    }
  };
  const today = deviceToday();
  const isToday = (day: string | null): boolean => day !== null && day <= today;
  const groups = [
    ['Today', cards.filter(({ card: { job } }) => isToday(job.day))],
    ['Later this week', cards.filter(({ card: { job } }) => !isToday(job.day))],
  ] as const;
  return (
    <FieldFrame back="/" title="Work cards on this device" heading>
      <Box sx={{ p: 2, display: 'flex', flexDirection: 'column', gap: 1.5, flex: 1 }}>
        {cards.length === 0 && (
          <Typography>Nothing yet. With a connection, fetch the week; then the cards open without one.</Typography>
        )}
        {groups.map(([title, own]) =>
          own.length === 0 ? null : (
            <Box key={title} component="section" aria-label={title}>
              <Typography variant="h1" component="h2">
                {title}
              </Typography>
              <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
                {own.map(({ card: { job, card } }) => (
                  <Box component="li" key={job.id} sx={{ borderTop: `1px solid ${colours.line}` }}>
                    <Box
                      component={Link}
                      to={`/cards/${job.id}`}
                      sx={{ display: 'flex', gap: 1.5, py: 1.25, color: colours.ink, textDecoration: 'none' }}
                    >
                      <Box sx={{ pt: 0.5 }}>
                        <JobMark job={job} size={20} />
                      </Box>
                      <Box>
                        <Box sx={{ fontFamily: 'Bitter, serif', fontWeight: 700, fontSize: '1.2rem' }}>
                          {job.name}, {job.zone}
                        </Box>
                        {job.siteName}. {jobDay(job, today)}
                        {card.weigh ? `. ${card.weigh.told}${job.product ? ` of ${job.product}` : ''}` : ''}
                        {job.hold && (
                          <Box sx={{ color: colours.ochre, fontWeight: 700 }}>On hold: {job.hold.reason}</Box>
                        )}
                      </Box>
                    </Box>
                  </Box>
                ))}
              </Box>
            </Box>
          ),
        )}
        {superseded.map(({ card: { job } }) => (
          <Box key={job.id} role="alert" sx={{ borderLeft: `4px solid ${colours.ochre}`, pl: 1.5 }}>
            {job.name}, {job.zone}: another program was handed over since you took this card along.{' '}
            {job.replacedById ? (
              <Link to={`/cards/${job.replacedById}`}>Open the card that stands for it</Link>
            ) : (
              'This work is not in it any more.'
            )}
          </Box>
        ))}
        {outbox.refused.map(({ id, refused, body }) => (
          <Box key={id} role="alert" sx={{ borderLeft: `4px solid ${colours.ochre}`, pl: 1.5 }}>
            {refused}{' '}
            {(body as Partial<EntryInput>).jobId && (
              <Link to={`/cards/${(body as EntryInput).jobId}`}>Open its card, and write it anew</Link>
            )}
          </Box>
        ))}
        {notes.map((words) => (
          <Box key={words} role="alert" sx={{ borderLeft: `4px solid ${colours.ochre}`, pl: 1.5 }}>
            {words}
          </Box>
        ))}
        <Box role="status">{told}</Box>
        <Trouble error={error} />
        <Box sx={{ flex: 1 }} />
        {cards[0] && (
          <Typography sx={{ color: colours.faded, fontSize: '0.92rem' }}>
            Fetched {localTime(cards[0].packedAt)}.
          </Typography>
        )}
        <Typography sx={{ color: colours.faded, fontSize: '0.92rem' }}>{WHY_KEPT}</Typography>
        <Button variant="contained" size="large" disabled={busy} onClick={() => void fetchAll()} sx={{ minHeight: 56 }}>
          {busy ? 'Fetching…' : 'Fetch the week'}
        </Button>
      </Box>
    </FieldFrame>
  );
}
