import type { TakenPhoto } from '../../ui/field/TakePhoto.tsx';
import type { CardPart } from '@glenfold/agronomy';
import { type CardAnswer, type EntryInput, withReadableDays } from '@glenfold/contract';
import { Box, Button, Typography } from '@mui/material';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { type ReactNode, useCallback, useEffect, useState } from 'react';
import { Link, useParams } from 'react-router';
import { touch } from '../../api/touches.ts';
import { useHolder, useOutbox } from '../../offline/useOutbox.ts';
import { Cautions, Trouble } from '../../ui/bits.tsx';
import { FieldFrame } from '../../ui/field/FieldFrame.tsx';
import { useWakeLock } from '../../ui/field/useWakeLock.ts';
import { CHANGED_SINCE, jobDay } from '../../ui/JobWords.tsx';
import { keepPages } from '../../ui/keepPages.ts';
import { stepPath } from '../../ui/steps.ts';
import { colours } from '../../ui/theme.ts';
import { deviceToday } from '../../ui/today.ts';
import { useUnits } from '../../ui/units.tsx';
import { CloseCard } from './CloseCard.tsx';
import { draftOf, useCardDraft } from './cardDraft.ts';
import { DayVerdict } from './DayVerdict.tsx';
import { Tally } from './Tally.tsx';
import { type PackedCard, cardKinds, entryToSend, noteWritten, openCard, photoToSend, workerOf } from './cardStore.ts';

const parts = ['day', 'evening', 'load', 'set', 'spread', 'water', 'clear'] as const;
type Part = (typeof parts)[number];
const titles: Readonly<Record<Part, string>> = {
  ...{ day: 'The day', evening: 'The evening before', load: 'Load', set: 'Set', spread: 'Spread' },
  ...{ water: 'Water', clear: 'Clear' },
};

function Lines({ lines }: { readonly lines: readonly string[] }) {
  return (
    <Box component="ul" sx={{ m: 0, pl: 0, listStyle: 'none' }}>
      {lines.map((line) => (
        <Box
          component="li"
          key={line}
          sx={{ borderTop: `1px solid ${colours.line}`, py: 1, fontSize: '1.08rem', lineHeight: 1.35 }}
        >
          {line}
        </Box>
      ))}
    </Box>
  );
}

/** What is weighed out: the largest thing on the card, then its portions. */
function Weigh({ card: { card } }: { readonly card: CardAnswer }) {
  if (!card.weigh) return null;
  const { told, portions } = card.weigh;
  const { mixed = [] } = card;
  return (
    <Box sx={{ mb: 1 }}>
      <Typography sx={{ fontFamily: 'Bitter, serif', fontWeight: 700, fontSize: '3.2rem', lineHeight: 1.05 }}>
        {told}
      </Typography>
      <Typography>{[card.rate ? `at ${card.rate}` : '', card.bags].filter(Boolean).join('; ')}</Typography>
      {mixed.map(({ name, told: part, bags }) => (
        <Box
          key={name}
          sx={{ display: 'flex', justifyContent: 'space-between', borderTop: `1px solid ${colours.line}`, py: 0.75 }}
        >
          <span>
            with {name}
            {bags ? ` (${bags})` : ''}
          </span>
          <strong>{part}</strong>
        </Box>
      ))}
      {portions.map(({ words, told: portion }) => (
        <Box
          key={words}
          sx={{ display: 'flex', justifyContent: 'space-between', borderTop: `1px solid ${colours.line}`, py: 0.75 }}
        >
          <span>{words}</span>
          <strong>{portion}</strong>
        </Box>
      ))}
    </Box>
  );
}

const steady = (card: CardAnswer, part: CardPart): readonly string[] => card.card.parts[part];

/** A job on a card: one thing at a time, in the order of the hands; it opens and closes without a connection. */
export function CardPage() {
  const { jobId = '' } = useParams();
  const holder = useHolder()?.personId;
  return <Card key={`${holder} ${jobId}`} jobId={jobId} personId={holder} />;
}

/** The card in the hands of one person: what is half typed on it is nobody else's. */
function Card({ jobId, personId }: { readonly jobId: string; readonly personId: string | undefined }) {
  const { system } = useUnits();
  const client = useQueryClient();
  const { data: packed, error } = useQuery<PackedCard>({
    queryKey: ['cards', jobId, system],
    queryFn: () => openCard(jobId, system),
    networkMode: 'always',
    staleTime: 0,
    retry: false,
  });
  const [at, setAt] = useState<Part>('day');
  const { draft, note, photos, addPhoto, clear } = useCardDraft(jobId, personId);
  const [closing, setClosing] = useState(false);
  const [written, setWritten] = useState<EntryInput | null>(null);
  const [notes, setNotes] = useState<readonly string[]>([]);
  useWakeLock(true);
  useEffect(() => void keepPages(['/today', `/cards/${jobId}`]), [jobId]);
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
  const frame = (children: ReactNode): ReactNode => (
    <FieldFrame back="/today" title={packed ? `${packed.card.job.siteName}, ${packed.card.job.zone}` : undefined}>
      <Box sx={{ p: 2, display: 'flex', flexDirection: 'column', gap: 1.25, flex: 1 }}>{children}</Box>
    </FieldFrame>
  );
  if (!packed) return frame(error ? <Trouble error={error} /> : <Typography>Opening the card…</Typography>);
  const { card } = packed;
  const { job } = card;
  const today = deviceToday();
  const known = (draft.lookedOn === today ? draft.day : undefined) ?? card.day;
  const entry = written ?? packed.written ?? null;
  const closed = entry !== null || job.state === 'done' || job.state === 'not done' || job.state === 'superseded';
  const write = async (input: EntryInput, photos: readonly TakenPhoto[]): Promise<void> => {
    await outbox.add(entryToSend(workerOf(packed), input));
    for (const photo of photos)
      await outbox.add(
        photoToSend(workerOf(packed), {
          zoneId: job.zoneId,
          photo: {
            ...photo,
            entryId: input.id,
            takenOn: input.on.length === 10 ? input.on : null,
            caption: `${job.name}, ${input.state}`,
          },
        }),
      );
    await noteWritten(job.id, input);
    setWritten(input);
    await clear();
  };
  const index = parts.indexOf(at);
  const next = parts[index + 1];
  const before = parts[index - 1];
  return frame(
    <>
      <Box>
        <Typography variant="h1">{job.name}</Typography>
        <Typography sx={{ color: colours.faded }}>
          {[job.dose, job.product, jobDay(job, today)].filter(Boolean).join('; ')}
        </Typography>
      </Box>
      {job.hold && !closed && (
        <Box role="alert" sx={{ borderLeft: `4px solid ${colours.ochre}`, pl: 1.5 }}>
          <strong>On hold</strong> since {withReadableDays(job.hold.since)}: {job.hold.reason}
          {job.hold.words ? ` “${job.hold.words}”` : ''}
        </Box>
      )}
      {job.was && !closed && (
        <Box role="alert" sx={{ borderLeft: `4px solid ${colours.ochre}`, pl: 1.5 }}>
          Another amount than in the program before. Before: {job.was}. Now: {job.amount}.
        </Box>
      )}
      {job.changedSince && !closed && (
        <Box role="alert" sx={{ borderLeft: `4px solid ${colours.ochre}`, pl: 1.5 }}>
          {CHANGED_SINCE} Ask the office before you load.
        </Box>
      )}
      {job.state === 'superseded' && (
        <Box role="alert" sx={{ borderLeft: `4px solid ${colours.ochre}`, pl: 1.5 }}>
          Another program was handed over since.{' '}
          {job.replacedById ? (
            <Link to={`/cards/${job.replacedById}`}>Open the card that stands for this one</Link>
          ) : (
            'This work is not in it any more: leave it, and write in the logbook what you did all the same.'
          )}
        </Box>
      )}
      {entry && (
        <Box role="status" sx={{ borderLeft: `4px solid ${colours.lichen}`, pl: 1.5 }}>
          <strong>Written down: {entry.state}.</strong>{' '}
          {outbox.refused.some(({ id }) => id === entry.id)
            ? 'It was not kept.'
            : outbox.waiting.length > 0
              ? 'Kept on this device until there is a connection.'
              : 'It stands in the logbook.'}{' '}
          <Link to={stepPath(job.siteId, 'logbook', job.zoneId)}>Open the logbook</Link>
        </Box>
      )}
      {notes.map((words) => (
        <Box key={words} role="alert" sx={{ borderLeft: `4px solid ${colours.ochre}`, pl: 1.5 }}>
          {words}
        </Box>
      ))}
      {outbox.refused.map(({ id, refused }) => (
        <Box key={id} role="alert" sx={{ borderLeft: `4px solid ${colours.ochre}`, pl: 1.5 }}>
          {refused}{' '}
          <Button
            onClick={() =>
              void (async () => {
                // What the server does not keep is open again here, to be written anew.
                if (id === entry?.id) {
                  note(draftOf(entry));
                  await noteWritten(job.id, undefined);
                  setWritten(null);
                  await client.invalidateQueries({ queryKey: ['cards', jobId] });
                }
                await outbox.letGo();
              })()
            }
          >
            {id === entry?.id ? 'Write it anew' : 'I have read it'}
          </Button>
        </Box>
      ))}
      {!closed && (
        <>
          <Box
            component="nav"
            aria-label="Parts of the card"
            sx={{ display: 'flex', borderBottom: `2px solid ${colours.ink}` }}
          >
            {parts.map((part) => (
              <Box
                component="button"
                key={part}
                type="button"
                aria-label={titles[part]}
                aria-current={part === at ? 'step' : undefined}
                onClick={() => setAt(part)}
                sx={{
                  flex: 1,
                  minHeight: 36,
                  border: 0,
                  p: 0,
                  cursor: 'pointer',
                  background: part === at ? colours.ink : 'none',
                  color: part === at ? colours.paper : colours.ink,
                  font: 'inherit',
                  fontSize: '0.86rem',
                  fontWeight: 700,
                }}
              >
                {part === 'evening' ? 'Eve' : part === 'day' ? 'Day' : titles[part]}
              </Box>
            ))}
          </Box>
          <Box component="section" aria-label={titles[at]} sx={{ flex: 1 }}>
            <Typography variant="h2" sx={{ mb: 0.5 }}>
              {titles[at]}
            </Typography>
            {at === 'day' && <DayVerdict card={card} day={known} onDay={(day) => note({ day, lookedOn: today })} />}
            {at === 'evening' && <Lines lines={steady(card, 'evening')} />}
            {at === 'load' && (
              <Lines lines={[...steady(card, 'load'), ...card.card.wear.map((one) => `To wear: ${one}`)]} />
            )}
            {at === 'set' && (
              <Lines lines={steady(card, 'set').length > 0 ? steady(card, 'set') : ['Nothing to set.']} />
            )}
            {at === 'spread' && (
              <>
                <Weigh card={card} />
                <Cautions texts={card.card.cautions} />
                <Lines lines={['Clear toys, hoses and stones first', ...steady(card, 'spread')]} />
                <Tally card={card} />
              </>
            )}
            {at === 'water' && <Lines lines={steady(card, 'water')} />}
            {at === 'clear' && <Lines lines={[...steady(card, 'clear'), card.card.keepOff]} />}
          </Box>
          <Box
            sx={{
              display: 'grid',
              gridTemplateColumns: '1fr 1fr',
              gap: 1.5,
              position: 'sticky',
              bottom: 0,
              background: colours.paper,
              py: 1,
            }}
          >
            {next ? (
              <Button variant="outlined" size="large" onClick={() => setAt(next)} sx={{ minHeight: 56 }}>
                {titles[next]}
              </Button>
            ) : (
              <Button variant="outlined" size="large" onClick={() => before && setAt(before)} sx={{ minHeight: 56 }}>
                Back
              </Button>
            )}
            <Button variant="contained" size="large" onClick={() => setClosing(true)} sx={{ minHeight: 56 }}>
              Done…
            </Button>
          </Box>
        </>
      )}
      {closed && !entry && (
        <Typography>
          It is {job.state}. <Link to={stepPath(job.siteId, 'logbook', job.zoneId)}>Open the logbook</Link>
        </Typography>
      )}
      {closing && (
        <CloseCard
          card={card}
          day={known}
          today={today}
          by={packed.person?.name ?? ''}
          draft={draft}
          photos={photos}
          onDraft={note}
          onPhoto={addPhoto}
          onClose={() => setClosing(false)}
          onWrite={write}
        />
      )}
    </>,
  );
}
