import type {
  GroundFeatureAnswer,
  DrawingAnswer,
  LabReportAnswer,
  LabReportChoices,
  ZoneAnswer,
} from '@glenfold/contract';
import { readHeader, readLabRow } from '@glenfold/agronomy';
import { cleanup, screen, waitFor, within } from '@testing-library/react';
import userEvent from './userEvent.ts';
import { NewZoneForm } from '../src/features/ground/drawing/dialogs.tsx';
import { ZoneForm } from '../src/features/ground/ZoneForm.tsx';
import { LevelsPanel } from '../src/features/ground/levels/LevelsPanel.tsx';
import { LabFileReview } from '../src/features/lab/review/LabFileReview.tsx';
import { type Asked, choose, serve, show } from './page.tsx';
import { plane, zoneWith } from './scene.ts';

it('an outline that is drawn may be that of a zone which was typed', async () => {
  serve({});
  const typed = zoneWith({ id: 'typed', name: 'Back lawn', label: 'B-1', geometry: null, area: 120 });
  const given: string[] = [];
  const geometry = { type: 'Polygon', coordinates: [[[0, 0], [0.0001, 0], [0.0001, 0.0001], [0, 0]]] } as never; // prettier-ignore
  show(<NewZoneForm title="A new zone" zones={[typed]} geometry={geometry} onClose={() => undefined} onDone={() => given.push('new')} onOutlineOf={({ id }) => given.push(id)} />, { units: 'metric' }); // prettier-ignore
  await choose('It is', 'Back lawn, typed with 120 m²');
  expect(screen.queryByLabelText('Name')).toBeNull();
  await userEvent.click(screen.getByRole('button', { name: 'Give it this outline' }));
  expect(given).toEqual(['typed']);
});

const zone = zoneWith();
const sent = (asked: readonly Asked[]): Asked | undefined => asked.find(({ method }) => method !== 'GET');

describe('levels of a field known by four heights', () => {
  /** Falls 1.5 % to the north and 1 % to the east; `up` m at the north-east corner beside that. */
  const heights = (up = 0): DrawingAnswer => {
    const spots = [
      [1, 1],
      [39, 1],
      [39, 29],
      [1, 29],
    ] as const;
    return {
      zones: [zone],
      features: spots.map(
        ([east, north], index) =>
          ({
            id: String(index),
            version: 1,
            kind: 'spot height',
            name: null,
            height: 2 - 0.01 * east - 0.015 * north + (index === 2 ? up : 0),
            geometry: { type: 'Point', coordinates: [...plane.toMap([east, north])] },
          }) as unknown as GroundFeatureAnswer,
      ),
    } as unknown as DrawingAnswer;
  };

  it('begin at the field’s own mean slope, where nothing need be moved', () => {
    serve({});
    show(<LevelsPanel zone={zone} plan={heights()} />, { units: 'metric' });
    // √(1² + 1.5²) = 1.80 %.
    expect(screen.getByText(/It falls/).textContent).toMatch(/1\.8 % toward the north-east/);
    expect(screen.getByLabelText<HTMLInputElement>('Fall wanted').value).toBe('1.8');
    expect(screen.getByText('Its own mean slope')).toBeTruthy();
    const moved = within(screen.getByRole('region', { name: 'Cut and fill' })).getAllByText(/m³$/);
    for (const amount of moved) expect(Number(amount.textContent.split(/\s/)[0])).toBeLessThan(0.5);
  });

  it('move as much soil as is cut, and more for another slope', async () => {
    serve({});
    show(<LevelsPanel zone={zone} plan={heights(0.2)} />, { units: 'metric' });
    const amounts = (): number[] =>
      within(screen.getByRole('region', { name: 'Cut and fill' }))
        .getAllByText(/m³$/)
        .map(({ textContent }) => Number(textContent.split(/\s/)[0]));
    const [cut, fill] = amounts();
    expect(cut).toBeGreaterThan(1);
    expect(fill).toBeCloseTo(cut!, 0);
    await userEvent.clear(screen.getByLabelText('Fall wanted'));
    await userEvent.type(screen.getByLabelText('Fall wanted'), '6');
    expect(amounts()[0]).toBeGreaterThan(cut! * 2);
    await userEvent.clear(screen.getByLabelText('Fall wanted'));
    await userEvent.type(screen.getByLabelText('Fall wanted'), 'steep');
    expect(screen.getByText(/Give a fall of 0 to 30 %/)).toBeTruthy();
  });

  it('keep the slope on the zone by one press', async () => {
    const asked = serve({ 'PUT /zones/z/facts': { ...zone, version: 5 } });
    show(<LevelsPanel zone={zone} plan={heights()} />, { units: 'metric' });
    await userEvent.click(screen.getByRole('button', { name: /^Keep 1\.8 %/ }));
    await waitFor(() => expect(sent(asked)?.body).toMatchObject({ slope: 1.8, aspect: 'north-east' }));
  });

  it('say what is missing where there are no heights, or no plan', () => {
    serve({});
    const none = { ...heights(), features: [] };
    const { unmount } = show(<LevelsPanel zone={zone} plan={none} />);
    expect(screen.getByText(/No spot heights yet/)).toBeTruthy();
    unmount();
    show(<LevelsPanel zone={{ ...zone, geometry: null }} plan={none} />);
    expect(screen.getByText(/Draw the zone first/)).toBeTruthy();
  });
});

describe('the form of a zone', () => {
  const open = (more: Partial<ZoneAnswer> = {}) => {
    const saved: ZoneAnswer[] = [];
    show(
      <ZoneForm
        siteId="s"
        zone={{ ...zone, geometry: null, ...more }}
        onClose={() => undefined}
        onSaved={(next) => saved.push(next)}
      />,
    );
    return saved;
  };

  it('takes an aim of one’s own with its reason', async () => {
    const asked = serve({ 'PUT /zones/z': { ...zone, version: 5 } });
    const saved = open();
    await userEvent.type(screen.getByLabelText('Aim for pH'), '7.4');
    await userEvent.type(screen.getByLabelText('Why this aim'), 'clover for the bees');
    await userEvent.click(screen.getByRole('button', { name: 'Save the zone' }));
    await waitFor(() => expect(saved).toHaveLength(1));
    expect(sent(asked)).toMatchObject({
      method: 'PUT',
      path: '/zones/z',
      body: { aimPh: 7.4, aimReason: 'clover for the bees', soilGroup: 'loam' },
    });
  });

  it('is saved again and again where nothing changes, and where the server has gone back to a backup', async () => {
    for (const version of [7, 7, 5, 7]) {
      const asked = serve({ 'PUT /zones/twice': { ...zone, id: 'twice', version } });
      const saved = open({ id: 'twice', version: 7 });
      await userEvent.click(screen.getByRole('button', { name: 'Save the zone' }));
      await waitFor(() => expect(saved).toHaveLength(1));
      expect(sent(asked)?.version).toBe('7');
      cleanup();
    }
  });

  it('can say that the soil is not known', async () => {
    const asked = serve({ 'PUT /zones/z': { ...zone, version: 5 } });
    const saved = open();
    await choose('Soil', /not known/i);
    await userEvent.click(screen.getByRole('button', { name: 'Save the zone' }));
    await waitFor(() => expect(saved).toHaveLength(1));
    expect(sent(asked)?.body).toMatchObject({ soilGroup: null });
  });

  it('sends nothing that cannot be, and says what would do', async () => {
    const asked = serve({});
    open();
    await userEvent.clear(screen.getByLabelText('Name'));
    await userEvent.type(screen.getByLabelText('Aim for pH'), '12');
    await userEvent.click(screen.getByRole('button', { name: 'Save the zone' }));
    expect(await screen.findByText('Give the zone a name of 1 to 80 letters.')).toBeTruthy();
    expect(screen.getByText(/pH.*4|Aim.*between|Aim.*to/)).toBeTruthy();
    expect(sent(asked)).toBeUndefined();
    expect(screen.getByLabelText<HTMLInputElement>('Aim for pH').value).toBe('12');
  });

  it('leaves everything typed where the server cannot be reached', async () => {
    serve({ 'PUT /zones/z': new TypeError('fetch failed') });
    const saved = open();
    await userEvent.clear(screen.getByLabelText('Name'));
    await userEvent.type(screen.getByLabelText('Name'), 'Lower lawn');
    await userEvent.click(screen.getByRole('button', { name: 'Save the zone' }));
    expect(await screen.findByRole('alert')).toBeTruthy();
    expect(saved).toEqual([]);
    expect(screen.getByLabelText<HTMLInputElement>('Name').value).toBe('Lower lawn');
  });
});

describe('a laboratory’s file before it is imported', () => {
  /** A file as the server would have read it. */
  const read = (headers: readonly string[], cells: readonly string[], more: Partial<LabReportAnswer> = {}) => {
    const { columns, bufferMethod, extractant } = readHeader(headers);
    const { row, faults } = readLabRow(cells, columns);
    return {
      id: 'f',
      version: 1,
      siteId: 's',
      fileName: 'report.csv',
      status: 'open',
      columns,
      bufferMethod,
      extractant,
      limeFactor: null,
      depth: null,
      ...{ dateOrder: null, readAs: null, original: null, profile: null },
      rows: [
        {
          ...{
            line: 2,
            cells,
            row,
            zoneId: 'z',
            bagId: null,
            zoneChosen: false,
            faults,
            questions: [],
            resultId: null,
          },
          ...{ doubts: [], last: {}, state: null, corrected: [] },
        },
      ],
      bags: [],
      ...more,
    } as unknown as LabReportAnswer;
  };
  const ready = read(['Sample', 'pH', 'Depth (cm)', 'Mehlich-3 P ppm'], ['BL', '6.1', '10', '<27']);

  it('shows below detection as such, and what goes where', () => {
    serve({});
    show(<LabFileReview file={ready} zones={[zone]} />, { units: 'metric' });
    const sample = screen.getByRole('region', { name: 'BL' });
    expect(sample.textContent).toMatch(/BL.*Back lawn \(BL\).*pH 6\.1, P <27, 10 cm deep/);
    expect(screen.getByRole('button', { name: 'Import 1 result' })).toBeTruthy();
  });

  it('asks how lime is meant on the Adams–Evans scale, and only there', async () => {
    const asked = serve({ 'PUT /lab-reports/f': ready });
    const headers = ['Sample', 'pH', 'Buffer pH (Moore-Sikora)', 'Depth (cm)'];
    const smp = ['Sample', 'pH', 'SMP buffer pH', 'Depth (cm)'];
    const { unmount } = show(<LabFileReview file={read(smp, ['BL', '5.4', '6.4', '10'])} zones={[zone]} />);
    expect(screen.queryByRole('combobox', { name: 'Its lime is given as' })).toBeNull();
    unmount();
    show(<LabFileReview file={read(headers, ['BL', '5.4', '7.7', '10'])} zones={[zone]} />);
    await userEvent.click(screen.getByRole('combobox', { name: 'Its lime is given as' }));
    await userEvent.click(screen.getByRole('option', { name: /times 1\.5/ }));
    await waitFor(() => expect((sent(asked)?.body as LabReportChoices | undefined)?.limeFactor).toBe(1.5));
  });

  it('sends each correction on from the one before', async () => {
    const headers = ['Sample', 'pH', 'Buffer pH (Moore-Sikora)', 'Depth (cm)'];
    const file = read(headers, ['BL', '5.4', '7.7', '10']);
    const asked = serve({ 'PUT /lab-reports/f': { ...file, version: 2, limeFactor: 1.5 } });
    show(<LabFileReview file={file} zones={[zone]} />);
    await choose('Its lime is given as', /times 1\.5/);
    await waitFor(() => expect(sent(asked)?.body).toMatchObject({ limeFactor: 1.5 }));
    await choose('Extractant', /Bray/);
    const puts = () => asked.filter(({ method }) => method === 'PUT').map(({ body }) => body as LabReportChoices);
    await waitFor(() => expect(puts()).toHaveLength(2));
    expect(puts()[1]).toMatchObject({ extractant: 'bray-1', limeFactor: 1.5 });
  });

  it('keeps a row that cannot be read, with its reason, and imports nothing of it', () => {
    serve({});
    const faulty = read(['Sample', 'pH', 'Depth (cm)'], ['BL', 'see note', '10']);
    show(<LabFileReview file={faulty} zones={[zone]} />);
    expect(screen.getByText(/"see note" is not a number/)).toBeTruthy();
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'No row is ready' }).disabled).toBe(true);
  });
});
