import { phText } from '../../ui/results.ts';
import type { NutrientAdvice, Verdict } from '@glenfold/agronomy';
import type { PlanChoicesInput, ProductAnswer, ZonePlanAnswer } from '@glenfold/contract';
import { Box, Button, Link as MuiLink, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { Link, useSearchParams } from 'react-router';
import { ApiProblem } from '../../api/client.ts';

import { queries } from '../../api/queries.ts';
import { LabAdvice } from '../../ui/LabAdvice.tsx';
import { NoTest } from '../../ui/NoTest.tsx';
import type { StepProps } from '../../ui/stepProps.ts';
import { stepPath } from '../../ui/steps.ts';
import { colours } from '../../ui/theme.ts';
import { Words } from '../../ui/Words.tsx';
import { Empty, Trouble } from '../../ui/bits.tsx';
import { useMay } from '../../ui/session.tsx';
import { useUnits } from '../../ui/units.tsx';
import { Opens } from '../../ui/working.tsx';
import { LimeSplit } from './LimeSplit.tsx';
import { Shopping } from './Shopping.tsx';
import { ProductPick } from './ProductPick.tsx';
import { Treatment } from './Treatment.tsx';
import { useChooseProducts, useIssuePlan } from './api.ts';

const purposeOf = { n: 'nitrogen', p2o5: 'phosphorus', k2o: 'potassium' } as const;

interface SectionProps {
  readonly answer: ZonePlanAnswer;
  readonly products: readonly ProductAnswer[];
  readonly onPick: (choices: PlanChoicesInput) => void;
}

/** Why zones of the same pH get different lime. */
function Comparisons({ answer }: Pick<SectionProps, 'answer'>) {
  const { comparisons } = answer.plan;
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

function Lime({ answer, products, onPick }: SectionProps) {
  const { lime, products: chosen } = answer.plan;
  const { say } = useUnits();
  const due = lime.status === 'due' || lime.status === 'estimate';
  return (
    <Treatment
      name="Lime"
      sense="limeRate"
      dose="application"
      amount={lime.amount}
      standing={due ? 'no rate yet' : lime.status === 'cannot say' ? 'cannot say yet' : 'none'}
      need={
        lime.afterRetest > 0 && (
          <Typography component="span" sx={{ color: colours.faded }}>
            the rest, about {say('limeRate', lime.afterRetest)}, after the retest
          </Typography>
        )
      }
      reason={lime.words}
      cautions={lime.cautions}
      main
      product={
        due && (
          <ProductPick
            purpose="lime"
            label="Liming product"
            products={products}
            chosen={chosen.lime}
            name={lime.amount?.productName}
            onPick={onPick}
          />
        )
      }
    >
      {lime.rule && <Typography sx={{ color: colours.faded, maxWidth: 640 }}>{lime.rule}</Typography>}
      {lime.amount && lime.amount.applications.length > 1 && <LimeSplit amount={lime.amount} />}
      <Comparisons answer={answer} />
    </Treatment>
  );
}

function Nutrient({ advice, answer, products, onPick }: SectionProps & { readonly advice: NutrientAdvice }) {
  const { say } = useUnits();
  const { name, nutrient, words, need, amount, status, cautions } = advice;
  const purpose = purposeOf[nutrient];
  return (
    <Treatment
      name={name}
      sense="productRate"
      dose="pass"
      amount={amount}
      standing={status === 'refused' ? 'refused' : 'no product'}
      need={
        need && (
          <Typography component="span" sx={{ color: colours.faded }}>
            for <Opens title={`${name} for the year`} told={say('nutrientRate', need.value)} working={need.working} />{' '}
            of <Words>{name === 'Nitrogen' ? 'N' : name}</Words> a year
          </Typography>
        )
      }
      reason={words}
      cautions={cautions}
      product={
        <ProductPick
          purpose={purpose}
          label={`Product for ${purpose}`}
          products={products}
          chosen={answer.plan.products[purpose]}
          name={amount?.productName}
          onPick={onPick}
        />
      }
    />
  );
}

interface JudgedProps {
  readonly name: string;
  readonly standing: string;
  readonly words: string;
  readonly cautions: readonly string[];
  readonly need?: Verdict['need'];
  /** The need in the reader's unit. */
  readonly told?: string | undefined;
}

const standings: Readonly<Record<Verdict['status'], string>> = {
  due: 'wanted',
  none: 'none',
  refused: 'not here',
  'cannot say': 'cannot say yet',
};

/** What was looked at and gets no product here: one line each, with its reason. */
function Judged({ rows }: { readonly rows: readonly JudgedProps[] }) {
  if (rows.length === 0) return null;
  return (
    <Box component="section" aria-labelledby="judged" sx={{ borderTop: `2px solid ${colours.ink}`, mt: 2, pt: 1.5 }}>
      <Typography variant="h2" id="judged" sx={{ fontSize: '1.15rem', mb: 0.5 }}>
        Also looked at
      </Typography>
      <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {rows.map(({ name, standing, words, cautions, need, told }) => (
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
            <Box sx={{ color: standing === 'wanted' || standing === 'not here' ? colours.ochre : colours.faded }}>
              {standing}
              {need && told && (
                <Box sx={{ color: colours.ink, whiteSpace: 'nowrap' }}>
                  <Opens title={`${name} in all`} told={told} working={need.working} />
                </Box>
              )}
            </Box>
            <Box sx={{ gridColumn: { xs: '1 / -1', sm: 'auto' }, maxWidth: 640 }}>
              <Words>{words}</Words>
              {cautions.map((text) => (
                <Box key={text} sx={{ borderLeft: `3px solid ${colours.ochre}`, pl: 1, mt: 0.5 }}>
                  {text}
                </Box>
              ))}
            </Box>
          </Box>
        ))}
      </Box>
    </Box>
  );
}

/** Nutrients of which the same is to be said are told together, as those of a garden bed. */
function alike(
  advice: readonly NutrientAdvice[],
): ReadonlyArray<Pick<NutrientAdvice, 'name' | 'status' | 'words' | 'cautions'>> {
  const [first] = advice;
  return first && advice.length > 1 && advice.every(({ words }) => words === first.words)
    ? [{ ...first, name: advice.map(({ name }) => name).join(', ') }]
    : advice;
}

/** Where the address keeps that the whole property is looked at. */
const WHOLE = 'whole';

/** The rates of the chosen zone, or what the whole property is to buy. */
export function Rates(props: StepProps) {
  const [search, setSearch] = useSearchParams();
  const whole = search.has(WHOLE);
  const { site, zones } = props;
  return (
    <>
      {zones.length > 1 && (
        <ToggleButtonGroup
          exclusive
          size="small"
          value={whole ? 'whole' : 'zone'}
          aria-label="What of the rates"
          onChange={(_event, next: string | null) => next && setSearch(next === 'whole' ? { [WHOLE]: '' } : {})}
          sx={{ mb: 1.5 }}
        >
          <ToggleButton value="zone" sx={{ px: 1.5, textTransform: 'none' }}>
            The zone
          </ToggleButton>
          <ToggleButton value="whole" sx={{ px: 1.5, textTransform: 'none' }}>
            To buy for all
          </ToggleButton>
        </ToggleButtonGroup>
      )}
      {whole ? <Shopping site={site} /> : <ZoneRates {...props} />}
    </>
  );
}

/** What a zone is given: the decisive number, its reason and its caution; what is not given stands below, with its reason. */
function ZoneRates({ site, zone }: StepProps) {
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
  const { plan, reading } = answer;
  const send = (input: PlanChoicesInput): void =>
    choose.mutate({
      seen: { id: zone.id, version: answer.version },
      input,
      named: new Map(products.map(({ id, name }) => [id, name])),
    });
  const section = { answer, products, onPick: send };
  const limeGiven = plan.lime.status === 'due' || plan.lime.status === 'estimate';
  const given = plan.nutrients.filter(({ status }) => status === 'due' || status === 'refused');
  const [ground] = reading.limitations.filter(({ key }) => key === 'drainage' || key === 'compaction');
  const judged: JudgedProps[] = [
    ...(limeGiven
      ? []
      : [
          {
            name: 'Lime',
            standing: plan.lime.status === 'cannot say' ? 'cannot say yet' : 'none',
            words: [plan.lime.words, plan.lime.rule].filter(Boolean).join(' '),
            cautions: plan.lime.cautions,
          },
        ]),
    ...alike(plan.nutrients.filter((advice) => !given.includes(advice))).map(({ name, status, words, cautions }) => ({
      name,
      standing: status === 'cannot say' ? 'cannot say yet' : 'none',
      words,
      cautions,
    })),
    ...plan.verdicts
      .filter(({ words }) => words !== '')
      .map(({ status, ...verdict }) => ({ ...verdict, standing: standings[status] })),
  ];
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
            {say('area', zone.area)}, pH {phText(answer.result)}
            {answer.result.values.bufferPh && `, buffer ${answer.result.values.bufferPh.value.toFixed(1)}`}
            {plan.leftOut.length > 0 && (
              <>
                . Need not be bought: <Words>{plan.leftOut.join(', ')}</Words>
              </>
            )}
          </Typography>
        </Box>
        <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'center', flexWrap: 'wrap' }}>
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
              Cost open: set a price for{' '}
              <MuiLink
                component={Link}
                to={plan.lime.amount?.cost === null ? '/products/lime' : '/products/fertilizer'}
              >
                {plan.unpriced.join(', ')}
              </MuiLink>
            </Typography>
          )}
          <Button component={Link} to={`/settings?site=${site.id}&zone=${zone.id}`} size="small">
            How it is decided
          </Button>
          <Button
            variant="outlined"
            href={`/api/zones/${zone.id}/plan.pdf?units=${system}`}
            target="_blank"
            title="As it stands now; nothing is handed over"
          >
            Print a draft (PDF)
          </Button>
          {may('work.write') && (
            <Button
              variant="contained"
              disabled={issue.isPending}
              onClick={() => issue.mutate(undefined, { onSuccess: ({ pdf }) => window.open(pdf, '_blank') })}
            >
              Hand the plan over (PDF)
            </Button>
          )}
        </Box>
      </Box>
      <LabAdvice result={answer.result} />
      <Trouble error={choose.error ?? issue.error} />
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
      {ground && (
        <Typography
          sx={{ borderLeft: `3px solid ${colours.ochre}`, background: colours.ochreWash, px: 1.5, py: 0.75, mb: 1.5 }}
        >
          <strong>First:</strong> <Words>{`${ground.what} ${ground.evidence}`}</Words>
        </Typography>
      )}
      {limeGiven && <Lime {...section} />}
      {given.map((advice) => (
        <Nutrient key={advice.nutrient} advice={advice} {...section} />
      ))}
      <Judged rows={judged} />
    </>
  );
}
