import { type LimeAdvice, type NutrientAdvice, type ProductAmount, type Purpose } from '@glenfold/agronomy';
import type { PlanChoicesInput, ProductAnswer, ZonePlanAnswer } from '@glenfold/contract';
import { Box, Button, Link as MuiLink, MenuItem, TextField, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { ApiProblem } from '../../api/client.ts';
import { useChooseProducts, useIssuePlan } from '../../api/changes.ts';
import { queries } from '../../api/queries.ts';
import { ConflictDialog } from '../../ui/ConflictDialog.tsx';
import { useMay } from '../../ui/session.tsx';
import type { StepProps } from '../../frame/stepProps.ts';
import { stepPath } from '../../frame/steps.ts';
import { colours } from '../../theme.ts';
import { Words } from '../../ui/Words.tsx';
import { Cautions, Empty, Trouble } from '../../ui/bits.tsx';
import { useUnits } from '../../ui/units.tsx';
import { Opens } from '../../ui/working.tsx';
import { NoTest } from '../../frame/NoTest.tsx';
import { LimeSplit } from './LimeSplit.tsx';

interface PickProps {
  readonly purpose: Purpose;
  readonly label: string;
  readonly products: readonly ProductAnswer[];
  readonly chosen: string | undefined;
  /** Its name, for those who do not choose. */
  readonly name: string | undefined;
  readonly onPick: (choices: PlanChoicesInput) => void;
}

function ProductPick({ purpose, label, products, chosen, name, onPick }: PickProps) {
  const may = useMay();
  if (!may('work.write')) return <Typography>{name}</Typography>;
  return (
    <TextField
      select
      fullWidth
      variant="standard"
      value={chosen ?? ''}
      onChange={(event) => onPick({ [purpose]: event.target.value })}
      slotProps={{ htmlInput: { 'aria-label': label } }}
      sx={{ minWidth: 210 }}
    >
      {products
        .filter((product) => product.purpose === purpose)
        .map(({ id, name, effectiveness }) => (
          <MenuItem key={id} value={id}>
            {name}
            {effectiveness !== null && `, ${Math.round(effectiveness)} % effective`}
          </MenuItem>
        ))}
    </TextField>
  );
}

const purposeOf = { n: 'nitrogen', p2o5: 'phosphorus', k2o: 'potassium' } as const;

function Buy({ amount, title }: { readonly amount: ProductAmount; readonly title: string }) {
  const { say } = useUnits();
  const may = useMay();
  const { bags, bagMass, cost } = amount;
  return (
    <>
      <Opens
        title={`${title}: bags`}
        told={`${bags.value} ${bags.value === 1 ? 'bag' : 'bags'}`}
        working={bags.working}
      />{' '}
      of {say('mass', bagMass)}
      {cost ? (
        <>
          {', '}
          <Opens title={`${title}: cost`} told={say('money', cost.value)} working={cost.working} />
        </>
      ) : (
        may('prices.write') && (
          <>
            {', '}
            <MuiLink href="/products">set its price</MuiLink>
          </>
        )
      )}
    </>
  );
}

interface SectionProps {
  readonly answer: ZonePlanAnswer;
  readonly products: readonly ProductAnswer[];
  readonly onPick: (choices: PlanChoicesInput) => void;
}

function LimeFigures({ lime, amount }: { readonly lime: LimeAdvice; readonly amount: ProductAmount }) {
  const { say } = useUnits();
  return (
    <Box sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 4, rowGap: 1, alignItems: 'baseline', my: 1 }}>
      <Opens
        title={`${amount.productName} to pH ${lime.aim.toFixed(1)}`}
        told={say('limeRate', amount.rate.value)}
        working={amount.rate.working}
        first
        size="1.9rem"
      />
      <Typography component="div">
        {amount.applications.length > 1 ? `in ${amount.applications.length} applications` : 'in one application'}
      </Typography>
      <Typography component="div">
        <Opens title="Lime for the zone" told={say('mass', amount.mass.value)} working={amount.mass.working} /> for the
        zone, <Buy amount={amount} title="Lime" />
      </Typography>
    </Box>
  );
}

function Lime({ answer, products, onPick }: SectionProps) {
  const { plan } = answer;
  const { lime, comparisons } = plan;
  return (
    <Box
      component="section"
      aria-labelledby="lime"
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: '1fr', lg: comparisons.length > 0 ? 'minmax(0, 1fr) 300px' : '1fr' },
        columnGap: 4,
        rowGap: 2,
      }}
    >
      <Box>
        <Typography variant="h2" id="lime">
          Lime
        </Typography>
        <Typography>
          <Words>{lime.words}</Words>
        </Typography>
        {lime.amount && <LimeFigures lime={lime} amount={lime.amount} />}
        {lime.status === 'due' && (
          <Box sx={{ maxWidth: 420, mb: 1 }}>
            <ProductPick
              purpose="lime"
              label="Liming product"
              products={products}
              chosen={plan.products.lime}
              name={lime.amount?.productName}
              onPick={onPick}
            />
          </Box>
        )}
        {lime.amount && lime.amount.applications.length > 1 && <LimeSplit amount={lime.amount} />}
        <Cautions texts={lime.cautions} />
      </Box>
      {comparisons.length > 0 && (
        <Box
          component="aside"
          aria-label="Why other zones differ"
          sx={{
            background: colours.slateWash,
            borderLeft: `3px solid ${colours.slate}`,
            px: 2,
            py: 1.5,
            alignSelf: 'start',
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
      )}
    </Box>
  );
}

/** Columns at the desk; on a phone the figures of a nutrient stand in two columns under its name. */
const columns = {
  display: 'grid',
  gridTemplateColumns: { xs: '1fr 1fr', md: '92px 132px minmax(200px, 1fr) 136px 84px minmax(184px, 0.8fr)' },
  columnGap: 2,
};

/** What a figure is; on a phone only, where no heading stands over it. */
function Told({ what, children }: { readonly what: string; readonly children: ReactNode }) {
  return (
    <Box>
      <Box component="span" sx={{ display: { xs: 'block', md: 'none' }, fontSize: '0.85rem', color: colours.faded }}>
        {what}
      </Box>
      {children}
    </Box>
  );
}

interface NutrientRowProps {
  readonly advice: NutrientAdvice;
  readonly products: readonly ProductAnswer[];
  readonly chosen: string | undefined;
  readonly onPick: SectionProps['onPick'];
}

function NutrientRow({ advice, products, chosen, onPick }: NutrientRowProps) {
  const { say } = useUnits();
  const { name, nutrient, words, need, amount, status } = advice;
  const wide = { gridColumn: { xs: '1 / -1', md: 'auto' } };
  return (
    <Box component="li" sx={{ ...columns, borderBottom: `1px solid ${colours.line}`, py: 1, rowGap: 0.75 }}>
      <Box sx={{ ...wide, fontFamily: 'Bitter, serif', fontWeight: 700 }}>
        <Words>{name}</Words>
      </Box>
      <Told what="need">
        {need && status !== 'cannot say' && (
          <Opens
            title={`${name} for the year`}
            told={status === 'none' ? 'none' : say('nutrientRate', need.value)}
            working={need.working}
          />
        )}
      </Told>
      <Box sx={wide}>
        {status === 'due' && (
          <ProductPick
            purpose={purposeOf[nutrient]}
            label={`Product for ${purposeOf[nutrient]}`}
            products={products}
            chosen={chosen}
            name={amount?.productName}
            onPick={onPick}
          />
        )}
      </Box>
      {amount ? (
        <>
          <Told what="rate">
            <Opens
              title={`${amount.productName} for the year`}
              told={say('productRate', amount.rate.value)}
              working={amount.rate.working}
            />
            {amount.applications.length > 1 && (
              <Box sx={{ fontSize: '0.85rem', color: colours.faded }}>in {amount.applications.length} applications</Box>
            )}
          </Told>
          <Told what="for the zone">
            <Opens
              title={`${amount.productName} for the zone`}
              told={say('mass', amount.mass.value)}
              working={amount.mass.working}
            />
          </Told>
          <Box sx={wide}>
            <Buy amount={amount} title={name} />
          </Box>
        </>
      ) : null}
      <Typography sx={{ gridColumn: { xs: '1 / -1', md: '2 / -1' }, color: colours.faded, fontSize: '0.95rem' }}>
        <Words>{words}</Words>
      </Typography>
    </Box>
  );
}

function Fertilizer({ answer, products, onPick }: SectionProps) {
  const { nutrients, products: chosen } = answer.plan;
  return (
    <Box component="section" aria-labelledby="fertilizer" sx={{ mt: 3 }}>
      <Typography variant="h2" id="fertilizer">
        Fertilizer for the year
      </Typography>
      <Box
        aria-hidden
        sx={{ ...columns, display: { xs: 'none', md: 'grid' }, color: colours.faded, fontSize: '0.85rem', py: 0.5 }}
      >
        {['Nutrient', 'Need', 'Product', 'Rate', 'For the zone', 'To buy'].map((heading) => (
          <span key={heading}>{heading}</span>
        ))}
      </Box>
      <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0, borderTop: `1px solid ${colours.ink}` }}>
        {nutrients.map((advice) => (
          <NutrientRow
            key={advice.nutrient}
            advice={advice}
            products={products}
            chosen={chosen[purposeOf[advice.nutrient]]}
            onPick={onPick}
          />
        ))}
      </Box>
      <Cautions texts={[...new Set(nutrients.flatMap(({ cautions }) => cautions))]} />
    </Box>
  );
}

/** Lime, nitrogen, phosphate and potash for a zone, as product, amount, bags and cost. */
export function Rates({ site, zone }: StepProps) {
  const { system, say } = useUnits();
  const { data: answer, error } = useQuery({ ...queries.plan(zone?.id ?? '', system), enabled: !!zone });
  const may = useMay();
  const { data: products = [] } = useQuery({ ...queries.products(), enabled: may('prices.read') });
  const choose = useChooseProducts(zone?.id ?? '', system);
  const issue = useIssuePlan(zone?.id ?? '', system);
  if (!zone)
    return (
      <Empty title="No zones yet" to={stepPath(site.id, 'ground')} action="Add a zone">
        Rates belong to zones.
      </Empty>
    );
  if (error instanceof ApiProblem && error.status === 404) return <NoTest siteId={site.id} zone={zone} />;
  if (error) return <Trouble error={error} />;
  if (!answer) return <Typography sx={{ color: colours.faded }}>Working out the rates…</Typography>;
  const { plan } = answer;
  const send = (input: PlanChoicesInput, version = answer.version): void => choose.mutate({ version, input });
  const section = { answer, products, onPick: send };
  const named = new Map(products.map(({ id, name }) => [id, name]));
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
            {say('area', zone.area)}, pH {answer.result.soilPh.toFixed(1)}
            {answer.result.bufferPh !== null && `, buffer ${answer.result.bufferPh.toFixed(1)}`}
            {plan.leftOut.length > 0 && (
              <>
                . Need not be bought: <Words>{plan.leftOut.join(', ')}</Words>
              </>
            )}
          </Typography>
        </Box>
        <Box sx={{ display: 'flex', gap: 2, alignItems: 'center', flexWrap: 'wrap' }}>
          {!answer.priced ? null : plan.cost ? (
            <Typography component="div">
              All products{' '}
              <Opens
                title="Products for the zone"
                told={say('money', plan.cost.value)}
                working={plan.cost.working}
                size="1.25rem"
              />
            </Typography>
          ) : (
            <Typography>
              Cost open: set a price for <MuiLink href="/products">{plan.unpriced.join(', ')}</MuiLink>
            </Typography>
          )}
          {may('work.write') && (
            <Button
              variant="contained"
              disabled={issue.isPending}
              onClick={() => issue.mutate(undefined, { onSuccess: ({ pdf }) => window.open(pdf, '_blank') })}
            >
              Print the plan (PDF)
            </Button>
          )}
        </Box>
      </Box>
      <Trouble error={choose.error ?? issue.error} />
      <ConflictDialog save={choose} named={named} send={send} onTheirs={choose.reset} />
      {issue.data && (
        <Typography
          role="status"
          sx={{ borderLeft: `3px solid ${colours.lichen}`, background: colours.lichenWash, px: 1.5, py: 0.75, mb: 1.5 }}
        >
          Handed over as it stands now, and kept.{' '}
          <MuiLink href={issue.data.pdf} target="_blank">
            Open the PDF
          </MuiLink>
        </Typography>
      )}
      <Lime {...section} />
      <Fertilizer {...section} />
    </>
  );
}
