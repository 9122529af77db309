import 'fake-indexeddb/auto';
import type {
  CardAnswer,
  EntryAnswer,
  EntryInput,
  JobAnswer,
  LogbookAnswer,
  ProofAnswer,
  ProofZoneAnswer,
  SeasonAnswer,
} from '@glenfold/contract';
import { screen, waitFor, within } from '@testing-library/react';
import userEvent from './userEvent.ts';
import { Route, Routes } from 'react-router';
import { CardPage } from '../src/features/cards/CardPage.tsx';
import { freshen } from '../src/features/cards/cardStore.ts';
import { Logbook } from '../src/features/logbook/Logbook.tsx';
import { Proof } from '../src/features/proof/Proof.tsx';
import { Season } from '../src/features/season/Season.tsx';
import { TodayPage } from '../src/frame/today/TodayPage.tsx';
import { holderNow } from '../src/offline/holder.ts';
import { type Asked, changesOf, choose, problem, serve, show } from './page.tsx';
import { productWith, site, zoneWith } from './scene.ts';

const press = (name: string | RegExp): Promise<void> => userEvent.click(screen.getByRole('button', { name }));
const lawn = zoneWith({ area: 100 });

const jobWith = (more: Partial<JobAnswer> = {}): JobAnswer => ({
  ...{ id: 'lime-1', version: 2, siteId: 's', siteName: 'Gannet Row', zoneId: 'z', zone: 'Back lawn', key: 'lime' },
  ...{ remedy: 'lime', name: 'Lime', dose: 'Application', product: 'Pelletised calcitic lime' },
  amount: '40 lb/1000 ft², 43 lb',
  ...{
    earliest: '2027-03-01',
    latest: '2027-11-30',
    day: '2027-04-12',
    part: null,
    state: 'open',
    words: [],
    breaks: [],
  },
  ...{ movedBecause: null, hold: null, personId: null, person: null, machineId: null, machine: null, late: false },
  ...{ was: null, replacedById: null, changedSince: false },
  ...more,
});

const seasonWith = (jobs: readonly JobAnswer[], more: Partial<SeasonAnswer> = {}): SeasonAnswer => ({
  ...{ siteId: 's', today: '2027-04-10', jobs: [...jobs], weeks: [], climate: 'made-up normals', dates: [] },
  ...{ handedOver: true, undated: 0 },
  zones: [
    {
      ...{ zoneId: 'z', zone: 'Back lawn', windows: [], done: [], tested: [], water: [], driest: null },
      ...{ mowing: 'Set the mower to 3.25 in.', seedWater: [], firstCut: null, sod: null },
    },
  ],
  ...more,
});

describe('the season', () => {
  const open = (season: SeasonAnswer, more = {}) => {
    const asked = serve({ '/sites/s/season': season, '/machines': [], ...more });
    show(<Season site={site} zones={[lawn]} zone={lawn} results={[]} />);
    return asked;
  };

  it('says before a day is set what it breaks, wants the reason, and does not set what may never be', async () => {
    const asked = open(seasonWith([jobWith()]), {
      '/jobs/lime-1/breaks?units=us&day=2027-02-02': { breaks: [{ never: false, words: 'The ground is frozen.' }] },
      '/jobs/lime-1/breaks?units=us&day=2027-01-05': { breaks: [{ never: true, words: 'The local rules forbid it.' }] },
      'PUT /jobs/lime-1/day?units=us': jobWith({ version: 3, day: '2027-02-02' }),
    });
    await userEvent.click(await screen.findByRole('button', { name: /^Open Lime/ }));
    const day = screen.getByLabelText<HTMLInputElement>('Day');
    const set = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Set the day' });
    await userEvent.clear(day);
    await userEvent.type(day, '2027-01-05');
    expect(await screen.findByText('The local rules forbid it.')).toBeTruthy();
    expect([set().disabled, screen.queryByLabelText('Why all the same')]).toEqual([true, null]);
    await userEvent.clear(day);
    await userEvent.type(day, '2027-02-02');
    await userEvent.type(await screen.findByLabelText('Why all the same'), 'the lorry comes then');
    await userEvent.click(set());
    await waitFor(() => expect(changesOf(asked)).toHaveLength(1));
    expect(changesOf(asked)[0]).toMatchObject({ body: { day: '2027-02-02', reason: 'the lorry comes then' }, version: '2' }); // prettier-ignore
  });

  it('holds with the reason and the client’s words, tells both, and offers no day meanwhile', async () => {
    const hold = { reason: 'a storm', words: 'after the wedding, please', since: '2027-04-10', by: 'Wynn Marram' };
    const asked = open(seasonWith([jobWith(), jobWith({ id: 'feed', name: 'Nitrogen', dose: 'Pass 1 of 2', hold })]), {
      'PUT /jobs/lime-1/hold?units=us': jobWith({ version: 3, hold }),
    });
    await userEvent.click(await screen.findByRole('button', { name: /^Open Lime/ }));
    await userEvent.type(screen.getByLabelText('Why it waits'), 'a storm');
    await userEvent.type(screen.getByLabelText('What the client said'), 'after the wedding, please');
    await press('Hold');
    await waitFor(() => expect(changesOf(asked)[0]!.body).toEqual({ reason: 'a storm', words: 'after the wedding, please' })); // prettier-ignore
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
    await userEvent.click(screen.getByRole('button', { name: /^Open Nitrogen/ }));
    const dialog = within(screen.getByRole('dialog'));
    expect(dialog.getByText('“after the wedding, please”')).toBeTruthy();
    expect(dialog.queryByLabelText('Day')).toBeNull();
    expect(dialog.getByRole('button', { name: 'Go on with it' })).toBeTruthy();
  });

  it('without a climate says what to do, and plans nothing in silence', async () => {
    open(seasonWith([jobWith({ day: null, earliest: null, latest: null })], { climate: null }));
    expect(await screen.findByText(/no climate, so no windows are known and no day is proposed/)).toBeTruthy();
    expect(screen.getByRole('link', { name: /Choose its climate/ }).getAttribute('href')).toBe('/sites/s/about');
    expect(screen.getByText('no day yet')).toBeTruthy();
  });

  it('before anything is handed over leads to the rates', async () => {
    open(seasonWith([], { handedOver: false }));
    expect(await screen.findByRole('heading', { name: 'Jobs come with the program' })).toBeTruthy();
  });
});

const cardWith = (job: JobAnswer): CardAnswer => ({
  job,
  card: {
    weigh: { told: '43 lb', quantity: 19.5, portions: [{ words: 'First way, at half the rate', told: '21.5 lb', quantity: 9.75 }] }, // prettier-ignore
    ...{ bags: 'a bag of 50 lb', rate: '40 lb/1000 ft²', tools: [], wear: ['dust mask'], tanks: [], cautions: [] },
    parts: {
      ...{ evening: ['Load the spreader'], load: ['1 bag'], set: ['A test strip first'], spread: ['Edges first'] },
      ...{ water: ['Water it in'], clear: ['Sweep the paving'] },
    },
    keepOff: 'Keep off until it is dry.',
    working: [],
  },
  ...{ windowJob: 'lime', day: {}, since: [], area: 100, rate: 195, sense: 'limeRate', quantity: 19.5, unit: 'kg' },
  ...{ packSize: 22.68, productId: 'lime', mixed: [], entryKind: 'lime', units: 'us' },
});

describe('a work card', () => {
  const signedIn = { state: 'signed in', csrf: 't', person: { id: 'p', name: 'Wynn Marram' }, practice: { id: 'b' } };
  let cards = 0;
  function card(take: (entry: EntryInput) => unknown) {
    const job = jobWith({ id: `card-${(cards += 1)}` });
    const asked = serve({
      '/session': signedIn,
      [`/jobs/${job.id}/card`]: cardWith(job),
      '/season/cards': [cardWith(job)],
      'POST /entries': ({ body }: Asked) => take(body as EntryInput),
    });
    const open = (at = `/cards/${job.id}`) =>
      show(
        <Routes>
          <Route path="/today" element={<TodayPage />} />
          <Route path="/cards/:jobId" element={<CardPage />} />
        </Routes>,
        { at, role: 'technician' },
      );
    return { job, open, sent: () => changesOf(asked).map(({ body }) => body as EntryInput) };
  }

  it('judges the day by what is seen, and is done in two taps with what was really used', async () => {
    const { open, sent, job } = card(() => ({ entry: {}, notes: ['A second card of the same.'] }));
    open();
    expect(await screen.findByText('Look first')).toBeTruthy();
    await choose('Ground', 'frozen');
    expect(screen.getByRole('status', { name: 'Verdict' }).textContent).toMatch(/^Never/);
    await press('Done…');
    const used = await screen.findByLabelText('Really used');
    await userEvent.clear(used);
    await userEvent.type(used, '50 lb');
    await press('Write it down');
    await waitFor(() => expect(sent()).toHaveLength(1));
    expect(sent()[0]).toMatchObject({ jobId: job.id, state: 'done', doneBy: 'Wynn Marram', day: { ground: 'frozen' } });
    expect(sent()[0]!.quantity).toBeCloseTo(22.68, 2);
    expect(await screen.findByText('A second card of the same.')).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Done…' })).toBeNull();
  });

  it('keeps the day and all that is typed under Done on the device, whatever closes it', async () => {
    const { open, sent } = card(() => ({ entry: {}, notes: [] }));
    const page = open();
    await screen.findByText('Look first');
    await choose('Ground', 'frozen');
    await press('Done…');
    await press('partly done');
    await userEvent.type(await screen.findByLabelText(/^Done, of/), '300');
    await userEvent.type(screen.getByLabelText('Why not all'), 'the hopper broke');
    await userEvent.keyboard('{Escape}');
    page.unmount();
    open();
    expect((await screen.findByRole('status', { name: 'Verdict' })).textContent).toMatch(/^Never/);
    await press('Done…');
    expect(screen.getByLabelText<HTMLInputElement>('Why not all').value).toBe('the hopper broke');
    expect(screen.getByLabelText<HTMLInputElement>(/^Done, of/).value).toBe('300');
    await press('Write it down');
    await waitFor(() => expect(sent()).toHaveLength(1));
    expect(sent()[0]).toMatchObject({ state: 'partly done', reason: 'the hopper broke', day: { ground: 'frozen' } });
    await waitFor(() => expect(Object.keys(localStorage).filter((key) => key.startsWith('glenfold card'))).toEqual([]));
  });

  it('that is half typed is nobody else’s on a phone that is shared', async () => {
    const { open, job } = card(() => ({ entry: {}, notes: [] }));
    const page = open();
    await screen.findByText('Look first');
    await choose('Ground', 'frozen');
    page.unmount();
    const turn = async (id: string): Promise<string | null> => {
      serve({ '/session': { ...signedIn, person: { id, name: id } }, [`/jobs/${job.id}/card`]: cardWith(job) });
      const shown = open();
      await waitFor(() => expect(holderNow()?.personId).toBe(id));
      const verdict = (await screen.findByRole('status', { name: 'Verdict' })).textContent;
      shown.unmount();
      return verdict;
    };
    expect(await turn('q')).not.toMatch(/^Never/);
    expect(await turn('p')).toMatch(/^Never/);
    // The next test begins without it.
    serve({ '/session': signedIn, [`/jobs/${job.id}/card`]: 404 });
    await freshen('us');
  });

  it('that another program has superseded leaves the list at the next contact, with the card that stands for it', async () => {
    const { open, job } = card(() => ({ entry: {}, notes: [] }));
    const page = open();
    await screen.findByText('Look first');
    page.unmount();
    const gone = cardWith({ ...job, state: 'superseded', replacedById: 'next-lime' });
    serve({ '/session': signedIn, [`/jobs/${job.id}/card`]: gone });
    open('/today');
    const alert = await screen.findByText(/another program was handed over since you took this card along/);
    expect(within(alert).getByRole('link').getAttribute('href')).toBe('/cards/next-lime');
    await waitFor(() => expect(screen.queryByText(new RegExp(`^${job.name}, ${job.zone}$`))).toBeNull());
  });

  it('is kept without a connection, and goes on its way from the list of cards', async () => {
    let away = true;
    const { open, sent, job } = card(() => (away ? new Error('away') : { entry: {}, notes: [] }));
    const page = open();
    await userEvent.click(await screen.findByRole('button', { name: 'Done…' }));
    await press('Write it down');
    expect(await screen.findByText(/Kept on this device until there is a connection/)).toBeTruthy();
    page.unmount();
    away = false;
    open('/today');
    window.dispatchEvent(new Event('online'));
    await waitFor(() => expect(screen.getByText('all sent')).toBeTruthy());
    expect(new Set(sent().map(({ id }) => id)).size).toBe(1);
    expect(screen.queryByText(`Lime, ${job.zone}`)).toBeNull();
  });

  it('that the server does not keep opens again, to be written anew', async () => {
    const { open } = card(() => problem(422, { detail: 'Nobody works on that day.' }));
    open();
    await userEvent.click(await screen.findByRole('button', { name: 'Done…' }));
    await press('Write it down');
    expect((await screen.findByRole('alert')).textContent).toMatch(/cannot be kept: Nobody works/);
    await userEvent.click(await screen.findByRole('button', { name: 'Write it anew' }));
    expect(await screen.findByRole('button', { name: 'Done…' })).toBeTruthy();
  });

  it('that is not done wants its why; in part, how much, and no more than the zone', async () => {
    const { open, sent } = card(() => ({ entry: {}, notes: [] }));
    open();
    await userEvent.click(await screen.findByRole('button', { name: 'Done…' }));
    await press('not done');
    await press('Write it down');
    expect(await screen.findByText('Say why it was not done.')).toBeTruthy();
    await press('done');
    const used = screen.getByLabelText<HTMLInputElement>('Really used');
    await userEvent.clear(used);
    await userEvent.type(used, 'a shovel');
    await press('Write it down');
    expect(await screen.findByText(/“a shovel” is no amount: write it like 20 lb/)).toBeTruthy();
    expect(used.value).toBe('a shovel');
    await userEvent.clear(used);
    await userEvent.type(used, '20');
    await press('partly done');
    await userEvent.type(screen.getByLabelText(/^Done, of/), '2000');
    await press('Write it down');
    expect(await screen.findByText(/if all of it is done, choose “done”/)).toBeTruthy();
    expect(sent()).toEqual([]);
  });
});

describe('the logbook', () => {
  const entry: EntryAnswer = {
    ...{ id: 'e1', zoneId: 'z', zone: 'Back lawn', jobId: null, on: '2027-04', kind: 'lime', state: 'done' },
    ...{ words: 'a few bags', productId: null, quantity: null, quantityUnit: null, rate: null, unit: null, area: null },
    ...{ cce: null, reason: null, doneBy: null, writtenBy: null, recordedAt: '2027-04-10T08:00:00Z', day: null },
    ...{ correctsId: null, stands: true, mixed: [], notes: [], photos: [] },
  };
  const book: LogbookAnswer = {
    ...{ siteId: 's', year: 2027, years: [2027, 2026], today: '2027-04-10', entries: [entry] },
    zones: [{ zoneId: 'z', zone: 'Back lawn', lines: [], warnings: [], unknown: ['a few bags, 2027-04'] }],
  } as never;
  const open = (more = {}) => {
    const asked = serve({
      '/sites/s/logbook': book,
      '/sites/s/messages': { messages: [] },
      '/products/names': [{ ...productWith(), bulkDensity: null }],
      ...more,
    });
    show(<Logbook site={site} zones={[lawn]} zone={lawn} results={[]} />);
    return asked;
  };

  it('says of what has no amount that nothing counts it; mended, another entry stands in its place', async () => {
    const asked = open({ 'POST /entries': { entry, notes: ['More was treated than the zone has.'] } });
    expect((await screen.findByRole('listitem')).textContent).toMatch(/a few bags; no amount that counts/);
    await press(/^Mend a few bags/);
    const form = within(screen.getByRole('dialog'));
    await userEvent.click(form.getByRole('button', { name: 'By the area' }));
    await userEvent.type(form.getByLabelText('Rate'), '195.3 g/m2');
    await userEvent.type(form.getByLabelText('Strength (CCE)'), '95');
    await userEvent.type(form.getByLabelText('What was wrong'), 'the bags are found');
    await press('Write it down');
    await waitFor(() => expect(changesOf(asked)).toHaveLength(1));
    expect(changesOf(asked)[0]!.body).toMatchObject({ correctsId: 'e1', on: '2027-04', cce: 95, unit: 'g/m2', reason: 'the bags are found' }); // prettier-ignore
    expect((changesOf(asked)[0]!.body as EntryInput).rate).toBeCloseTo(195.3, 6);
    expect(await screen.findByText('More was treated than the zone has.')).toBeTruthy();
  });

  it('keeps what was typed when it is refused, and tells it at the field', async () => {
    open({ 'POST /entries': problem(422, { detail: 'No.', errors: [{ field: 'on', message: 'Write the date as 2026-03-14.' }] }) }); // prettier-ignore
    await userEvent.click(await screen.findByRole('button', { name: 'Write an entry' }));
    const when = screen.getByLabelText<HTMLInputElement>('When');
    await userEvent.clear(when);
    await userEvent.type(when, 'in spring');
    await press('Write it down');
    expect(await screen.findByText('Write the date as 2026-03-14.')).toBeTruthy();
    expect(when.value).toBe('in spring');
  });
});

describe('the proof', () => {
  const days = [
    { day: 0, ph: 5.4, low: 5.2, high: 5.6 },
    { day: 365, ph: 6.0, low: 5.6, high: 6.2 },
  ];
  const zone: ProofZoneAnswer = {
    ...{ zoneId: 'z', zone: 'Back lawn', from: '2027-09-01', under: days, nothing: days, band: [6, 7], working: [] },
    tests: [{ sampledOn: '2026-09-01', ph: 5.4 }, { sampledOn: '2027-09-01', ph: 5.8 }], // prettier-ignore
    ...{
      retestOn: '2027-03-01',
      retestWords: 'A year after the last correction.',
      retestDue: true,
      words: [],
      marks: [],
    },
    predictions: [
      {
        ...{ id: 'p1', madeOn: '2026-09-10', from: '2026-09-01', ph: 5.4, days, retestOn: '2027-09-01' },
        retestedOn: '2027-09-01',
        proved: { moved: 0.4, expected: 0.6, low: 5.6, high: 6.2, inside: true, words: 'Moved 0.4, 0.6 was expected: inside the band of 5.6 to 6.2.' }, // prettier-ignore
      },
    ],
    changes: [
      { analyte: 'P', from: '2026-09-01', to: '2027-09-01', before: 30, after: 34, change: 4, uncertainty: 12, differs: false, unit: 'ppm', words: 'P stands as it did.', working: [] }, // prettier-ignore
    ],
  };
  it('lays the retest beside what was foretold, says what is due, and tells noise from change', async () => {
    serve({
      '/sites/s/proof': { today: '2027-04-10', zones: [zone] } satisfies ProofAnswer,
      '/proof': { hits: [], inside: 0, waiting: 1, words: 'No retest has judged a prediction yet.' },
    });
    show(<Proof site={site} zones={[lawn]} zone={lawn} results={[]} />);
    expect(await screen.findByText(/Moved 0\.4, 0\.6 was expected: inside the band/)).toBeTruthy();
    expect(screen.getByText(/^Retest due Mon 1 Mar 2027, 40 days ago/)).toBeTruthy();
    expect(screen.getByRole('img', { name: /5\.4 on 2026-09-01, 5\.8 on 2027-09-01; foretold 6\.0, 5\.6 to 6\.2/ })).toBeTruthy(); // prettier-ignore
    expect(screen.getByText('Noise.')).toBeTruthy();
    expect(await screen.findByText(/No retest has judged.*1 waits for a retest/)).toBeTruthy();
  });
});
