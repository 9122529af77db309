import type { BesideRow, SoilTest, ZoneFacts } from '@glenfold/agronomy';
import { besideOf, schoolsOf, zoneReading } from '@glenfold/agronomy';
import type { OwnerReportAnswer } from '@glenfold/contract';
import { screen, within } from '@testing-library/react';
import userEvent from './userEvent.ts';
import { Route, Routes } from 'react-router';
import { Reading } from '../src/features/reading/Reading.tsx';
import { RetestsPage } from '../src/features/reading/RetestsPage.tsx';
import { OwnerReportPage } from '../src/features/report/OwnerReportPage.tsx';
import { serve, show } from './page.tsx';
import { answer, ppm, props, served } from './ratesScene.ts';
import { resultWith } from './scene.ts';

const lawn: ZoneFacts = {
  ...{ name: 'Court', area: 93, grass: 'kentucky bluegrass', surface: 'turf', intensity: 'medium' },
  ...{ shade: 'full sun', clippings: 'removed', soilGroup: 'loam' },
};
const test: SoilTest = {
  ...{ soilPh: 5.4, extractant: 'mehlich-3', depth: 15, organicMatter: 2.4, buffer: { method: 'smp', ph: 6.4 } },
  nutrients: { p: ppm(28), k: ppm(60) },
};
const read = (more: Partial<ZoneFacts> = {}, of: Partial<SoilTest> = {}) =>
  zoneReading({
    ...{
      zone: { ...lawn, ...more },
      test: { ...test, ...of },
      evidence: {},
      values: [],
      system: 'us',
      today: '2026-11-27',
    },
    taken: { on: '2026-10-02', depth: 15, cores: 15 },
  });
const reading = (more: Partial<ZoneFacts> = {}, rest: object = {}) => ({
  ...{
    zoneId: 'z',
    result: resultWith({ label: 'GR-1' }),
    borrowed: null,
    cores: 15,
    read: read(more, { nutrients: { p: ppm(28), k: ppm(60), mg: ppm(70) } }),
  },
  ...rest,
});
const on = (told: object, more: object = {}) =>
  serve({ ...served(answer()), '/zones/z/reading': told, '/zones/z/worth': [], ...more });
beforeEach(() => sessionStorage.clear());

describe('the reading of a zone', () => {
  it('tells what limits it most first, with its remedy and what comes before it; the small ones folded', async () => {
    on(reading({ measured: { percolationSlowest: 1, probeStop: 9, thatch: 2 } }));
    show(<Reading {...props} />);
    const limits = await screen.findByRole('list', { name: 'What limits this zone, most first' });
    const rows = limits.querySelectorAll<HTMLElement>(':scope > li');
    expect(within(rows[0]!).getByRole('img').getAttribute('aria-label')).toBe('severely');
    expect(rows[0]!.textContent).toMatch(/Drainage.*0.1 in\/h, where 1 in\/h is wanted/);
    expect(screen.getByRole('heading', { level: 2 }).textContent).toMatch(/Water hardly leaves/);
    expect(limits.textContent).toMatch(/Acidity.*First: .*drainage/);
    expect(limits.textContent).not.toMatch(/Potassium/);
    await userEvent.click(screen.getByRole('button', { name: /And a little: .*potassium/ }));
    expect(limits.textContent).toMatch(/Potassium is low/);
    await userEvent.click(within(rows[0]!).getByText(/^Remedy: /));
    expect(rows[0]!.textContent).toMatch(/Costs much: a firm/);
  });

  it('stands in its parts, with how sure each is, the border, and what pH does', async () => {
    on(reading());
    show(<Reading {...props} />);
    const acidity = await screen.findByRole('region', { name: 'Acidity' });
    expect(within(acidity).getByRole('img', { name: /^Soil pH 5.4: very low, ± 0.2$/ })).toBeTruthy();
    const nutrients = screen.getByRole('region', { name: 'Nutrients' });
    expect(nutrients.textContent).toMatch(/Near the border: about \d in 10 that it is low. Then: Short/);
    await userEvent.click(within(acidity).getByRole('button', { name: 'What pH does to each nutrient' }));
    expect(
      within(acidity)
        .getByRole('img', { name: /^Within reach at pH 5.4/ })
        .getAttribute('aria-label'),
    ).toMatch(/Iron \d+ %/);
    expect(acidity.textContent).toContain('Truog (1946)');
    await userEvent.click(within(acidity).getByRole('button', { name: /Soil pH: how sure: ± 0.2/ }));
    expect((await screen.findByRole('dialog')).textContent).toMatch(/Nine of ten such tests/);
  });

  it('says why a test weighs less, and whose it is', async () => {
    const told = reading({}, { borrowed: 'One bag with Back.', cores: null });
    told.read = { ...told.read, weight: { factor: 1.3, why: ['4 years old: the ground has moved on since.'] } };
    on(told);
    show(<Reading {...props} />);
    expect(await screen.findByText(/This test weighs less. 4 years old/)).toBeTruthy();
    expect(screen.getByText('One bag with Back.')).toBeTruthy();
    expect(screen.getByText(/counted as one, so the shadows are wide/)).toBeTruthy();
  });

  it('names the one measurement that is worth most; the others, and how it was found, when asked for', async () => {
    const worth = (key: string, words: string, stake: number | null) => ({
      ...{ key, name: key, minutes: 0, words, stake, firsts: [], moved: [] },
      working: [{ kind: 'step', label: 'Money at stake', formula: 'a − b', numbers: '90 − 33', result: 57, unit: '' }],
    });
    on(reading(), {
      '/zones/z/worth': [
        worth('buffer', 'A buffer pH ($8) settles whether lime is 35 or 100 lb/1000 ft².', 57),
        worth('salts', 'A test of salts ($12) would change nothing that you put down.', null),
      ],
    });
    show(<Reading {...props} />);
    const section = await screen.findByRole('region', { name: 'What one more measurement is worth' });
    expect(section.textContent).toMatch(/35 or 100 lb\/1000 ft².*about \$57 at stake/);
    expect(section.textContent).not.toContain('salts');
    await userEvent.click(within(section).getByRole('button', { name: '1 more measurement' }));
    expect(section.textContent).toContain('would change nothing');
    await userEvent.click(within(section).getByRole('button', { name: /at stake. Open the working/ }));
    expect((await screen.findByRole('dialog')).textContent).toContain('90 − 33');
  });

  it('over time tells in words what changed, and says where nothing can be told yet', async () => {
    on(reading());
    show(<Reading {...props} />);
    await userEvent.click(await screen.findByRole('button', { name: 'Over time' }));
    expect(await screen.findByText('Nothing was measured twice yet')).toBeTruthy();
  });

  it('by schools: side by side, with what each puts down and where they part', async () => {
    const { schools, agreements, by } = schoolsOf({
      zone: lawn,
      test: { ...test, soilPh: 6.4 },
      materials: [],
      from: '2026-11-27',
      system: 'us',
    });
    on(reading(), { '/zones/z/schools': { schools, agreements, by, priced: true } });
    show(<Reading {...props} />);
    await userEvent.click(await screen.findByRole('button', { name: 'Schools' }));
    expect((await screen.findByRole('region', { name: 'Sufficiency' })).textContent).toMatch(
      /This zone is planned by it.*Potassiumlow/,
    );
    expect(screen.getByRole('region', { name: 'Cation balance' }).textContent).toMatch(/all three, on one report/);
    expect(screen.getByRole('list', { name: 'Where the schools agree' }).textContent).toMatch(/Potassium: .* more/);
  });
});

describe('all zones side by side', () => {
  const zones = ['z', 'y'].map((zoneId, index) => ({
    zoneId,
    lines: read({}, index === 0 ? {} : { soilPh: 6.6, nutrients: { p: ppm(10) } }).lines,
    cores: 15,
  }));
  const told = (rows: readonly BesideRow[]) => ({
    ...{ siteId: 's', rows },
    zones: zones.map(({ zoneId }) => ({
      ...{ zoneId, name: zoneId === 'z' ? 'Court' : 'Bank', label: zoneId, grass: 'bluegrass', area: 93 },
      ...{ sampledOn: '2026-10-02', borrowed: false, first: null, doubts: [] },
    })),
  });

  it('sort by a measure and back, group by its words, and lay the others beside one', async () => {
    const asked = on(reading(), { '/sites/s/readings': told(besideOf(zones, 'us', 'z')) });
    show(<Reading {...props} />);
    const person = userEvent.setup();
    await person.click(await screen.findByRole('button', { name: 'All zones' }));
    const heads = () => screen.getAllByRole('columnheader').map(({ textContent }) => textContent);
    await screen.findByRole('table', { name: /Every zone/ });
    expect(heads()[1]).toMatch(/^1 Court/);
    const phosphorus = screen.getByRole('button', { name: 'Phosphorus, P' });
    await person.click(phosphorus);
    expect(heads()[1]).toMatch(/^2 Bank/);
    expect(heads()).toEqual(expect.arrayContaining(['very low (1)', 'medium (1)']));
    await person.click(screen.getByRole('button', { name: 'Phosphorus, P ↑' }));
    expect(heads()[1]).toMatch(/^1 Court/);
    // What one of them lacks stands last, whichever way it is sorted.
    await person.click(screen.getByRole('button', { name: 'Potassium, K' }));
    expect(heads()[2]).toMatch(/^2 Bank/);
    expect(screen.getByText('+1.2')).toBeTruthy();
    await person.click(screen.getByRole('combobox', { name: 'Differences from' }));
    await person.click(screen.getByRole('option', { name: 'Bank' }));
    expect(asked.some(({ path }) => path.startsWith('/sites/s/readings'))).toBe(true);
    expect(screen.getByRole('link', { name: 'Print on one page' }).getAttribute('href')).toMatch(
      /readings.pdf\?units=us&shaded=k/,
    );
  });
});

it('retests: what is due stands first, each with its reason and the way to a bag', async () => {
  const retest = (zone: string, due: boolean) => ({
    ...{ siteId: 's', siteName: 'Gannet Row', zoneId: zone, zone, sampledOn: '2023-10-01', on: '2026-10-01', due },
    words: '3 years after the test of October 2023: nothing has corrected the pH since.',
  });
  serve({ '/retests': { retests: [retest('Court', true), retest('Bank', false)], count: 2, due: 1, next: null } });
  show(<RetestsPage />);
  expect((await screen.findByRole('region', { name: 'Due now' })).textContent).toMatch(
    /Gannet Row, Court.*3 years after/,
  );
  expect(screen.getByRole('region', { name: 'Later' }).textContent).toContain('Bank');
  expect(screen.getByRole('link', { name: 'Plan a bag: Gannet Row, Court' }).getAttribute('href')).toBe(
    '/sites/s/sampling/Court',
  );
});

describe('the report for an owner', () => {
  const made = (state: OwnerReportAnswer['state']): OwnerReportAnswer => ({
    ...{ id: 'o', version: 3, state, units: 'us', siteName: 'Gannet Row', place: null, practiceName: 'Soil & Co' },
    ...{
      madeOn: '2026-11-27',
      handedOverAt: null,
      letter: 'Dear owner,\n\nnothing presses.',
      outlines: [],
      photos: [],
    },
    pdf: '/api/owner-reports/o/report.pdf',
    report: {
      ...{ first: [{ what: 'Lime', where: ['Court'], why: 'The soil is too sour.' }], cost: '$590.37', unpriced: [] },
      ...{ saved: null, letter: 'Dear owner,\n\nnothing presses.' },
      pages: [
        {
          ...{
            zoneId: 'z',
            name: 'Court',
            area: '4,540 ft²',
            grass: 'ryegrass',
            found: ['Too little sun.'],
            cost: '$590.37',
          },
          works: [{ what: 'Pelletised lime', when: 'spring 2027', why: 'The soil is too sour.', cost: '$139.68' }],
          expect: [{ by: 'from spring 2027', words: 'Acidity: in months.' }],
          ...{ notBought: ['potash'], saved: null, cautions: ['Wear a dust mask.'], borrowed: null },
          part: [{ does: 'Water it in.', without: 'It works later.' }],
          retest: { on: '2028-04-30', words: 'A year after the lime of April 2027.' },
        },
      ],
    },
  });
  const page = (
    <Routes>
      <Route path="/sites/:siteId/owner-report" element={<OwnerReportPage />} />
    </Routes>
  );

  it('is a page of plain words; its letter is changed while it is a draft, and handed over with one button', async () => {
    const asked = serve({
      '/sites/s/state': { site: { id: 's', name: 'Gannet Row' } },
      '/sites/s/owner-report': { newest: made('draft') },
      'PUT /owner-reports/o/letter': made('draft'),
      'POST /owner-reports/o/handed-over': made('handed over'),
    });
    show(page, { at: '/sites/s/owner-report' });
    const person = userEvent.setup();
    const court = await screen.findByRole('region', { name: '1 Court' });
    expect(court.textContent).toMatch(
      /Too little sun.*Pelletised lime.*spring 2027.*\$139.68.*Water it in.*Test again/,
    );
    const letter = screen.getByRole('textbox', { name: 'Covering letter' });
    await person.type(letter, ' Come and see.');
    await person.click(screen.getByRole('button', { name: 'Save the letter' }));
    expect(asked.find(({ method }) => method === 'PUT')).toMatchObject({
      body: { letter: expect.stringMatching(/Come and see/) as string },
    });
    await person.click(screen.getByRole('button', { name: 'Hand it over' }));
    expect(asked.some(({ path }) => path === '/owner-reports/o/handed-over')).toBe(true);
  });

  it('shows how far it is while it is being made', async () => {
    serve({
      '/sites/s/state': { site: { id: 's', name: 'Gannet Row' } },
      '/sites/s/owner-report': { newest: { ...made('asked'), report: null } },
      '/runs': [{ id: 'r', kind: 'owner reports', title: 'Report', state: 'running', done: 2, total: 40, words: null, stopping: false, askedBy: null, askedAt: '', endedAt: null }], // prettier-ignore
    });
    show(page, { at: '/sites/s/owner-report' });
    expect((await screen.findByText('Page 3 of 40 is being made…')).textContent).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Hand it over' })).toBeNull();
  });
});
