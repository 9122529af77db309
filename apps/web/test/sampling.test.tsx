import type { SamplingInput } from '@glenfold/contract';
import { samplingCoreVolume } from '@glenfold/agronomy';
import { screen, waitFor, within } from '@testing-library/react';
import userEvent from './userEvent.ts';
import { DesignPanel } from '../src/features/sampling/design/DesignPanel.tsx';
import { placeCores } from '@glenfold/agronomy/sampling';
import { besidePage, choose, serve, show } from './page.tsx';
import { bagWith, laboratory, rectangle, resultWith, site, thing, zoneWith } from './scene.ts';

const lawn = zoneWith();
const court = zoneWith({ id: 'c', name: 'Court', label: 'CT', grass: 'kentucky bluegrass', shade: 'deep' });
const alike = zoneWith({ id: 'y', name: 'Front lawn', label: 'FL', area: 300, geometry: rectangle(60, 0, 15, 20) });
const gate = thing('gate', -2, 0);
const ground = { features: [gate], underlay: null };
const answers = { '/sites/s/drawing': ground, '/sites/s/bags': [], '/laboratories': [laboratory] };

/** The panel with its worker's work done, and what it sends. */
async function plan(zones = [lawn], more: Readonly<Record<string, unknown>> = {}) {
  const asked = serve({ ...answers, ...more });
  let planned = 0;
  show(
    <DesignPanel
      site={site}
      zones={zones}
      zone={zones[0]}
      results={[resultWith()]}
      onPlanned={() => {
        planned += 1;
      }}
    />,
  );
  await screen.findByText(/cores in \d+ bag/);
  const bags = () => (asked.find(({ method }) => method === 'POST')?.body as SamplingInput | undefined)?.bags ?? [];
  return { asked, bags, planned: () => planned };
}
const button = (name: RegExp): HTMLButtonElement => screen.getByRole('button', { name });

beforeEach(() => {
  sessionStorage.clear();
  besidePage({ 'design.worker.ts': { design: placeCores } });
});

describe('the plan of the cores', () => {
  it('sends what is on screen: places inside the lawn, in the order of a walk from the gate', async () => {
    const { bags, planned } = await plan();
    await userEvent.click(button(/^Plan 1 bag$/));
    await waitFor(() => expect(planned()).toBe(1));
    const [bag] = bags();
    expect(bag).toMatchObject({ purpose: 'routine', depth: 10.16, design: 'coverage', panels: ['routine'] });
    expect(bag!.cores.map(({ turn }) => turn)).toEqual(bag!.cores.map((_core, index) => index + 1));
    const { coordinates } = lawn.geometry as { coordinates: number[][][] };
    const ring = coordinates[0]!;
    for (const { place } of bag!.cores)
      for (const axis of [0, 1] as const) {
        const ends = ring.map((corner) => corner[axis]!);
        expect(place![axis]).toBeGreaterThan(Math.min(...ends));
        expect(place![axis]).toBeLessThan(Math.max(...ends));
      }
    expect(screen.getByText(/from the gate and back, the shortest way found/)).toBeTruthy();
  });

  it('asks for cores enough to fill the bag, and says what they bring', async () => {
    const { bags } = await plan();
    await userEvent.click(button(/^Plan 1 bag$/));
    await waitFor(() => expect(bags()).toHaveLength(1));
    const cores = bags()[0]!.cores.length;
    expect(samplingCoreVolume({ diameter: 1.905, depth: 10.16, cores }).result.volume).toBeGreaterThanOrEqual(500);
    expect(screen.getByText(/a bag wants 500 mL\. They fill it\./)).toBeTruthy();
    // Fewer are allowed, and told short.
    await userEvent.clear(screen.getByLabelText('Cores of Back lawn'));
    await userEvent.type(screen.getByLabelText('Cores of Back lawn'), '9');
    expect(screen.getByText(/9 cores bring about 260 mL/).textContent).not.toContain('They fill it');
  });

  it('takes its bag and its price from the laboratory, and its depth by one press', async () => {
    const { bags } = await plan();
    await choose('Laboratory', laboratory.name);
    expect(screen.getByText(/Simulated: nothing is posted/)).toBeTruthy();
    expect(screen.getByText(/a bag wants 300 mL/)).toBeTruthy();
    expect(screen.getByText('Tidewater Soils asks $18.00 for 1 bag.')).toBeTruthy();
    await userEvent.click(button(/6 in, seedbeds/));
    // Last tested at 4 in: what is compared must be the same slice.
    expect(within(screen.getByRole('list', { name: 'Cautions' })).getByText(/4 in/)).toBeTruthy();
    await screen.findByText(/cores in 1 bag/);
    await userEvent.click(await screen.findByRole('button', { name: /^Plan 1 bag$/ }));
    await waitFor(() => expect(bags()[0]).toMatchObject({ laboratory: laboratory.name, depth: 15.24 }));
  });

  it('mixes zones that nothing tells apart, says so, and keeps apart what differs', async () => {
    await plan([lawn, alike, court]);
    const together = screen.getByText('Back lawn, Front lawn');
    expect(together.parentElement!.textContent).toMatch(/nothing that is known of them differs/i);
    expect(screen.getByText('Court')).toBeTruthy();
    expect(button(/^Plan 2 bags$/)).toBeTruthy();
    await userEvent.click(screen.getByRole('checkbox', { name: 'Every zone a bag of its own' }));
    await waitFor(() => expect(button(/^Plan 3 bags$/)).toBeTruthy());
    await userEvent.click(screen.getByRole('checkbox', { name: 'Sample Court' }));
    await waitFor(() => expect(button(/^Plan 2 bags$/)).toBeTruthy());
  });

  it('plans other places for another chance, and as many of them', async () => {
    const { bags, asked } = await plan();
    await userEvent.click(button(/^Plan 1 bag$/));
    await waitFor(() => expect(bags()).toHaveLength(1));
    const before = bags()[0]!.cores.map(({ place }) => place);
    asked.length = 0;
    await userEvent.click(button(/^Other places$/));
    await waitFor(() => expect(button(/^Plan 1 bag$/).disabled).toBe(false));
    await userEvent.click(button(/^Plan 1 bag$/));
    await waitFor(() => expect(bags()).toHaveLength(1));
    const after = bags()[0]!.cores.map(({ place }) => place);
    expect(after).toHaveLength(before.length);
    expect(after).not.toEqual(before);
  });

  it('keeps a depth that is no length on screen and plans nothing with it', async () => {
    await plan();
    await userEvent.clear(screen.getByLabelText('Depth'));
    await userEvent.type(screen.getByLabelText('Depth'), 'deep');
    expect(screen.getByLabelText<HTMLInputElement>('Depth').value).toBe('deep');
    expect(screen.getByText('“deep” is no length: write 4 in or 10 cm.')).toBeTruthy();
    expect(button(/^Plan 1 bag$/).disabled).toBe(true);
  });

  it('says what an edge leaves no ground for, by the zone’s name', async () => {
    await plan();
    await userEvent.clear(screen.getByLabelText('Off the edges'));
    await userEvent.type(screen.getByLabelText('Off the edges'), '60 ft');
    expect((await screen.findByRole('alert')).textContent).toMatch(/^Back lawn: The zone is too narrow/);
    expect(button(/^Plan 1 bag$/).disabled).toBe(true);
  });

  it('asks what is to grow only on a seedbed, and warns of frozen ground', async () => {
    const { bags } = await plan();
    expect(screen.queryByRole('combobox', { name: 'To grow there' })).toBeNull();
    await choose('Purpose', 'new seedbed');
    await choose('To grow there', 'perennial ryegrass');
    await choose('The soil is', 'frozen');
    expect(within(screen.getByRole('list', { name: 'Cautions' })).getByText(/frozen/i)).toBeTruthy();
    await waitFor(() => expect(button(/^Plan 1 bag$/).disabled).toBe(false));
    await userEvent.click(button(/^Plan 1 bag$/));
    await waitFor(() => expect(bags()[0]).toMatchObject({ purpose: 'new seedbed', grassWanted: 'perennial ryegrass' }));
  });

  it('warns of lime that went down after the last sample was taken', async () => {
    const limed = zoneWith({
      applied: [{ kind: 'lime', on: '2026-10-20' }] as never,
    });
    await plan([limed]);
    await userEvent.clear(screen.getByLabelText('Day'));
    await userEvent.type(screen.getByLabelText('Day'), '2026-11-20');
    expect(within(screen.getByRole('list', { name: 'Cautions' })).getByText(/lime/i).textContent).toMatch(/month|week/);
  });

  it('counts a zone that is not drawn, without places', async () => {
    const { bags } = await plan([zoneWith({ geometry: null })]);
    expect(screen.getByText(/walk a Z over them and count/)).toBeTruthy();
    await userEvent.click(button(/^Plan 1 bag$/));
    await waitFor(() => expect(bags()).toHaveLength(1));
    expect(bags()[0]!.cores.every(({ place }) => place === undefined)).toBe(true);
  });

  it('says that the worker failed, and that it can be tried again', async () => {
    besidePage({
      'design.worker.ts': { design: () => Promise.reject(new Error('The places could not be worked out.')) },
    });
    serve(answers);
    show(<DesignPanel site={site} zones={[lawn]} zone={lawn} results={[]} onPlanned={() => undefined} />);
    expect((await screen.findByRole('alert')).textContent).toBe('The places could not be worked out.');
    expect(button(/^Plan 1 bag$/).disabled).toBe(true);
  });

  it('has nothing to plan where every zone has its bag', async () => {
    serve({ ...answers, '/sites/s/bags': [bagWith()] });
    show(<DesignPanel site={site} zones={[lawn]} zone={lawn} results={[]} onPlanned={() => undefined} />);
    expect(await screen.findByText(/Every zone has a bag planned already/)).toBeTruthy();
  });
});
