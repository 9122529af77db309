import { shoppingList } from '@glenfold/agronomy';
import type { SiteProgramAnswer } from '@glenfold/contract';
import { screen, within } from '@testing-library/react';
import userEvent from './userEvent.ts';
import { Rates } from '../src/features/rates/Rates.tsx';
import { serve, show } from './page.tsx';
import { answer, props, row, served, zone } from './ratesScene.ts';

describe('the program of the whole site', () => {
  const north = { ...zone, id: 'n', name: 'North' };
  const both = { ...props, zones: [zone, north] };
  const { program } = answer({ soil: { esp: 20, cec: 10 } });
  const zones = ['z', 'n'].map((zoneId) => ({ zoneId, name: zoneId, program }));
  const list = shoppingList(
    zones.map(({ zoneId }) => ({ zoneId, zone: zoneId, treatments: program.treatments })),
    (id) => (id === 'Urea 46-0-0' ? 3 : 0),
    (id) => (id === 'Sulfate of potash 0-0-50' ? null : 10),
    'us',
    '$',
  );
  const buying = (more: Partial<SiteProgramAnswer> = {}) => ({
    ...served(answer()),
    '/sites/s/quote': { quote: null },
    '/sites/s/program?units=us': {
      ...{ sections: [], began: null, over: false },
      list,
      zones,
      untested: ['Bank'],
      priced: true,
      ...more,
    },
  });
  const whole = { at: '/sites/s/rates?whole=' };

  it('is a row a zone and a column a remedy in the order of work, each with its months', async () => {
    serve(buying());
    show(<Rates {...both} />, whole);
    const table = await screen.findByRole('table');
    expect(
      within(table)
        .getAllByRole('columnheader')
        .map(({ textContent }) => textContent),
    ).toEqual(
      ['Zone', 'Cost', 'Gypsum', 'Lime', 'K2O', 'Nitrogen'], // prettier-ignore
    );
    const [, first] = within(table).getAllByRole('row');
    expect(first!.textContent).toMatch(/^zopen73 lb\/1000 ft²Dec, Mar100 lb\/1000 ft²Dec, Apr/);
  });

  it('says what each zone comes to of what is shared, with its working; who sees no prices sees no such column', async () => {
    const full = shoppingList(
      zones.map(({ zoneId }) => ({ zoneId, zone: zoneId, treatments: program.treatments })),
      () => 0,
      () => 10,
      'us',
      '$',
    );
    serve(buying({ list: full }));
    show(<Rates {...both} />, whole);
    const table = within(await screen.findByRole('table'));
    const costs = table.getAllByRole('button', { name: /: cost: / });
    expect(costs).toHaveLength(2);
    await userEvent.click(costs[0]!);
    expect((await screen.findByRole('dialog')).textContent).toMatch(/Calcitic lime \$25\.00.*visits serve all zones/);
    await userEvent.keyboard('{Escape}');
  });

  it('buys each product once, what to buy first, with what is there, what stays and whom it is for', async () => {
    serve(buying());
    show(<Rates {...both} />, whole);
    const rows = within(await screen.findByRole('list', { name: 'To buy' })).getAllByRole('listitem', { name: /./ });
    expect(rows.map((each) => each.getAttribute('aria-label'))).toEqual(list.purchases.map(({ name }) => name));
    // 2 × 100 lb/1000 ft² on 1001 ft² are 200 lb: five bags of 44, with 20 left.
    const lime = rows.find((each) => each.getAttribute('aria-label') === 'Calcitic lime')!;
    expect(lime.textContent).toMatch(
      /Calcitic lime.*z 100 lb.*n 100 lb.*5 bags of 44 lb\$50\.00200 lb wanted20 lb left/,
    );
    const urea = screen.getByRole('listitem', { name: /^Urea/ });
    expect(urea.textContent).toMatch(/none3 bags there already/);
    expect(urea.textContent).not.toMatch(/\$/);
    expect(screen.getByText(/Cost open: set a price for/).textContent).toMatch(/Sulfate of potash/);
    expect(screen.getByRole('region', { name: 'Not on this list' }).textContent).toMatch(/Bank: no test yet/);
    await userEvent.click(within(lime).getByRole('button', { name: /to buy: 5 bags/ }));
    expect((await screen.findByRole('dialog')).textContent).toMatch(/z 100 lb \+ n 100 lb/);
  });

  it('is reached from a zone and left for one; who sees no prices is shown none', async () => {
    serve(buying({ list: { ...list, cost: null, saved: null, unpriced: [] }, priced: false, untested: [] }));
    show(<Rates {...both} />, { at: '/sites/s/rates' });
    await userEvent.click(await screen.findByRole('button', { name: 'The whole site' }));
    expect((await screen.findByRole('heading', { name: 'What to buy' })).textContent).toBe('What to buy');
    expect(screen.queryByText(/Cost open|altogether/)).toBeNull();
    await userEvent.click(screen.getByRole('button', { name: 'The zone' }));
    expect(await row('Lime')).toBeTruthy();
  });

  it('is nothing where no zone has a test', async () => {
    serve(buying({ zones: [] }));
    show(<Rates {...both} />, whole);
    expect(await screen.findByText('No zone has a test yet')).toBeTruthy();
  });
});
