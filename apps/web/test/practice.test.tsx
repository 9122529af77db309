import type { InvitationAnswer, MailAnswer, MemberAnswer } from '@glenfold/contract';
import { screen, waitFor, within } from '@testing-library/react';
import userEvent from './userEvent.ts';
import { Route, Routes } from 'react-router';
import { PracticePage } from '../src/features/practice/PracticePage.tsx';
import { Rounds } from '../src/features/rounds/Rounds.tsx';
import { changesOf, choose, problem, serve, show } from './page.tsx';
import { site, siteState } from './scene.ts';

const task = (words: string, step: string, zoneId: string | null = null) => ({
  siteId: 's',
  siteName: site.name,
  zoneId,
  step,
  words,
  why: 'Nothing is known of its soil.',
});

describe('the rounds', () => {
  const tasks = [task('Sample the Back lawn', 'sampling', 'z'), task('Hand over the plan', 'rates')];
  const known = siteState({ ground: ['done', '2 zones'], lab: ['act', '1 of 2 zones tested'] });
  const rounds = (some = tasks, sites = [known]) => ({
    '/rounds': { tasks: some, next: null },
    '/rounds/sites': { sites, count: sites.length, next: null },
  });

  it('lead from each task to the very zone and step, in the order of the server', async () => {
    serve(rounds());
    show(<Rounds />);
    const [first, second] = await screen.findAllByRole('link', { name: /, Gannet Row$/ });
    expect(first!.getAttribute('href')).toBe('/sites/s/sampling/z');
    expect(second!.getAttribute('href')).toBe('/sites/s/rates?whole=');
    expect(screen.getByRole('heading', { name: 'What wants doing' })).toBeTruthy();
    // Steps that come later are no news; areas are in the person's own unit.
    const card = screen.getByRole('link', { name: 'Gannet Row' }).closest('li')!;
    expect(card.textContent).toMatch(/16,1\d\d ft².*Lab: 1 of 2 zones tested/);
    expect(card.textContent).not.toContain('Logbook');
  });

  it.each([
    ['an advisor begins with a site', 'advisor', rounds([], []), 'Begin with a site'],
    ['a technician is told who adds one', 'technician', rounds([], []), /an advisor adds them/],
    ['an owner with all done', 'owner', rounds([]), /Every zone is tested/],
    ['a technician with all done', 'technician', rounds([]), 'Nothing for you to do today.'],
  ] as const)('are never an empty page: %s', async (_name, role, answer, words) => {
    serve(answer);
    show(<Rounds />, { role });
    expect(await screen.findByText(words)).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Add a site' }) !== null).toBe(role !== 'technician');
  });

  it('add a site after its name is given, and say what is wrong until then', async () => {
    const asked = serve({ ...rounds([], []), 'POST /sites': { ...site, id: 'new' } });
    show(
      <Routes>
        <Route path="/" element={<Rounds />} />
        <Route path="/sites/:siteId/:step" element={<p>The new site’s ground</p>} />
      </Routes>,
    );
    await userEvent.click(await screen.findByRole('button', { name: 'Add a site' }));
    const ask = await screen.findByRole('dialog');
    await userEvent.click(within(ask).getByRole('button', { name: 'Add the site' }));
    expect(await within(ask).findByText(/name of 1 to/)).toBeTruthy();
    expect(changesOf(asked)).toEqual([]);
    await userEvent.type(within(ask).getByRole('textbox', { name: 'Name' }), 'Fulmar Court');
    await userEvent.click(within(ask).getByRole('button', { name: 'Add the site' }));
    expect(await screen.findByText('The new site’s ground')).toBeTruthy();
    expect(changesOf(asked)[0]!.body).toMatchObject({ name: 'Fulmar Court' });
  });

  it('come a page at a time: more of what wants doing, and a site by a few letters of its name', async () => {
    const asked = serve({
      '/rounds': { tasks: [tasks[0]], next: 'there' },
      '/rounds?after=there': { tasks: [tasks[1]], next: null },
      '/rounds/sites': { sites: [known], count: 4000, next: 'on' },
      '/rounds/sites?text=quay': { sites: [], count: 0, next: null },
    });
    show(<Rounds />);
    await userEvent.click(await screen.findByRole('button', { name: 'More that wants doing' }));
    expect(await screen.findByText('Hand over the plan')).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'More that wants doing' })).toBeNull();
    await userEvent.type(screen.getByLabelText('One of 4000 sites'), 'quay');
    expect(await screen.findByText('No site has “quay” in its name or place.')).toBeTruthy();
    // The hand is waited for: one question, not one a letter.
    expect(asked.filter(({ path }) => path.includes('text='))).toHaveLength(1);
  });

  it('say what could not be read', async () => {
    serve({ ...rounds(), '/rounds': 503 });
    show(<Rounds />);
    expect((await screen.findByRole('alert')).textContent).toBe('Refused with 503.');
  });
});

describe('the people of a practice', () => {
  const member = (name: string, more: Partial<MemberAnswer> = {}): MemberAnswer => ({
    id: name,
    version: 2,
    person: { id: `p ${name}`, name, email: `${name.toLowerCase()}@brackwater.example` },
    role: 'advisor',
    siteIds: [],
    addresses: 0,
    you: false,
    cannotSignIn: false,
    ...more,
  });
  const members = [
    member('Orla', { role: 'owner', you: true }),
    member('Piet'),
    member('Wynn', { role: 'technician', cannotSignIn: true }),
  ];
  const late: InvitationAnswer = {
    id: 'i',
    email: 'una@fulmar.example',
    role: 'advisor',
    siteIds: [],
    invitedBy: 'Orla Dunn',
    expiresAt: '2026-10-20T23:30:00Z',
    expired: true,
  };
  const answers = { '/members': members, '/invitations': [late], '/sites': { sites: [site], count: 1, next: null } };
  const open = (part: string, more = {}, role: 'owner' | 'advisor' = 'owner') => {
    const asked = serve({ ...answers, ...more });
    show(
      <Routes>
        <Route path="/practice/:part?" element={<PracticePage />} />
      </Routes>,
      { at: `/practice/${part}`, role },
    );
    return asked;
  };

  it('are the owner’s business', () => {
    const asked = open('people', {}, 'advisor');
    expect(screen.getByText(/its owner’s business/)).toBeTruthy();
    expect(asked).toEqual([]);
  });

  it('change their role at once, but become a client only with sites to read', async () => {
    const asked = open('people', { 'PUT /members/Piet': member('Piet', { version: 3 }) });
    await screen.findByText('(you)', { exact: false });
    expect(screen.getByText('Has no password here yet: send a link.')).toBeTruthy();
    await choose('Role of Piet', 'technician');
    await waitFor(() => expect(changesOf(asked)[0]).toMatchObject({ body: { role: 'technician', siteIds: [] } }));
    await choose('Role of Piet', 'client');
    expect(changesOf(asked)).toHaveLength(1);
    const piet = screen.getByRole('listitem', { name: 'Piet' });
    await userEvent.type(within(piet).getByRole('combobox', { name: /^Sites/ }), 'gann');
    await userEvent.click(await screen.findByRole('option', { name: site.name }));
    await userEvent.click(within(piet).getByRole('button', { name: 'Save' }));
    await waitFor(() => expect(changesOf(asked)[1]).toMatchObject({ body: { role: 'client', siteIds: ['s'] } }));
  });

  it('are refused in words where the last owner would go, and stay as they were', async () => {
    open('people', { 'PUT /members/Orla': problem(409, { detail: 'A practice needs an owner: make another first.' }) });
    await screen.findByText('(you)', { exact: false });
    await choose('Role of Orla', 'advisor');
    expect((await screen.findByRole('alert')).textContent).toBe('A practice needs an owner: make another first.');
    expect(screen.getByRole('combobox', { name: 'Role of Orla' }).textContent).toBe('owner');
  });

  it('are invited by an address that can be one, and a client with a site', async () => {
    const asked = open('people', { 'POST /invitations': { ...late, email: 'noor@fulmar.example', expired: false } });
    const form = await screen.findByRole('form', { name: 'Invite' });
    await userEvent.type(within(form).getByLabelText('E-mail'), 'noor at fulmar');
    await userEvent.click(within(form).getByRole('button', { name: 'Invite' }));
    expect(await within(form).findByText(/e-mail/i, { selector: 'p' })).toBeTruthy();
    expect(changesOf(asked)).toEqual([]);
    await userEvent.clear(within(form).getByLabelText('E-mail'));
    await userEvent.type(within(form).getByLabelText('E-mail'), 'noor@fulmar.example');
    await userEvent.click(within(form).getByRole('button', { name: 'Invite' }));
    expect((await within(form).findByRole('status')).textContent).toContain('Invited noor@fulmar.example');
    expect(changesOf(asked)[0]!.body).toEqual({ email: 'noor@fulmar.example', role: 'advisor', siteIds: [] });
  });

  it('whose invitation ran out are told so, and it can be taken back', async () => {
    const asked = open('people', { 'DELETE /invitations/i': {} });
    expect((await screen.findByText('una@fulmar.example')).parentElement!.textContent).toContain(
      'expired, invite again',
    );
    await userEvent.click(screen.getByRole('button', { name: 'Take back una@fulmar.example' }));
    await waitFor(() => expect(changesOf(asked)).toMatchObject([{ method: 'DELETE', path: '/invitations/i' }]));
  });

  it('get their messages by the owner’s hand where no mail server is, and by mail where one is', async () => {
    const mail: MailAnswer = {
      id: 'm',
      to: 'una@fulmar.example',
      subject: 'An invitation to Brackwater',
      text: 'Open http://127.0.0.1:4600/invitation/abc within 7 days.',
      writtenAt: '2026-10-14T09:30:00Z',
      sentAt: null,
      failure: null,
    };
    open('outbox', { '/outbox': { carried: false, mails: [mail] } });
    expect(await screen.findByLabelText('Link for una@fulmar.example')).toHaveProperty(
      'value',
      'http://127.0.0.1:4600/invitation/abc',
    );
    expect(screen.getByText(/nothing leaves this machine/)).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Send again' })).toBeNull();
  });

  it('are told of a message that the mail server refused, and can send it again', async () => {
    const refused = {
      ...{ id: 'm', to: 'una@fulmar.example', subject: 'An invitation', text: null },
      ...{ writtenAt: '2026-10-14T09:30:00Z', sentAt: null, failure: 'mailbox full' },
    };
    const asked = open('outbox', { '/outbox': { carried: true, mails: [refused] }, 'POST /outbox/m/send': {} });
    expect((await screen.findByRole('alert')).textContent).toBe('The mail server did not take it: mailbox full');
    await userEvent.click(screen.getByRole('button', { name: 'Send again' }));
    await waitFor(() => expect(changesOf(asked)).toHaveLength(1));
  });

  it('take everything along, and give the practice another name', async () => {
    const asked = open('data', { 'PUT /practice': { id: 'b', version: 2, name: 'Saltmarsh Soils', demo: true } });
    expect(screen.getByRole('link', { name: /Download the practice/ }).getAttribute('href')).toBe(
      '/api/practice/export',
    );
    const name = screen.getByRole('textbox', { name: /Name/ });
    await userEvent.clear(name);
    await userEvent.type(name, 'Saltmarsh Soils{Enter}');
    await waitFor(() => expect(changesOf(asked)[0]!.body).toMatchObject({ name: 'Saltmarsh Soils' }));
  });
});
