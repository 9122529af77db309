import { fieldTestOf, tellSupply } from '@glenfold/agronomy';
import { type AccessKey, accessKeys, accessWords } from '@glenfold/contract';
import { Box, Button, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { type ReactNode, useEffect, useState, useSyncExternalStore } from 'react';
import { Link } from 'react-router';
import { clockWords, followClock } from '../../api/clock.ts';
import type { PackedCard } from '../../features/cards/cardStore.ts';
import { freshen } from '../../features/cards/cardStore.ts';
import { dueOf } from '../../features/fieldTests/testStore.ts';
import { takeOverOld } from '../../features/sampling/walk/walkStore.ts';
import { isOf } from '../../offline/holder.ts';
import { useCarried, useHolder } from '../../offline/useOutbox.ts';
import { JobMark, jobDay } from '../../ui/JobWords.tsx';
import { Trouble } from '../../ui/bits.tsx';
import { PhoneLink } from '../../ui/PhoneLink.tsx';
import { FieldFrame } from '../../ui/field/FieldFrame.tsx';
import { WHY_KEPT, askToKeep, keepPages } from '../../ui/keepPages.ts';
import { colours } from '../../ui/theme.ts';
import { deviceToday } from '../../ui/today.ts';
import { useUnits } from '../../ui/units.tsx';
import { carryAll } from './carriers.ts';
import { SentList } from './SentPage.tsx';
import { WaitingLine } from './WaitingLine.tsx';
import { type DaySite, dayHere, takeAlong } from './dayStore.ts';

const nothing: readonly DaySite[] = [];
/** What is to be known before the gate: it stands open, the rest under it. */
const AT_THE_GATE: readonly AccessKey[] = ['gate', 'dog', 'caution'];

const mark = { borderLeft: `4px solid ${colours.ochre}`, pl: 1.5 } as const;

/** Something to be done, as a line that a thumb finds. */
function Line({ to, children }: { readonly to: string; readonly children: ReactNode }) {
  return (
    <Box component="li" sx={{ borderTop: `1px solid ${colours.line}` }}>
      <Box
        component={Link}
        to={to}
        sx={{ display: 'flex', gap: 1.5, py: 1.25, color: colours.ink, textDecoration: 'none', minHeight: 44 }}
      >
        {children}
      </Box>
    </Box>
  );
}

function CardLine({ packed, today }: { readonly packed: PackedCard; readonly today: string }) {
  const { job, card } = packed.card;
  return (
    <Line to={`/cards/${job.id}`}>
      <Box sx={{ pt: 0.5 }}>
        <JobMark job={job} size={20} />
      </Box>
      <Box>
        <Box sx={{ fontFamily: 'Bitter, serif', fontWeight: 700, fontSize: '1.15rem' }}>
          {job.name}, {job.zone}
        </Box>
        {jobDay(job, today)}
        {card.weigh ? `. ${card.weigh.told}${job.product ? ` of ${job.product}` : ''}` : ''}
        {job.person && `. ${job.person}`}
        {job.hold && <Box sx={{ color: colours.ochre, fontWeight: 700 }}>On hold: {job.hold.reason}</Box>}
        {(job.was !== null || job.changedSince) && (
          <Box sx={{ color: colours.ochre }}>
            {job.changedSince ? 'Changed on Rates since: ask the office.' : `Another amount than before: ${job.was}.`}
          </Box>
        )}
      </Box>
    </Line>
  );
}

/** A site of the day: how to get in, whom to call, what is done there. */
function Site({ site, today, now }: { readonly site: DaySite; readonly today: string; readonly now: string }) {
  const { system } = useUnits();
  const { siteId, name, place, access, contacts, cards, cores, tests } = site;
  const told = (keys: readonly AccessKey[]) => keys.filter((key) => access?.[key]);
  const others = told(accessKeys.filter((key) => !AT_THE_GATE.includes(key)));
  // What comes loose is looked over before it is tipped.
  const loads = cards.filter(({ card }) => card.unit === 'm3' && card.quantity !== null && card.job.hold === null);
  return (
    <Box component="section" aria-label={name} sx={{ borderTop: `3px solid ${colours.ink}`, pt: 1 }}>
      <Typography variant="h1" component="h2">
        <Link to={`/field/${siteId}`} style={{ color: 'inherit' }}>
          {name}
        </Link>
      </Typography>
      {place && <Typography sx={{ color: colours.faded }}>{place}</Typography>}
      {told(AT_THE_GATE).map((key) => (
        <Typography key={key}>
          <strong>{accessWords[key]}:</strong> {access![key]}
        </Typography>
      ))}
      {(others.length > 0 || contacts.length > 0) && (
        <Box component="details">
          <Box component="summary" sx={{ cursor: 'pointer', py: 1 }}>
            People, parking, water
          </Box>
          {contacts.map(({ name: who, phone, role }) => (
            <Typography key={who}>
              {who} ({role})
              {phone && (
                <>
                  {', '}
                  <PhoneLink phone={phone} />
                </>
              )}
            </Typography>
          ))}
          {others.map((key) => (
            <Typography key={key}>
              <strong>{accessWords[key]}:</strong> {access![key]}
            </Typography>
          ))}
        </Box>
      )}
      <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {cards.map((packed) => (
          <CardLine key={packed.card.job.id} packed={packed} today={today} />
        ))}
        {loads.map(({ card: { job, quantity } }) => (
          <Line
            key={`load ${job.id}`}
            to={`/field/${siteId}?do=load&what=${encodeURIComponent(job.product ?? job.name)}`}
          >
            <span>
              <strong>Delivery: {job.product ?? job.name}</strong>, {tellSupply(quantity!, 'm3', system)}. Look it over
              before it is tipped.
            </span>
          </Line>
        ))}
        {cores > 0 && (
          <Line to={`/walk/${siteId}`}>
            <strong>Walk: {cores === 1 ? '1 core' : `${cores} cores`} to take</strong>
          </Line>
        )}
        {tests.map((test) => {
          const due = dueOf(test, now);
          return (
            <Line key={test.id} to={`/tests/${siteId}?test=${test.id}`}>
              <span>
                <strong>{fieldTestOf[test.kind].title}</strong>{' '}
                <span style={{ color: due?.late ? colours.ochre : colours.ink }}>{due?.words ?? 'goes on'}</span>
              </span>
            </Line>
          );
        })}
      </Box>
    </Box>
  );
}

/** The day on this device: all that is to be done, in driving order; it opens without a connection. */
export function TodayPage() {
  const { system } = useUnits();
  const holder = useHolder();
  const { sent, entries } = useCarried();
  const { data: sites = nothing, refetch } = useQuery({
    queryKey: ['day here', holder?.personId, holder?.practiceId],
    queryFn: async () => {
      await takeOverOld();
      return dayHere();
    },
    networkMode: 'always',
    staleTime: 0,
  });
  const [busy, setBusy] = useState(false);
  const [told, setTold] = useState('');
  const [error, setError] = useState<Error | null>(null);
  const [superseded, setSuperseded] = useState<readonly PackedCard[]>([]);
  useEffect(() => {
    carryAll();
    void keepPages(['/today', '/sent']);
  }, []);
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
  const clock = useSyncExternalStore(followClock, () => clockWords());
  const today = deviceToday();
  const [now] = useState(() => new Date().toISOString());
  const take = async (until?: string): Promise<void> => {
    setBusy(true);
    setError(null);
    try {
      const taken = await takeAlong(system, until);
      setSuperseded((last) => [...last, ...taken.superseded]);
      setTold(
        taken.sites === 0
          ? `Nothing stands in ${until ? 'today' : 'this week'}.`
          : `${until ? 'Today' : 'The week'} is on this device: ${taken.sites === 1 ? '1 site' : `${taken.sites} sites`}, with gate codes, people, drawings and last readings. ${await askToKeep()}`,
      );
      await refetch();
    } catch (problem) {
      setError(problem as Error);
    } finally {
      setBusy(false);
    }
  };
  if (!holder)
    return (
      <FieldFrame title="Today" heading>
        <Box sx={{ p: 2, display: 'grid', gap: 1.5 }}>
          <WaitingLine />
          <Typography>Sign in to see what is on this device.</Typography>
          <Button variant="contained" component={Link} to="/" sx={{ minHeight: 56 }}>
            Sign in
          </Button>
        </Box>
      </FieldFrame>
    );
  const isToday = ({ cards, cores, tests }: DaySite): boolean =>
    cores > 0 || tests.length > 0 || cards.some(({ card }) => card.job.day !== null && card.job.day <= today);
  const groups = [
    ['Today', sites.filter(isToday)],
    ['Later this week', sites.filter((site) => !isToday(site))],
  ] as const;
  const dayOf = (at: string): string => new Date(at).toLocaleDateString('sv');
  const doneToday = sent.filter((one) => isOf(holder, one) && dayOf(one.at) === today);
  return (
    <FieldFrame back={navigator.onLine ? '/' : undefined} title={`Today, ${holder.name}`} heading>
      <Box sx={{ p: 2, display: 'flex', flexDirection: 'column', gap: 2, flex: 1 }}>
        <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1 }}>
          <Button variant="contained" disabled={busy} onClick={() => void take(today)} sx={{ minHeight: 56 }}>
            {busy ? 'Taking…' : 'Take today along'}
          </Button>
          <Button variant="outlined" disabled={busy} onClick={() => void take()} sx={{ minHeight: 56 }}>
            The whole week
          </Button>
        </Box>
        <Box role="status">{told}</Box>
        <Trouble error={error} />
        {clock && (
          <Box role="alert" sx={mark}>
            This device’s clock is {clock}. Set it: what stands here is of another day. The day of what you write is put
            right as it is sent.
          </Box>
        )}
        {entries.length > 0 && <WaitingLine />}
        {superseded.map(({ card: { job } }) => (
          <Box key={job.id} role="alert" sx={mark}>
            {job.name}, {job.zone}: another program was handed over since you took this card along.{' '}
            {job.replacedById ? (
              <Link to={`/cards/${job.replacedById}`}>Open the card that stands for it</Link>
            ) : (
              'This work is not in it any more.'
            )}
          </Box>
        ))}
        {sites.length === 0 && (
          <Typography>
            Nothing is on this device. With a connection take it along; then it opens without one.
          </Typography>
        )}
        {groups.map(([title, own]) =>
          own.length === 0 ? null : (
            <Box key={title} component="section" aria-label={title} sx={{ display: 'grid', gap: 2 }}>
              {title !== 'Today' && <Typography variant="h2">{title}</Typography>}
              {own.map((site) => (
                <Site key={site.siteId} site={site} today={today} now={now} />
              ))}
            </Box>
          ),
        )}
        {doneToday.length > 0 && (
          <Box component="section" aria-label="Done today">
            <Typography variant="h2">Done today</Typography>
            <SentList sent={doneToday} />
          </Box>
        )}
        <Box sx={{ flex: 1 }} />
        <Typography sx={{ color: colours.faded, fontSize: '0.93rem' }}>{WHY_KEPT}</Typography>
      </Box>
    </FieldFrame>
  );
}
