import { type Figure, inLine, zoneCost } from '@glenfold/agronomy';
import AddIcon from '@mui/icons-material/Add';
import { Box, Button, Link as MuiLink, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { queries } from '../../api/queries.ts';
import { LabAdvice } from '../../ui/LabAdvice.tsx';
import { NoTest } from '../../ui/NoTest.tsx';
import { RulesThatBind } from './RulesThatBind.tsx';
import { Words } from '../../ui/Words.tsx';
import { Empty, Trouble } from '../../ui/bits.tsx';
import { phText } from '../../ui/results.ts';
import { useCurrency, useMay } from '../../ui/session.tsx';
import type { StepProps } from '../../ui/stepProps.ts';
import { stepPath } from '../../ui/steps.ts';
import { colours } from '../../ui/theme.ts';
import { shelfOf } from '../../ui/treatments.ts';
import { useUnits } from '../../ui/units.tsx';
import { Opens } from '../../ui/working.tsx';
import { ratesQueries } from './api.ts';
import { Balance } from './BalanceGauge.tsx';
import { AgainstUsual, Comparisons, JudgedRows } from './Beside.tsx';
import { ChangeDialog } from './ChangeDialog.tsx';
import { Findings } from './Findings.tsx';
import { HandOver } from './HandOver.tsx';
import { InHand, YearBefore } from './InHand.tsx';
import { TreatmentRow } from './TreatmentRow.tsx';
import { YearLine } from './YearLine.tsx';

/** What a zone costs: its share of what is bought for the whole site, as the site’s page has it; and bought alone. */
function ZoneSum({
  siteId,
  zoneId,
  alone,
  shared,
}: {
  readonly siteId: string;
  readonly zoneId: string;
  readonly alone: Figure;
  readonly shared: boolean;
}) {
  const { system, say } = useUnits();
  const currency = useCurrency();
  const { data } = useQuery({ ...ratesQueries.siteProgram(siteId, system), enabled: shared });
  const own = data?.zones.find((one) => one.zoneId === zoneId);
  const share =
    data && own && zoneCost({ zoneId, zone: own.name, treatments: own.program.treatments }, data.list, currency);
  const told = share ?? alone;
  return (
    <>
      The zone{' '}
      <Opens
        title={share ? 'Its share of what is bought for the site' : 'The program of the zone'}
        told={say('money', told.value)}
        working={told.working}
        size="1.25rem"
      />
      {!share && shared && ', if bought for it alone'}
      {share && Math.abs(share.value - alone.value) >= 0.5 && (
        <Box component="span" sx={{ color: colours.faded }}>
          {', its share of the site; bought for it alone '}
          <Opens title="The program of the zone" told={say('money', alone.value)} working={alone.working} />
        </Box>
      )}
    </>
  );
}

/** The program of a zone: its year, its balance, and its treatments in the order of work. */
export function ZoneRates({ site, zone, zones }: StepProps) {
  const { system, say } = useUnits();
  const may = useMay();
  const { data: answer, error } = useQuery({ ...queries.program(zone?.id ?? '', system), enabled: !!zone });
  const { data: products = [] } = useQuery({ ...queries.products(), enabled: may('prices.read') });
  const [adding, setAdding] = useState(false);
  if (!zone)
    return (
      <Empty title="No zones yet" to={stepPath(site.id, 'ground')} action="Add a zone">
        Rates belong to zones.
      </Empty>
    );
  if (error) return <Trouble error={error} />;
  if (!answer) return <Typography sx={{ color: colours.faded }}>Working out the program…</Typography>;
  const { program, reading, result, changes, priced } = answer;
  const { treatments, judged, year, cost, unpriced, unpricedWork = [], leftOut, balance } = program;
  const [ground] = reading.limitations.filter(({ key }) => key === 'drainage' || key === 'compaction');
  const unset = treatments.find(({ supply }) => supply?.cost === null);
  const main = treatments.find(({ rate, status }) => rate && status === 'planned');
  const open = (key: string): void => document.getElementById(`treatment-${key}`)?.focus();
  return (
    <>
      <Box
        sx={{
          display: 'flex',
          justifyContent: 'space-between',
          gap: 2,
          flexWrap: 'wrap',
          alignItems: 'start',
          mb: 1.5,
        }}
      >
        <Box>
          <Typography variant="h1" component="h2">
            {zone.name}
          </Typography>
          <Typography sx={{ color: colours.faded }}>
            {say('area', zone.area)}
            {result && `, pH ${phText(result)}`}
            {result?.values.bufferPh && `, buffer ${result.values.bufferPh.value.toFixed(1)}`}
            {leftOut.length > 0 && (
              <>
                . Need not be bought: <Words>{leftOut.join(', ')}</Words>
              </>
            )}
          </Typography>
          {answer.borrowed && (
            <Typography sx={{ color: colours.ochre, fontWeight: 700 }}>
              <Words>{answer.borrowed}</Words>
            </Typography>
          )}
        </Box>
        <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'center', flexWrap: 'wrap' }}>
          {!priced || treatments.length === 0 ? null : cost ? (
            <Typography component="div">
              <ZoneSum siteId={site.id} zoneId={zone.id} alone={cost} shared={zones.length > 1} />
              {unpricedWork.length > 0 && (
                <span style={{ color: colours.ochre }}>
                  , without {unpricedWork.map(inLine).join(', ')}: no price yet
                </span>
              )}
            </Typography>
          ) : (
            <Typography>
              Cost open: set a price for{' '}
              <MuiLink component={Link} to={shelfOf(unset?.remedy ?? 'lime')}>
                {unpriced.join(', ')}
              </MuiLink>
            </Typography>
          )}
          <Button component={Link} to={`/settings?site=${site.id}&zone=${zone.id}`} size="small">
            How it is decided
          </Button>
          {treatments.length > 0 && (
            <Button
              variant="outlined"
              href={`/api/zones/${zone.id}/program.pdf?units=${system}`}
              target="_blank"
              title="As it stands now; nothing is handed over"
            >
              Print a draft (PDF)
            </Button>
          )}
          {treatments.length > 0 && <HandOver siteId={site.id} zone={zone} zones={zones} />}
        </Box>
      </Box>
      <RulesThatBind rules={program.rules} to={`/settings/rules?site=${site.id}`} />
      {result ? <LabAdvice result={result} beside={program.besideLab} /> : <NoTest siteId={site.id} zone={zone} />}
      <YearBefore siteId={site.id} yearBefore={answer.yearBefore} />
      <InHand handedOver={answer.handedOver} />
      {ground && (
        <Typography
          sx={{ borderLeft: `3px solid ${colours.ochre}`, background: colours.ochreWash, px: 1.5, py: 0.75, mb: 1.5 }}
        >
          <strong>First:</strong> <Words>{`${ground.what} ${ground.evidence}`}</Words>
        </Typography>
      )}
      <Findings zoneId={zone.id} answer={answer} />
      {treatments.length > 0 && (
        <Box
          sx={{
            display: 'grid',
            gridTemplateColumns: { xs: '1fr', lg: 'minmax(0, 1fr) auto' },
            columnGap: 3,
            alignItems: 'start',
          }}
        >
          {year ? (
            <YearLine year={year} treatments={treatments} onOpen={open} />
          ) : (
            <Typography sx={{ color: colours.faded, mb: 1 }}>
              Months are not known:{' '}
              <MuiLink component={Link} to={`/sites/${site.id}/about`}>
                give the site a climate
              </MuiLink>
              .
            </Typography>
          )}
          <Balance balance={balance} />
        </Box>
      )}
      {treatments.map((treatment) => (
        <TreatmentRow
          key={treatment.key}
          zoneId={zone.id}
          area={zone.area}
          treatment={treatment}
          before={changes.find((one) => one.change.key === treatment.key)}
          products={products}
          work={answer.work}
          main={treatment === main}
        >
          {treatment.remedy === 'lime' && <Comparisons answer={answer} />}
        </TreatmentRow>
      ))}
      {may('work.write') && (
        <Button startIcon={<AddIcon />} onClick={() => setAdding(true)} sx={{ mt: 1 }}>
          Add a treatment
        </Button>
      )}
      {adding && (
        <ChangeDialog
          zoneId={zone.id}
          products={products}
          work={answer.work}
          there={treatments.map(({ remedy }) => remedy)}
          onClose={() => setAdding(false)}
        />
      )}
      <AgainstUsual usual={program.usual} />
      <JudgedRows rows={judged} />
    </>
  );
}
