import type { Purchase, ShoppingList } from '@glenfold/agronomy';
import type { SiteAnswer } from '@glenfold/contract';
import { Box, Link as MuiLink, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { Words } from '../../ui/Words.tsx';
import { Empty, Trouble } from '../../ui/bits.tsx';
import { stepPath } from '../../ui/steps.ts';
import { colours } from '../../ui/theme.ts';
import { useUnits } from '../../ui/units.tsx';
import { Opens } from '../../ui/working.tsx';
import { ratesQueries } from './api.ts';

const bagsWord = (count: number): string => `${count} ${count === 1 ? 'bag' : 'bags'}`;

interface RowProps {
  readonly siteId: string;
  readonly purchase: Purchase;
  readonly priced: boolean;
}

/** One product: what to buy, what stays, and which zones it is for. */
function Row({ siteId, purchase, priced }: RowProps) {
  const { say } = useUnits();
  const { productName, mass, bags, bagMass, cost, leftover, stock, zones } = purchase;
  return (
    <Box
      component="li"
      aria-label={productName}
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: '1fr', md: 'minmax(0, 1fr) 190px 170px' },
        columnGap: 3,
        rowGap: 0.5,
        py: 1.25,
        borderTop: `1px solid ${colours.line}`,
      }}
    >
      <Box>
        <Typography sx={{ fontFamily: 'Bitter, serif', fontWeight: 700, fontSize: '1.05rem' }}>
          <Words>{productName}</Words>
        </Typography>
        <Box component="ul" aria-label={`Zones that take ${productName}`} sx={{ listStyle: 'none', m: 0, p: 0 }}>
          {zones.map(({ zoneId, zone, mass: own, cost: share }) => (
            <li key={zoneId}>
              <MuiLink component={Link} to={stepPath(siteId, 'rates', zoneId)}>
                {zone}
              </MuiLink>{' '}
              {say('mass', own)}
              {priced && !!share && zones.length > 1 && `, ${say('money', share)}`}
            </li>
          ))}
        </Box>
      </Box>
      <Box>
        <Opens
          title={`${productName}: to buy`}
          told={bags.value > 0 ? bagsWord(bags.value) : 'none'}
          working={bags.working}
          size="1.35rem"
        />
        <Typography sx={{ color: colours.faded }}>
          of {say('mass', bagMass)}
          {stock > 0 && `; ${bagsWord(stock)} there already`}
        </Typography>
        {priced &&
          bags.value > 0 &&
          (cost ? (
            <Opens title={`${productName}: cost`} told={say('money', cost.value)} working={cost.working} />
          ) : (
            <MuiLink component={Link} to="/products">
              set its price
            </MuiLink>
          ))}
      </Box>
      <Box sx={{ color: colours.faded }}>
        <Opens title={`${productName} for all zones`} told={say('mass', mass.value)} working={mass.working} /> wanted
        <br />
        <Opens title={`${productName}: left over`} told={say('mass', leftover.value)} working={leftover.working} /> left
      </Box>
    </Box>
  );
}

/** What stands in no list, so that nobody takes the list for everything. */
function Missing({ list, untested }: { readonly list: ShoppingList; readonly untested: readonly string[] }) {
  if (list.unlisted.length + untested.length === 0) return null;
  return (
    <Box component="section" aria-labelledby="unlisted" sx={{ borderTop: `2px solid ${colours.ink}`, mt: 2, pt: 1.5 }}>
      <Typography variant="h2" id="unlisted" sx={{ fontSize: '1.15rem', mb: 0.5 }}>
        Not on this list
      </Typography>
      <Box component="ul" sx={{ m: 0, pl: 2.25 }}>
        {list.unlisted.map(({ zone, name, told }) => (
          <li key={`${zone} ${name}`}>
            {name} for {zone}, altogether <Words>{told}</Words>: no product of it is chosen here yet.
          </li>
        ))}
        {untested.length > 0 && <li>{untested.join(', ')}: no test yet, so nothing is known to be wanted.</li>}
      </Box>
    </Box>
  );
}

/** One list to buy for the property: every product once, in bags that its zones share. */
export function Shopping({ site }: { readonly site: SiteAnswer }) {
  const { system, say } = useUnits();
  const { data: answer, error } = useQuery(ratesQueries.shopping(site.id, system));
  if (error) return <Trouble error={error} />;
  if (!answer) return <Typography sx={{ color: colours.faded }}>Adding up the zones…</Typography>;
  const { list, zones, untested, priced } = answer;
  if (zones === 0)
    return (
      <Empty title="No zone has a test yet" to={stepPath(site.id, 'lab')} action="Enter a result">
        What to buy follows from the tests.
      </Empty>
    );
  const fewer = list.purchases.reduce((sum, purchase) => sum + purchase.fewer, 0);
  return (
    <>
      <Typography variant="h1" component="h2" sx={{ mb: 0.5 }}>
        What to buy
      </Typography>
      <Typography component="div" sx={{ mb: 1 }}>
        For {zones === 1 ? 'one zone' : `${zones} zones`}
        {priced && list.cost && (
          <>
            {', '}all products{' '}
            <Opens
              title="All products of the property"
              told={say('money', list.cost.value)}
              working={list.cost.working}
              size="1.25rem"
            />
          </>
        )}
        {priced && !list.cost && (
          <>
            . Cost open: set a price for <Words>{list.unpriced.join(', ')}</Words>
          </>
        )}
        {fewer > 0 && (
          <>
            . {bagsWord(fewer)} fewer than if each zone bought its own
            {priced && list.saved ? `: ${say('money', list.saved)} saved` : ''}
          </>
        )}
        .
      </Typography>
      {list.purchases.length === 0 ? (
        <Typography>Nothing has to be bought.</Typography>
      ) : (
        <Box component="ul" aria-label="To buy" sx={{ listStyle: 'none', m: 0, p: 0 }}>
          {list.purchases.map((purchase) => (
            <Row key={purchase.productId} siteId={site.id} purchase={purchase} priced={priced} />
          ))}
        </Box>
      )}
      <Missing list={list} untested={untested} />
    </>
  );
}
