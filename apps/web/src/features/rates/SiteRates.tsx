import { type Treatment, inLine, lacksPrice, zoneCost } from '@glenfold/agronomy';
import type { SiteProgramAnswer } from '@glenfold/contract';
import { Box, Button, Link as MuiLink, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { Words } from '../../ui/Words.tsx';
import { Empty, Trouble } from '../../ui/bits.tsx';
import type { StepProps } from '../../ui/stepProps.ts';
import { stepPath } from '../../ui/steps.ts';
import { colours } from '../../ui/theme.ts';
import { useUnits } from '../../ui/units.tsx';
import { Opens } from '../../ui/working.tsx';
import { useCurrency } from '../../ui/session.tsx';
import { HandOver } from './HandOver.tsx';
import { BeginYear } from './InHand.tsx';
import { OfferButton, PriceTold, SiteQuote } from './Quote.tsx';
import { SectionTable } from './SectionTable.tsx';
import { Shopping } from './Shopping.tsx';
import { ratesQueries } from './api.ts';
import { monthOf } from '../../ui/treatments.ts';

/** An amount that breaks before its unit and nowhere else. */
function Amount({ told }: { readonly told: string }) {
  const [number = '', ...unit] = told.split(' ');
  return (
    <>
      {number} <span style={{ whiteSpace: 'nowrap' }}>{unit.join(' ')}</span>
    </>
  );
}

/** What a zone gets of one remedy, in a cell. */
function Cell({ treatments }: { readonly treatments: readonly Treatment[] }) {
  const { say } = useUnits();
  return treatments.map(({ key, status, rate, sense, doses, byHand }) => {
    const months = [...new Set(doses.flatMap((dose) => monthOf(dose, true) ?? []))].join(', ');
    return (
      <Box key={key} sx={{ py: 0.25, color: status === 'planned' ? colours.ink : colours.faded }}>
        <strong>{status === 'planned' ? rate ? <Amount told={say(sense, rate.value)} /> : 'once' : status}</strong>
        {byHand && <span title={byHand.reason}> ✎</span>}
        {status === 'planned' && months !== '' && (
          <Box sx={{ color: colours.faded, fontSize: '0.88rem', whiteSpace: 'nowrap' }}>{months}</Box>
        )}
      </Box>
    );
  });
}

/** What a zone comes to of what is bought and hired for all. */
function CostCell({ list, ...zone }: Pick<SiteProgramAnswer, 'list'> & Parameters<typeof zoneCost>[0]) {
  const { say } = useUnits();
  const cost = zoneCost(zone, list, useCurrency());
  const open = zone.treatments.filter(lacksPrice).map(({ name }) => inLine(name));
  return (
    <>
      {cost ? <Opens title={`${zone.zone}: cost`} told={say('money', cost.value)} working={cost.working} /> : 'open'}
      {open.length > 0 && <Box sx={{ color: colours.ochre, fontSize: '0.88rem' }}>without {open.join(', ')}</Box>}
    </>
  );
}

/** The same across zones: a row a zone, a column a remedy, in the order of work. */
function Across({
  siteId,
  answer: { zones, list, priced },
}: {
  readonly siteId: string;
  readonly answer: SiteProgramAnswer;
}) {
  const remedies = [
    ...new Map(
      zones
        .flatMap(({ program }) => program.treatments)
        .sort((one, other) => one.stage - other.stage)
        .map(({ remedy, name }) => [remedy, name]),
    ),
  ];
  return (
    <Box sx={{ overflowX: 'auto' }} tabIndex={0} role="region" aria-label="The program across zones">
      <Box
        component="table"
        sx={{
          borderCollapse: 'collapse',
          width: '100%',
          '& th, & td': {
            textAlign: 'left',
            verticalAlign: 'top',
            py: 0.75,
            pr: 2.5,
            borderTop: `1px solid ${colours.line}`,
          },
        }}
      >
        <thead>
          <tr>
            <Box component="th" scope="col" sx={{ fontFamily: 'Bitter, serif' }}>
              Zone
            </Box>
            {priced && (
              <Box component="th" scope="col" sx={{ fontFamily: 'Bitter, serif' }}>
                Cost
              </Box>
            )}
            {remedies.map(([remedy, name]) => (
              <Box component="th" scope="col" key={remedy} sx={{ fontFamily: 'Bitter, serif', whiteSpace: 'nowrap' }}>
                <Words>{name}</Words>
              </Box>
            ))}
          </tr>
        </thead>
        <tbody>
          {zones.map(({ zoneId, name, program }) => (
            <tr key={zoneId}>
              <Box component="th" scope="row" sx={{ fontWeight: 400, minWidth: 120 }}>
                <MuiLink component={Link} to={stepPath(siteId, 'rates', zoneId)}>
                  {name}
                </MuiLink>
                {program.findings.length > 0 && (
                  <Box sx={{ color: colours.ochre, fontSize: '0.88rem' }}>{program.findings.length} to mind</Box>
                )}
              </Box>
              {priced && (
                <td>
                  <CostCell zoneId={zoneId} zone={name} treatments={program.treatments} list={list} />
                </td>
              )}
              {remedies.map(([remedy]) => (
                <td key={remedy}>
                  <Cell treatments={program.treatments.filter((treatment) => treatment.remedy === remedy)} />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </Box>
    </Box>
  );
}

/** The program of the whole site, and one list to buy. */
export function SiteRates({ site, zones }: StepProps) {
  const { system } = useUnits();
  const { data: answer, error } = useQuery(ratesQueries.siteProgram(site.id, system));
  if (error) return <Trouble error={error} />;
  if (!answer) return <Typography sx={{ color: colours.faded }}>Adding up the zones…</Typography>;
  if (answer.zones.length === 0)
    return (
      <Empty title="No zone has a test yet" to={stepPath(site.id, 'lab')} action="Enter a result">
        The program follows from the tests; work can be added to a zone by hand.
      </Empty>
    );
  return (
    <>
      <Box sx={{ display: 'flex', justifyContent: 'space-between', gap: 2, flexWrap: 'wrap', mb: 1 }}>
        <Typography variant="h1" component="h2">
          The year’s program
        </Typography>
        <Box sx={{ display: 'flex', gap: 1.5, flexWrap: 'wrap', alignItems: 'center' }}>
          <Button variant="outlined" href={`/api/sites/${site.id}/program.pdf?units=${system}`} target="_blank">
            Print a draft (PDF)
          </Button>
          <OfferButton
            siteId={site.id}
            open={[...answer.list.unpriced, ...answer.list.unpricedWork.map(({ name, zone }) => `${name}, ${zone}`)]}
          />
          <HandOver siteId={site.id} zones={zones} />
        </Box>
      </Box>
      {answer.over && (
        <Box
          sx={{
            borderLeft: `3px solid ${colours.ochre}`,
            background: colours.ochreWash,
            px: 1.5,
            py: 0.75,
            mb: 1.5,
            display: 'flex',
            gap: 2,
            alignItems: 'baseline',
          }}
        >
          <span>
            <strong>The year that was handed over is over.</strong> The next takes over what was put off.
          </span>
          <BeginYear siteId={site.id} />
        </Box>
      )}
      <SiteQuote siteId={site.id} />
      <PriceTold siteId={site.id} now={answer.list.cost?.value ?? null} />
      <Across siteId={site.id} answer={answer} />
      <SectionTable siteId={site.id} sections={answer.sections} />
      <Shopping siteId={site.id} answer={answer} />
    </>
  );
}
