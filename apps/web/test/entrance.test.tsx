import { programZone } from '@glenfold/agronomy';
import type { SessionAnswer, SiteReportAnswer } from '@glenfold/contract';
import { screen, waitFor, within } from '@testing-library/react';
import userEvent from './userEvent.ts';
import type { ReactNode } from 'react';
import { Route, Routes } from 'react-router';
import { Invitation, Reset } from '../src/features/entrance/OneTimeLinks.tsx';
import { SharedReport } from '../src/features/report/ReportPages.tsx';
import { Entrance } from '../src/frame/Entrance.tsx';
import { ShareForm } from '../src/features/report/ShareForm.tsx';
import { changesOf, choose, problem, serve, show } from './page.tsx';
import { site } from './scene.ts';

const signedOut: SessionAnswer = {
  state: 'signed out',
  csrf: 'x',
  person: null,
  practice: null,
  role: null,
  practices: [],
  demoPeople: [
    { personId: 'o', name: 'Orla Dunn', email: 'orla@brackwater.example', at: ['owner at Brackwater Soil Advisory'] },
  ],
  tiles: null,
};
const at = (path: string, address: string, element: ReactNode, answers: Readonly<Record<string, unknown>>) => {
  const asked = serve(answers);
  show(
    <Routes>
      <Route path={path} element={element} />
    </Routes>,
    { at: address },
  );
  return asked;
};
const press = (name: string | RegExp): Promise<void> => userEvent.click(screen.getByRole('button', { name }));
const type = (label: string | RegExp, text: string): Promise<void> =>
  userEvent.type(screen.getByLabelText(label), text);

describe('the way in', () => {
  const open = (session: Partial<SessionAnswer>, more = {}) =>
    at('/', '/', <Entrance />, { '/session': { ...signedOut, ...session }, ...more });

  it('refuses a wrong password in words, and keeps the address', async () => {
    const asked = open({}, { 'POST /session': problem(401, { detail: 'Address and password do not match.' }) });
    await screen.findByRole('heading', { name: 'Sign in' });
    await press('Sign in');
    expect(changesOf(asked)).toEqual([]);
    await type('E-mail', 'orla@brackwater.example');
    await type('Password', 'lime by habit');
    await press('Sign in');
    expect((await screen.findByRole('alert')).textContent).toBe('Address and password do not match.');
    expect(screen.getByLabelText('E-mail')).toHaveProperty('value', 'orla@brackwater.example');
  });

  it('answers a forgotten password alike for every address', async () => {
    const asked = open({}, { 'POST /password-resets': {} });
    await screen.findByRole('heading', { name: 'Sign in' });
    await type(/E-mail/, 'una@fulmar.example');
    await press('Password forgotten');
    expect(screen.getByLabelText('E-mail')).toHaveProperty('value', 'una@fulmar.example');
    await press('Send the link');
    expect((await screen.findByRole('status')).textContent).toMatch(/^If that address is known here/);
    expect(changesOf(asked)[0]!.body).toEqual({ email: 'una@fulmar.example' });
  });

  it('offers the demo people only where there are some', async () => {
    open({ demoPeople: [] });
    await screen.findByRole('heading', { name: 'Sign in' });
    expect(screen.queryByRole('button', { name: /^Enter as/ })).toBeNull();
  });

  it('begins with the practice where nothing is there, and says by field what is missing', async () => {
    const short = { errors: [{ field: 'password', message: 'This password is too well known.' }] };
    const asked = open({ state: 'first run' }, { 'POST /first-run': problem(400, short) });
    await screen.findByRole('heading', { name: 'Set up your practice' });
    await press('Begin');
    expect(await screen.findByText('Give the practice a name of 1 to 120 letters.')).toBeTruthy();
    expect(changesOf(asked)).toEqual([]);
    await type('Name of the practice', 'Saltmarsh Soils');
    await type('Your name', 'Una Reed');
    await type('Your e-mail', 'una@saltmarsh.example');
    await type('A password', 'password123456');
    await press('Begin');
    expect(await screen.findByText('This password is too well known.')).toBeTruthy();
    expect(screen.getByLabelText('Name of the practice')).toHaveProperty('value', 'Saltmarsh Soils');
  });

  it('or goes on with an export, whose refusal leaves the choice as it is', async () => {
    const cut = problem(400, { detail: 'The file ends too early: download it again.' });
    open({ state: 'first run' }, { 'POST /first-run/load': cut });
    await screen.findByRole('heading', { name: 'Set up your practice' });
    await press('One from an export');
    expect(screen.getByRole('button', { name: 'Load it and sign in' })).toHaveProperty('disabled', true);
    await userEvent.upload(screen.getByLabelText('ZIP of the export'), new File(['PK'], 'brackwater.zip'));
    await type('Your e-mail, as an owner of it', 'orla@brackwater.example');
    await type('A new password', 'lime by test, not by habit');
    await press('Load it and sign in');
    expect((await screen.findByRole('alert')).textContent).toContain('ends too early');
    expect(screen.getByText('brackwater.zip')).toBeTruthy();
  });

  it('lets somebody choose who belongs to another practice, and tells who belongs to none', async () => {
    const person = { id: 'p', name: 'Piet Vane', email: 'piet@brackwater.example', units: null };
    const practices = [{ practiceId: 'f', practiceName: 'Fulmar Turf', role: 'advisor' as const }];
    const asked = open({ state: 'signed in', person, practices }, { 'PUT /session/practice': 503 });
    await userEvent.click(await screen.findByRole('button', { name: 'Fulmar Turf, as advisor' }));
    expect((await screen.findByRole('alert')).textContent).toBe('Refused with 503.');
    expect(changesOf(asked)[0]!.body).toEqual({ practiceId: 'f' });
    document.body.innerHTML = '';
    open({ state: 'signed in', person });
    expect(await screen.findByText(/Piet Vane, you do not belong to any practice any more/)).toBeTruthy();
  });

  it('says that the server does not answer, and leads to what is on the device', async () => {
    at('/', '/', <Entrance />, { '/session': new TypeError('fetch failed') });
    expect(await screen.findByRole('heading', { name: 'Glenfold does not answer' })).toBeTruthy();
    expect(screen.getByRole('alert').textContent).toMatch(/no connection, or Glenfold is not running/);
    const ways = within(screen.getByRole('navigation', { name: 'On this device' })).getAllByRole('link');
    expect(ways.map((way) => way.getAttribute('href'))).toEqual(['/today', '/sent', '/pocket']);
  });
});

describe('a link that works once', () => {
  const offer = {
    practiceName: 'Brackwater',
    email: 'una@fulmar.example',
    role: 'technician',
    invitedBy: 'Orla Dunn',
    known: false,
  };
  const invited = (answer: unknown, more = {}) =>
    at('/invitation/:token', '/invitation/abc', <Invitation />, { '/invitations/abc/offer': answer, ...more });

  it('says who invites to what, and asks a newcomer for a name and a password that will do', async () => {
    const asked = invited(offer, { 'PUT /invitations/abc/offer': 410 });
    expect((await screen.findByText(/Orla Dunn invites/)).textContent).toMatch(/una@fulmar\.example as technician: /);
    await press('Join');
    expect(changesOf(asked)).toEqual([]);
    await type('Your name', 'Una Reed');
    await type('A password', 'cores before lime');
    await press('Join');
    expect((await screen.findByRole('alert')).textContent).toBe('Refused with 410.');
    expect(changesOf(asked)[0]!.body).toEqual({ name: 'Una Reed', password: 'cores before lime' });
  });

  it('asks somebody known for the password of here, and no name', async () => {
    invited({ ...offer, known: true });
    expect(await screen.findByLabelText('The password you use here already')).toBeTruthy();
    expect(screen.queryByLabelText('Your name')).toBeNull();
  });

  it('that was used says so, and leads to the way in', async () => {
    invited(problem(404, { detail: 'This invitation was used or taken back.' }));
    expect((await screen.findByRole('alert')).textContent).toBe('This invitation was used or taken back.');
    expect(screen.getByRole('link', { name: 'To the sign-in page' }).getAttribute('href')).toBe('/');
  });

  it('sets a new password that is long enough, for the address it tells', async () => {
    const asked = at('/reset/:token', '/reset/abc', <Reset />, {
      '/password-resets/abc': { email: 'una@fulmar.example' },
      'PUT /password-resets/abc': 404,
    });
    expect(await screen.findByText(/For una@fulmar\.example/)).toBeTruthy();
    await type('A new password', 'short');
    await press('Set it and sign in');
    expect(changesOf(asked)).toEqual([]);
    await type('A new password', ' but longer now');
    await press('Set it and sign in');
    await waitFor(() => expect(changesOf(asked)[0]!.body).toEqual({ password: 'short but longer now' }));
  });
});

describe('a report that is shared', () => {
  it('makes a link for somebody named, shown once, and takes one back', async () => {
    const link = { id: 'l', purpose: 'Hetty', madeBy: 'Orla Dunn', expiresAt: '2026-12-24T12:00:00Z', state: 'open' };
    const asked = serve({
      '/sites/s/share-links': [link],
      'POST /sites/s/share-links': { ...link, purpose: 'The club', address: 'http://127.0.0.1:4600/shared/xyz' },
      'DELETE /share-links/l': {},
    });
    show(<ShareForm site={site} onClose={() => undefined} />);
    await press('Make a link');
    expect(await screen.findByText(/Say who the link is for/)).toBeTruthy();
    await type('Who it is for', 'The club');
    await choose('Opens for', 'three months');
    await press('Make a link');
    expect(await screen.findByLabelText('Link')).toHaveProperty('value', 'http://127.0.0.1:4600/shared/xyz');
    expect(changesOf(asked)[0]!.body).toEqual({ purpose: 'The club', days: 90 });
    expect(screen.getByText('Hetty').parentElement!.textContent).toContain('open until 24 Dec 2026, made by Orla Dunn');
    await press('Revoke Hetty');
    await waitFor(() => expect(changesOf(asked)[1]).toMatchObject({ method: 'DELETE' }));
  });

  const facts = {
    name: 'Court',
    area: 93,
    grass: 'tall fescue',
    surface: 'turf',
    intensity: 'medium',
    shade: 'full sun',
    clippings: 'returned',
    soilGroup: 'clay',
  } as const;
  const handed = (soilPh: number, wet: boolean): SiteReportAnswer => {
    const { reading, program } = programZone({
      zone: { ...facts, ...(wet ? { signs: ['puddles', 'wet low ground'], measured: { probeStop: 7 } } : {}) },
      test: { soilPh, extractant: 'olsen', depth: 10.16, nutrients: {} } as never,
      materials: [],
      from: '2026-10-07',
      system: 'us',
    });
    const zone = { id: 'i', issuedAt: '2026-10-07T23:30:00Z', sampledOn: '2026-09-30', units: 'us', pdf: '/x.pdf' };
    return {
      siteId: 's',
      siteName: site.name,
      place: site.place ?? null,
      ...{ practiceName: 'Brackwater', practicePhone: null, practiceEmail: null },
      owner: null,
      ...{ price: null, mayShare: false, earlier: [], entryKnown: true },
      quote: null,
      year: { done: [], next: [], moved: [], retests: [] },
      zones: [
        { name: 'Verge', area: 40, grass: 'red fescue', changing: false, plan: null },
        { ...facts, changing: false, plan: { ...zone, reading, program } as never },
      ],
    };
  };
  const read = (report: unknown) => at('/shared/:token', '/shared/t', <SharedReport />, { '/shared/t': report });

  it('has what was handed over first, and says where nothing was', async () => {
    read(handed(6.4, false));
    const zones = await screen.findAllByRole('region');
    expect(zones.map((zone) => zone.getAttribute('aria-label'))).toEqual(['Court', 'Verge']);
    expect(within(zones[1]!).getByText('Nothing is handed over for it yet.')).toBeTruthy();
    expect(within(zones[0]!).getByRole('link', { name: 'On paper (PDF)' }).getAttribute('href')).toBe('/x.pdf');
    // Nothing leads from here into the practice's work.
    expect(screen.queryByRole('link', { name: /site|rounds/i })).toBeNull();
  });

  it('tells an owner of alkaline ground what is done instead of lime', async () => {
    read(handed(8.2, false));
    const court = await screen.findByRole('region', { name: 'Court' });
    expect(court.textContent).toMatch(/sulfur: |sulfate as the nitrogen/);
    expect(court.textContent).toMatch(/No lime/);
  });

  it('puts the ground first where no root or water gets down', async () => {
    read(handed(6.4, true));
    const court = await screen.findByRole('region', { name: 'Court' });
    expect(within(court).getByText('First:').parentElement!.textContent).toMatch(/probe|water|compact/i);
    document.body.innerHTML = '';
    read(handed(6.4, false));
    await screen.findByRole('region', { name: 'Court' });
    expect(screen.queryByText('First:')).toBeNull();
  });

  it('that does not open any more says so, and shows nothing of the site', async () => {
    read(problem(404, { detail: 'The link was revoked, or its time is over. Ask who sent it.' }));
    expect(await screen.findByRole('heading', { name: 'This link does not open' })).toBeTruthy();
    expect(screen.getByRole('alert').textContent).toMatch(/revoked/);
    expect(screen.queryByText(site.name)).toBeNull();
  });
});
