import { shoppingList, sectionSums } from '@glenfold/agronomy';
import type { SettingAnswer, SiteProgramAnswer } from '@glenfold/contract';
import { screen, waitFor, within } from '@testing-library/react';
import userEvent from './userEvent.ts';
import { Route, Routes } from 'react-router';
import { SectionPlans } from '../src/features/ground/sections/SectionPlans.tsx';
import { Rates } from '../src/features/rates/Rates.tsx';
import { SettingsPage } from '../src/features/settings/SettingsPage.tsx';
import { changesOf, choose, serve, show } from './page.tsx';
import { answer, props, row, served } from './ratesScene.ts';
import { productWith, site } from './scene.ts';

const setting = (kind: SettingAnswer['kind'], value: object, more: Partial<SettingAnswer> = {}): SettingAnswer => ({
  ...{ id: kind, version: 4, kind, siteId: null, zoneId: null, value },
  ...more,
});
const settings = (at: string, more: object) => {
  const asked = serve({ '/sites': { sites: [site], count: 1, next: null }, '/settings': [], ...more });
  show(
    <Routes>
      <Route path="/settings/:part?" element={<SettingsPage />} />
    </Routes>,
    { at },
  );
  return asked;
};

describe('the year before', () => {
  const before = (more: object) => ({
    ...answer(),
    yearBefore: {
      ...{ began: null, over: true, retested: false },
      waits: ['About 120 g/m² of lime waits for the retest.', 'K₂O was put off: The money is gone.'],
      ...more,
    },
  });

  it('is told to be over, with what the next would take over, and begins it', async () => {
    const asked = serve({ ...served(before({})), 'POST /sites/s/program/year': null });
    show(<Rates {...props} />);
    const told = await screen.findByRole('region', { name: 'From the year before' });
    expect(told.textContent).toMatch(
      /The year that was handed over is over.*It would take over: test the ground first/,
    );
    expect(within(told).getAllByRole('listitem')).toHaveLength(2);
    await userEvent.click(within(told).getByRole('button', { name: 'Begin the next year' }));
    await waitFor(() => expect(changesOf(asked).map(({ path }) => path)).toEqual(['/sites/s/program/year']));
  });

  it('comes first in the year that has begun, and says that the ground was tested since', async () => {
    serve(served(before({ over: false, began: '2026-11-01', retested: true })));
    show(<Rates {...props} />);
    const told = await screen.findByRole('region', { name: 'From the year before' });
    expect(told.textContent).toMatch(/^From the year before, and the ground was tested again since/);
    expect(within(told).queryByRole('button')).toBeNull();
  });

  it('begins for nobody who may only read', async () => {
    serve(served(before({})));
    show(<Rates {...props} />, { role: 'technician' });
    await screen.findByRole('region', { name: 'From the year before' });
    expect(screen.queryByRole('button', { name: 'Begin the next year' })).toBeNull();
  });
});

describe('what work costs, on screen', () => {
  it('stands with the treatment that takes it, opens to its working, and is told where nobody has said it', async () => {
    const { program, ...rest } = answer({ changes: [{ remedy: 'core', key: 'c', added: true }] });
    const lime = program.treatments.find(({ key }) => key === 'lime')!;
    const cost = { value: 54.48, working: [{ kind: 'step', label: 'Spreading', formula: 'area × times × price', numbers: '9.08 × $6.00', result: 54.48, unit: '$' }] } as const; // prettier-ignore
    const spread = { name: 'Spreading', per: '1000 ft²', amount: 9.0804, price: 6, whole: false, cost };
    const treatments = program.treatments.map((one) => (one === lime ? { ...one, work: [spread] } : one));
    serve(served({ ...rest, program: { ...program, treatments } }));
    show(<Rates {...props} />);
    const shown = await row('Lime');
    expect(shown.textContent).toMatch(/Spreading 9\.08 × 1000 ft², \$54\.48/);
    await userEvent.click(within(shown).getByRole('button', { name: /^Lime: Spreading/ }));
    expect((await screen.findByRole('dialog')).textContent).toMatch(/9\.08 × \$6\.00/);
    await userEvent.keyboard('{Escape}');
    expect((await row('Coring')).textContent).toMatch(/No price yet: set hire and hours under Change/);
  });

  it('is decided with what it counts with by itself; two of one name are told apart nowhere, and refused', async () => {
    const prices = { prices: [{ name: 'Labour', price: 42, per: 'hour', for: null }] };
    const asked = settings('/settings/work', {
      '/settings': [setting('work', prices)],
      'PUT /settings/work': setting('work', prices),
    });
    expect(await screen.findByText(/\$42\.00 per hour, set with a treatment/)).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: 'Change: Prices of work' }));
    await userEvent.click(screen.getByRole('button', { name: 'Another price' }));
    const name = () => screen.getAllByRole('textbox', { name: 'For' }).at(-1)!;
    await userEvent.type(name(), 'labour');
    await userEvent.type(screen.getAllByLabelText('Price')[1]!, '6');
    await userEvent.click(screen.getAllByRole('combobox', { name: 'Per' })[1]!);
    await userEvent.click(await screen.findByRole('option', { name: '1000 ft²' }));
    await userEvent.click(screen.getAllByRole('combobox', { name: 'Counts by itself with' })[1]!);
    await userEvent.click(await screen.findByRole('option', { name: 'lime' }));
    await userEvent.keyboard('{Escape}');
    await userEvent.click(screen.getByRole('button', { name: /^Save|^Keep|^Decide/ }));
    expect(await screen.findByText(/There is a price of this name already/)).toBeTruthy();
    expect(changesOf(asked)).toEqual([]);
    await userEvent.clear(name());
    await userEvent.type(name(), 'Spreading');
    await userEvent.click(screen.getByRole('button', { name: /^Save|^Keep|^Decide/ }));
    await waitFor(() => expect(changesOf(asked)).toHaveLength(1));
    expect(changesOf(asked)[0]!.body).toMatchObject({
      value: { prices: [{ name: 'Labour' }, { name: 'Spreading', price: 6, per: '1000 ft²', for: ['lime'] }] },
    });
  });
});

describe('sections and their money', () => {
  it('have a year and a budget each, decided for the site; a year that is none is told at its field', async () => {
    const asked = serve({
      '/settings': [setting('sections', { now: { year: 2027, budget: 400 }, next: {}, later: {} }, { siteId: 's' })],
      'PUT /settings/sections': setting('sections', {}),
    });
    show(<SectionPlans siteId="s" />);
    expect(await screen.findByText('Now: 2027, $400.00.')).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: 'Years and budgets' }));
    const next = within(screen.getByRole('group', { name: 'Next' }));
    await userEvent.type(next.getByLabelText('Year'), 'soon');
    await userEvent.click(screen.getByRole('button', { name: 'Save years and budgets' }));
    expect(await screen.findByText('Write the year in four digits.')).toBeTruthy();
    expect(changesOf(asked)).toEqual([]);
    await userEvent.clear(next.getByLabelText('Year'));
    await userEvent.type(next.getByLabelText('Year'), '2028');
    await userEvent.type(next.getByLabelText('Budget'), '$250');
    await userEvent.click(screen.getByRole('button', { name: 'Save years and budgets' }));
    await waitFor(() => expect(changesOf(asked)).toHaveLength(1));
    expect(changesOf(asked)[0]).toMatchObject({
      version: '4',
      body: { siteId: 's', value: { now: { year: 2027, budget: 400 }, next: { year: 2028, budget: 250 } } },
    });
  });

  it('stand against what their zones come to, with what is not in it for want of a price', async () => {
    const { program } = answer({ changes: [{ remedy: 'core', key: 'c', added: true }] });
    const told = { zoneId: 'z', zone: 'Court', treatments: program.treatments };
    const list = shoppingList([told], () => 0, () => 10, 'us', '$'); // prettier-ignore
    const sections = sectionSums(
      [{ ...told, area: 93, section: 'now' }],
      list,
      { now: { year: 2027, budget: 20 } },
      '$',
    );
    const whole: SiteProgramAnswer = {
      ...{ list, sections, began: null, over: false, untested: [], priced: true },
      zones: [{ zoneId: 'z', name: 'Court', program }],
    };
    serve({ ...served(answer()), '/sites/s/quote': { quote: null }, '/sites/s/program?units=us': whole });
    show(<Rates {...props} />, { at: '/sites/s/rates?whole=' });
    const money = await screen.findByRole('region', { name: 'Section by section' });
    expect(money.textContent).toMatch(/Now, 2027Court.*of \$20\.00/);
    expect(money.textContent).toMatch(/more than the \$20\.00 there is: put a treatment off/);
    expect(money.textContent).toMatch(/Not in it, for want of a price: Coring, Court/);
    expect(within(money).getByRole('img').getAttribute('aria-label')).toMatch(/^\d+ % of the budget$/);
  });
});

describe('usual years to begin from', () => {
  it('are kept by the practice, and one of them begins a site’s', async () => {
    const years = [{ name: 'Lean', visits: [{ month: 5, remedy: 'nitrogen', material: null, rate: null }] }];
    const asked = settings('/settings/usual-year', {
      '/products': [productWith({})],
      '/settings': [setting('usualYears', { years })],
      'PUT /settings/usualYear': setting('usualYear', {}),
    });
    const kept = await screen.findByRole('region', { name: 'Years to begin from' });
    expect(kept.textContent).toMatch(/LeanMay: Nitrogen/);
    const own = await screen.findByRole('region', { name: 'The usual year' });
    await userEvent.click(within(own).getByRole('button', { name: /The usual year/ }));
    await choose('Begin from', 'Lean');
    await userEvent.click(screen.getByRole('button', { name: /^(Save|Decide)/ }));
    await waitFor(() => expect(changesOf(asked)[0]!.body).toMatchObject({ value: years[0] }));
  });
});
