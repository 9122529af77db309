import type { DrawingAnswer, MeasurementsInput, ZoneAnswer, ZoneFactsInput } from '@glenfold/contract';
import { screen, waitFor, within } from '@testing-library/react';
import userEvent from './userEvent.ts';
import { MeasureForm } from '../src/features/ground/MeasureForm.tsx';
import { ZonePanel } from '../src/features/ground/ZonePanel.tsx';
import { DividePanel } from '../src/features/ground/divide/DividePanel.tsx';
import { FactsForm } from '../src/features/ground/facts/FactsForm.tsx';
import { SoilHistory } from '../src/features/ground/facts/SoilHistory.tsx';
import type { Pen } from '../src/features/ground/drawing/DrawingEditor.tsx';
import type { Stroke } from '../src/features/ground/drawing/strokes.ts';
import { Rebuild } from '../src/features/ground/rebuild/Rebuild.tsx';
import { Sections } from '../src/features/ground/sections/Sections.tsx';
import { ThingPanel } from '../src/features/ground/things/ThingPanel.tsx';
import { TroublePanel } from '../src/features/ground/trouble/TroublePanel.tsx';
import { changesOf, choose, serve, show } from './page.tsx';
import { rectangle, resultWith, thing, zoneWith } from './scene.ts';

const press = (name: string | RegExp): Promise<void> => userEvent.click(screen.getByRole('button', { name }));
const planOf = (zone: ZoneAnswer, ...features: DrawingAnswer['features']): DrawingAnswer => ({
  zones: [zone],
  features,
  underlay: null,
});
/** A pen whose strokes are only noted; a mark is set where it is told. */
function noted() {
  const strokes: Stroke[] = [];
  const parted: string[] = [];
  const pen = {
    make: (stroke: Stroke) => Promise.resolve(void strokes.push(stroke)),
    mark: (_words: string, onMarked: (at: readonly [number, number]) => void) => onMarked([-36.2, 46.4]),
    part: (_zone: ZoneAnswer, _parted: unknown, title: string) => void parted.push(title),
  } as unknown as Pen;
  return { pen, strokes, parted };
}
/** A server that keeps what is known of a zone, each save a version on. */
function keeping(zone: ZoneAnswer) {
  let kept = zone;
  const answer = ({ body }: { body: unknown }): ZoneAnswer =>
    (kept = { ...kept, version: kept.version + 1, facts: body as ZoneFactsInput });
  return serve({ 'PUT /zones/z/facts': answer });
}

describe('signs of trouble', () => {
  it('are marked by their look, point at causes in order, and the first says what would settle it', async () => {
    const zone = zoneWith();
    const asked = keeping(zone);
    show(<TroublePanel zone={zone} result={resultWith()} plan={planOf(zone)} pen={null} />);
    expect(screen.getByText(/feeding is seldom the cure/)).toBeTruthy();
    await press('Mark what you see');
    expect(screen.getByRole('button', { name: 'It is all over' })).toHaveProperty('disabled', true);
    await userEvent.click(screen.getByRole('radio', { name: /Puddles after rain/ }));
    // Without a plan there is nothing to point at.
    expect(screen.getByRole('button', { name: 'Point at it on the plan' })).toHaveProperty('disabled', true);
    await press('It is all over');
    await waitFor(() => expect(changesOf(asked)).toHaveLength(1));
    expect(changesOf(asked)[0]!.body).toMatchObject({ signs: [{ sign: 'puddles' }] });
  });

  it('with facts of the zone and of its test tell for and against, weights only behind "why"', () => {
    const seen = { sign: 'hard ground', on: '2026-08-02' };
    const zone = zoneWith({ soilGroup: 'clay', probeStop: 6, facts: { signs: [seen], use: 'play' } as never });
    serve({});
    show(<TroublePanel zone={zone} result={resultWith()} plan={planOf(zone)} pen={null} />);
    const [first, ...others] = within(screen.getByRole('list', { name: 'Likely causes' })).getAllByRole('listitem', {
      name: '',
    });
    expect(first!.textContent).toMatch(/Compact/);
    expect(first!.textContent).toMatch(/To settle it:.*If so:/);
    expect(first!.textContent).not.toMatch(/\d points/);
    expect(others.some(({ textContent }) => textContent.includes('If so:'))).toBe(false);
  });

  it('are pointed at where they are seen, and taken out again', async () => {
    const zone = zoneWith({ facts: { signs: [{ sign: 'moss', on: '2026-08-02' }] } });
    const asked = keeping(zone);
    show(<TroublePanel zone={zone} result={undefined} plan={planOf(zone)} pen={noted().pen} />);
    await press('Mark what you see');
    await userEvent.click(screen.getByRole('radio', { name: /Dry patches|Patches brown first/ }));
    await press('Point at it on the plan');
    await waitFor(() => expect(changesOf(asked)).toHaveLength(1));
    const { signs } = changesOf(asked)[0]!.body as ZoneFactsInput;
    expect(signs).toMatchObject([{ sign: 'moss' }, { sign: 'dry patches', at: [-36.2, 46.4] }]);
    await userEvent.click(screen.getAllByRole('button', { name: /^Take out/ })[0]!);
    await waitFor(() => expect(changesOf(asked)).toHaveLength(2));
  });
});

describe('what divides a zone', () => {
  const tree = thing('tree', 20, 15, { name: 'Live oak', canopyRadius: 6 });

  it('is a tree over it, with its share of the area, and becomes a zone by the pen', async () => {
    serve({});
    const zone = zoneWith();
    const { pen, parted } = noted();
    show(<DividePanel zone={zone} plan={planOf(zone, tree)} pen={pen} />, { units: 'metric' });
    const canopy = screen.getByRole('region', { name: 'Under a canopy' });
    // π × 6² = 113 m² of 1200.
    expect(canopy.textContent).toMatch(/11[23] m², 9 % of the zone, under Live oak/);
    await userEvent.click(within(canopy).getByRole('button'));
    expect(parted).toEqual(['Under a canopy: part it off']);
  });

  it('is nothing where nothing stands, and cannot be told without a plan', () => {
    serve({});
    const { unmount } = show(<DividePanel zone={zoneWith()} plan={planOf(zoneWith())} pen={null} />);
    expect(screen.getByText(/Nothing on the plan divides this zone/)).toBeTruthy();
    unmount();
    show(<DividePanel zone={zoneWith({ geometry: null })} plan={planOf(zoneWith(), tree)} pen={null} />);
    expect(screen.getByText(/Draw the zone first/)).toBeTruthy();
  });
});

describe('what is measured on the spot', () => {
  const open = (answer: unknown) => {
    let closed = 0;
    const asked = serve({ 'PUT /zones/z/measurements': answer });
    show(<MeasureForm zone={zoneWith()} onClose={() => (closed += 1)} />);
    return { asked, closed: () => closed };
  };

  it('is kept in its unit, and what was not looked at stays open', async () => {
    const { asked, closed } = open(zoneWith({ version: 5 }));
    await userEvent.type(screen.getByLabelText('Thatch'), '1.2 cm');
    await userEvent.type(screen.getByLabelText('Roots to'), '3 in');
    await press('Save');
    await waitFor(() => expect(closed()).toBe(1));
    expect(changesOf(asked)[0]).toMatchObject({ version: '4', body: { thatch: 1.2, probeStop: null } });
    expect((changesOf(asked)[0]!.body as MeasurementsInput).rootDepth).toBeCloseTo(7.62, 6);
  });

  it('is refused where no slice has it, and stays in its field', async () => {
    const { asked, closed } = open({});
    await userEvent.type(screen.getByLabelText('Thatch'), '4 ft');
    await press('Save');
    expect(await screen.findByText(/Thatch/, { selector: 'p' })).toBeTruthy();
    expect([closed(), changesOf(asked).length]).toEqual([0, 0]);
    // 4 ft, in the unit of the field.
    expect(screen.getByLabelText('Thatch')).toHaveProperty('value', '48');
  });
});

describe('what is known of a zone beside its soil', () => {
  it('takes a mix only where its shares make a whole', async () => {
    const zone = zoneWith();
    const asked = keeping(zone);
    let closed = 0;
    show(<FactsForm zone={zone} onClose={() => (closed += 1)} />);
    await press('Add a grass');
    await press('Add a grass');
    await press('Save');
    expect((await screen.findByText(/100 %/, { selector: '[role=alert]' })).textContent).toMatch(/shares/i);
    expect(changesOf(asked)).toEqual([]);
    const [first] = screen.getAllByLabelText('Share');
    await userEvent.clear(first!);
    await userEvent.type(first!, '90');
    await userEvent.click(screen.getAllByRole('combobox', { name: 'Grass' })[1]!);
    await userEvent.click(await screen.findByRole('option', { name: 'Kentucky bluegrass' }));
    await press('Save');
    await waitFor(() => expect(closed).toBe(1));
    expect(changesOf(asked)[0]!.body).toMatchObject({
      mix: [
        { grass: 'tall fescue', share: 90 },
        { grass: 'kentucky bluegrass', share: 10 },
      ],
    });
  });

  it('refuses more sun than a day has, and leaves open what nobody looked at', async () => {
    const asked = keeping(zoneWith());
    show(<FactsForm zone={zoneWith()} onClose={() => undefined} />);
    await userEvent.type(screen.getByLabelText('Direct sun'), '30');
    await press('Save');
    expect(await screen.findByText(/sun/i, { selector: 'p.Mui-error' })).toBeTruthy();
    await userEvent.clear(screen.getByLabelText('Direct sun'));
    await userEvent.type(screen.getByLabelText('Direct sun'), '5');
    await choose('Watered by', /Drip|By hand|Sprinkler/i);
    await press('Save');
    await waitFor(() => expect(changesOf(asked)).toHaveLength(1));
    expect(changesOf(asked)[0]!.body).toMatchObject({ sunHours: 5 });
    expect((changesOf(asked)[0]!.body as ZoneFactsInput).slope ?? null).toBeNull();
  });

  it('remembers layers over the soil, newest first, and lets one go', async () => {
    const layers = [
      { material: 'sand', depth: 2.54, on: '2019' },
      { material: 'topsoil', depth: 10.16, on: '2024-05', note: 'from the sports hall' },
    ];
    const zone = zoneWith({ facts: { layers } });
    const asked = keeping(zone);
    show(<SoilHistory zone={zone} />);
    expect(screen.getAllByRole('listitem').map(({ textContent }) => textContent)).toEqual([
      '4 in topsoil, May 2024from the sports hall',
      '1 in sand, 2019',
    ]);
    await userEvent.click(screen.getAllByRole('button', { name: 'Take it out' })[1]!);
    await waitFor(() => expect(changesOf(asked)[0]!.body).toMatchObject({ layers: [layers[1]] }));
  });

  it('puts sections in order over the years, with the reason that an owner is told', async () => {
    const later = zoneWith({ id: 'c', name: 'Court', area: 300 });
    const asked = keeping(zoneWith());
    show(<Sections siteId="s" zones={[zoneWith(), later]} />, { units: 'metric' });
    expect(screen.getByText('Not in order yet 1,500 m²')).toBeTruthy();
    const group = screen.getByRole('group', { name: 'When Back lawn is improved' });
    await userEvent.click(within(group).getByRole('button', { name: 'Now' }));
    await waitFor(() => expect(changesOf(asked)[0]!.body).toMatchObject({ section: 'now' }));
    const [why] = screen.getAllByLabelText('Why');
    await userEvent.type(why!, 'seen from the road');
    await userEvent.tab();
    await waitFor(() => expect(changesOf(asked)[1]!.body).toMatchObject({ sectionReason: 'seen from the road' }));
  });
});

describe('the facts of the chosen zone', () => {
  const aim = (more: Partial<ZoneAnswer>): string => {
    sessionStorage.clear();
    serve({ '/sites/s/photos': [] });
    const zone = zoneWith({ grass: 'centipedegrass', ...more });
    show(<ZonePanel zone={zone} result={undefined} plan={planOf(zone)} pen={null} onDialog={() => undefined} />);
    return screen.getByText('pH wanted').nextElementSibling!.textContent;
  };

  it('show the aim that is followed, and say why one’s own is not', () => {
    expect(aim({})).toMatch(/^\d\.\d–\d\.\d, aim \d\.\d$/);
    document.body.innerHTML = '';
    expect(aim({ aimPh: 8 })).toMatch(/aim 6\.0Your aim of 8\.0 lies outside .*no reason is given: 6\.0 is used/);
    document.body.innerHTML = '';
    expect(aim({ aimPh: 7, aimReason: 'clover' })).toMatch(/aim 7\.0 \(your own\).*for the reason “clover”/);
    document.body.innerHTML = '';
    expect(aim({ aimPh: 5.5 })).toMatch(/aim 5\.5 \(your own\)$/);
  });
});

describe('a thing on the plan', () => {
  it('warns where a line is buried, and changes as one stroke that can be undone', async () => {
    serve({});
    const { pen, strokes } = noted();
    const tree = thing('tree', 3, 4, { canopyRadius: 2.4384 });
    const { unmount } = show(<ThingPanel thing={tree} pen={pen} />);
    expect(screen.getByRole('button', { name: 'Save' })).toHaveProperty('disabled', true);
    await userEvent.clear(screen.getByLabelText('Radius of the canopy'));
    await userEvent.type(screen.getByLabelText('Radius of the canopy'), '10 ft');
    await press('Save');
    await waitFor(() => expect(strokes).toHaveLength(1));
    const [change] = strokes[0]!.changed!;
    expect([change!.from.canopyRadius, change!.to.canopyRadius]).toEqual([2.4384, expect.closeTo(3.048, 6)]);
    unmount();
    const line = { ...thing('buried line', 0, 0), geometry: { type: 'LineString', coordinates: [[0, 0]] } } as never;
    show(<ThingPanel thing={line} pen={pen} />, { role: 'technician' });
    expect(screen.getByText(/Have it marked before you dig/)).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Save' })).toBeNull();
  });
});

describe('ground that is built anew', () => {
  const court = zoneWith({ id: 'c', name: 'Court', area: 92.903, geometry: rectangle(0, 0, 10, 9.29) });
  const open = () => {
    sessionStorage.clear();
    serve({});
    show(<Rebuild siteId="s" zones={[court, zoneWith()]} zone={court} />);
  };

  it('is told in loads that open to their working, and costed only with prices', async () => {
    open();
    // 1000 ft² × 4 in ÷ 12 ÷ 27 = 12.35 yd³ in place, more of it loose.
    const row = screen.getByRole('row', { name: /^Topsoil/ });
    expect(row.textContent).toMatch(/12\.\d yd³.*no price$/);
    await userEvent.click(screen.getByText(/^\d+ loads$/));
    expect((await screen.findByRole('dialog')).textContent).toMatch(/÷|×/);
    await userEvent.keyboard('{Escape}');
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
    await userEvent.type(screen.getByLabelText('Price'), '30');
    expect(within(screen.getByRole('row', { name: /^Topsoil/ })).queryByText('no price')).toBeNull();
    expect(screen.getByRole('list', { name: 'Cautions' }).textContent).toMatch(/buried lines marked/);
  });

  it('says by field what cannot be, and counts the zones that are ticked', async () => {
    open();
    await userEvent.clear(screen.getByLabelText('Firmed depth'));
    await userEvent.type(screen.getByLabelText('Firmed depth'), 'a spade');
    expect(screen.getAllByText(/depth/i).length).toBeGreaterThan(1);
    expect(screen.queryByRole('row', { name: /^Topsoil/ })).toBeNull();
    await userEvent.clear(screen.getByLabelText('Firmed depth'));
    await userEvent.type(screen.getByLabelText('Firmed depth'), '4');
    await userEvent.click(screen.getByRole('checkbox', { name: /^Court/ }));
    expect(screen.getByText('Choose the zones that are rebuilt.')).toBeTruthy();
  });

  it('stacks layers from the bottom up, and keeps one at least', async () => {
    open();
    expect(screen.getByRole('button', { name: 'Take out the topsoil' })).toHaveProperty('disabled', true);
    await press('Add a layer');
    expect(screen.getAllByRole('row')).toHaveLength(3);
    await userEvent.click(screen.getAllByRole('button', { name: 'Take out the topsoil' })[0]!);
    expect(screen.getAllByRole('row')).toHaveLength(2);
  });
});
