import type { LaboratoryInput } from '@glenfold/contract';
import { screen, waitFor, within } from '@testing-library/react';
import userEvent from './userEvent.ts';
import { Laboratories } from '../src/features/sampling/bags/Laboratories.tsx';
import { changesOf, choose, serve, show } from './page.tsx';
import { laboratory } from './scene.ts';

const own = {
  ...{ ...laboratory, id: 'own', version: 3, simulated: false, name: 'Harbour Soils', bufferMethod: null },
  ...{ address: 'Quay 1\nPort', scientist: 'Dr Marram', phone: '555 0114', daysLeast: 5, daysMost: 9 },
};
const open = (more = {}, role: 'advisor' | 'technician' = 'advisor') => {
  const asked = serve({ '/laboratories': [own, laboratory], ...more });
  show(<Laboratories />, { role });
  return asked;
};
const field = (name: string | RegExp): HTMLInputElement => screen.getByLabelText<HTMLInputElement>(name);

describe('laboratories of one’s own', () => {
  it('stand with whom to ask, beside those that are simulated, which nobody changes', async () => {
    open();
    const mine = await screen.findByRole('listitem', { name: 'Harbour Soils' });
    expect(mine.textContent).toMatch(/Quay 1\nPort\nask Dr Marram, 555 0114/);
    expect(mine.textContent).toMatch(/no buffer, or not known; 5–9 days to the report/);
    const made = screen.getByRole('listitem', { name: laboratory.name });
    expect(made.textContent).toContain('nothing is posted');
    expect(within(made).queryByRole('button')).toBeNull();
  });

  it('are added with their depths and fees; what is wrong is said at its field, and kept', async () => {
    const asked = open({ 'POST /laboratories': own });
    await userEvent.click(await screen.findByRole('button', { name: 'Add a laboratory' }));
    await userEvent.type(field(/^Name/), 'Tern Soils');
    await choose('Buffer method', /Sikora/);
    await userEvent.clear(field(/Fills its bag/));
    await userEvent.type(field(/Fills its bag/), 'a cup');
    await userEvent.type(field('Fee, routine'), '$18.50');
    await userEvent.click(screen.getByRole('button', { name: 'Add the laboratory' }));
    expect(await screen.findByText(/"a cup" is not a number/)).toBeTruthy();
    expect(changesOf(asked)).toEqual([]);
    await userEvent.clear(field(/Fills its bag/));
    await userEvent.type(field(/Fills its bag/), '480');
    await userEvent.click(screen.getByRole('button', { name: 'Add the laboratory' }));
    await waitFor(() => expect(changesOf(asked)).toHaveLength(1));
    expect(changesOf(asked)[0]!.body as LaboratoryInput).toMatchObject({
      ...{ name: 'Tern Soils', bufferMethod: 'sikora', volume: 480, daysLeast: 7, daysMost: 14 },
      depths: [{ for: 'established turf' }],
      fees: [{ panel: 'routine', fee: 18.5 }],
    });
  });

  it('are changed over the version that was seen, and only by those who plan work', async () => {
    const asked = open({ 'PUT /laboratories/own': own });
    await userEvent.click(await screen.findByRole('button', { name: 'Change Harbour Soils' }));
    await userEvent.clear(field('Phone'));
    await userEvent.type(field('Phone'), '555 0199');
    await userEvent.click(screen.getByRole('button', { name: 'Save' }));
    await waitFor(() => expect(changesOf(asked)[0]).toMatchObject({ version: '3', body: { phone: '555 0199' } }));
  });

  it('are only read by a technician', async () => {
    open({}, 'technician');
    await screen.findByRole('listitem', { name: 'Harbour Soils' });
    expect(screen.queryByRole('button')).toBeNull();
  });
});
