import type { Treatment } from '@glenfold/agronomy';
import {
  type ProductAnswer,
  type TreatmentChangeAnswer,
  type ZoneProgramAnswer,
  withReadableDays,
} from '@glenfold/contract';
import EditIcon from '@mui/icons-material/Edit';
import { Box, Button, Link as MuiLink, Typography } from '@mui/material';
import { type ReactNode, useState } from 'react';
import { Link } from 'react-router';
import { lacksPrice, tellSupply, tellWork, inLine } from '@glenfold/agronomy';
import { Words } from '../../ui/Words.tsx';
import { Cautions } from '../../ui/bits.tsx';
import { useMay } from '../../ui/session.tsx';
import { colours } from '../../ui/theme.ts';
import { useUnits } from '../../ui/units.tsx';
import { Opens } from '../../ui/working.tsx';
import { ChangeDialog } from './ChangeDialog.tsx';
import { ProductPick } from './ProductPick.tsx';
import { SetMachine } from './SetMachine.tsx';
import { keptOf, openedOf, useChangeTreatment } from '../../api/treatments.ts';
import { doseWords, packWords, shelfOf, times } from '../../ui/treatments.ts';

interface RowProps {
  readonly zoneId: string;
  /** m² of the zone. */
  readonly area: number;
  readonly treatment: Treatment;
  readonly before: TreatmentChangeAnswer | undefined;
  readonly products: readonly ProductAnswer[];
  /** Prices of work that may be set with it. */
  readonly work: ZoneProgramAnswer['work'];
  /** The first number of the page. */
  readonly main: boolean;
  readonly children?: ReactNode;
}

const standings: Readonly<Record<Treatment['status'], string>> = {
  planned: '',
  open: 'no rate yet',
  refused: 'refused',
  'left out': 'left out',
  'next year': 'put off to next year',
  down: 'all of it is down',
};

/** Nothing of it is to be done this year. */
const isIdle = (status: Treatment['status']): boolean =>
  status === 'left out' || status === 'next year' || status === 'down';

/** How much in the year, and in how many goings-over. */
function Amount({ treatment, main }: Pick<RowProps, 'treatment' | 'main'>) {
  const { say } = useUnits();
  const { status, rate, sense, supply, doses, dose, need, name } = treatment;
  const quiet = isIdle(status);
  const each = doses.length;
  const uneven = doses.some((one) => Math.abs(one.rate - doses[0]!.rate) > 1e-6);
  return (
    <Box sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 2, rowGap: 0.25, alignItems: 'baseline' }}>
      {rate && !quiet && status === 'planned' ? (
        <>
          <Opens
            title={`${supply?.name ?? name} for the year`}
            told={say(sense, rate.value)}
            working={rate.working}
            first={main}
            size="1.7rem"
          />
          <Typography component="span">
            {supply && sense !== 'layer' && sense !== 'rainfall' ? 'of product ' : ''}
            {times(each, dose)}
            {each > 1 && ` of ${say(sense, doses[0]!.rate)}${uneven ? ' at most' : ''}`}
          </Typography>
        </>
      ) : (
        <Typography component="span" sx={{ fontFamily: 'Bitter, serif', fontWeight: 700, fontSize: '1.25rem' }}>
          {(status === 'left out' && treatment.byHand ? 'left out by hand' : standings[status]) ||
            (each > 1 ? `${each} times` : 'once')}
        </Typography>
      )}
      {need && !quiet && (
        <Typography component="span" sx={{ color: colours.faded }}>
          for <Opens title={`${name}: what is wanted`} told={need.told} working={need.figure.working} />{' '}
          <Words>{need.name}</Words>
        </Typography>
      )}
    </Box>
  );
}

/** What is to be bought of it, and what that costs. */
function Buy({ treatment }: Pick<RowProps, 'treatment'>) {
  const { system, say } = useUnits();
  const may = useMay();
  const { supply, others, name, price, status, work = [], workUnpriced = [] } = treatment;
  if (status !== 'planned') return null;
  return (
    <Box sx={{ mt: 0.75 }}>
      {[...(supply ? [supply] : []), ...others].map((each) => (
        <Typography component="div" key={each.materialId}>
          <Opens
            title={`${each.name} for the zone`}
            told={tellSupply(each.quantity.value, each.unit, system)}
            working={each.quantity.working}
          />{' '}
          for the zone
          {others.length > 0 && ` of ${each.name}`}
          <br />
          <Opens title={`${name}: to buy`} told={packWords(each, system)} working={each.packs.working} />
          {each.cost ? (
            <>
              {', '}
              <Opens title={`${name}: cost`} told={say('money', each.cost.value)} working={each.cost.working} />
            </>
          ) : (
            may('prices.read') && (
              <>
                {', '}
                <MuiLink component={Link} to={shelfOf(treatment.remedy)}>
                  set its price
                </MuiLink>
              </>
            )
          )}
        </Typography>
      ))}
      {price && <Opens title={`${name}: price`} told={say('money', price.value)} working={price.working} />}
      {work.map(({ name: what, per, amount, cost }) => (
        <Typography component="div" key={what}>
          {what} {tellWork(amount, per)}
          {cost && (
            <>
              {', '}
              <Opens title={`${name}: ${what}`} told={say('money', cost.value)} working={cost.working} />
            </>
          )}
        </Typography>
      ))}
      {may('prices.read') && lacksPrice(treatment) && (
        <Typography sx={{ color: colours.ochre }}>No price yet: set hire and hours under Change.</Typography>
      )}
      {workUnpriced.map((what) => (
        <Typography key={what} sx={{ color: colours.ochre }}>
          {what} has no price any more: choose another.
        </Typography>
      ))}
    </Box>
  );
}

/** A treatment: one row of one pattern everywhere, that opens to its doses, cautions and what may be changed by hand. */
export function TreatmentRow({ zoneId, area, treatment, before, products, work, main, children }: RowProps) {
  const { system } = useUnits();
  const may = useMay();
  const change = useChangeTreatment(zoneId);
  const [changing, setChanging] = useState(false);
  const { key, name, words, cautions, more, facts, byHand, when, doses, status, remedy } = treatment;
  const [first, ...rest] = cautions;
  const id = `treatment-${key}`;
  const lines = doses.length > 1 || doses.some(({ from }) => from) ? doseWords(treatment, system) : [];
  const faded = isIdle(status);
  return (
    <Box
      component="section"
      id={id}
      tabIndex={-1}
      aria-labelledby={`${id}-name`}
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: '1fr', md: '118px minmax(0, 1fr) minmax(210px, 0.42fr)' },
        columnGap: 3,
        rowGap: 0.75,
        borderTop: `1px solid ${colours.line}`,
        py: 1.75,
        ...(faded ? { color: colours.faded } : {}),
      }}
    >
      <Box>
        <Typography variant="h2" id={`${id}-name`} sx={{ fontSize: '1.15rem' }}>
          <Words>{name}</Words>
        </Typography>
        {may('work.write') && (
          <Button
            size="small"
            startIcon={<EditIcon fontSize="inherit" />}
            aria-label={`Change ${inLine(name)} by hand`}
            onClick={() => setChanging(true)}
            sx={{ px: 0.5, minHeight: 28 }}
          >
            Change
          </Button>
        )}
      </Box>
      <Box sx={{ minWidth: 0 }}>
        <Amount treatment={treatment} main={main} />
        {byHand && (
          <Box sx={{ borderLeft: `3px solid ${colours.slate}`, pl: 1, my: 0.5, fontStyle: 'italic', maxWidth: 640 }}>
            <EditIcon fontSize="inherit" sx={{ verticalAlign: '-2px', mr: 0.5 }} aria-hidden />
            By hand{byHand.by ? `, ${byHand.by}` : ''}: {byHand.reason}
            {byHand.instead && ` (${byHand.instead})`}
          </Box>
        )}
        {byHand?.held && <Cautions texts={[withReadableDays(byHand.held)]} />}
        <Typography sx={{ mt: 0.5, maxWidth: 640 }}>
          <Words>{words}</Words>
        </Typography>
        {lines.length > 0 && !faded && (
          <Typography component="div" sx={{ mt: 0.5, maxWidth: 640 }}>
            {lines.join('; ')}
          </Typography>
        )}
        {when && <Cautions texts={[when]} />}
        {first && !faded && <Cautions texts={[first]} />}
        {(rest.length > 0 || more.length > 0 || children) && (
          <Box component="details" sx={{ mt: 0.75, '& > summary': { cursor: 'pointer', color: colours.slate } }}>
            <summary>More on {inLine(name)}</summary>
            <Box sx={{ pt: 0.5, maxWidth: 640 }}>
              {more.map((text) => (
                <Typography key={text} sx={{ mb: 0.5 }}>
                  <Words>{text}</Words>
                </Typography>
              ))}
              {children}
              <Cautions texts={rest} />
            </Box>
          </Box>
        )}
      </Box>
      <Box sx={{ minWidth: 0 }}>
        {!faded && (
          <ProductPick
            treatment={treatment}
            products={products}
            onPick={(material) =>
              change.mutate({
                seen: { id: key, version: before?.version ?? 0 },
                input: {
                  ...keptOf(before),
                  remedy,
                  values: { ...before?.change.values, material },
                  reason: before?.change.reason ?? 'Another product was chosen.',
                },
                opened: openedOf(before),
                named: new Map(products.map((product) => [product.id, product.name])),
              })
            }
          />
        )}
        <Buy treatment={treatment} />
        <SetMachine treatment={treatment} area={area} />
        {facts.map(({ name: label, told, figure }) => (
          <Typography component="div" key={label} sx={{ mt: 0.5, fontSize: '0.93rem' }}>
            {label} <Opens title={label} told={told} working={figure.working} />
          </Typography>
        ))}
      </Box>
      {changing && (
        <ChangeDialog
          zoneId={zoneId}
          products={products}
          work={work}
          treatment={treatment}
          before={before}
          onClose={() => setChanging(false)}
        />
      )}
    </Box>
  );
}
