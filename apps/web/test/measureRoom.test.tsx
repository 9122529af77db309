import type { Doubt } from '@glenfold/agronomy';
import type {
  FieldTestAnswer,
  LabProfileAnswer,
  LabQuestionAnswer,
  LabReportAnswer,
  LabReportRowAnswer,
  LoadCheckAnswer,
  LoadCheckInput,
  RecordPointAnswer,
} from '@glenfold/contract';
import { jest } from '@jest/globals';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import userEvent from './userEvent.ts';
import { Loads } from '../src/features/lab/Loads.tsx';
import { OwnTests } from '../src/features/lab/OwnTests.tsx';
import { Questions } from '../src/features/lab/Questions.tsx';
import { LabFileReview } from '../src/features/lab/review/LabFileReview.tsx';
import { WaysPage } from '../src/features/lab/review/WaysPage.tsx';
import { ZoneRecord } from '../src/features/lab/ZoneRecord.tsx';
import { Histories } from '../src/features/practice/Histories.tsx';
import { type Asked, changesOf, choose, problem, serve, show } from './page.tsx';
import { printed, zoneWith } from './scene.ts';

const zones = [zoneWith(), zoneWith({ id: '7b1f6e0c-0d6b-4c43-9a83-2f0d8a1c4e01', name: 'Court', label: 'CT' })];
const press = async (name: RegExp | string): Promise<void> =>
  userEvent.click(await screen.findByRole('button', { name }));
const sent = (asked: readonly Asked[]): unknown => changesOf(asked).at(-1)?.body;

describe('a load at the gate', () => {
  const status = (): string => screen.getByRole('status', { name: 'What the checks say' }).textContent;

  it('is judged as it is looked over, and nothing is assumed of what nobody looked at', async () => {
    const asked = serve({ '/sites/s/load-checks': [], '/load-checks': {} });
    show(<Loads siteId="s" />);
    await press('Look a load over');
    expect(status()).toMatch(/Not looked at: .*how warm it is inside/);
    await userEvent.type(screen.getByLabelText('Whose, and how much'), 'Yard waste compost, 9 m³');
    await choose('Inside it is', 'hot');
    await choose('It smells of', 'ammonia');
    await userEvent.type(screen.getByLabelText(/^Largest pieces/), '10');
    fireEvent.blur(screen.getByLabelText(/^Largest pieces/));
    expect(status()).toMatch(/It is hot: not ready/);
    expect(status()).not.toMatch(/seedbed/);
    await choose('Decided', 'sent back');
    await press('Keep it');
    await waitFor(() => expect(sent(asked)).toMatchObject({ kind: 'compost', siteId: 's', decided: 'sent back', record: { heat: 'hot', smell: 'ammonia', pieces: 10 } }));
    expect(Object.keys((sent(asked) as LoadCheckInput).record)).not.toContain('papers');
  });

  it('of seed is held against its label, and a number that cannot be is told', async () => {
    serve({ '/sites/s/load-checks': [] });
    show(<Loads siteId="s" />);
    await press('Look a load over');
    await choose('What', 'seed');
    await userEvent.type(screen.getByLabelText(/^Germination/), '62');
    fireEvent.blur(screen.getByLabelText(/^Germination/));
    expect(status()).toMatch(/62 %/);
    await userEvent.type(screen.getByLabelText(/^Purity/), '140');
    fireEvent.blur(screen.getByLabelText(/^Purity/));
    expect((await screen.findByRole('alert')).textContent).toMatch(/Not right yet: .*140/);
  });

  it('stands in the list as it was decided, with what it is still good for', async () => {
    const check: LoadCheckAnswer = {
      ...{ id: 'l', version: 1, siteId: 's', kind: 'compost', on: '2026-10-20', name: 'Compost', record: {}, by: 'Orla Tench' },
      ...{ decided: 'sent back', reason: 'No papers.', verdict: 'send it back', reasons: ['It is hot.'], goodFor: ['a heap'], open: [] },
    };
    serve({ '/sites/s/load-checks': [check] });
    show(<Loads siteId="s" />, { role: 'client' });
    expect((await screen.findByRole('article', { name: 'Compost' })).textContent).toMatch(/Compost, 2026-10-20: sent back.*It is hot.*Good for a heap/);
    expect(screen.queryByRole('button', { name: 'Look a load over' })).toBeNull();
  });
}); // prettier-ignore

describe('a zone’s record', () => {
  const point = (on: string, value: number, more: Partial<RecordPointAnswer> = {}): RecordPointAnswer => ({
    ...{ on, value, told: value.toFixed(1), method: 'in water', depthFrom: null, depthTo: 15.24, season: 'autumn' },
    ...{ source: 'a.csv', borrowed: null, run: 0, apart: null, superseded: false, ...more },
  });
  const record = (points: readonly RecordPointAnswer[]) => ({
    '/zones/z/record': { zoneId: 'z', series: [{ analyte: 'soilPh', name: 'Soil pH', unit: '', worded: false, points }] },
  });

  it('draws together what can be laid beside each other, and tells why the rest stands apart', async () => {
    serve(record([
      point('2023-10-05', 5.2), point('2024-10-03', 5.6),
      point('2025-04-02', 6.1, { run: 1, apart: 'another season' }),
      point('2026-10-01', 5.9, { borrowed: 'One bag with Court: a mean of all, and not of this ground by itself.' }),
    ]));
    show(<ZoneRecord zone={zones[0]!} />);
    const lines = (await screen.findAllByRole('listitem')).map(({ textContent }) => textContent);
    expect(lines).toHaveLength(2);
    expect(lines[0]).toMatch(/5\.2.*5\.6.*5\.9/);
    const [, newest, apart] = within(screen.getByRole('table', { name: 'Soil pH' })).getAllByRole('row');
    expect(newest!.textContent).toMatch(/2026-10-01.*5\.9.*6 in.*borrowed: One bag with Court/);
    expect(apart!.textContent).toMatch(/apart: another season/);
    expect(screen.getByRole('link', { name: 'All of it as CSV' }).getAttribute('href')).toContain('/zones/z/record.csv?units=us');
  });

  it('of one test says so instead of a chart, in the reader’s units', async () => {
    serve(record([point('2026-10-01', 5.9)]));
    show(<ZoneRecord zone={zones[0]!} />, { units: 'metric' });
    await screen.findByText(/One so far/);
    expect(screen.queryByRole('listitem')).toBeNull();
    expect(screen.getByRole('table', { name: 'Soil pH' }).textContent).toMatch(/15 cm/);
  });
}); // prettier-ignore

describe('what was asked of a laboratory', () => {
  const question: LabQuestionAnswer = {
    ...{ id: 'q', version: 3, zoneId: zones[1]!.id, resultId: null, laboratory: 'Tern Lane', askedOf: 'the soil scientist', askedOn: '2026-09-29' },
    ...{ question: 'Can P be trusted?', answer: null, answeredBy: null, answeredOn: null, askedBy: 'Orla Tench' },
  } as LabQuestionAnswer; // prettier-ignore

  it('waits for its answer, and an answer wants a name', async () => {
    const named = { field: 'answeredBy', message: 'Say who gave the answer.' };
    const asked = serve({
      '/sites/s/lab-questions': [question],
      '/lab-questions/q': ({ body }: Asked) =>
        (body as LabQuestionAnswer).answeredBy ? question : problem(422, { detail: named.message, errors: [named] }),
    });
    show(<Questions siteId="s" zones={zones} results={[]} chosen="z" />);
    expect((await screen.findByRole('article')).textContent).toMatch(/Court, 2026-09-29.*No answer yet/);
    await press('Write the answer to the question of 2026-09-29');
    await userEvent.type(screen.getByLabelText('The answer'), 'No: ask for Olsen.');
    await press('Save');
    await screen.findByText(named.message);
    await userEvent.type(screen.getByLabelText('Answered by'), 'Ilse Dunnock');
    await press('Save');
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
    expect(changesOf(asked).at(-1)).toMatchObject({
      ...{ method: 'PUT', version: '3' },
      body: { answer: 'No: ask for Olsen.', answeredBy: 'Ilse Dunnock' },
    });
  });
});

describe('own tests in the office', () => {
  it('say what they come to and what is due, with their photos', async () => {
    const test = {
      ...{
        id: 't',
        version: 1,
        siteId: 's',
        zoneId: 'z',
        kind: 'drainage',
        on: '2026-11-20',
        record: {},
        closed: false,
      },
      ...{ revision: 2, doneBy: 'Odd Sallow', place: null, values: [], title: 'A pan at 15 cm', words: ['It holds.'] },
      ...{ working: [], next: { what: 'read', at: null, words: 'The next reading is 20 minutes overdue.' } },
    } as unknown as FieldTestAnswer;
    const photo = { id: 'f', version: 1, zoneId: 'z', fieldTestId: 't', caption: null, takenOn: null };
    serve({
      '/sites/s/field-tests': [test],
      '/sites/s/photos': [
        { ...photo, address: '/large', small: '/small' },
        { ...photo, id: 'g', fieldTestId: null, address: '/other', small: '/other' },
      ],
    });
    show(<OwnTests siteId="s" zones={zones} />);
    const article = await screen.findByRole('article', { name: 'Drainage hole, Back lawn' });
    expect(article.textContent).toMatch(/So far: A pan at 15 cm.*It holds.*20 minutes overdue/);
    const shown = await within(article).findAllByRole('img');
    expect(shown.map((one) => one.getAttribute('src'))).toEqual(['/small']);
  });
});

describe('a laboratory’s way', () => {
  const column = { unit: null, basis: 'element' } as const;
  const way = {
    ...{ id: 'w', version: 2, name: 'Tern Lane', extractant: 'mehlich-3', bufferMethod: 'smp', limeFactor: null },
    ...{ depth: 15.24, dateOrder: 'day first' },
    columns: [
      { header: 'Bag', field: 'label', ...column },
      { header: 'pH', field: 'soilPh', ...column },
      { header: 'Batch', field: null, ...column },
    ],
    sample: { fileName: 'may.csv', content: 'Bag,pH', rows: [] },
    trial: { passes: false, differences: ['BL: soilPh was 6 and is 60.'] },
  } as unknown as LabProfileAnswer;

  it('tells how its sample is read today, is changed over the version seen, and handed on', async () => {
    const asked = serve({ '/lab-profiles': [way], '/lab-profiles/w': way });
    const saved = jest.fn((_blob: unknown) => 'blob:x');
    Object.assign(URL, { createObjectURL: saved, revokeObjectURL: () => undefined });
    show(<WaysPage />);
    const section = await screen.findByRole('region', { name: 'Tern Lane' });
    expect(section.textContent).toMatch(/2 of 3 columns read; Mehlich-3; 6 in deep; dates day first/);
    expect(section.textContent).toMatch(/may\.csv is read otherwise now\. BL: soilPh was 6 and is 60/);
    await press('Export Tern Lane');
    expect(saved).toHaveBeenCalled();
    await press('Change Tern Lane');
    await choose('Column Batch', /Lab number|Laboratory/);
    await press('Save');
    await waitFor(() => expect(changesOf(asked)).toMatchObject([{ method: 'PUT', path: '/lab-profiles/w', version: '2' }]));
    expect(sent(asked)).toMatchObject({ columns: [{ field: 'label' }, { field: 'soilPh' }, { field: 'labNumber' }] });
  });

  it('that is none is refused, and nothing is sent', async () => {
    const asked = serve({ '/lab-profiles': [] });
    show(<WaysPage />);
    await screen.findByText('None yet');
    await userEvent.upload(screen.getByLabelText('A laboratory’s way'), new File(['no JSON'], 'x.json', { type: 'application/json' }));
    await screen.findByText(/x\.json is no laboratory’s way/);
    expect(changesOf(asked)).toEqual([]);
  });
}); // prettier-ignore

describe('a history of many years', () => {
  it('is sent whole, and says what became of those before', async () => {
    const one = { id: 'h', fileName: 'old.csv', at: '2026-11-20T08:00:00Z', words: [] as string[] };
    const asked = serve({
      'GET /histories': [
        { ...one, state: 'imported', rows: 50000 },
        { ...one, id: 'i', fileName: 'bad.csv', state: 'refused', rows: null, words: ['No site is called “X”: line 4.'] },
      ],
    });
    show(<Histories />);
    expect((await screen.findByRole('article', { name: 'old.csv' })).textContent).toBe('old.csv is in the record: 50,000 tests.');
    expect(screen.getByRole('article', { name: 'bad.csv' }).textContent).toContain('No site is called “X”: line 4.');
    const file = new File(['Site,Zone'], 'years.csv');
    await userEvent.upload(screen.getByLabelText('History of tests'), file);
    await waitFor(() => expect(sent(asked)).toEqual({ fileName: 'years.csv', bytes: btoa('Site,Zone') }));
    const large = new File(['x'], 'large.csv');
    Object.defineProperty(large, 'size', { value: 31_000_000 });
    await userEvent.upload(screen.getByLabelText('History of tests'), large);
    await screen.findByText('large.csv is larger than 30 MB: split it by years.');
    expect(changesOf(asked)).toHaveLength(1);
  });
}); // prettier-ignore

describe('a report under review', () => {
  const grave: Doubt = { rule: 'tripled', analyte: 'p', grave: true, words: 'P is three times the last test.' } as never;
  const rowWith = (line: number, more: Partial<LabReportRowAnswer> = {}): LabReportRowAnswer => ({
    ...{ line, cells: ['BL', '6.1', '66'], zoneId: 'z', bagId: null, zoneChosen: false, faults: [], questions: [] },
    row: { label: `BL-${line}`, depth: 10, values: { soilPh: printed(6.1), p: printed(66, 'mg/kg') } },
    ...{ doubts: [], last: {}, state: null, corrected: [], resultId: null, ...more },
  });
  const file = (rows: readonly LabReportRowAnswer[]): LabReportAnswer =>
    ({
      ...{ id: 'f', version: 5, siteId: 's', fileName: 'may.csv', status: 'open', extractant: 'mehlich-3', bufferMethod: null },
      ...{ limeFactor: null, depth: null, dateOrder: null, readAs: null, original: '/api/files/1', profile: null, bags: [], rows },
      columns: [{ header: 'Bag', field: 'label' }, { header: 'pH', field: 'soilPh' }, { header: 'P', field: 'p', unit: 'mg/kg' }],
    }) as unknown as LabReportAnswer;
  const openReview = (rows: readonly LabReportRowAnswer[]): Asked[] => {
    const asked = serve({ '/lab-reports/f': file(rows), '/lab-reports/f/confirm': file(rows) });
    show(<LabFileReview file={file(rows)} zones={zones} />);
    return asked;
  };
  const section = (name: string): HTMLElement => screen.getByRole('region', { name });

  it('holds a grave doubt until a person has accepted it', async () => {
    const asked = openReview([
      rowWith(2),
      rowWith(3, { doubts: [grave], last: { p: { value: printed(20, 'mg/kg'), on: '2025-10-01', apart: null } } }),
    ]);
    expect(screen.getByRole('button', { name: 'Import 1 result' }).hasAttribute('disabled')).toBe(false);
    const doubted = section('BL-3');
    expect(doubted.textContent).toMatch(/66 ppm.*20 ppm.*2025-10-01.*P is three times the last test/);
    await userEvent.click(within(doubted).getByRole('button', { name: 'Accept BL-3' }));
    await waitFor(() => expect(sent(asked)).toMatchObject({ decisions: [{ line: 3, state: 'accepted' }] }));
    expect(changesOf(asked).at(-1)!.version).toBe('5');
  });

  it('lets a row be held, and a cell be put right from the paper', async () => {
    const asked = openReview([rowWith(2)]);
    await press('Values of BL-2');
    await press(/^Hold BL-2/);
    await waitFor(() => expect(sent(asked)).toMatchObject({ decisions: [{ line: 2, state: 'held' }] }));
    await press(/^Correct BL-2/);
    const cell = screen.getByLabelText(/^P.* of BL-2, corrected$/);
    await userEvent.clear(cell);
    await userEvent.type(cell, 'many{Enter}');
    await screen.findByText(/not a number/);
    await userEvent.clear(cell);
    await userEvent.type(cell, '6.6{Enter}');
    await waitFor(() => expect(sent(asked)).toMatchObject({ decisions: [{ line: 2, values: { p: { value: 6.6, unit: 'mg/kg' } } }] }));
  });

  it('that the server will not take is told, and stays as it is', async () => {
    serve({ '/lab-reports/f/confirm': problem(409, { detail: 'Somebody imported it meanwhile.', errors: [] }) });
    show(<LabFileReview file={file([rowWith(2)])} zones={zones} />);
    await press('Import 1 result');
    await screen.findByText('Somebody imported it meanwhile.');
    expect(section('BL-2')).not.toBeNull();
  });
}); // prettier-ignore
