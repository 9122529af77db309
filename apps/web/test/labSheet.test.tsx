import type { LabResultInput } from '@glenfold/contract';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import userEvent from './userEvent.ts';
import { Lab } from '../src/features/lab/Lab.tsx';
import { changesOf, choose, problem, serve, show } from './page.tsx';
import { printed, resultWith, site, zoneWith } from './scene.ts';

const [lawnId, courtId] = ['1c0e6f3a-5a2d-4a84-9d0b-2f7c6a1b9e01', '1c0e6f3a-5a2d-4a84-9d0b-2f7c6a1b9e02'];
const zones = [zoneWith({ id: lawnId }), zoneWith({ id: courtId, name: 'Court', label: 'CT' })];
const cell = (field: RegExp | string, zone = 'Back lawn'): HTMLInputElement =>
  screen.getByLabelText<HTMLInputElement>(
    typeof field === 'string' ? `${field} of ${zone}` : new RegExp(`${field.source} of ${zone}`),
  );
const open = (
  results = [] as ReturnType<typeof resultWith>[],
  more = {},
  role: 'advisor' | 'technician' = 'advisor',
) => {
  const asked = serve({ '/sites/s/lab-reports': [], ...more });
  show(<Lab site={site} zones={zones} zone={zones[0]} results={results} />, { role });
  return asked;
};
/** Straight into a cell, and out of it. */
const type = (into: HTMLInputElement, text: string): Promise<void> => {
  fireEvent.change(into, { target: { value: text } });
  fireEvent.blur(into);
  return Promise.resolve();
};
/** Choose a cell by its place. */
const pick = (row: number, column: number): void => {
  const [left, top] = [150 + (column + 0.5) * ((1600 - 150) / 7), 72 + (row + 0.5) * 40];
  fireEvent.mouseDown(document.querySelector('.dsg-row-header')!, { clientX: left, clientY: top });
  fireEvent.mouseUp(document.querySelector('.dsg-row-header')!, { clientX: left, clientY: top });
};
/** The cell that is chosen. */
const chosen = (): string | null | undefined =>
  document.querySelector('input.sheet-cell[tabindex="0"]')?.getAttribute('aria-label');
const press = (key: string): void => void fireEvent.keyDown(document, { key });
const save = (name = /^Save/): Promise<void> => userEvent.click(screen.getByRole('button', { name }));
const inputs = (asked: ReturnType<typeof open>): LabResultInput[] =>
  changesOf(asked).map(({ body }) => body as LabResultInput);

/** A page has no size here: the grid, which draws only what is seen, is told one. */
class SizeObserver {
  constructor(private readonly told: (entries: unknown[], self: unknown) => void) {}
  observe(target: Element): void {
    const contentRect = { width: 1600, height: 600, x: 0, y: 0, top: 0, left: 0, right: 1600, bottom: 600 };
    this.told([{ target, contentRect, borderBoxSize: [{ inlineSize: 1600, blockSize: 600 }] }], this);
  }
  unobserve = (): void => undefined;
  disconnect = (): void => undefined;
}
Object.assign(window, { ResizeObserver: SizeObserver });
for (const [side, size] of [
  ['clientWidth', 1600],
  ['clientHeight', 600],
] as const)
  Object.defineProperty(HTMLElement.prototype, side, { configurable: true, get: () => size });

beforeEach(() => {
  sessionStorage.clear();
  window.scrollTo = () => undefined;
});

describe('a report that is typed', () => {
  it('goes as it is printed: numbers, units and what is below detection', async () => {
    const asked = open([], { 'POST /lab-results': resultWith() });
    await userEvent.type(screen.getByLabelText('Sampled depth'), '4');
    await type(cell('Soil pH'), '5.4');
    await type(cell('Buffer pH'), '6.5');
    await type(cell(/^P/), '<5');
    await type(cell(/^K/), '42 lb/ac');
    await type(cell('Organic matter'), '3,1');
    await save();
    await waitFor(() => expect(inputs(asked)).toHaveLength(1));
    expect(inputs(asked)[0]).toMatchObject({
      zoneIds: [lawnId],
      values: {
        soilPh: printed(5.4),
        bufferPh: printed(6.5, 'pH', { method: 'smp' }),
        organicMatter: printed(3.1, '%'),
        p: { value: 5, belowDetection: true },
        k: { value: 42, unit: 'lb/acre' },
      },
    });
    expect(inputs(asked)[0]!.depth).toBeCloseTo(10.16, 6);
    // What is saved leaves the sheet.
    await waitFor(() => expect(cell('Soil pH').value).toBe(''));
  });

  it('comes whole from a spreadsheet, each row to its zone', async () => {
    const asked = open([], { 'POST /lab-results': resultWith() });
    await userEvent.type(screen.getByLabelText('Sampled depth'), '4');
    pick(0, 0);
    fireEvent.paste(document, { clipboardData: { types: ['text/plain'], getData: () => '5.4\t6.5\n6.8\t\n' } });
    await waitFor(() => expect(cell('Soil pH').value).toBe('5.4'));
    expect([cell('Soil pH', 'Court').value, cell('Buffer pH', 'Court').value]).toEqual(['6.8', '']);
    await save(/Save 2 results/);
    await waitFor(() => expect(inputs(asked)).toHaveLength(2));
    expect(inputs(asked).map(({ zoneIds, values }) => [zoneIds[0], values.soilPh!.value])).toEqual([
      [lawnId, 5.4],
      [courtId, 6.8],
    ]);
  });

  it('takes whatever else the report holds, in columns that are added', async () => {
    const asked = open([], { 'POST /lab-results': resultWith() });
    await userEvent.type(screen.getByLabelText('Sampled depth'), '4');
    await type(cell('Soil pH'), '7.6');
    await choose('More columns', /Zinc/);
    await userEvent.keyboard('{Escape}');
    await choose('More columns', /EC, 1:5/);
    await userEvent.keyboard('{Escape}');
    await choose('Zn, extracted by', /DTPA/);
    await type(cell('Zn'), '0.4');
    await type(cell('EC, 1:5 in water'), '0.3 mS/cm');
    await save();
    await waitFor(() =>
      expect(inputs(asked)[0]?.values).toMatchObject({
        zn: { value: 0.4, unit: 'mg/kg', method: 'dtpa' },
        ec15: { value: 0.3, unit: 'dS/m' },
      }),
    );
  });

  it('is walked through with arrows and Enter', async () => {
    open();
    pick(0, 0);
    press('ArrowDown');
    expect(chosen()).toBe('Soil pH of Court');
    press('ArrowRight');
    press('ArrowUp');
    expect(chosen()).toBe('Buffer pH of Back lawn');
    // What is typed stands, and a step takes it back.
    await type(cell('Soil pH'), '5.4');
    expect(cell('Soil pH').value).toBe('5.4');
    fireEvent.keyDown(cell('Soil pH'), { key: 'z', ctrlKey: true });
    expect(cell('Soil pH').value).toBe('');
    fireEvent.keyDown(cell('Soil pH'), { key: 'y', ctrlKey: true });
    expect(cell('Soil pH').value).toBe('5.4');
  });

  it('is refused by cell, in words, with everything kept, and without asking the server', async () => {
    const asked = open();
    await save();
    expect(screen.getByText('Nothing is typed yet: begin with a soil pH.')).toBeTruthy();
    await type(cell('Soil pH'), '55');
    await type(cell('Organic matter'), 'some');
    await save();
    const words = document.getElementById(cell('Soil pH').getAttribute('aria-describedby')!)!;
    expect(words.textContent).toMatch(/pH/);
    expect(cell('Organic matter').getAttribute('aria-invalid')).toBe('true');
    expect(cell('Organic matter').value).toBe('some');
    // Lime is scaled by the depth: without it nothing is guessed.
    expect(screen.getByLabelText('Sampled depth').getAttribute('aria-invalid')).toBe('true');
    expect(changesOf(asked)).toEqual([]);
  });

  it('asks for the meaning of lime only where the buffer’s scale has two', async () => {
    const asked = open([], { 'POST /lab-results': resultWith() });
    expect(screen.queryByRole('combobox', { name: 'Its lime is given as' })).toBeNull();
    await choose('Buffer method', /Adams/);
    await choose('Its lime is given as', /times 1\.5/);
    await userEvent.type(screen.getByLabelText('Sampled depth'), '4');
    await type(cell('Soil pH'), '5.4');
    await type(cell('Buffer pH'), '7.6');
    await save();
    await waitFor(() =>
      expect(inputs(asked)[0]).toMatchObject({ values: { bufferPh: { method: 'adams-evans' } }, limeFactor: 1.5 }),
    );
  });

  it('keeps what the server could not take, and what is not yet sent', async () => {
    let calls = 0;
    const asked = open([], {
      'POST /lab-results': () => (++calls === 1 ? resultWith() : problem(503, { detail: 'The database is away.' })),
    });
    await userEvent.type(screen.getByLabelText('Sampled depth'), '4');
    await type(cell('Soil pH'), '5.4');
    await type(cell('Soil pH', 'Court'), '6.1');
    await save(/Save 2/);
    expect((await screen.findByRole('alert')).textContent).toBe('The database is away.');
    expect([cell('Soil pH').value, cell('Soil pH', 'Court').value]).toEqual(['', '6.1']);
    // Sent again, only what is missing goes.
    await save(/Save the result/);
    await waitFor(() => expect(inputs(asked).map(({ zoneIds }) => zoneIds[0])).toEqual([lawnId, courtId, courtId]));
  });
});

describe('results on record', () => {
  const low = resultWith({
    zoneIds: [lawnId],
    values: { ...resultWith().values, p: printed(27, 'mg/kg', { belowDetection: true }) },
    beside: 'Lime: 40 lb; Come again in spring',
    questions: ['A buffer pH above the soil’s own is unusual here.'],
  });
  const row = (): HTMLElement => screen.getByRole('link', { name: 'Back lawn' }).closest('tr')!;

  it('stand as their laboratory printed them, doubts beside them', () => {
    open([low]);
    expect(row().textContent).toMatch(/30 Sep 2026.*4 in deep.*5\.6.*6\.6.*SMP.*<27.*ppm.*3\.1.*%/);
    expect(row().textContent).toContain('The report also said Lime: 40 lb, Come again in spring.');
    expect(row().textContent).toContain('A buffer pH above the soil’s own is unusual here.');
  });

  it('hold beside the routine what else was measured, and those that were superseded say so', () => {
    const more = { zn: printed(1.2, 'mg/kg', { method: 'dtpa' }), saltPh: printed(5.1) };
    const old = resultWith({ id: 'old', zoneIds: [lawnId, courtId], supersededById: 'r', values: more });
    open([{ ...low, supersedesId: 'old' }, old]);
    const row = screen.getByRole('link', { name: 'Back lawn, Court' }).closest('tr')!;
    expect(row.textContent).toMatch(
      /^Back lawn, Court.*Superseded.*Also pH salt 5\.1, Zn 1\.2 ppm by DTPA.*5\.7from salt/,
    );
    expect(within(row).queryByRole('button')).toBeNull();
  });

  it('are corrected on the sheet over the version that was seen', async () => {
    const asked = open([low], { 'PUT /lab-results/r': resultWith({ version: 2 }) });
    await userEvent.click(within(row()).getByRole('button', { name: /^Correct/ }));
    expect(screen.getByRole('heading', { name: 'Correct Back lawn' })).toBeTruthy();
    expect([cell('Soil pH').value, cell(/^P/).value]).toEqual(['5.6', '<27']);
    expect(screen.queryByLabelText('Soil pH of Court')).toBeNull();
    await userEvent.clear(cell('Soil pH'));
    await type(cell('Soil pH'), '5.8');
    await save(/Save the correction/);
    await waitFor(() => expect(changesOf(asked)).toHaveLength(1));
    expect(changesOf(asked)[0]).toMatchObject({
      version: '1',
      body: { values: { soilPh: { value: 5.8 }, p: { value: 27, belowDetection: true } } },
    });
  });

  it('are only read by those who may not change them', () => {
    open([low], {}, 'technician');
    expect(within(row()).queryByRole('button')).toBeNull();
    expect(screen.queryByRole('button', { name: /^Save/ })).toBeNull();
  });

  it('come back when they are deleted by mistake', async () => {
    const asked = open([low], { 'DELETE /lab-results/r': {}, 'POST /lab-results/r/restore': {} });
    await userEvent.click(within(row()).getByRole('button', { name: /^Delete/ }));
    await userEvent.click(await screen.findByRole('button', { name: 'Undo' }));
    await waitFor(() =>
      expect(changesOf(asked).map(({ method, path }) => `${method} ${path}`)).toEqual([
        'DELETE /lab-results/r',
        'POST /lab-results/r/restore',
      ]),
    );
  });

  it('of a laboratory’s file that is no file of values are refused with the reason', async () => {
    open([], { 'POST /sites/s/lab-reports': problem(400, { detail: 'There is no column of soil pH in it.' }) });
    const file = new File(['a,b\n1,2\n'], 'list.csv', { type: 'text/csv' });
    Object.assign(file, { text: () => Promise.resolve('a,b\n1,2\n') });
    await userEvent.upload(screen.getByLabelText('Laboratory’s file'), file);
    expect((await screen.findByRole('alert')).textContent).toBe('There is no column of soil pH in it.');
  });
});
