import type { Finding, Judged } from '@glenfold/agronomy';
import type { ZoneProgramAnswer } from '@glenfold/contract';
import AddIcon from '@mui/icons-material/Add';
import { Box, Button, Link as MuiLink, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { queries } from '../../api/queries.ts';
import { LabAdvice } from '../../ui/LabAdvice.tsx';
import { NoTest } from '../../ui/NoTest.tsx';
import { Words } from '../../ui/Words.tsx';
import { Cautions, Empty, Trouble } from '../../ui/bits.tsx';
import { phText } from '../../ui/results.ts';
import { useMay } from '../../ui/session.tsx';
import type { StepProps } from '../../ui/stepProps.ts';
import { stepPath } from '../../ui/steps.ts';
import { colours } from '../../ui/theme.ts';
import { dayOf } from '../../ui/today.ts';
import { shelfOf } from '../../ui/treatments.ts';
import { useUnits } from '../../ui/units.tsx';
import { Opens } from '../../ui/working.tsx';
import { Balance } from './BalanceGauge.tsx';
import { ChangeDialog } from './ChangeDialog.tsx';
import { HandOver } from './HandOver.tsx';
import { TreatmentRow } from './TreatmentRow.tsx';
import { YearLine } from './YearLine.tsx';
import { useChangeTreatment } from './api.ts';

/** Why zones of the same pH get different lime. */
function Comparisons({ answer }: { readonly answer: ZoneProgramAnswer }) {
  const { comparisons } = answer.program;
  if (comparisons.length === 0) return null;
  return (
    <Box
      component="aside"
      aria-label="Why other zones differ"
      sx={{
        background: colours.slateWash,
        borderLeft: `3px solid ${colours.slate}`,
        px: 2,
        py: 1.25,
        my: 1,
        maxWidth: 640,
      }}
    >
      <Typography variant="h3" gutterBottom>
        Same pH, another answer
      </Typography>
      {comparisons.map(({ otherZone, words, reasons }) => (
        <Box key={otherZone} sx={{ mb: 1 }}>
          <Typography sx={{ fontWeight: 700 }}>{words}</Typography>
          <Box component="ul" sx={{ m: 0, pl: 2.25 }}>
            {reasons.map((reason) => (
              <li key={reason}>{reason}</li>
            ))}
          </Box>
        </Box>
      ))}
    </Box>
  );
}

const standings: Readonly<Record<Judged['status'], string>> = {
  none: 'none',
  refused: 'not here',
  'cannot say': 'cannot say yet',
};

/** What was looked at and is not given: one line each, with its reason. */
function JudgedRows({ rows }: { readonly rows: readonly Judged[] }) {
  if (rows.length === 0) return null;
  return (
    <Box component="section" aria-labelledby="judged" sx={{ borderTop: `2px solid ${colours.ink}`, mt: 2, pt: 1.5 }}>
      <Typography variant="h2" id="judged" sx={{ fontSize: '1.15rem', mb: 0.5 }}>
        Also looked at
      </Typography>
      <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {rows.map(({ name, status, words, cautions }) => (
          <Box
            component="li"
            key={name}
            sx={{
              display: 'grid',
              gridTemplateColumns: { xs: '1fr 1fr', sm: '118px 132px minmax(0, 1fr)' },
              columnGap: 3,
              py: 0.75,
              borderTop: `1px solid ${colours.line}`,
            }}
          >
            <Box sx={{ fontWeight: 700 }}>
              <Words>{name}</Words>
            </Box>
            <Box sx={{ color: status === 'refused' ? colours.ochre : colours.faded }}>{standings[status]}</Box>
            <Box sx={{ gridColumn: { xs: '1 / -1', sm: 'auto' }, maxWidth: 640 }}>
              <Words>{words}</Words>
              <Cautions texts={cautions} />
            </Box>
          </Box>
        ))}
      </Box>
    </Box>
  );
}

/** What works against what, each with the mend. */
function Findings({ zoneId, answer }: { readonly zoneId: string; readonly answer: ZoneProgramAnswer }) {
  const may = useMay();
  const change = useChangeTreatment(zoneId);
  const mend = ({ mend: offered }: Finding): void => {
    if (!offered) return;
    const { key, remedy, reason, out, months } = offered.change;
    const before = answer.changes.find((one) => one.change.key === key);
    change.mutate({
      seen: { id: key, version: before?.version ?? 0 },
      input: {
        remedy,
        added: before?.change.added ?? false,
        values: { ...before?.change.values },
        months: months ? [...months] : before?.change.months ? [...before.change.months] : null,
        out: out ?? null,
        reason,
      },
      ...(before ? { opened: before.change } : {}),
    });
  };
  const { findings } = answer.program;
  if (findings.length === 0) return null;
  return (
    <Box
      component="section"
      aria-label="To be minded"
      sx={{ borderLeft: `3px solid ${colours.ochre}`, background: colours.ochreWash, px: 1.5, py: 0.75, mb: 1.5 }}
    >
      {findings.map((finding) => (
        <Box
          key={finding.key}
          sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 2, alignItems: 'baseline', py: 0.25 }}
        >
          <Box sx={{ flex: '1 1 320px' }}>
            <Words>{finding.words}</Words>
          </Box>
          {finding.mend && may('work.write') && (
            <Button size="small" variant="outlined" onClick={() => mend(finding)} disabled={change.isPending}>
              {finding.mend.words}
            </Button>
          )}
        </Box>
      ))}
      <Trouble error={change.error} />
    </Box>
  );
}

/** What is other than in the year that is sold to everybody, and why. */
function AgainstUsual({ usual }: Pick<ZoneProgramAnswer['program'], 'usual'>) {
  if (!usual) return null;
  const { name, differences } = usual;
  return (
    <Box component="section" aria-labelledby="usual" sx={{ borderTop: `2px solid ${colours.ink}`, mt: 2, pt: 1.5 }}>
      <Typography variant="h2" id="usual" sx={{ fontSize: '1.15rem', mb: 0.5 }}>
        Against the usual year, “{name}”
      </Typography>
      {differences.length === 0 && <Typography>Nothing is other than usual here.</Typography>}
      <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {differences.map(({ name: what, usual: was, here, why }) => (
          <Box
            component="li"
            key={what}
            sx={{
              display: 'grid',
              gridTemplateColumns: { xs: '1fr', sm: '118px 190px minmax(0, 1fr)' },
              columnGap: 3,
              py: 0.75,
              borderTop: `1px solid ${colours.line}`,
            }}
          >
            <Box sx={{ fontWeight: 700 }}>
              <Words>{what}</Words>
            </Box>
            <Box>
              {here}
              <Box sx={{ color: colours.faded }}>usually {was}</Box>
            </Box>
            <Box sx={{ maxWidth: 640 }}>
              <Words>{why}</Words>
            </Box>
          </Box>
        ))}
      </Box>
    </Box>
  );
}

/** What its owner has in hand, and what the program says now that it did not then. */
function InHand({ handedOver }: Pick<ZoneProgramAnswer, 'handedOver'>) {
  if (!handedOver) return null;
  const { at, pdf, differences } = handedOver;
  return (
    <Box
      sx={{
        borderLeft: `3px solid ${differences.length > 0 ? colours.ochre : colours.lichen}`,
        px: 1.5,
        py: 0.25,
        mb: 1.5,
      }}
    >
      <MuiLink href={pdf} target="_blank">
        Handed over on {dayOf(new Date(at))}
      </MuiLink>
      {differences.length === 0 ? (
        ', and nothing has changed since.'
      ) : (
        <>
          . Changed since, until a new version is handed over:
          <Box component="ul" sx={{ m: 0, pl: 2.25 }}>
            {differences.map((text) => (
              <li key={text}>
                <Words>{text}</Words>
              </li>
            ))}
          </Box>
        </>
      )}
    </Box>
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
  const { treatments, judged, year, cost, unpriced, leftOut, balance } = program;
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
        </Box>
        <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'center', flexWrap: 'wrap' }}>
          {!priced || treatments.length === 0 ? null : cost ? (
            <Typography component="div">
              The zone{' '}
              <Opens
                title="The program of the zone"
                told={say('money', cost.value)}
                working={cost.working}
                size="1.25rem"
              />
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
      {result ? <LabAdvice result={result} /> : <NoTest siteId={site.id} zone={zone} />}
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
              <MuiLink component={Link} to={stepPath(site.id, 'ground')}>
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
          treatment={treatment}
          before={changes.find((one) => one.change.key === treatment.key)}
          products={products}
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
          there={treatments.map(({ remedy }) => remedy)}
          onClose={() => setAdding(false)}
        />
      )}
      <AgainstUsual usual={program.usual} />
      <JudgedRows rows={judged} />
    </>
  );
}
