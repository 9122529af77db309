import { type Calculator, calculators } from '@glenfold/agronomy';
import { screen, within } from '@testing-library/react';
import userEvent from './userEvent.ts';
import { Route, Routes } from 'react-router';
import { CalculatorPage } from '../src/features/pocket/CalculatorPage.tsx';
import { pathOf, subjects } from '../src/features/pocket/subjects.ts';
import { serve, show } from './page.tsx';

const open = (calculator: Pick<Calculator, 'calculator'>, search = '') => {
  serve({ '/session': { state: 'signed out' } });
  show(
    <Routes>
      <Route path="/pocket/:subject/:method" element={<CalculatorPage />} />
    </Routes>,
    { at: `${pathOf(calculator)}${search}` },
  );
};
const all = [...calculators.values()] as readonly Calculator[];

describe('a calculation by itself', () => {
  it.each(all.map((one) => [one.calculator, one] as const))(
    '%s asks for what it wants, and answers its example with working and source',
    async (_name, calculator) => {
      open(calculator);
      expect(await screen.findByRole('heading', { level: 1, name: calculator.title })).toBeTruthy();
      expect(screen.getByText(/^Still wanted: /)).toBeTruthy();
      await userEvent.click(screen.getByRole('button', { name: 'Fill in an example' }));
      expect(await screen.findByRole('heading', { name: 'How it comes about' })).toBeTruthy();
      expect(screen.queryByRole('alert')).toBeNull();
      expect(
        screen.getByText(new RegExp(`^Source: ${calculator.source.slice(0, 20).replaceAll(/[()[\].+*?]/g, '.')}`)),
      ).toBeTruthy();
      const { textContent } = document.body;
      expect(textContent).not.toMatch(/undefined|NaN|\[object/);
    },
  );

  it('stands under a heading of the trade, each once', () => {
    const listed = subjects.flatMap(({ calculators: some }) => some.map(({ calculator }) => calculator));
    expect([...listed].sort()).toEqual([...calculators.keys()].sort());
    expect(subjects.map(({ title }) => title)).not.toContain('More');
  });

  it('tells what is mixed into a tank by its name, and an amount typed with a unit in that unit', async () => {
    const others = JSON.stringify([{ name: 'seed', rate: '25 g/m2' }, { name: 'binder', rate: '2' }]); // prettier-ignore
    open({ calculator: 'spray.mulch' }, `?${new URLSearchParams({ area: '100 m2', tank: '500 L', mulch: '200 g/m2', others, units: 'us' }).toString()}`); // prettier-ignore
    const loads = await screen.findByRole('table', { name: 'Loads' });
    // 100 m² × 25 g/m² = 2.5 kg = 5.51 lb; 2 lb/1000 ft² on 1076 ft² = 2.15 lb.
    expect(within(loads).getByRole('cell', { name: 'seed mass 5.51 lb, binder mass 2.15 lb' })).toBeTruthy();
    // A column of numbers has its unit at its head, once.
    expect(within(loads).getAllByRole('columnheader').map(({ textContent }) => textContent)).toEqual(['Area, ft²', 'Water, gal', 'Mulch, lb', 'Others']); // prettier-ignore
    expect(within(loads).getByRole('cell', { name: '44.1' })).toBeTruthy();
    const rates = screen.getAllByRole('textbox', { name: 'Rate' });
    expect(rates.map((field) => field.parentElement!.textContent)).toEqual([
      expect.not.stringContaining('lb/1000') as string,
      expect.stringContaining('lb/1000 ft²') as string,
    ]);
  });

  it('says by the field what is wrong, and what is not known by that name', async () => {
    open({ calculator: 'salt.leaching' }, '?ec=7&targetEc=0&depth=15 cm&units=us');
    const target = await screen.findByRole('textbox', { name: 'Target EC' });
    expect(target.getAttribute('aria-invalid')).toBe('true');
    expect(document.body.textContent).toMatch(/wanted above 0/);
    await userEvent.clear(target);
    await userEvent.type(target, '3.5');
    // 0.1 × 150 mm × 7 / 3.5 = 30 mm, and 1.18 in.
    expect((await screen.findAllByText('1.18 in')).length).toBeGreaterThan(0);
  });
});
