import type { MachineAnswer } from '@glenfold/contract';
import { screen, waitFor, within } from '@testing-library/react';
import userEvent from './userEvent.ts';
import { Rates } from '../src/features/rates/Rates.tsx';
import { type Goal, Calibration } from '../src/ui/calibration/Calibration.tsx';
import { changesOf, serve, show } from './page.tsx';
import { answer, props, row, served } from './ratesScene.ts';

const machine = (more: Partial<MachineAnswer>): MachineAnswer => ({
  id: 'm',
  version: 2,
  name: 'Walker',
  kind: 'drop spreader',
  width: 0.6096,
  hired: false,
  settings: [],
  ...more,
});
const lime: Goal = { productId: 'lime', product: 'Calcitic lime', rate: 240, area: 93, sprayed: false };
const type = async (label: string | RegExp, text: string) => {
  const field = screen.getByRole('textbox', { name: label });
  await userEvent.clear(field);
  await userEvent.type(field, text);
};

describe('a machine that is set for a dose', () => {
  it('is told from what was tried, half each way, and the trial that corrects it is kept with today', async () => {
    const tried = { productId: 'lime', setting: '11', rate: 120, checkedOn: '2026-04-02' };
    const asked = serve({
      ...served(answer()),
      '/zones/z/program': answer(),
      '/machines': [machine({ settings: [tried] }), machine({ id: 'k', name: 'Pump', kind: 'knapsack sprayer' })],
      'PUT /machines/m': machine({ version: 3 }),
    });
    show(<Rates {...props} />, { units: 'metric' });
    const treatment = await row('Lime');
    // Two applications of 245 g/m²: 122 in one pass, which 11 lets through.
    await waitFor(() =>
      expect(treatment.textContent).toMatch(/Walker, half each way: 11 gives 120 g\/m², tried on 2 Apr 2026/),
    );
    await userEvent.click(within(treatment).getByRole('button', { name: 'Set the spreader' }));
    const dialog = within(await screen.findByRole('dialog'));
    expect(dialog.getByLabelText('Machine').textContent).toBe('Walker');
    await type('Setting it is tried at', '11');
    await type('Strip length', '20');
    await type('Gone from the hopper', '1.22');
    // 1220 g over 12.192 m² are 100 g/m²: 11 × 1.22.
    expect(dialog.getByRole('status').textContent).toMatch(
      /100 g\/m² in one pass; 12\d(\.\d)? g\/m² is wanted\. Set it to about 13 and try again/,
    );
    await userEvent.click(dialog.getByRole('button', { name: 'Keep the trial' }));
    await waitFor(() => expect(changesOf(asked)).toHaveLength(1));
    const { settings } = changesOf(asked)[0]!.body as MachineAnswer;
    expect(settings).toHaveLength(1);
    expect(settings[0]).toMatchObject({
      productId: 'lime',
      setting: '11',
      checkedOn: expect.stringMatching(/^20\d\d-/) as string,
    });
    expect(settings[0]!.rate).toBeCloseTo(100.07, 1);
  });

  it('keeps nothing before there is a trial and a setting, and says which is missing', async () => {
    const asked = serve({});
    show(<Calibration machines={[machine({})]} goals={[lime]} onClose={() => undefined} />, { units: 'metric' });
    await userEvent.click(screen.getByRole('button', { name: 'Keep the trial' }));
    expect(screen.getByText('Type the trial first.')).toBeTruthy();
    await type('Strip length', '20');
    await type('Gone from the hopper', '1.22');
    await userEvent.click(screen.getByRole('button', { name: 'Keep the trial' }));
    expect(screen.getByText('Write the setting as it stood on the machine.')).toBeTruthy();
    await type('Strip length', '-3');
    expect(screen.getByText('Give a number above 0.')).toBeTruthy();
    expect(changesOf(asked)).toEqual([]);
  });

  it('has its swath found by trays, which is kept with it', async () => {
    const asked = serve({ 'PUT /machines/m': machine({}) });
    show(<Calibration machines={[machine({ kind: 'rotary spreader', width: 3 })]} goals={[{ ...lime, rate: 80 }]} onClose={() => undefined} />, { units: 'metric' }); // prettier-ignore
    await userEvent.click(screen.getByRole('button', { name: 'Trays across the path' }));
    await type('Setting it is tried at', 'M');
    for (const [index, caught] of [0, 5, 10, 10, 10, 5, 0].entries())
      await type(`Catches ${index + 1}`, String(caught));
    await type('Tray area', '0.25');
    await type('Tray spacing', '0.5');
    expect(screen.getByRole('status').textContent).toMatch(
      /40 g\/m² in one pass, passes 2 m apart; 40 g\/m² is wanted\. Near enough: keep it/,
    );
    await userEvent.click(screen.getByRole('button', { name: 'Keep the trial' }));
    await waitFor(() =>
      expect(changesOf(asked)[0]!.body).toMatchObject({ width: 2, settings: [{ setting: 'M', rate: 40 }] }),
    );
  });

  it('sprays the label’s water in as many passes as that takes, tank by tank, with the order of mixing and the rinse', async () => {
    serve({});
    const goal: Goal = { productId: 'w', product: 'Wetting agent', rate: 1.9, area: 230, water: 80, sprayed: true };
    show(<Calibration machines={[machine({ kind: 'knapsack sprayer', holds: 15 })]} goals={[goal]} onClose={() => undefined} />, { units: 'metric' }); // prettier-ignore
    await type('Caught 1', '900');
    await type('Caught in', '60');
    await type('Nozzle spacing', '1');
    await type('Distance walked', '20');
    await type('Walked in', '22');
    // 15 mL/s over 0.909 m²/s.
    expect(screen.getByRole('status').textContent).toMatch(/16\.5 mL\/m² of mix in one pass/);
    const tanks = screen.getByRole('region', { name: 'Tank loads' });
    expect(tanks.textContent).toMatch(/80 mL\/m² of water\. At this pace that is 5 times over/);
    // 230 m² at 81.9 mL/m² are 18.8 L, a tank of 15 and a rest: water L, product mL and area m² of each.
    const [, first, second] = within(tanks)
      .getAllByRole('row')
      .map(({ textContent }) => textContent);
    expect([first, second]).toEqual(['14.7348183', '3.758946.8']);
    expect(tanks.textContent).toMatch(/Wetting agents and oils last.*Rinse three times.*second sprayer for brews/);
  });
});
