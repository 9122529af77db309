import { type Sense, planned, present, tellSupply } from '@glenfold/agronomy';
import {
  type ReportLineAnswer,
  type ReportPlanAnswer,
  type ReportZoneAnswer,
  type SiteReportAnswer,
  withReadableDays,
} from '@glenfold/contract';
import { Box, Button, Typography } from '@mui/material';
import type { ReactNode } from 'react';
import { colours } from '../../ui/theme.ts';
import { ReachPractice } from '../../ui/ReachPractice.tsx';
import { ReadingBar } from '../../ui/ReadingBar.tsx';
import { Words } from '../../ui/Words.tsx';
import { YearPrice } from '../../ui/YearPrice.tsx';
import { Cautions } from '../../ui/bits.tsx';
import { Opens } from '../../ui/working.tsx';
import { dayWords } from '../../ui/days.ts';
import { dayOf } from '../../ui/today.ts';
import { OwnerPages } from './OwnerPages.tsx';
import { monthList, packWords, times } from '../../ui/treatments.ts';

/** What comes before anything is bought: ground that does not drain, or that no root gets into. */
function GroundFirst({ plan: { reading } }: { readonly plan: ReportPlanAnswer }) {
  const ground = reading.limitations.find(({ key }) => key === 'drainage' || key === 'compaction');
  if (!ground) return null;
  return (
    <Box sx={{ borderLeft: `3px solid ${colours.ochre}`, background: colours.ochreWash, px: 1.5, py: 0.75, mb: 1.5 }}>
      <strong>First:</strong> <Words>{`${ground.what} ${ground.evidence}`}</Words>
    </Box>
  );
}

/** Prices of a zone as its owner is told them, by treatment; nothing where none was told. */
type Prices = ReadonlyMap<string, number | null> | null;

function ToDo({
  plan: { program, units, currency },
  prices,
}: {
  readonly plan: ReportPlanAnswer;
  readonly prices: Prices;
}) {
  const say = (sense: Sense, value: number): string => present(sense, value, units, currency).text;
  const { judged, leftOut } = program;
  const given = planned(program.treatments);
  const cautions = [...new Set([...given, ...judged].flatMap((one): readonly string[] => one.cautions))];
  return (
    <>
      <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {given.map(({ key, name, words, supply, rate, sense, doses, dose, byHand }) => (
          <Box
            component="li"
            key={key}
            sx={{
              display: 'grid',
              gridTemplateColumns: { xs: '1fr', sm: '92px minmax(0, 1fr) auto' },
              columnGap: 2,
              py: 0.75,
              borderTop: `1px solid ${colours.line}`,
            }}
          >
            <Box sx={{ fontFamily: 'Bitter, serif', fontWeight: 700 }}>
              <Words>{name}</Words>
            </Box>
            <Box>
              {supply && (
                <>
                  {supply.name}
                  <br />
                </>
              )}
              {rate && (
                <>
                  <Opens
                    title={`${supply?.name ?? name}, rate`}
                    told={say(sense, rate.value)}
                    working={rate.working}
                  />{' '}
                </>
              )}
              {[times(doses.length, dose), monthList(doses)].filter(Boolean).join(', ')}
              <Box sx={{ fontSize: '0.93rem' }}>
                <Words>{words}</Words>
                {byHand && ` Set by hand: ${byHand.reason}`}
              </Box>
            </Box>
            {supply && (
              <Box sx={{ textAlign: { sm: 'right' } }}>
                <Opens
                  title={`${name} for the zone`}
                  told={tellSupply(supply.quantity.value, supply.unit, units)}
                  working={supply.quantity.working}
                />
                <br />
                {packWords(supply, units)}
                {prices && prices.get(key) != null && `, ${say('money', prices.get(key)!)}`}
                {!prices && supply.cost && (
                  <>
                    {', '}
                    <Opens
                      title={`${name}: cost`}
                      told={say('money', supply.cost.value)}
                      working={supply.cost.working}
                    />
                  </>
                )}
              </Box>
            )}
          </Box>
        ))}
      </Box>
      {judged.map(({ name, words }) => (
        <Typography key={name} sx={{ mt: 0.75 }}>
          <Words>{words}</Words>
        </Typography>
      ))}
      {leftOut.length > 0 && (
        <Typography sx={{ mt: 0.75 }}>
          Need not be bought: <Words>{leftOut.join(', ')}</Words>.
        </Typography>
      )}
      <Cautions texts={cautions} />
    </>
  );
}

/** What the test says in plain words; its numbers are one press away. */
function Plainly({ plan: { reading, units } }: { readonly plan: ReportPlanAnswer }) {
  const { limitations, bars } = reading;
  return (
    <>
      {limitations.length === 0 && <Typography>Nothing on the test limits this lawn.</Typography>}
      {limitations.map(({ key, what }) => (
        <Typography key={key} sx={{ mb: 0.75 }}>
          <Words>{what}</Words>
        </Typography>
      ))}
      {bars.length > 0 && (
        <Box component="details" sx={{ mt: 1, '& > summary': { cursor: 'pointer', color: colours.slate } }}>
          <summary>The numbers of the test</summary>
          {bars.map((bar) => (
            <ReadingBar key={bar.name} bar={bar} units={units} narrow />
          ))}
        </Box>
      )}
    </>
  );
}

function Zone({ zone, prices }: { readonly zone: ReportZoneAnswer; readonly prices: Prices }) {
  const { name, area, grass, plan, changing } = zone;
  return (
    <Box component="section" aria-label={name} sx={{ borderTop: `2px solid ${colours.ink}`, pt: 1.5, pb: 3 }}>
      <Box
        sx={{ display: 'flex', gap: 2, justifyContent: 'space-between', flexWrap: 'wrap', alignItems: 'start', mb: 1 }}
      >
        <Box>
          <Typography variant="h2">{name}</Typography>
          <Typography sx={{ color: colours.faded }}>
            {present('area', area, plan?.units ?? 'us').text} of {grass}
            {plan &&
              withReadableDays(
                `, ${plan.sampledOn ? `sampled ${plan.sampledOn}, ` : ''}program of ${dayOf(new Date(plan.issuedAt))}`,
              )}
          </Typography>
        </Box>
        {plan && (
          <Button variant="outlined" href={plan.pdf} target="_blank">
            On paper (PDF)
          </Button>
        )}
      </Box>
      {plan && changing && (
        <Typography sx={{ color: colours.ochre, mb: 1 }}>
          Something of it is being changed; this one holds until a new one is handed over.
        </Typography>
      )}
      {plan ? (
        <Box
          sx={{
            display: 'grid',
            gridTemplateColumns: { xs: '1fr', lg: 'minmax(0, 1fr) minmax(0, 1.25fr)' },
            columnGap: 5,
            rowGap: 3,
          }}
        >
          <Box>
            <Typography variant="h3" gutterBottom>
              What the test says
            </Typography>
            <Plainly plan={plan} />
          </Box>
          <Box>
            <Typography variant="h3" gutterBottom>
              What the lawn gets
            </Typography>
            <GroundFirst plan={plan} />
            <ToDo plan={plan} prices={prices} />
          </Box>
        </Box>
      ) : (
        <Typography>Nothing is handed over for it yet.</Typography>
      )}
    </Box>
  );
}

/** Lines of the year under one head; nothing where there are none. */
function YearPart({ title, lines }: { readonly title: string; readonly lines: readonly ReportLineAnswer[] }) {
  if (lines.length === 0) return null;
  return (
    <Box component="section" aria-label={title}>
      <Typography variant="h3" gutterBottom>
        {title}
      </Typography>
      <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {lines.map(({ zone, when, part, words }, index) => (
          <Box component="li" key={index} sx={{ borderTop: `1px solid ${colours.line}`, py: 0.75 }}>
            <Box sx={{ display: 'flex', justifyContent: 'space-between', gap: 2 }}>
              <strong>{zone}</strong>
              <Box component="span" sx={{ flex: 'none' }}>
                {when === null
                  ? 'no day yet'
                  : /^\d{4}-\d\d-\d\d$/.test(when)
                    ? `${dayWords(when)}${part ? `, ${part}` : ''}`
                    : when}
              </Box>
            </Box>
            <Words>{words}</Words>
          </Box>
        ))}
      </Box>
    </Box>
  );
}

/** What was done this year, what comes next, what moved, and when it is tested again. */
function Year({ year: { done, next, moved, retests }, entryKnown }: Pick<SiteReportAnswer, 'year' | 'entryKnown'>) {
  if (done.length + next.length + moved.length + retests.length === 0) return null;
  return (
    <Box
      component="section"
      aria-label="The year"
      sx={{ borderTop: `2px solid ${colours.ink}`, pt: 1.5, pb: 3, display: 'grid', rowGap: 2.5 }}
    >
      <Typography variant="h2">The year</Typography>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: '1fr', md: 'minmax(0, 1fr) minmax(0, 1fr)' },
          columnGap: 5,
          rowGap: 2.5,
          alignItems: 'start',
        }}
      >
        <Box sx={{ display: 'grid', rowGap: 2.5 }}>
          <YearPart title="What moved" lines={moved} />
          <YearPart title="Done in the last twelve months" lines={done} />
          <YearPart title="To be tested again" lines={retests} />
        </Box>
        <Box>
          <YearPart title="What comes next" lines={next} />
          {next.length > 0 && !entryKnown && (
            <Typography sx={{ color: colours.ochre, mt: 1 }}>
              How we get in is not known: tell us about the gate, a key or a code before the first visit.
            </Typography>
          )}
        </Box>
      </Box>
    </Box>
  );
}

/** Reports of before, to be looked up. */
function Earlier({ reports }: { readonly reports: SiteReportAnswer['earlier'] }) {
  if (reports.length === 0) return null;
  return (
    <Box component="section" aria-label="Earlier reports" sx={{ mb: 3 }}>
      <Typography variant="h3">Earlier reports</Typography>
      {reports.map(({ on, pdf }) => (
        <Button key={pdf} size="small" href={pdf} target="_blank" sx={{ px: 0, mr: 2 }}>
          {dayWords(on)} (PDF)
        </Button>
      ))}
    </Box>
  );
}

/** What was handed over for a site, to be read by the one who owns it. */
export function SiteReport({
  report,
  children,
}: {
  readonly report: SiteReportAnswer;
  /** What comes before it: a quote that waits for an answer. */
  readonly children?: ReactNode;
}) {
  const { siteName, place, practiceName, zones, year } = report;
  const sorted = [...zones].sort((a, b) => Number(b.plan !== null) - Number(a.plan !== null));
  const programs = sorted.map((zone) => {
    const own = report.price?.lines.filter((line) => line.zone === zone.name);
    const prices = own ? new Map(own.map(({ key, price }) => [key, price])) : null;
    return <Zone key={zone.name} zone={zone} prices={prices} />;
  });
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 5 }, py: 3, maxWidth: 1180, width: '100%' }}>
      <Typography variant="h1">{siteName}</Typography>
      <Typography sx={{ color: colours.faded, mb: 3 }}>
        {place && `${place}. `}By{' '}
        <ReachPractice name={practiceName} phone={report.practicePhone} email={report.practiceEmail} />.
      </Typography>
      {children}
      {report.price && <YearPrice price={report.price} />}
      {report.owner && (
        <Box sx={{ mb: 4 }}>
          <OwnerPages answer={report.owner} />
          <Button variant="outlined" href={report.owner.pdf} target="_blank" sx={{ mt: 2 }}>
            The report on paper (PDF)
          </Button>
        </Box>
      )}
      {zones.length === 0 && <Typography>The ground is not divided into zones yet.</Typography>}
      <Year year={year} entryKnown={report.entryKnown} />
      <Earlier reports={report.earlier} />
      {report.owner ? (
        <Box
          component="details"
          sx={{ mb: 3, '& > summary': { cursor: 'pointer', color: colours.slate, fontWeight: 700 } }}
        >
          <summary>Appendix: the programs as they were handed over, with their workings</summary>
          {programs}
        </Box>
      ) : (
        programs
      )}
      <Typography sx={{ color: colours.faded, fontSize: '0.9rem', borderTop: `1px solid ${colours.line}`, pt: 1 }}>
        Advice, to be weighed with local extension guidance, codes and licensed practice. The label and local law come
        first.
      </Typography>
    </Box>
  );
}
