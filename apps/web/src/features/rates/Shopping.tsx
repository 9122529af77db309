import { type Purchase, type ShoppingList, isLoose, tellSupply, tellWork, inLine } from '@glenfold/agronomy';
import type { SiteProgramAnswer } from '@glenfold/contract';
import { Box, Link as MuiLink, Typography } from '@mui/material';
import { Link } from 'react-router';
import { Words } from '../../ui/Words.tsx';
import { stepPath } from '../../ui/steps.ts';
import { colours } from '../../ui/theme.ts';
import { useUnits } from '../../ui/units.tsx';
import { Opens } from '../../ui/working.tsx';
import { packCount, packWords } from '../../ui/treatments.ts';

interface RowProps {
  readonly siteId: string;
  readonly purchase: Purchase;
  readonly priced: boolean;
}

/** One product: what to buy, what stays, and which zones it is for. */
function Row({ siteId, purchase, priced }: RowProps) {
  const { system, say } = useUnits();
  const { name, unit, quantity, packs, cost, leftover, stock, zones } = purchase;
  const tell = (value: number): string => tellSupply(value, unit, system);
  return (
    <Box
      component="li"
      aria-label={name}
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
          <Words>{name}</Words>
        </Typography>
        <Box component="ul" aria-label={`Zones that take ${name}`} sx={{ listStyle: 'none', m: 0, p: 0 }}>
          {zones.map(({ zoneId, zone, quantity: own, cost: share }) => (
            <li key={zoneId}>
              <MuiLink component={Link} to={stepPath(siteId, 'rates', zoneId)}>
                {zone}
              </MuiLink>{' '}
              {tell(own)}
              {priced && !!share && zones.length > 1 && `, ${say('money', share)}`}
            </li>
          ))}
        </Box>
      </Box>
      <Box>
        <Opens
          title={`${name}: to buy`}
          told={packs.value > 0 ? packWords(purchase, system) : 'none'}
          working={packs.working}
          size="1.35rem"
        />
        {stock > 0 && (
          <Typography sx={{ color: colours.faded }}>
            {isLoose(purchase) ? tell(stock) : packCount(stock, purchase)} there already
          </Typography>
        )}
        {priced && packs.value > 0 && (
          <Box>
            {cost ? (
              <Opens title={`${name}: cost`} told={say('money', cost.value)} working={cost.working} />
            ) : (
              <MuiLink component={Link} to="/products">
                set its price
              </MuiLink>
            )}
          </Box>
        )}
      </Box>
      <Box sx={{ color: colours.faded }}>
        <Opens title={`${name} for all zones`} told={tell(quantity.value)} working={quantity.working} /> wanted
        <br />
        <Opens title={`${name}: left over`} told={tell(leftover.value)} working={leftover.working} /> left
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
            {name} for {zone}: <Words>{told}</Words>
          </li>
        ))}
        {untested.length > 0 && <li>{untested.join(', ')}: no test yet, so nothing is known to be wanted.</li>}
      </Box>
    </Box>
  );
}

/** Work of others and machines, at the price that was told. */
function WorkRows({ work }: Pick<ShoppingList, 'work'>) {
  const { say } = useUnits();
  if (work.length === 0) return null;
  return (
    <Box component="ul" aria-label="Work for others" sx={{ listStyle: 'none', m: 0, p: 0 }}>
      {work.map(({ zone, name, words, price }) => (
        <Box component="li" key={`${zone} ${name}`} sx={{ borderTop: `1px solid ${colours.line}`, py: 0.75 }}>
          <strong>{name}</strong>, {zone}: {say('money', price)}. {words}
        </Box>
      ))}
    </Box>
  );
}

/** Labour, hire and haulage over all zones, and the drives there. */
function LabourRows({ labour, visits }: Pick<ShoppingList, 'labour' | 'visits'>) {
  const { say } = useUnits();
  if (labour.length + visits.length === 0) return null;
  const rows = [
    ...labour.map(({ name, per, amount, zones, cost }) => ({
      ...{ name, cost },
      told: `${tellWork(amount, per)}, ${zones.join(', ')}`,
    })),
    ...visits.map(({ name, visits: months, cost }) => ({ name, cost, told: tellWork(months.length, 'visit') })),
  ];
  return (
    <Box component="ul" aria-label="Labour, hire and haulage" sx={{ listStyle: 'none', m: 0, p: 0 }}>
      {rows.map(({ name, told, cost }) => (
        <Box component="li" key={name} sx={{ borderTop: `1px solid ${colours.line}`, py: 0.75 }}>
          <strong>{name}</strong>, {told}
          {cost && (
            <>
              {': '}
              <Opens title={`${name}: cost`} told={say('money', cost.value)} working={cost.working} />
            </>
          )}
        </Box>
      ))}
    </Box>
  );
}

/** One list to buy for the property: every product once, in packs that its zones share. */
export function Shopping({ siteId, answer }: { readonly siteId: string; readonly answer: SiteProgramAnswer }) {
  const { say } = useUnits();
  const { list, zones, untested, priced } = answer;
  const fewer = list.purchases.reduce((sum, purchase) => sum + purchase.fewer, 0);
  return (
    <Box component="section" aria-labelledby="to-buy" sx={{ mt: 3 }}>
      <Typography variant="h1" component="h2" id="to-buy" sx={{ mb: 0.5 }}>
        What to buy
      </Typography>
      <Typography component="div" sx={{ mb: 1 }}>
        For {zones.length === 1 ? 'one zone' : `${zones.length} zones`}
        {priced && list.cost && (
          <>
            {', '}altogether{' '}
            <Opens
              title="All of the property"
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
        {priced && list.unpricedWork.length > 0 && (
          <span style={{ color: colours.ochre }}>
            , without {list.unpricedWork.map(({ name, zone }) => `${inLine(name)} in ${zone}`).join(', ')}: no price yet
          </span>
        )}
        {fewer > 0 && (
          <>
            . {fewer} {fewer === 1 ? 'pack' : 'packs'} fewer than if each zone bought its own
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
            <Row key={purchase.materialId} siteId={siteId} purchase={purchase} priced={priced} />
          ))}
        </Box>
      )}
      <WorkRows work={list.work} />
      <LabourRows labour={list.labour} visits={list.visits} />
      <Missing list={list} untested={untested} />
    </Box>
  );
}
