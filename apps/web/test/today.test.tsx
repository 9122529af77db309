import 'fake-indexeddb/auto';
import { afterEach, beforeEach, describe, expect, it } from '@jest/globals';
import { cleanup, screen, waitFor, within } from '@testing-library/react';
import { clear, createStore } from 'idb-keyval';
import { Route, Routes } from 'react-router';
import { tapEntry } from '../src/features/sampling/walk/walkStore.ts';
import { AccountMenu } from '../src/frame/AccountMenu.tsx';
import { FieldSitePage } from '../src/frame/today/FieldSitePage.tsx';
import { SentPage } from '../src/frame/today/SentPage.tsx';
import { TodayPage } from '../src/frame/today/TodayPage.tsx';
import { inDrivingOrder } from '../src/frame/today/dayStore.ts';
import { keep } from '../src/offline/outbox.ts';
import { type Asked, changesOf, problem, serve, show } from './page.tsx';
import { bagWith, coresWith, plane, zoneWith } from './scene.ts';
import userEvent from './userEvent.ts';

const signedIn = (id = 'p', name = 'Wynn Sands', practice = 'b') =>
  ({ state: 'signed in', csrf: 't', person: { id, name }, practice: { id: practice, name: `Practice ${practice}` } }) as const; // prettier-ignore
const site = {
  ...{ id: 's', name: 'Gannet Row', place: 'By the quay', position: [-3, 54], timeZone: null },
  access: { gate: 'code 4711', parking: 'in the lane' },
  contacts: [{ name: 'Hetty', role: 'owner', phone: '+44 20 7946 0018' }],
};
const place = [...plane.toMap([10, 10])] as [number, number];
const bag = bagWith({ siteId: 's', cores: 2, places: coresWith({ place }, { place }) });
const zone = zoneWith({ thatch: 1.5 });
let session: object = signedIn();
const answers = {
  '/session': () => session,
  '/season/cards': [],
  '/walks': [{ siteId: 's', siteName: 'Gannet Row', bags: 1 }],
  '/field-tests/open': [],
  '/sites/s': site,
  '/sites/s/zones': [zone],
  '/sites/s/drawing': { features: [], underlay: null },
  '/sites/s/bags': [bag],
  '/sites/s/field-tests': [],
};
const open = (at: string, more: Record<string, unknown> = {}): Asked[] => {
  const asked = serve({ ...answers, ...more });
  show(
    <Routes>
      <Route path="/today" element={<TodayPage />} />
      <Route path="/sent" element={<SentPage />} />
      <Route path="/field/:siteId" element={<FieldSitePage />} />
    </Routes>,
    { at, role: 'technician', units: 'metric' },
  );
  return asked;
};
const press = async (name: RegExp | string): Promise<void> =>
  userEvent.click(await screen.findByRole('button', { name }));

beforeEach(() => {
  session = signedIn();
});
afterEach(async () => {
  for (const [name, kept] of [
    ['glenfold-outbox', 'entries'],
    ['glenfold-sent', 'log'],
    ['glenfold-walk', 'kept'],
    ['glenfold-test-sites', 'kept'],
  ] as const)
    // prettier-ignore
    await clear(createStore(name, kept));
  localStorage.clear();
});

describe('the day on the phone', () => {
  it('is taken along by one press, with gate codes and people, and says why it could not be', async () => {
    open('/today');
    await press('Take today along');
    expect(await screen.findByText(/Today is on this device: 1 site, with gate codes/)).toBeTruthy();
    const there = within(await screen.findByRole('region', { name: 'Gannet Row' }));
    expect(there.getByText('code 4711')).toBeTruthy();
    expect(there.getByRole('link', { name: 'Walk: 2 cores to take' }).getAttribute('href')).toBe('/walk/s');
    expect(there.getByRole('link', { name: '+44 20 7946 0018' }).getAttribute('href')).toBe('tel:+442079460018');
    expect(screen.getByRole('banner').textContent).toMatch(/Practice bToday, Wynn Sands/);
    serve({ ...answers, '/walks': 503 });
    await press('The whole week');
    expect((await screen.findByRole('alert')).textContent).toBe('Refused with 503.');
  });

  it('shows nobody else’s lawns: not signed out, not to another person, not in another practice', async () => {
    open('/today');
    await press('Take today along');
    await screen.findByRole('region', { name: 'Gannet Row' });
    for (const other of [signedIn('q', 'Piet Vane'), signedIn('p', 'Wynn Sands', 'c'), { state: 'signed out' }]) {
      session = other;
      cleanup();
      open('/today');
      await waitFor(() => expect(screen.getByText(/Nothing is on this device|Sign in to see/)).toBeTruthy());
      expect(document.body.textContent).not.toMatch(/Gannet|4711/);
    }
  });

  it('counts a core as taken once it is tapped, sent or not', async () => {
    open('/today', { '/core-taps': 503 });
    await press('Take today along');
    await screen.findByRole('link', { name: 'Walk: 2 cores to take' });
    const [core] = bag.places;
    await keep(tapEntry({ practiceId: 'b', person: { id: 'p', name: 'Wynn Sands' } }, { siteId: 's', tap: { id: 't1', coreId: core!.id, state: 'cored', at: '2026-12-02T09:00:00Z' } })); // prettier-ignore
    cleanup();
    open('/today', { '/core-taps': 503 });
    expect(await screen.findByRole('link', { name: 'Walk: 1 core to take' })).toBeTruthy();
  });

  it('drives round by the shortest way, what lies nowhere last', () => {
    const at = (name: string, x: number | null) => ({ name, position: x === null ? null : ([x, 54] as const) });
    const round = inDrivingOrder([at('a', 0), at('nowhere', null), at('c', 0.2), at('b', 0.1), at('d', 0.3)]);
    expect(round.map(({ name }) => name).join('')).toMatch(/^a(bcd|dcb)nowhere$/);
  });
});

describe('what is written at a site', () => {
  const away = { ...answers, 'PUT /zones/z/measurements': { ...zone, version: 9 } };

  it('is kept without a connection, and only what was read is changed once there is one', async () => {
    const asked = open('/field/s', away);
    await press('Thatch and roots');
    await userEvent.type(await screen.findByLabelText('Roots to'), '12');
    await press('Keep it');
    await waitFor(() => expect(changesOf(asked)).toHaveLength(1));
    expect(changesOf(asked)[0]).toMatchObject({ path: `/zones/${zone.id}/measurements`, version: String(zone.version), body: { thatch: 1.5, rootDepth: 12, probeStop: null } }); // prettier-ignore
  });

  it('that is refused says why, and goes to the office as a note, or is taken back', async () => {
    const asked = open('/field/s', { 'POST /load-checks': problem(422, { detail: 'That day has not come yet.' }), 'POST /notes': {} }); // prettier-ignore
    await press('A delivery');
    await userEvent.type(await screen.findByLabelText('Whose, and how much'), 'compost, 9 m³');
    await press('Keep it');
    await waitFor(() => expect(screen.getByRole('status', { name: 'Sending' }).textContent).toBe('1 not taken'));
    await userEvent.click(screen.getByRole('link', { name: '1 not taken' }));
    const refused = await screen.findByRole('region', { name: 'Not taken' });
    expect(refused.textContent).toMatch(/compost, 9 m³.*That day has not come yet/);
    await press('Send to the office as a note');
    await waitFor(() => expect(changesOf(asked).at(-1)).toMatchObject({ path: '/notes', body: { siteId: 's', words: expect.stringMatching(/compost, 9 m³.*not taken/) as unknown } })); // prettier-ignore
    await waitFor(() => expect(screen.getByRole('status', { name: 'Sending' }).textContent).toBe('all sent'));
    expect(await screen.findByText(/^Note to the office/)).toBeTruthy();
  });

  it('is asked after before somebody signs out, and stays on the device', async () => {
    open('/field/s', { 'POST /entries': 503 });
    await press('Work without a card');
    await userEvent.type(await screen.findByLabelText('In words'), 'urea along the path');
    await press('Keep it');
    await waitFor(() => expect(screen.getByRole('status', { name: 'Sending' }).textContent).toBe('1 kept here'));
    cleanup();
    const asked = serve({ ...answers, 'POST /entries': 503, 'DELETE /session': {} });
    show(<AccountMenu onKeys={() => undefined} />, { role: 'technician' });
    await press(/account$/);
    await userEvent.click(await screen.findByRole('menuitem', { name: 'Sign out' }));
    const dialog = within(await screen.findByRole('dialog', { name: '1 thing is not sent yet' }));
    expect(dialog.getByText(/it stays on this device, shown to nobody/)).toBeTruthy();
    await userEvent.click(dialog.getByRole('button', { name: 'Stay' }));
    expect(changesOf(asked).filter(({ path }) => path === '/session')).toEqual([]);
  });

  it('by somebody who is gone is counted, not shown, and handed to the practice by whoever is there', async () => {
    open('/field/s', { 'POST /entries': 503 });
    await press('Work without a card');
    await userEvent.type(await screen.findByLabelText('In words'), 'urea along the path');
    await press('Keep it');
    await waitFor(() => expect(screen.getByRole('status', { name: 'Sending' }).textContent).toBe('1 kept here'));
    session = signedIn('q', 'Piet Vane');
    cleanup();
    const later = open('/sent', { 'POST /entries': { entry: {}, notes: [] } });
    const theirs = await screen.findByRole('region', { name: 'Of Wynn Sands' });
    expect(theirs.textContent).toMatch(/1 thing of Wynn Sands wait/);
    expect(document.body.textContent).not.toMatch(/urea/);
    await press('Hand it to the practice');
    await waitFor(() =>
      expect(changesOf(later).at(-1)).toMatchObject({ path: '/entries', body: { doneBy: 'Wynn Sands' } }),
    );
  });
});
