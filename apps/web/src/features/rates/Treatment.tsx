import type { ProductAmount } from '@glenfold/agronomy';
import { Box, Link as MuiLink, Typography } from '@mui/material';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { colours } from '../../ui/theme.ts';
import { Words } from '../../ui/Words.tsx';
import { Cautions } from '../../ui/bits.tsx';
import { useMay } from '../../ui/session.tsx';
import { useUnits } from '../../ui/units.tsx';
import { Opens } from '../../ui/working.tsx';

/** What is to be bought of it, and what that costs. */
function Buy(props: { readonly amount: ProductAmount; readonly title: string; readonly liming: boolean }) {
  const { amount, title, liming } = props;
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
            <MuiLink component={Link} to={`/products/${liming ? 'lime' : 'fertilizer'}`}>
              set its price
            </MuiLink>
          </>
        )
      )}
    </>
  );
}

const plurals = { application: 'applications', pass: 'passes' } as const;
type Dose = keyof typeof plurals;
const times = (count: number, dose: Dose): string => (count === 1 ? `in one ${dose}` : `in ${count} ${plurals[dose]}`);

interface TreatmentProps {
  readonly name: string;
  /** How rates of it are told, and what a dose of it is called. */
  readonly sense: 'limeRate' | 'productRate';
  readonly dose: Dose;
  readonly amount: ProductAmount | null;
  /** In place of an amount: "refused", "cannot say yet". */
  readonly standing?: string | undefined;
  /** What it comes to as nutrient, beside the product. */
  readonly need?: ReactNode;
  readonly reason: string;
  readonly cautions: readonly string[];
  /** Key w opens this number first. */
  readonly main?: boolean;
  readonly product?: ReactNode;
  /** What is there for who wants to know more. */
  readonly children?: ReactNode;
}

/**
 * One treatment: the number that is decisive, why, and the caution that goes with it; the rest is folded. Reads alike
 * for lime and for every feed.
 */
export function Treatment(props: TreatmentProps) {
  const { name, sense, dose, amount, standing, need, reason, cautions, main = false, product, children } = props;
  const { say } = useUnits();
  const id = `treatment-${name.replaceAll(/\W/g, '')}`;
  const [first, ...rest] = cautions;
  const each = amount?.applications.length ?? 0;
  const largest = amount ? Math.max(...amount.applications.map(({ rate }) => rate)) : 0;
  return (
    <Box
      component="section"
      aria-labelledby={id}
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: '118px minmax(0, 1fr) minmax(210px, 0.42fr)' },
        columnGap: 3,
        rowGap: 0.75,
        borderTop: `1px solid ${colours.line}`,
        py: 1.75,
      }}
    >
      <Typography variant="h2" id={id} sx={{ fontSize: '1.15rem' }}>
        <Words>{name}</Words>
      </Typography>
      <Box sx={{ minWidth: 0 }}>
        <Box sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 2, rowGap: 0.25, alignItems: 'baseline' }}>
          {amount ? (
            <>
              <Opens
                title={`${amount.productName} for the year`}
                told={say(sense, amount.rate.value)}
                working={amount.rate.working}
                first={main}
                size="1.7rem"
              />
              <Typography component="span">
                of product {times(each, dose)}
                {each > 1 && ` of ${say(sense, largest)}${sense === 'limeRate' ? ' at most' : ''}`}
              </Typography>
            </>
          ) : (
            <Typography component="span" sx={{ fontFamily: 'Bitter, serif', fontWeight: 700, fontSize: '1.25rem' }}>
              {standing}
            </Typography>
          )}
          {need}
        </Box>
        <Typography sx={{ mt: 0.5, maxWidth: 640 }}>
          <Words>{reason}</Words>
        </Typography>
        {first && <Cautions texts={[first]} />}
        {(rest.length > 0 || children) && (
          <Box component="details" sx={{ mt: 0.75, '& > summary': { cursor: 'pointer', color: colours.slate } }}>
            <summary>More on {name === name.toUpperCase() || /\d|₂/.test(name) ? name : name.toLowerCase()}</summary>
            <Box sx={{ pt: 0.5 }}>
              {children}
              <Cautions texts={rest} />
            </Box>
          </Box>
        )}
      </Box>
      <Box sx={{ minWidth: 0 }}>
        {product}
        {amount && (
          <Typography component="div" sx={{ mt: 0.75 }}>
            <Opens title={`${name} for the zone`} told={say('mass', amount.mass.value)} working={amount.mass.working} />{' '}
            for the zone
            <br />
            <Buy amount={amount} title={name} liming={sense === 'limeRate'} />
          </Typography>
        )}
      </Box>
    </Box>
  );
}
