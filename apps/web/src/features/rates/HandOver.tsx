import { type ZoneProgram, differencesOf, planned } from '@glenfold/agronomy';
import { type HandOverAheadAnswer, type JobAheadAnswer, withReadableDays } from '@glenfold/contract';
import type { ZoneAnswer } from '@glenfold/contract';
import { Box, Button, Link as MuiLink, Typography } from '@mui/material';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { type ReactNode, useState } from 'react';
import { Link } from 'react-router';
import { queries } from '../../api/queries.ts';
import { DialogFrame } from '../../ui/DialogFrame.tsx';
import { Words } from '../../ui/Words.tsx';
import { Trouble } from '../../ui/bits.tsx';
import { dayWords } from '../../ui/days.ts';
import { useMay, useSession } from '../../ui/session.tsx';
import { stepPath } from '../../ui/steps.ts';
import { colours } from '../../ui/theme.ts';
import { dayOf } from '../../ui/today.ts';
import { useUnits } from '../../ui/units.tsx';
import { ratesQueries, useHandOver } from './api.ts';

interface HandOverProps {
  readonly siteId: string;
  /** Only this one of them; the whole site without. */
  readonly zone?: Pick<ZoneAnswer, 'id' | 'name'> | undefined;
  readonly zones: readonly unknown[];
}

/** Freezes what the owner sees, as one program of the site or of a zone of it; what that does is shown first. */
export function HandOver({ siteId, zone, zones }: HandOverProps) {
  const may = useMay();
  const [open, setOpen] = useState(false);
  if (!may('work.write')) return null;
  const title = zone && zones.length > 1 ? 'Hand this zone over' : 'Hand the program over';
  return (
    <>
      <Button variant="contained" onClick={() => setOpen(true)}>
        {title}…
      </Button>
      {open && <HandOverDialog title={title} siteId={siteId} zone={zone} onClose={() => setOpen(false)} />}
    </>
  );
}

type Told = Readonly<Record<string, { readonly name: string; readonly program: Pick<ZoneProgram, 'treatments'> }>>;

/** Programs by zone as a page shows them, and as they are now. */
function useShownAndNow({ siteId, zone }: Pick<HandOverProps, 'siteId' | 'zone'>) {
  const { system } = useUnits();
  const client = useQueryClient();
  const ofSite = ratesQueries.siteProgram(siteId, system);
  const ofZone = queries.program(zone?.id ?? '', system);
  const told = (): Told | undefined => {
    if (zone) {
      const answer = client.getQueryData(ofZone.queryKey);
      return answer && { [zone.id]: { name: zone.name, program: answer.program } };
    }
    const answer = client.getQueryData(ofSite.queryKey);
    return answer && Object.fromEntries(answer.zones.map((one) => [one.zoneId, one]));
  };
  const [shown] = useState(told);
  const fresh = { staleTime: 0, refetchOnMount: 'always' } as const;
  const one = useQuery({ ...ofZone, ...fresh, enabled: zone !== undefined });
  const all = useQuery({ ...ofSite, ...fresh, enabled: zone === undefined });
  const reading = zone ? one : all;
  return { shown, now: reading.isFetching ? undefined : told(), again: () => void reading.refetch() };
}

/** What somebody changed after the page was opened, a sentence each, with who it was. */
function unseenIn(shown: Told | undefined, now: Told | undefined, system: 'us' | 'metric', me: string): string[] {
  if (!shown || !now) return [];
  return Object.entries(now).flatMap(([id, { name, program }]) => {
    const before = shown[id];
    if (!before) return [];
    return differencesOf(before.program as ZoneProgram, program as ZoneProgram, system).map((told) => {
      const by = planned(program.treatments).find((one) => told.startsWith(`${one.name}:`))?.byHand?.by;
      return `${name}: ${told}${by && by !== me ? ` By hand, ${by}.` : ''}`;
    });
  });
}

const kinds: ReadonlyArray<readonly [JobAheadAnswer['kind'], string]> = [
  ['gone', 'Jobs that go'],
  ['changed', 'Jobs with another amount; what was decided of them stays'],
  ['moved', 'Jobs that move'],
];

function jobWords({ kind, amount, was, day, from, decided }: JobAheadAnswer): string {
  const on = day ? dayWords(day) : 'no day yet';
  const pieces = {
    gone: [on, amount],
    changed: [`${amount} instead of ${was}`, from ? `${on} instead of ${dayWords(from)}` : null],
    moved: [`${on} instead of ${from ? dayWords(from) : 'no day'}`],
  }[kind];
  return [...pieces, ...decided].filter(Boolean).join('; ');
}

function Part({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <Box component="section" aria-label={title} sx={{ mb: 1.5 }}>
      <Typography component="h3" sx={{ fontFamily: 'Bitter, serif', fontWeight: 700 }}>
        {title}
      </Typography>
      {children}
    </Box>
  );
}

/** Zones beside their last papers, and what becomes of the jobs. */
function Ahead({ zones, without, jobs }: HandOverAheadAnswer) {
  const same = zones.filter(({ at, differences }) => at !== null && differences.length === 0);
  const list = { m: 0, pl: 2.5 } as const;
  return (
    <>
      <Part title="On paper">
        <Box component="ul" sx={list}>
          {zones
            .filter((zone) => !same.includes(zone))
            .map(({ zoneId, name, at, differences }) => (
              <li key={zoneId}>
                <strong>{name}</strong>
                {at === null
                  ? ': its first paper'
                  : `, against the paper of ${withReadableDays(dayOf(new Date(at)))}: `}
                <Words>{differences.join(' ')}</Words>
              </li>
            ))}
          {same.length > 0 && <li>{same.map(({ name }) => name).join(', ')}: as on the last paper</li>}
          {without.length > 0 && (
            <li style={{ color: colours.faded }}>Not in it, nothing to hand over: {without.join(', ')}</li>
          )}
        </Box>
      </Part>
      {jobs.length === 0 && zones.some(({ at }) => at !== null) && (
        <Typography sx={{ mb: 1.5 }}>
          Every job stays as it is: its day, its amount, who does it, and what waits.
        </Typography>
      )}
      {kinds.map(([kind, title]) => {
        const of = jobs.filter((job) => job.kind === kind);
        return of.length === 0 ? null : (
          <Part key={kind} title={title}>
            <Box component="ul" sx={list}>
              {of.map((job, index) => (
                <li key={index}>
                  <strong>{job.name}</strong>: {jobWords(job)}
                </li>
              ))}
            </Box>
          </Part>
        );
      })}
    </>
  );
}

interface DialogProps extends Pick<HandOverProps, 'siteId' | 'zone'> {
  readonly title: string;
  readonly onClose: () => void;
}

/** What a hand-over does, and then where to go on from it. */
function HandOverDialog({ title, siteId, zone, onClose }: DialogProps) {
  const { system } = useUnits();
  const me = useSession().person?.name ?? '';
  const ahead = useQuery(ratesQueries.ahead(siteId, system, zone?.id));
  const { shown, now, again } = useShownAndNow({ siteId, zone });
  const issue = useHandOver(siteId, system);
  const unseen = unseenIn(shown, now, system, me);
  if (issue.data) return <HandedOver siteId={siteId} pdf={issue.data.pdf} onClose={onClose} />;
  const hand = (seal: string): void =>
    issue.mutate(
      { seal, ...(zone ? { zoneIds: [zone.id] } : {}) },
      {
        onError: () => {
          void ahead.refetch();
          again();
        },
      },
    );
  return (
    <DialogFrame
      title={title}
      onClose={onClose}
      width="md"
      actions={
        <>
          <Button onClick={onClose}>Not yet</Button>
          <Button
            variant="contained"
            disabled={!ahead.data || ahead.isFetching || issue.isPending}
            onClick={() => hand(ahead.data!.seal)}
          >
            Hand over
          </Button>
        </>
      }
    >
      <Typography sx={{ mb: 1.5 }}>
        The paper is frozen as it stands now, and its doses become the jobs of the season.
      </Typography>
      <Trouble error={issue.error ?? ahead.error} />
      {unseen.length > 0 && (
        <Box
          role="alert"
          sx={{ borderLeft: `3px solid ${colours.ochre}`, background: colours.ochreWash, px: 1.5, py: 0.75, mb: 1.5 }}
        >
          <strong>Changed since you opened this page:</strong>
          <Box component="ul" sx={{ m: 0, pl: 2.5 }}>
            {unseen.map((told) => (
              <li key={told}>
                <Words>{told}</Words>
              </li>
            ))}
          </Box>
        </Box>
      )}
      {ahead.data ? (
        <Ahead {...ahead.data} />
      ) : (
        !ahead.error && <Typography sx={{ color: colours.faded }}>Looking at what it would change…</Typography>
      )}
    </DialogFrame>
  );
}

/** Where a program that was handed over is taken up. */
function HandedOver({
  siteId,
  pdf,
  onClose,
}: {
  readonly siteId: string;
  readonly pdf: string;
  readonly onClose: () => void;
}) {
  const may = useMay();
  const next: ReadonlyArray<readonly [to: string, name: string, what: string]> = [
    [stepPath(siteId, 'season'), 'Season', 'its jobs on their days'],
    ['/today', 'Cards of the week', 'what goes into the van'],
    [`/sites/${siteId}/owner-report`, 'Owner’s report', 'what its owner reads'],
  ];
  return (
    <DialogFrame
      title="Handed over"
      onClose={onClose}
      actions={
        <Button variant="contained" onClick={onClose}>
          Done
        </Button>
      }
    >
      <Typography role="status" sx={{ mb: 1 }}>
        Handed over as it stands now, and kept.{' '}
        <MuiLink href={pdf} target="_blank">
          Open the PDF
        </MuiLink>
      </Typography>
      <Typography sx={{ color: colours.faded }}>Where it goes on:</Typography>
      <Box component="ul" sx={{ m: 0, pl: 2.5 }}>
        {next.map(([to, name, what]) => (
          <li key={to}>
            <MuiLink component={Link} to={to}>
              {name}
            </MuiLink>
            : {what}
          </li>
        ))}
        {may('costs.read') && (
          <li>
            <MuiLink component={Link} to={`${stepPath(siteId, 'rates')}?whole=`} onClick={onClose}>
              The whole site
            </MuiLink>
            : what to buy, and the quote to offer
          </li>
        )}
      </Box>
    </DialogFrame>
  );
}
