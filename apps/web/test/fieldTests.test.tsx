import 'fake-indexeddb/auto';
import { type FieldTestKind, fieldTestKinds, fieldTestOf } from '@glenfold/agronomy';
import type { FieldTestInput, PhotoInput } from '@glenfold/contract';
import { jest } from '@jest/globals';
import { screen, waitFor } from '@testing-library/react';
import userEvent from './userEvent.ts';
import { clear, createStore } from 'idb-keyval';
import { Route, Routes } from 'react-router';
import { TestsPage } from '../src/features/fieldTests/TestsPage.tsx';
import { todayIn } from '../src/ui/today.ts';
import { type Asked, changesOf, choose, problem, serve, show } from './page.tsx';
import { site, zoneWith } from './scene.ts';

const session = {
  ...{ state: 'signed in', csrf: 't', person: { id: 'p', name: 'Odd Sallow' }, practice: { id: 'b' } },
};
const zones = [zoneWith({ id: 'z', facts: { slope: 0.5 } }), zoneWith({ id: 'y', name: 'Court', label: 'CT' })];

/** The phone beside the lawn. @param answers what is otherwise than well */
function open(answers: Record<string, unknown> = {}, units: 'us' | 'metric' = 'metric'): Asked[] {
  const there = new Map<string, object>();
  const asked = serve({
    ...{
      '/session': session,
      '/sites/s': site,
      '/sites/s/zones': zones,
      '/sites/s/field-tests': () => [...there.values()],
      '/field-tests': ({ body }: Asked) => {
        const test = body as FieldTestInput;
        there.set(test.id, { ...test, siteId: 's' });
        return {};
      },
    },
    ...answers,
  });
  show(
    <Routes>
      <Route path="/tests/:siteId" element={<TestsPage />} />
    </Routes>,
    { at: '/tests/s', units },
  );
  return asked;
}
const begin = async (kind: FieldTestKind, on = 'Back lawn'): Promise<void> => {
  await screen.findByRole('heading', { name: 'Begin a test' });
  await choose('On which zone', on);
  await userEvent.click(await screen.findByRole('button', { name: new RegExp(`^${fieldTestOf[kind].title}`) }));
  await screen.findByRole('heading', { level: 1, name: fieldTestOf[kind].title });
};
const type = async (field: RegExp | string, text: string): Promise<void> => {
  const into = await screen.findByLabelText(field);
  await userEvent.clear(into);
  await userEvent.type(into, text);
};
const press = async (name: RegExp | string): Promise<void> =>
  userEvent.click(await screen.findByRole('button', { name }));
const says = async (): Promise<string> => (await screen.findByRole('region', { name: 'What it says' })).textContent;
const tests = (asked: readonly Asked[]): FieldTestInput[] =>
  changesOf(asked).flatMap(({ path, body }) => (path.startsWith('/field-tests') ? [body as FieldTestInput] : []));

beforeEach(async () => {
  for (const [name, kept] of [
    ['glenfold-tests', 'kept'],
    ['glenfold-test-sites', 'kept'],
    ['glenfold-outbox', 'entries'],
  ] as const)
    await clear(createStore(name, kept));
});
afterEach(() => jest.useRealTimers());

describe('tests with one’s own hands', () => {
  it('are all to be begun once the zone is said, each with its drawing', async () => {
    open();
    await screen.findByRole('heading', { name: 'Begin a test' });
    expect(screen.queryByRole('button', { name: /^Jar test/ })).toBeNull();
    await choose('On which zone', 'Court');
    for (const kind of fieldTestKinds)
      expect(screen.getByRole('button', { name: new RegExp(`^${fieldTestOf[kind].title}`) }).querySelector('svg')).not.toBeNull();
  });

  it('say what they come to while they are read, with the working, and are sent as they go', async () => {
    const asked = open();
    await begin('jar');
    expect(tests(asked)).toEqual([]);
    await type(/^Sand/, '6.1');
    await type(/^Silt/, '3.8');
    await type(/^Clay/, '2.2');
    expect(await says()).toMatch(/Loam.*50 % sand, 31 % silt, 18 % clay/);
    await press('How this comes about');
    expect(await says()).toMatch(/6\.1/);
    await press('It is done');
    await screen.findByText(/Jar test, Back lawn/);
    await waitFor(() => expect(tests(asked).at(-1)).toMatchObject({ kind: 'jar', closed: true, zoneId: 'z', record: { sandHeight: 6.1, siltHeight: 3.8, clayHeight: 2.2 } }));
    const revisions = tests(asked).map(({ revision }) => revision);
    expect(revisions).toEqual([...revisions].sort((one, other) => one - other));
    expect(new Set(tests(asked).map(({ id }) => id)).size).toBe(1);
  });

  it.each(['Pacific/Kiritimati', 'Pacific/Pago_Pago'])('have the day of their site, whatever the device says: %s', async (timeZone) => {
    const asked = open({ '/sites/s': { ...site, timeZone } });
    await begin('waterDrop');
    await type(/Or seconds/, '90');
    await press('Add');
    // Those two places are never on the same day, so that one of them is on another than the device.
    await waitFor(() => expect(tests(asked)).toMatchObject([{ on: todayIn(timeZone) }]));
  });

  it('stay on the device without a connection, and go when there is one', async () => {
    const away = new Error('away');
    const answers: Record<string, unknown> = {};
    const asked = open(answers);
    await begin('waterDrop');
    answers['/field-tests'] = away;
    answers['/session'] = away;
    globalThis.fetch = (() => Promise.reject(away));
    await type(/Or seconds/, '90');
    await press('Add');
    expect(await says()).toMatch('Strongly repellent');
    await screen.findByText(/1 (reading )?kept/i);
    expect(tests(asked)).toEqual([]);
    const later = serve({ '/session': session, '/sites/s': site, '/sites/s/zones': zones, '/sites/s/field-tests': [], '/field-tests': {} });
    window.dispatchEvent(new Event('online'));
    await waitFor(() => expect(tests(later)).toMatchObject([{ kind: 'waterDrop', record: { seconds: [90] } }]));
  });

  it('tell what the server will never take, once', async () => {
    open({ '/field-tests': problem(409, { detail: 'This test was deleted meanwhile.', errors: [] }) });
    await begin('fizz');
    await press('strong');
    expect((await screen.findByRole('alert')).textContent).toMatch(/The test of .* was not taken: This test was deleted meanwhile/);
    await press('I have read it');
    await waitFor(() => expect(screen.queryByRole('alert')).toBeNull());
  });

  it('cannot be closed while something in them is not so, and one that nothing was read of is dropped', async () => {
    const asked = open();
    await begin('soilTemperature');
    await type(/Or as you read it/, '75');
    await press('Add');
    expect((await screen.findByRole('alert')).textContent).toMatch(/Not right yet/);
    expect(screen.getByRole('button', { name: 'It is done' }).hasAttribute('disabled')).toBe(true);
    await press('Take back Reading 1');
    await waitFor(() => expect(screen.getByRole('button', { name: 'It is done' }).hasAttribute('disabled')).toBe(false));
    await waitFor(() => expect(tests(asked).length).toBeGreaterThan(0));
  });
}); // prettier-ignore

describe('a hole over a night', () => {
  let now = 0;
  beforeEach(() => void (now = Date.now()));
  const minutes = (count: number): string => new Date(now - count * 60_000).toISOString();
  const hole = (readings: ReadonlyArray<readonly [ago: number, depth: number]>, more = {}) => ({
    ...{ id: 'h', version: 1, siteId: 's', zoneId: 'z', kind: 'drainage', on: '2026-11-20', closed: false, revision: 3 },
    ...{ doneBy: null, place: null, values: [], title: null, words: [], working: [], next: null },
    record: { holeDepth: 30, holeDiameter: 30, stickHeight: 0, soakedAt: minutes(1400), filledAt: minutes(readings[0]?.[0] ?? 0), readings: readings.map(([ago, depthBelowStick]) => ({ at: minutes(ago), depthBelowStick })), ...more },
  }); // prettier-ignore
  const openHole = async (readings: Parameters<typeof hole>[0]): Promise<Asked[]> => {
    const asked = open({ '/sites/s/field-tests': [hole(readings)] });
    await userEvent.click(await screen.findByRole('button', { name: /Drainage hole, Back lawn/ }));
    return asked;
  };

  it('is found again with what is due, and its hours are kept', async () => {
    const asked = await openHole([[140, 0], [80, 6.9]]); // prettier-ignore
    expect((await screen.findByRole('status', { name: 'What comes next' })).textContent).toMatch('The next reading is 20 minutes overdue.');
    await type(/From the stick down/, '12.7');
    await press('Read now');
    await waitFor(() => expect((tests(asked).at(-1)?.record as { readings: unknown[] } | undefined)?.readings).toHaveLength(3));
    const sent = tests(asked).at(-1)!.record as { readings: Array<{ at: string }>; filledAt: string };
    expect(sent.readings[0]!.at).toBe(sent.filledAt);
    await screen.findByRole('button', { name: /Alarm for/ });
  }); // prettier-ignore

  it('says nothing of what is below while water stands, and names the pan once it holds', async () => {
    await openHole([[90, 0], [45, 6.9], [1, 12.7]]); // prettier-ignore
    expect(await says()).toMatch(/So far: Water stands at 12\.5 cm yet: what is below is not seen/);
    expect(await says()).not.toMatch(/Drains well/);
  });

  it('names the pan and not the mean', async () => {
    await openHole([[1380, 0], [1335, 6.9], [1290, 12.7], [1200, 14.1], [1020, 14.9], [1, 15]]); // prettier-ignore
    expect(await says()).toMatch(/A pan at 15 cm: water stands on it/);
    expect(await says()).toMatch(/On the flat the water has nowhere else to go/);
  });
});

describe('photos of a test', () => {
  it('go after the test that they show, and are seen before they have arrived', async () => {
    Object.assign(globalThis, {
      createImageBitmap: () => Promise.resolve({ width: 4, height: 3, close: () => undefined }),
    });
    HTMLCanvasElement.prototype.getContext = (() => ({ drawImage: () => undefined, fillRect: () => undefined })) as never;
    HTMLCanvasElement.prototype.toBlob = (told) => told(new Blob(['small'], { type: 'image/jpeg' }));
    const asked = open();
    await begin('core', 'Court');
    await userEvent.upload(await screen.findByLabelText('Photo of the test'), new File(['x'], 'core.jpg', { type: 'image/jpeg' }));
    await screen.findByRole('img', { name: 'Photo 1 of the test' });
    await waitFor(() => expect(changesOf(asked).map(({ path }) => path)).toEqual(['/field-tests?units=metric', '/zones/y/photos']));
    const [test, photo] = changesOf(asked).map(({ body }) => body) as [FieldTestInput, PhotoInput];
    expect(photo).toMatchObject({ fieldTestId: test.id, takenOn: test.on });
  }); // prettier-ignore
});
